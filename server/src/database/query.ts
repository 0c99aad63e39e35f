import { isDeepStrictEqual } from 'node:util';
import type pg from 'pg';

/** A pool or a client inside a transaction. */
export type Queryable = Pick<pg.ClientBase, 'query'>;
type Row = Record<string, unknown>;
export type Read<T> = (row: Row) => T;

/**
 * A statement that never changes, by a name of its own: the database reads and plans it once for each connection, which
 * for a small one is most of what it costs.
 */
export interface Prepared {
  readonly name: string;
  readonly text: string;
}

/** All rows, each read by `read`. */
export async function many<T>(
  db: Queryable,
  sql: string | Prepared,
  values: readonly unknown[],
  read: Read<T>,
): Promise<T[]> {
  const result = await db.query(typeof sql === 'string' ? { text: sql } : sql, [...values]);
  return (result.rows as Row[]).map(read);
}

/** One row or null. @throws when there are more */
export async function maybeOne<T>(
  db: Queryable,
  sql: string | Prepared,
  values: readonly unknown[],
  read: Read<T>,
): Promise<T | null> {
  const rows = await many(db, sql, values, read);
  if (rows.length > 1) throw new Error(`expected at most one row, got ${rows.length}`);
  return rows[0] ?? null;
}

/** Exactly one row. @throws when there is none or more */
export async function one<T>(
  db: Queryable,
  sql: string | Prepared,
  values: readonly unknown[],
  read: Read<T>,
): Promise<T> {
  const row = await maybeOne(db, sql, values, read);
  if (row === null) throw new Error('expected one row, got none');
  return row;
}

/** Writes that belong together: all or nothing. */
export const transaction = <T>(pool: pg.Pool, work: (client: pg.PoolClient) => Promise<T>): Promise<T> =>
  inTransaction(pool, 'begin', work);

async function inTransaction<T>(pool: pg.Pool, begin: string, work: (client: pg.PoolClient) => Promise<T>): Promise<T> {
  const client = await pool.connect();
  try {
    await client.query(begin);
    const result = await work(client);
    await client.query('commit');
    client.release();
    return result;
  } catch (error) {
    // A connection that cannot roll back is of no more use; the pool then makes a new one.
    const broken = await client.query('rollback').then(
      () => false,
      () => true,
    );
    client.release(broken);
    throw error;
  }
}

/**
 * Whether something stands already as it is wanted, whatever its version: a change whose answer was lost is sent again,
 * and is then no conflict.
 */
export const standsAlready = <T extends { readonly version: number }>(standing: T | undefined, wanted: T): boolean =>
  standing !== undefined && isDeepStrictEqual({ ...standing, version: 0 }, { ...wanted, version: 0 });

/** Reads that belong together: all of them see the database as it was at one moment. */
export async function snapshot<T>(pool: pg.Pool, work: (client: pg.PoolClient) => Promise<T>): Promise<T> {
  return inTransaction(pool, 'begin isolation level repeatable read, read only', work);
}

/**
 * Inserts rows of one shape with one statement; nothing for none. Table and column names come from code, never from
 * input.
 */
export async function insertRows(
  db: Queryable,
  table: string,
  columns: readonly string[],
  rows: readonly (readonly unknown[])[],
): Promise<void> {
  if (rows.length === 0) return;
  const limit = Math.floor(60_000 / columns.length);
  for (let start = 0; start < rows.length; start += limit) {
    const part = rows.slice(start, start + limit);
    const marks = part
      .map((_, row) => `(${columns.map((__, column) => `$${row * columns.length + column + 1}`).join(', ')})`)
      .join(', ');
    await db.query(`insert into ${table} (${columns.join(', ')}) values ${marks}`, part.flat());
  }
}
