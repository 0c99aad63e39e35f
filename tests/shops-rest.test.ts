import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { createServer, get, request, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pg from 'pg';
import { pino } from 'pino';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { loadModel, programName, Shops, Threads } from '@fairwatt/server';
import { Secrets, type ShopEntry } from '@fairwatt/server/administration';
import { SimulatedBench, serveInstrument } from '@fairwatt/instruments';
import { ClockWatch } from '../server/src/health/clock-watch.ts';
import { freshDatabase } from './fresh-database.ts';
import { HostBrowser } from './host-browser.ts';

const silent = pino({ level: 'silent' });
const unguarded = { mayDraw: () => Promise.resolve(), isOff: () => undefined };

let databases: readonly Awaited<ReturnType<typeof freshDatabase>>[];
let folder: string;
let threads: Threads;
let shops: Shops;
let server: Server;
const simulated = new SimulatedBench(() => performance.now());

const query = async (database: number, sql: string) => {
  const client = new pg.Client({ connectionString: databases[database]!.url });
  await client.connect();
  try {
    return (await client.query<Record<string, unknown>>(sql)).rows;
  } finally {
    await client.end();
  }
};
/** Connections of servers to a database. */
const connections = async (database: number) =>
  (
    await query(
      database,
      "select from pg_stat_activity where datname = current_database() and usename = 'fairwatt_server'",
    )
  ).length;
const url = () => `http://127.0.0.1:${(server.address() as AddressInfo).port}`;

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'fairwatt-rest-'));
  databases = await Promise.all([freshDatabase('demo'), freshDatabase('demo')]);
  const list = databases.map(({ serverUrl }, index): ShopEntry => ({
    name: `shop-${index}`,
    place: serverUrl,
    state: 'open',
  }));
  const registryPath = join(folder, 'shops.json');
  writeFileSync(registryPath, JSON.stringify({ format: 'fairwatt-shops', version: 1, shops: list }));
  const model = await loadModel();
  threads = new Threads({ program: programName(model) }, silent);
  const secrets = new Secrets(null);
  const shared = {
    model,
    threads,
    guard: unguarded,
    secrets,
    clock: new ClockWatch(),
    webDirectory: folder,
    version: 'test',
  };
  const place = { registryPath, ownUrl: '', dataFolder: folder, bases: ['localhost'], addressOf: () => null };
  shops = new Shops(place, shared, silent, { after: 300, betweenLooks: 50 });
  server = createServer(shops.app);
  await new Promise<void>((resolve) => {
    server.listen(0, '127.0.0.1', resolve);
  });
});
afterAll(async () => {
  await shops.halt();
  server.closeAllConnections();
  server.close();
  await Promise.all([shops.end(), threads.close()]);
  await Promise.all(databases.map((database) => database.drop()));
  rmSync(folder, { recursive: true, force: true });
});

describe('where no shop is', () => {
  const asked = (host: string, accept: string, method = 'GET') =>
    new Promise<{ readonly type: string; readonly status: number; readonly text: string }>((resolve, reject) => {
      const { port } = new URL(url());
      const headers = { host: `${host}:${port}`, accept };
      const sent = request({ host: '127.0.0.1', port, path: '/jobs', method, headers }, (answer) => {
        let text = '';
        answer.on('data', (chunk: Buffer) => (text += chunk.toString()));
        answer.on('end', () => {
          resolve({ type: answer.headers['content-type'] ?? '', status: answer.statusCode ?? 0, text });
        });
      });
      sent.on('error', reject);
      sent.end();
    });
  const browsers = 'text/html,application/xhtml+xml,application/xml;q=0.9,*/*;q=0.8';

  it('a person reads a page, and a program the problem', async () => {
    for (const [host, words] of [
      ['localhost', 'each under its own name'],
      ['nobody.localhost', 'no shop of this name'],
    ] as const) {
      const page = await asked(host, browsers);
      expect([page.status, page.type]).toEqual([404, 'text/html; charset=utf-8']);
      expect(page.text).toContain(words);
      for (const answer of [await asked(host, '*/*'), await asked(host, browsers, 'POST')]) {
        expect([answer.status, answer.type]).toEqual([404, 'application/problem+json; charset=utf-8']);
        expect((JSON.parse(answer.text) as { title: string }).title).toContain(words);
      }
    }
  });
});

describe('a shop of several', () => {
  it('that nobody asks for has the load switched off that an earlier run left on', async () => {
    const load = await serveInstrument(() => simulated.load());
    const left = simulated.load();
    for (const line of ['CURRent 3', 'INPut ON']) left.line(line);
    expect(simulated.drawing).toBe(true);
    const named = `'left-on', 'Left on', 'load', '127.0.0.1', ${load.port}`;
    await query(1, `insert into network_instrument (id, name, role, host, port) values (${named})`);
    await query(1, "insert into load_sweep (load_id) values ('left-on')");
    await shops.begin();
    await expect.poll(() => simulated.drawing, { interval: 20 }).toBe(false);
    await expect.poll(() => query(1, 'select from load_sweep')).toEqual([]);
    await load.close();
  });

  it('is let go when nobody asks for it, and opened again when somebody does', async () => {
    const browser = new HostBrowser(url(), 'shop-0.localhost');
    await expect.poll(() => connections(0)).toBe(0);
    expect((await browser.ask('GET', '/jobs')).status).toBe(200);
    await expect.poll(() => connections(0)).toBe(0);
    expect((await browser.ask('GET', '/jobs')).status).toBe(200);
  });

  it('is kept while a screen follows what changes there', async () => {
    const { port } = new URL(url());
    const heard = await new Promise<{ readonly end: () => void }>((resolve, reject) => {
      const headers = { host: `shop-0.localhost:${port}` };
      const following = get({ host: '127.0.0.1', port, path: '/api/events', headers }, (answer) => {
        answer.resume();
        answer.on('error', () => undefined);
        resolve({ end: () => following.destroy() });
      });
      following.on('error', reject);
    });
    // Several times as long as it is kept for nobody.
    for (let look = 0; look < 10; look += 1) {
      await new Promise((resolve) => {
        setTimeout(resolve, 150);
      });
      expect(await connections(0)).toBeGreaterThan(0);
    }
    heard.end();
    await expect.poll(() => connections(0)).toBe(0);
  });
});
