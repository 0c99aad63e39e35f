import { readFileSync } from 'node:fs';
import { randomUUID } from 'node:crypto';
import { fileURLToPath } from 'node:url';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { SupplyModel } from '@fairwatt/core';
import type { ImportReport, OwnPart, Problem, SupplySummary, Unit } from '@fairwatt/contract';
import { priceList, servePriceFeed, type FeedFault, type ListedSupply, type ServedFeed } from '@fairwatt/instruments';
import { startServer, type RunningServer } from './running-server.ts';

let server: RunningServer;
let feed: ServedFeed;
const { supplies: shipped } = JSON.parse(
  readFileSync(fileURLToPath(new URL('../demo/supplies.json', import.meta.url)), 'utf8'),
) as { supplies: SupplyModel[] };
const listed = shipped.map(({ id, name, price }): ListedSupply => ({
  id,
  name,
  minor: price.minor,
  currency: price.currency,
}));
beforeAll(async () => {
  server = await startServer();
  feed = await servePriceFeed(listed, () => '2026-12-01', 30_000);
});
afterAll(async () => {
  await feed.close();
  await server.end();
});

const all = async () => (await server.call<SupplySummary[]>('/supplies')).body;
const one = async (id: string) => (await server.call<SupplyModel>(`/supplies/models/${id}`)).body;
const put = <T = SupplyModel>(was: SupplyModel | null, model: SupplyModel, by = 'joss') =>
  server.call<T>('/supplies', { by, was, model }, 'PUT');
const text = async (path: string) => (await fetch(`${server.base}${path}`)).text();
const send = <T = ImportReport>(path: string, body: object) =>
  server.call<T>(path, { by: 'joss', format: 'csv', ...body });

describe('a supply', () => {
  it('is changed by whoever saw it as it stands, and by nobody else', async () => {
    const was = await one('corvane-550-s');
    const wanted = {
      ...was,
      noiseDecibels: 21,
      protections: [...was.protections].reverse(),
      kit: { ...was.kit, sockets: was.kit.sockets.slice(0, 6) },
    };
    expect((await put(was, wanted)).body).toEqual(wanted);
    expect(await one(was.id)).toEqual(wanted);
    expect((await put<Problem>(was, was)).status).toBe(409);
    expect((await put<Problem>(null, { ...wanted, noiseDecibels: 30 })).status).toBe(409);
    // What stands already as it is wanted is no conflict: its answer was lost, and it was sent again.
    expect((await put<Problem>(null, wanted)).status).toBe(200);
    expect((await put<Problem>(wanted, { ...wanted, id: 'else' })).body.errors?.[0]?.path).toBe('model.id');
    expect((await put<Problem>(wanted, wanted, 'nobody')).body.type).toBe('/problems/unknown-technician');
    expect(
      (
        await put<Problem>(wanted, {
          ...wanted,
          kit: { ...wanted.kit, cables: wanted.kit.cables.filter((cable) => cable.family !== 'main') },
        })
      ).body.errors?.[0],
    ).toEqual({ path: 'model.kit.cables', message: 'the kit has no main cable' });
  });
  it('can be entered anew and taken out, unless it is chosen or on the shelf', async () => {
    const fresh: SupplyModel = { ...shipped[0]!, id: 'quay-500', name: 'Quay 500', onShelf: 0 };
    expect((await put(null, fresh)).body).toEqual(fresh);
    const remove = <T>(id: string) => server.call<T>(`/supplies/${id}?by=joss`, {}, 'DELETE');
    expect((await remove<Problem>('corvane-650-s')).body.type).toBe('/problems/in-use');
    expect((await remove('quay-500')).status).toBe(204);
    expect((await all()).some((model) => model.id === 'quay-500')).toBe(false);
    expect((await server.call<Problem>('/supplies/models/quay-500')).status).toBe(404);
    expect((await remove<Problem>('quay-500')).status).toBe(404);
  });
});

describe('files', () => {
  it('leave as CSV and JSON and come back the same', async () => {
    for (const format of ['csv', 'json'] as const) {
      const report = (await send('/supplies/import', { format, text: await text(`/supplies/export?format=${format}`) }))
        .body;
      expect(report).toMatchObject({ rows: shipped.length, same: shipped.length, refused: 0, added: 0 });
    }
    expect((await server.call<Problem>('/supplies/export?format=xml')).status).toBe(422);
  });
  it('are taken row by row: what is wrong is named, and not a part of it comes in', async () => {
    const rows = (await text('/supplies/export?format=csv')).trim().split('\n');
    const changed = (row: string, from: string, to: string) => row.replace(from, to);
    const file = [
      rows[0]!,
      changed(rows[1]!, /^[^,]+/.exec(rows[1]!)![0], 'new-one'),
      changed(changed(rows[2]!, /^[^,]+/.exec(rows[2]!)![0], 'new-two'), ',ATX,', ',ROUND,'),
      rows[3]!,
      rows[3]!,
    ].join('\r\n');
    const dry = (await send('/supplies/import', { text: file, dryRun: true })).body;
    expect(dry).toMatchObject({ dryRun: true, added: 1, refused: 2, same: 1 });
    expect((await all()).some((model) => model.id === 'new-one')).toBe(false);
    const report = (await send('/supplies/import', { text: file })).body;
    expect(report.named.filter((row) => row.result === 'refused')).toEqual([
      expect.objectContaining({ row: 2, errors: [expect.objectContaining({ path: 'label.shape' }) as unknown] }),
      expect.objectContaining({ row: 4, errors: [{ path: 'id', message: 'another row of this file has this id' }] }),
    ]);
    const here = await all();
    expect(here.some((model) => model.id === 'new-one')).toBe(true);
    expect(here.some((model) => model.id === 'new-two')).toBe(false);
  });
  it('overwrite only when asked', async () => {
    const was = await one('new-one');
    const file = JSON.stringify({ format: 'fairwatt-supplies', version: 1, supplies: [{ ...was, warrantyYears: 12 }] });
    expect((await send('/supplies/import', { format: 'json', text: file })).body).toMatchObject({
      known: 1,
      updated: 0,
    });
    expect((await one('new-one')).warrantyYears).toBe(was.warrantyYears);
    expect((await send('/supplies/import', { format: 'json', text: file, update: true })).body).toMatchObject({
      updated: 1,
    });
    expect(await one('new-one')).toEqual({ ...was, warrantyYears: 12 });
  });
  it.each([
    ['no CSV of supplies', 'csv', 'a,b\n1,2\n', /missing: id, name/],
    ['no text at all', 'csv', 'id,name\u0000', /no text file/],
    ['no JSON', 'json', '{"format":', /not JSON/],
    ['another format', 'json', '{"format":"fairwatt-job","version":1,"supplies":[]}', /no fairwatt-supplies file/],
  ])('are refused whole when they are %s', async (_name, format, content, message) => {
    const answer = await send<Problem>('/supplies/import', { format, text: content });
    expect([answer.status, answer.body.type]).toEqual([422, '/problems/unreadable-file']);
    expect(answer.body.title).toMatch(message);
  });
});

describe('units on the shelf', () => {
  const units = async () => (await server.call<Unit[]>('/supplies/units')).body;
  const keep = <T = Unit[]>(unit: Unit, basedOn = unit.version) =>
    server.call<T>('/supplies/units', { by: 'edda', basedOn, unit }, 'PUT');
  it('are as many as the shop file said, and count for choosing while they are free', async () => {
    const own = (await units()).filter((unit) => unit.modelId === 'corvane-650-s');
    expect(own).toHaveLength(3);
    expect((await one('corvane-650-s')).onShelf).toBe(3);
    const first = own[0]!;
    expect(first.place).not.toBe('');
    await keep({ ...first, place: 'B 2', serial: 'C6-0021', bag: 'main, two processor', reservedFor: 'LQ-0142' });
    expect((await one('corvane-650-s')).onShelf).toBe(2);
    expect((await keep<Problem>({ ...first, place: 'C 1' })).status).toBe(409);
    await keep({ ...own[1]!, state: 'suspect' });
    expect((await one('corvane-650-s')).onShelf).toBe(1);
    const reserved = (await units()).find((unit) => unit.id === first.id)!;
    expect(reserved).toMatchObject({ version: 2, place: 'B 2', reservedFor: 'LQ-0142' });
    await keep({ ...reserved, state: 'used', reservedFor: null, usedIn: 'LQ-0142' });
    const used = (await units()).find((unit) => unit.id === first.id)!;
    expect(JSON.parse(await text('/supplies/units/export'))).toMatchObject({
      format: 'fairwatt-shelf',
      units: expect.arrayContaining([used]) as unknown,
    });
    expect(
      (await server.call<Problem>(`/supplies/units/${used.id}?by=edda&basedOn=${used.version}`, {}, 'DELETE')).body
        .type,
    ).toBe('/problems/in-use');
  });
  it('are refused where they do not make sense', async () => {
    const unit: Unit = {
      id: randomUUID(),
      version: 0,
      modelId: 'corvane-550-s',
      place: '',
      state: 'new',
      serial: '',
      bag: '',
      note: '',
      reservedFor: null,
      usedIn: null,
    };
    const path = async (changes: Partial<Unit>) =>
      (await keep<Problem>({ ...unit, ...changes })).body.errors?.[0]?.path;
    expect(await path({ state: 'used' })).toBe('unit.usedIn');
    expect(await path({ state: 'suspect', reservedFor: 'LQ-0142' })).toBe('unit.reservedFor');
    expect(await path({ modelId: 'nothing' })).toBe('unit.modelId');
    expect(await path({ reservedFor: 'LQ-9999' })).toBe('unit.reservedFor');
    const before = (await units()).length;
    expect((await keep(unit)).body).toHaveLength(before + 1);
    expect((await server.call<Unit[]>(`/supplies/units/${unit.id}?by=edda&basedOn=1`, {}, 'DELETE')).body).toHaveLength(
      before,
    );
    expect((await server.call<Problem>(`/supplies/units/${unit.id}?by=edda&basedOn=1`, {}, 'DELETE')).status).toBe(404);
  });
});

describe('own parts', () => {
  it('come by CSV, row by row, and leave the same way', async () => {
    const before = (await server.call<OwnPart[]>('/supplies/parts')).body.length;
    const rows = [
      'Tide gauge card;capture;12,5;',
      'Old plotter;drive-old;14;peripheral-4/Plotter',
      'Mystery;no-such;9;',
    ];
    const file = ['name;class;likely_w;inlets', ...rows, ''].join('\n');
    const report = (await send('/supplies/parts/import', { text: file })).body;
    expect(report).toMatchObject({ added: 2, refused: 1 });
    expect(report.named[0]).toMatchObject({
      row: 3,
      name: 'Mystery',
      errors: expect.arrayContaining([expect.objectContaining({ path: 'classId' })]) as unknown,
    });
    const parts = (await server.call<OwnPart[]>('/supplies/parts')).body;
    expect(parts).toHaveLength(before + 2);
    expect(parts.find((part) => part.name === 'Tide gauge card')).toMatchObject({
      classId: 'capture',
      figures: { likelyWatts: 12.5, source: 'manual' },
      inlets: [],
    });
    expect((await send('/supplies/parts/import', { text: await text('/supplies/parts/export') })).body).toMatchObject({
      same: before + 2,
      refused: 0,
    });
  });
  it('are entered and dropped by hand', async () => {
    const part = (await server.call<OwnPart[]>('/supplies/parts')).body[0]!;
    const renamed = { ...part, id: 'by-hand', name: 'By hand' };
    expect((await server.call<OwnPart[]>('/supplies/parts', { by: 'joss', part: renamed }, 'PUT')).body).toContainEqual(
      renamed,
    );
    expect(
      (
        await server.call<Problem>(
          '/supplies/parts',
          { by: 'joss', part: { ...renamed, figures: { ...part.figures, lowWatts: 900 } } },
          'PUT',
        )
      ).body.errors?.[0]?.path,
    ).toBe('part.figures.lowWatts');
    expect(
      (await server.call<OwnPart[]>('/supplies/parts/by-hand?by=joss', {}, 'DELETE')).body.some(
        (item) => item.id === 'by-hand',
      ),
    ).toBe(false);
  });
});

describe('prices', () => {
  const from = (fault: FeedFault) =>
    server.call(
      '/supplies/prices/feed',
      { by: 'mara', url: `http://127.0.0.1:${feed.port}/price-list.csv?fault=${fault}` },
      'PUT',
    );
  const fetchNow = <T = ImportReport>() => server.call<T>('/supplies/prices/fetch', { by: 'joss' });
  it('are fetched from the feed with their day, and an older list changes nothing', async () => {
    await from('none');
    const report = (await fetchNow()).body;
    expect(report.updated).toBeGreaterThan(20);
    expect(report.known).toBe(1);
    const model = await one('corvane-650-s');
    const row = new RegExp(`^corvane-650-s,"[^"]*",([\\d.]+),EUR,2026-12-01$`, 'm').exec(
      priceList(listed, '2026-12-01'),
    );
    expect(model.price).toEqual({ minor: Math.round(Number(row![1]) * 100), currency: 'EUR', asOf: '2026-12-01' });
    expect((await fetchNow()).body).toMatchObject({ updated: 0 });
    expect(
      (await send('/supplies/prices', { text: 'id,price,currency,date\ncorvane-650-s,1.00,EUR,2026-01-01\n' })).body,
    ).toMatchObject({ updated: 0, same: 1 });
    expect(await one('corvane-650-s')).toEqual(model);
    expect((await server.call<{ fetchedAt: string }>('/supplies/prices/feed')).body.fetchedAt).toMatch(/^20/);
  });
  it.each<[FeedFault, RegExp]>([
    ['wrong', /missing: id/],
    ['half', /broke off/],
    ['not-a-list', /not answer with a CSV/],
    ['refuses', /answered 503/],
    ['far-too-long', /far too long/],
  ])('are left as they are when the feed is %s', async (fault, message) => {
    const before = (await all()).map((model) => model.price);
    await from(fault);
    const answer = await fetchNow<Problem>();
    expect([answer.status, answer.body.type]).toEqual([502, '/problems/feed-failed']);
    expect(answer.body.title).toMatch(message);
    expect((await all()).map((model) => model.price)).toEqual(before);
  });
  it('say when the feed is silent, after eight seconds', async () => {
    await from('slow');
    expect((await fetchNow<Problem>()).body.title).toMatch(/within 8 s/);
    await server.call('/supplies/prices/feed', { by: 'mara', url: 'http://127.0.0.1:9/price-list.csv' }, 'PUT');
    expect((await fetchNow<Problem>()).body.title).toMatch(/cannot be reached/);
  });
  it('take the good rows of a list with broken ones', async () => {
    await from('broken-rows');
    const report = (await fetchNow()).body;
    expect(report.refused).toBeGreaterThan(3);
    expect(report.named[0]).toMatchObject({ result: 'refused', errors: [{ path: 'price.minor' }] });
    expect(report.same).toBeGreaterThan(15);
  });
  it('are fetched only from private addresses, as an owner says', async () => {
    const set = <T>(by: string, url: string) => server.call<T>('/supplies/prices/feed', { by, url }, 'PUT');
    for (const url of [
      'http://example.org/x',
      'https://192.168.1.2/x',
      'http://8.8.8.8/x',
      'file:///etc/passwd',
      'http://me@127.0.0.1/x',
      'nothing',
    ])
      expect((await set<Problem>('mara', url)).body.errors?.[0]?.path, url).toBe('url');
    expect((await set<Problem>('joss', 'http://127.0.0.1:8080/x')).body.type).toBe('/problems/not-an-owner');
  });
  it('take a list of 50,000 rows with 3 % broken', async () => {
    const rows = Array.from({ length: 50_000 }, (_, index) => {
      const id = index < shipped.length ? shipped[index]!.id : `other-${index}`;
      return index % 33 === 5 ? `${id},a lot,EUR,2026-12-05` : `${id},${(index % 300) + 10}.50,EUR,2026-12-05`;
    });
    const answer = await send('/supplies/prices', { text: `id,price,currency,date\n${rows.join('\n')}\n` });
    const broken = rows.filter((row) => row.includes('a lot')).length;
    expect(answer.body).toMatchObject({ rows: 50_000, refused: broken });
    expect(answer.body.named).toHaveLength(200);
    expect(answer.body.updated).toBe(shipped.filter((_, index) => index % 33 !== 5).length);
    expect((await one(shipped[0]!.id)).price).toEqual({ minor: 1050, currency: 'EUR', asOf: '2026-12-05' });
  });
});

it('reads 60,000 bad rows with its progress, and answers others meanwhile', async () => {
  const rows = Array.from({ length: 60_000 }, (_, row) => `Part ${row},no-such-class`);
  const message = { by: 'mara', format: 'csv', text: `name,class\n${rows.join('\n')}\n`, update: false, dryRun: true };
  let answered = 0;
  let reading = true;
  const others = (async () => {
    while (reading) {
      expect((await server.call('/health')).status).toBe(200);
      answered += 1;
    }
  })();
  const response = await fetch(`${server.base}/supplies/parts/import`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', accept: 'application/x-ndjson' },
    body: JSON.stringify(message),
  });
  const lines = (await response.text())
    .trim()
    .split('\n')
    .map((line) => JSON.parse(line) as Record<string, unknown>);
  reading = false;
  await others;
  expect(lines.filter((line) => 'rows' in line).length).toBeGreaterThan(100);
  expect(lines.at(-1)).toMatchObject({ report: { rows: 60_000, refused: 60_000, added: 0 } });
  // A server that read all of it at once would answer one.
  expect(answered).toBeGreaterThan(20);
});
