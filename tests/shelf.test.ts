import { get } from 'node:http';
import type pg from 'pg';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Queryable } from '../server/src/database/query.ts';
import { readCableBags } from '../server/src/cable-bags/store.ts';
import { rankedFor } from '../server/src/jobs/ranked.ts';
import { readShelf as readStampedShelf, shelfStamp } from '../server/src/shop/shelf.ts';
import { readInstruments, readSettings, readTechnicians } from '../server/src/shop/store.ts';
import { readSupplies } from '../server/src/supplies/store.ts';
import { partSupplies } from '../server/src/supplies/summaries.ts';
import { candidatesOf } from '@fairwatt/core';
import { readJob } from '../server/src/jobs/read.ts';
import { readComputingShop } from '../server/src/jobs/store.ts';
import { loadModel } from '@fairwatt/server';
import { startServer, type RunningServer } from './running-server.ts';

let server: RunningServer;
let pool: pg.Pool;
beforeAll(async () => {
  server = await startServer();
  ({ pool } = server);
});
afterAll(async () => {
  await server.end();
});

const readShelf = async (db: Queryable) => readStampedShelf(db, await shelfStamp(db));
const fresh = async () => ({
  settings: await readSettings(pool),
  instruments: await readInstruments(pool),
  supplies: await readSupplies(pool),
  bags: await readCableBags(pool),
  people: await readTechnicians(pool),
});

describe('the shelf that is kept', () => {
  it('is read once and given again, the very same, until something of it changes', async () => {
    const first = await readShelf(pool);
    expect(first).toEqual(await fresh());
    expect(await readShelf(pool)).toBe(first);
  });
  it.each([
    ['a name', "update technician set name = name || '.'"],
    ['a setting', 'update shop_settings set breaker_amps = breaker_amps + 1'],
    ['an instrument', "update instrument set name = name || ' '"],
    ['the error of a range', 'update instrument_range set percent = percent + 0.01'],
    ['a price', 'update supply_model set price_minor = price_minor + 100'],
    ['a rail', 'update supply_model_rail set amps = amps + 1'],
    ['a plug', 'update supply_model_plug set millimetres = millimetres + 10'],
    [
      'a unit on the shelf',
      "delete from supply_unit where id = (select id from supply_unit where state = 'new' limit 1)",
    ],
    ['a pinout', "update pinout set name = name || ' '"],
    ['a spare cable', 'update bag_cable set gauge = 16'],
    ['a proof', 'delete from cable_proof'],
    ['an adapter', 'update bag_adapter set count = count + 1'],
  ])('is read anew after %s changed', async (_what, sql) => {
    const before = await readShelf(pool);
    await pool.query(sql);
    const after = await readShelf(pool);
    expect(after).not.toBe(before);
    expect(after).toEqual(await fresh());
  });
  it('what was rolled back is never given', async () => {
    const client = await pool.connect();
    await client.query('begin');
    await client.query("update shop_settings set name = 'never happened'");
    expect((await readShelf(client)).settings.name).toBe('never happened');
    await client.query('rollback');
    client.release();
    expect((await readShelf(pool)).settings.name).not.toBe('never happened');
    await pool.query("update shop_settings set name = 'did happen'");
    expect((await readShelf(pool)).settings.name).toBe('did happen');
  });
});

describe('a ranking that is kept', () => {
  it('is the ranking, and is made anew when the machine, the question or the shelf changes', async () => {
    const model = await loadModel();
    const stored = (await readJob(pool, 'LQ-0142'))!;
    const shop = await readComputingShop(pool, model);
    const kept = rankedFor(stored.job, shop);
    const said = (rows: readonly { model: { id: string }; class: string; points: number }[]) =>
      rows.map((row) => [row.model.id, row.class, row.points]);
    expect(said(kept)).toEqual(said(candidatesOf(stored.job, shop)));
    expect(rankedFor({ ...stored.job, revision: stored.job.revision + 1 }, shop)).toBe(kept);
    const lighter = { ...stored.job, parts: stored.job.parts.slice(0, 2) };
    expect(said(rankedFor(lighter, shop))).toEqual(said(candidatesOf(lighter, shop)));
    const sheet = { ...stored.job.sheet, depthMillimetres: 100 };
    expect(rankedFor({ ...stored.job, sheet }, shop)).not.toBe(kept);
    await pool.query('update supply_model set price_minor = price_minor + 1 where id = $1', [kept[0]!.model.id]);
    expect(rankedFor(stored.job, await readComputingShop(pool, model))).not.toBe(kept);
  });
});

describe('what is sent of the shelf', () => {
  const changes: Readonly<Record<string, string>> = {
    '/supplies': 'update supply_model set price_minor = price_minor + 1',
    '/supplies/kits': 'update supply_model_plug set millimetres = millimetres + 1',
    '/cable-bags': "update bag_cable set place = place || ' left'",
  };
  // Asked as a browser asks again for what it has; what fetches for a program forbids every memory on the way.
  const ask = (path: string, etag?: string) =>
    new Promise<{ status: number; etag: string; text: string }>((resolve, reject) => {
      const headers = etag === undefined ? {} : { 'if-none-match': etag };
      get(`${server.base}${path}`, { headers }, (response) => {
        let text = '';
        response.on('data', (chunk: Buffer) => (text += chunk.toString()));
        response.on('end', () =>
          resolve({ status: response.statusCode ?? 0, etag: response.headers.etag ?? '', text }),
        );
      }).on('error', reject);
    });
  it.each(['/supplies', '/supplies/kits', '/cable-bags'])(
    '%s is sent once, and again after it changed',
    async (path) => {
      const first = await ask(path);
      const { supplies, bags } = await fresh();
      const { summaries, kits } = partSupplies(supplies);
      expect(JSON.parse(first.text)).toEqual(
        { '/supplies': summaries, '/supplies/kits': kits, '/cable-bags': bags }[path],
      );
      expect(await ask(path, first.etag)).toEqual({ status: 304, etag: first.etag, text: '' });
      // What does not stand in it makes nothing new of it.
      await pool.query("update technician set name = name || ' Quay'");
      expect((await ask(path, first.etag)).status).toBe(304);
      await pool.query(changes[path]!);
      const changed = await ask(path, first.etag);
      expect([changed.status, changed.etag === first.etag]).toEqual([200, false]);
    },
  );
});
