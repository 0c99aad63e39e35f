import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { pino } from 'pino';
import type { Job } from '@fairwatt/core';
import { createPool, loadDemo, loadModel } from '@fairwatt/server';
import { letServersIn, migrate } from '@fairwatt/server/administration';
import { wait } from '../../command.ts';
import { dice, roughProxy, type RoughProxy } from '../drill/rough-proxy.ts';
import { Writer } from '../drill/writer.ts';
import { DatabaseNode } from './database-node.ts';
import { startServerProcess, type ServerProcess } from './server-process.ts';

export interface FailoverOptions {
  readonly rounds: number;
  readonly seed: number;
  /** Whether an act is confirmed only once the standby has it too. */
  readonly synchronous: boolean;
  readonly say: (text: string) => void;
}

export interface FailoverReport {
  readonly rounds: number;
  readonly confirmed: number;
  /** Confirmed acts that are gone. */
  readonly lost: number;
  /** What must not be in any case: each a sentence. */
  readonly wrong: readonly string[];
  readonly refused: number;
  readonly line: RoughProxy['counts'];
  /** From the kill to the end of the promotion, in milliseconds, the slowest. */
  readonly slowestPromotionMilliseconds: number;
  /** From the kill until each of the servers has taken a write, in milliseconds, the slowest. */
  readonly slowestReturnMilliseconds: number;
}

const database = 'shop';
const silent = pino({ level: 'silent' });
const password = 'of-the-drill';

/** Two databases of which one follows the other, three servers on them, and people who work through all of them. */
class Failover {
  readonly wrong: string[] = [];
  servers: readonly ServerProcess[] = [];
  slowestPromotion = 0;
  slowestReturn = 0;
  private primary: DatabaseNode;
  private standby: DatabaseNode;
  private readonly options: FailoverOptions;

  constructor(folder: string, options: FailoverOptions) {
    this.primary = new DatabaseNode(folder, 'one', 55_170);
    this.standby = new DatabaseNode(folder, 'two', 55_270);
    this.options = options;
  }

  /** The demo's shop, copied to a standby, and three servers. */
  async begin(): Promise<void> {
    const { primary, standby } = this;
    await primary.start();
    await primary.query(`create database ${database}`);
    const url = primary.url(database);
    await migrate(url, silent);
    await letServersIn(url, password);
    const pool = createPool(url, silent);
    await loadDemo(
      pool,
      await loadModel(),
      fileURLToPath(new URL('../../../demo', import.meta.url)),
      new Date().toISOString(),
    );
    await pool.end();
    await standby.follow(primary);
    await this.guard();
    this.servers = await Promise.all([this.server(), this.server(), this.server()]);
  }

  private async guard(): Promise<void> {
    if (this.options.synchronous) await this.primary.confirmWithStandby();
    else await this.primary.isFollowed();
  }

  /** A server that knows both places, this one first. */
  private server(first = this.primary): Promise<ServerProcess> {
    const second = first === this.primary ? this.standby : this.primary;
    const hosts = [first, second].map(({ port }) => `127.0.0.1:${port}`).join(',');
    return startServerProcess({ DATABASE_URL: `postgresql://fairwatt_server:${password}@${hosts}/${database}` });
  }

  /** Asks one server for a job until it is made; the same one, however often it is asked. */
  private async made(server: ServerProcess, title: string): Promise<string> {
    const body = JSON.stringify({ id: randomUUID(), by: 'mara', title, client: '', words: '' });
    for (;;) {
      const answer = await fetch(`${server.url}/api/jobs`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body,
        signal: AbortSignal.timeout(5000),
      }).catch(() => null);
      if (answer?.ok === true) return ((await answer.json()) as Job).code;
      await wait(50);
    }
  }

  private async mustBeThere(code: string, what: string): Promise<void> {
    const rows = await this.primary.query(`select from job where code = '${code}'`, database);
    if (rows.length === 0) this.wrong.push(`${what} is not in the database that was promoted`);
  }

  /** The primary is killed under load, its standby takes its place, and the old one comes back as if nothing were. */
  async round(number: number, random: () => number): Promise<void> {
    const [lost, next] = [this.primary, this.standby];
    await wait(1000 + random() * 1500);
    await lost.holdUpLine();
    await wait(random() * 400);
    lost.kill();
    const killed = Date.now();
    await next.promote();
    const promoted = Date.now() - killed;
    [this.primary, this.standby] = [next, lost];
    const codes = await Promise.all(this.servers.map((server) => this.made(server, `After kill ${number}`)));
    const returned = Date.now() - killed;
    this.slowestPromotion = Math.max(this.slowestPromotion, promoted);
    this.slowestReturn = Math.max(this.slowestReturn, returned);
    this.options.say(`kill ${number}: promoted after ${promoted} ms, all servers write after ${returned} ms`);
    for (const code of codes) await this.mustBeThere(code, `a job made after kill ${number}`);
    await this.oldOneReturns(number);
    lost.stop();
    await lost.follow(next);
    await this.guard();
  }

  private async oldOneReturns(number: number): Promise<void> {
    await this.standby.start();
    await wait(2500);
    const newcomer = await this.server(this.standby);
    const codes = await Promise.all(
      [...this.servers, newcomer].map((server) => this.made(server, `Beside an old primary ${number}`)),
    );
    await newcomer.end();
    for (const code of codes) await this.mustBeThere(code, `a job made beside the old primary ${number}`);
  }

  /** Counts what was confirmed and what of it is gone; says what nobody did, or what is there twice. */
  async check(writers: readonly Writer[]): Promise<Pick<FailoverReport, 'confirmed' | 'lost'>> {
    let [confirmed, lost] = [0, 0];
    for (const done of writers.flatMap((writer) => writer.jobs)) {
      const answer = await fetch(`${this.servers[0]?.url}/api/jobs/${done.code}`);
      const there = answer.ok ? ((await answer.json()) as Job).outcomes.map(({ id }) => id) : [];
      confirmed += done.confirmed.size;
      lost += [...done.confirmed].filter((id) => !there.includes(id)).length;
      if (new Set(there).size !== there.length) this.wrong.push(`${done.code}: something is there twice`);
      if (there.some((id) => !done.notes.includes(id)))
        this.wrong.push(`${done.code}: something is there that nobody did`);
      const order = done.notes.filter((id) => there.includes(id));
      if (JSON.stringify(order) !== JSON.stringify(there)) this.wrong.push(`${done.code}: the order is another one`);
    }
    return { confirmed, lost };
  }

  async end(): Promise<void> {
    await Promise.all(this.servers.map((server) => server.end()));
    this.primary.remove();
    this.standby.remove();
  }
}

/** Kills the primary under load as often as asked, each time with the promotion of its standby. */
export async function failover(options: FailoverOptions): Promise<FailoverReport> {
  const random = dice(options.seed);
  const folder = mkdtempSync(join(tmpdir(), 'fairwatt-failover-'));
  const proxy = await roughProxy(random);
  const run = new Failover(folder, options);
  try {
    await run.begin();
    proxy.targets = run.servers.map(({ url }) => url);
    const writers = ['mara', 'joss', 'mara', 'joss'].map((by) => new Writer(proxy.base, by, random));
    const working = writers.map((writer) => writer.work());
    for (let round = 1; round <= options.rounds; round += 1) await run.round(round, random);
    for (const writer of writers) writer.stop();
    await Promise.all(working);
    await Promise.all(writers.map((writer) => writer.drained()));
    return {
      rounds: options.rounds,
      ...(await run.check(writers)),
      wrong: run.wrong,
      refused: writers.reduce((sum, writer) => sum + writer.refused, 0),
      line: proxy.counts,
      slowestPromotionMilliseconds: run.slowestPromotion,
      slowestReturnMilliseconds: run.slowestReturn,
    };
  } finally {
    await run.end();
    await proxy.close();
    rmSync(folder, { recursive: true, force: true });
  }
}
