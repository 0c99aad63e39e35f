// What the server costs in a large shop: npm run bench:server [jobs] [supplies]. Ratios are against a bare Express and
// node-postgres handler with the same statement in the same run.
import { spawn } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { performance } from 'node:perf_hooks';
import { setTimeout as wait } from 'node:timers/promises';
import { fileURLToPath } from 'node:url';
import pg from 'pg';
import { pino } from 'pino';
import type { Act, Job } from '@fairwatt/core';
import { firstJobPage, type JobList } from '@fairwatt/contract';
import { createPool, loadDemo, loadModel } from '@fairwatt/server';
import { migrate } from '@fairwatt/server/administration';
import { ensureDatabase, startCluster } from '../command/src/cluster/index.ts';
import { testCluster } from '../command/src/clusters.ts';
import { pageStatement } from '../server/src/jobs/list-statement.ts';
import { addSupplies, readSupplies } from '../server/src/supplies/store.ts';
import { makeManyJobs } from '../tests/many-jobs.ts';
import { manySupplies } from './sizing.ts';

const [jobs = 100_000, supplies = 1400, seconds = 4] = process.argv.slice(2).map(Number);
/** Rounds that go with the time that is given. */
const rounds = (usual: number) => Math.max(3, Math.round((usual * seconds) / 4));
const log = pino({ level: 'silent' });

async function fill(): Promise<string> {
  const cluster = await startCluster(testCluster());
  const admin = new pg.Client({ connectionString: cluster.url('postgres') });
  await admin.connect();
  await admin.query('drop database if exists bench_server with (force)');
  await admin.end();
  const url = await ensureDatabase(cluster, 'bench_server');
  await migrate(url, log);
  const pool = createPool(url, log);
  await loadDemo(pool, await loadModel(), fileURLToPath(new URL('../demo', import.meta.url)), new Date().toISOString());
  const shipped = await readSupplies(pool);
  await addSupplies(pool, manySupplies(shipped, Math.max(0, supplies - shipped.length)));
  await makeManyJobs(pool, jobs);
  await pool.end();
  return url;
}

function startBeside(url: string): Promise<{ readonly base: string; readonly end: () => void }> {
  const beside = fileURLToPath(new URL('server-beside.ts', import.meta.url));
  const child = spawn(process.execPath, ['--conditions=fairwatt-source', '--import', 'tsx', beside, url], {
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  return new Promise((resolve, reject) => {
    child.once('exit', (code) => reject(new Error(`the server ended with ${code}`)));
    child.stdout.on('data', (chunk: Buffer) => {
      const found = /^ready (\S+)$/m.exec(chunk.toString());
      if (found?.[1] !== undefined) resolve({ base: found[1], end: () => child.kill() });
    });
  });
}

const sorted = (times: readonly number[]) => [...times].sort((a, b) => a - b);
const at = (times: readonly number[], share: number) => sorted(times)[Math.floor(times.length * share)] ?? Number.NaN;
const figures = (times: readonly number[]) => `${at(times, 0.5).toFixed(1)} | ${at(times, 0.95).toFixed(1)}`;

async function timed(work: () => Promise<unknown>): Promise<number> {
  const begun = performance.now();
  await work();
  return performance.now() - begun;
}

const url = await fill();
const { base, end } = await startBeside(url);
const get = async (path: string): Promise<unknown> => {
  const response = await fetch(`${base}${path}`);
  if (!response.ok) throw new Error(`${path}: ${response.status}`);
  return response.json();
};

/** Answers a second with four askers at once, over a few seconds. */
async function throughput(path: string): Promise<number> {
  await get(path);
  let answers = 0;
  const begun = performance.now();
  await Promise.all(
    Array.from({ length: 4 }, async () => {
      while (performance.now() - begun < seconds * 1000) {
        await get(path);
        answers += 1;
      }
    }),
  );
  return (answers * 1000) / (performance.now() - begun);
}

async function act(code: string, done: Act): Promise<Job> {
  const response = await fetch(`${base}/api/jobs/${code}/acts`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ id: randomUUID(), by: 'mara', act: done }),
  });
  if (!response.ok) throw new Error(`${done.kind}: ${response.status} ${await response.text()}`);
  return (await response.json()) as Job;
}

/** One field of a job changed again and again, each time on what the last answer gave; milliseconds of each. */
async function editing(code: string, rounds: number, pauseMilliseconds = 0): Promise<number[]> {
  let job = (await get(`/api/jobs/${code}`)) as Job;
  const times: number[] = [];
  for (let round = 0; round < rounds; round += 1) {
    await wait(pauseMilliseconds);
    times.push(
      await timed(async () => {
        const changes = { watch: `Round ${round}` };
        job = await act(code, { kind: 'edit-sheet', changes, basedOn: job.sheet.version });
      }),
    );
  }
  return times;
}

const open = ['LQ-0142', 'LQ-0143', 'LQ-0144', 'LQ-0145', 'LQ-0146', 'LQ-0147'];
const largest = 'LQ-0142';
async function make(title: string): Promise<string> {
  const response = await fetch(`${base}/api/jobs`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ id: randomUUID(), by: 'mara', title, client: '', words: '' }),
  });
  return ((await response.json()) as Job).code;
}
const crowd = [...open, await make('Seventh'), await make('Eighth')];
// Until what lists say of the open jobs is made, the threads are at work beside.
for (;;) {
  const list = (await get('/api/jobs?state=open')) as JobList;
  if (list.jobs.every((job) => job.fresh)) break;
}
await editing(largest, rounds(50));

console.log(`${jobs} jobs, ${supplies} supplies; milliseconds as the asker sees them, on loopback\n`);
console.log('| what | median | p95 |\n| --- | ---: | ---: |');
await get('/spent');
const alone = await editing(largest, rounds(300));
console.log(`| an act on the largest demo job, one person | ${figures(alone)} |`);
const spent = (await get('/spent')) as { readonly times: readonly number[]; readonly processorMilliseconds: number };
console.log(`| the same, from its arrival at the server to its answer | ${figures(spent.times)} |`);
/** Each person has a job of their own. */
const eight = async (rounds: number, pauseMilliseconds: number) =>
  (await Promise.all(crowd.map((code) => editing(code, rounds, pauseMilliseconds)))).flat();
console.log(`| the same, eight people, each five times a second | ${figures(await eight(rounds(60), 200))} |`);
console.log(`| the same, eight people without a pause | ${figures(await eight(rounds(100), 0))} |`);

// Health is asked while whole rankings of the shelf are made in the threads beside.
let computing = true;
const health: number[] = [];
await Promise.all([
  (async () => {
    for (let round = 0; round < rounds(6); round += 1) {
      const job = (await get(`/api/jobs/${largest}`)) as Job;
      const changes = { depthMillimetres: 150 + round };
      await act(largest, { kind: 'edit-sheet', changes, basedOn: job.sheet.version });
      await get('/api/jobs?state=open');
    }
    computing = false;
  })(),
  (async () => {
    while (computing) {
      health.push(await timed(() => get('/api/health')));
      await wait(10);
    }
  })(),
]);
console.log(`| /api/health while supplies are ranked | ${figures(health)} |`);

const pool = new pg.Pool({ connectionString: url });
const none = firstJobPage;
const deep = ((await get('/api/jobs?state=closed')) as JobList).older;
for (const [name, query] of [
  ['a page of jobs', none],
  ['a page far down', { ...none, state: 'closed' as const, after: 'closed~2026-10-01T00:00:00.000Z~1' }],
  ['the second page', { ...none, after: deep }],
  ['a search for something rare', { ...none, search: `01632 ${String(Math.floor(jobs / 2)).padStart(6, '0')}` }],
  ['a search for three common words', { ...none, search: 'load tower harbour' }],
  ['a search for a word in every job', { ...none, search: 'it' }],
  ['a search for what is nowhere', { ...none, search: 'nobody xylophone' }],
] as const) {
  const { sql, values } = pageStatement(query, 'bench');
  const times: number[] = [];
  for (let round = 0; round < rounds(40); round += 1) times.push(await timed(() => pool.query(sql, [...values])));
  console.log(`| ${name}, in the database | ${figures(times)} |`);
}
await pool.end();

await get('/statements');
await editing(largest, 10);
const perRound = ((await get('/statements')) as number) - 1;
console.log(
  `\nProcessor time of the server for an act: ${(spent.processorMilliseconds / spent.times.length).toFixed(1)} ms; ` +
    'its threads and what it does beside are in it',
);
console.log(`\nStatements for an act: ${(perRound / 10).toFixed(1)} (begin and commit among them)\n`);

// What a screen fetches of the shelf, beside the same supplies each with its kit.
const bytesOf = async (path: string) => (await (await fetch(`${base}${path}`)).arrayBuffer()).byteLength;
const whole = await bytesOf('/api/supplies/export?format=json');
console.log('| of the shelf | bytes | of the whole |\n| --- | ---: | ---: |');
for (const [name, path] of [
  ['supplies, fetched again after a price changed', '/api/supplies'],
  ['their kits, fetched once', '/api/supplies/kits'],
] as const) {
  const bytes = await bytesOf(path);
  console.log(`| ${name} | ${bytes} | ${(bytes / whole).toFixed(2)} |`);
}
console.log('');

console.log('| read | answers a second | bare handler | ratio |\n| --- | ---: | ---: | ---: |');
for (const [name, path, barePath] of [
  ['a page of jobs', '/api/jobs', '/bare/jobs'],
  ['a job', `/api/jobs/${largest}`, `/bare/jobs/${largest}`],
] as const) {
  const ours = await throughput(path);
  const bare = await throughput(barePath);
  console.log(`| ${name} | ${ours.toFixed(0)} | ${bare.toFixed(0)} | ${(ours / bare).toFixed(2)} |`);
}
end();
process.exit();
