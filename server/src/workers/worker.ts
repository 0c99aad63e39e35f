import { workerData } from 'piscina';
import type pg from 'pg';
import { pino } from 'pino';
import { unanswered, viewJob, writtenAs } from '@fairwatt/core';
import { createPool } from '../database/pool.ts';
import { Primary } from '../database/primary.ts';
import { untilAnswers } from '../database/until-answers.ts';
import { snapshot, transaction } from '../database/query.ts';
import { labelsPdf, scheduleCsv, schedulePdf, supplyLabelPdf } from '../jobs/documents.ts';
import { readJob, readStamped } from '../jobs/read.ts';
import { indexJob } from '../jobs/search.ts';
import { stampOfJob, stationsNow, writeStations } from '../jobs/station-lines.ts';
import { readComputingShop, readShopStamps } from '../jobs/store.ts';
import { loadModel } from '../knowledge.ts';
import { lessonOf } from '../record/store.ts';
import { searchNamesOf } from '../shop/shelf.ts';
import { readTechnicians } from '../shop/store.ts';
import type { Closing, OrderInThread, Paper, PaperOrder, WorkerStart } from './tasks.ts';

// A thread beside the server: it reads what it needs by itself, so that nothing large passes from thread to thread.
const start = workerData as WorkerStart;
const log = pino({ level: 'silent' });
const model = await loadModel();

/** Connections to a shop's database. */
interface Connected {
  readonly pool: pg.Pool;
  readonly primary: Primary;
}

/** Those to the shops that were worked for last. */
const connected = new Map<string, Connected>();
const mostConnected = 500;

async function poolOf(databaseUrl: string): Promise<pg.Pool> {
  const known = connected.get(databaseUrl);
  if (known !== undefined) return known.pool;
  const primary = new Primary(databaseUrl, log);
  const pool = createPool(primary, log, { most: 2, idleMilliseconds: 5000 });
  if (!primary.isKnown) await untilAnswers(primary, pool, () => undefined);
  connected.set(databaseUrl, { pool, primary });
  const [oldest] = connected;
  if (connected.size > mostConnected && oldest !== undefined) {
    connected.delete(oldest[0]);
    await Promise.all([oldest[1].pool.end(), oldest[1].primary.close()]);
  }
  return pool;
}

/** A job and the shop at one moment; null where it is gone. */
const jobAndShop = (pool: pg.Pool, jobId: number) =>
  snapshot(pool, async (db) => {
    const stamps = await readShopStamps(db);
    const stamp = await stampOfJob(db, jobId);
    const stored = stamp === null ? null : await readStamped(db, jobId, stamp);
    return stored === null ? null : { stored, stamps, shop: await readComputingShop(db, model, stamps) };
  });

async function renewStations(pool: pg.Pool, jobId: number): Promise<void> {
  const found = await jobAndShop(pool, jobId);
  if (found === null) return;
  const { stored, stamps, shop } = found;
  const stations = stationsNow(stored.job, shop);
  const source = { ...stamps, jobStamp: stored.stamp, program: start.program };
  await transaction(pool, (db) => writeStations(db, jobId, stations, source));
}

async function indexJobs(pool: pg.Pool, jobIds: readonly number[]): Promise<void> {
  for (const id of jobIds) {
    const found = await jobAndShop(pool, id);
    if (found !== null) await indexJob(pool, id, found.stored.job, searchNamesOf(found.shop));
  }
}

async function closing(pool: pg.Pool, jobId: number): Promise<Closing | null> {
  const found = await jobAndShop(pool, jobId);
  if (found === null) return null;
  const { job, stamp } = found.stored;
  const view = viewJob(job, found.shop, { candidates: [] });
  return {
    stamp,
    unanswered: unanswered(view.openPoints).length,
    lesson: lessonOf({ ...job, state: 'closed' }, view.observations),
  };
}

async function paper(pool: pg.Pool, order: PaperOrder): Promise<Paper> {
  const found = await snapshot(pool, async (db) => {
    const stored = await readJob(db, order.code);
    return stored === null
      ? null
      : { job: stored.job, shop: await readComputingShop(db, model), people: await readTechnicians(db) };
  });
  if (found === null) return { kind: 'no-job' };
  const { job, shop, people } = found;
  const view = viewJob(job, shop, { candidates: [] });
  // One thread works for several shops: what it writes is made of words before anything is waited for.
  const as = <T>(write: () => T) => writtenAs(shop.settings, write);
  if (order.kind === 'supply-label')
    return job.supply === null
      ? { kind: 'no-supply' }
      : { kind: 'made', bytes: await as(() => supplyLabelPdf(job, view, order.address, order.stock, order.skip)) };
  if (view.cabling.basis === 'none') return { kind: 'no-cables' };
  const nameOf = (id: string) => people.find((person) => person.id === id)?.name ?? id;
  switch (order.kind) {
    case 'labels':
      return { kind: 'made', bytes: await as(() => labelsPdf(job, view, order.address, order.stock, order.skip)) };
    case 'schedule':
      return { kind: 'made', bytes: await as(() => schedulePdf(job, view, shop, order.address, nameOf)) };
    case 'schedule-csv':
      return { kind: 'made', bytes: Buffer.from(scheduleCsv(job, view, shop)) };
  }
}

export default async function work({ databaseUrl, task, begun }: OrderInThread): Promise<unknown> {
  begun.postMessage(null);
  begun.close();
  const pool = await poolOf(databaseUrl);
  switch (task.kind) {
    case 'stations':
      return renewStations(pool, task.jobId);
    case 'index':
      return indexJobs(pool, task.jobIds);
    case 'closing':
      return closing(pool, task.jobId);
    case 'paper':
      return paper(pool, task.order);
  }
}
