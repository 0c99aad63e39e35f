import { existsSync, readFileSync } from 'node:fs';
import { mkdir, readdir, rename, rm, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { z } from 'zod';
import { say } from '../clusters.ts';
import { dataDirectory } from '../paths.ts';
import { keptBackups } from './keep-rule.ts';
import { makeBackup } from './make.ts';
import { onceForAll } from './once.ts';

/** When and where backups are made by themselves. */
export const nightlySchema = z.strictObject({
  on: z.boolean(),
  folder: z.string().min(1),
  /** Hour of the day in the machine's own time. */
  hour: z.int().min(0).max(23),
});
export type Nightly = z.infer<typeof nightlySchema>;
const settingsPath = join(dataDirectory, 'nightly-backup.json');
/** What the last backup came to, for the server to show. */
export const lastBackupPath = join(dataDirectory, 'last-backup.json');
export const backupFolder = join(dataDirectory, 'backups');

export function nightlySettings(demo: boolean): Nightly {
  if (!existsSync(settingsPath)) return { on: !demo, folder: backupFolder, hour: 2 };
  return nightlySchema.parse(JSON.parse(readFileSync(settingsPath, 'utf8')));
}
async function writeWhole(path: string, value: unknown): Promise<void> {
  await mkdir(dirname(path), { recursive: true });
  await writeFile(`${path}.new`, `${JSON.stringify(value, null, 2)}\n`);
  await rename(`${path}.new`, path);
}
export const setNightly = (settings: Nightly): Promise<void> => writeWhole(settingsPath, settings);

export interface LastBackup {
  readonly at: string;
  readonly path: string;
  readonly jobs: number;
  readonly bytes: number;
  readonly error: string | null;
}
export const noteBackup = (last: LastBackup, path = lastBackupPath): Promise<void> => writeWhole(path, last);

const nameOf = (at: string) => `fairwatt-${at.replace(/[-:]|\.\d+/g, '')}.backup`;
const timeOf = (name: string): string | null => {
  const found = /^fairwatt-(\d{4})(\d\d)(\d\d)T(\d\d)(\d\d)(\d\d)Z\.backup$/.exec(name);
  return found === null ? null : `${found[1]}-${found[2]}-${found[3]}T${found[4]}:${found[5]}:${found[6]}.000Z`;
};

/** Backups in a folder that were made by name and time; others are left alone. */
async function backupsIn(folder: string): Promise<{ readonly name: string; readonly at: string }[]> {
  const names = existsSync(folder) ? await readdir(folder) : [];
  return names.flatMap((name) => {
    const at = timeOf(name);
    return at === null ? [] : [{ name, at }];
  });
}

/** What is backed up by itself: a database, where its backups go, and where the last one is noted. */
export interface BackedUp {
  /** Asked when it is made: a database may be elsewhere by then, or away. */
  readonly url: () => Promise<string>;
  readonly folder: string;
  readonly statePath: string;
}

/** Makes a backup under a name with the time, lets go those that the rule does not keep, and notes it. */
export async function backupByRule({ url, folder, statePath }: BackedUp, now: string): Promise<LastBackup> {
  const path = join(folder, nameOf(now));
  const made = await makeBackup(await url(), path, now);
  const all = await backupsIn(folder);
  const kept = keptBackups(all.map(({ at }) => at));
  for (const { name, at } of all) if (!kept.has(at)) await rm(join(folder, name));
  const last: LastBackup = { at: now, path, jobs: made.jobs, bytes: made.bytes, error: null };
  await noteBackup(last, statePath);
  return last;
}

/** The last moment before now at which a nightly backup was due. */
export function lastDue(hour: number, now: Date): Date {
  const due = new Date(now);
  due.setHours(hour, 0, 0, 0);
  if (due > now) due.setDate(due.getDate() - 1);
  return due;
}

/** Makes the nightly backups when they are due, also those that were missed while the machine was off. */
export class NightlyBackups {
  private readonly abort = new AbortController();
  /** The latest moment for which each was seen to, here or elsewhere, by where it is noted. */
  private readonly seenTo = new Map<string, number>();
  private readonly running: Promise<void>;
  private readonly demo: boolean;
  private readonly backedUp: (folder: string) => Promise<readonly BackedUp[]>;

  /** @param backedUp tells what is to be backed up now, into a folder or folders below it */
  constructor(backedUp: (folder: string) => Promise<readonly BackedUp[]>, demo: boolean, everyMilliseconds = 60_000) {
    this.backedUp = backedUp;
    this.demo = demo;
    this.running = this.run(everyMilliseconds);
  }

  private async run(everyMilliseconds: number): Promise<void> {
    const { signal } = this.abort;
    while (!signal.aborted) {
      await wait(everyMilliseconds, undefined, { signal }).catch(() => undefined);
      if (signal.aborted) return;
      const settings = nightlySettings(this.demo);
      if (!settings.on) continue;
      const failed = await this.makeDue(settings).catch((error: unknown) => {
        say(`Nightly backups were not made: ${error instanceof Error ? error.message : String(error)}`);
        return true;
      });
      if (failed) await wait(10 * 60_000, undefined, { signal }).catch(() => undefined);
    }
  }

  /** @returns whether one failed */
  private async makeDue({ folder, hour }: Nightly): Promise<boolean> {
    let failed = false;
    for (const one of await this.backedUp(folder)) {
      const due = lastDue(hour, new Date());
      const times = (await backupsIn(one.folder)).map(({ at }) => Date.parse(at));
      const last = Math.max(this.seenTo.get(one.statePath) ?? 0, ...times);
      if (this.abort.signal.aborted || last >= due.getTime()) continue;
      failed = !(await this.made(one, due)) || failed;
    }
    return failed;
  }

  private async made(one: BackedUp, due: Date): Promise<boolean> {
    const now = new Date().toISOString();
    try {
      const outcome = await onceForAll(await one.url(), due, () => backupByRule(one, now));
      if (outcome.kind === 'elsewhere') {
        const { place: path, ...made } = outcome.made;
        await noteBackup({ ...made, path, error: null }, one.statePath);
      }
      // What is under way elsewhere may fail there: it is looked for again.
      if (outcome.kind !== 'under-way') this.seenTo.set(one.statePath, due.getTime());
      return true;
    } catch (error) {
      const told = error instanceof Error ? error.message : String(error);
      say(`The nightly backup to ${one.folder} failed: ${told}`);
      const noted = { at: now, path: one.folder, jobs: 0, bytes: 0, error: told.slice(0, 300) };
      await noteBackup(noted, one.statePath).catch(() => undefined);
      return false;
    }
  }

  async leave(): Promise<void> {
    this.abort.abort();
    await this.running;
  }
}
