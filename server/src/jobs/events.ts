import type { Queryable } from '../database/query.ts';

/** Writes down who did what to a job, when; in the transaction of the change itself. */
export async function addEvent(
  db: Queryable,
  event: {
    readonly id: string;
    readonly jobId: number;
    readonly at: string;
    readonly by: string;
    readonly kind: string;
    readonly detail: unknown;
  },
): Promise<void> {
  await db.query('insert into job_event (id, job_id, at, by, kind, detail) values ($1, $2, $3, $4, $5, $6)', [
    event.id,
    event.jobId,
    event.at,
    event.by,
    event.kind,
    JSON.stringify(event.detail),
  ]);
}
