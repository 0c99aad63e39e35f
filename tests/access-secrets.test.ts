import { Writable } from 'node:stream';
import { pino } from 'pino';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Audit, Person, Problem, SessionShown } from '@fairwatt/contract';
import { makeOwnerCode } from '@fairwatt/server';
import { Secrets } from '@fairwatt/server/administration';
import {
  access,
  Browser,
  idOf,
  kindOf,
  nameOf,
  ownerMessage,
  secrets,
  shopOfAll,
  type Answer,
  type Shop,
} from './access-shop.ts';

let shop: Shop & { readonly bench: Browser };
let written = '';
const key = new Secrets(Buffer.alloc(32, 7));
beforeAll(async () => {
  const lines = new Writable({
    write: (chunk, _encoding, done) => {
      written += String(chunk);
      done();
    },
  });
  shop = await shopOfAll({ secrets: key, log: pino({ level: 'info' }, lines) });
});
afterAll(async () => {
  await shop.server.end();
});

const refusedAt = ({ status, body }: Answer<unknown>) => [status, (body as Problem).errors?.[0]?.path];

describe('a secret that is tried first by whoever guesses', () => {
  it('is refused wherever one is chosen, at its field', async () => {
    const { bench, stranger, server } = shop;
    const code = await makeOwnerCode(server.pool);
    const owner = { ...ownerMessage, name: 'Another', code };
    for (const secret of ['112233', 'password1234', 'qwertyuiop12']) {
      const added = await bench.ask('POST', '/access/people', { name: 'Newcomer', role: 'viewer', secret });
      const given = await bench.ask('PUT', `/access/people/${idOf('viewer')}/secret`, { secret });
      const own = await bench.ask('PUT', '/access/secret', { was: secrets.owner, secret });
      const first = await stranger().ask('POST', '/access/owner', { ...owner, secret });
      for (const answer of [added, given, own, first]) expect(refusedAt(answer)).toEqual([422, 'secret']);
    }
    const { body } = await bench.ask<Person[]>('GET', '/access/people');
    expect(body.some(({ name }) => name === 'Newcomer' || name === 'Another')).toBe(false);
    // The code was not used up by it.
    expect((await stranger().ask('POST', '/access/owner', { ...owner, secret: '735190' })).status).toBe(201);
  });

  it('is one made of the person’s own name', async () => {
    const person = { name: 'Pim Vale', role: 'viewer', secret: 'pimvalepimvale' };
    expect(refusedAt(await shop.bench.ask('POST', '/access/people', person))).toEqual([422, 'secret']);
  });
});

describe('sessions', () => {
  const sessionsOf = async (browser: Browser) => (await browser.ask<SessionShown[]>('GET', '/access/sessions')).body;

  it('are seen by whom they are, and by an owner all of them; never by an id that lets in', async () => {
    const here = await shop.bench.device().as(nameOf('technician'), secrets.technician);
    await shop.bench.device().as(nameOf('technician'), secrets.technician);
    await shop.bench.device().as(nameOf('trainee'), secrets.trainee);
    const mine = await sessionsOf(here);
    expect(mine.map(({ person, device }) => [person, device])).toEqual([
      [nameOf('technician'), 'Bench tablet'],
      [nameOf('technician'), 'Bench tablet'],
    ]);
    expect(mine.filter((session) => session.here)).toHaveLength(1);
    for (const { begunAt, endsAt } of mine) {
      expect(Date.parse(endsAt) - Date.parse(begunAt)).toBe(12 * 3_600_000);
      expect(Math.abs(Date.parse(begunAt) - Date.now())).toBeLessThan(60_000);
    }
    const all = await sessionsOf(shop.bench);
    expect(new Set(all.map(({ person }) => person))).toEqual(
      new Set([nameOf('owner'), 'Another', nameOf('technician'), nameOf('trainee')]),
    );
    const cookies = JSON.stringify([...here.cookies]);
    for (const { id } of all) expect(cookies).not.toContain(id);
  });

  it('are ended one by one: one’s own by anybody, another’s by an owner alone', async () => {
    const [here, there] = [shop.bench.device(), shop.bench.device()];
    for (const browser of [here, there]) await browser.as(nameOf('counter'), secrets.counter);
    const other = (await sessionsOf(here)).find((session) => !session.here)?.id ?? '';
    const stranger = await shop.bench.device().as(nameOf('viewer'), secrets.viewer);
    const refused = await stranger.ask('DELETE', `/access/sessions/${other}`);
    expect([refused.status, kindOf(refused)]).toEqual([404, '/problems/no-such-session']);
    expect((await there.ask('GET', '/jobs')).status).toBe(200);
    expect((await here.ask('DELETE', `/access/sessions/${other}`)).status).toBe(200);
    expect((await there.ask('GET', '/jobs')).status).toBe(401);
    expect((await here.ask('DELETE', `/access/sessions/${other}`)).status).toBe(404);
    const last = (await sessionsOf(shop.bench)).find(({ person }) => person === nameOf('counter'))?.id ?? '';
    expect((await shop.bench.ask('DELETE', `/access/sessions/${last}`)).status).toBe(200);
    expect((await here.ask('GET', '/jobs')).status).toBe(401);
    expect((await shop.bench.ask('DELETE', '/access/sessions/nonsense')).status).toBe(422);
    const { body } = await shop.bench.ask<Audit>('GET', '/access/audit');
    expect(body.lines.find(({ kind }) => kind === 'sessions-ended')).toMatchObject({
      by: nameOf('owner'),
      about: `1 of ${nameOf('counter')}`,
    });
  });
});

describe('the key of the secrets', () => {
  it('is missing where a backup was found: nobody signs in by it, and the console makes an owner anew', async () => {
    const { rows } = await shop.server.pool.query<{ hash: string }>('select hash from technician_secret');
    for (const { hash } of rows) expect(hash).toMatch(/^keyed-scrypt\$/);
    const found = await shop.server.another({ secrets: new Secrets(null) });
    try {
      const finder = new Browser(found.base);
      for (const [name, value] of shop.bench.device().cookies) finder.cookies.set(name, value);
      expect(await access(finder)).toMatchObject({ ownerless: true });
      const tried = await finder.ask('POST', '/access/session', { name: nameOf('owner'), secret: secrets.owner });
      expect([tried.status, kindOf(tried)]).toEqual([403, '/problems/wrong-secret']);
      const code = await makeOwnerCode(shop.server.pool);
      const made = await finder.ask('POST', '/access/owner', { ...ownerMessage, name: 'Finder', code });
      expect(made.status).toBe(201);
      const { body } = await finder.ask<Person[]>('GET', '/access/people');
      expect(body.filter(({ secret }) => secret !== null).map(({ name }) => name)).toEqual(['Finder']);
    } finally {
      await found.end();
    }
    // With the key all is as it was.
    expect((await access(shop.bench)).ownerless).toBe(false);
    await shop.bench.device().as(nameOf('technician'), secrets.technician);
  });

  it('takes over what was kept before there was one, when somebody signs in', async () => {
    const kept = async () => {
      const { rows } = await shop.server.pool.query<{ hash: string }>(
        'select hash from technician_secret where technician = $1',
        [idOf('viewer')],
      );
      return rows[0]?.hash;
    };
    await shop.server.pool.query('update technician_secret set hash = $2 where technician = $1', [
      idOf('viewer'),
      await new Secrets(null).hash(secrets.viewer),
    ]);
    const browser = shop.bench.device();
    expect(await kept()).toMatch(/^scrypt\$/);
    await browser.as(nameOf('viewer'), secrets.viewer);
    expect(await kept()).toMatch(/^keyed-scrypt\$/);
    await browser.as(nameOf('viewer'), secrets.viewer);
  });
});

describe('answers', () => {
  it('of the API are no pages: opened by their address they are saved', async () => {
    for (const path of ['/jobs', '/access', '/nothing-here'])
      expect((await shop.bench.ask('GET', path)).headers.get('content-disposition')).toBe('attachment');
  });

  it('hold a browser to TLS where the certificate is from elsewhere, and not where it is made here', async () => {
    const told = { urls: ['https://quay.bench.example:4871'], fingerprint: null, rootPath: '/root.crt' };
    const hsts = async (root: string | null) => {
      const server = await shop.server.another({ network: { told, names: [], root } });
      const answer = await new Browser(server.base).ask('GET', '/health');
      await server.end();
      return answer.headers.get('strict-transport-security');
    };
    expect(await hsts(null)).toBe('max-age=31536000');
    expect(await hsts('the authority')).toBeNull();
    expect((await shop.bench.ask('GET', '/health')).headers.get('strict-transport-security')).toBeNull();
  });

  it('are logged without what was searched for, and without a secret', async () => {
    await shop.bench.ask('GET', '/jobs?search=somebodysname');
    expect(written).toContain('"url":"/api/jobs"');
    expect(written).not.toContain('somebodysname');
    for (const secret of Object.values(secrets)) expect(written).not.toContain(`"${secret}"`);
  });
});
