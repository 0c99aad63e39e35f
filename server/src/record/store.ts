import type pg from 'pg';
import { randomUUID } from 'node:crypto';
import { LRUCache } from 'lru-cache';
import { compileModel, type Job, type JobView, type Model, type ShopRecord } from '@fairwatt/core';
import type { RecordMessage } from '@fairwatt/contract';
import { insertRows, many, maybeOne, one, transaction, type Queryable } from '../database/query.ts';
import { boolean, instant, number, orNull, text } from '../database/read.ts';
import { addEvent } from '../jobs/events.ts';

/** The closed jobs' outcomes added up; those left out by the owner do not count. */
export async function readCounts(db: Queryable): Promise<ShopRecord> {
  const faults = await many(
    db,
    'select fault_id, jobs from record_fault where jobs > 0 order by fault_id',
    [],
    (row) => ({ faultId: text(row, 'fault_id'), count: number(row, 'jobs') }),
  );
  return {
    jobs: faults.reduce((sum, { count }) => sum + count, 0),
    leftOut: await one(
      db,
      'select count(*) as n from job join job_lesson on job_id = job.id where left_out',
      [],
      (row) => number(row, 'n'),
    ),
    faults,
    outcomes: await many(
      db,
      `select check_id, outcome_id, fault_id, instrument_id, jobs from record_outcome where jobs > 0
        order by 1, 2, 3, 4`,
      [],
      (row) => ({
        checkId: text(row, 'check_id'),
        outcomeId: text(row, 'outcome_id'),
        faultId: text(row, 'fault_id'),
        instrumentId: orNull(text)(row, 'instrument_id'),
        count: number(row, 'jobs'),
      }),
    ),
  };
}

/** Jobs shown with the record. */
const jobsShown = 200;

export async function readRecord(db: Queryable): Promise<RecordMessage> {
  const counts = await readCounts(db);
  return {
    counts: { ...counts, faults: [...counts.faults], outcomes: [...counts.outcomes] },
    jobs: await many(
      db,
      `select code, title, closed_at, fault_id, left_out from job_lesson join job on job.id = job_lesson.job_id
        where closed_at is not null order by closed_at desc, job.id desc limit $1`,
      [jobsShown],
      (row) => ({
        code: text(row, 'code'),
        title: text(row, 'title'),
        closedAt: instant(row, 'closed_at'),
        faultId: text(row, 'fault_id'),
        leftOut: boolean(row, 'left_out'),
      }),
    ),
  };
}

/** Models by the revision of the record that moved them, of all shops of this process. */
const compiled = new WeakMap<Model, LRUCache<string, Model>>();
const mostCompiled = 500;

export const recordRevision = (db: Queryable): Promise<string> =>
  one(db, 'select revision from shop_record', [], (row) => text(row, 'revision'));

/** The shipped model moved by the shop's record; compiled again only when the record changed. */
export async function learnedModel(db: Queryable, shipped: Model, revision: string): Promise<Model> {
  const known = compiled.get(shipped) ?? new LRUCache<string, Model>({ max: mostCompiled });
  compiled.set(shipped, known);
  const before = known.get(revision);
  if (before !== undefined) return before;
  const model = compileModel(shipped.shipped, await readCounts(db));
  known.set(revision, model);
  return model;
}

/** Tells that the record is another one; whoever moves its sums does this first, and is then alone with them. */
const markChanged = (db: Queryable) => db.query('update shop_record set revision = gen_random_uuid()');
/** Adds what a job teaches to the record's sums, or takes it from them. */
const tally = (db: Queryable, jobId: number, step: 1 | -1) => db.query('select tally_lesson($1, $2)', [jobId, step]);

/** What a closed job teaches: the fault that was confirmed, and what was seen of it. */
export interface Lesson {
  readonly faultId: string;
  readonly outcomes: readonly {
    readonly checkId: string;
    readonly outcomeId: string;
    readonly instrumentId: string | null;
  }[];
}

/** The lesson of a job as it stands; null while it is open or its fault is not confirmed. */
export function lessonOf(job: Job, observations: JobView['observations']): Lesson | null {
  const { finding } = job;
  if (
    job.state !== 'closed' ||
    finding?.kind !== 'fault' ||
    !finding.confirmed ||
    finding.faultId === null ||
    finding.alsoFaultId !== null
  )
    return null;
  return {
    faultId: finding.faultId,
    outcomes: observations
      .filter((observation) => observation.outcomeId !== 'unknown' && observation.also !== true)
      .map(({ checkId, outcomeId, instrumentId }) => ({ checkId, outcomeId, instrumentId: instrumentId ?? null })),
  };
}

/** Keeps what a closed job teaches, or takes it out when it teaches nothing any more. */
export async function writeLesson(db: Queryable, jobId: number, lesson: Lesson | null): Promise<void> {
  const had = await db.query('select from job_lesson where job_id = $1', [jobId]);
  if (lesson === null && had.rowCount === 0) return;
  await markChanged(db);
  if (had.rowCount !== 0) {
    await tally(db, jobId, -1);
    await db.query('delete from job_lesson where job_id = $1', [jobId]);
  }
  if (lesson !== null) {
    await insertRows(db, 'job_lesson', ['job_id', 'fault_id'], [[jobId, lesson.faultId]]);
    await insertRows(
      db,
      'job_lesson_outcome',
      ['job_id', 'check_id', 'outcome_id', 'instrument_id'],
      lesson.outcomes.map((outcome) => [jobId, outcome.checkId, outcome.outcomeId, outcome.instrumentId]),
    );
    await tally(db, jobId, 1);
  }
}

export type LeaveOutResult =
  { readonly kind: 'done'; readonly value: RecordMessage } | { readonly kind: 'no-lesson' | 'stale' };

/** The owner leaves a job out of the record or counts it again, with an event on the job. */
export function leaveOut(
  pool: pg.Pool,
  code: string,
  wanted: { readonly by: string; readonly leftOut: boolean; readonly was: boolean },
  at: string,
): Promise<LeaveOutResult> {
  return transaction(pool, async (db): Promise<LeaveOutResult> => {
    const job = await maybeOne(
      db,
      'select job.id, left_out from job join job_lesson on job_lesson.job_id = job.id where ' +
        'code = $1 for update of job',
      [code],
      (row) => ({ id: number(row, 'id'), leftOut: boolean(row, 'left_out') }),
    );
    if (job === null) return { kind: 'no-lesson' };
    if (job.leftOut !== wanted.was) return { kind: 'stale' };
    await markChanged(db);
    // Nothing is counted of a job that is left out: once less before, once more after.
    if (wanted.leftOut) await tally(db, job.id, -1);
    await db.query('update job set left_out = $2 where id = $1', [job.id, wanted.leftOut]);
    if (!wanted.leftOut && job.leftOut) await tally(db, job.id, 1);
    await addEvent(db, {
      id: randomUUID(),
      jobId: job.id,
      at,
      by: wanted.by,
      kind: wanted.leftOut ? 'leave-out' : 'count-again',
      detail: {},
    });
    return { kind: 'done', value: await readRecord(db) };
  });
}
