import { randomUUID } from 'node:crypto';
import { setTimeout as wait } from 'node:timers/promises';
import type { PoolClient, QueryResult } from 'pg';
import { pino } from 'pino';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import type {
  InstrumentTrouble,
  LiveEvent,
  NetworkInstrument,
  Problem,
  SweepEvent,
  SweepsMessage,
} from '@fairwatt/contract';
import { SimulatedBench, serveInstrument, type Fault, type ServedInstrument } from '@fairwatt/instruments';
import { InstrumentFailure, ScpiLink, Sweeps } from '@fairwatt/server';
import { startServer, type RunningServer } from './running-server.ts';

let server: RunningServer;
let bench: SimulatedBench;
let meter: ServedInstrument;
let load: ServedInstrument;
const meterAt = (port: number): NetworkInstrument => ({
  id: 'meter',
  name: 'Bench meter by net',
  role: 'meter',
  host: '127.0.0.1',
  port,
  instrumentId: 'bench-meter',
});
const loadAt = (port: number): NetworkInstrument => ({
  id: 'load',
  name: 'Load',
  role: 'load',
  host: '127.0.0.1',
  port,
  instrumentId: null,
});
const add = (instrument: NetworkInstrument, by = 'mara') =>
  server.call<NetworkInstrument[] & Problem>('/instruments', { by, instrument });

beforeAll(async () => {
  server = await startServer();
  bench = new SimulatedBench(() => performance.now());
  meter = await serveInstrument(() => bench.meter(), { answerMilliseconds: 1 });
  load = await serveInstrument(() => bench.load());
  await add(meterAt(meter.port));
  await add(loadAt(load.port));
});
afterEach(() => {
  meter.fail('none');
  load.fail('none');
});
afterAll(async () => {
  await server.end();
  await meter.close();
  await load.close();
});

/** Reads server-sent events until enough is seen. */
async function events<T>(path: string, enough: (list: readonly T[]) => boolean, whenBegun?: () => void): Promise<T[]> {
  const abort = new AbortController();
  const timer = setTimeout(() => abort.abort(), 60_000);
  const list: T[] = [];
  const response = await fetch(`${server.base}${path}`, { signal: abort.signal });
  whenBegun?.();
  let text = '';
  const decoder = new TextDecoder();
  for await (const chunk of response.body!) {
    text += decoder.decode(chunk, { stream: true });
    for (let end = text.indexOf('\n\n'); end >= 0; end = text.indexOf('\n\n')) {
      const line = text.slice(0, end);
      text = text.slice(end + 2);
      if (line.startsWith('data: ')) list.push(JSON.parse(line.slice(6)) as T);
    }
    if (enough(list)) break;
  }
  clearTimeout(timer);
  abort.abort();
  return list;
}

describe('the link to an instrument', () => {
  it('asks and orders, and tells a refused order', async () => {
    const link = await ScpiLink.open('127.0.0.1', load.port);
    expect(await link.ask('*IDN?')).toContain('Stand-in');
    await link.order('CURRent 3.5');
    expect(await link.askFigure('CURRent?')).toBe(3.5);
    await expect(link.order('CURRent 900')).rejects.toMatchObject({ trouble: 'refused' });
    expect(await link.askFigure('CURRent?')).toBe(3.5);
    link.close();
  });
  it.each([
    ['cut', 'vanished'],
    ['half', 'vanished'],
    ['silent', 'silent'],
    ['garbage', 'nonsense'],
    ['flood', 'flood'],
    ['stale', 'stale-answer'],
  ] as const)('%s: %s, and nothing of the answer is kept', async (fault: Fault, trouble: InstrumentTrouble) => {
    const link = await ScpiLink.open('127.0.0.1', meter.port, 300);
    expect(await link.askFigure('MEASure:VOLTage:DC?')).toBeGreaterThan(10);
    meter.fail(fault);
    const failure = await link.askFigure('MEASure:VOLTage:DC?').then(
      () => null,
      (error: unknown) => error,
    );
    expect(failure).toBeInstanceOf(InstrumentFailure);
    expect((failure as InstrumentFailure).trouble).toBe(trouble);
    meter.fail('none');
    await expect(link.ask('*IDN?')).rejects.toMatchObject({ trouble });
    link.close();
  });
  it('says when nobody answers at the address', async () => {
    const closed = await serveInstrument(() => bench.meter());
    await closed.close();
    await expect(ScpiLink.open('127.0.0.1', closed.port, 500)).rejects.toMatchObject({ trouble: 'no-connection' });
  });
});

describe('instruments of the shop', () => {
  it('are added by an owner, at loopback and private addresses only', async () => {
    expect((await add(meterAt(5025), 'joss')).body).toMatchObject({ type: '/problems/not-an-owner' });
    for (const host of ['8.8.8.8', '172.32.0.1', 'meter.local', '192.168.1.300', '0.0.0.0', '::2'])
      expect((await add({ ...meterAt(5025), id: 'x', host })).body.errors, host).toMatchObject([
        { path: 'instrument.host' },
      ]);
    for (const host of ['10.0.0.7', '172.16.3.4', '192.168.1.40', '::1', 'fd12:3456::1'])
      expect((await add({ ...meterAt(5025), id: 'x', host })).status, host).toBe(201);
    expect((await add({ ...meterAt(5025), id: 'x', instrumentId: null })).body.errors).toMatchObject([
      { path: 'instrument.instrumentId' },
    ]);
    expect((await add({ ...meterAt(5025), id: 'x', instrumentId: 'nobody' })).status).toBe(422);
    expect((await add({ ...meterAt(0), id: 'x' })).body.errors).toMatchObject([{ path: 'instrument.port' }]);
    expect((await server.call<Problem>('/instruments/x?by=joss', {}, 'DELETE')).status).toBe(403);
    expect(
      (await server.call<NetworkInstrument[]>('/instruments/x?by=mara', {}, 'DELETE')).body
        .map((item) => item.id)
        .sort(),
    ).toEqual(['load', 'meter']);
    expect((await server.call<Problem>('/instruments/x?by=mara', {}, 'DELETE')).status).toBe(404);
  });
  it('tell who they are, or what is wrong', async () => {
    expect((await server.call('/instruments/meter/identity')).body).toMatchObject({
      identity: expect.stringContaining('Stand-in meter') as string,
    });
    meter.fail('garbage');
    expect((await server.call('/instruments/meter/identity')).body).toEqual({ identity: null, trouble: 'nonsense' });
  });
});

describe('a meter live', () => {
  it('streams readings and holds what stands still', async () => {
    const seen = await events<LiveEvent>('/instruments/meter/live?rail=%2B12&job=LQ-0143', (list) =>
      list.some((event) => event.kind === 'held'),
    );
    expect(seen[0]).toMatchObject({ kind: 'identity' });
    const held = seen.find((event) => event.kind === 'held');
    expect(held).toMatchObject({ count: 12 });
    expect(held?.kind === 'held' && Math.abs(held.volts - 12.06) < 0.05).toBe(true);
  });
  it('shows trouble and goes on when it is over', async () => {
    const seen = await events<LiveEvent>('/instruments/meter/live?rail=%2B5&job=LQ-0143', (list) => {
      if (list.filter((event) => event.kind === 'reading').length === 15) meter.fail('cut');
      if (list.some((event) => event.kind === 'trouble')) meter.fail('none');
      const trouble = list.findIndex((event) => event.kind === 'trouble');
      return trouble >= 0 && list.slice(trouble).some((event) => event.kind === 'reading');
    });
    expect(seen.filter((event) => event.kind === 'trouble')).toMatchObject([{ trouble: 'vanished' }]);
    // The probe came from +12: the first readings still settle, and none after the trouble does.
    const volts = seen.flatMap((event) => (event.kind === 'reading' ? [event.volts] : []));
    expect(volts.length).toBeGreaterThan(15);
    for (const figure of volts.slice(12)) expect(figure).toBeCloseTo(5.03, 1);
  });
  it('is taken hands free by one screen at a time, the probe in the air first', async () => {
    const path = '/instruments/meter/live?rail=%2B12&job=LQ-0143&moving=yes';
    const first = events<LiveEvent>(path, (list) =>
      list.some((event) => event.kind === 'trouble' && event.trouble === 'taken'),
    );
    await events<LiveEvent>('/instruments/meter/live?rail=%2B12&job=LQ-0143', (list) => list.length > 2);
    const second = await events<LiveEvent>(path, (list) => list.some((event) => event.kind === 'held'));
    expect((await first).at(-1)).toMatchObject({ kind: 'trouble', trouble: 'taken' });
    const volts = second.flatMap((event) => (event.kind === 'reading' ? [event.volts] : []));
    expect(Math.min(...volts.map(Math.abs))).toBeLessThan(1);
    expect(volts.at(-1)).toBeCloseTo(12.06, 1);
    expect(second.some((event) => event.kind === 'trouble')).toBe(false);
  });
  it('times power-good, and says when it cannot', async () => {
    const time = <T>(id: string, job: string) => server.call<T>(`/instruments/${id}/power-good`, { job });
    const timed = (await time<{ milliseconds: number; trouble: null }>('meter', 'LQ-0142')).body;
    expect(timed.trouble).toBeNull();
    expect(Math.abs(timed.milliseconds - 310)).toBeLessThan(5);
    expect((await time<Problem>('meter', 'nothing')).body.errors).toMatchObject([{ path: 'job' }]);
    expect((await time<Problem>('load', 'LQ-0142')).status).toBe(404);
    meter.fail('cut');
    expect((await time('meter', 'LQ-0142')).body).toEqual({ milliseconds: null, trouble: 'vanished' });
  });
  it('refuses a rail or an instrument that is not there', async () => {
    expect((await server.call<Problem>('/instruments/meter/live?rail=7&job=LQ-0143')).body.errors).toMatchObject([
      { path: 'rail' },
    ]);
    expect((await server.call<Problem>('/instruments/load/live?rail=%2B12&job=LQ-0143')).status).toBe(404);
  });
});

/** From now on this database takes its time to let go of a load. */
function unlockSlowly(pool: RunningServer['pool']) {
  const slowed = new WeakSet<PoolClient>();
  pool.on('acquire', (client) => {
    if (slowed.has(client)) return;
    slowed.add(client);
    const query = client.query.bind(client) as (...args: readonly unknown[]) => Promise<QueryResult>;
    const slowly = (...args: readonly unknown[]) =>
      String(args[0]).includes('pg_advisory_unlock') ? wait(150).then(() => query(...args)) : query(...args);
    client.query = slowly as typeof client.query;
  });
}

describe('a load sweep', () => {
  const sweep = async (changes: object = {}) =>
    server.call<{ id: string } & Problem>('/instruments/sweeps', {
      by: 'mara',
      job: 'LQ-0142',
      meterId: 'meter',
      loadId: 'load',
      rail: '+12',
      fromAmps: 2,
      toAmps: 20,
      steps: 4,
      dwellSeconds: 0.2,
      hottestCelsius: 80,
      ...changes,
    });
  /** One whose load draws already. */
  const drawing = async (changes: object) => {
    const begun = await sweep(changes);
    await events<SweepEvent>(`/instruments/sweeps/${begun.body.id}/events`, (list) =>
      list.some((event) => event.kind === 'setting'),
    );
    return begun;
  };
  const toEnd = (id: string) =>
    events<SweepEvent>(`/instruments/sweeps/${id}/events`, (list) => list.some((event) => event.kind === 'ended'));
  it('reads each step, falls with the load, and leaves the load off', async () => {
    const { body } = await sweep();
    expect((await sweep()).body).toMatchObject({ type: '/problems/load-busy' });
    const seen = await toEnd(body.id);
    const steps = seen.flatMap((event) => (event.kind === 'step' ? [event.step] : []));
    expect(steps.map((step) => step.amps)).toEqual([2, 8, 14, 20]);
    expect(steps[0]!.volts - steps[3]!.volts).toBeGreaterThan(0.25);
    expect(seen.at(-1)).toEqual({ kind: 'ended', end: 'done', loadOff: true });
    expect(bench.drawing).toBe(false);
  });
  it.each(['-12', '+3.3', '+5'] as const)('waits for a meter that was on %s a moment ago', async (rail) => {
    await events<LiveEvent>(
      `/instruments/meter/live?rail=${encodeURIComponent(rail)}&job=LQ-0142`,
      (list) => list.filter((event) => event.kind === 'reading').length > 8,
    );
    const { body } = await sweep({ steps: 2 });
    expect((await toEnd(body.id)).at(-1)).toEqual({ kind: 'ended', end: 'done', loadOff: true });
  });
  it('does not begin while something dangerous stands, and ends when it is noted', async () => {
    const { code } = await server.make();
    const { body } = await sweep({ job: code, dwellSeconds: 20, steps: 2 });
    const noted = randomUUID();
    const seen = events<SweepEvent>(`/instruments/sweeps/${body.id}/events`, (list) =>
      list.some((event) => event.kind === 'ended'),
    );
    await server.act(code, { kind: 'note-outcome', id: noted, checkId: 'look-plugs', outcomeId: 'bare' });
    expect((await seen).at(-1)).toEqual({ kind: 'ended', end: 'stopped', loadOff: true });
    expect(bench.drawing).toBe(false);
    expect(await sweep({ job: code })).toMatchObject({ status: 409, body: { type: '/problems/interlocked' } });
    await server.act(code, {
      kind: 'note-outcome',
      id: randomUUID(),
      checkId: 'safe.bare-wire',
      outcomeId: 'replaced',
    });
    const again = await sweep({ job: code, steps: 2 });
    expect(again.status).toBe(201);
    await toEnd(again.body.id);
  });
  it('goes on after one answer that was lost, over a new link', async () => {
    const { body } = await sweep({ job: 'LQ-0143', dwellSeconds: 1, steps: 2 });
    let failed = false;
    const seen = await events<SweepEvent>(`/instruments/sweeps/${body.id}/events`, (list) => {
      if (!failed && list.some((event) => event.kind === 'setting')) {
        failed = true;
        meter.fail('once');
      }
      return list.some((event) => event.kind === 'ended');
    });
    expect(failed).toBe(true);
    expect(seen.at(-1)).toEqual({ kind: 'ended', end: 'done', loadOff: true });
  });
  it('is stopped at once, and the load is off before the answer comes', async () => {
    const { body } = await drawing({ dwellSeconds: 30 });
    const answer = await server.call(`/instruments/sweeps/${body.id}/stop`, {});
    expect(answer.body).toEqual({ ended: { kind: 'ended', end: 'stopped', loadOff: true } });
    expect(bench.drawing).toBe(false);
  });
  it('can be begun again as soon as one has been heard to end, or was stopped, however slow the database', async () => {
    unlockSlowly(server.pool);
    for (let turn = 0; turn < 4; turn += 1) {
      const begun = await sweep({ fromAmps: 2, toAmps: 3, steps: 2, dwellSeconds: turn % 2 === 0 ? 0.2 : 30 });
      expect(begun.status).toBe(201);
      if (turn % 2 === 0) await toEnd(begun.body.id);
      else await server.call(`/instruments/sweeps/${begun.body.id}/stop`, {});
    }
  });
  it('goes on after one answer of the load that was lost, and ends after two', async () => {
    const goes = await drawing({ job: 'LQ-0143', dwellSeconds: 0.5 });
    load.fail('silent');
    setTimeout(() => load.fail('none'), 400);
    expect((await toEnd(goes.body.id)).at(-1)).toEqual({ kind: 'ended', end: 'done', loadOff: true });
    const ends = await drawing({ job: 'LQ-0143', dwellSeconds: 5 });
    load.fail('silent');
    setTimeout(() => load.fail('none'), 2_500);
    expect((await toEnd(ends.body.id)).at(-1)).toEqual({ kind: 'ended', end: 'silent', loadOff: true });
    expect(bench.drawing).toBe(false);
  });
  it('ends by itself when the rail falls far out', async () => {
    const { body } = await sweep({ fromAmps: 5, toAmps: 55, steps: 3 });
    expect((await toEnd(body.id)).at(-1)).toEqual({ kind: 'ended', end: 'rail-low', loadOff: true });
    expect(bench.drawing).toBe(false);
  });
  it('ends by itself on heat', async () => {
    const begun = await drawing({ job: 'LQ-0143', hottestCelsius: 30, fromAmps: 28, toAmps: 30, dwellSeconds: 60 });
    bench.put('hot');
    expect((await toEnd(begun.body.id)).at(-1)).toEqual({ kind: 'ended', end: 'too-hot', loadOff: true });
    expect(bench.drawing).toBe(false);
  });
  it.each(['silent', 'cut', 'garbage', 'stale'] as const)(
    'ends when the meter is %s, and the load is off',
    async (fault) => {
      const { body } = await sweep({ job: 'LQ-0143', dwellSeconds: 5 });
      const seen = await events<SweepEvent>(`/instruments/sweeps/${body.id}/events`, (list) => {
        if (list.some((event) => event.kind === 'setting')) meter.fail(fault);
        return list.some((event) => event.kind === 'ended');
      });
      const last = seen.at(-1)!;
      expect(last).toMatchObject({ kind: 'ended', loadOff: true });
      expect(last.kind === 'ended' && last.end !== 'done').toBe(true);
      expect(bench.drawing).toBe(false);
    },
  );
  it('switches the load off by a new link when the old one broke', async () => {
    const { body } = await drawing({ job: 'LQ-0143', dwellSeconds: 5 });
    load.fail('cut');
    setTimeout(() => load.fail('none'), 400);
    expect((await toEnd(body.id)).at(-1)).toMatchObject({ kind: 'ended', end: 'vanished', loadOff: true });
    expect(bench.drawing).toBe(false);
  });
  it('says so when nobody knows whether the load is off', async () => {
    const { body } = await drawing({ job: 'LQ-0143', dwellSeconds: 5 });
    load.fail('cut');
    expect((await toEnd(body.id)).at(-1)).toMatchObject({ kind: 'ended', end: 'vanished', loadOff: false });
    load.fail('none');
    bench.load().line('*RST');
  });
  it('is seen by every screen while it runs, and a load nobody is sure of until it is known to be off', async () => {
    const seen = async () => (await server.call<SweepsMessage>('/instruments/sweeps')).body;
    const off = (byHand: boolean) =>
      server.call<{ loadOff: boolean } & Problem>('/instruments/load/off', { by: 'mara', byHand });
    expect(await seen()).toEqual({ running: [], unsure: [{ loadId: 'load', loadName: 'Load' }] });
    expect((await off(false)).body).toEqual({ loadOff: true });
    expect(await seen()).toEqual({ running: [], unsure: [] });
    const { body } = await drawing({ job: 'LQ-0143', dwellSeconds: 5 });
    expect(await seen()).toEqual({
      running: [
        { id: body.id, job: 'LQ-0143', rail: '+12', meterId: 'meter', loadId: 'load', loadName: 'Load', steps: 4 },
      ],
      unsure: [],
    });
    expect((await off(false)).body).toMatchObject({ type: '/problems/load-busy' });
    load.fail('silent');
    await toEnd(body.id);
    expect((await off(false)).body).toEqual({ loadOff: false });
    expect((await server.call<Problem>('/instruments/load/off', { by: 'nobody', byHand: true })).status).toBe(403);
    expect((await server.call<Problem>('/instruments/meter/off', { by: 'mara', byHand: true })).status).toBe(404);
    bench.load().line('*RST');
    expect((await off(true)).body).toEqual({ loadOff: true });
    expect((await seen()).unsure).toEqual([]);
  });
  it('is left alone by another server process of the shop, which begins none on the same load either', async () => {
    const { body } = await drawing({ job: 'LQ-0143', dwellSeconds: 5 });
    const other = new Sweeps(server.pool, pino({ level: 'silent' }));
    const [held, meter] = [{ ...loadAt(load.port), id: 'load' }, loadAt(1)];
    expect(await other.unsure()).toEqual([]);
    expect(await other.makeSure(held, false)).toBeNull();
    await other.switchOffLeftOvers();
    const wanted = { by: 'mara', job: 'LQ-0142', meterId: 'meter', loadId: 'load', rail: '+12' } as const;
    const figures = { fromAmps: 2, toAmps: 4, steps: 2, dwellSeconds: 1, hottestCelsius: 80 };
    expect(await other.start({ ...wanted, ...figures }, meter, held)).toBeNull();
    expect(bench.drawing).toBe(true);
    await server.call(`/instruments/sweeps/${body.id}/stop`, {});
    expect(bench.drawing).toBe(false);
    // Nobody holds it any more, and nothing is left of it.
    await expect.poll(() => other.makeSure(held, false)).toBe(true);
    await other.stopAll();
  });
  it('of a server that was killed ends when the next one starts', async () => {
    await server.pool.query("insert into load_sweep (load_id) values ('load')");
    const other = bench.load();
    other.line('CURRent 5');
    other.line('INPut ON');
    expect(bench.drawing).toBe(true);
    await new Sweeps(server.pool, pino({ level: 'silent' })).switchOffLeftOvers();
    expect(bench.drawing).toBe(false);
    expect((await server.pool.query('select 1 from load_sweep')).rowCount).toBe(0);
  });
  it('leaves no load behind: all are switched off at once, whatever else does not answer', async () => {
    const silent = await serveInstrument(() => bench.load());
    silent.fail('silent');
    const others = await Promise.all(
      [1, 2, 3].map(async () => {
        const one = new SimulatedBench(() => performance.now());
        return { one, served: await serveInstrument(() => one.load()) };
      }),
    );
    const { pool } = server;
    for (const [index, { one, served }] of others.entries()) {
      await add({ ...loadAt(served.port), id: `load-${index}` });
      await pool.query('insert into load_sweep (load_id) values ($1)', [`load-${index}`]);
      one.load().line('CURRent 4;INPut ON');
    }
    await add({ ...loadAt(silent.port), id: 'load-silent' });
    await pool.query("insert into load_sweep (load_id) values ('load-silent')");
    const sweeps = new Sweeps(pool, pino({ level: 'silent' }));
    let isOver = false;
    const whole = sweeps.switchOffLeftOvers().then(() => {
      isOver = true;
    });
    await expect.poll(() => others.some(({ one }) => one.drawing), { interval: 20 }).toBe(false);
    expect(isOver).toBe(false);
    await whole;
    expect((await sweeps.unsure()).map((load) => load.id)).toEqual(['load-silent']);
    // One of which nobody knows cannot be taken out, nor moved to another address.
    const removed = await server.call<Problem>('/instruments/load-silent?by=mara', {}, 'DELETE');
    expect(removed.body).toMatchObject({ type: '/problems/load-unsure' });
    expect((await add({ ...loadAt(9), id: 'load-silent' })).body).toMatchObject({ type: '/problems/load-unsure' });
    silent.fail('none');
    expect(await sweeps.makeSure({ ...loadAt(silent.port), id: 'load-silent' }, false)).toBe(true);
    expect((await server.call<Problem>('/instruments/load-silent?by=mara', {}, 'DELETE')).status).toBe(200);
    await sweeps.stopAll();
    await Promise.all([silent.close(), ...others.map(({ served }) => served.close())]);
  });
  it('has a load that switches itself off when it hears nothing more', async () => {
    let now = 0;
    const clock = new SimulatedBench(() => now);
    const link = clock.load();
    link.line('SYSTem:WATChdog 5;CURRent 3;INPut ON');
    now = 4900;
    expect(link.line('INPut?')).toBe('1');
    now = 9000;
    expect(clock.drawing).toBe(true);
    now = 9950;
    expect(clock.drawing).toBe(false);
    expect(link.line('INPut?')).toBe('0');
    const { body } = await drawing({ job: 'LQ-0143', dwellSeconds: 5 });
    expect(bench.load().line('SYSTem:WATChdog?')).toBe('5');
    await server.call(`/instruments/sweeps/${body.id}/stop`, {});
    bench.load().line('*RST');
  });
  it('refuses what makes no sense, and who is not known', async () => {
    expect((await sweep({ toAmps: 1 })).body.errors).toMatchObject([{ path: 'toAmps' }]);
    expect((await sweep({ steps: 1 })).body.errors).toMatchObject([{ path: 'steps' }]);
    expect((await sweep({ by: 'nobody' })).status).toBe(403);
    expect((await sweep({ meterId: 'load' })).status).toBe(404);
    expect((await server.call<Problem>(`/instruments/sweeps/${randomUUID()}/stop`, {})).status).toBe(404);
  });
});
