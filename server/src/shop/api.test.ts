import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Problem, ShopMessage } from '@fairwatt/contract';
import { startServer, type RunningServer } from '../../../tests/running-server.ts';

const demo = fileURLToPath(new URL('../../../demo', import.meta.url));
let running: RunningServer;
let call: RunningServer['call'];
beforeAll(async () => {
  running = await startServer();
  ({ call } = running);
});
afterAll(async () => {
  await running.end();
});

describe('the shop', () => {
  it('lets an owner add and change a meter, and nobody overwrite what they did not see', async () => {
    const instrument = {
      id: 'new-meter',
      name: 'New meter',
      kind: 'multimeter',
      ranges: [{ fullScaleVolts: 20, percent: 0.1, counts: 2, digitVolts: 0.001 }],
      powerGoodErrorMilliseconds: null,
      rippleErrorMillivolts: null,
      calibratedUntil: '2027-01-31',
      ownedBy: 'Edda K.',
    };
    const put = <T>(by: string, was: unknown, wanted: unknown) =>
      call<T>('/shop/instruments', { by, was, instrument: wanted }, 'PUT');
    expect((await put<Problem>('joss', null, instrument)).body.type).toBe('/problems/not-an-owner');
    expect((await put<Problem>('nobody', null, instrument)).body.type).toBe('/problems/unknown-technician');
    expect((await put<{ instruments: unknown[] }>('mara', null, instrument)).body.instruments).toContainEqual(
      instrument,
    );
    const better = {
      ...instrument,
      calibratedUntil: '2028-01-31',
      ranges: [...instrument.ranges, { fullScaleVolts: 60, percent: 0.2, counts: 2, digitVolts: 0.01 }],
    };
    expect((await put<Problem>('mara', null, better)).status).toBe(409);
    expect((await put<{ instruments: unknown[] }>('mara', instrument, better)).body.instruments).toContainEqual(better);
    expect((await put<Problem>('mara', instrument, instrument)).body.type).toBe('/problems/stale');
    expect((await put<Problem>('mara', better, { ...better, id: 'other' })).body.errors?.[0]?.path).toBe(
      'instrument.id',
    );
    expect((await put<Problem>('mara', better, { ...better, ranges: [] })).body.errors?.[0]?.path).toBe(
      'instrument.ranges',
    );
  });
  it.each([
    ['locale', 'Klingon'],
    ['locale', ''],
    ['locale', 'x'.repeat(41)],
    ['timeZone', 'Lantern Quay'],
    ['timeZone', 'a\u0000b'],
  ] as const)('names what is no manner of writing: %s %j', async (field, value) => {
    const shop = (await call<ShopMessage>('/shop')).body;
    const wrong = { by: 'mara', basedOn: shop.settingsVersion, settings: { ...shop.settings, [field]: value } };
    const answer = await call<Problem>('/shop/settings', wrong, 'PUT');
    expect([answer.status, answer.body.errors?.[0]?.path]).toEqual([422, `settings.${field}`]);
  });
  it('keeps how it writes, and by which clock', async () => {
    const shop = (await call<ShopMessage>('/shop')).body;
    const settings = { ...shop.settings, locale: 'de-DE', timeZone: 'Asia/Tokyo' };
    const answer = await call<ShopMessage>(
      '/shop/settings',
      { by: 'mara', basedOn: shop.settingsVersion, settings },
      'PUT',
    );
    expect(answer.body.settings).toMatchObject({ locale: 'de-DE', timeZone: 'Asia/Tokyo' });
    // What the list says of a job's stations is worded here.
    expect(JSON.stringify(await running.list())).toContain('+12 V sags: 11,32');
  });
  it('takes a shop file, and leaves what is here as it is', async () => {
    const shop = JSON.parse(readFileSync(`${demo}/shop.json`, 'utf8')) as { settings: { name: string } };
    const answer = await call<{ settings: { name: string } }>('/shop/import', {
      ...shop,
      settings: { ...shop.settings, name: 'Another bench' },
    });
    expect(answer.body.settings.name).toBe('Lantern Quay Repair Bench');
  });
});
