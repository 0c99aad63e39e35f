import express, { Router } from 'express';
import type pg from 'pg';
import { leaveOutSchema, recordSchema } from '@fairwatt/contract';
import { signedInput } from '../access/index.ts';
import { codeOf, noJob } from '../jobs/refusals.ts';
import { snapshot } from '../database/query.ts';
import type { Reading } from '../database/reading.ts';
import { HttpProblem } from '../problems.ts';
import { leaveOut, readRecord } from './store.ts';

/** What the shop's closed jobs teach, and the owner's say over which of them count. */
export function recordRoutes(pool: pg.Pool, reading: Reading, now: () => string): Router {
  const router = Router();
  router.get('/', async (_request, response) => {
    response.json(recordSchema.parse(await reading.snapshot(readRecord)));
  });
  router.put('/jobs/:code', express.json({ limit: '10kb' }), async (request, response) => {
    const code = codeOf(request.params['code']);
    const outcome = await leaveOut(
      pool,
      code,
      await signedInput(pool, request, leaveOutSchema, request.body, 'The change'),
      now(),
    );
    switch (outcome.kind) {
      case 'no-lesson':
        throw noJob(code);
      case 'stale':
        throw new HttpProblem(409, 'stale', 'Somebody changed this since you saw it', {
          current: recordSchema.parse(await snapshot(pool, readRecord)),
        });
      case 'done':
        response.json(recordSchema.parse(outcome.value));
    }
  });
  return router;
}
