import { expect } from 'vitest';
import { roles, type Access, type Problem, type Role } from '@fairwatt/contract';
import { makeOwnerCode } from '@fairwatt/server';
import { startServer, type RunningServer, type ServerOptions } from './running-server.ts';

// A shop of one's own, where people sign in.

export interface Answer<T> {
  readonly status: number;
  readonly body: T;
  readonly headers: Headers;
}

/** A browser with its own cookies. */
export class Browser {
  /** Where this browser reaches the shop; another server process may be told. */
  base: string;

  constructor(base: string) {
    this.base = base;
  }

  readonly cookies = new Map<string, string>();

  async ask<T = unknown>(
    method: string,
    path: string,
    body?: unknown,
    headers: Record<string, string> = {},
  ): Promise<Answer<T>> {
    const response = await fetch(`${this.base}${path}`, {
      method,
      headers: {
        ...(this.cookies.size === 0 ? {} : { cookie: this.cookie }),
        ...(body === undefined ? {} : { 'content-type': 'application/json' }),
        ...headers,
      },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    });
    for (const line of response.headers.getSetCookie()) {
      const [, name = '', value = ''] = /^([^=]+)=([^;]*)/.exec(line) ?? [];
      if (value === '') this.cookies.delete(name);
      else this.cookies.set(name, value);
    }
    const stream = response.headers.get('content-type')?.startsWith('text/event-stream') === true;
    if (stream) await response.body?.cancel();
    const text = stream ? '' : await response.text();
    const json = response.headers.get('content-type')?.includes('json') === true;
    return {
      status: response.status,
      body: (json && text !== '' ? JSON.parse(text) : text) as T,
      headers: response.headers,
    };
  }

  /** Follows what changes, until the server ends that. */
  async follow(): Promise<{ readonly isOver: boolean }> {
    const response = await fetch(`${this.base}/events`, { headers: { cookie: this.cookie } });
    expect(response.status).toBe(200);
    const followed = { isOver: false };
    const read = async () => {
      for await (const _part of response.body ?? []);
      followed.isOver = true;
    };
    void read().catch(() => undefined);
    return followed;
  }

  private get cookie(): string {
    return [...this.cookies].map(([name, value]) => `${name}=${value}`).join('; ');
  }

  /** The same device without anybody signed in. */
  device(): Browser {
    const other = new Browser(this.base);
    const token = this.cookies.get('fairwatt-device');
    // By TLS the same is called otherwise.
    if (token !== undefined)
      for (const name of ['fairwatt-device', '__Host-fairwatt-device']) other.cookies.set(name, token);
    return other;
  }

  async as(name: string, secret: string): Promise<this> {
    const { status } = await this.ask('POST', '/access/session', { name, secret });
    expect([name, status]).toEqual([name, 201]);
    return this;
  }
}

export const secrets: Readonly<Record<Role, string>> = {
  owner: '482913',
  technician: '590214',
  trainee: '371926',
  counter: '660218',
  viewer: '825640',
};
export const nameOf = (role: Role) => `Test ${role}`;
export const idOf = (role: Role) => `test-${role}`;
export const kindOf = ({ body }: Answer<unknown>) => (body as Problem).type;
export const access = async (browser: Browser): Promise<Access> => (await browser.ask<Access>('GET', '/access')).body;

/** An empty shop on a clock that goes on as tests want it. */
export interface Shop {
  readonly server: RunningServer;
  /** A browser that nobody knows. */
  readonly stranger: () => Browser;
  readonly wait: (seconds: number) => void;
}

export async function emptyShop(parts: Pick<ServerOptions, 'secrets' | 'log'> = {}): Promise<Shop> {
  let clock = Date.parse('2026-11-27T08:00:00.000Z');
  const now = () => new Date(clock).toISOString();
  const server = await startServer({ demo: false, now, refusedSignInsAMinute: 60, ...parts });
  return {
    server,
    stranger: () => new Browser(server.base),
    wait: (seconds) => {
      clock += 1000 * seconds;
    },
  };
}

export const ownerMessage = { person: null, name: nameOf('owner'), secret: secrets.owner, device: 'Bench tablet' };

/** Somebody of each role but the owner, added by the owner. */
export async function addRoles(owner: Browser): Promise<void> {
  for (const role of roles.slice(1)) {
    const person = { name: nameOf(role), role, secret: secrets[role] };
    expect((await owner.ask('POST', '/access/people', person)).status).toBe(201);
  }
}

/** A shop with one of each role; the owner is signed in at the bench. */
export async function shopOfAll(
  parts: Pick<ServerOptions, 'secrets' | 'log'> = {},
): Promise<Shop & { readonly bench: Browser }> {
  const shop = await emptyShop(parts);
  const bench = shop.stranger();
  const code = await makeOwnerCode(shop.server.pool);
  expect((await bench.ask('POST', '/access/owner', { ...ownerMessage, code })).status).toBe(201);
  await addRoles(bench);
  return { ...shop, bench };
}
