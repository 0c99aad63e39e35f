import fc from 'fast-check';
import { pino } from 'pino';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { readJob, readWhole } from '../server/src/jobs/read.ts';
import { fault, requests } from './fuzz-requests.ts';
import { startServer, type RunningServer } from './running-server.ts';

let server: RunningServer;
const refusedByDatabaseOnly: string[] = [];
beforeAll(async () => {
  const log = pino({ level: 'error' }, { write: (line: string) => refusedByDatabaseOnly.push(line) });
  server = await startServer({ log });
});
afterAll(async () => {
  await server.end();
});

it('answers 2,000 requests that know its schemas without a failure, each refusal as a problem document', async () => {
  const found: string[] = [];
  for (const request of fc.sample(requests, { numRuns: 2000, seed: 2026 })) {
    const response = await fetch(`${server.base}${request.path}`, {
      method: request.method,
      headers: request.headers,
      ...(request.body === undefined ? {} : { body: request.body as BodyInit }),
    });
    const wrong = fault(request, response.status, response.headers.get('content-type') ?? '', await response.text());
    if (wrong !== null) found.push(wrong);
  }
  expect(found).toEqual([]);
  // A value that only the database refuses should have been told at its field.
  expect(refusedByDatabaseOnly.filter((line) => line.includes('refused by the database only'))).toEqual([]);
  for (const code of ['LQ-0142', 'LQ-0143', 'LQ-0146']) {
    expect((await server.call(`/jobs/${code}`)).status, code).toBe(200);
    const kept = (await readJob(server.pool, code))!;
    expect(await readWhole(server.pool, kept.id), code).toEqual(kept);
  }
});
