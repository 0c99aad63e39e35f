import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, it } from 'vitest';
import type { Job } from '@fairwatt/core';
import { newCommand, wait } from '../command.ts';

it('a moment between two jobs is restored from the archive: the first is there, the second is not', async () => {
  const archive = mkdtempSync(join(tmpdir(), 'fairwatt-archive-'));
  const command = newCommand();
  command.env['FAIRWATT_ARCHIVE'] = archive;
  try {
    let url = await command.start();
    const make = async (title: string) => {
      const body = JSON.stringify({ id: crypto.randomUUID(), by: 'mara', title, client: '', words: '' });
      const headers = { 'content-type': 'application/json' };
      return (await (await fetch(`${url}/api/jobs`, { method: 'POST', headers, body })).json()) as Job;
    };
    expect((await command.run('backup', '--base')).out).toContain('is the ground');
    const first = await make('Before');
    await wait(1200);
    const moment = new Date().toISOString();
    await wait(1200);
    const second = await make('After');
    expect((await command.run('restore', '--at', moment)).out).toContain('stop it first');
    await command.run('stop');
    expect((await command.run('restore', '--at', '2001-01-01T00:00:00Z')).out).toContain('holds no base');
    const restored = await command.run('restore', '--at', moment);
    expect(restored).toMatchObject({ code: 0, out: expect.stringContaining(`as it was at ${moment}`) as string });
    url = await command.start();
    expect((await fetch(`${url}/api/jobs/${first.code}`)).status).toBe(200);
    expect((await fetch(`${url}/api/jobs/${second.code}`)).status).toBe(404);
  } finally {
    await command.end();
    rmSync(archive, { recursive: true, force: true });
  }
});
