import { spawnSync } from 'node:child_process';
import { copyFileSync, existsSync, readdirSync, renameSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import {
  clusterFolder,
  clusterPlace,
  ownerOf,
  runningCluster,
  setClusterAside,
  startCluster,
  stopCluster,
  type ClusterOptions,
} from '../cluster/index.ts';
import { archiveFolder, lockPath, mainCluster, say } from '../clusters.ts';
import { takeLock } from '../lock.ts';
import { postgresPrograms } from '../system.ts';
import { connected, tool } from './database-tools.ts';

const stamp = (at: string) => at.replace(/[-:]|\.\d+/g, '');
const baseName = /^base-(\d{4})(\d\d)(\d\d)T(\d\d)(\d\d)(\d\d)Z$/;
const longestReplayMilliseconds = 30 * 60_000;

function needArchive(): string {
  const folder = archiveFolder();
  if (folder === null)
    throw new Error('FAIRWATT_ARCHIVE is not set: it names the folder to which the journal of the database is copied.');
  return folder;
}

/**
 * A whole copy of the cluster in the archive, taken while it runs: a moment is restored by replaying the journal over
 * it.
 */
export async function makeBase(): Promise<number> {
  const archive = needArchive();
  const running = runningCluster(mainCluster());
  const cluster = running ?? (await startCluster(mainCluster()));
  try {
    const path = join(archive, `base-${stamp(new Date().toISOString())}`);
    const address = new URL(cluster.url('postgres'));
    process.env['PGPASSWORD'] = decodeURIComponent(address.password);
    const where = ['--host=127.0.0.1', `--port=${cluster.port}`, '--username=fairwatt', '--no-password'];
    const how = ['--checkpoint=fast', '--wal-method=fetch', `--pgdata=${path}.part`];
    await tool(join(postgresPrograms(), 'pg_basebackup'), [...where, ...how]);
    renameSync(`${path}.part`, path);
    say(`${path} is the ground for moments from now on.`);
    return 0;
  } finally {
    if (running === null) stopCluster(mainCluster());
  }
}

/** The newest base that was made before a moment. */
function baseBefore(archive: string, moment: Date): string | null {
  const bases = readdirSync(archive).flatMap((name) => {
    const found = baseName.exec(name);
    if (found === null) return [];
    const at = Date.parse(`${found[1]}-${found[2]}-${found[3]}T${found[4]}:${found[5]}:${found[6]}Z`);
    return at <= moment.getTime() ? [{ name, at }] : [];
  });
  return bases.sort((a, b) => b.at - a.at)[0]?.name ?? null;
}

async function replayed(url: string): Promise<void> {
  const until = Date.now() + longestReplayMilliseconds;
  while (Date.now() < until) {
    const recovering = await connected(url, async (client) => {
      const { rows } = await client.query<{ recovering: boolean }>('select pg_is_in_recovery() as recovering');
      return rows[0]?.recovering === true;
    }).catch(() => true);
    if (!recovering) return;
    await wait(300);
  }
  throw new Error('The journal was not replayed in half an hour; see the log folder of the cluster.');
}

function layBase(options: ClusterOptions, from: string): void {
  const folder = clusterPlace(options.dataFolder, options.name, true, say);
  const copied = spawnSync('cp', ['-a', from, folder], { stdio: ['ignore', 'ignore', 'inherit'] });
  if (copied.status !== 0) throw new Error(`${from} could not be copied to ${folder}`);
  const owner = ownerOf(join(folder, 'nothing-yet'));
  if (owner !== null) spawnSync('chown', ['-R', `${owner.uid}:${owner.gid}`, folder]);
  spawnSync('chmod', ['700', folder]);
  writeFileSync(join(folder, 'recovery.signal'), '');
  if (owner !== null) spawnSync('chown', [`${owner.uid}:${owner.gid}`, join(folder, 'recovery.signal')]);
}

/**
 * Puts the data of this folder back to how it was at a moment, from the archive. What is here now is moved aside.
 * @param text an instant such as 2026-11-25T16:30:00Z
 */
export async function restoreMoment(text: string): Promise<number> {
  const archive = needArchive();
  const moment = new Date(text);
  if (Number.isNaN(moment.getTime())) throw new Error(`“${text}” is no moment; write it like 2026-11-25T16:30:00Z`);
  const base = baseBefore(archive, moment);
  if (base === null) throw new Error(`${archive} holds no base from before ${moment.toISOString()}.`);
  const lock = takeLock(lockPath);
  if (lock === null) {
    process.stderr.write('Fair Watt is running; stop it first with ./fairwatt stop\n');
    return 2;
  }
  try {
    const options = mainCluster();
    stopCluster(options);
    const record = join(options.dataFolder, `cluster-${options.name}.json`);
    const aside = clusterFolder(options) === null ? null : setClusterAside(options, new Date().toISOString());
    if (aside !== null && existsSync(`${aside}.json`)) copyFileSync(`${aside}.json`, record);
    layBase(options, join(archive, base));
    const settings = {
      ...options.settings,
      restore_command: `cp "${archive}/%f" "%p"`,
      recovery_target_time: moment.toISOString().replace('T', ' ').replace('Z', '+00'),
      recovery_target_action: 'promote',
    };
    const cluster = await startCluster({ ...options, settings });
    await replayed(cluster.url('postgres'));
    stopCluster(options);
    say(`The data is as it was at ${moment.toISOString()}.${aside === null ? '' : ` What was here is ${aside}.`}`);
    return 0;
  } finally {
    lock.release();
  }
}
