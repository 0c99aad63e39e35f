import { randomUUID } from 'node:crypto';
import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { pino } from 'pino';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Act, Job } from '@fairwatt/core';
import { endpoints, revisionHeader, type Problem } from '@fairwatt/contract';
import { createApp, createPool, loadModel } from '@fairwatt/server';
import { listeningFeed } from './listening-feed.ts';
import { startServer, type RunningServer } from './running-server.ts';
import { threadsOf } from './threads.ts';

let server: RunningServer;
let code: string;
beforeAll(async () => {
  server = await startServer();
  ({ code } = await server.make());
});
afterAll(async () => {
  await server.end();
});
const job = async () => (await server.call<Job>(`/jobs/${code}`)).body;
const edit = (changes: Extract<Act, { kind: 'edit-sheet' }>['changes'], basedOn: number): Act => ({
  kind: 'edit-sheet',
  changes,
  basedOn,
});
const raw = (body: unknown, base = server.base) =>
  fetch(`${base}/jobs/${code}/acts`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  });

describe('one message', () => {
  it('sent again is done once, and answers the revision that it made', async () => {
    const id = randomUUID();
    const message = { id, by: 'mara', act: edit({ words: 'once' }, (await job()).sheet.version) };
    const first = await raw(message);
    const made = Number(first.headers.get(revisionHeader));
    expect(made).toBe(((await first.json()) as Job).revision);
    await server.act(code, { kind: 'note-outcome', id: randomUUID(), checkId: 'look-dust', outcomeId: 'clean' });
    // Written in another order it is still the same message.
    const again = await raw({ act: message.act, id, by: 'mara' });
    expect([again.status, Number(again.headers.get(revisionHeader))]).toEqual([200, made]);
    expect((await job()).revision).toBe(made + 1);
  });
  it('under an id that was used for another content, by another person or in another job is refused', async () => {
    const id = randomUUID();
    const act = edit({ words: 'first' }, (await job()).sheet.version);
    expect((await raw({ id, by: 'mara', act })).status).toBe(200);
    const other = edit({ words: 'second' }, act.kind === 'edit-sheet' ? act.basedOn : 0);
    for (const message of [
      { id, by: 'mara', act: other },
      { id, by: 'joss', act },
    ]) {
      const answer = await raw(message);
      expect([answer.status, ((await answer.json()) as Problem).type]).toEqual([409, '/problems/id-taken']);
    }
    const elsewhere = await server.act<Problem>('LQ-0142', { kind: 'tick-step', stepId: 'x' }, 'mara', id);
    expect(elsewhere.body.type).toBe('/problems/id-taken');
    const asJob = { id, by: 'mara', title: 'Again', client: '', words: '' };
    expect((await server.call<Problem>('/jobs', asJob)).body.type).toBe('/problems/id-taken');
    expect((await job()).sheet.words).toBe('first');
  });
  it('sent three times at once to a server that has just started is done once', async () => {
    for (let round = 0; round < 15; round += 1) {
      // Nothing of the job is in memory under a stamp that was never seen.
      await server.pool.query('update job set stamp = gen_random_uuid() where code = $1', [code]);
      const before = (await job()).revision;
      await server.pool.query('update job set stamp = gen_random_uuid() where code = $1', [code]);
      const id = randomUUID();
      const act = { kind: 'note-outcome', id: randomUUID(), checkId: 'look-dust', outcomeId: 'clean' };
      const answers = await Promise.all([0, 1, 2].map(() => raw({ id, by: 'mara', act })));
      expect(answers.map((answer) => answer.status)).toEqual([200, 200, 200]);
      expect((await job()).revision).toBe(before + 1);
    }
  });
  it('sent eight times at once is done once', async () => {
    const before = (await job()).revision;
    const message = { id: randomUUID(), by: 'mara', act: { kind: 'tick-step', stepId: 'take-out:strap' } };
    const answers = await Promise.all(Array.from({ length: 8 }, () => raw(message)));
    expect(answers.map((answer) => answer.status)).toEqual(Array.from({ length: 8 }, () => 200));
    expect((await job()).revision).toBe(before + 1);
    const asJob = { id: randomUUID(), by: 'mara', title: 'One', client: '', words: '' };
    const made = await Promise.all(Array.from({ length: 8 }, () => server.call<Job>('/jobs', asJob)));
    expect(new Set(made.map((answer) => answer.body.code)).size).toBe(1);
  });
});

describe('two people', () => {
  it('at different fields, parts and things do not meet', async () => {
    const seen = await job();
    const results = await Promise.all([
      server.act(code, edit({ client: 'A' }, seen.sheet.version), 'mara'),
      server.act(code, edit({ upgrade: 'B' }, seen.sheet.version), 'joss'),
      server.act(code, { kind: 'set-finding', finding: null, basedOn: 0 }, 'joss'),
    ]);
    expect(results.map((result) => result.status)).toEqual([200, 200, 200]);
    expect((await job()).sheet).toMatchObject({ client: 'A', upgrade: 'B' });
  });
  it('at the same field do, and the later one is told who changed it and when', async () => {
    const seen = (await job()).sheet.version;
    expect((await server.act(code, edit({ client: 'Theirs', title: 'T' }, seen), 'joss')).status).toBe(200);
    const refused = await server.act<Problem>(code, edit({ client: 'Mine' }, seen), 'mara');
    expect(refused.status).toBe(409);
    expect(refused.body).toMatchObject({ type: '/problems/stale', changed: { by: 'joss' } });
    expect((refused.body.current as Job).sheet.client).toBe('Theirs');
  });
  it('conflict over what was taken back and set again meanwhile', async () => {
    const finding = { kind: 'no-fault' as const, faultId: null, confirmed: false, note: 'first' };
    const set = (note: string | null, basedOn: number, by = 'mara') =>
      server.act<Job & Problem>(
        code,
        { kind: 'set-finding', finding: note === null ? null : { ...finding, note }, basedOn },
        by,
      );
    const seen = (await set('first', 0)).body.finding!.version;
    await set(null, seen, 'joss');
    await set('second', 0, 'joss');
    const refused = await set('mine', seen);
    expect(refused.body).toMatchObject({ type: '/problems/stale', changed: { by: 'joss' } });
    expect((await job()).finding?.note).toBe('second');
  });
});

describe('an act behind another one on this server', () => {
  /** Somebody's words, with nothing between two of them that would make this server look anew. */
  const words = async (text: string, basedOn: number, by = 'mara') =>
    server.act<Job & Problem>(code, edit({ words: text }, basedOn), by);
  const version = async () => (await job()).sheet.version;

  it('is done on what another server made of the job meanwhile', async () => {
    const pool = createPool(server.databaseUrl, pino({ level: 'silent' }));
    const other = await server.another({ pool });
    const seen = (await words('here', await version())).body;
    const message = { id: randomUUID(), by: 'joss', act: edit({ client: 'There' }, seen.sheet.version) };
    expect((await raw(message, other.base)).status).toBe(200);
    const { body } = await words('here again', seen.sheet.version);
    expect([body.sheet.words, body.sheet.client, body.revision]).toEqual(['here again', 'There', seen.revision + 2]);
    await other.end();
    await pool.end();
  });
  it('is refused to somebody whose role is another since', async () => {
    const before = await words('a technician', await version(), 'joss');
    expect(before.status).toBe(200);
    const role = (word: string) => server.pool.query("update technician set role = $1 where id = 'joss'", [word]);
    const { rows } = await server.pool.query<{ role: string }>("select role from technician where id = 'joss'");
    await role('viewer');
    const refused = await words('a viewer', before.body.sheet.version, 'joss');
    expect([refused.status, refused.body.type]).toEqual([403, '/problems/not-allowed']);
    await role('none');
    expect((await words('nobody', before.body.sheet.version, 'joss')).body.type).toBe('/problems/unknown-technician');
    await role(rows[0]!.role);
    expect((await words('again', before.body.sheet.version, 'joss')).status).toBe(200);
  });
  it('knows what came to the shop since, and what left it', async () => {
    const choose = (modelId: string, basedOn: number) =>
      server.act<Job & Problem>(code, {
        kind: 'set-choice',
        choice: { kind: 'replace', modelId, known: [], reason: '' },
        basedOn,
      });
    const { rows } = await server.pool.query<{ id: string }>(
      'select id from supply_model where not exists (select from supply_unit where model_id = supply_model.id) limit 2',
    );
    const [gone, other] = [rows[0]!.id, rows[1]!.id];
    const chosen = await choose(gone, 0);
    expect(chosen.status).toBe(200);
    const back = await choose(other, chosen.body.choice!.version);
    expect(back.status).toBe(200);
    await server.pool.query('delete from supply_model where id = $1', [gone]);
    expect((await choose(gone, back.body.choice!.version)).status).toBe(422);
  });
  it('asks the database for its writes alone', async () => {
    const pool = createPool(server.databaseUrl, pino({ level: 'silent' }), { most: 1, idleMilliseconds: 60_000 });
    const other = await server.another({ pool });
    const send = async (text: string, basedOn: number) => {
      const message = { id: randomUUID(), by: 'mara', act: edit({ words: text }, basedOn) };
      return (await (await raw(message, other.base)).json()) as Job;
    };
    const first = await send('first', await version());
    const client = await pool.connect();
    const asked: string[] = [];
    const query = client.query.bind(client) as (...given: unknown[]) => unknown;
    Object.assign(client, {
      query: (...given: unknown[]) => {
        asked.push((given[0] as { readonly text?: string }).text ?? String(given[0]));
        return query(...given);
      },
    });
    client.release();
    expect((await send('second', first.sheet.version)).sheet.words).toBe('second');
    expect(asked.filter((text) => /^\s*select/.test(text))).toEqual([]);
    expect(asked).toHaveLength(6);
    await other.end();
    await pool.end();
  });
});

it('a job that is read while it is written is whole: each state is one that was committed', async () => {
  const { code: busy } = await server.make('Torn');
  const sum = (one: Job) => `${one.sheet.words}|${one.outcomes.length}`;
  let reading = true;
  const torn: string[] = [];
  const reader = async () => {
    while (reading) {
      const { body } = await server.call<Job>(`/jobs/${busy}`);
      // Each writer's act adds one outcome and one revision; the first revision has none.
      if (body.revision !== body.outcomes.length + 1) torn.push(`${body.revision} ${sum(body)}`);
    }
  };
  const readers = [reader(), reader(), reader()];
  for (let count = 0; count < 40; count += 1)
    await server.act(busy, { kind: 'note-outcome', id: randomUUID(), checkId: 'look-dust', outcomeId: 'clean' });
  reading = false;
  await Promise.all(readers);
  expect(torn).toEqual([]);
});

describe('what somebody changes', () => {
  const heard = async (base: string, work: () => Promise<unknown>, enough: (text: string) => boolean) => {
    const abort = new AbortController();
    const response = await fetch(`${base}/events`, { signal: abort.signal });
    await work();
    let text = '';
    for await (const piece of response.body!.pipeThrough(new TextDecoderStream())) {
      text += piece;
      if (enough(text)) break;
    }
    abort.abort();
    return text;
  };
  it('is told by every server process on the database, whichever took it', async () => {
    const log = pino({ level: 'silent' });
    const feed = await listeningFeed(server.databaseUrl, log);
    const pool = createPool(server.databaseUrl, log);
    const model = await loadModel();
    const threads = threadsOf(server.databaseUrl, pool, model, log);
    const second = await new Promise<Server>((resolve) => {
      const app = createApp({ pool, feed, model, ...threads, log, webDirectory: null });
      const started = app.listen(0, '127.0.0.1', () => resolve(started));
    });
    const base = `http://127.0.0.1:${(second.address() as AddressInfo).port}/api`;
    const text = await heard(
      base,
      () => server.act(code, { kind: 'note-outcome', id: randomUUID(), checkId: 'look-dust', outcomeId: 'clean' }),
      (all) => all.includes(`"code":"${code}"`),
    );
    expect(text).toContain(`{"topic":"job","code":"${code}","revision":${(await job()).revision}}`);
    second.closeAllConnections();
    await new Promise((resolve) => {
      second.close(resolve);
    });
    await feed.close();
    await threads.threads.close();
    await pool.end();
  });
  it('is told of the shelf, the bags and the settings as well', async () => {
    const text = await heard(
      server.base,
      async () => {
        for (const table of ['shop_settings', 'supply_model', 'bag_cable', 'pinout', 'instrument'])
          await server.pool.query(`delete from ${table} where false`);
      },
      (all) => ['shop', 'supplies', 'bags'].every((topic) => all.includes(`"topic":"${topic}"`)),
    );
    expect(text).toContain('"topic":"bags"');
  });
  it('is told of no reading, whatever is read: whoever hears of a change reads anew', async () => {
    const read = endpoints
      .filter(({ method, path }) => method === 'GET' && !/:id|^\/events$/.test(path))
      .map(({ path }) => path.replace(':code', code));
    expect(read.length).toBeGreaterThan(20);
    // What the first look makes, and the lines of a list, are made before.
    const readAll = () => Promise.all(read.map(async (path) => (await fetch(`${server.base}${path}`)).arrayBuffer()));
    await server.list();
    await readAll();
    const text = await heard(
      server.base,
      async () => {
        for (let turn = 0; turn < 3; turn += 1) await readAll();
        await server.pool.query('delete from bag_cable where false');
      },
      (all) => all.includes('"topic":"bags"'),
    );
    expect([...text.matchAll(/"topic":"(\w+)"/g)].map(([, topic]) => topic)).toEqual(['bags']);
  });
  it('says who has a job open, and forgets who left', async () => {
    const tab = randomUUID();
    const present = async () => (await server.call<{ tab: string; by: string }[]>(`/jobs/${code}/presence`)).body;
    expect((await server.call('/presence', { tab, by: 'joss', code })).status).toBe(204);
    expect(await present()).toEqual([{ tab, by: 'joss' }]);
    expect((await server.call('/presence', { tab, by: 'joss', code: null })).status).toBe(204);
    expect(await present()).toEqual([]);
    expect((await server.call<Problem>('/presence', { tab, by: 'nobody', code })).status).toBe(403);
    expect((await server.call<Problem>('/presence', { tab, by: 'joss', code: 'LQ-9999' })).status).toBe(404);
  });
  it('is not told to more screens than one address may hold', async () => {
    // Each answer is held: one that nobody holds any more is closed by the collector, and its line with it.
    const abort = new AbortController();
    const screens: Response[] = [];
    while (screens.length < 70 && screens.at(-1)?.status !== 429)
      screens.push(await fetch(`${server.base}/events`, { signal: abort.signal }));
    const refused = screens.pop()!;
    expect(refused.status).toBe(429);
    expect(new Set(screens.map(({ status }) => status))).toEqual(new Set([200]));
    // One or two lines of the tests before may still be closing.
    expect(screens.length).toBeGreaterThan(55);
    expect(screens.length).toBeLessThanOrEqual(60);
    abort.abort();
  });
});
