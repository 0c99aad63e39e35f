import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import pg from 'pg';
import * as bags from '../server/src/cable-bags/tables.ts';
import type { Described } from '../server/src/database/table.ts';
import * as jobs from '../server/src/jobs/tables.ts';
import * as shop from '../server/src/shop/tables.ts';
import * as supplies from '../server/src/supplies/tables.ts';
import { freshDatabase } from './fresh-database.ts';

let client: pg.Client;
let drop: () => Promise<void>;
beforeAll(async () => {
  const database = await freshDatabase('bare');
  ({ drop } = database);
  client = new pg.Client({ connectionString: database.url });
  await client.connect();
});
afterAll(async () => {
  await client.end();
  await drop();
});

type Table = readonly [table: string, described: Pick<Described<unknown>, 'columns' | 'words'>];
const named: readonly Table[] = [
  ['job', jobs.jobHead],
  ['pinout', bags.pinout],
  ['bag_cable', bags.cable],
  ['bag_adapter', bags.adapter],
  ['cable_proof', bags.proof],
  ['technician', shop.technician],
  ['instrument', shop.instrument],
  ['network_instrument', shop.networkInstrument],
  ['shop_settings', shop.settings],
  ['supply_model', supplies.model],
  ['supply_unit', supplies.unit],
  ['own_part', supplies.ownPart],
];
const withTable = [jobs, bags, shop, supplies]
  .flatMap((tables): readonly unknown[] => Object.values(tables))
  .filter((item): item is Table[1] & { readonly table: string } => item instanceof Object && 'table' in item)
  .map((item): Table => [item.table, item]);
const tables = [...named, ...withTable];

/** The words that a check of one column alone, or of its domain, lets in; null where no check names words. */
async function allowed(table: string, column: string): Promise<string[] | null> {
  const { rows } = await client.query<{ text: string }>(
    `select pg_get_constraintdef(pg_constraint.oid) as text
    from pg_attribute join pg_constraint
      on (contype = 'c' and conrelid = attrelid and conkey = array[attnum]) or (contypid <> 0 and contypid = atttypid)
    where attrelid = $1::regclass and attname = $2`,
    [table, column],
  );
  const lists = rows.map(({ text }) =>
    [...text.matchAll(/'([^']*)'::text|(?<![\w.'])(\d+)(?![\w.'])/g)].map((found) => found[1] ?? found[2] ?? ''),
  );
  return lists.find((words) => words.length > 1) ?? null;
}

describe('a table as the program describes it', () => {
  it('is one of all that are described', () => {
    expect(tables.length).toBeGreaterThan(35);
  });
  it.each(tables)('%s has its columns, and no other that must be filled', async (table, { columns }) => {
    const { rows } = await client.query<{ column_name: string; must: boolean }>(
      `select column_name, is_nullable = 'NO' and column_default is null and identity_generation is null
        and is_generated = 'NEVER' as must
      from information_schema.columns where table_name = $1`,
      [table],
    );
    const there = rows.map((row) => row.column_name);
    expect(columns.filter((column) => !there.includes(column))).toEqual([]);
    const written = [
      ...columns,
      'job_id',
      'position',
      'model_id',
      'part_id',
      'log_id',
      'probe_id',
      'cable_id',
      'pinout_id',
    ];
    const owners = [...written, 'instrument_id'];
    expect(rows.filter((row) => row.must && !owners.includes(row.column_name))).toEqual([]);
  });
  it.each(tables.filter(([, { words }]) => Object.keys(words).length > 0))(
    '%s is held to the same words by the database',
    async (table, { words }) => {
      for (const [column, known] of Object.entries(words)) {
        const inDatabase = await allowed(table, column);
        expect(inDatabase === null ? `${column}: no check` : [...inDatabase].sort()).toEqual(known.map(String).sort());
      }
    },
  );
});
