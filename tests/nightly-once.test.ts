import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { connected } from '../command/src/backup/index.ts';
import { lastDue, NightlyBackups, type LastBackup } from '../command/src/backup/nightly.ts';
import { onceForAll } from '../command/src/backup/once.ts';
import { freshDatabase } from './fresh-database.ts';

let database: Awaited<ReturnType<typeof freshDatabase>>;
const folders = [0, 1, 2].map(() => mkdtempSync(join(tmpdir(), 'fairwatt-night-')));
beforeAll(async () => {
  database = await freshDatabase('bare');
});
afterAll(async () => {
  await database.drop();
  for (const folder of folders) rmSync(folder, { recursive: true });
});

const backupsIn = (folder: string) => readdirSync(folder).filter((name) => name.endsWith('.backup'));
const notedIn = (folder: string) => {
  const path = join(folder, 'last-backup.json');
  return readdirSync(folder).includes('last-backup.json')
    ? (JSON.parse(readFileSync(path, 'utf8')) as LastBackup)
    : null;
};
const commandIn = (folder: string) =>
  new NightlyBackups(
    () =>
      Promise.resolve([
        { url: () => Promise.resolve(database.url), folder, statePath: join(folder, 'last-backup.json') },
      ]),
    false,
    5,
  );

it('of several commands on one database one makes the backup of a night, and all know of it', async () => {
  const commands = folders.map(commandIn);
  await expect.poll(() => folders.every((folder) => notedIn(folder) !== null)).toBe(true);
  // Time for another one, were one made.
  await new Promise((resolve) => {
    setTimeout(resolve, 500);
  });
  await Promise.all(commands.map((command) => command.leave()));
  const made = folders.flatMap(backupsIn);
  expect(made).toHaveLength(1);
  for (const folder of folders) expect(notedIn(folder)).toMatchObject({ error: null, jobs: 0 });
  const [maker] = folders.filter((folder) => backupsIn(folder).length === 1);
  for (const folder of folders) expect(notedIn(folder)?.path).toContain(maker);
});

it('the next night it is made again, and again by one that finds it failed elsewhere', async () => {
  const tomorrow = new Date(lastDue(2, new Date()).getTime() + 86_400_000);
  const make = (path: string) => () => Promise.resolve({ at: tomorrow.toISOString(), path, jobs: 1, bytes: 2 });
  await expect(onceForAll(database.url, tomorrow, () => Promise.reject(new Error('disk full')))).rejects.toThrow(
    'disk full',
  );
  expect((await onceForAll(database.url, tomorrow, make('here'))).kind).toBe('made');
  expect(await onceForAll(database.url, tomorrow, make('there'))).toMatchObject({
    kind: 'elsewhere',
    made: { at: tomorrow.toISOString(), jobs: 1, bytes: 2 },
  });
});

it('is left to whoever is at it, and made by everybody where the schema does not know of it', async () => {
  const later = new Date(Date.now() + 3 * 86_400_000);
  const made = { at: later.toISOString(), path: 'here', jobs: 1, bytes: 2 };
  let inner = '';
  await onceForAll(database.url, later, async () => {
    inner = (await onceForAll(database.url, later, () => Promise.resolve(made))).kind;
    return made;
  });
  expect(inner).toBe('under-way');
  await connected(database.url, (client) => client.query('drop table nightly_backup'));
  for (const _command of folders)
    expect((await onceForAll(database.url, later, () => Promise.resolve(made))).kind).toBe('made');
});
