import express, { Router, type Response } from 'express';
import { z } from 'zod';
import type { Job } from '@fairwatt/core';
import {
  actMessageSchema,
  actsDoneSchema,
  actsTogetherSchema,
  actSchema,
  id,
  jobEventsSchema,
  jobFileFormat,
  jobFileSchema,
  jobFileVersion,
  jobListQuerySchema,
  jobListSchema,
  jobSchema,
  presentJobFile,
  revisionHeader,
  secondMessageSchema,
  type ActMessage,
  mostOriginalBytes,
  newJobSchema,
  usualMachinesSchema,
  uuid,
} from '@fairwatt/contract';
import { demandAct, demandActs, holdToPerson, secondPerson, signedInput } from '../access/index.ts';
import { snapshot } from '../database/query.ts';
import { HttpProblem, parseInput } from '../problems.ts';
import { pictureOf } from './photos.ts';
import { jobIdOf, readJob } from './read.ts';
import { contentHash } from './events.ts';
import { codeOf, idTaken, noJob, stopped } from './refusals.ts';
import { actOnJob, type Acting, type ActsOutcome, type Sent } from './acting.ts';
import { listJobs, usualMachines } from './list.ts';
import type { StationKeeper } from './station-keeper.ts';
import { createJob, exportJob, importJob, listEvents, putOriginal, readOriginal, type IdTaken } from './store.ts';

const known = <T extends { kind: string }>(outcome: T | IdTaken): Exclude<T, IdTaken> => {
  if (outcome.kind === 'id-taken') throw idTaken();
  return outcome as Exclude<T, IdTaken>;
};

type ActsDone = Extract<ActsOutcome, { readonly kind: 'done' }>;

/** A file of another kind or version is named as such before its fields are looked at. */
function checkFileHead(body: unknown): void {
  const head = z.object({ format: z.unknown(), version: z.unknown() }).safeParse(body);
  if (!head.success || head.data.format !== jobFileFormat)
    throw new HttpProblem(422, 'not-a-job-file', 'This is not a Fair Watt job file', {
      errors: [{ path: 'format', message: `must be ${jobFileFormat}` }],
    });
  if (head.data.version !== 1 && head.data.version !== jobFileVersion)
    throw new HttpProblem(
      422,
      'other-version',
      `This job file has version ${String(head.data.version).slice(0, 12)}; versions 1 to ` +
        `${jobFileVersion} are read here`,
      { errors: [{ path: 'version', message: `must be 1 to ${jobFileVersion}` }] },
    );
}

const texts = new WeakMap<Job, string>();

/** A job as it is sent, in its schema; written once for a job that is kept. */
function jobText(job: Job): string {
  const known = texts.get(job);
  if (known !== undefined) return known;
  const text = JSON.stringify(jobSchema.parse(job));
  texts.set(job, text);
  return text;
}

/** What the routes of jobs are served with. */
export interface JobServing extends Acting {
  readonly keeper: StationKeeper;
  readonly now: () => string;
}

export function jobRoutes({ pool, model, workers, keeper, now }: JobServing): Router {
  const router = Router();
  const body = express.json({ limit: '1mb' });

  router.get('/', async (request, response) => {
    const query = parseInput(jobListQuerySchema, request.query, 'The query');
    response.json(jobListSchema.parse(await listJobs(pool, model, keeper, query)));
  });
  router.post('/', body, async (request, response) => {
    const outcome = known(
      await createJob(pool, model, await signedInput(pool, request, newJobSchema, request.body, 'The new job'), now()),
    );
    response.status(201).type('application/json').send(jobText(outcome.value));
  });
  router.post('/import', express.json({ limit: '32mb' }), async (request, response) => {
    const query = await signedInput(
      pool,
      request,
      z.strictObject({ by: id, as: z.enum(['same', 'new']).default('same') }),
      request.query,
      'The query',
    );
    checkFileHead(request.body);
    const file = parseInput(jobFileSchema, presentJobFile(request.body), 'The job file');
    const errors = file.photos.flatMap((photo, index) =>
      pictureOf(Buffer.from(photo.data, 'base64'))?.format === photo.format
        ? []
        : [{ path: `photos.${index}.data`, message: `is no ${photo.format}` }],
    );
    if (errors.length > 0) throw new HttpProblem(422, 'invalid', 'The job file is not valid', { errors });
    const outcome = known(await importJob(pool, model, file, query.by, query.as, now()));
    if (outcome.kind === 'code-taken')
      throw new HttpProblem(
        409,
        'code-taken',
        'A job with this code is already here; import it under a new code, or leave it',
        { errors: [{ path: 'job.code', message: 'already here' }] },
      );
    response.status(201).type('application/json').send(jobText(outcome.value));
  });
  router.get('/usual-machines', async (_request, response) => {
    response.json(usualMachinesSchema.parse(await usualMachines(pool)));
  });
  router.get('/:code', async (request, response) => {
    const code = codeOf(request.params['code']);
    const stored = await snapshot(pool, (db) => readJob(db, code));
    if (stored === null) throw noJob(code);
    response.type('application/json').send(jobText(stored.job));
  });
  router.get('/:code/file', async (request, response) => {
    const code = codeOf(request.params['code']);
    const file = await snapshot(pool, (db) => exportJob(db, code, now()));
    if (file === null) throw noJob(code);
    response
      .attachment(`${code}.fairwatt-job.json`)
      .type('application/json')
      .send(`${JSON.stringify(jobFileSchema.parse(file), null, 2)}\n`);
  });
  router.get('/:code/events', async (request, response) => {
    const code = codeOf(request.params['code']);
    const events = await snapshot(pool, async (db) => {
      const jobId = await jobIdOf(db, code);
      return jobId === null ? null : listEvents(db, jobId);
    });
    if (events === null) throw noJob(code);
    const readable = events.map((event) => ({ ...event, act: actSchema.safeParse(event.detail).data ?? null }));
    response.json(jobEventsSchema.parse({ events: readable }));
  });
  const noLog = () =>
    new HttpProblem(404, 'no-such-log', 'This job keeps no such log', {
      errors: [{ path: 'id', message: 'no such log' }],
    });
  router.put(
    '/:code/logs/:id/original',
    express.text({ limit: mostOriginalBytes, type: 'text/csv' }),
    async (request, response) => {
      const logId = parseInput(uuid, request.params['id'], 'The log');
      const original = parseInput(z.string().min(1), request.body, 'The file');
      if (original.includes('\0'))
        throw new HttpProblem(422, 'binary', 'This is no text file', {
          errors: [{ path: 'body', message: 'contains bytes that are no text' }],
        });
      if (!(await putOriginal(pool, codeOf(request.params['code']), logId, original))) throw noLog();
      response.status(204).end();
    },
  );
  router.get('/:code/logs/:id/original', async (request, response) => {
    const original = await readOriginal(
      pool,
      codeOf(request.params['code']),
      parseInput(uuid, request.params['id'], 'The log'),
    );
    if (original === null) throw noLog();
    response.type('text/csv').send(original);
  });
  const acting: Acting = { pool, model, workers };
  /** Does acts. @throws HttpProblem 404 for no such job */
  async function done(code: string, sent: readonly [Sent, ...Sent[]]): Promise<ActsDone> {
    const outcome = await actOnJob(acting, code, sent, now());
    if (outcome.kind === 'no-job') throw noJob(code);
    return outcome;
  }
  /** Does an act and answers with the job, or with why not and how the job stands. */
  async function act(response: Response, code: string, message: ActMessage, hash: string): Promise<void> {
    const { value, revisions, stop } = await done(code, [{ message, hash }]);
    if (stop !== null) throw stopped(stop, value);
    response.set(revisionHeader, String(revisions[0])).type('application/json').send(jobText(value));
  }
  router.post('/:code/acts', body, async (request, response) => {
    const code = codeOf(request.params['code']);
    demandAct(request, request.body);
    const message = parseInput(actMessageSchema, request.body, 'The change');
    holdToPerson(request, message.by);
    await act(response, code, message, contentHash(request.body));
  });
  router.post('/:code/acts/together', body, async (request, response) => {
    const code = codeOf(request.params['code']);
    demandActs(request, request.body);
    const { messages } = parseInput(actsTogetherSchema, request.body, 'The changes');
    // The schema takes no empty list, and what was parsed has the places of what came.
    const came = (request.body as { messages: readonly unknown[] }).messages;
    const sent = messages.map((message, index) => ({ message, hash: contentHash(came[index]) })) as [Sent, ...Sent[]];
    holdToPerson(request, sent[0].message.by);
    const { value, revisions, stop } = await done(code, sent);
    const problem = stop === null ? null : stopped(stop, value).problem;
    response.json(actsDoneSchema.parse({ revisions, problem, job: value }));
  });
  router.post('/:code/acts/second', body, async (request, response) => {
    const code = codeOf(request.params['code']);
    const { name, secret, message } = parseInput(secondMessageSchema, request.body, 'The signature');
    holdToPerson(request, message.by);
    const second = await secondPerson(pool, request, name, secret, now());
    const signed = { ...message, by: second };
    await act(response, code, signed, contentHash(signed));
  });
  return router;
}
