import { setTimeout as wait } from 'node:timers/promises';
import {
  hitOf,
  type JobState,
  type Priority,
  searchWords,
  stationLineText,
  writtenAs,
  type Model,
  type SearchField,
  type Shop,
  type Station,
} from '@fairwatt/core';
import type { JobList, JobListQuery, UsualMachine } from '@fairwatt/contract';
import { many, type Queryable } from '../database/query.ts';
import type { Reading } from '../database/reading.ts';
import { boolean, instant, member, number, orNull, text } from '../database/read.ts';
import { mostCounted, pageSize, pageStatement } from './list-statement.ts';
import { storedFields } from './search.ts';
import type { StationKeeper } from './station-keeper.ts';
import { readComputingShop, type ShopStamps } from './store.ts';

/** How long a list waits for lines that are being made anew; it shows the old ones after that. */
const patienceMilliseconds = 400;

/** A job of the list as its row gives it. */
interface Found {
  readonly id: number;
  readonly turn: string;
  readonly head: Omit<JobList['jobs'][number], 'fresh' | 'stations' | 'hit'>;
  readonly old: boolean;
  readonly fields: readonly SearchField[];
  readonly stations: readonly Station[];
}

interface Page {
  /** What was asked in the end. */
  readonly query: JobListQuery;
  readonly stamps: ShopStamps;
  readonly total: number;
  readonly found: readonly Found[];
}

interface Seen {
  readonly list: JobList;
  /** Jobs on the page whose lines are old. */
  readonly old: readonly number[];
}

type Row = Record<string, unknown>;

function readFound(row: Row): Found | null {
  const id = orNull(number)(row, 'id');
  if (id === null) return null;
  return {
    id,
    head: {
      code: text(row, 'code'),
      title: text(row, 'title'),
      client: text(row, 'client'),
      words: text(row, 'words'),
      state: member<JobState>(row, 'state'),
      updatedAt: instant(row, 'updated_at'),
      priority: member<Priority>(row, 'priority'),
      promisedOn: orNull(text)(row, 'promised_on'),
      inCharge: orNull(text)(row, 'in_charge'),
    },
    turn: text(row, 'turn'),
    old: boolean(row, 'old'),
    fields: row['fields'] === null ? [] : storedFields.parse(row['fields']),
    // Only lines that this very program wrote are given.
    stations: (row['stations'] as readonly Station[] | null) ?? [],
  };
}

async function readPage(db: Queryable, program: string, query: JobListQuery): Promise<Page> {
  const { sql, values } = pageStatement(query, program);
  const rows = await many(db, sql, values, (row) => ({
    stamps: { shelf: text(row, 'shelf'), record: text(row, 'record') },
    total: number(row, 'total'),
    found: readFound(row),
  }));
  const [first] = rows;
  if (first === undefined) throw new Error('a page of jobs has at least the row of the shop');
  const found = rows.flatMap((row) => (row.found === null ? [] : [row.found]));
  // Before the first whole page is the first page.
  if (query.before !== null && found.length <= pageSize) return readPage(db, program, { ...query, before: null });
  return { query, stamps: first.stamps, total: first.total, found };
}

/** A place in the list: open jobs before closed ones and the latest first, or in the order in which they are wanted. */
const placeOf = ({ id, head, turn }: Found, order: JobListQuery['order']): string =>
  order === 'wanted' ? `${turn}~${id}` : `${head.state}~${head.updatedAt}~${id}`;

/** The jobs of a page in the order of the list, and where the pages beside it begin. */
function turnPage(found: readonly Found[], { after, before, order }: JobListQuery) {
  const more = found.length > pageSize;
  const shown = found.slice(0, pageSize);
  const page = before === null ? shown : shown.reverse();
  const first = page[0];
  const last = page.at(-1);
  return {
    page,
    newer: first !== undefined && (before !== null || after !== null) ? placeOf(first, order) : null,
    older: last !== undefined && (before !== null || more) ? placeOf(last, order) : null,
  };
}

const namesOfShelf = new WeakMap<Shop['supplies'], ReadonlyMap<string, string>>();

/** Names of supplies by their ids; a shelf that is in memory is gone through once, not for every page. */
function supplyNames(supplies: Shop['supplies']): ReadonlyMap<string, string> {
  const known = namesOfShelf.get(supplies);
  if (known !== undefined) return known;
  const names = new Map(supplies.map(({ id, name }) => [id, name]));
  namesOfShelf.set(supplies, names);
  return names;
}

/** Words what a station says, for a shop. */
function marking(shop: Shop) {
  const names = supplyNames(shop.supplies);
  return ({ id, state, line }: Station) => ({
    id,
    state,
    line: writtenAs(shop.settings, () =>
      stationLineText(line, shop.model.knowledge, (supply) => names.get(supply) ?? supply),
    ),
  });
}

async function seeJobs(db: Queryable, model: Model, program: string, wanted: JobListQuery): Promise<Seen> {
  const { query, stamps, total, found } = await readPage(db, program, wanted);
  const { page, newer, older } = turnPage(found, query);
  const mark = marking(await readComputingShop(db, model, stamps));
  const words = searchWords(query.search);
  const more = total > mostCounted;
  const jobs = page.map(({ head, old, fields, stations }) => ({
    ...head,
    hit: hitOf(fields, words),
    fresh: !old,
    stations: stations.map(mark),
  }));
  return {
    old: page.filter((job) => job.old).map((job) => job.id),
    list: { total: more ? mostCounted : total, more, newer, older, jobs },
  };
}

/**
 * A page of jobs with what their stations say. What is old among them is made anew first, for as long as a reader waits
 * without noticing; after that it is shown as it was and marked, and whoever listens for changes hears when it is done.
 */
export async function listJobs(
  reading: Reading,
  model: Model,
  keeper: StationKeeper,
  query: JobListQuery,
): Promise<JobList> {
  const see = () => reading.read((db) => seeJobs(db, model, keeper.program, query));
  const seen = await see();
  if (seen.old.length === 0) return seen.list;
  const made = await Promise.race([keeper.renew(seen.old), wait(patienceMilliseconds, false)]);
  return made ? (await see()).list : seen.list;
}

/** Jobs whose machines the shop starts others from; more than these nobody would look through. */
export const usualMachines = (db: Queryable): Promise<UsualMachine[]> =>
  many(
    db,
    `select code, usual_as from job where usual_as <> '' and state <> 'away' order by usual_as, id limit 200`,
    [],
    (row) => ({
      code: text(row, 'code'),
      name: text(row, 'usual_as'),
    }),
  );
