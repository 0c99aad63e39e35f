import { createHash } from 'node:crypto';
import pg from 'pg';
import { type Prepared, type Queryable, type Sink, many, maybeOne } from '../database/query.ts';
import { instant, number, orNull, text } from '../database/read.ts';

/** Something that happened to a job. `revision` is what it made of the job, null where it changed no revision. */
export interface JobEvent {
  readonly id: string;
  readonly jobId: number;
  readonly at: string;
  readonly by: string;
  readonly kind: string;
  readonly detail: unknown;
  readonly revision: number | null;
  readonly subject: string;
  readonly contentHash: string;
}

const addSql: Prepared = {
  name: 'add-events',
  text: `insert into job_event (id, job_id, at, by, kind, detail, revision, subject, content_hash)
    select * from unnest(
      $1::uuid[], $2::bigint[], $3::timestamptz[], $4::text[], $5::text[],
      $6::jsonb[], $7::int[], $8::text[], $9::text[]
    )`,
};

/** Writes down who did what to a job, when; in the transaction of the changes themselves. */
export async function addEvents(db: Sink, events: readonly JobEvent[]): Promise<void> {
  const of = <T>(read: (event: JobEvent) => T): T[] => events.map(read);
  await db.query(addSql, [
    of((event) => event.id),
    of((event) => event.jobId),
    of((event) => event.at),
    of((event) => event.by),
    of((event) => event.kind),
    of((event) => JSON.stringify(event.detail)),
    of((event) => event.revision),
    of((event) => event.subject),
    of((event) => event.contentHash),
  ]);
}

/** Writes down one thing that happened to a job. */
export const addEvent = (
  db: Sink,
  event: Omit<JobEvent, 'revision' | 'subject' | 'contentHash'> & Partial<JobEvent>,
): Promise<void> => addEvents(db, [{ revision: null, subject: '', contentHash: '', ...event }]);

/** Keys in order at every depth, so that the same content has the same text however it was written. */
function ordered(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(ordered);
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(
    Object.entries(value)
      .sort(([a], [b]) => (a < b ? -1 : 1))
      .map(([key, inner]) => [key, ordered(inner)]),
  );
}

/** A hash of a message as it was sent, to tell a repetition from another message under the same id. */
export const contentHash = (message: unknown): string =>
  createHash('sha256')
    .update(JSON.stringify(ordered(message)))
    .digest('hex');

/** Whether a write failed because an event of this id is there already. */
export const isEventIdTaken = (error: unknown): boolean =>
  error instanceof pg.DatabaseError && error.code === '23505' && error.constraint === 'job_event_pkey';

/** What an id was used for before; null when it never was. */
export const earlierEvent = (
  db: Queryable,
  id: string,
): Promise<{ jobId: number; revision: number | null; contentHash: string } | null> =>
  maybeOne(db, 'select job_id, revision, content_hash from job_event where id = $1', [id], (row) => ({
    jobId: number(row, 'job_id'),
    revision: orNull(number)(row, 'revision'),
    contentHash: text(row, 'content_hash'),
  }));

/** Who changed a subject last, and when; null where no event tells. */
export async function lastChange(
  db: Queryable,
  jobId: number,
  subject: string,
  revision: number,
): Promise<{ by: string; at: string } | null> {
  const rows = await many(
    db,
    'select by, at from job_event where job_id = $1 and (revision = $2 or subject = $3) order ' +
      'by (revision = $2) desc, revision desc nulls last limit 1',
    [jobId, revision, subject],
    (row) => ({ by: text(row, 'by'), at: instant(row, 'at') }),
  );
  return rows[0] ?? null;
}
