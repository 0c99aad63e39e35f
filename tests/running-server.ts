import { randomUUID } from 'node:crypto';
import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { fileURLToPath } from 'node:url';
import type pg from 'pg';
import { pino, type Logger } from 'pino';
import type { Act, Job } from '@fairwatt/core';
import { ChangeFeed, createApp, createPool, loadDemo, loadModel } from '@fairwatt/server';
import { freshDatabase } from './fresh-database.ts';

export interface Answer<T> {
  readonly status: number;
  readonly type: string;
  readonly body: T;
}

/** The API on a database of its own, with the demo shop, and short ways to talk to it. */
export interface RunningServer {
  readonly base: string;
  readonly pool: pg.Pool;
  readonly databaseUrl: string;
  readonly call: <T>(path: string, body?: unknown, method?: string) => Promise<Answer<T>>;
  readonly act: <T = Job>(code: string, done: Act, by?: string, id?: string) => Promise<Answer<T>>;
  readonly make: (title?: string) => Promise<Job>;
  readonly end: () => Promise<void>;
}

export async function startServer(log: Logger = pino({ level: 'silent' })): Promise<RunningServer> {
  const silent = log;
  const database = await freshDatabase();
  const pool = createPool(database.url, silent);
  const feed = new ChangeFeed(database.url, silent);
  const model = await loadModel();
  await loadDemo(pool, model, fileURLToPath(new URL('../demo', import.meta.url)), new Date().toISOString());
  const server = await new Promise<Server>((resolve) => {
    const started = createApp({ pool, feed, model, log: silent, webDirectory: null }).listen(0, '127.0.0.1', () =>
      resolve(started),
    );
  });
  const base = `http://127.0.0.1:${(server.address() as AddressInfo).port}/api`;
  const call = async <T>(path: string, body?: unknown, method = 'POST'): Promise<Answer<T>> => {
    const response = await fetch(
      `${base}${path}`,
      body === undefined
        ? {}
        : {
            method,
            headers: { 'content-type': 'application/json' },
            body: typeof body === 'string' ? body : JSON.stringify(body),
          },
    );
    const text = await response.text();
    return {
      status: response.status,
      type: response.headers.get('content-type') ?? '',
      body: (text === '' ? null : JSON.parse(text)) as T,
    };
  };
  return {
    base,
    pool,
    databaseUrl: database.url,
    call,
    act: (code, done, by = 'mara', id = randomUUID()) => call(`/jobs/${code}/acts`, { id, by, act: done }),
    make: async (title = 'Test machine') =>
      (await call<Job>('/jobs', { id: randomUUID(), by: 'mara', title, client: 'Client', words: 'Words' })).body,
    end: async () => {
      await new Promise((resolve) => {
        server.close(resolve);
        server.closeAllConnections();
      });
      await feed.close();
      await pool.end();
      await database.drop();
    },
  };
}
