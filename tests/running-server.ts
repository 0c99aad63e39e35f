import { randomUUID } from 'node:crypto';
import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import type pg from 'pg';
import { pino, type Logger } from 'pino';
import type { Act, Job } from '@fairwatt/core';
import { type StationKeeper, type ChangeFeed, createApp, createPool, loadModel, type AppParts } from '@fairwatt/server';
import { setTimeout as wait } from 'node:timers/promises';
import type { JobList } from '@fairwatt/contract';
import { freshDatabase } from './fresh-database.ts';
import { listeningFeed } from './listening-feed.ts';
import { threadsOf } from './threads.ts';

export interface Answer<T> {
  readonly status: number;
  readonly type: string;
  readonly body: T;
}

/** The API on a database of its own, with the demo shop, and short ways to talk to it. */
export interface RunningServer {
  readonly base: string;
  readonly pool: pg.Pool;
  readonly keeper: StationKeeper;
  readonly databaseUrl: string;
  readonly call: <T>(path: string, body?: unknown, method?: string) => Promise<Answer<T>>;
  readonly act: <T = Job>(code: string, done: Act, by?: string, id?: string) => Promise<Answer<T>>;
  /** A page of jobs, once what their stations say is made. */
  readonly list: (query?: string) => Promise<JobList>;
  readonly make: (title?: string) => Promise<Job>;
  /** Another server process of the same shop, as far as requests can tell, with parts of its own. */
  readonly another: (
    other?: Partial<AppParts>,
  ) => Promise<{ readonly base: string; readonly end: () => Promise<void> }>;
  readonly end: () => Promise<void>;
}

/** How a server of a test differs from the usual one, which has the demo shop. */
export interface ServerOptions extends Partial<
  Pick<AppParts, 'now' | 'refusedSignInsAMinute' | 'webDirectory' | 'secrets' | 'network'>
> {
  readonly log?: Logger;
  /** False for an empty shop, where people sign in. */
  readonly demo?: boolean;
}

export async function startServer({
  log: silent = pino({ level: 'silent' }),
  demo = true,
  ...parts
}: ServerOptions = {}): Promise<RunningServer> {
  const database = await freshDatabase(demo ? 'demo' : 'bare');
  const pool = createPool(database.url, silent);
  const feed = await listeningFeed(database.url, silent);
  const model = await loadModel();
  const threads = threadsOf(database.url, pool, model, silent);
  const listen = (heard: ChangeFeed, other: Partial<AppParts> = {}) =>
    new Promise<Server>((resolve) => {
      const shared = { pool, feed: heard, model, ...threads, log: silent, webDirectory: null };
      const app = createApp({ ...shared, ...parts, ...other });
      const started = app.listen(0, '127.0.0.1', () => resolve(started));
      // A test that was held up for longer than this would send into a connection that is being closed.
      started.keepAliveTimeout = 600_000;
    });
  const baseOf = (listening: Server) => `http://127.0.0.1:${(listening.address() as AddressInfo).port}/api`;
  const ended = (listening: Server) =>
    new Promise((resolve) => {
      listening.close(resolve);
      listening.closeAllConnections();
    });
  const server = await listen(feed);
  const base = baseOf(server);
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
    keeper: threads.keeper,
    databaseUrl: database.url,
    call,
    act: (code, done, by = 'mara', id = randomUUID()) => call(`/jobs/${code}/acts`, { id, by, act: done }),
    list: async (query = '') => {
      for (;;) {
        const { body } = await call<JobList>(`/jobs${query}`);
        if (body.jobs.every((job) => job.fresh)) return body;
        await wait(100);
      }
    },
    make: async (title = 'Test machine') =>
      (await call<Job>('/jobs', { id: randomUUID(), by: 'mara', title, client: 'Client', words: 'Words' })).body,
    another: async (other) => {
      const heard = await listeningFeed(database.url, silent);
      const second = await listen(heard, other);
      return {
        base: baseOf(second),
        end: async () => {
          await ended(second);
          await heard.close();
        },
      };
    },
    end: async () => {
      await ended(server);
      threads.keeper.end();
      await feed.close();
      await threads.threads.close();
      await pool.end();
      await database.drop();
    },
  };
}
