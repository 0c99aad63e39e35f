import { randomUUID } from 'node:crypto';
import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { fileURLToPath } from 'node:url';
import { pino } from 'pino';
import { expect, it } from 'vitest';
import { createApp, createPool, loadDemo, loadModel, migrate } from '@fairwatt/server';
import { deleteCluster, restartCluster, startCluster, stopCluster } from '../command/src/postgres.ts';
import { knowledgeProblem } from './knowledge-problem.ts';

it('survives a database that is stopped and started again, and says so meanwhile', async () => {
  const silent = pino({ level: 'silent' });
  const url = await startCluster('outage', 'outage');
  await migrate(url, silent);
  const pool = createPool(url, silent);
  const model = await loadModel();
  await loadDemo(pool, model, fileURLToPath(new URL('../demo', import.meta.url)), new Date().toISOString());
  const server = await new Promise<Server>((resolve) => {
    const started = createApp({ pool, model, log: silent, webDirectory: null }).listen(0, '127.0.0.1', () =>
      resolve(started),
    );
  });
  const base = `http://127.0.0.1:${(server.address() as AddressInfo).port}/api`;
  const kiosk = async () =>
    ((await (await fetch(`${base}/jobs/LQ-0146`)).json()) as { sheet: { version: number; watch: string } }).sheet;
  try {
    expect((await fetch(`${base}/health`)).status).toBe(200);
    const message = JSON.stringify({
      id: randomUUID(),
      by: 'mara',
      act: { kind: 'edit-sheet', changes: { watch: 'kept' }, basedOn: (await kiosk()).version },
    });
    const send = () =>
      fetch(`${base}/jobs/LQ-0146/acts`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: message,
      });
    expect(stopCluster('outage')).toBe(true);
    const away = await send();
    expect(away.status).toBe(503);
    expect(away.headers.get('content-type')).toContain('application/problem+json');
    expect(await away.text()).not.toMatch(/ECONNREFUSED|127\.0\.0\.1|node_modules/);
    await restartCluster('outage');
    expect((await fetch(`${base}/health`)).status).toBe(200);
    expect((await send()).status).toBe(200);
    expect((await kiosk()).watch).toBe('kept');
  } finally {
    server.closeAllConnections();
    await new Promise((resolve) => {
      server.close(resolve);
    });
    await pool.end();
    deleteCluster('outage');
  }
}, 60_000);

it.each([
  [
    'a row that does not sum',
    (text: string) => text.replace('[94, 1, 0.5', '[93, 1, 0.5'),
    /checks\.told-button\.rows\.0: row-sum/,
  ],
  ['a check without steps', (text: string) => text.replace(/"steps": \[[^\]]*\]/, '"steps": []'), /checks\.0\.steps/],
  ['half a file', (text: string) => text.slice(0, 4000), /cannot be read/],
])('does not start with a broken knowledge file and says where: %s', async (_name, spoil, told) => {
  expect(await knowledgeProblem(spoil)).toMatch(told);
});
