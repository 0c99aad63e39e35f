// What it costs a shop that others are served by the same process: npm run bench:shops [shops] [jobs] [rounds]. Each shop
// has the demo's data and that many closed jobs more. Ratios are against the first shop served alone in the same run.
import { spawn, type ChildProcess } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { performance } from 'node:perf_hooks';
import { setTimeout as wait } from 'node:timers/promises';
import { fileURLToPath } from 'node:url';
import pg from 'pg';
import { pino } from 'pino';
import type { Job } from '@fairwatt/core';
import type { JobList } from '@fairwatt/contract';
import { createPool, loadDemo, loadModel } from '@fairwatt/server';
import { databaseOfShop, migrate } from '@fairwatt/server/administration';
import { deleteCluster, ensureDatabase, startCluster, type ClusterOptions } from '../command/src/cluster/index.ts';
import { HostBrowser } from '../tests/host-browser.ts';
import { makeManyJobs } from '../tests/many-jobs.ts';

const [shops = 200, jobs = 5000, rounds = 300] = process.argv.slice(2).map(Number);
/** As often as this somebody asks, at whichever shop: what is compared is many shops, not much work. */
const roundMilliseconds = 400;
const names = Array.from({ length: shops }, (_, index) => `shop-${index + 1}`);
const log = pino({ level: 'silent' });
const folder = mkdtempSync(join(tmpdir(), 'fairwatt-shops-'));
const options: ClusterOptions = {
  dataFolder: folder,
  name: 'shops',
  firstPort: 55_670,
  settings: { fsync: 'off', max_connections: '1000' },
  say: () => undefined,
};
const cluster = await startCluster(options);

async function fill(): Promise<void> {
  const url = await ensureDatabase(cluster, 'of_each');
  await migrate(url, log);
  const pool = createPool(url, log);
  await loadDemo(pool, await loadModel(), fileURLToPath(new URL('../demo', import.meta.url)), new Date().toISOString());
  await makeManyJobs(pool, jobs);
  await pool.end();
  const admin = new pg.Client({ connectionString: cluster.url('postgres') });
  await admin.connect();
  for (const name of names)
    await admin.query(`create database ${databaseOfShop(name)} template of_each strategy file_copy`);
  await admin.end();
}

interface Started {
  readonly url: string;
  readonly child: ChildProcess;
}

const running = new Set<ChildProcess>();

/** A server of these shops. */
function start(served: readonly string[]): Promise<Started> {
  const list = {
    format: 'fairwatt-shops',
    version: 1,
    shops: served.map((name) => ({ name, place: null, state: 'open' })),
  };
  writeFileSync(join(folder, 'shops.json'), JSON.stringify(list));
  const program = fileURLToPath(new URL('../server/src/main.ts', import.meta.url));
  const child = spawn(process.execPath, ['--conditions=fairwatt-source', '--import', 'tsx', program], {
    stdio: ['ignore', 'pipe', 'inherit'],
    env: {
      ...process.env,
      DATABASE_URL: cluster.url('postgres'),
      FAIRWATT_SHOPS: join(folder, 'shops.json'),
      FAIRWATT_DATA: folder,
      FAIRWATT_PORT: '0',
      FAIRWATT_DEMO: '0',
    },
  });
  running.add(child);
  return new Promise((resolve, reject) => {
    child.once('exit', (code) => reject(new Error(`the server ended with ${code}`)));
    child.stdout.on('data', (chunk: Buffer) => {
      const url = /^ready (\S+)$/m.exec(chunk.toString())?.[1];
      if (url !== undefined) resolve({ url, child });
    });
  });
}

const ended = (child: ChildProcess) =>
  new Promise((resolve) => {
    child.removeAllListeners('exit');
    running.delete(child);
    child.once('exit', resolve);
    child.kill('SIGTERM');
  });

/** Memory of a process in megabytes. */
const memoryOf = ({ pid }: ChildProcess) =>
  Number(/^VmRSS:\s+(\d+)/m.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1]) / 1024;

async function asked<T>(browser: HostBrowser, method: string, path: string, body?: unknown): Promise<T> {
  const answer = await browser.ask<T>(method, path, body);
  if (answer.status >= 300) throw new Error(`${path}: ${answer.status} ${JSON.stringify(answer.body)}`);
  return answer.body;
}

// The page comes after the act, so that it always waits for what one job's stations say.
// What is asked first opens connections that were closed since the last visit.
const kinds = ['the first answer of a visit', 'a job', 'an act', 'a page of jobs', 'a search'] as const;
type Kind = (typeof kinds)[number];

/** Somebody at a shop, and the demo's job as he saw it last. */
interface Asker {
  readonly browser: HostBrowser;
  job: Job | null;
}

/** What somebody at a shop asks for. */
async function ask(asker: Asker, kind: Kind): Promise<void> {
  const { browser } = asker;
  switch (kind) {
    case 'the first answer of a visit':
      await asked(browser, 'GET', '/jobs/LQ-0142');
      break;
    case 'a page of jobs':
      await asked(browser, 'GET', '/jobs');
      break;
    case 'a search':
      await asked(browser, 'GET', '/jobs?search=harbour+smells');
      break;
    case 'a job':
      asker.job = await asked<Job>(browser, 'GET', '/jobs/LQ-0146');
      break;
    case 'an act': {
      const act = { kind: 'edit-sheet', changes: { watch: randomUUID() }, basedOn: asker.job?.sheet.version };
      await asked(browser, 'POST', '/jobs/LQ-0146/acts', { id: randomUUID(), by: 'mara', act });
    }
  }
}

const sorted = (times: readonly number[]) => [...times].sort((a, b) => a - b);
const at = (times: readonly number[], share: number) => sorted(times)[Math.floor(times.length * share)] ?? Number.NaN;

/** Milliseconds of each kind, asked at the shops in turn. */
async function measured(askers: readonly Asker[]): Promise<Record<Kind, number[]>> {
  const times = Object.fromEntries(kinds.map((kind): [Kind, number[]] => [kind, []])) as Record<Kind, number[]>;
  for (let round = 0; round < rounds; round += 1) {
    const next = wait(roundMilliseconds);
    for (const kind of kinds) {
      const begun = performance.now();
      await ask(askers[round % askers.length]!, kind);
      times[kind].push(performance.now() - begun);
    }
    await next;
  }
  return times;
}

/** Until what the first page says of its jobs is made, the threads are at work beside. */
async function settled(browser: HostBrowser): Promise<void> {
  while (!(await asked<JobList>(browser, 'GET', '/jobs')).jobs.every((job) => job.fresh)) await wait(100);
}

const askersOf = ({ url }: Started): Asker[] =>
  names.map((name) => ({ browser: new HostBrowser(url, `${name}.localhost`), job: null }));

try {
  await fill();
  const alone = await start(names.slice(0, 1));
  const [first] = askersOf(alone);
  await settled(first!.browser);
  const aloneTimes = await measured([first!]);
  const aloneMemory = memoryOf(alone.child);
  await ended(alone.child);

  const all = await start(names);
  const askers = askersOf(all);
  const opening: number[] = [];
  for (const { browser } of askers) {
    const begun = performance.now();
    await asked<Job>(browser, 'GET', '/jobs/LQ-0142');
    opening.push(performance.now() - begun);
  }
  for (const { browser } of askers) await settled(browser);
  const oneTimes = await measured(askers.slice(0, 1));
  const turnTimes = await measured(askers);
  const allMemory = memoryOf(all.child);
  await ended(all.child);

  console.log(
    `${shops} shops of ${jobs} jobs each, ${rounds} rounds; milliseconds as the asker sees them, on loopback\n`,
  );
  console.log('| what | the first shop alone, median, p95 | the same beside the others, ratio | all in turn, ratio |');
  console.log('| --- | ---: | ---: | ---: |');
  const row = (times: readonly number[]) => `${at(times, 0.5).toFixed(1)}, ${at(times, 0.95).toFixed(1)}`;
  const ratio = (times: readonly number[], kind: Kind) =>
    `${row(times)}, ${(at(times, 0.5) / at(aloneTimes[kind], 0.5)).toFixed(2)}`;
  for (const kind of kinds)
    console.log(
      `| ${kind} | ${row(aloneTimes[kind])} | ${ratio(oneTimes[kind], kind)} | ${ratio(turnTimes[kind], kind)} |`,
    );
  console.log(`\nOpening a shop that nobody had asked for: ${row(opening)} ms.`);
  console.log(
    `Memory of the server: ${aloneMemory.toFixed(0)} MB with one shop, ${allMemory.toFixed(0)} MB with all, ` +
      `${((allMemory - aloneMemory) / Math.max(1, shops - 1)).toFixed(1)} MB a shop.`,
  );
} finally {
  for (const child of running) child.kill('SIGKILL');
  deleteCluster(options);
  rmSync(folder, { recursive: true, force: true });
}
