import type { Job, SearchNames, SheetField } from '@fairwatt/core';
import { maybeOne, one, type Prepared, type Queryable } from '../database/query.ts';
import { number, text } from '../database/read.ts';
import { syncList, writeChildren } from '../database/table.ts';
import type { StoredJob } from './read.ts';
import { writeSearch } from './search.ts';
import * as tables from './tables.ts';

type FieldRevisions = Job['sheet']['fieldRevisions'];

const fieldRevisionsSql: Prepared = {
  name: 'field-revisions',
  text: `insert into job_field_revision (job_id, field, revision) select $1, * from unnest($2::text[], $3::int[])
    on conflict (job_id, field) do update set revision = excluded.revision`,
};

async function writeFieldRevisions(db: Queryable, jobId: number, before: FieldRevisions, after: FieldRevisions) {
  const changed = Object.entries(after).filter(([field, revision]) => before[field as SheetField] !== revision);
  if (changed.length === 0) return;
  const fields = changed.map(([field]) => field);
  const revisions = changed.map(([, revision]) => revision);
  await db.query(fieldRevisionsSql, [jobId, fields, revisions]);
}

/** Writes the supply that came with its label, all of it. */
async function writeSupply(db: Queryable, jobId: number, supply: Job['supply']): Promise<void> {
  await db.query('delete from job_supply where job_id = $1', [jobId]);
  if (supply === null) return;
  await syncList(db, tables.present, jobId, [], [supply]);
  await syncList(db, tables.presentRails, jobId, [], supply.label.rails);
  await syncList(db, tables.presentCombined, jobId, [], supply.label.combined);
}

type Lists = Omit<Job, keyof tables.JobHead>;

const nothing: Lists = {
  parts: [],
  supply: null,
  outcomes: [],
  readings: [],
  probes: [],
  logs: [],
  finding: null,
  choice: null,
  cables: [],
  pins: [],
  seats: [],
  steps: [],
  stepOrders: [],
  laidAside: [],
  laidWays: [],
  leads: [],
  notes: [],
  proofs: [],
  signOffs: [],
};

/** Writes a job that is not in the database yet. @returns its row id */
export async function insertJob(db: Queryable, job: Job, names: SearchNames): Promise<number> {
  const { columns, values } = tables.jobHead;
  const marks = columns.map((_, index) => `$${index + 1}`).join(', ');
  const sql = `insert into job (${columns.join(', ')}) values (${marks}) returning id`;
  const jobId = await one(db, sql, values(job), (row) => number(row, 'id'));
  await writeFieldRevisions(db, jobId, {}, job.sheet.fieldRevisions);
  await writeLists(db, jobId, nothing, job);
  await writeSearch(db, jobId, null, job, names);
  return jobId;
}

/**
 * Writes what differs between two states of a job, unless somebody has changed it since it was read.
 * @returns the stamp of what stands now; null, and nothing written, where it was changed meanwhile
 */
export async function updateJob(
  db: Queryable,
  stored: StoredJob,
  after: Job,
  names: SearchNames,
): Promise<string | null> {
  const was = tables.jobHead.values(stored.job);
  const values = tables.jobHead.values(after);
  const changed = tables.jobHead.columns
    .map((column, index) => ({ column, was: was[index], value: values[index] }))
    .filter((item) => item.was !== item.value);
  const sets = changed.map(({ column }, place) => `, ${column} = $${place + 3}`).join('');
  const stamp = await maybeOne(
    db,
    `update job set stamp = gen_random_uuid()${sets} where id = $1 and stamp = $2 returning stamp`,
    [stored.id, stored.stamp, ...changed.map(({ value }) => value)],
    (row) => text(row, 'stamp'),
  );
  if (stamp === null) return null;
  await writeFieldRevisions(db, stored.id, stored.job.sheet.fieldRevisions, after.sheet.fieldRevisions);
  await writeLists(db, stored.id, stored.job, after);
  await writeSearch(db, stored.id, stored.job, after, names);
  return stamp;
}

/** The lists of a job: what is new or changed in each is written, what is gone is deleted. */
async function writeLists(db: Queryable, jobId: number, before: Lists, after: Lists): Promise<void> {
  const maybe = <T>(value: T | null): readonly T[] => (value === null ? [] : [value]);
  const id = (item: { readonly id: string }) => item.id;
  const ofJob = { job_id: jobId };

  const parts = await syncList(db, tables.parts, jobId, before.parts, after.parts);
  await writeChildren(db, tables.inlets, parts, id, (part) => part.inlets, ofJob);
  if (before.supply !== after.supply) await writeSupply(db, jobId, after.supply);

  await syncList(db, tables.outcomes, jobId, before.outcomes, after.outcomes);
  await syncList(db, tables.readings, jobId, before.readings, after.readings);
  const probes = await syncList(db, tables.probes, jobId, before.probes, after.probes);
  await writeChildren(db, tables.probedPins, probes, id, (probe) => probe.pins, ofJob);
  const logs = await syncList(db, tables.logs, jobId, before.logs, after.logs);
  await writeChildren(db, tables.logChannels, logs, id, (log) => log.channels, ofJob);
  await writeChildren(db, tables.logEvents, logs, id, (log) => log.events, ofJob);

  await syncList(db, tables.finding, jobId, maybe(before.finding), maybe(after.finding));
  await syncList(db, tables.choice, jobId, maybe(before.choice), maybe(after.choice));

  const cables = await syncList(db, tables.cables, jobId, before.cables, after.cables);
  await writeChildren(db, tables.cablePlugs, cables, id, (cable) => cable.plugs, ofJob);
  await syncList(db, tables.pins, jobId, before.pins, after.pins);
  await syncList(db, tables.seats, jobId, before.seats, after.seats);
  await syncList(db, tables.steps, jobId, before.steps, after.steps);
  await syncList(db, tables.laidAside, jobId, before.laidAside, after.laidAside);
  await syncList(db, tables.stepOrders, jobId, before.stepOrders, after.stepOrders);
  await syncList(db, tables.laidWays, jobId, before.laidWays, after.laidWays);
  await syncList(db, tables.leads, jobId, before.leads, after.leads);
  await syncList(db, tables.notes, jobId, before.notes, after.notes);
  await syncList(db, tables.proofs, jobId, before.proofs, after.proofs);
  await syncList(db, tables.signOffs, jobId, before.signOffs, after.signOffs);
}
