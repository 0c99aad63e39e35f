import { setTimeout as wait } from 'node:timers/promises';
import type pg from 'pg';
import type { Logger } from 'pino';
import { databaseIsGone } from './gone.ts';
import { one, snapshot, type Queryable } from './query.ts';
import { text } from './read.ts';

/** Waits for a replica that is behind, in milliseconds; a reader does not notice them, taken together. */
const pauses = [0, 5, 10, 20, 40];
/** A replica that failed is left alone for so long. */
const leaveAloneMilliseconds = 5000;

/** How far a database's journal is written, and on which timeline. */
interface Position {
  readonly database: string;
  readonly timeline: string;
  readonly at: string;
}

// A copy has the system's identifier of what it is a copy of.
const itself = "(select system_identifier from pg_control_system()) || ' ' || current_database()";
// What was confirmed is flushed; what others are still writing need not be waited for.
const writtenTo = `select (('x' || left(pg_walfile_name(pg_current_wal_flush_lsn()), 8))::bit(32)::int)::text as timeline,
  pg_current_wal_flush_lsn()::text as at, ${itself} as database`;
// A standby knows the timeline of its last checkpoint: after a promotion it is read from again when it has made one.
const hasReplayed = `select (pg_is_in_recovery() and pg_last_wal_replay_lsn() >= $1::pg_lsn
  and (select timeline_id from pg_control_checkpoint())::text = $2
  and ${itself} = $3)::text as there`;

/** Whether a replica fell out, or stopped a reader because it had to go on, rather than the reader being wrong. */
const isOfReplica = (error: unknown): boolean =>
  databaseIsGone(error) ||
  (error instanceof Error && 'code' in error && (error.code === '40001' || error.code === '57014'));

/**
 * Where lists and reports are read: at a replica where there is one that has what was confirmed anywhere before the
 * reading began, so that everybody finds there what he, or anybody whose change he heard of, has just done; at the
 * database itself otherwise.
 */
export class Reading {
  /** How often it was read at the replica, and how often not though there is one. */
  readonly counts = { replica: 0, primary: 0 };
  private readonly pool: pg.Pool;
  private readonly replica: pg.Pool | null;
  private readonly log: Logger;
  private leaveAloneUntil = 0;

  constructor(pool: pg.Pool, replica: pg.Pool | null, log: Logger) {
    this.pool = pool;
    this.replica = replica;
    this.log = log;
  }

  /** One statement, or several that need not see the same moment. */
  async read<T>(work: (db: Queryable) => Promise<T>): Promise<T> {
    const replica = await this.readyReplica();
    return replica === null ? work(this.pool) : this.at(replica, work, () => work(this.pool));
  }

  /** Statements that see the database as it was at one moment. */
  async snapshot<T>(work: (db: Queryable) => Promise<T>): Promise<T> {
    const replica = await this.readyReplica();
    return replica === null ? snapshot(this.pool, work) : this.at(replica, work, () => snapshot(this.pool, work));
  }

  private async at<T>(replica: pg.Pool, work: (db: Queryable) => Promise<T>, otherwise: () => Promise<T>): Promise<T> {
    try {
      const read = await snapshot(replica, work);
      this.counts.replica += 1;
      return read;
    } catch (error) {
      if (!isOfReplica(error)) throw error;
      this.leaveAlone(error);
      return otherwise();
    }
  }

  private leaveAlone(error: unknown): void {
    this.counts.primary += 1;
    this.leaveAloneUntil = Date.now() + leaveAloneMilliseconds;
    this.log.warn({ err: error instanceof Error ? error.message : String(error) }, 'the replica is not read from');
  }

  /** The replica, once it has replayed all that was confirmed until now. */
  private async readyReplica(): Promise<pg.Pool | null> {
    const { replica } = this;
    if (replica === null) return null;
    if (Date.now() < this.leaveAloneUntil) {
      this.counts.primary += 1;
      return null;
    }
    const position = await one(this.pool, writtenTo, [], (row): Position => ({
      database: text(row, 'database'),
      timeline: text(row, 'timeline'),
      at: text(row, 'at'),
    }));
    try {
      for (const pause of pauses) {
        await wait(pause);
        if (await this.isThere(replica, position)) return replica;
      }
    } catch (error) {
      this.leaveAlone(error);
      return null;
    }
    this.counts.primary += 1;
    return null;
  }

  // Asked before the moment of the reading is taken, so that what is read cannot be older.
  private isThere(replica: pg.Pool, { database, timeline, at }: Position): Promise<boolean> {
    return one(replica, hasReplayed, [at, timeline, database], (row) => text(row, 'there') === 'true');
  }
}
