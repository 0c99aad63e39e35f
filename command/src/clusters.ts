import { join } from 'node:path';
import type { ClusterOptions } from './cluster/index.ts';
import { dataDirectory, stateDirectory } from './paths.ts';

export const say = (text: string): void => {
  process.stdout.write(`${text}\n`);
};

/** Settings that copy each finished piece of the database's journal to a folder, so that any moment can be restored. */
function archiveSettings(): Record<string, string> {
  const folder = process.env['FAIRWATT_ARCHIVE'];
  if (folder === undefined || folder === '') return {};
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
