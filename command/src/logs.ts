import { existsSync, readdirSync, readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { clusterFolder } from './cluster/index.ts';
import { mainCluster, say } from './clusters.ts';
import { dataDirectory } from './paths.ts';

export const logFolder = join(dataDirectory, 'logs');

/** The newest files of a log, the newest last. */
function filesOf(folder: string, pattern: RegExp): string[] {
  if (!existsSync(folder)) return [];
  return readdirSync(folder)
    .filter((name) => pattern.test(name))
    .map((name) => join(folder, name))
    .sort((a, b) => statSync(a).mtimeMs - statSync(b).mtimeMs);
}

/** `logs [server|database] [--lines N]`: the last lines of a log, whether it runs or not. */
export function logs(args: readonly string[]): number {
  const { values, positionals } = parseArgs({
    args: [...args],
    allowPositionals: true,
    options: { lines: { type: 'string' } },
  });
  const what = positionals[0] ?? 'server';
  const lines = Number(values.lines ?? 60);
  if ((what !== 'server' && what !== 'database') || !Number.isInteger(lines) || lines < 1) {
    process.stderr.write('./fairwatt logs [server|database] [--lines N]\n');
    return 2;
  }
  const cluster = clusterFolder(mainCluster());
  const files =
    what === 'server'
      ? filesOf(logFolder, /^server\./)
      : cluster === null
        ? []
        : filesOf(join(cluster, 'log'), /^database-/);
  if (files.length === 0) say(`There is no ${what} log yet.`);
  const all = files.flatMap((file) =>
    readFileSync(file, 'utf8')
      .split('\n')
      .filter((line) => line !== ''),
  );
  for (const line of all.slice(-lines)) say(line);
  return 0;
}
