import { spawn, spawnSync } from 'node:child_process';
import { existsSync, readdirSync } from 'node:fs';
import { join } from 'node:path';

export const isRoot = process.getuid?.() === 0;

/** Something the machine lacks and this user may not install. */
export class MissingPackage extends Error {}

interface RunOptions {
  readonly cwd?: string;
  readonly env?: NodeJS.ProcessEnv;
  /** What it prints is shown only when it fails. */
  readonly quiet?: boolean;
}

/** Runs a program to its end with its output shown. @throws when it fails */
export function run(
  program: string,
  args: readonly string[],
  { quiet = false, ...options }: RunOptions = {},
): Promise<void> {
  return new Promise((resolve, reject) => {
    const child = spawn(program, [...args], { stdio: quiet ? ['ignore', 'pipe', 'pipe'] : 'inherit', ...options });
    const printed: Buffer[] = [];
    for (const stream of [child.stdout, child.stderr]) stream?.on('data', (part: Buffer) => printed.push(part));
    child.on('error', reject);
    child.on('close', (code, signal) => {
      if (code === 0) return resolve();
      process.stderr.write(Buffer.concat(printed));
      reject(new Error(`${program} ended with ${signal ?? code}`));
    });
  });
}

function install(packages: readonly string[], why: string): void {
  const line = `apt-get install -y ${packages.join(' ')}`;
  if (!isRoot) throw new MissingPackage(`${why} is missing. Install it with:\n  sudo ${line}`);
  if (!existsSync('/usr/bin/apt-get'))
    throw new MissingPackage(`${why} is missing and this is no Debian; install it by hand.`);
  process.stderr.write(`Installing ${packages.join(', ')} ...\n`);
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  const attempt = () =>
    spawnSync('apt-get', ['install', '-y', '--no-install-recommends', ...packages], {
      env,
      stdio: ['ignore', 'ignore', 'inherit'],
    }).status === 0;
  spawnSync('apt-get', ['update'], { env, stdio: 'ignore' });
  if (!attempt()) throw new MissingPackage(`${why} could not be installed; try: ${line}`);
}

/** The directory with PostgreSQL's programs, the newest installed; installs Debian's package where root may. */
export function postgresPrograms(): string {
  const find = () => {
    const base = '/usr/lib/postgresql';
    const versions = existsSync(base)
      ? readdirSync(base)
          .filter((name) => existsSync(join(base, name, 'bin', 'initdb')))
          .sort((a, b) => Number(b) - Number(a))
      : [];
    return versions[0] === undefined ? null : join(base, versions[0], 'bin');
  };
  const found = find();
  if (found !== null) return found;
  install(['postgresql'], 'PostgreSQL');
  const installed = find();
  if (installed === null)
    throw new MissingPackage('PostgreSQL was installed, but its programs are not under /usr/lib/postgresql');
  return installed;
}

/** Debian's Chromium for the end-to-end tests. */
export function chromiumProgram(): string {
  const path = '/usr/bin/chromium';
  if (!existsSync(path)) install(['chromium'], 'Chromium');
  return path;
}
