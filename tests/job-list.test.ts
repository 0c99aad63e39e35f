import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { firstJobPage, type JobList } from '@fairwatt/contract';
import { partClass, type Act, type CableBags, type Job, type SheetChanges } from '@fairwatt/core';
import { pageStatement } from '../server/src/jobs/list-statement.ts';
import { makeManyJobs } from './many-jobs.ts';
import { startServer, type RunningServer } from './running-server.ts';

let server: RunningServer;
/** Jobs that were made by nothing but the database, enough that reading all of them would be noticed. */
const many = 20_000;
beforeAll(async () => {
  server = await startServer();
  await makeManyJobs(server.pool, many);
});
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
  it('is in the order in which open jobs are wanted: urgent ones, then by their day, what waits last', async () => {
    const change = async (code: string, changes: SheetChanges) => {
      const { version } = (await server.call<Job>(`/jobs/${code}`)).body.sheet;
      return server.act(code, { kind: 'edit-sheet', changes, basedOn: version });
    };
    const open = (await list('state=open')).jobs.map((job) => job.code).slice(0, 5);
    const [later, waits, urgent, sooner, nobody] = open as [string, string, string, string, string];
    const answers = [
      await change(later, { promisedOn: '2026-12-24', priority: 'usual', inCharge: 'nobody-else' }),
      await change(waits, { promisedOn: '2026-11-28', priority: 'waits' }),
      await change(urgent, { promisedOn: null, priority: 'urgent' }),
      await change(sooner, { promisedOn: '2026-11-29', priority: 'usual', inCharge: null }),
      await change(nobody, { promisedOn: null, priority: 'usual' }),
    ];
    expect(answers.map(({ status }) => status)).toEqual([200, 200, 200, 200, 200]);
    const wanted = (await list('order=wanted')).jobs;
    const these = wanted.filter(({ code }) => open.includes(code));
    expect(these.map(({ code }) => code)).toEqual([urgent, sooner, later, nobody, waits]);
    expect(these[1]).toMatchObject({ promisedOn: '2026-11-29', priority: 'usual', inCharge: null });
    expect((await list('order=wanted&inCharge=nobody-else')).jobs.map((job) => job.code)).toEqual([later]);
    expect(wanted.every((job) => job.state === 'open')).toBe(true);
    expect((await server.call('/jobs?order=wanted&after=open~2026-01-01T00:00:00.000Z~9')).status).toBe(422);
  });
  it('leaves out what was put away, and shows it where that is asked for; taken out it is there again', async () => {
    const made = await server.make('Entered twice by mistake');
    const codes = async (query: string) => (await list(query)).jobs.map(({ code }) => code);
    const put = await server.act(made.code, { kind: 'put-away', reason: 'Twice', basedOn: made.stateVersion });
    expect(put.status).toBe(200);
    for (const query of ['', 'state=open', 'search=entered%20twice', 'order=wanted'])
      expect(await codes(query)).not.toContain(made.code);
    expect(await codes('state=away')).toEqual([made.code]);
    expect(await codes('state=away&search=twice')).toEqual([made.code]);
    expect((await server.call<Job>(`/jobs/${made.code}`)).body.putAway?.reason).toBe('Twice');
    const { stateVersion } = put.body;
    expect((await server.act(made.code, { kind: 'reopen', basedOn: stateVersion })).status).toBe(200);
    expect(await codes('state=open')).toContain(made.code);
    expect(await codes('state=away')).toEqual([]);
  });
  it('finds a job by the label of a spare cable that was plugged in, and says that it stood in a bag', async () => {
    const found = async () => (await list('search=bag-03')).jobs.map(({ code, hit }) => ({ code, hit }));
    expect(await found()).toEqual([]);
    const made = await server.make('Long drive row');
    const { inlets, figures } = partClass('drive-35')!;
    const inlet = { ...inlets[0]!, id: randomUUID() };
    const drive = { id: randomUUID(), classId: 'drive-35', name: 'Drive', quantity: 1, change: 'stays' } as const;
    const put: Act = { kind: 'put-part', part: { ...drive, figures, inlets: [inlet] }, basedOn: 0 };
    expect((await server.act(made.code, put)).status).toBe(200);
    const { id } = (await server.call<CableBags>('/cable-bags')).body.cables.find(({ label }) => label === 'BAG-03')!;
    const ticks = { click: true, tug: true, gap: true, halves: true, bend: true, panel: true };
    const seat = { inletId: inlet.id, cableCode: 'N1', piece: `bag:${id} 1 sata DRIVE 1`, plugIndex: 0, ...ticks };
    expect((await server.act(made.code, { kind: 'put-seat', seat, basedOn: 0 })).status).toBe(200);
    expect(await found()).toEqual([{ code: made.code, hit: { field: 'bag', text: 'BAG-03' } }]);
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
    ['the first page', {}],
    ['the open ones', { state: 'open' as const }],
    ['a page far down', { state: 'closed' as const, after: 'closed~2026-01-01T00:00:00.000Z~9' }],
    ['a search for something rare', { search: '01632 019999' }],
    ['a search for something common', { search: 'cuts it' }],
    ['what is wanted next', { order: 'wanted' as const }],
    ['what is wanted after a day', { order: 'wanted' as const, after: '1 2026-11-30~9' }],
    ['what somebody has in hand', { inCharge: 'mara' }],
    ['what is wanted next of somebody', { order: 'wanted' as const, inCharge: 'mara' }],
  ])('reads no whole table for %s', async (_what, query) => {
    const { sql, values } = pageStatement({ ...firstJobPage, ...query }, 'this one');
    const { rows } = await server.pool.query<{ 'QUERY PLAN': string }>(`explain ${sql}`, [...values]);
    const plan = rows.map((row) => row['QUERY PLAN']).join('\n');
    expect(plan).toContain('Scan');
    expect(plan).not.toMatch(/Seq Scan on (job|job_event|job_part|job_search)\b/);
  });
});
