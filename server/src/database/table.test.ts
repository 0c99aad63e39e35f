import fc from 'fast-check';
import { describe as suite, expect, it } from 'vitest';
import type { Queryable } from './query.ts';
import {
  boolean,
  columnName,
  describe,
  json,
  list,
  named,
  number,
  numberOf,
  oneOf,
  optional,
  orNull,
  syncList,
  text,
  within,
  type ListTable,
} from './table.ts';

interface Cable {
  readonly id: string;
  readonly gauge: 16 | 18;
  readonly kind: 'main' | 'card';
  readonly length: number | null;
  readonly note?: string | undefined;
  readonly ends: readonly (number | null)[];
  readonly seen: { readonly by: string; readonly sure: boolean } | null;
  readonly rest: readonly string[];
}
const cables = describe<Cable>({
  id: text,
  gauge: numberOf([16, 18]),
  kind: oneOf(['main', 'card']),
  length: named('millimetres', orNull(number)),
  note: optional(text),
  ends: list(orNull(number)),
  seen: orNull(within({ by: text, sure: boolean }, 'seen')),
  rest: json((value) => value as readonly string[]),
});
const cable: fc.Arbitrary<Cable> = fc.record(
  {
    id: fc.string(),
    gauge: fc.constantFrom<Cable['gauge'][]>(16, 18),
    kind: fc.constantFrom<Cable['kind'][]>('main', 'card'),
    length: fc.option(fc.double({ noNaN: true })),
    note: fc.string(),
    ends: fc.array(fc.option(fc.integer())),
    seen: fc.option(fc.record({ by: fc.string(), sure: fc.boolean() })),
    rest: fc.array(fc.string()),
  },
  { requiredKeys: ['id', 'gauge', 'kind', 'length', 'ends', 'seen', 'rest'], noNullPrototype: true },
);
/** A row as the database gives it: JSON comes parsed. */
const rowOf = (item: Cable): Record<string, unknown> => {
  const values = cables.values(item);
  return Object.fromEntries(
    cables.columns.map((column, index) => [
      column,
      column === 'rest' ? (JSON.parse(values[index] as string) as unknown) : values[index],
    ]),
  );
};

suite('a table that is described once', () => {
  it('names its columns after its fields', () => {
    expect(cables.columns).toEqual([
      'id',
      'gauge',
      'kind',
      'millimetres',
      'note',
      'ends',
      'seen_by',
      'seen_sure',
      'rest',
    ]);
    expect(['ratingWatts', 'share12', 'has16Pin', 'agePercentAYear', 'as_it_is'].map(columnName)).toEqual([
      'rating_watts',
      'share_12',
      'has_16_pin',
      'age_percent_a_year',
      'as_it_is',
    ]);
  });
  it('reads back whatever it writes, and leaves out what was left out', () => {
    fc.assert(
      fc.property(cable, (item) => {
        const back = cables.read(rowOf(item));
        expect(back).toEqual(item);
        expect('note' in back).toBe('note' in item);
        expect(cables.values(item)).toHaveLength(cables.columns.length);
      }),
    );
  });
  it('tells which columns are held to words', () => {
    expect(cables.words).toEqual({ gauge: [16, 18], kind: ['main', 'card'] });
  });
  it.each([
    ['a word that is not of its list', { kind: 'drive' }, 'kind'],
    ['a number that is not of its list', { gauge: 17 }, 'gauge'],
    ['a text where a number belongs', { millimetres: '450' }, 'millimetres'],
    ['nothing where something belongs', { id: null }, 'id'],
    ['no array', { ends: '{}' }, 'ends'],
  ])('says which column holds %s', (_what, wrong, column) => {
    const good: Cable = { id: 'a', gauge: 16, kind: 'main', length: null, ends: [], seen: null, rest: [] };
    expect(() => cables.read({ ...rowOf(good), ...wrong })).toThrow(column);
  });
});

suite('a list that is kept', () => {
  interface Item {
    readonly id: string;
    readonly figure: number;
  }
  const table: ListTable<Item> = {
    table: 'item',
    owner: 'job_id',
    key: 'id',
    keyOf: (item) => item.id,
    order: 'position',
    ...describe<Item>({ id: text, figure: number }),
  };
  /** A table in memory that understands the two statements a list is written by. */
  class Memory {
    rows = new Map<string, { readonly position: number; readonly figure: number }>();
    statements = 0;
    readonly db = {
      query: (sql: string, values: readonly unknown[]) => {
        this.statements += 1;
        if (sql.startsWith('delete')) for (const id of values[1] as string[]) this.rows.delete(id);
        else
          for (let at = 0; at < values.length; at += 4) {
            const [, position, id, figure] = values.slice(at, at + 4) as [number, number, string, number];
            if (this.rows.has(id)) throw new Error(`${id} is there already`);
            this.rows.set(id, { position, figure });
          }
        return Promise.resolve({ rows: [] });
      },
    } as unknown as Queryable;
    get list(): Item[] {
      return [...this.rows]
        .sort(([, one], [, other]) => one.position - other.position)
        .map(([id, { figure }]) => ({ id, figure }));
    }
  }
  const ids = fc.uniqueArray(fc.constantFrom('a', 'b', 'c', 'd', 'e', 'f', 'g', 'h'), { maxLength: 8 });
  it('is afterwards what it should be, however it was changed, and what stayed is not written', async () => {
    await fc.assert(
      fc.asyncProperty(ids, ids, fc.array(fc.boolean(), { minLength: 8, maxLength: 8 }), async (was, wanted, same) => {
        const memory = new Memory();
        const before = was.map((id, figure): Item => ({ id, figure }));
        await syncList(memory.db, table, 1, [], before);
        const after = wanted.map((id, index): Item => {
          const old = before.find((item) => item.id === id);
          return old !== undefined && same[index] === true ? old : { id, figure: 100 + index };
        });
        const written = await syncList(memory.db, table, 1, before, after);
        expect(memory.list).toEqual(after);
        for (const item of written)
          expect(before.indexOf(item) === after.indexOf(item) && before.includes(item)).toBe(false);
      }),
    );
  });
  it('costs nothing where nothing changed', async () => {
    const memory = new Memory();
    const items = [{ id: 'a', figure: 1 }];
    await syncList(memory.db, table, 1, items, items);
    await syncList(memory.db, table, 1, items, [...items]);
    expect(memory.statements).toBe(0);
  });
});
