import { spawn, type ChildProcess } from 'node:child_process';
import { X509Certificate } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync, statSync } from 'node:fs';
import { request } from 'node:https';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Access } from '@fairwatt/contract';
import { freshDatabase } from '../fresh-database.ts';

const program = fileURLToPath(new URL('../../server/dist/main.js', import.meta.url));
/** Another address of this machine, as a phone's way in. */
const network = '127.0.0.2';

let database: Awaited<ReturnType<typeof freshDatabase>>;
let folder: string;

interface Started {
  readonly child: ChildProcess;
  readonly plain: string;
  readonly port: number;
  readonly said: string;
}

/** Starts a server that speaks TLS beside plain HTTP; rejects with what it said when it ends instead. */
function start(extra: Readonly<Record<string, string>> = {}): Promise<Started> {
  return new Promise((resolve, reject) => {
    const child = spawn(process.execPath, [program], {
      stdio: ['ignore', 'pipe', 'pipe'],
      env: {
        ...process.env,
        DATABASE_URL: database.url,
        FAIRWATT_DATA: folder,
        FAIRWATT_DEMO: '0',
        FAIRWATT_PORT: '0',
        FAIRWATT_LAN: '1',
        FAIRWATT_TLS_NAMES: network,
        ...extra,
      },
    });
    let said = '';
    let wrong = '';
    child.stderr.on('data', (chunk: Buffer) => (wrong += chunk.toString()));
    child.stdout.on('data', (chunk: Buffer) => {
      said += chunk.toString();
      const plain = /^ready (\S+)$/m.exec(said)?.[1];
      const port = /On the network: https:\/\/\S+:(\d+)$/m.exec(said)?.[1];
      if (plain !== undefined && port !== undefined) resolve({ child, plain, port: Number(port), said });
    });
    child.once('exit', () => reject(new Error(wrong)));
  });
}
const stop = ({ child }: Started): Promise<void> =>
  new Promise((resolve) => {
    child.removeAllListeners('exit');
    child.once('exit', () => resolve());
    child.kill('SIGTERM');
  });

interface Heard {
  readonly status: number;
  readonly headers: NodeJS.Dict<string | string[]>;
  readonly body: string;
}

/** A request over TLS, by whoever trusts `ca`. */
function ask(
  port: number,
  path: string,
  {
    ca,
    host = network,
    method = 'GET',
    body = '',
    headers = {},
  }: {
    readonly ca?: string;
    readonly host?: string;
    readonly method?: string;
    readonly body?: string;
    readonly headers?: Record<string, string>;
  } = {},
): Promise<Heard> {
  return new Promise((resolve, reject) => {
    const sent = request(
      { host, port, path, method, headers, ...(ca === undefined ? {} : { ca }), agent: false },
      (response) => {
        let text = '';
        response.on('data', (chunk: Buffer) => (text += chunk.toString()));
        response.on('end', () => resolve({ status: response.statusCode ?? 0, headers: response.headers, body: text }));
      },
    );
    sent.once('error', reject);
    sent.end(body);
  });
}

let server: Started;
let root = '';
beforeAll(async () => {
  database = await freshDatabase('bare');
  folder = mkdtempSync(join(tmpdir(), 'fairwatt-lan-'));
  server = await start();
  root = readFileSync(join(folder, 'tls/authority.crt'), 'utf8');
});
afterAll(async () => {
  await stop(server);
  await database.drop();
  rmSync(folder, { recursive: true, force: true });
});

describe('a shop on the network', () => {
  it('speaks TLS there, trusted by whoever trusts its authority, and by nobody else', async () => {
    const answer = await ask(server.port, '/api/health', { ca: root });
    expect(answer.status).toBe(200);
    await expect(ask(server.port, '/api/health')).rejects.toThrow(/certificate/);
    await expect(ask(server.port, '/api/health', { ca: root, host: '127.0.0.3' })).rejects.toThrow(/127\.0\.0\.3/);
  });

  it('speaks plain HTTP to this machine alone', async () => {
    const port = new URL(server.plain).port;
    expect((await fetch(`${server.plain}/api/health`)).status).toBe(200);
    await expect(fetch(`http://${network}:${port}/api/health`)).rejects.toThrow();
    await expect(fetch(`http://${network}:${server.port}/api/health`)).rejects.toThrow();
  });

  it('hands out its authority, and keeps the key for its own user', async () => {
    const { status, headers, body } = await ask(server.port, '/fair-watt-root.crt', { ca: root });
    expect([status, headers['content-type'], body]).toEqual([200, 'application/x-x509-ca-cert', root]);
    for (const name of ['authority.key', 'server.key']) {
      const path = join(folder, 'tls', name);
      expect([name, statSync(path).mode & 0o077]).toEqual([name, 0]);
      expect((await ask(server.port, `/tls/${name}`, { ca: root })).body).not.toContain('PRIVATE');
    }
  });

  it('marks its cookies as for TLS only, and answers nothing before somebody signs in', async () => {
    expect((await ask(server.port, '/api/jobs', { ca: root })).status).toBe(401);
    const code = /enter (\S+)$/m.exec(server.said)?.[1] ?? '';
    const made = await ask(server.port, '/api/access/owner', {
      ca: root,
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ code, person: null, name: 'Ilse V.', secret: '482913', device: 'Phone' }),
    });
    expect(made.status).toBe(201);
    const cookies = made.headers['set-cookie'] as string[];
    expect(cookies).toHaveLength(2);
    for (const cookie of cookies) expect(cookie).toMatch(/Secure/);
    const cookie = cookies.map((line) => line.replace(/;.*/, '')).join('; ');
    const told = await ask(server.port, '/api/access/network', { ca: root, headers: { cookie } });
    expect(JSON.parse(told.body)).toMatchObject({
      fingerprint: new X509Certificate(root).fingerprint256,
      rootPath: '/fair-watt-root.crt',
    });
    const access = JSON.parse(
      (await ask(server.port, '/api/access', { ca: root, headers: { cookie } })).body,
    ) as Access;
    expect(access.person?.name).toBe('Ilse V.');
  });

  it('never counts a request from there as one from this machine, whatever it says', async () => {
    const headers = { 'content-type': 'application/json', 'x-forwarded-for': '127.0.0.1' };
    const picked = await ask(server.port, '/api/access/signing', { ca: root, method: 'PUT', headers, body: '{}' });
    expect(picked.status).toBe(401);
  });

  it('keeps authority and certificate over a start, and makes the certificate anew for other names only', async () => {
    const held = () => readFileSync(join(folder, 'tls/server.crt'), 'utf8');
    const before = held();
    await stop(server);
    server = await start();
    expect(held()).toBe(before);
    expect(readFileSync(join(folder, 'tls/authority.crt'), 'utf8')).toBe(root);
    await stop(server);
    server = await start({ FAIRWATT_TLS_NAMES: `${network} 127.0.0.3` });
    expect(held()).not.toBe(before);
    expect((await ask(server.port, '/api/health', { ca: root, host: '127.0.0.3' })).status).toBe(200);
  });
});

describe('what cannot be', () => {
  it.each([
    [{ FAIRWATT_HOST: '0.0.0.0', FAIRWATT_LAN: '0' }, /Plain HTTP is spoken on this machine only/],
    [{ FAIRWATT_TLS_CERT: '/nowhere/shop.crt' }, /go together/],
    [{ FAIRWATT_TLS_CERT: '/nowhere/shop.crt', FAIRWATT_TLS_KEY: '/nowhere/shop.key' }, /shop\.crt, is not there/],
  ])('%o is said in words', async (extra, words) => {
    await expect(start(extra)).rejects.toThrow(words);
  });
});
