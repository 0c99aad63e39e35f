import { execFileSync } from 'node:child_process';
import {
  existsSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { databasePid, newCommand, wait, type Command } from '../command.ts';

const jobsAt = async (url: string) =>
  ((await (await fetch(`${url}/api/jobs?state=all`)).json()) as { total: number }).total;
const healthy = async (url: string) => (await fetch(`${url}/api/health`).catch(() => null))?.status === 200;
const untilHealthy = (url: string, isHealthy = true) => expect.poll(() => healthy(url)).toBe(isHealthy);

describe('the command', () => {
  it('starts nothing where help was asked for, or more was typed than it takes', async () => {
    const command = newCommand();
    expect(await command.run('demo', '--help')).toMatchObject({
      code: 0,
      out: expect.stringContaining('./fairwatt stop'),
    });
    expect(await command.run('serve', '--port', '80')).toMatchObject({
      code: 2,
      out: expect.stringContaining('“--port 80” was typed'),
    });
    expect(readdirSync(command.folder)).toEqual([]);
    rmSync(command.folder, { recursive: true, force: true });
  });
});

describe('the data folder', () => {
  let command: Command;
  let url: string;
  let jobs: number;
  let key = '';
  const addJob = async () => {
    const body = JSON.stringify({ id: crypto.randomUUID(), by: 'mara', title: 'Kept', client: 'C', words: 'W' });
    const headers = { 'content-type': 'application/json' };
    expect((await fetch(`${url}/api/jobs`, { method: 'POST', headers, body })).status).toBe(201);
    jobs += 1;
  };
  beforeAll(async () => {
    command = newCommand();
    url = await command.start();
    jobs = await jobsAt(url);
    await addJob();
  });
  afterAll(async () => {
    await command.end();
  });

  it('is held by one command; a second one says by whom', async () => {
    const second = await command.run('demo');
    expect(second).toEqual({ code: 0, out: expect.stringContaining(`already runs at ${url}`) as string });
    expect(await healthy(url)).toBe(true);
  });
  it('keeps server and database running: whichever is killed comes back by itself', async () => {
    process.kill(databasePid(command.folder), 'SIGKILL');
    await command.waitFor(/The database runs again/);
    await untilHealthy(url);
    expect(await jobsAt(url)).toBe(jobs);
    const { pid } = (await (await fetch(`${url}/api/health`)).json()) as { pid: number };
    process.kill(pid, 'SIGKILL');
    await command.waitFor(/ready again/);
    await untilHealthy(url);
    expect(await jobsAt(url)).toBe(jobs);
  });
  it('keeps the key of the secrets for its own user, the same over every start', () => {
    const path = join(command.folder, 'secrets.key');
    expect(statSync(path).mode & 0o077).toBe(0);
    key = readFileSync(path, 'utf8');
    expect(Buffer.from(key, 'base64')).toHaveLength(32);
  });
  it('is taken over after the command was killed, database and all; the server ends by itself', async () => {
    const database = databasePid(command.folder);
    command.kill();
    await untilHealthy(url, false);
    url = await command.start();
    expect(databasePid(command.folder)).toBe(database);
    expect(readFileSync(join(command.folder, 'secrets.key'), 'utf8')).toBe(key);
    expect(await jobsAt(url)).toBe(jobs);
  });
  it('ends whole, also when only the database was left', async () => {
    command.kill();
    await wait(300);
    expect((await command.run('stop')).out).toContain('what was left of it is stopped');
    expect(existsSync(join(command.folder, 'pg-main/postmaster.pid'))).toBe(false);
    expect((await command.run('stop')).out).toContain('does not run');
  });
  it('is started by one of two commands that come at once', async () => {
    const both = [newCommand(command.folder), newCommand(command.folder)];
    const outcomes = await Promise.allSettled(both.map((one) => one.start()));
    expect(outcomes.map((outcome) => outcome.status).sort()).toContain('fulfilled');
    const said = both.map((one) => one.said()).sort();
    expect(said.filter((text) => /in use|already runs|just starting/.test(text))).toHaveLength(1);
    url = /is ready at (\S+)/.exec(said.join('\n'))?.[1] ?? '';
    expect(await jobsAt(url)).toBe(jobs);
    await command.run('stop');
  });

  it('can be renamed; whatever is missing beside the cluster, nothing is lost', async () => {
    const moved = `${command.folder}-renamed`;
    renameSync(command.folder, moved);
    command.folder = moved;
    rmSync(join(moved, 'cluster-main.json'));
    url = await command.start();
    expect(command.said()).toContain('gets a new one');
    expect(await jobsAt(url)).toBe(jobs);
    await addJob();
    await command.run('stop');
    writeFileSync(join(moved, 'cluster-main.json'), '{"passw');
    url = await command.start();
    expect(await jobsAt(url)).toBe(jobs);
    await command.run('stop');
  });
  it('can be copied: the copy has data of its own, and a reset there leaves the original', async () => {
    const copy = newCommand(mkdtempSync(join(tmpdir(), 'fairwatt-copy-')));
    execFileSync('cp', ['-aT', command.folder, copy.folder]);
    url = await command.start();
    const other = await copy.start();
    expect(other).not.toBe(url);
    expect(await jobsAt(other)).toBe(jobs);
    await addJob();
    expect(await jobsAt(other)).toBe(jobs - 1);
    const refused = await copy.run('reset');
    expect(refused).toMatchObject({
      code: 2,
      out: expect.stringContaining(`${jobs - 1} jobs of the demo shop`) as string,
    });
    const reset = await copy.run('reset', '--yes');
    expect(reset.out).toContain('moved aside, not deleted');
    expect(readdirSync(copy.folder).some((name) => name.startsWith('pg-main.aside-'))).toBe(true);
    expect(await jobsAt(url)).toBe(jobs);
    await copy.end();
    await command.run('stop');
  });
});
