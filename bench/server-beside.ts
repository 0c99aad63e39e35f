// The server of the bench in a process of its own: the application as it is, beside bare handlers that send the same
// statements through a bare Express and node-postgres, and a count of all statements since it was last asked.
import type { AddressInfo } from 'node:net';
import express from 'express';
import pg from 'pg';
import { pino } from 'pino';
import { firstJobPage } from '@fairwatt/contract';
import {
  ChangeFeed,
  createApp,
  createPool,
  loadModel,
  programName,
  StationKeeper,
  Threads,
  Workers,
} from '@fairwatt/server';
import { readWhole } from '../server/src/jobs/read.ts';
import { pageStatement } from '../server/src/jobs/list-statement.ts';

const [databaseUrl] = process.argv.slice(2);
if (databaseUrl === undefined) throw new Error('no database is named');
const log = pino({ level: 'error' });
let statements = 0;
// oxlint-disable-next-line typescript/unbound-method -- called on the client it is taken from
const query = pg.Client.prototype.query as (...parts: unknown[]) => unknown;
pg.Client.prototype.query = function counted(this: pg.Client, ...parts: unknown[]) {
  statements += 1;
  return query.apply(this, parts);
} as typeof pg.Client.prototype.query;

const model = await loadModel();
const pool = createPool(databaseUrl, log);
const workers = new Workers(new Threads({ program: programName(model) }, log), databaseUrl);
const keeper = new StationKeeper(pool, workers, log);
const feed = new ChangeFeed(databaseUrl, log);
feed.listen((change) => keeper.heard(change));
keeper.heard({ topic: 'everything', code: null, revision: null });

const app = express();
app.get('/statements', (_request, response) => {
  response.json(statements);
  statements = 0;
});
/** Milliseconds from an act's arrival to its answer, and of this process's processor, since it was last asked. */
let taken: number[] = [];
let cpu = process.cpuUsage();
app.get('/spent', (_request, response) => {
  const { user, system } = process.cpuUsage(cpu);
  response.json({ times: taken, processorMilliseconds: (user + system) / 1000 });
  taken = [];
  cpu = process.cpuUsage();
});
app.post('/api/jobs/:code/acts', (_request, response, next) => {
  const begun = performance.now();
  response.once('finish', () => taken.push(performance.now() - begun));
  next();
});
const barePool = new pg.Pool({ connectionString: databaseUrl, max: 10 });
const first = pageStatement(firstJobPage, programName(model));
app.get('/bare/jobs', async (_request, response) => {
  response.json((await barePool.query(first.sql, [...first.values])).rows);
});
const bodies = new Map<string, unknown>();
app.get('/bare/jobs/:code', async (request, response) => {
  const { code } = request.params;
  const { rows } = await barePool.query<{ id: number }>('select id, stamp from job where code = $1', [code]);
  if (!bodies.has(code)) bodies.set(code, (await readWhole(barePool, rows[0]!.id))?.job);
  response.json(bodies.get(code));
});
app.use(createApp({ pool, feed, model, workers, keeper, log, webDirectory: null }));
const server = app.listen(0, '127.0.0.1', () => {
  process.stdout.write(`ready http://127.0.0.1:${(server.address() as AddressInfo).port}\n`);
});
