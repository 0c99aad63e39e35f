import express, { Router } from 'express';
import {
  actSchema,
  jobEventsSchema,
  jobFileSchema,
  jobListQuerySchema,
  jobListSchema,
  newJobSchema,
  usualMachinesSchema,
} from '@fairwatt/contract';
import { type Secrets, signedInput } from '../access/index.ts';
import type { Reading } from '../database/reading.ts';
import { parseInput } from '../problems.ts';
import { actRoutes } from './act-routes.ts';
import type { Acting } from './acting.ts';
import { importRoutes } from './import-routes.ts';
import { jobText } from './job-text.ts';
import { listJobs, usualMachines } from './list.ts';
import { logRoutes } from './log-routes.ts';
import { jobIdOf, readJob } from './read.ts';
import { codeOf, known, noJob } from './refusals.ts';
import type { StationKeeper } from './station-keeper.ts';
import { createJob, exportJob, listEvents } from './store.ts';

/** What the routes of jobs are served with. */
export interface JobServing extends Acting {
  readonly reading: Reading;
  readonly keeper: StationKeeper;
  /** By which a second person signs. */
  readonly secrets: Secrets;
  readonly now: () => string;
}

/** Jobs: listed, made, read, taken in and out as files, acted on. */
export function jobRoutes({ pool, reading, model, workers, keeper, secrets, now }: JobServing): Router {
  const router = Router();
  const body = express.json({ limit: '1mb' });

  router.get('/', async (request, response) => {
    const query = parseInput(jobListQuerySchema, request.query, 'The query');
    response.json(jobListSchema.parse(await listJobs(reading, model, keeper, query)));
  });
  router.post('/', body, async (request, response) => {
    const outcome = known(
      await createJob(pool, model, await signedInput(pool, request, newJobSchema, request.body, 'The new job'), now()),
    );
    response.status(201).type('application/json').send(jobText(outcome.value));
  });
  router.get('/usual-machines', async (_request, response) => {
    response.json(usualMachinesSchema.parse(await reading.read(usualMachines)));
  });
  router.get('/:code', async (request, response) => {
    const code = codeOf(request.params['code']);
    const stored = await readJob(pool, code);
    if (stored === null) throw noJob(code);
    response.type('application/json').send(jobText(stored.job));
  });
  router.get('/:code/file', async (request, response) => {
    const code = codeOf(request.params['code']);
    const file = await reading.snapshot((db) => exportJob(db, code, now()));
    if (file === null) throw noJob(code);
    response
      .attachment(`${code}.fairwatt-job.json`)
      .type('application/json')
      .send(`${JSON.stringify(jobFileSchema.parse(file), null, 2)}\n`);
  });
  router.get('/:code/events', async (request, response) => {
    const code = codeOf(request.params['code']);
    const events = await reading.snapshot(async (db) => {
      const jobId = await jobIdOf(db, code);
      return jobId === null ? null : listEvents(db, jobId);
    });
    if (events === null) throw noJob(code);
    const readable = events.map((event) => ({ ...event, act: actSchema.safeParse(event.detail).data ?? null }));
    response.json(jobEventsSchema.parse({ events: readable }));
  });
  router.use(importRoutes(pool, model, now));
  router.use(logRoutes(pool));
  router.use(actRoutes({ pool, model, workers }, secrets, now));
  return router;
}
