import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Act, Job } from '@fairwatt/core';
import { jobSchema } from '@fairwatt/contract';
import { jobText } from '../server/src/jobs/job-text.ts';
import { readJob, readWhole } from '../server/src/jobs/read.ts';
import { actsFor } from './job-acts.ts';
import { startServer, type RunningServer } from './running-server.ts';

let server: RunningServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(async () => {
  await server.end();
});

const undoing = (job: Job): Act[] => [
  ...job.readings.slice(0, 1).map(({ id }): Act => ({ kind: 'strike-reading', id })),
  ...job.outcomes.slice(0, 1).map(({ id }): Act => ({ kind: 'take-back-outcome', id })),
  ...job.cables.slice(0, 1).map(({ id, version }): Act => ({ kind: 'drop-cable', cableId: id, basedOn: version })),
  ...job.parts.slice(0, 1).map(({ id, version }): Act => ({ kind: 'drop-part', partId: id, basedOn: version })),
];

describe('a job that is kept in memory', () => {
  it.each(['LQ-0142', 'LQ-0143', 'LQ-0144', 'LQ-0145', 'LQ-0146', 'LQ-0147'])(
    'is what the tables hold, after every act that makes and unmakes one like %s',
    async (code) => {
      const like = (await server.call<Job>(`/jobs/${code}`)).body;
      const made = await server.make();
      const refused: unknown[] = [];
      const act = async (done: Act) => {
        const answer = await server.act<unknown>(made.code, done);
        if (answer.status !== 200) refused.push([done.kind, answer.body]);
        const kept = (await readJob(server.pool, made.code))!;
        expect((await readWhole(server.pool, kept.id))!, done.kind).toEqual(kept);
        expect(jobText(kept.job), done.kind).toBe(JSON.stringify(jobSchema.parse(kept.job)));
      };
      for (const done of actsFor(like)) await act(done);
      expect(refused).toEqual([]);
      for (const done of undoing((await server.call<Job>(`/jobs/${made.code}`)).body)) await act(done);
      expect(refused).toEqual([]);
    },
  );
  it('is read anew where its row says that it is another', async () => {
    const made = await server.make();
    const before = await readJob(server.pool, made.code);
    await server.pool.query(
      "update job set words = 'Written past the program', stamp = gen_random_uuid() where code = $1",
      [made.code],
    );
    expect(before!.job.sheet.words).toBe('Words');
    expect((await readJob(server.pool, made.code))!.job.sheet.words).toBe('Written past the program');
  });
});
