import { execFileSync } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { chmodSync, mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Job } from '@fairwatt/core';
import { newCommand, type Command } from '../command.ts';

const pngHead = Buffer.from('iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJ', 'base64');

const disk = mkdtempSync(join(tmpdir(), 'fairwatt-small-disk-'));
/** A small disk of its own, where this machine lets one be made. */
const made = (() => {
  try {
    execFileSync('mount', ['-t', 'tmpfs', '-o', 'size=260m', 'tmpfs', disk], { stdio: 'ignore' });
    return true;
  } catch {
    return false;
  }
})();

describe.skipIf(!made)('a disk without room', () => {
  let command: Command;
  let url: string;
  beforeAll(async () => {
    mkdirSync(join(disk, 'data'));
    chmodSync(disk, 0o755);
    command = newCommand(join(disk, 'data'));
    url = await command.start();
  });
  afterAll(async () => {
    await command.end();
    execFileSync('umount', [disk]);
    rmSync(disk, { recursive: true, force: true });
  });

  it('is said, ends nothing for good, and loses nothing that was confirmed', async () => {
    const act = (id: string) =>
      fetch(`${url}/api/jobs/LQ-0146/acts`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({
          id: crypto.randomUUID(),
          by: 'mara',
          act: { kind: 'note-outcome', id, checkId: 'look-dust', outcomeId: 'clean' },
        }),
      }).then(
        (response) => response.status,
        () => 0,
      );
    // Large enough to need new room of the database soon.
    const upload = (code: string) =>
      fetch(`${url}/api/jobs/${code}/photos?by=mara&id=${crypto.randomUUID()}`, {
        method: 'POST',
        headers: { 'content-type': 'image/png' },
        body: Buffer.concat([pngHead, randomBytes(650_000)]),
      }).then(
        (response) => response.status,
        () => 0,
      );
    const confirmed: string[] = [];
    const statuses = new Set<number>();
    const note = async () => {
      const id = crypto.randomUUID();
      const status = await act(id);
      statuses.add(status);
      if (status === 200) confirmed.push(id);
      return status;
    };
    expect(await note()).toBe(200);
    const filler = join(disk, 'filler');
    // Full to the last block, again and again, since the database lets go of some room.
    const pictureStatuses = new Set<number>();
    for (let count = 0; count < 60; count += 1) {
      try {
        writeFileSync(`${filler}-${count}`, Buffer.alloc(400 * 1024 * 1024));
      } catch {
        // No room: that is what is wanted.
      }
      await note();
      pictureStatuses.add(await upload(['LQ-0142', 'LQ-0143', 'LQ-0145'][count % 3]!));
    }
    expect([...pictureStatuses].some((status) => status === 507 || status === 503)).toBe(true);
    expect([...pictureStatuses].filter((status) => ![201, 409, 503, 507, 0].includes(status))).toEqual([]);
    expect([...statuses].filter((status) => ![200, 503, 507, 0].includes(status))).toEqual([]);
    execFileSync('sh', ['-c', `rm -f ${filler}-*`]);
    await expect.poll(note, { interval: 500 }).toBe(200);
    const job = (await (await fetch(`${url}/api/jobs/LQ-0146`)).json()) as Job;
    const there = new Set(job.outcomes.map((outcome) => outcome.id));
    expect(confirmed.filter((id) => !there.has(id))).toEqual([]);
  });

  it('that can only be read is said in words', async () => {
    await command.run('stop');
    execFileSync('mount', ['-o', 'remount,ro', disk]);
    const refused = await command.run('demo');
    execFileSync('mount', ['-o', 'remount,rw', disk]);
    expect(refused.code).toBe(1);
    expect(refused.out).toMatch(/can only be read/);
  });
});
