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
import { actPermissions, comesAlone, roleMay, type ActMessage } from '@fairwatt/contract';
import { demand } from '../access/index.ts';
import { Together, writeTogether } from '../database/query.ts';
import { text } from '../database/read.ts';
import { noTechnician } from '../problems.ts';
import { writeLesson, type Lesson } from '../record/store.ts';
import { searchNamesOf } from '../shop/shelf.ts';
import type { Closing, Workers } from '../workers/workers.ts';
import { addEvents, isEventIdTaken, lastChange, type JobEvent } from './events.ts';
import { jobText } from './job-text.ts';
import { keepJob, keptJob } from './kept-jobs.ts';
import { readStamped, type StoredJob } from './read.ts';
import { keepLeft, lastLeft, situationOf, stillSo, type Situation } from './situation.ts';
import { readComputingShop, type ComputingShop, type IdTaken } from './store.ts';
import { changeOfRow, writeDifferences, type Condition } from './write.ts';

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
  /** What else has to be so. */
  readonly also: Condition | null;
}

/** Writes it unless the job was changed since it was read. @returns the stamp of what stands then; null for nothing */
async function write(pool: pg.Pool, { stored, after, shop, lesson, events, also }: Writing): Promise<string | null> {
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
      first: changeOfRow(stored, after, also),
      read: (row) => text(row, 'stamp'),
      ...(lesson !== undefined && { between: (db) => writeLesson(db, stored.id, lesson) }),
      rest,
    });
    if (stamp !== null) keepJob(stamp, after);
    return stamp;
  } catch (error) {
    // The same message twice at once: the other one was first.
    if (isEventIdTaken(error)) return null;
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

/**
 * Does an act on what the last one left, without a look at how things stand: that they stand so is a condition of the
 * write. Null where it did not come about, for whatever reason; nothing is done then.
 */
async function actOnLeft({ pool, model }: Acting, code: string, sent: Sent, at: string): Promise<ActsOutcome | null> {
  const { id, by, act } = sent.message;
  const left = lastLeft(pool, code);
  const job = left === null ? null : keptJob(left.stamp);
  if (left === null || job === null || comesAlone(act)) return null;
  const shop = await readComputingShop(pool, model, left.shop);
  const role = shop.people.find((person) => person.id === by)?.role ?? 'none';
  if (role === 'none' || !roleMay(role, actPermissions[act.kind])) return null;
  const stored: StoredJob = { id: left.id, stamp: left.stamp, job };
  const { after, revisions, events, stop } = run(stored, [sent], new Map(), () => contextOf(shop, by, at, null));
  if (stop !== null) return null;
  const also = stillSo(left, id);
  const stamp = await write(pool, { stored, after, shop, lesson: undefined, events, also });
  if (stamp === null) return null;
  keepLeft(pool, code, { ...left, stamp });
  return { kind: 'done', value: after, revisions, stop };
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
  const stamp =
    events.length === 0 ? row.stamp : await write(pool, { stored, after, shop, lesson, events, also: null });
  if (stamp === null) return null;
  keepLeft(pool, code, { id: row.id, stamp, shop: stamps });
  return { kind: 'done', value: after, revisions, stop: await stopOf(pool, row.id, stop) };
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
  if (sent.length === 1) {
    const outcome = await actOnLeft(acting, code, sent[0], at);
    if (outcome !== null) return outcome;
  }
  for (;;) {
    const outcome = await tryActs(acting, code, sent, at);
    if (outcome !== null) return outcome;
  }
}
