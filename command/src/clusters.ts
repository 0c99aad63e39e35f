import { chownSync, mkdirSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { ownerOf, type ClusterOptions } from './cluster/index.ts';
import { dataDirectory, stateDirectory } from './paths.ts';

export const say = (text: string): void => {
  process.stdout.write(`${text}\n`);
};

/**
 * Where pieces of the database's journal are copied to, so that any moment can be restored; null where they are not.
 */
export function archiveFolder(): string | null {
  const folder = process.env['FAIRWATT_ARCHIVE'];
  return folder === undefined || folder === '' ? null : resolve(folder);
}

function archiveSettings(): Record<string, string> {
  const folder = archiveFolder();
  if (folder === null) return {};
  mkdirSync(folder, { recursive: true });
  const owner = ownerOf(folder);
  if (owner !== null) chownSync(folder, owner.uid, owner.gid);
  const target = `${folder}/%f`;
  return {
    archive_mode: 'on',
    archive_timeout: '60s',
    // Under another name first, so that a piece that is there is whole.
    archive_command: `test ! -f "${target}" && cp "%p" "${target}.part" && mv "${target}.part" "${target}"`,
  };
}

/** The cluster of `demo` and `serve`. */
export const mainCluster = (): ClusterOptions => ({
  dataFolder: dataDirectory,
  name: 'main',
  firstPort: 54_870,
  settings: archiveSettings(),
  say,
});

/** The cluster of the tests; it may lose what a power cut takes, and is made anew when it does. */
export const testCluster = (): ClusterOptions => ({
  dataFolder: stateDirectory,
  name: 'test',
  firstPort: 54_970,
  settings: { fsync: 'off', max_connections: '200' },
  say,
});

export const databaseName = (demo: boolean) => (demo ? 'fairwatt_demo' : 'fairwatt');
export const lockPath = join(dataDirectory, 'lock');
