import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { JobList } from '@fairwatt/contract';
import { pageStatement } from '../server/src/jobs/list-statement.ts';
import { makeManyJobs } from './many-jobs.ts';
import { startServer, type RunningServer } from './running-server.ts';

let server: RunningServer;
/** Jobs that were made by nothing but the database, enough that reading all of them would be noticed. */
const many = 20_000;
beforeAll(async () => {
  server = await startServer();
  await makeManyJobs(server.pool, many);
}, 60_000);
afterAll(async () => {
  await server.end();
});

const list = async (query: string) => (await server.call<JobList>(`/jobs?${query}`)).body;

describe('a list of very many jobs', () => {
  it('is turned page by page, each job once and in order, there and back', async () => {
    const first = await list('state=closed');
    const seen = [...first.jobs];
    const pages = [first];
    for (let turn = 0; turn < 5; turn += 1) {
      const next = await list(`state=closed&after=${pages.at(-1)!.older!}`);
      seen.push(...next.jobs);
      pages.push(next);
    }
    expect(new Set(seen.map((job) => job.code)).size).toBe(300);
    expect(seen.map((job) => job.updatedAt)).toEqual([...seen.map((job) => job.updatedAt)].sort().reverse());
    expect((await list(`state=closed&before=${pages[5]!.newer!}`)).jobs).toEqual(pages[4]!.jobs);
    expect(first).toMatchObject({ total: 1000, more: true, newer: null });
  });
  it('counts what is found as far as anybody would read, and says where it goes on', async () => {
    expect(await list('search=out%20cuts')).toMatchObject({ total: 1000, more: true });
    expect(await list('search=01632%20019999')).toMatchObject({ total: 1, more: false, older: null });
    expect(await list('search=lq0142')).toMatchObject({
      total: 1,
      jobs: [{ code: 'LQ-0142', hit: { field: 'code' } }],
    });
    expect(await list('search=nobody%20has%20this')).toMatchObject({ total: 0, jobs: [], newer: null, older: null });
  });
  it.each([
    ['the first page', { search: '', state: 'all' as const, after: null, before: null }],
    ['the open ones', { search: '', state: 'open' as const, after: null, before: null }],
    [
      'a page far down',
      { search: '', state: 'closed' as const, after: 'closed~2026-01-01T00:00:00.000Z~9', before: null },
    ],
    ['a search for something rare', { search: '01632 019999', state: 'all' as const, after: null, before: null }],
    ['a search for something common', { search: 'cuts it', state: 'all' as const, after: null, before: null }],
  ])('reads no whole table for %s', async (_what, query) => {
    const { sql, values } = pageStatement(query, 'this one');
    const { rows } = await server.pool.query<{ 'QUERY PLAN': string }>(`explain ${sql}`, [...values]);
    const plan = rows.map((row) => row['QUERY PLAN']).join('\n');
    expect(plan).toContain('Scan');
    expect(plan).not.toMatch(/Seq Scan on (job|job_event|job_part|job_search)\b/);
  });
});
