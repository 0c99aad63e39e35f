import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Act, Job } from '@fairwatt/core';
import { readJob, readWhole } from '../server/src/jobs/read.ts';
import { startServer, type RunningServer } from './running-server.ts';

let server: RunningServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(async () => {
  await server.end();
});

const without = <T extends object, K extends keyof T>(item: T, ...keys: readonly K[]): Omit<T, K> =>
  Object.fromEntries(Object.entries(item).filter(([key]) => !keys.includes(key as K))) as Omit<T, K>;

/** The acts that make an empty job into one like this. Things keep their ids where others refer to them. */
function actsFor(job: Job): Act[] {
  const anew = <T extends { readonly id: string }>(item: T): T => ({ ...item, id: randomUUID() });
  const maybe = <T>(item: T | null): readonly T[] => (item === null ? [] : [item]);
  const bare = ['version', 'by', 'at'] as const;
  return [
    { kind: 'edit-sheet', changes: without(job.sheet, 'fieldRevisions', 'version'), basedOn: 1 },
    ...job.parts.map((part): Act => ({ kind: 'put-part', part: without(part, 'version'), basedOn: 0 })),
    ...maybe(job.supply).map((supply): Act => ({
      kind: 'put-supply',
      supply: without(supply, 'version'),
      basedOn: 0,
    })),
    ...job.outcomes.map(({ checkId, outcomeId, instrumentId }): Act => ({
      kind: 'note-outcome',
      id: randomUUID(),
      checkId,
      outcomeId,
      instrumentId,
    })),
    ...job.readings.map((reading): Act => ({
      kind: 'take-reading',
      reading: { ...without(anew(reading), 'by', 'at', 'struckAt', 'fitting'), replaces: null },
    })),
    ...job.probes.map((probe): Act => ({ kind: 'put-probe', probe: without(anew(probe), ...bare), basedOn: 0 })),
    ...job.logs.map((log): Act => ({ kind: 'put-log', log: without(anew(log), ...bare), basedOn: 0 })),
    ...job.cables.map((cable): Act => ({ kind: 'put-cable', cable: without(cable, 'version'), basedOn: 0 })),
    ...maybe(job.finding).map((finding): Act => ({
      kind: 'set-finding',
      finding: without(finding, ...bare),
      basedOn: 0,
    })),
    ...maybe(job.choice).map((choice): Act => ({ kind: 'set-choice', choice: without(choice, ...bare), basedOn: 0 })),
    ...job.seats.map((seat): Act => ({
      kind: 'put-seat',
      seat: without(seat, ...bare, 'rechecked', 'inletKind'),
      basedOn: 0,
    })),
    ...(job.seats.length === 0
      ? []
      : [{ kind: 'recheck-seats' as const, inletIds: job.seats.map((seat) => seat.inletId) }]),
    ...job.pins.map((pin): Act => ({ kind: 'put-pin', pin: without(pin, ...bare), basedOn: 0 })),
    ...job.steps.map(({ stepId }): Act => ({ kind: 'tick-step', stepId })),
    ...job.proofs.map(({ item, holds, note }): Act => ({ kind: 'note-proof', item, holds, note, basedOn: 0 })),
    ...job.signOffs.map(({ point, reason }): Act => ({ kind: 'sign-off', id: randomUUID(), point, reason })),
  ];
}

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
      };
      for (const done of actsFor(like)) await act(done);
      expect(refused).toEqual([]);
      for (const done of undoing((await server.call<Job>(`/jobs/${made.code}`)).body)) await act(done);
      expect(refused).toEqual([]);
    },
    60_000,
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
