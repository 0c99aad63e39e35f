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
import { one, transaction, type Queryable } from '../database/query.ts';
import { member, number, orNull, text } from '../database/read.ts';
import { noTechnician } from '../problems.ts';
import { writeLesson, type Lesson } from '../record/store.ts';
import { searchNamesOf } from '../shop/shelf.ts';
import type { Closing, Workers } from '../workers/workers.ts';
import { addEvent, isEventIdTaken, lastChange } from './events.ts';
import { keepJob } from './kept-jobs.ts';
import { readStamped, type StoredJob } from './read.ts';
import { readComputingShop, type ComputingShop, type IdTaken, type ShopStamps } from './store.ts';
import { updateJob } from './write.ts';

/** Who changed something last, and when. */
export interface Changed {
  readonly by: string;
  readonly at: string;
}

export type ActOutcome =
  /** `revision` is what this act made of the job, which may have gone on since when it was sent again. */
  | { readonly kind: 'done'; readonly value: Job; readonly revision: number }
  | IdTaken
  | { readonly kind: 'no-job' }
  | { readonly kind: 'refused'; readonly refusal: Refusal; readonly current: Job; readonly changed: Changed | null };

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
  readonly earlier: { readonly jobId: number; readonly revision: number | null; readonly hash: string } | null;
  readonly shop: ShopStamps;
}

const situationSql = `select
    (select role from technician where technician.id = $2 and role <> 'none') as role,
    job.id, job.stamp, (select stamp from shelf_stamp) as shelf, (select revision from shop_record) as record,
    job_event.job_id as earlier_job, job_event.revision as earlier_revision, job_event.content_hash as earlier_hash
  from (select) as one_row
    left join job on job.code = $1
    left join job_event on job_event.id = $3`;

const situationOf = (db: Queryable, code: string, by: string, messageId: string): Promise<Situation> =>
  one(db, situationSql, [code, by, messageId], (row) => ({
    role: orNull(member<Role>)(row, 'role'),
    job: row['id'] === null ? null : { id: number(row, 'id'), stamp: text(row, 'stamp') },
    earlier:
      row['earlier_job'] === null
        ? null
        : {
            jobId: number(row, 'earlier_job'),
            revision: orNull(number)(row, 'earlier_revision'),
            hash: text(row, 'earlier_hash'),
          },
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

/** What is written for an act that goes through, with its event, in one transaction. */
interface Writing {
  readonly stored: StoredJob;
  readonly after: Job;
  readonly shop: ComputingShop;
  /** What the job teaches now; undefined where the act does not change that. */
  readonly lesson: Lesson | null | undefined;
  readonly message: ActMessage;
  readonly subject: string;
  readonly hash: string;
  readonly at: string;
}

/** Writes it unless the job was changed since it was read. @returns whether it is written */
async function write(
  pool: pg.Pool,
  { stored, after, shop, lesson, message, subject, hash, at }: Writing,
): Promise<boolean> {
  try {
    const stamp = await transaction(pool, async (db) => {
      const stands = await updateJob(db, stored, after, searchNamesOf(shop));
      if (stands === null) return null;
      if (lesson !== undefined) await writeLesson(db, stored.id, lesson);
      await addEvent(db, {
        id: message.id,
        jobId: stored.id,
        at,
        by: message.by,
        kind: message.act.kind satisfies Act['kind'],
        detail: message.act,
        revision: after.revision,
        subject,
        contentHash: hash,
      });
      return stands;
    });
    if (stamp !== null) keepJob(stamp, after);
    return stamp !== null;
  } catch (error) {
    // The same message twice at once: the other one was first.
    if (isEventIdTaken(error)) return false;
    throw error;
  }
}

/** Looks once and writes once; null where the job moved meanwhile. */
async function tryAct(
  { pool, model, workers }: Acting,
  code: string,
  message: ActMessage,
  hash: string,
  at: string,
): Promise<ActOutcome | null> {
  const { role, job: row, earlier, shop: stamps } = await situationOf(pool, code, message.by, message.id);
  if (role === null) throw noTechnician();
  demand(role, actPermissions[message.act.kind]);
  if (row === null) return { kind: 'no-job' };
  const stored = await readStamped(pool, row.id, row.stamp);
  if (stored === null) return { kind: 'no-job' };
  // What was not in memory was read a moment later than the rest: by then this very act may have been done.
  if (stored.stamp !== row.stamp) return null;
  if (earlier !== null)
    return earlier.jobId === row.id && earlier.hash === hash
      ? { kind: 'done', value: stored.job, revision: earlier.revision ?? stored.job.revision }
      : { kind: 'id-taken' };
  const closing = message.act.kind === 'close' ? await workers.closing(stored.id) : null;
  if (closing !== null && closing.stamp !== stored.stamp) return null;
  const shop = await readComputingShop(pool, model, stamps);
  const result = applyAct(stored.job, message.act, contextOf(shop, message.by, at, closing));
  const subject = subjectOf(message.act);
  if (!result.ok) {
    const { refusal } = result;
    const changed = refusal.code === 'stale' ? await lastChange(pool, row.id, subject, refusal.current) : null;
    return { kind: 'refused', refusal, current: stored.job, changed };
  }
  const after = result.job;
  const lesson = after.state === stored.job.state ? undefined : closing === null ? null : closing.lesson;
  const written = await write(pool, { stored, after, shop, lesson, message, subject, hash, at });
  return written ? { kind: 'done', value: after, revision: after.revision } : null;
}

/**
 * Does an act on a job, with its event, in one transaction; the same message again changes nothing and gives the job.
 * Nothing is locked while anything is computed: where somebody else changed the job in between, the act is done on what
 * stands then. Each such round is an act of somebody else that went through.
 */
export async function actOnJob(
  acting: Acting,
  code: string,
  message: ActMessage,
  hash: string,
  at: string,
): Promise<ActOutcome> {
  for (;;) {
    const outcome = await tryAct(acting, code, message, hash, at);
    if (outcome !== null) return outcome;
  }
}
