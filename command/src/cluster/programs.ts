import { spawnSync } from 'node:child_process';
import { existsSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { isRoot, postgresPrograms } from '../system.ts';

/** A user by number, as whom the database's programs run. */
export interface Owner {
  readonly uid: number;
  readonly gid: number;
}

const environment = { PATH: '/usr/sbin:/usr/bin:/sbin:/bin', LC_ALL: 'C.UTF-8' };

function debianOwner(): Owner {
  const ask = (flag: string) => Number(spawnSync('id', [flag, 'postgres'], { encoding: 'utf8' }).stdout.trim());
  return { uid: ask('-u'), gid: ask('-g') };
}

/**
 * Who runs the database in this folder: PostgreSQL refuses root, so root runs it as the folder's owner, or as the user
 * that Debian's package made where there is no folder yet. Null for an ordinary user, who runs it as himself.
 */
export function ownerOf(folder: string): Owner | null {
  if (!isRoot) return null;
  postgresPrograms();
  const there = existsSync(folder) ? statSync(folder) : null;
  return there === null || there.uid === 0 ? debianOwner() : { uid: there.uid, gid: there.gid };
}

/** Runs one of PostgreSQL's programs as the owner, with an environment of its own. */
export function runProgram(
  program: string,
  args: readonly string[],
  owner: Owner | null,
  options: { readonly input?: string; readonly detached?: boolean } = {},
): { readonly status: number | null; readonly output: string } {
  const output = options.detached === true ? 'ignore' : 'pipe';
  const result = spawnSync(join(postgresPrograms(), program), [...args], {
    cwd: '/',
    env: owner === null ? { ...process.env, ...environment } : environment,
    encoding: 'utf8',
    stdio: [options.input === undefined ? 'ignore' : 'pipe', output, output],
    ...(options.input === undefined ? {} : { input: options.input }),
    ...(owner ?? {}),
  });
  return { status: result.status, output: `${result.stdout ?? ''}${result.stderr ?? ''}` };
}

/** Whether the owner can enter a folder. */
export function canEnter(folder: string, owner: Owner | null): boolean {
  return owner === null || spawnSync('test', ['-x', folder], { cwd: '/', ...owner }).status === 0;
}
