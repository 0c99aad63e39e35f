import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Job, ShopRecord } from '@fairwatt/core';
import type { Problem, RecordMessage, ShopMessage } from '@fairwatt/contract';
import { startServer, type RunningServer } from '../../../tests/running-server.ts';

let server: RunningServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(async () => {
  await server.end();
});

const record = async () => (await server.call<RecordMessage>('/record')).body;
const timesSeen = (
  counts: ShopRecord,
  checkId: string,
  outcomeId: string,
  faultId: string,
  instrumentId: string | null,
) =>
  counts.outcomes.find(
    (item) =>
      item.checkId === checkId &&
      item.outcomeId === outcomeId &&
      item.faultId === faultId &&
      item.instrumentId === instrumentId,
  )?.count ?? 0;

/** A job whose weak supply the old tester passed, closed with the finding confirmed or not. */
async function closedJob(confirmed: boolean): Promise<Job> {
  const { code, sheet } = await server.make();
  await server.act(code, { kind: 'edit-sheet', changes: { button: 'cuts-load' }, basedOn: sheet.version });
  await server.act(code, {
    kind: 'note-outcome',
    id: randomUUID(),
    checkId: 'm-tester',
    outcomeId: 'all-good',
    instrumentId: 'old-tester',
  });
  await server.act(code, { kind: 'note-outcome', id: randomUUID(), checkId: 'look-dust', outcomeId: 'unknown' });
  await server.act(code, {
    kind: 'set-finding',
    finding: { kind: 'fault', faultId: 'psu-weak', confirmed, note: '' },
    basedOn: 0,
  });
  const { body } = await server.act(code, {
    kind: 'set-choice',
    choice: { kind: 'keep', modelId: null, known: [], reason: 'Swapped back at the client.' },
    basedOn: 0,
  });
  if (!confirmed)
    await server.act(code, {
      kind: 'sign-off',
      id: randomUUID(),
      point: 'not-confirmed',
      reason: 'Client took it away.',
    });
  const closed = await server.act(code, { kind: 'close', basedOn: body.stateVersion });
  expect(closed.status).toBe(200);
  return closed.body;
}

describe("the shop's record", () => {
  it('adds what a closed job with a confirmed fault showed, and takes it out when it is opened again', async () => {
    const before = await record();
    const job = await closedJob(true);
    const after = await record();
    expect(after.counts.jobs).toBe(before.counts.jobs + 1);
    expect(after.jobs[0]).toMatchObject({ code: job.code, faultId: 'psu-weak', leftOut: false });
    expect(timesSeen(after.counts, 'm-tester', 'all-good', 'psu-weak', 'old-tester')).toBe(
      timesSeen(before.counts, 'm-tester', 'all-good', 'psu-weak', 'old-tester') + 1,
    );
    expect(timesSeen(after.counts, 'told-button', 'cuts-load', 'psu-weak', null)).toBe(
      timesSeen(before.counts, 'told-button', 'cuts-load', 'psu-weak', null) + 1,
    );
    expect(after.counts.outcomes.some((item) => item.outcomeId === 'unknown')).toBe(false);
    await server.act(job.code, { kind: 'reopen', basedOn: job.stateVersion });
    expect((await record()).counts).toEqual(before.counts);
  });
  it('learns nothing from a finding that was not confirmed', async () => {
    const before = await record();
    await closedJob(false);
    expect((await record()).counts).toEqual(before.counts);
  });
  it('lets an owner, and only an owner, leave a job out and count it again, with an event', async () => {
    const job = await closedJob(true);
    const counted = await record();
    const change = (by: string, leftOut: boolean, was: boolean) =>
      server.call<RecordMessage & Problem>(`/record/jobs/${job.code}`, { by, leftOut, was }, 'PUT');
    expect(await change('joss', true, false)).toMatchObject({ status: 403, body: { type: '/problems/not-an-owner' } });
    expect((await change('nobody', true, false)).status).toBe(403);
    const left = await change('mara', true, false);
    expect(left.body.counts).toMatchObject({ jobs: counted.counts.jobs - 1, leftOut: counted.counts.leftOut + 1 });
    expect((await change('mara', true, false)).status).toBe(409);
    // Reopened and closed again it is still left out.
    const reopened = await server.act(job.code, { kind: 'reopen', basedOn: job.stateVersion });
    await server.act(job.code, { kind: 'close', basedOn: reopened.body.stateVersion });
    expect((await record()).jobs.find((item) => item.code === job.code)?.leftOut).toBe(true);
    expect((await change('mara', false, true)).body.counts).toEqual(counted.counts);
    const events = await server.call<{ events: { kind: string }[] }>(`/jobs/${job.code}/events`);
    expect(events.body.events.map((event) => event.kind)).toEqual(expect.arrayContaining(['leave-out', 'count-again']));
    expect(
      (await server.call<Problem>('/record/jobs/LQ-0142', { by: 'mara', leftOut: true, was: false }, 'PUT')).status,
    ).toBe(404);
    expect(
      (await server.call<Problem>('/record/jobs/LQ-0142', { by: 'mara', leftOut: 'yes', was: false }, 'PUT')).body
        .errors,
    ).toMatchObject([{ path: 'leftOut' }]);
  });
  it('has the sums of its jobs, whatever was done to them and by however many at once', async () => {
    const jobs = await Promise.all(Array.from({ length: 6 }, () => closedJob(true)));
    const leaveOut = ({ code }: Job, leftOut: boolean, was: boolean) =>
      server.call(`/record/jobs/${code}`, { by: 'mara', leftOut, was }, 'PUT');
    // Twice the same, in turns, reopened while it is left out, and all of them at once.
    await Promise.all([
      leaveOut(jobs[0]!, true, false).then(() => leaveOut(jobs[0]!, true, true)),
      leaveOut(jobs[1]!, false, false),
      leaveOut(jobs[2]!, true, false).then(() => leaveOut(jobs[2]!, false, true)),
      leaveOut(jobs[3]!, true, false).then(() =>
        server.act(jobs[3]!.code, { kind: 'reopen', basedOn: jobs[3]!.stateVersion }),
      ),
      server.act(jobs[4]!.code, { kind: 'reopen', basedOn: jobs[4]!.stateVersion }),
    ]);
    const kept = (await record()).counts;
    const { rows: lessons } = await server.pool.query<{ job: string; fault: string }>(
      `select job_id as job, fault_id as fault from job_lesson join job on job.id = job_id where not left_out`,
    );
    expect(kept.jobs).toBe(lessons.length);
    expect(kept.faults).toEqual(
      [...new Set(lessons.map(({ fault }) => fault))]
        .sort()
        .map((faultId) => ({ faultId, count: lessons.filter(({ fault }) => fault === faultId).length })),
    );
    const { rows: outcomes } = await server.pool.query(
      `select check_id as "checkId", outcome_id as "outcomeId", fault_id as "faultId",
          instrument_id as "instrumentId", count(*)::integer as count
        from job_lesson_outcome join job_lesson using (job_id) join job on job.id = job_id
        where not left_out group by 1, 2, 3, 4 order by 1, 2, 3, 4`,
    );
    expect(kept.outcomes).toEqual(outcomes);
  });
  it('moves what the list says of an open job', async () => {
    const job = await server.make('Same words, other weight');
    const say = async () => (await server.list('?search=other%20weight')).jobs[0]!.stations[1]!.line;
    await server.act(job.code, { kind: 'edit-sheet', changes: { button: 'cuts-load' }, basedOn: job.sheet.version });
    const before = await say();
    for (let count = 0; count < 12; count += 1) await closedJob(true);
    await server.act(job.code, { kind: 'edit-sheet', changes: { words: 'Again' }, basedOn: job.sheet.version + 1 });
    expect(await say()).not.toBe(before);
  });
  it('refuses an outcome by an instrument that is not here', async () => {
    const { code } = await server.make();
    expect(
      await server.act<Problem>(code, {
        kind: 'note-outcome',
        id: randomUUID(),
        checkId: 'm-tester',
        outcomeId: 'all-good',
        instrumentId: 'borrowed',
      }),
    ).toMatchObject({ status: 422, body: { errors: [{ path: 'instrumentId' }] } });
  });
});

describe('settings', () => {
  const put = (by: string, basedOn: number, settings: unknown) =>
    server.call<ShopMessage & Problem>('/shop/settings', { by, basedOn, settings }, 'PUT');
  it('are changed by an owner, on the version that was seen', async () => {
    const { settings, settingsVersion } = (await server.call<ShopMessage>('/shop')).body;
    const poorer = { ...settings, bench: { has: ['meter'], mayMeterMains: false } };
    expect(await put('joss', settingsVersion, poorer)).toMatchObject({
      status: 403,
      body: { type: '/problems/not-an-owner' },
    });
    expect(await put('mara', settingsVersion, poorer)).toMatchObject({
      status: 200,
      body: { settings: poorer, settingsVersion: settingsVersion + 1 },
    });
    expect(await put('mara', settingsVersion, settings)).toMatchObject({
      status: 409,
      body: { current: { settings: poorer } },
    });
    expect((await put('mara', settingsVersion + 1, { ...settings, stopProbability: 2 })).body.errors).toMatchObject([
      { path: 'settings.stopProbability' },
    ]);
    expect((await put('mara', settingsVersion + 1, settings)).status).toBe(200);
  });
});
