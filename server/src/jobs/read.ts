import type { Job, SheetField } from '@fairwatt/core';
import { many, maybeOne, type Prepared, type Queryable } from '../database/query.ts';
import { member, number, text } from '../database/read.ts';
import { readChildren, readList } from '../database/table.ts';
import { keepJob, keptJob } from './kept-jobs.ts';
import * as tables from './tables.ts';

async function readParts(db: Queryable, jobId: number): Promise<Job['parts']> {
  const inletsOf = await readChildren(db, tables.inlets, 'job_id = $1', [jobId]);
  return (await readList(db, tables.parts, jobId)).map((part) => ({ ...part, inlets: inletsOf(part.id) }));
}

async function readSupply(db: Queryable, jobId: number): Promise<Job['supply']> {
  const [supply] = await readList(db, tables.present, jobId);
  if (supply === undefined) return null;
  const rails = await readList(db, tables.presentRails, jobId);
  const combined = await readList(db, tables.presentCombined, jobId);
  return { ...supply, label: { ...supply.label, rails, combined } };
}

async function readProbes(db: Queryable, jobId: number): Promise<Job['probes']> {
  const pinsOf = await readChildren(db, tables.probedPins, 'job_id = $1', [jobId]);
  return (await readList(db, tables.probes, jobId)).map((probe) => ({ ...probe, pins: pinsOf(probe.id) }));
}

async function readLogs(db: Queryable, jobId: number): Promise<Job['logs']> {
  const channelsOf = await readChildren(db, tables.logChannels, 'job_id = $1', [jobId]);
  const eventsOf = await readChildren(db, tables.logEvents, 'job_id = $1', [jobId]);
  return (await readList(db, tables.logs, jobId)).map((log) => ({
    ...log,
    channels: channelsOf(log.id),
    events: eventsOf(log.id),
  }));
}

async function readCables(db: Queryable, jobId: number): Promise<Job['cables']> {
  const plugsOf = await readChildren(db, tables.cablePlugs, 'job_id = $1', [jobId]);
  return (await readList(db, tables.cables, jobId)).map((cable) => ({ ...cable, plugs: plugsOf(cable.id) }));
}

async function readFieldRevisions(db: Queryable, jobId: number): Promise<Job['sheet']['fieldRevisions']> {
  const rows = await many(
    db,
    'select field, revision from job_field_revision where job_id = $1 order by field',
    [jobId],
    (row): [SheetField, number] => [member<SheetField>(row, 'field'), number(row, 'revision')],
  );
  return Object.fromEntries(rows);
}

export const jobIdOf = (db: Queryable, code: string): Promise<number | null> =>
  maybeOne(db, 'select id from job where code = $1', [code], (row) => number(row, 'id'));

/** A job with its row, and the stamp that its content goes by. */
export interface StoredJob {
  readonly id: number;
  readonly stamp: string;
  readonly job: Job;
}

const headSql: Prepared = { name: 'job-head', text: 'select id, stamp from job where code = $1' };

/** A job by its code; null when there is none. */
export async function readJob(db: Queryable, code: string): Promise<StoredJob | null> {
  const head = await maybeOne(db, headSql, [code], (row) => ({
    id: number(row, 'id'),
    stamp: text(row, 'stamp'),
  }));
  return head === null ? null : readStamped(db, head.id, head.stamp);
}

/** A job whose row was just seen: from memory where its stamp is known, else read. Null when it is gone meanwhile. */
export async function readStamped(db: Queryable, id: number, stamp: string): Promise<StoredJob | null> {
  const kept = keptJob(stamp);
  if (kept !== null) return { id, stamp, job: kept };
  for (;;) {
    const stored = await readWhole(db, id);
    if (stored === null) return null;
    // Outside a snapshot somebody may have changed it between one table and the next: then it is read again.
    const after = await maybeOne(db, 'select stamp from job where id = $1', [id], (row) => text(row, 'stamp'));
    if (after !== stored.stamp) continue;
    keepJob(stored.stamp, stored.job);
    return stored;
  }
}

/** A job from its tables, whatever is in memory. */
export async function readWhole(db: Queryable, id: number): Promise<StoredJob | null> {
  const row = await maybeOne(db, 'select * from job where id = $1', [id], (found) => ({
    stamp: text(found, 'stamp'),
    head: tables.jobHead.read(found),
  }));
  if (row === null) return null;
  const { sheet, ...head } = row.head;
  const job: Job = {
    ...head,
    sheet: { ...sheet, fieldRevisions: await readFieldRevisions(db, id) },
    parts: await readParts(db, id),
    supply: await readSupply(db, id),
    outcomes: await readList(db, tables.outcomes, id),
    readings: await readList(db, tables.readings, id),
    probes: await readProbes(db, id),
    logs: await readLogs(db, id),
    finding: (await readList(db, tables.finding, id))[0] ?? null,
    choice: (await readList(db, tables.choice, id))[0] ?? null,
    cables: await readCables(db, id),
    pins: await readList(db, tables.pins, id),
    seats: await readList(db, tables.seats, id),
    steps: await readList(db, tables.steps, id),
    stepOrders: await readList(db, tables.stepOrders, id),
    laidAside: await readList(db, tables.laidAside, id),
    laidWays: await readList(db, tables.laidWays, id),
    leads: await readList(db, tables.leads, id),
    notes: await readList(db, tables.notes, id),
    proofs: await readList(db, tables.proofs, id),
    signOffs: await readList(db, tables.signOffs, id),
  };
  return { id, stamp: row.stamp, job };
}
