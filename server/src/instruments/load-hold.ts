import type pg from 'pg';
import { many, maybeOne, type Queryable } from '../database/query.ts';
import { boolean, text } from '../database/read.ts';

/** The first half of the keys under which loads are held; the other is made from the load's id. */
const holds = 0x10ad;

/** A load that this process alone works with, whatever other server processes the shop has. */
export interface LoadHold {
  readonly release: () => Promise<void>;
}

/**
 * Takes a load for this process, by a lock of the database on a connection of its own: it ends with the process,
 * however that ends.
 * @returns null when another process, or another hand of this one, holds it
 */
export async function holdLoad(pool: pg.Pool, loadId: string): Promise<LoadHold | null> {
  const client = await pool.connect();
  try {
    const held = await maybeOne(
      client,
      'select pg_try_advisory_lock($1, hashtext($2)) as held',
      [holds, loadId],
      (row) => boolean(row, 'held'),
    );
    if (held !== true) {
      client.release();
      return null;
    }
  } catch (error) {
    client.release(true);
    throw error;
  }
  return {
    release: async () => {
      // A connection that is gone has let go of it already.
      const broken = await client.query('select pg_advisory_unlock($1, hashtext($2))', [holds, loadId]).then(
        () => false,
        () => true,
      );
      client.release(broken);
    },
  };
}

/** Which of these loads somebody holds just now. */
export async function heldLoads(db: Queryable, loadIds: readonly string[]): Promise<ReadonlySet<string>> {
  if (loadIds.length === 0) return new Set();
  const ids = await many(
    db,
    `select id from unnest($2::text[]) as id where exists (
      select from pg_locks
        where locktype = 'advisory' and granted and objsubid = 2
          and database = (select oid from pg_database where datname = current_database())
          and classid::bigint = $1 and objid::bigint = (hashtext(id)::bigint & 4294967295)
    )`,
    [holds, [...loadIds]],
    (row) => text(row, 'id'),
  );
  return new Set(ids);
}
