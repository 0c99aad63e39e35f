import type pg from 'pg';
import { presentSeconds, type Present } from '@fairwatt/contract';
import { many, transaction, type Queryable } from '../database/query.ts';
import { text } from '../database/read.ts';
import { jobIdOf } from '../jobs/read.ts';

export type PresenceChange = 'done' | 'no-job';

/** Notes that somebody has a job open in a tab, or no longer; whoever went without a word is let go. */
export function notePresence(
  pool: pg.Pool,
  tab: string,
  by: string,
  code: string | null,
  at: string,
): Promise<PresenceChange> {
  return transaction(pool, async (db): Promise<PresenceChange> => {
    await db.query(`delete from presence where seen_at < $1::timestamptz - interval '${presentSeconds} seconds'`, [at]);
    if (code === null) {
      await db.query('delete from presence where tab = $1', [tab]);
      return 'done';
    }
    const jobId = await jobIdOf(db, code);
    if (jobId === null) return 'no-job';
    // Only another job or person is a change that others are told of.
    const beat = await db.query('update presence set seen_at = $4 where tab = $1 and job_id = $2 and technician = $3', [
      tab,
      jobId,
      by,
      at,
    ]);
    if (beat.rowCount === 0) {
      await db.query('delete from presence where tab = $1', [tab]);
      await db.query('insert into presence (tab, job_id, technician, seen_at) values ($1, $2, $3, $4)', [
        tab,
        jobId,
        by,
        at,
      ]);
    }
    return 'done';
  });
}

export const presentAt = (db: Queryable, jobId: number, at: string): Promise<Present> =>
  many(
    db,
    'select tab, technician from presence where job_id = $1 and seen_at >= $2::timestamptz - ' +
      `interval '${presentSeconds} seconds' order by technician, tab`,
    [jobId, at],
    (row) => ({ tab: text(row, 'tab'), by: text(row, 'technician') }),
  );
