import { chmodSync, cpSync, existsSync, mkdirSync, mkdtempSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { isRoot } from '../system.ts';
import { clusterPlace } from './place.ts';

describe.skipIf(!isRoot)('where the cluster of root stands', () => {
  const said: string[] = [];
  const place = (folder: string) => clusterPlace(folder, 'main', true, (text) => said.push(text));
  let closed: string;
  let outside: string;
  beforeAll(() => {
    // A folder that only root can enter, as a home directory is.
    closed = mkdtempSync(join(tmpdir(), 'fairwatt-closed-'));
    outside = mkdtempSync(join(tmpdir(), 'fairwatt-outside-'));
    vi.stubEnv('FAIRWATT_OUTSIDE', outside);
  });
  afterAll(() => {
    vi.unstubAllEnvs();
    for (const folder of [closed, outside]) rmSync(folder, { recursive: true, force: true });
  });

  it('is inside where the database can enter, and outside where it cannot', () => {
    const open = mkdtempSync(join(tmpdir(), 'fairwatt-open-'));
    chmodSync(open, 0o755);
    expect(place(open)).toBe(join(open, 'pg-main'));
    expect(place(closed).startsWith(outside)).toBe(true);
    expect(place(closed)).toBe(place(closed));
    rmSync(open, { recursive: true });
  });
  it('travels with a data folder that is renamed', () => {
    const before = place(closed);
    const renamed = `${closed}-renamed`;
    renameSync(closed, renamed);
    closed = renamed;
    expect(place(closed)).toBe(before);
  });
  it('is another for a copy of the data folder, which says so; the copy keeps it once the original is gone', () => {
    const copy = `${closed}-copy`;
    cpSync(closed, copy, { recursive: true });
    chmodSync(copy, 0o700);
    const own = place(copy);
    expect(own).not.toBe(place(closed));
    expect(said.at(-1)).toContain('is a copy of');
    const second = `${copy}-moved`;
    renameSync(copy, second);
    expect(place(second)).toBe(own);
    rmSync(second, { recursive: true });
  });
  it('moves out what stood inside a folder that was closed since, and leaves nothing behind', () => {
    const folder = mkdtempSync(join(tmpdir(), 'fairwatt-shut-'));
    mkdirSync(join(folder, 'pg-main'));
    writeFileSync(join(folder, 'pg-main', 'PG_VERSION'), '15');
    const moved = place(folder);
    expect([moved.startsWith(outside), existsSync(join(moved, 'PG_VERSION'))]).toEqual([true, true]);
    expect(existsSync(join(folder, 'pg-main'))).toBe(false);
    rmSync(folder, { recursive: true });
  });
});
