import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type pg from 'pg';
import { pino } from 'pino';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Job } from '@fairwatt/core';
import type { JobList } from '@fairwatt/contract';
import { createApp, createPool, loadDemo, loadModel } from '@fairwatt/server';
import { asServer, letServersIn, migrate, Primary, untilAnswers, writablePlace } from '@fairwatt/server/administration';
import { createReplicaPool } from '../../server/src/database/pool.ts';
import { Reading } from '../../server/src/database/reading.ts';
import { DatabaseNode } from './failover/database-node.ts';
import { listeningFeed } from '../listening-feed.ts';
import { threadsOf } from '../threads.ts';

const silent = pino({ level: 'silent' });
const database = 'shop';
const password = 'of-the-test';

let folder: string;
let primary: DatabaseNode;
let standby: DatabaseNode;
let pool: pg.Pool;
let replica: pg.Pool;
let reading: Reading;
let base: string;
let end: () => Promise<void>;

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'fairwatt-replica-'));
  primary = new DatabaseNode(folder, 'one', 55_370);
  standby = new DatabaseNode(folder, 'two', 55_470);
  await primary.start();
  await primary.query(`create database ${database}`);
  await migrate(primary.url(database), silent);
  const url = await letServersIn(primary.url(database), password);
  pool = createPool(url, silent);
  const model = await loadModel();
  await loadDemo(pool, model, fileURLToPath(new URL('../../demo', import.meta.url)), new Date().toISOString());
  await standby.follow(primary);
  await primary.isFollowed();
  replica = createReplicaPool(asServer(standby.url(database), password), silent);
  reading = new Reading(pool, replica, silent);
  const feed = await listeningFeed(url, silent);
  const threads = threadsOf(url, pool, model, silent);
  const server = await new Promise<Server>((resolve) => {
    const app = createApp({ pool, reading, feed, model, ...threads, log: silent, webDirectory: null });
    const started = app.listen(0, '127.0.0.1', () => resolve(started));
  });
  base = `http://127.0.0.1:${(server.address() as AddressInfo).port}/api`;
  end = async () => {
    server.closeAllConnections();
    await new Promise((resolve) => {
      server.close(resolve);
    });
    threads.keeper.end();
    await Promise.all([feed.close(), threads.threads.close()]);
    await Promise.all([pool.end(), replica.end()]);
  };
});
afterAll(async () => {
  await end();
  standby.remove();
  primary.remove();
  rmSync(folder, { recursive: true, force: true });
});

const make = async (title: string): Promise<Job> => {
  const body = JSON.stringify({ id: randomUUID(), by: 'mara', title, client: '', words: '' });
  const headers = { 'content-type': 'application/json' };
  return (await (await fetch(`${base}/jobs`, { method: 'POST', headers, body })).json()) as Job;
};
const listed = async (): Promise<string[]> => {
  const answer = await fetch(`${base}/jobs`);
  expect(answer.status).toBe(200);
  return ((await answer.json()) as JobList).jobs.map((job) => job.title);
};
/** How often it was read at the replica and how often not, meanwhile. */
const during = async (work: () => Promise<unknown>) => {
  const before = { ...reading.counts };
  await work();
  return { replica: reading.counts.replica - before.replica, primary: reading.counts.primary - before.primary };
};
/** Reads until the replica is read from again. */
const untilReplicaIsRead = () =>
  expect.poll(async () => (await during(listed)).replica, { interval: 200 }).toBeGreaterThan(0);

describe('an address with several places', () => {
  const both = (secret: string, ...nodes: readonly DatabaseNode[]) =>
    `postgresql://fairwatt_server:${secret}@${nodes.map(({ port }) => `127.0.0.1:${port}`).join(',')}/${database}`;

  it('is worked on where it takes writes, whichever stands first', async () => {
    for (const url of [both(password, primary, standby), both(password, standby, primary)])
      expect(await writablePlace(url)).toContain(`127.0.0.1:${primary.port}/`);
    const place = new Primary(both(password, standby, primary), silent);
    const placed = createPool(place, silent);
    await untilAnswers(place, placed, () => undefined);
    expect((await placed.query('create temporary table taken (id int)')).command).toBe('CREATE');
    await Promise.all([placed.end(), place.close()]);
  });

  it('that lets nobody in is told at once', async () => {
    const place = new Primary(both('wrong', primary, standby), silent);
    const shut = createPool(place, silent);
    await expect(untilAnswers(place, shut, () => undefined)).rejects.toThrow(/password/);
    await Promise.all([shut.end(), place.close()]);
  });
});

describe('lists and reports, where there is a replica', () => {
  it('are read there, and hold what has just been confirmed', async () => {
    await untilReplicaIsRead();
    for (let turn = 1; turn <= 20; turn += 1) {
      await make(`Just made ${turn}`);
      expect(await listed()).toContain(`Just made ${turn}`);
    }
    const read = await during(async () => {
      for (const path of ['/record', '/supplies/export?format=json', '/jobs/LQ-0142/events', '/jobs/LQ-0142/file'])
        expect((await fetch(`${base}${path}`)).status).toBe(200);
    });
    expect(read).toEqual({ replica: 4, primary: 0 });
  });

  it('are read at the database itself while the replica is behind', async () => {
    await standby.query('select pg_wal_replay_pause()');
    await make('Made while it was behind');
    const read = await during(async () => expect(await listed()).toContain('Made while it was behind'));
    expect(read.replica).toBe(0);
    expect(read.primary).toBeGreaterThan(0);
    await standby.query('select pg_wal_replay_resume()');
    await untilReplicaIsRead();
    expect(await listed()).toContain('Made while it was behind');
  });

  it('are read at the database itself while the replica is away, and there again when it is back', async () => {
    standby.kill();
    const read = await during(listed);
    expect(read.replica).toBe(0);
    expect(read.primary).toBeGreaterThan(0);
    await standby.start();
    await untilReplicaIsRead();
  });

  it('are never read at the replica of another database', async () => {
    const [other, ofOther] = [new DatabaseNode(folder, 'three', 55_770), new DatabaseNode(folder, 'four', 55_870)];
    await other.start();
    await other.query(`create database ${database}`);
    await migrate(other.url(database), silent);
    await letServersIn(other.url(database), password);
    await ofOther.follow(other);
    await other.isFollowed();
    // Further on in its own journal than this one is in its.
    await other.query('create table filler as select repeat(md5(n::text), 40) from generate_series(1, 100000) n');
    const strange = createReplicaPool(asServer(ofOther.url(database), password), silent);
    const misled = new Reading(pool, strange, silent);
    const titles = await misled.read(async (db) => (await db.query('select code from job limit 1')).rowCount);
    expect([titles, misled.counts]).toEqual([1, { replica: 0, primary: 1 }]);
    await strange.end();
    ofOther.remove();
    other.remove();
  });

  it('are never read at a replica that has become a database of its own', async () => {
    await standby.promote();
    await make('Made after it went its own way');
    const read = await during(async () => expect(await listed()).toContain('Made after it went its own way'));
    expect(read.replica).toBe(0);
  });
});
