import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import {
  actPermissions,
  endpoints,
  roleMay,
  roles,
  type Permission,
  type Problem,
  type Role,
} from '@fairwatt/contract';
import type { Job } from '@fairwatt/core';
import { idOf, nameOf, secrets, shopOfAll, type Browser } from './access-shop.ts';

let shop: Awaited<ReturnType<typeof shopOfAll>>;
beforeAll(async () => {
  shop = await shopOfAll();
});
afterAll(async () => {
  await shop.server.end();
});

/** A request for each endpoint that is well formed as far as the gate is concerned. */
const pathOf = (path: string, code: string) =>
  path.replace(':code', code).replace(':id', path.includes('/people/') ? 'nobody-here' : randomUUID());

describe('the matrix', () => {
  const browsers = new Map<Role, Browser>();
  let code = '';
  beforeAll(async () => {
    for (const role of roles) browsers.set(role, await shop.bench.device().as(nameOf(role), secrets[role]));
    const job = await shop.bench.ask<Job>('POST', '/jobs', {
      id: randomUUID(),
      by: idOf('owner'),
      title: 'Of the matrix',
      client: '',
      words: '',
    });
    code = job.body.code;
  });

  it.each(
    endpoints.filter(({ needs }) => needs !== 'anyone').map((one) => [`${one.method} ${one.path}`, one] as const),
  )('%s', async (_what, { method, path, needs }) => {
    const seen: Partial<Record<Role | 'nobody', boolean>> = {};
    const expected: Partial<Record<Role | 'nobody', boolean>> = { nobody: false };
    seen.nobody =
      (await shop.stranger().ask(method, pathOf(path, code), method === 'GET' ? undefined : {})).status !== 401;
    for (const role of roles) {
      expected[role] = roleMay(role, needs as Permission);
      const { status, body } = await browsers
        .get(role)!
        .ask(method, pathOf(path, code), method === 'GET' ? undefined : {});
      const type = (body as Partial<Problem> | null)?.type;
      seen[role] = !(status === 403 && (type === '/problems/not-allowed' || type === '/problems/not-an-owner'));
      expect([role, status === 401, status >= 500]).toEqual([role, false, false]);
    }
    expect(seen).toEqual(expected);
  });

  it.each(Object.entries(actPermissions))('act %s needs %s', async (kind, permission) => {
    for (const role of roles) {
      const { status, body } = await browsers.get(role)!.ask<Problem>('POST', `/jobs/${code}/acts`, {
        id: randomUUID(),
        by: idOf(role),
        act: { kind },
      });
      const refused = status === 403 && ['/problems/not-allowed', '/problems/not-an-owner'].includes(body.type);
      expect([kind, role, refused]).toEqual([kind, role, !roleMay(role, permission)]);
      expect(status).toBeLessThan(500);
    }
  });

  it('has no endpoint beside it', async () => {
    for (const path of ['/nothing', '/jobs/LQ-0001/nothing', '/access', '/shop/people'])
      expect((await shop.bench.ask('PUT', path, {})).status).toBe(404);
  });
});
