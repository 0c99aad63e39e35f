import { stat } from 'node:fs/promises';
import { join, resolve } from 'node:path';
import { parseArgs } from 'node:util';
import { lockPath, say } from '../clusters.ts';
import { takeLock } from '../lock.ts';
import { withDatabase } from '../shop-database.ts';
import { asked } from '../console.ts';
import { countJobs } from '../count-jobs.ts';
import { connected, databaseOf, otherDatabase } from './database-tools.ts';
import { makeBackup } from './make.ts';
import { makeBase, restoreMoment } from './point-in-time.ts';
import { backupByRule, backupFolder, lastBackupPath, nightlySettings, noteBackup, setNightly } from './nightly.ts';
import { BadBackup, dropDatabase, restoreInto } from './read.ts';

const megabytes = (bytes: number) => `${(bytes / 1e6).toFixed(1)} MB`;

const demoFlag = (values: { readonly demo?: boolean | undefined }) => (values.demo === true ? true : null);

/**
 * `backup [FILE]`: everything in one file, also while the application runs. `--nightly FOLDER|off [--hour H]` sets the
 * nightly one.
 */
export async function backupCommand(args: readonly string[]): Promise<number> {
  const { values, positionals } = parseArgs({
    args: [...args],
    allowPositionals: true,
    options: {
      demo: { type: 'boolean' },
      base: { type: 'boolean' },
      nightly: { type: 'string' },
      hour: { type: 'string' },
    },
  });
  if (values.nightly !== undefined) {
    const before = nightlySettings(false);
    const hour = values.hour === undefined ? before.hour : Number(values.hour);
    if (!Number.isInteger(hour) || hour < 0 || hour > 23) {
      process.stderr.write('--hour is a whole number from 0 to 23\n');
      return 2;
    }
    const on = values.nightly !== 'off';
    await setNightly({ on, folder: on ? resolve(values.nightly) : before.folder, hour });
    say(on ? `A backup is made each night at ${hour}:00 to ${resolve(values.nightly)}.` : 'No nightly backups.');
    return 0;
  }
  if (values.base === true) return makeBase();
  const now = new Date().toISOString();
  return withDatabase(demoFlag(values), async (url) => {
    const [file] = positionals;
    const ofThisFolder = { url: () => Promise.resolve(url), folder: backupFolder, statePath: lastBackupPath };
    const path = file === undefined ? (await backupByRule(ofThisFolder, now)).path : resolve(file);
    if (file !== undefined) {
      const made = await makeBackup(url, path, now);
      await noteBackup({ at: now, path, jobs: made.jobs, bytes: made.bytes, error: null });
    }
    say(
      `${path} holds ${(await countJobs(url)) ?? 0} jobs of ${databaseOf(url)} ` +
        `(${megabytes((await stat(path)).size)}).`,
    );
    return 0;
  });
}

export async function putInPlace(url: string, scratch: string, stamp: string, present: number | null): Promise<void> {
  const name = databaseOf(url);
  const before = `${name}_before_${stamp}`;
  await connected(otherDatabase(url, 'postgres'), async (client) => {
    // Both names change together or not at all.
    await client.query('begin');
    await client.query(`alter database ${name} rename to ${before}`);
    await client.query(`alter database ${scratch} rename to ${name}`);
    await client.query('commit');
  });
  if (present === null || present === 0) await dropDatabase(url, before);
  else say(`What was here before (${present} jobs) is kept as database ${before}.`);
}

/**
 * `restore FILE`: tried on a database of its own first; says what it holds; asks before it takes the present one's
 * place, which is kept under another name. `--check` only tries; `--at TIME` restores a moment from the archive.
 */
export async function restoreCommand(args: readonly string[]): Promise<number> {
  const { values, positionals } = parseArgs({
    args: [...args],
    allowPositionals: true,
    options: {
      demo: { type: 'boolean' },
      yes: { type: 'boolean' },
      check: { type: 'boolean' },
      at: { type: 'string' },
    },
  });
  if (values.at !== undefined) return restoreMoment(values.at);
  const [file] = positionals;
  if (file === undefined) {
    process.stderr.write('./fairwatt restore FILE [--yes] [--check]\n');
    return 2;
  }
  const lock = takeLock(lockPath);
  if (lock === null) {
    process.stderr.write('Fair Watt is running; stop it first with ./fairwatt stop\n');
    return 2;
  }
  try {
    return await withDatabase(demoFlag(values), async (url) => {
      const stamp = new Date().toISOString().replace(/\D/g, '').slice(0, 14);
      const scratch = `fairwatt_trial_${stamp}`;
      const manifest = await restoreInto(url, scratch, resolve(file));
      say(
        `${file}: ${manifest.jobs} jobs and ${manifest.pictures} pictures of ${manifest.madeAt}, ` +
          `made by version ${manifest.program}; every table is whole.`,
      );
      const present = await countJobs(url);
      if (values.check === true) {
        await dropDatabase(url, scratch);
        return 0;
      }
      if (present !== null && present > 0 && values.yes !== true) {
        const answer = await asked(`It takes the place of ${present} jobs, which are kept aside. Type yes to go on: `);
        if (answer?.toLowerCase() !== 'yes') {
          await dropDatabase(url, scratch);
          process.stderr.write(
            answer === null ? `${present} jobs are here already; say --yes\n` : 'Nothing was changed.\n',
          );
          return answer === null ? 2 : 1;
        }
      }
      await putInPlace(url, scratch, stamp, present);
      say(`${manifest.jobs} jobs are restored.`);
      return 0;
    });
  } catch (error) {
    if (!(error instanceof BadBackup)) throw error;
    process.stderr.write(`${error.message}\n`);
    return 1;
  } finally {
    lock.release();
  }
}
export const beforeUpgradePath = (now: string) =>
  join(backupFolder, `before-upgrade-${now.replace(/[-:]|\.\d+/g, '')}.backup`);
