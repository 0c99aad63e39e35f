import { z } from 'zod';
import {
  searchDocument,
  searchFieldIds,
  searchFields,
  searchWords,
  type Job,
  type SearchField,
  type SearchNames,
} from '@fairwatt/core';
import { many, type Prepared, type Queryable, type Sink } from '../database/query.ts';
import { number } from '../database/read.ts';

/** What a job is found by, as it is kept. */
export const storedFields = z.array(z.object({ field: z.enum(searchFieldIds), text: z.string() }));

const keepSql: Prepared = {
  name: 'keep-search',
  text: `insert into job_search (job_id, document, fields) values ($1, $2, $3)
    on conflict (job_id) do update set document = excluded.document, fields = excluded.fields`,
};

const keep = (db: Sink, jobId: number, fields: readonly SearchField[]) =>
  db.query(keepSql, [jobId, searchDocument(fields), JSON.stringify(fields)]);

const isSame = (a: readonly SearchField[], b: readonly SearchField[]): boolean =>
  a.length === b.length && a.every(({ field, text }, index) => b[index]?.field === field && b[index].text === text);

/** Writes what a job is found by, where that is another than before. */
export async function writeSearch(
  db: Sink,
  jobId: number,
  before: Job | null,
  after: Job,
  names: SearchNames,
): Promise<void> {
  const fields = searchFields(after, names);
  if (before !== null && isSame(searchFields(before, names), fields)) return;
  await keep(db, jobId, fields);
}

/** Writes what a job is found by, whatever stood there. */
export function indexJob(db: Sink, jobId: number, job: Job, names: SearchNames): Promise<unknown> {
  return keep(db, jobId, searchFields(job, names));
}

/** Some jobs that nothing is kept of to find them by, as after an older program. */
export const jobsNotSearchable = (db: Queryable, most: number): Promise<readonly number[]> =>
  many(
    db,
    'select id from job where not exists (select from job_search where job_id = job.id) order by id limit $1',
    [most],
    (row) => number(row, 'id'),
  );

/** A part of a statement that is true of the jobs that a query finds; null for no query. */
export function foundBy(query: string, mark: (value: string) => string): string | null {
  const words = searchWords(query);
  if (words.length === 0) return null;
  const likes = words.map((word) => `document like ${mark(`%${word.replace(/[\\%_]/g, '\\$&')}%`)}`);
  return `job.id in (select job_id from job_search where ${likes.join(' and ')})`;
}
