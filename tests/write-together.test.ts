import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import type pg from 'pg';
import { pino } from 'pino';
import { createPool } from '@fairwatt/server';
import { writeTogether, type FirstAndRest, type Statement } from '../server/src/database/query.ts';
import { number } from '../server/src/database/read.ts';
import { freshDatabase } from './fresh-database.ts';

let database: Awaited<ReturnType<typeof freshDatabase>>;
let pool: pg.Pool;
beforeAll(async () => {
  // One connection, so that one that is left in a transaction is met by the next that asks.
  database = await freshDatabase('bare');
  pool = createPool(database.url, pino({ level: 'silent' }), { most: 1, idleMilliseconds: 0 });
  await pool.query('create table kept (id int primary key, figure int not null)');
});
afterAll(async () => {
  await pool.end();
  await database.drop();
});
beforeEach(async () => {
  await pool.query('truncate kept');
  await pool.query('insert into kept values (1, 10)');
});

const add = (id: number, figure: number | null): Statement => ({
  statement: 'insert into kept values ($1, $2)',
  values: [id, figure],
});
const move = (id: number): Statement => ({
  statement: { name: 'move', text: 'update kept set figure = figure + 1 where id = $1 returning figure' },
  values: [id],
});
const write = (rest: readonly Statement[], more: Partial<FirstAndRest<number>> = {}) =>
  writeTogether(pool, {
    first: move(1),
    read: (row) => number(row, 'figure'),
    rest: () => Promise.resolve(rest),
    ...more,
  });
const kept = async () => (await pool.query<{ id: number; figure: number }>('select * from kept order by id')).rows;
const untouched = [{ id: 1, figure: 10 }];

describe('writes that go to the database together', () => {
  it('are all there, in their order, and what the first found is read', async () => {
    expect(
      await write([add(2, 20), { statement: 'update kept set figure = 21 where id = 2', values: [] }, add(3, 30)]),
    ).toBe(11);
    expect(await kept()).toEqual([
      { id: 1, figure: 11 },
      { id: 2, figure: 21 },
      { id: 3, figure: 30 },
    ]);
  });
  it('are none where the first finds nothing', async () => {
    expect(await write([add(2, 20)], { first: move(7) })).toBeNull();
    expect(await kept()).toEqual(untouched);
  });
  it.each([
    ['the first', [], { first: add(1, 1) }, /kept_pkey/],
    ['one in the middle', [add(2, 20), add(2, 21), add(3, 30)], {}, /kept_pkey/],
    ['the last', [add(2, 20), add(3, null)], {}, /null value/],
    ['making the rest', [], { rest: () => Promise.reject(new Error('it cannot be made')) }, /cannot be made/],
    [
      'what goes between',
      [add(2, 20)],
      { between: () => Promise.reject(new Error('it went wrong between')) },
      /wrong between/,
    ],
  ] as const)('are none where %s is refused, and the connection is as good as before', async (_, rest, more, why) => {
    await expect(write(rest, more)).rejects.toThrow(why);
    expect(await kept()).toEqual(untouched);
    expect(pool.totalCount).toBe(1);
    expect(await write([add(2, 20)])).toBe(11);
  });
  it('are none where the commit is refused', async () => {
    await pool.query('create table held (id int references kept deferrable initially deferred)');
    await expect(write([{ statement: 'insert into held values (9)', values: [] }])).rejects.toThrow(/held_id_fkey/);
    expect(await kept()).toEqual(untouched);
    await pool.query('drop table held');
  });
  it('have what goes between after the first and before the rest', async () => {
    const seen: unknown[] = [];
    await write([add(2, 20)], {
      between: async (db) => {
        seen.push((await db.query('select id, figure from kept')).rows);
      },
    });
    expect(seen).toEqual([[{ id: 1, figure: 11 }]]);
  });
  it('are none where the connection is lost on the way, and the next write finds another', async () => {
    const end = { statement: 'select pg_terminate_backend(pg_backend_pid())', values: [] };
    await expect(write([add(2, 20), end, add(3, 30)])).rejects.toThrow();
    expect(await kept()).toEqual(untouched);
    expect(await write([])).toBe(11);
  });
});
