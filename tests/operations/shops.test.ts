import { randomUUID } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Job } from '@fairwatt/core';
import type { Access, JobList, Problem } from '@fairwatt/contract';
import { newCommand, wait, type Command } from '../command.ts';
import { DatabaseNode } from './failover/database-node.ts';
import { HostBrowser } from '../host-browser.ts';

let command: Command;
let url: string;
let quay: HostBrowser;
let ferry: HostBrowser;
let folder: string;

const browser = (host: string) => new HostBrowser(url, host);
/** Opens a shop and signs in as its owner. */
async function opened(name: string): Promise<HostBrowser> {
  const { code, out } = await command.run('shop', 'open', name);
  expect([out, code]).toEqual([expect.stringContaining(`${name} is open at http://${name}.localhost:`), 0]);
  const owner = browser(`${name}.localhost`);
  const ownerCode = /enter (\S+)/.exec(out)?.[1] ?? '';
  const person = { person: null, name: `Owner of ${name}`, secret: '482913', device: 'Bench tablet', code: ownerCode };
  expect((await owner.ask('POST', '/access/owner', person)).status).toBe(201);
  return owner;
}
const personOf = async (owner: HostBrowser) => (await owner.ask<Access>('GET', '/access')).body.person?.id ?? '';
async function make(owner: HostBrowser, title: string): Promise<Job> {
  const message = { id: randomUUID(), by: await personOf(owner), title, client: '', words: '' };
  const answer = await owner.ask<Job>('POST', '/jobs', message);
  expect([answer.body, answer.status]).toEqual([expect.anything(), 201]);
  return answer.body;
}
const titles = async (owner: HostBrowser) =>
  (await owner.ask<JobList>('GET', '/jobs')).body.jobs.map(({ title }) => title);

beforeAll(async () => {
  command = newCommand();
  folder = mkdtempSync(join(tmpdir(), 'fairwatt-elsewhere-'));
  // One before anything runs, one beside what runs.
  expect((await command.run('shop', 'open', 'early')).code).toBe(0);
  url = await command.start('serve', {}, '--shops');
  quay = await opened('quay');
  ferry = await opened('ferry-two');
});
afterAll(async () => {
  await command.end();
  rmSync(folder, { recursive: true, force: true });
});

describe('several shops of one process', () => {
  it('are answered each under its own name, and under no other', async () => {
    expect((await browser('early.localhost').ask<Access>('GET', '/access')).body.ownerless).toBe(true);
    for (const [host, status, type] of [
      ['nobody.localhost', 404, '/problems/no-such-shop'],
      ['localhost', 404, '/problems/which-shop'],
      ['127.0.0.1', 404, '/problems/which-shop'],
      ['quay.example', 421, '/problems/not-this-host'],
      ['a.quay.localhost', 421, '/problems/not-this-host'],
    ] as const) {
      const answer = await browser(host).ask<Problem>('GET', '/jobs');
      expect([host, answer.status, answer.body.type]).toEqual([host, status, type]);
    }
    expect((await browser('localhost').ask('GET', '/health')).status).toBe(200);
  });

  it('share nothing: neither jobs nor people nor who is signed in', async () => {
    await make(quay, 'At the quay');
    await make(ferry, 'On the ferry');
    expect(await titles(quay)).toEqual(['At the quay']);
    expect(await titles(ferry)).toEqual(['On the ferry']);
    const astray = browser('ferry-two.localhost');
    const signed = await astray.ask('POST', '/access/session', { name: 'Owner of quay', secret: '482913' });
    expect(signed.status).toBeGreaterThanOrEqual(400);
  });

  it('are named with what is in them; what cannot be is refused in words', async () => {
    const { out } = await command.run('shop', 'list');
    expect(out).toMatch(/quay: 1 jobs in this data folder/);
    for (const [args, words] of [
      [['open', 'quay'], 'is open already'],
      [['open', 'far', 'nowhere'], 'is no address of a database'],
      [['move', 'quay', 'here'], 'is there already'],
    ] as const) {
      const refused = await command.run('shop', ...args);
      expect([args, refused.out]).toEqual([args, expect.stringContaining(words)]);
      expect(refused.code).toBeGreaterThan(0);
    }
  });

  it('are backed up and restored one by one, while the others work', async () => {
    const file = join(folder, 'quay.backup');
    expect((await command.run('shop', 'backup', 'quay', file)).out).toContain('holds 1 jobs of quay');
    await make(quay, 'After the backup');
    const refused = await command.run('shop', 'restore', 'quay', file);
    expect([refused.code, refused.out]).toEqual([2, expect.stringContaining('say --yes')]);
    expect(await titles(quay)).toContain('After the backup');
    const restored = await command.run('shop', 'restore', 'quay', file, '--yes');
    expect([restored.code, restored.out]).toEqual([0, expect.stringContaining('1 jobs of quay are restored')]);
    // A backup lets nobody in.
    await expect.poll(async () => (await quay.ask<Access>('GET', '/access')).body.person ?? null).toBeNull();
    expect((await quay.ask('POST', '/access/session', { name: 'Owner of quay', secret: '482913' })).status).toBe(201);
    expect(await titles(quay)).toEqual(['At the quay']);
    expect(await titles(ferry)).toEqual(['On the ferry']);
    // By the rule, beside the others.
    expect((await command.run('shop', 'backup', 'ferry-two')).out).toContain('backups/ferry-two/');
  });

  it('are moved to another database while people work; nothing that was confirmed is lost', async () => {
    const elsewhere = new DatabaseNode(folder, 'elsewhere', 55_570);
    await elsewhere.start();
    try {
      const job = await make(ferry, 'On its way');
      const by = await personOf(ferry);
      const confirmed: string[] = [];
      const refused = new Set<number>();
      let working = true;
      const work = async () => {
        while (working) {
          const id = randomUUID();
          const act = { kind: 'note-outcome', id, checkId: 'told-button', outcomeId: 'nothing' };
          const answer = await ferry
            .ask('POST', `/jobs/${job.code}/acts`, { id: randomUUID(), by, act })
            .catch(() => null);
          if (answer?.status === 200) confirmed.push(id);
          else refused.add(answer?.status ?? 0);
          await wait(20);
        }
      };
      const worked = work();
      const moved = await command.run('shop', 'move', 'ferry-two', elsewhere.url('ferry'));
      expect([moved.code, moved.out]).toEqual([0, expect.stringContaining('every table was compared')]);
      expect(moved.out).toMatch(/The old database is kept as fairwatt_shop_ferry_two_moved_\d+/);
      // Sessions stay behind, so that what is sent now is refused until somebody signs in.
      await expect.poll(() => refused.has(401)).toBe(true);
      working = false;
      await worked;
      expect(refused.has(503) || refused.has(0)).toBe(true);
      expect(confirmed.length).toBeGreaterThan(0);
      expect(
        (await ferry.ask('POST', '/access/session', { name: 'Owner of ferry-two', secret: '482913' })).status,
      ).toBe(201);
      const there = (await ferry.ask<Job>('GET', `/jobs/${job.code}`)).body.outcomes.map(({ id }) => id);
      expect(confirmed.filter((id) => !there.includes(id))).toEqual([]);
      expect((await command.run('shop', 'list')).out).toMatch(
        /ferry-two: 2 jobs at postgresql:\/\/127\.0\.0\.1:\d+\/ferry;/,
      );
      const back = await command.run('shop', 'move', 'ferry-two', 'here');
      expect([back.code, back.out]).toEqual([0, expect.stringContaining('2 jobs of ferry-two are moved')]);
      expect(
        (await ferry.ask('POST', '/access/session', { name: 'Owner of ferry-two', secret: '482913' })).status,
      ).toBe(201);
      expect((await ferry.ask<Job>('GET', `/jobs/${job.code}`)).body.outcomes.map(({ id }) => id)).toEqual(there);
    } finally {
      elsewhere.remove();
    }
  });

  it('are closed, and opened again with what is in them; a move that fails changes nothing', async () => {
    const nowhere = await command.run('shop', 'move', 'quay', 'postgresql://nobody@127.0.0.1:1/quay');
    expect(nowhere.code).toBeGreaterThan(0);
    expect(await titles(quay)).toEqual(['At the quay']);
    expect((await command.run('shop', 'close', 'quay')).out).toContain('Its data stay');
    await expect.poll(async () => (await quay.ask('GET', '/jobs')).status).toBe(404);
    expect((await command.run('shop', 'open', 'quay')).out).toContain('with 1 jobs');
    await expect.poll(async () => (await quay.ask('GET', '/jobs')).status).toBe(200);
    expect(await titles(quay)).toEqual(['At the quay']);
  });

  it('are all there again after a start', async () => {
    await command.run('stop');
    // As a move leaves it that was killed.
    const list = join(command.folder, 'shops.json');
    writeFileSync(list, readFileSync(list, 'utf8').replace(/("name": "quay"[^}]*"state": )"open"/, '$1"shut"'));
    url = await command.start('serve', {}, '--shops');
    expect((await browser('quay.localhost').ask<Problem>('GET', '/access')).body.type).toBe('/problems/shop-shut');
    expect((await command.run('shop', 'open', 'quay')).out).toContain('open again where it was');
    expect((await browser('quay.localhost').ask<Access>('GET', '/access')).body.ownerless).toBe(false);
    expect((await browser('early.localhost').ask<Access>('GET', '/access')).body.ownerless).toBe(true);
  });

  it('are counted before their data are moved aside, those that moved away among them', async () => {
    const { out } = await command.run('reset', '--yes');
    expect(out).toMatch(/1 jobs of fairwatt_shop_quay /);
    expect(out).toMatch(/2 jobs of fairwatt_shop_ferry_two_moved_\d+/);
  });
});
