import type pg from 'pg';
import {
  applyAct,
  knowsOf,
  subjectOf,
  type Act,
  type ActContext,
  type Job,
  type Model,
  type Refusal,
  type Shop,
} from '@fairwatt/core';
import { actPermissions, type ActMessage, type Role } from '@fairwatt/contract';
import { demand } from '../access/index.ts';
import { one, Together, writeTogether, type Prepared, type Queryable } from '../database/query.ts';
import { member, number, orNull, text } from '../database/read.ts';
import { noTechnician } from '../problems.ts';
import { writeLesson, type Lesson } from '../record/store.ts';
import { searchNamesOf } from '../shop/shelf.ts';
import type { Closing, Workers } from '../workers/workers.ts';
import { addEvents, isEventIdTaken, lastChange, type JobEvent } from './events.ts';
import { jobText } from './job-text.ts';
import { keepJob } from './kept-jobs.ts';
import { readStamped, type StoredJob } from './read.ts';
import { readComputingShop, type ComputingShop, type IdTaken, type ShopStamps } from './store.ts';
import { changeOfRow, writeDifferences } from './write.ts';

/** Who changed something last, and when. */
export interface Changed {
  readonly by: string;
  readonly at: string;
}

/** An act as it came, with the hash of what came. */
export interface Sent {
  readonly message: ActMessage;
  readonly hash: string;
}

/** Why an act was not done, and none of those behind it. */
export type Stop = IdTaken | { readonly kind: 'refused'; readonly refusal: Refusal; readonly changed: Changed | null };

export type ActsOutcome =
  | { readonly kind: 'no-job' }
  | {
      readonly kind: 'done';
      /** The job as it stands now. */
      readonly value: Job;
      /**
       * What each act that is done made of the job, in their order; the job may have gone on since, where one was sent
       * again. Shorter than what was sent where one was stopped.
       */
      readonly revisions: readonly number[];
      readonly stop: Stop | null;
    };

/** What an act is done with. */
export interface Acting {
  readonly pool: pg.Pool;
  readonly model: Model;
  readonly workers: Workers;
}

/** What an act needs to know of the database, seen at one moment. */
interface Situation {
  /** What the one who acts is here; null for nobody. */
  readonly role: Role | null;
  readonly job: { readonly id: number; readonly stamp: string } | null;
  /** What the ids were used for before. */
  readonly earlier: ReadonlyMap<string, Earlier>;
  readonly shop: ShopStamps;
}

interface Earlier {
  readonly jobId: number;
  readonly revision: number | null;
  readonly hash: string;
}

const situationSql: Prepared = {
  name: 'situation',
  text: `select
    (select role from technician where technician.id = $2 and role <> 'none') as role,
    job.id, job.stamp, (select stamp from shelf_stamp) as shelf, (select revision from shop_record) as record,
    (select json_agg(json_build_array(job_event.id, job_id, job_event.revision, content_hash))
      from job_event where job_event.id = any($3::uuid[])) as earlier
  from (select) as one_row left join job on job.code = $1`,
};

type EarlierRow = readonly [id: string, jobId: number, revision: number | null, hash: string];

const situationOf = (db: Queryable, code: string, by: string, ids: readonly string[]): Promise<Situation> =>
  one(db, situationSql, [code, by, ids], (row) => ({
    role: orNull(member<Role>)(row, 'role'),
    job: row['id'] === null ? null : { id: number(row, 'id'), stamp: text(row, 'stamp') },
    earlier: new Map(
      ((row['earlier'] ?? []) as readonly EarlierRow[]).map(([id, jobId, revision, hash]) => [
        id,
        { jobId, revision, hash },
      ]),
    ),
    shop: { shelf: text(row, 'shelf'), record: text(row, 'record') },
  }));

function contextOf(shop: Shop, by: string, at: string, closing: Closing | null): ActContext {
  return {
    by,
    at,
    knows: knowsOf(shop),
    unansweredPoints: () => {
      if (closing === null) throw new Error('open points are counted before a job is closed, and only then');
      return closing.unanswered;
    },
  };
}

/** What is written for acts that go through, with their events, in one transaction. */
interface Writing {
  readonly stored: StoredJob;
  readonly after: Job;
  readonly shop: ComputingShop;
  /** What the job teaches now; undefined where the acts do not change that. */
  readonly lesson: Lesson | null | undefined;
  readonly events: readonly JobEvent[];
}

/** Writes it unless the job was changed since it was read. @returns whether it is written */
async function write(pool: pg.Pool, { stored, after, shop, lesson, events }: Writing): Promise<boolean> {
  const rest = async () => {
    const statements = new Together();
    await writeDifferences(statements, stored, after, searchNamesOf(shop));
    await addEvents(statements, events);
    // What could not be sent is not kept either.
    jobText(after);
    return statements.statements;
  };
  try {
    const stamp = await writeTogether(pool, {
      first: changeOfRow(stored, after),
      read: (row) => text(row, 'stamp'),
      ...(lesson !== undefined && { between: (db) => writeLesson(db, stored.id, lesson) }),
      rest,
    });
    if (stamp !== null) keepJob(stamp, after);
    return stamp !== null;
  } catch (error) {
    // The same message twice at once: the other one was first.
    if (isEventIdTaken(error)) return false;
    throw error;
  }
}

/** What acts make of a job as it was read. */
interface Run {
  readonly after: Job;
  readonly revisions: readonly number[];
  readonly events: readonly JobEvent[];
  readonly stop: IdTaken | { readonly kind: 'refused'; readonly refusal: Refusal; readonly subject: string } | null;
}

/** Does acts one after the other, each on what the one before made; the first that is not done ends it. */
function run(
  stored: StoredJob,
  sent: readonly Sent[],
  earlier: Situation['earlier'],
  context: (by: string) => ActContext,
): Run {
  let after = stored.job;
  const revisions: number[] = [];
  const events: JobEvent[] = [];
  const ended = (stop: Run['stop']): Run => ({ after, revisions, events, stop });
  for (const { message, hash } of sent) {
    const before = earlier.get(message.id);
    if (before !== undefined && (before.jobId !== stored.id || before.hash !== hash))
      return ended({ kind: 'id-taken' });
    if (before !== undefined) {
      revisions.push(before.revision ?? after.revision);
      continue;
    }
    const { id, by, act } = message;
    const known = context(by);
    const result = applyAct(after, act, known);
    const subject = subjectOf(act);
    if (!result.ok) return ended({ kind: 'refused', refusal: result.refusal, subject });
    after = result.job;
    const { revision } = after;
    revisions.push(revision);
    const kind: Act['kind'] = act.kind;
    events.push({ id, jobId: stored.id, at: known.at, by, kind, detail: act, revision, subject, contentHash: hash });
  }
  return ended(null);
}

/** Why acts ended before the last one; for a change by somebody else, who that was. */
async function stopOf(pool: pg.Pool, jobId: number, stop: Run['stop']): Promise<Stop | null> {
  if (stop === null || stop.kind === 'id-taken') return stop;
  const { refusal, subject } = stop;
  const changed = refusal.code === 'stale' ? await lastChange(pool, jobId, subject, refusal.current) : null;
  return { kind: 'refused', refusal, changed };
}

/** Looks once and writes once; null where the job moved meanwhile. */
async function tryActs(
  { pool, model, workers }: Acting,
  code: string,
  sent: readonly [Sent, ...Sent[]],
  at: string,
): Promise<ActsOutcome | null> {
  const [{ message: first }] = sent;
  const ids = sent.map(({ message }) => message.id);
  const { role, job: row, earlier, shop: stamps } = await situationOf(pool, code, first.by, ids);
  if (role === null) throw noTechnician();
  for (const { message } of sent) demand(role, actPermissions[message.act.kind]);
  if (row === null) return { kind: 'no-job' };
  const stored = await readStamped(pool, row.id, row.stamp);
  if (stored === null) return { kind: 'no-job' };
  // What was not in memory was read a moment later than the rest: by then these very acts may have been done.
  if (stored.stamp !== row.stamp) return null;
  const closes = first.act.kind === 'close' && !earlier.has(first.id);
  const closing = closes ? await workers.closing(stored.id) : null;
  if (closing !== null && closing.stamp !== stored.stamp) return null;
  const shop = await readComputingShop(pool, model, stamps);
  const { after, revisions, events, stop } = run(stored, sent, earlier, (by) => contextOf(shop, by, at, closing));
  const lesson = after.state === stored.job.state ? undefined : closing === null ? null : closing.lesson;
  const written = events.length === 0 || (await write(pool, { stored, after, shop, lesson, events }));
  return written ? { kind: 'done', value: after, revisions, stop: await stopOf(pool, row.id, stop) } : null;
}

/**
 * Does acts of one person on a job, in their order and with an event each, in one transaction; the first that cannot be
 * done ends it, and what came before it stands. The same message again changes nothing. Closing, reopening and putting
 * away come alone. Nothing is locked while anything is computed: where somebody else changed the job in between, the
 * acts are done on what stands then. Each such round is an act of somebody else that went through.
 * @throws HttpProblem 403 where one of them is not for this person; then none is done
 */
export async function actOnJob(
  acting: Acting,
  code: string,
  sent: readonly [Sent, ...Sent[]],
  at: string,
): Promise<ActsOutcome> {
  for (;;) {
    const outcome = await tryActs(acting, code, sent, at);
    if (outcome !== null) return outcome;
  }
}
