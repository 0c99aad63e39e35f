import express, { Router } from 'express';
import type pg from 'pg';
import { presenceMessageSchema, presentSchema } from '@fairwatt/contract';
import { signedInput, type SessionWatch } from '../access/index.ts';
import { jobIdOf } from '../jobs/read.ts';
import { codeOf, noJob } from '../jobs/refusals.ts';
import { stream } from '../streams.ts';
import type { ChangeFeed } from './feed.ts';
import { notePresence, presentAt } from './presence.ts';

/** What changes, as it changes, and who is at which job. */
export function changeRoutes(pool: pg.Pool, feed: ChangeFeed, sessions: SessionWatch, now: () => string): Router {
  const router = Router();
  router.get('/events', (request, response) => {
    const { send, closed } = stream(request, response, sessions);
    const leave = feed.listen(send);
    closed.addEventListener('abort', leave);
  });
  router.post('/presence', express.json({ limit: '2kb' }), async (request, response) => {
    const { tab, by, code } = await signedInput(pool, request, presenceMessageSchema, request.body, 'The message');
    const change = await notePresence(pool, tab, by, code, now());
    if (change === 'no-job') throw noJob(code ?? '');
    response.status(204).end();
  });
  router.get('/jobs/:code/presence', async (request, response) => {
    const code = codeOf(request.params['code']);
    const jobId = await jobIdOf(pool, code);
    if (jobId === null) throw noJob(code);
    response.json(presentSchema.parse(await presentAt(pool, jobId, now())));
  });
  return router;
}
