import { boundToBe } from '@fairwatt/core';
import { insertRows, many, type Queryable, type Sink } from './query.ts';
import * as column from './read.ts';

type Row = Record<string, unknown>;

/**
 * How one field of a thing stands in its table: in one column or in several, named after the field. One description
 * serves reading and writing, and the compiler holds it to the type of the thing.
 */
export interface Field<V> {
  /** Columns of a field of this name. */
  readonly names: (key: string) => readonly string[];
  /** What is written into them. */
  readonly values: (value: V) => readonly unknown[];
  readonly read: (row: Row, key: string) => V;
  /** What its columns may hold, where that is a list; the schema's checks say the same. */
  readonly words?: ((key: string) => Words) | undefined;
}

/** Words that columns are held to, by column. */
export type Words = Readonly<Record<string, readonly (string | number)[]>>;

const held = <V>(field: Field<V>, words: readonly (string | number)[]): Field<V> => ({
  ...field,
  words: (key) => ({ [boundToBe(field.names(key)[0], 'column of its own')]: words }),
});

/** A description of every field that is kept of a thing. */
export type Fields<T> = { readonly [K in keyof T]-?: Field<T[K]> };

/** Names of columns by fields: the descriptions have a few hundred, and every row that is read asks for each of its own. */
const columnNames = new Map<string, string>();

const asColumn = (key: string): string =>
  key.includes('_')
    ? key
    : key.replace(/[A-Z]/g, (letter) => `_${letter.toLowerCase()}`).replace(/([a-z])(\d)/g, '$1_$2');

/**
 * `ratingWatts` stands in `rating_watts`, `share12` in `share_12`, `has16Pin` in `has_16_pin`; what has its name keeps
 * it.
 */
export function columnName(key: string): string {
  const known = columnNames.get(key);
  if (known !== undefined) return known;
  const name = asColumn(key);
  columnNames.set(key, name);
  return name;
}

const single = <V>(read: (row: Row, name: string) => V): Field<V> => ({
  names: (key) => [columnName(key)],
  values: (value) => [value],
  read: (row, key) => read(row, columnName(key)),
});

export const text = single(column.text);
export const number = single(column.number);
export const boolean = single(column.boolean);
export const instant = single(column.instant);

/** One of the words of a list; another one in the database is an error that names the column. */
export const oneOf = <T extends string>(words: readonly T[]): Field<T> =>
  held(
    single((row, name) => {
      const found = column.text(row, name);
      const word = words.find((candidate) => candidate === found);
      if (word === undefined) throw new Error(`column ${name} holds a word that is not known: ${found}`);
      return word;
    }),
    words,
  );

/** A number of a list. */
export const numberOf = <T extends number>(numbers: readonly T[]): Field<T> =>
  held(
    single((row, name) => {
      const found = column.number(row, name);
      const known = numbers.find((candidate) => candidate === found);
      if (known === undefined) throw new Error(`column ${name} holds a number that is not known: ${found}`);
      return known;
    }),
    numbers,
  );

/** An array of what a column holds one of. */
export const list = <V>(item: Field<V>): Field<readonly V[]> =>
  single<readonly V[]>((row, name) => {
    const found = row[name];
    if (!Array.isArray(found)) throw new Error(`column ${name} is not an array`);
    return found.map((value: unknown) => item.read({ [name]: value }, name));
  });

/** Kept as JSON, and read by what checks its shape. */
export const json = <V>(parse: (value: unknown) => V): Field<V> => ({
  ...single((row, name) => parse(row[name])),
  values: (value) => [JSON.stringify(value)],
});

/** A field whose columns may all be null. */
export const orNull = <V>(field: Field<V>): Field<V | null> => ({
  names: field.names,
  words: field.words,
  values: (value) => (value === null ? field.names('').map(() => null) : field.values(value)),
  read: (row, key) => (field.names(key).every((name) => row[name] === null) ? null : field.read(row, key)),
});

/** A field that is left out where its column is null. */
export const optional = <V>(field: Field<V>): Field<V | undefined> => ({
  names: field.names,
  words: field.words,
  values: (value) => (value === undefined ? field.names('').map(() => null) : field.values(value)),
  read: (row, key) => (field.names(key).every((name) => row[name] === null) ? undefined : field.read(row, key)),
});

/** A field that stands in a column of another name. */
export const named = <V>(name: string, field: Field<V>): Field<V> => ({
  names: () => field.names(name),
  words: field.words === undefined ? undefined : () => field.words?.(name) ?? {},
  values: field.values,
  read: (row) => field.read(row, name),
});

/** A thing inside a thing: its fields stand in the same row, each behind the prefix. */
export function within<T extends object>(fields: Fields<T>, prefix = ''): Field<T> {
  const all = entries(fields);
  const inner = (key: string) => (prefix === '' ? key : `${prefix}_${columnName(key)}`);
  return {
    names: () => all.flatMap(([key, field]) => field.names(inner(key))),
    words: () => Object.assign({}, ...all.map(([key, field]) => field.words?.(inner(key)) ?? {})) as Words,
    values: (value) => all.flatMap(([key, field]) => field.values(value[key as keyof T])),
    read: (row) => readFields(all, row, inner) as T,
  };
}

/** The fields of a thing as a plain list; their values are of one type each, which the list no longer knows. */
const entries = <T extends object>(fields: Fields<T>): readonly (readonly [string, Field<unknown>])[] =>
  Object.entries(fields);

/** The fields that a row holds; one that is left out is not there at all. */
function readFields(
  all: readonly (readonly [string, Field<unknown>])[],
  row: Row,
  inner: (key: string) => string = (key) => key,
): object {
  const found: Record<string, unknown> = {};
  for (const [key, field] of all) {
    const value = field.read(row, inner(key));
    if (value !== undefined) found[key] = value;
  }
  return found;
}

/** What stands in the rows of a table. */
export interface Described<T> {
  readonly columns: readonly string[];
  /** Columns that are held to a list of words or numbers. */
  readonly words: Words;
  readonly values: (item: T) => readonly unknown[];
  readonly read: (row: Row) => T;
}

export function describe<T extends object>(fields: Fields<T>): Described<T> {
  const all = entries(fields);
  return {
    columns: all.flatMap(([key, field]) => field.names(key)),
    words: Object.assign({}, ...all.map(([key, field]) => field.words?.(key) ?? {})) as Words,
    values: (item) => all.flatMap(([key, field]) => field.values(item[key as keyof T])),
    read: (row) => readFields(all, row) as T,
  };
}

/** Things that belong to one owner, such as a job's readings, each in a row; in their order where they have one. */
export interface ListTable<T> extends Described<T> {
  readonly table: string;
  /** The column of the owner's id. */
  readonly owner: string;
  /** The column that tells one from another, and what stands in it. */
  readonly key: string;
  readonly keyOf: (item: T) => string;
  /** What they are ordered by; `position` is written as they stand. */
  readonly order: string;
}

export async function readList<T>(db: Queryable, from: ListTable<T>, owner: number): Promise<T[]> {
  const sql = `select * from ${from.table} where ${from.owner} = $1 order by ${from.order}`;
  return many(db, sql, [owner], from.read);
}

/**
 * Writes what is new or changed among them, deletes what is gone, and leaves the rest alone. What is the very same
 * object in the same place has not changed.
 * @returns what was written
 */
export async function syncList<T, Item extends T>(
  db: Sink,
  into: ListTable<T>,
  owner: number,
  before: readonly Item[],
  after: readonly Item[],
): Promise<readonly Item[]> {
  if (before === after) return [];
  const old = new Map(before.map((item, position) => [into.keyOf(item), { item, position }]));
  const changed: { readonly item: Item; readonly position: number }[] = [];
  after.forEach((item, position) => {
    const was = old.get(into.keyOf(item));
    if (was?.item === item && was.position === position) old.delete(into.keyOf(item));
    else changed.push({ item, position });
  });
  const stale = [...old.keys()];
  if (stale.length > 0)
    await db.query(`delete from ${into.table} where ${into.owner} = $1 and ${into.key}::text = any($2)`, [
      owner,
      stale,
    ]);
  const placed = into.order === 'position';
  await insertRows(
    db,
    into.table,
    [into.owner, ...(placed ? ['position'] : []), ...into.columns],
    changed.map(({ item, position }) => [owner, ...(placed ? [position] : []), ...into.values(item)]),
  );
  return changed.map(({ item }) => item);
}

/** Rows that hang on other rows, such as the plugs of cables, in their order. */
export interface ChildTable<T> extends Described<T> {
  readonly table: string;
  /** The column that names the row they hang on. */
  readonly parent: string;
  /** What they are ordered by; `position` is written as they stand. */
  readonly order: string;
}

/** Reads the children that a condition picks, all at once, and gives those of each parent. */
export async function readChildren<T>(
  db: Queryable,
  from: ChildTable<T>,
  where: string,
  values: readonly unknown[],
): Promise<(parent: string) => readonly T[]> {
  const found = new Map<string, T[]>();
  const sql = `select * from ${from.table} where ${where} order by ${from.parent}, ${from.order}`;
  await many(db, sql, values, (row) => {
    const parent = column.text(row, from.parent);
    const items = found.get(parent);
    if (items === undefined) found.set(parent, [from.read(row)]);
    else items.push(from.read(row));
  });
  return (parent) => found.get(parent) ?? [];
}

/** Writes the children of rows that were just written; `besides` stands in each of their rows. */
export async function writeChildren<P, T>(
  db: Sink,
  into: ChildTable<T>,
  parents: readonly P[],
  keyOf: (parent: P) => string,
  childrenOf: (parent: P) => readonly T[],
  besides: Readonly<Record<string, unknown>> = {},
): Promise<void> {
  const placed = into.order === 'position';
  await insertRows(
    db,
    into.table,
    [...Object.keys(besides), into.parent, ...(placed ? ['position'] : []), ...into.columns],
    parents.flatMap((parent) =>
      childrenOf(parent).map((child, position) => [
        ...Object.values(besides),
        keyOf(parent),
        ...(placed ? [position] : []),
        ...into.values(child),
      ]),
    ),
  );
}

/** Writes things as rows of a table that is all theirs. */
export const insertAll = <T>(
  db: Queryable,
  table: string,
  { columns, values }: Described<T>,
  items: readonly T[],
): Promise<void> => insertRows(db, table, columns, items.map(values));

/** Writes a thing, over one that has the same key. */
export async function upsert<T>(
  db: Queryable,
  table: string,
  { columns, values }: Described<T>,
  item: T,
  key = 'id',
): Promise<void> {
  const sets = columns.filter((name) => name !== key).map((name) => `${name} = excluded.${name}`);
  await db.query(
    `insert into ${table} (${columns.join(', ')}) values (${columns.map((_, index) => `$${index + 1}`).join(', ')})
    on conflict (${key}) do update set ${sets.join(', ')}`,
    [...values(item)],
  );
}

/** Writes over a thing that is there; its first column is its key. */
export async function updateRow<T>(
  db: Queryable,
  table: string,
  { columns, values }: Described<T>,
  item: T,
): Promise<void> {
  const [key, ...rest] = columns;
  const sets = rest.map((name, index) => `${name} = $${index + 2}`);
  await db.query(`update ${table} set ${sets.join(', ')} where ${key} = $1`, [...values(item)]);
}
