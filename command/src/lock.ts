import { spawnSync } from 'node:child_process';
import { closeSync, existsSync, ftruncateSync, mkdirSync, openSync, readFileSync, writeSync } from 'node:fs';
import { dirname } from 'node:path';
import { z } from 'zod';

/** Who holds a lock. `url` is null until the application can be reached. */
const holderSchema = z.object({
  pid: z.int(),
  verb: z.string(),
  since: z.string(),
  url: z.string().nullable(),
  database: z.string().nullable(),
  /** Processes that the holder started, so that whoever comes after a hard kill can end them. */
  children: z.array(z.int()),
});
export type Holder = z.infer<typeof holderSchema>;

export interface Lock {
  /** Writes down who holds it and where the application is, for whoever comes second. */
  readonly note: (holder: Holder) => void;
  readonly release: () => void;
}

/**
 * Takes the lock of a file, or answers null when another process holds it. It is the kernel's lock: it is gone with the
 * process that took it, however that one ended, and a copy or a new name of the folder does not share it.
 * Node's descriptors are not inherited by what it starts, so a database that is left running does not keep it.
 */
export function takeLock(path: string, wait = false): Lock | null {
  mkdirSync(dirname(path), { recursive: true });
  const descriptor = openSync(path, 'a+', 0o600);
  // The lock belongs to the open file that both processes share, so it stays when `flock` has ended.
  const taken = spawnSync('flock', [...(wait ? [] : ['--nonblock']), '3'], {
    stdio: ['ignore', 'ignore', 'inherit', descriptor],
  });
  if (taken.error !== undefined) {
    closeSync(descriptor);
    throw new Error('The program flock (package util-linux) is missing');
  }
  if (taken.status !== 0) {
    closeSync(descriptor);
    return null;
  }
  return {
    note: (holder) => {
      ftruncateSync(descriptor);
      writeSync(descriptor, JSON.stringify(holder));
    },
    release: () => closeSync(descriptor),
  };
}

/** What the last holder wrote down, whether it still holds the lock or not. */
export function notedHolder(path: string): Holder | null {
  if (!existsSync(path)) return null;
  const text = readFileSync(path, 'utf8');
  if (text === '') return null;
  try {
    return holderSchema.parse(JSON.parse(text));
  } catch {
    // Cut off while it was written: nobody is named, and the lock itself tells whether somebody holds it.
    return null;
  }
}

/** Whether somebody holds the lock now. */
export function isLocked(path: string): boolean {
  if (!existsSync(path)) return false;
  const lock = takeLock(path);
  lock?.release();
  return lock === null;
}
