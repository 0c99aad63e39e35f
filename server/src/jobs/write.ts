import type { Job, SearchNames, SheetField } from '@fairwatt/core';
import { one, type Prepared, type Queryable, type Sink, type Statement } from '../database/query.ts';
import { number } from '../database/read.ts';
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

async function writeFieldRevisions(db: Sink, jobId: number, before: FieldRevisions, after: FieldRevisions) {
  const changed = Object.entries(after).filter(([field, revision]) => before[field as SheetField] !== revision);
  if (changed.length === 0) return;
  const fields = changed.map(([field]) => field);
  const revisions = changed.map(([, revision]) => revision);
  await db.query(fieldRevisionsSql, [jobId, fields, revisions]);
}

/** Writes the supply that came with its label, all of it. */
async function writeSupply(db: Sink, jobId: number, supply: Job['supply']): Promise<void> {
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

const rowValues = new WeakMap<Job, readonly unknown[]>();

/** What stands in a job's row; what an act made of it is what the next one finds. */
function rowOf(job: Job): readonly unknown[] {
  const known = rowValues.get(job) ?? tables.jobHead.values(job);
  rowValues.set(job, known);
  return known;
}

/** What else has to be so for a job's row to be changed; its values stand from a place on. */
export interface Condition {
  readonly name: string;
  readonly text: (from: number) => string;
  readonly values: readonly unknown[];
}

/**
 * The statement that takes a job's row from one state to another, unless somebody has changed it since it was read, or
 * what else has to be so is not: it finds the stamp of what stands then, or no row. It goes by a name for each set of
 * columns.
 */
export function changeOfRow(stored: StoredJob, after: Job, also: Condition | null): Statement {
  const was = rowOf(stored.job);
  const changed = rowOf(after)
    .map((value, index) => ({ value, index }))
    .filter(({ value, index }) => was[index] !== value);
  const sets = changed.map(({ index }, place) => `, ${tables.jobHead.columns[index]} = $${place + 3}`).join('');
  const named = changed.reduce((bits, { index }) => bits | (1n << BigInt(index)), 0n).toString(36);
  const [suffix, condition] = also === null ? ['', ''] : [`-${also.name}`, ` and ${also.text(changed.length + 3)}`];
  const text = `update job set stamp = gen_random_uuid()${sets} where id = $1 and stamp = $2${condition} returning stamp`;
  return {
    statement: { name: `change-job-${named}${suffix}`, text },
    values: [stored.id, stored.stamp, ...changed.map(({ value }) => value), ...(also?.values ?? [])],
  };
}

/** Writes what differs between two states of a job beside its row. */
export async function writeDifferences(
  db: Sink,
  { id, job: before }: StoredJob,
  after: Job,
  names: SearchNames,
): Promise<void> {
  await writeFieldRevisions(db, id, before.sheet.fieldRevisions, after.sheet.fieldRevisions);
  await writeLists(db, id, before, after);
  await writeSearch(db, id, before, after, names);
}

/** The lists of a job: what is new or changed in each is written, what is gone is deleted. */
async function writeLists(db: Sink, jobId: number, before: Lists, after: Lists): Promise<void> {
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
