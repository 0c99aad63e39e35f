import { isDeepStrictEqual } from 'node:util';
import type pg from 'pg';
import { inOnePiece } from './placed-client.ts';

/** A pool or a client inside a transaction. */
export type Queryable = Pick<pg.ClientBase, 'query'>;
/** What a statement that writes is given to, where nobody reads its answer: a connection, or what is sent together. */
export interface Sink {
  query(statement: string | Prepared, values?: unknown[]): Promise<unknown>;
}
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

const configOf = (statement: string | Prepared): pg.QueryConfig =>
  typeof statement === 'string' ? { text: statement } : statement;

/** All rows, each read by `read`. */
export async function many<T>(
  db: Queryable,
  sql: string | Prepared,
  values: readonly unknown[],
  read: Read<T>,
): Promise<T[]> {
  const result = await db.query(configOf(sql), [...values]);
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
    client.release(await isBroken(client));
    throw error;
  }
}

/**
 * Ends what a connection began, where that is still under way. One that cannot roll back is of no more use; the pool
 * then makes a new one.
 */
const isBroken = async (client: pg.PoolClient): Promise<boolean> =>
  client.getTransactionStatus() !== 'I' &&
  (await client.query('rollback').then(
    () => false,
    () => true,
  ));

/** A statement with its values. */
export interface Statement {
  readonly statement: string | Prepared;
  readonly values: readonly unknown[];
}

/** Statements in their order, kept until they are sent together. */
export class Together implements Sink {
  readonly statements: Statement[] = [];

  query(statement: string | Prepared, values: unknown[] = []): Promise<void> {
    this.statements.push({ statement, values });
    return Promise.resolve();
  }
}

/**
 * Sends statements one behind the other without waiting for an answer between them, as the connections of a pool can.
 * @throws what the first of them that was refused was refused for; inside a transaction those behind it are as well
 */
async function sendTogether(client: pg.PoolClient, statements: readonly Statement[]): Promise<pg.QueryResult[]> {
  const sent = inOnePiece(client, () =>
    statements.map(({ statement, values }) => client.query<Row>(configOf(statement), [...values])),
  );
  const settled = await Promise.allSettled(sent);
  return settled.map((answer) => {
    if (answer.status === 'rejected') throw answer.reason as Error;
    return answer.value;
  });
}

/** What is written in one transaction, where its first statement says whether the rest follows. */
export interface FirstAndRest<T> {
  readonly first: Statement;
  /** Reads the one row that the first statement finds. */
  readonly read: Read<T>;
  /** Makes what follows, while the database is at the first; where it cannot, nothing is written. */
  readonly rest: () => Promise<readonly Statement[]>;
  /** What goes between with reads of its own; most writes have nothing there. */
  readonly between?: (db: Queryable) => Promise<void>;
}

const bare = (statement: string): Statement => ({ statement, values: [] });

/**
 * Writes in one transaction that goes to the database twice, however many statements it has: with the first, and with
 * all that follows and the commit.
 * @returns what was read; null, and nothing written, where the first statement found no row
 */
export async function writeTogether<T>(
  pool: pg.Pool,
  { first, read, rest, between }: FirstAndRest<T>,
): Promise<T | null> {
  const client = await pool.connect();
  try {
    const begun = sendTogether(client, [bare('begin'), first]);
    // The connection is waited for first, whatever becomes of the rest.
    const following = rest();
    following.catch(() => undefined);
    const [, found] = await begun;
    const row = (found?.rows as Row[] | undefined)?.[0];
    if (row !== undefined) await between?.(client);
    await sendTogether(client, row === undefined ? [bare('rollback')] : [...(await following), bare('commit')]);
    client.release();
    return row === undefined ? null : read(row);
  } catch (error) {
    client.release(await isBroken(client));
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
  db: Sink,
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
