import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { roles, type Audit, type Device, type Enrolment, type Person, type Problem } from '@fairwatt/contract';
import type { Act, Job } from '@fairwatt/core';
import { makeOwnerCode } from '@fairwatt/server';
import {
  access,
  emptyShop,
  idOf,
  kindOf,
  nameOf,
  ownerMessage,
  secrets,
  type Browser,
  type Shop,
} from './access-shop.ts';

let shop: Shop;
/** The owner's browser: the first device of the shop. */
let bench: Browser;
beforeAll(async () => {
  shop = await emptyShop();
  bench = shop.stranger();
});
afterAll(async () => {
  await shop.server.end();
});
const auditKinds = async () => (await bench.ask<Audit>('GET', '/access/audit')).body.lines.map(({ kind }) => kind);

describe('a new shop', () => {
  it('answers nobody who has not signed in, and says so', async () => {
    expect(await access(bench)).toMatchObject({
      signing: 'secret',
      ownerless: true,
      person: null,
      device: null,
      names: [],
    });
    for (const path of ['/jobs', '/shop', '/supplies', '/health/state', '/access/people', '/events'])
      expect([path, (await bench.ask('GET', path)).status]).toEqual([path, 401]);
    expect((await bench.ask('GET', '/health')).status).toBe(200);
    const named = { id: randomUUID(), by: 'test-owner', title: 'Machine', client: '', words: '' };
    expect((await bench.ask('POST', '/jobs', named)).status).toBe(401);
  });

  it('makes its owner by the code of the console, once, and enrols that device', async () => {
    const code = await makeOwnerCode(shop.server.pool);
    const wanted = ownerMessage;
    const wrong = await bench.ask('POST', '/access/owner', { ...wanted, code: 'AAAAA-AAAAA' });
    expect([wrong.status, kindOf(wrong)]).toEqual([403, '/problems/wrong-code']);
    const easy = await bench.ask('POST', '/access/owner', { ...wanted, code, secret: '123456' });
    expect(easy.status).toBe(422);
    const made = await bench.ask('POST', '/access/owner', { ...wanted, code });
    expect(made.status).toBe(201);
    for (const line of made.headers.getSetCookie()) {
      expect(line).toMatch(/HttpOnly/i);
      expect(line).toMatch(/SameSite=Strict/i);
    }
    expect(await access(bench)).toMatchObject({
      ownerless: false,
      device: 'Bench tablet',
      person: { id: 'test-owner', role: 'owner' },
    });
    const again = await shop.stranger().ask('POST', '/access/owner', { ...wanted, name: 'Another', code });
    expect(again.status).toBe(403);
  });

  it('is known by a cookie that goes over TLS alone where a proxy of this machine speaks it', async () => {
    const name = nameOf('owner');
    const signed = async (headers: Record<string, string>) => {
      const browser = bench.device();
      const answer = await browser.ask('POST', '/access/session', { name, secret: secrets.owner }, headers);
      expect(answer.status).toBe(201);
      expect((await browser.ask('GET', '/jobs', undefined, headers)).status).toBe(200);
      return answer.headers.getSetCookie().join('; ');
    };
    const secure = await signed({ 'x-forwarded-for': '192.168.1.20', 'x-forwarded-proto': 'https' });
    expect(secure).toMatch(/^__Host-fairwatt=[^;]+; Path=\/;.*; Secure/i);
    expect(secure).not.toMatch(/; Domain/i);
    expect(await signed({})).toMatch(/^fairwatt=/);
    expect(await signed({})).not.toMatch(/; Secure/i);
  });

  it('ends a code after ten wrong ones', async () => {
    const code = await makeOwnerCode(shop.server.pool);
    const wanted = { person: null, name: 'Guesser', secret: '940271', device: 'Elsewhere' };
    const guesser = shop.stranger();
    for (let attempt = 0; attempt < 10; attempt += 1)
      await guesser.ask('POST', '/access/owner', { ...wanted, code: 'BBBBBBBBBB' });
    expect((await guesser.ask('POST', '/access/owner', { ...wanted, code })).status).toBe(403);
  });
});

describe('people', () => {
  it('are added by the owner, each with a role and a secret', async () => {
    for (const role of roles.slice(1)) {
      const { status, body } = await bench.ask<Person[]>('POST', '/access/people', {
        name: nameOf(role),
        role,
        secret: secrets[role],
      });
      expect(status).toBe(201);
      expect(body.find(({ id }) => id === idOf(role))).toMatchObject({ role, secret: 'pin', locked: false });
    }
    const again = await bench.ask<Person[]>('POST', '/access/people', {
      name: '  Ilse Våg ',
      role: 'none',
      secret: null,
    });
    expect(again.status).toBe(422);
    const accented = { name: '  Ilse Våg ', role: 'viewer', secret: null };
    const { body } = await bench.ask<Person[]>('POST', '/access/people', accented);
    expect(body.find(({ name }) => name === 'Ilse Våg')).toMatchObject({ id: 'ilse-va-g', secret: null });
    const nameless = await bench.ask<Problem>('POST', '/access/people', { ...accented, name: ' ' });
    expect(nameless.body.errors?.[0]?.path).toBe('name');
    const twice = await bench.ask('POST', '/access/people', { name: 'test VIEWER', role: 'viewer', secret: null });
    expect([twice.status, kindOf(twice)]).toEqual([409, '/problems/name-taken']);
  });

  it('sign in with a PIN on a device that is enrolled, and never elsewhere', async () => {
    const elsewhere = shop.stranger();
    expect((await access(elsewhere)).names).toEqual([]);
    const refused = await elsewhere.ask('POST', '/access/session', {
      name: nameOf('technician'),
      secret: secrets.technician,
    });
    expect([refused.status, kindOf(refused)]).toEqual([403, '/problems/wrong-secret']);
    const { body } = await bench.ask<Person[]>('GET', '/access/people');
    expect(body.find(({ id }) => id === 'test-technician')?.failures).toBe(0);
    const known = bench.device();
    expect((await access(known)).names.map(({ name }) => name)).toContain(nameOf('technician'));
    await known.as(nameOf('technician'), secrets.technician);
    expect((await known.ask('GET', '/jobs')).status).toBe(200);
  });

  it('sign in with a passphrase anywhere', async () => {
    await bench.ask('PUT', '/access/people/test-viewer/secret', { secret: 'gulls over the ferry' });
    await shop.stranger().as(nameOf('viewer'), 'gulls over the ferry');
    await bench.ask('PUT', '/access/people/test-viewer/secret', { secret: secrets.viewer });
  });

  it('get a new session id when they sign in, so that one planted before is worth nothing', async () => {
    const browser = bench.device();
    await browser.as(nameOf('trainee'), secrets.trainee);
    const before = browser.cookies.get('fairwatt');
    await browser.as(nameOf('trainee'), secrets.trainee);
    expect(browser.cookies.get('fairwatt')).not.toBe(before);
    const planted = shop.stranger();
    planted.cookies.set('fairwatt', 's%3Amade-up.signature');
    expect((await planted.ask('GET', '/jobs')).status).toBe(401);
  });

  it('wait longer after each wrong secret, are locked after ten; the owner is told and gives a new one', async () => {
    const thief = bench.device();
    const attempt = (secret: string) => thief.ask('POST', '/access/session', { name: nameOf('counter'), secret });
    const seen: string[] = [];
    for (let count = 0; count < 10; count += 1) {
      seen.push(kindOf(await attempt('111222')));
      if (count >= 2 && count < 9) {
        const paused = await attempt(secrets.counter);
        expect([count, paused.status, kindOf(paused)]).toEqual([count, 429, '/problems/paused']);
      }
      shop.wait(130);
    }
    expect(new Set(seen)).toEqual(new Set(['/problems/wrong-secret']));
    expect(kindOf(await attempt(secrets.counter))).toBe('/problems/locked');
    const { body } = await bench.ask<Person[]>('GET', '/access/people');
    expect(body.find(({ id }) => id === 'test-counter')).toMatchObject({ locked: true, failures: 10 });
    expect(await auditKinds()).toContain('locked');
    await bench.ask('PUT', '/access/people/test-counter/secret', { secret: secrets.counter });
    await thief.as(nameOf('counter'), secrets.counter);
  });

  it('count each of many tries at once', async () => {
    const thief = bench.device();
    await Promise.all(
      Array.from({ length: 6 }, () =>
        thief.ask('POST', '/access/session', { name: nameOf('counter'), secret: '909012' }),
      ),
    );
    const { body } = await bench.ask<Person[]>('GET', '/access/people');
    expect(body.find(({ id }) => id === 'test-counter')?.failures).toBe(3);
    await bench.ask('PUT', '/access/people/test-counter/secret', { secret: secrets.counter });
  });

  it('change their own secret with the one they have, which ends their other sessions', async () => {
    const [here, other] = [bench.device(), bench.device()];
    await here.as(nameOf('trainee'), secrets.trainee);
    await other.as(nameOf('trainee'), secrets.trainee);
    const wrong = await here.ask('PUT', '/access/secret', { was: '000111', secret: '718293' });
    expect(wrong.status).toBe(403);
    expect((await here.ask('PUT', '/access/secret', { was: secrets.trainee, secret: '718293' })).status).toBe(204);
    expect((await here.ask('GET', '/jobs')).status).toBe(200);
    expect((await other.ask('GET', '/jobs')).status).toBe(401);
    await bench.ask('PUT', '/access/people/test-trainee/secret', { secret: secrets.trainee });
    expect((await here.ask('GET', '/jobs')).status).toBe(401);
  });

  it('lose their sessions with their role, or when the owner ends them; and the last owner stays one', async () => {
    const browser = await bench.device().as(nameOf('viewer'), secrets.viewer);
    const change = (id: string, body: unknown) => bench.ask('PUT', `/access/people/${id}`, body);
    expect((await change('test-viewer', { name: nameOf('viewer'), role: 'none', basedOn: 0 })).status).toBe(200);
    expect((await browser.ask('GET', '/jobs')).status).toBe(401);
    expect(
      (await browser.ask('POST', '/access/session', { name: nameOf('viewer'), secret: secrets.viewer })).status,
    ).toBe(403);
    expect((await change('test-viewer', { name: nameOf('viewer'), role: 'viewer', basedOn: 0 })).status).toBe(409);
    expect((await change('test-viewer', { name: nameOf('viewer'), role: 'viewer', basedOn: 1 })).status).toBe(200);
    await browser.as(nameOf('viewer'), secrets.viewer);
    await bench.ask('DELETE', '/access/people/test-viewer/sessions');
    expect((await browser.ask('GET', '/jobs')).status).toBe(401);
    const last = await change('test-owner', { name: nameOf('owner'), role: 'technician', basedOn: 0 });
    expect([last.status, kindOf(last)]).toEqual([409, '/problems/last-owner']);
  });

  it('sign out by hand', async () => {
    const browser = await bench.device().as(nameOf('viewer'), secrets.viewer);
    const kept = shop.stranger();
    for (const [name, value] of browser.cookies) kept.cookies.set(name, value);
    expect((await browser.ask('DELETE', '/access/session')).status).toBe(204);
    expect((await kept.ask('GET', '/jobs')).status).toBe(401);
  });
});

describe('what a screen follows', () => {
  const follower = async () => {
    const browser = await bench.device().as(nameOf('viewer'), secrets.viewer);
    return { browser, followed: await browser.follow() };
  };

  it('ends with its session, whoever ends it, and nobody else loses theirs', async () => {
    const stays = await bench.follow();
    const byHand = await follower();
    await byHand.browser.ask('DELETE', '/access/session');
    await expect.poll(() => byHand.followed.isOver).toBe(true);
    const byOwner = await follower();
    await bench.ask('DELETE', '/access/people/test-viewer/sessions');
    await expect.poll(() => byOwner.followed.isOver).toBe(true);
    const behind = await follower();
    await shop.server.pool.query("delete from web_session where sess ->> 'person' = $1", [idOf('viewer')]);
    await expect.poll(() => behind.followed.isOver).toBe(true);
    expect(stays.isOver).toBe(false);
  });

  it('ends when its session was over before it began to be followed', async () => {
    const browser = await bench.device().as(nameOf('viewer'), secrets.viewer);
    const asking = browser.follow();
    await shop.server.pool.query("delete from web_session where sess ->> 'person' = $1", [idOf('viewer')]);
    const followed = await asking.catch(() => ({ isOver: true }));
    await expect.poll(() => followed.isOver).toBe(true);
  });

  it("ends with its session's time", async () => {
    const browser = await bench.device().as(nameOf('viewer'), secrets.viewer);
    await shop.server.pool.query(
      `update web_session set sess = jsonb_set(sess::jsonb, '{cookie,expires}', to_jsonb($2::text))
       where sess ->> 'person' = $1`,
      [idOf('viewer'), new Date(Date.now() + 5000).toISOString()],
    );
    const followed = await browser.follow();
    expect(followed.isOver).toBe(false);
    await expect.poll(() => followed.isOver).toBe(true);
  });
});

describe('a device', () => {
  it('is enrolled by a code, once and for ten minutes, and its sessions end with it', async () => {
    const asked = await bench.ask<Enrolment>('POST', '/access/devices', { name: 'Phone of the counter' });
    expect(asked.body.path).toBe(`/enrol#${asked.body.code.replace('-', '')}`);
    const phone = shop.stranger();
    expect((await phone.ask('POST', '/access/device', { code: asked.body.code.toLowerCase() })).status).toBe(201);
    expect((await shop.stranger().ask('POST', '/access/device', { code: asked.body.code })).status).toBe(403);
    await phone.as(nameOf('counter'), secrets.counter);
    const devices = await bench.ask<Device[]>('GET', '/access/devices');
    const found = devices.body.find(({ name }) => name === 'Phone of the counter');
    expect(found?.enrolledBy).toBe(nameOf('owner'));
    expect((await bench.ask('DELETE', `/access/devices/${found?.id ?? ''}`)).status).toBe(200);
    expect((await phone.ask('GET', '/jobs')).status).toBe(401);
    expect(await access(phone)).toMatchObject({ device: null, names: [] });
  });

  it('is not enrolled by a code that is over', async () => {
    const asked = await bench.ask<Enrolment>('POST', '/access/devices', { name: 'Late' });
    shop.wait(601);
    expect((await shop.stranger().ask('POST', '/access/device', { code: asked.body.code })).status).toBe(403);
  });
});

describe('who acts', () => {
  it('is who signed in, whatever a message says', async () => {
    const browser = await bench.device().as(nameOf('technician'), secrets.technician);
    const message = { id: randomUUID(), by: idOf('owner'), title: 'Machine', client: '', words: '' };
    const forged = await browser.ask('POST', '/jobs', message);
    expect([forged.status, kindOf(forged)]).toEqual([403, '/problems/not-you']);
    const own = await browser.ask<Job>('POST', '/jobs', { ...message, by: idOf('technician') });
    expect(own.status).toBe(201);
    const act: Act = { kind: 'edit-sheet', changes: { client: 'Client' }, basedOn: own.body.sheet.version };
    const acts = `/jobs/${own.body.code}/acts`;
    expect((await browser.ask('POST', acts, { id: randomUUID(), by: idOf('owner'), act })).status).toBe(403);
    expect((await browser.ask('POST', acts, { id: randomUUID(), by: idOf('technician'), act })).status).toBe(200);
  });

  it('is a second person where it takes one, who signs at the device of the first', async () => {
    const browser = await bench.device().as(nameOf('trainee'), secrets.trainee);
    const { body: job } = await browser.ask<Job>('POST', '/jobs', {
      id: randomUUID(),
      by: idOf('trainee'),
      title: 'For two',
      client: '',
      words: '',
    });
    const act: Act = {
      kind: 'set-finding',
      finding: { kind: 'no-fault', faultId: null, confirmed: false, note: '' },
      basedOn: 0,
    };
    const message = { id: randomUUID(), by: idOf('trainee'), act };
    const sign = (name: string, secret: string) =>
      browser.ask<Job & Problem>('POST', `/jobs/${job.code}/acts/second`, { name, secret, message });
    expect((await browser.ask('POST', `/jobs/${job.code}/acts`, message)).status).toBe(403);
    expect(kindOf(await sign(nameOf('technician'), '000999'))).toBe('/problems/wrong-secret');
    expect(kindOf(await sign(nameOf('trainee'), secrets.trainee))).toBe('/problems/not-second');
    expect(kindOf(await sign(nameOf('counter'), secrets.counter))).toBe('/problems/not-allowed');
    const signed = await sign(nameOf('technician'), secrets.technician);
    expect([signed.status, signed.body.finding?.by]).toEqual([200, idOf('technician')]);
    // The same once more changes nothing; and whoever asked is still the one who is signed in.
    expect((await sign(nameOf('technician'), secrets.technician)).body.revision).toBe(signed.body.revision);
    expect((await access(browser)).person?.id).toBe(idOf('trainee'));
    const { body } = await bench.ask<Person[]>('GET', '/access/people');
    expect(body.find(({ id }) => id === idOf('technician'))?.failures).toBe(0);
  });

  it('comes from another shop as a name only, never as one of ours', async () => {
    const owner = bench;
    const { body: job } = await owner.ask<Job>('POST', '/jobs', {
      id: randomUUID(),
      by: idOf('owner'),
      title: 'To carry',
      client: '',
      words: '',
    });
    const act: Act = {
      kind: 'note-outcome',
      id: randomUUID(),
      checkId: 'look-card',
      outcomeId: 'live',
      instrumentId: null,
    };
    await owner.ask('POST', `/jobs/${job.code}/acts`, { id: randomUUID(), by: idOf('owner'), act });
    const { body: file } = await owner.ask<Record<string, unknown>>('GET', `/jobs/${job.code}/file`);
    const { body: people } = await owner.ask<Person[]>('GET', '/access/people');
    const imported = await owner.ask<Job>('POST', `/jobs/import?by=${idOf('owner')}&as=new`, file);
    expect(imported.status).toBe(201);
    expect(imported.body.outcomes.map(({ by }) => by)).not.toContain(idOf('owner'));
    const after = (await owner.ask<Person[]>('GET', '/access/people')).body;
    expect(after.filter(({ role }) => role !== 'none')).toEqual(people.filter(({ role }) => role !== 'none'));
    const author = after.find(({ id }) => id === imported.body.outcomes[0]?.by);
    expect(author).toMatchObject({ name: `${nameOf('owner')} (another shop)`, role: 'none', secret: null });
    expect((await owner.ask('PUT', `/access/people/${author?.id ?? ''}/secret`, { secret: '772910' })).status).toBe(
      404,
    );
  });
});

describe('what is written down for the owner', () => {
  it('cannot be changed or taken out, not even by the server itself', async () => {
    await expect(shop.server.pool.query("update audit set about = 'nothing'")).rejects.toThrow('not changed');
    await expect(shop.server.pool.query('delete from audit')).rejects.toThrow('not changed');
    await expect(shop.server.pool.query('truncate audit')).rejects.toThrow('not changed');
  });
  it('holds sign-ins, roles, exports and imports, and no secret', async () => {
    const kinds = new Set(await auditKinds());
    const { rows } = await shop.server.pool.query<{ kind: string }>('select distinct kind from audit');
    const all = new Set([...kinds, ...rows.map(({ kind }) => kind)]);
    for (const kind of [
      'owner-made',
      'signed-in',
      'sign-in-refused',
      'person-added',
      'person-changed',
      'exported',
      'imported',
    ])
      expect([...all]).toContain(kind);
    const written = JSON.stringify((await shop.server.pool.query('select * from audit')).rows);
    for (const secret of Object.values(secrets)) expect(written).not.toContain(secret);
  });
});

describe('two server processes of one shop', () => {
  it('know the same people, end their sessions for each other, and hear at once how people sign', async () => {
    const second = await shop.server.another();
    try {
      const browser = await bench.device().as(nameOf('viewer'), secrets.viewer);
      const there = shop.stranger();
      for (const [name, value] of browser.cookies) there.cookies.set(name, value);
      there.base = second.base;
      expect((await there.ask('GET', '/jobs')).status).toBe(200);
      await bench.ask('DELETE', '/access/people/test-viewer/sessions');
      expect((await there.ask('GET', '/jobs')).status).toBe(401);
      await there.as(nameOf('viewer'), secrets.viewer);
      browser.cookies.clear();
      for (const [name, value] of there.cookies) browser.cookies.set(name, value);
      expect((await browser.ask('GET', '/jobs')).status).toBe(200);
      // Written by a process that this one knows nothing of.
      await shop.server.pool.query("update shop_access set signing = 'picked'");
      await expect.poll(() => access(there).then(({ signing }) => signing)).toBe('picked');
      await shop.server.pool.query("update shop_access set signing = 'secret'");
      await expect.poll(() => access(there).then(({ signing }) => signing)).toBe('secret');
      await expect.poll(() => access(bench).then(({ signing }) => signing)).toBe('secret');
    } finally {
      await second.end();
    }
  });
});

describe('many tries from one address', () => {
  it('are refused for a minute, whomever they are for', async () => {
    const thief = bench.device();
    let last = 0;
    // A minute may begin anew in between.
    for (let count = 0; count < 130 && last !== 429; count += 1)
      last = (await thief.ask('POST', '/access/session', { name: `Nobody ${count}`, secret: '120934' })).status;
    expect(last).toBe(429);
  });
});

describe('names that are picked', () => {
  it('are for a shop of one, on the machine itself', async () => {
    const many = await bench.ask('PUT', '/access/signing', { signing: 'picked' });
    expect([many.status, kindOf(many)]).toEqual([409, '/problems/not-alone']);
    const { body } = await bench.ask<Person[]>('GET', '/access/people');
    for (const { id, name, role, version } of body)
      if (role !== 'owner' && role !== 'none')
        await bench.ask('PUT', `/access/people/${id}`, { name, role: 'none', basedOn: version });
    const through = await bench.ask(
      'PUT',
      '/access/signing',
      { signing: 'picked' },
      { 'x-forwarded-for': '192.168.1.7' },
    );
    expect(through.status).toBe(409);
    expect((await bench.ask('PUT', '/access/signing', { signing: 'picked' })).status).toBe(204);
    const anyone = shop.stranger();
    expect((await anyone.ask('GET', '/jobs')).status).toBe(200);
    const far = await anyone.ask('GET', '/jobs', undefined, { 'x-forwarded-for': '192.168.1.7' });
    expect([far.status, kindOf(far)]).toEqual([403, '/problems/this-machine-only']);
  });
  it('go back to secrets by the owner who is picked', async () => {
    const owner = { 'fairwatt-person': idOf('owner') };
    const nobody = await shop
      .stranger()
      .ask('PUT', '/access/signing', { signing: 'secret' }, { 'fairwatt-person': 'test-viewer' });
    expect(nobody.status).toBe(403);
    expect((await shop.stranger().ask('PUT', '/access/signing', { signing: 'secret' }, owner)).status).toBe(204);
    expect((await shop.stranger().ask('GET', '/jobs')).status).toBe(401);
  });
});
