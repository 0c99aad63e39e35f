import type { JobListQuery } from '@fairwatt/contract';
import { foundBy } from './search.ts';
import { oldLinesSql } from './station-lines.ts';

export const pageSize = 50;
/** No more jobs are counted than a reader would ever go through. */
export const mostCounted = 1000;

export interface Statement {
  readonly sql: string;
  readonly values: readonly unknown[];
}

/** Values of a statement as they are named in it. */
class Values {
  readonly list: unknown[] = [];
  /** The mark that stands for a value. */
  readonly mark = (value: unknown): string => `$${this.list.push(value)}`;
}

const where = (conditions: readonly (string | null)[]): string => {
  const real = conditions.filter((condition) => condition !== null);
  return real.length === 0 ? '' : `where ${real.join(' and ')}`;
};

/** What is wanted next is asked of open jobs. */
const wantedJobs = ({ state, order, inCharge }: JobListQuery, { mark }: Values) => [
  // Those that were put away stand last in the order of states.
  order === 'wanted' ? "state = 'open'" : state === 'all' ? "state > 'away'" : `state = ${mark(state)}`,
  inCharge === '' ? null : `in_charge = ${mark(inCharge)}`,
];

/** The columns that a list is in the order of, and the way they go when it is read from its beginning. */
const orders = {
  changed: { columns: ['state', 'updated_at', 'id'], types: ['text', 'timestamptz', 'bigint'], way: 'desc' },
  wanted: { columns: ['turn', 'id'], types: ['text', 'bigint'], way: 'asc' },
} as const;

/** The way in which a page is read: against the order of the list where it is the one before a place. */
const wayOf = ({ order, before }: JobListQuery): 'asc' | 'desc' =>
  before === null ? orders[order].way : orders[order].way === 'asc' ? 'desc' : 'asc';

const orderBy = (query: JobListQuery, table = ''): string =>
  orders[query.order].columns.map((column) => `${table}${column} ${wayOf(query)}`).join(', ');

/** Heads in the order of the list, and one more than a page has, where there are more in that direction. */
function headsSql(query: JobListQuery, values: Values): string {
  const { mark } = values;
  const { columns, types } = orders[query.order];
  const place = (query.before ?? query.after)?.split('~') ?? null;
  const beyond =
    place === null
      ? null
      : `(${columns.join(', ')}) ${wayOf(query) === 'desc' ? '<' : '>'}
        (${types.map((type, index) => `${mark(place[index])}::${type}`).join(', ')})`;
  return `select id, stamp, code, title, client, words, state, updated_at, priority, promised_on, in_charge, turn
    from job ${where([...wantedJobs(query, values), beyond, foundBy(query.search, mark)])}
    order by ${orderBy(query)} limit ${pageSize + 1}`;
}

function countSql(query: JobListQuery, values: Values): string {
  // What is not searched for is counted along the index of pages, not through the table.
  const order = query.search === '' ? `order by ${orders[query.order].columns.join(', ')}` : '';
  return `select count(*) from (
    select from job ${where([...wantedJobs(query, values), foundBy(query.search, values.mark)])}
    ${order} limit ${mostCounted + 1}) counted`;
}

/**
 * A page of jobs in one statement, so that it is of one moment: the heads with what their stations were last known to
 * say, whether that is old, and what they are found by; beside each the count and the stamps of the shop. One row
 * without a head where nothing is found.
 */
export function pageStatement(query: JobListQuery, program: string): Statement {
  const values = new Values();
  const ours = values.mark(program);
  const fields = query.search === '' ? 'null' : '(select fields from job_search where job_search.job_id = job.id)';
  const sql = `with shop as (
      select (select stamp from shelf_stamp) as shelf, (select revision from shop_record) as record
    ),
    page as (${headsSql(query, values)}),
    found as (${countSql(query, values)})
  select shop.*, found.count as total, job.*,
    ${oldLinesSql('shop.shelf', 'shop.record', ours)} as old,
    ${fields} as fields,
    (select json_agg(json_build_object('id', station, 'state', job_station.state, 'line', line) order by position)
      from job_station where job_station.job_id = job.id and source.program = ${ours}) as stations
  from shop cross join found left join page job on true left join job_station_source source on source.job_id = job.id
  order by ${orderBy(query, 'job.')}`;
  return { sql, values: values.list };
}
