import { type Job, type Shop, type Station, viewJob } from '@fairwatt/core';
import { insertRows, many, maybeOne, type Queryable } from '../database/query.ts';
import { number, text } from '../database/read.ts';
import { rankedFor } from './ranked.ts';
import type { ShopStamps } from './store.ts';

/** What the lines of a job's stations were made from. */
export interface LineSource extends ShopStamps {
  readonly jobStamp: string;
  /** The program that judged; another one may word data that this one does not know. */
  readonly program: string;
}

/** What a job's stations say now. */
export const stationsNow = (job: Job, shop: Shop): readonly Station[] =>
  viewJob(job, shop, { candidates: rankedFor(job, shop) }).stations;

/** Keeps what the stations of a job say, with what it was made from. */
export async function writeStations(
  db: Queryable,
  jobId: number,
  stations: readonly Station[],
  source: LineSource,
): Promise<void> {
  // Two that make the same lines at once write one after the other.
  await db.query(
    `insert into job_station_source (job_id, job_stamp, shelf_stamp, record_revision, program)
    values ($1, $2, $3, $4, $5)
    on conflict (job_id) do update set job_stamp = $2, shelf_stamp = $3, record_revision = $4, program = $5`,
    [jobId, source.jobStamp, source.shelf, source.record, source.program],
  );
  await db.query('delete from job_station where job_id = $1', [jobId]);
  await insertRows(
    db,
    'job_station',
    ['job_id', 'position', 'station', 'state', 'line'],
    stations.map((station, position) => [jobId, position, station.id, station.state, JSON.stringify(station.line)]),
  );
}

/**
 * Lines that are old: the job changed; or it is open, and the shelf, the record or the program did. A closed job keeps
 * what it said when it was closed, unless another program would have to word it. Shelf, record and program are given as
 * they stand in the statement.
 */
export const oldLinesSql = (shelf: string, record: string, program: string) =>
  `(source.job_id is null or source.job_stamp <> job.stamp or source.program <> ${program}
  or (job.state = 'open' and (source.shelf_stamp <> ${shelf} or source.record_revision <> ${record})))`;

/** Some open jobs but these whose lines are old and which nobody has changed since a moment, the latest first. */
export const jobsWithOldLines = (
  db: Queryable,
  program: string,
  { shelf, record }: ShopStamps,
  untouchedSince: Date,
  but: readonly number[],
  most: number,
): Promise<readonly number[]> =>
  many(
    db,
    `select job.id from job left join job_station_source source on source.job_id = job.id
    where job.state = 'open' and ${oldLinesSql('$2', '$3', '$1')} and job.updated_at < $4
      and job.id <> all($5::bigint[])
    order by job.updated_at desc, job.id desc limit $6`,
    [program, shelf, record, untouchedSince, but, most],
    (row) => number(row, 'id'),
  );

export const stampOfJob = (db: Queryable, jobId: number): Promise<string | null> =>
  maybeOne(db, 'select stamp from job where id = $1', [jobId], (row) => text(row, 'stamp'));
