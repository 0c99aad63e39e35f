import { randomUUID } from 'node:crypto';
import { setTimeout as wait } from 'node:timers/promises';
import { pino } from 'pino';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Job } from '@fairwatt/core';
import { firstJobPage } from '@fairwatt/contract';
import { loadModel, StationKeeper, type Workers } from '@fairwatt/server';
import { Reading } from '../server/src/database/reading.ts';
import { listJobs } from '../server/src/jobs/list.ts';
import { startServer, type RunningServer } from './running-server.ts';

const log = pino({ level: 'silent' });
const openOnes = { ...firstJobPage, state: 'open' as const };
let server: RunningServer;
let reading: Reading;
beforeAll(async () => {
  server = await startServer();
  reading = new Reading(server.pool, null, log);
});
afterAll(async () => {
  await server.end();
});

/** Threads that do what a test says; everything else of theirs is not asked for. */
const threads = (renewStations: (jobId: number) => Promise<void>, program: string) =>
  ({ program, renewStations, indexJobs: () => Promise.resolve() }) as unknown as Workers;
const programOf = async () =>
  (await server.pool.query<{ program: string }>('select program from job_station_source limit 1')).rows[0]!.program;
const edit = async (code: string) => {
  const { body } = await server.call<Job>(`/jobs/${code}`);
  await server.act(code, { kind: 'edit-sheet', changes: { watch: randomUUID() }, basedOn: body.sheet.version });
};

describe('what stations say in a list', () => {
  it('is shown as it was, and marked, while it is made anew for longer than a reader waits', async () => {
    const before = await server.list('?state=open');
    await edit('LQ-0142');
    let asked = 0;
    const stuck = new StationKeeper(
      server.pool,
      threads(
        () => {
          asked += 1;
          return new Promise(() => undefined);
        },
        await programOf(),
      ),
      log,
    );
    const seen = await listJobs(reading, await loadModel(), stuck, openOnes);
    const old = seen.jobs.find((job) => job.code === 'LQ-0142')!;
    expect(old.fresh).toBe(false);
    expect(old.stations).toEqual(before.jobs.find((job) => job.code === 'LQ-0142')!.stations);
    expect(seen.jobs.filter((job) => !job.fresh)).toHaveLength(1);
    // Somebody else's list does not ask for the same work once more.
    await listJobs(reading, await loadModel(), stuck, openOnes);
    expect(asked).toBe(1);
    stuck.end();
  });
  it('is made anew after the job, the shelf or the record changed, each time to what a fresh look says', async () => {
    for (const change of [
      () => edit('LQ-0143'),
      () => server.pool.query('update supply_model set price_minor = price_minor + 1'),
      () => server.pool.query('update shop_record set revision = gen_random_uuid()'),
    ]) {
      await server.list('?state=open');
      await change();
      const { rows } = await server.pool.query<{ old: boolean }>(
        `select exists (select from job join job_station_source source on source.job_id = job.id
          where job.state = 'open' and (source.job_stamp <> job.stamp
            or source.shelf_stamp <> (select stamp from shelf_stamp)
            or source.record_revision <> (select revision from shop_record))) as old`,
      );
      expect(rows[0]!.old).toBe(true);
      expect((await server.list('?state=open')).jobs.every((job) => job.fresh)).toBe(true);
    }
  });
  it('of another program is not shown, since this one may not know its words', async () => {
    await server.list('?state=open');
    const other = new StationKeeper(
      server.pool,
      threads(() => new Promise(() => undefined), 'another program'),
      log,
    );
    const seen = await listJobs(reading, await loadModel(), other, openOnes);
    expect(seen.jobs.every((job) => !job.fresh && job.stations.length === 0)).toBe(true);
    other.end();
  });
  it('is looked after in the background, and left alone while somebody is at the job', async () => {
    await server.list('?state=open');
    const renewed: number[] = [];
    const program = await programOf();
    const keeper = new StationKeeper(
      server.pool,
      threads(async (jobId) => {
        renewed.push(jobId);
        await server.pool.query(
          `update job_station_source set job_stamp = (select stamp from job where id = $1) where job_id = $1`,
          [jobId],
        );
      }, program),
      log,
    );
    await edit('LQ-0144');
    keeper.heard({ topic: 'job', code: 'LQ-0144', revision: 1 });
    await wait(1500);
    expect(renewed).toEqual([]);
    await expect.poll(() => renewed).toHaveLength(1);
    const { rows } = await server.pool.query<{ id: number }>("select id from job where code = 'LQ-0144'");
    expect(renewed).toEqual([rows[0]!.id]);
    keeper.end();
  });
  it('is made anew once in a round where it is old again at once', async () => {
    const open = (await server.list('?state=open')).total;
    await server.pool.query("update job set updated_at = updated_at - interval '1 hour' where state = 'open'");
    // Every line was written by another program, and is still so however often it is made anew.
    const renewed: number[] = [];
    const keeper = new StationKeeper(
      server.pool,
      threads((jobId) => {
        renewed.push(jobId);
        return Promise.resolve();
      }, 'another program'),
      log,
    );
    keeper.heard({ topic: 'everything', code: null, revision: null });
    await expect.poll(() => new Set(renewed).size).toBe(open);
    await wait(500);
    // Rounds are three seconds apart.
    expect(renewed.length).toBeLessThan(5 * open);
    keeper.end();
  });
  it('stays old where a thread fails, and the list is given all the same', async () => {
    await server.list('?state=open');
    await edit('LQ-0145');
    const broken = new StationKeeper(
      server.pool,
      threads(() => Promise.reject(new Error('no')), await programOf()),
      log,
    );
    const seen = await listJobs(reading, await loadModel(), broken, openOnes);
    expect(seen.jobs.find((job) => job.code === 'LQ-0145')?.fresh).toBe(false);
    broken.end();
  });
  it('makes jobs findable that an older program left behind', async () => {
    await server.pool.query("delete from job_search where job_id = (select id from job where code = 'LQ-0137')");
    expect((await server.list('?search=lq0137')).total).toBe(0);
    const { keeper } = server;
    keeper.heard({ topic: 'everything', code: null, revision: null });
    const found = async () => (await server.list('?search=lq0137')).jobs;
    await expect.poll(found).toHaveLength(1);
    expect((await found())[0]).toMatchObject({ code: 'LQ-0137', hit: { field: 'code' } });
  });
});
