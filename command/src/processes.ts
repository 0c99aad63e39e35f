import { existsSync, readFileSync } from 'node:fs';
import { setTimeout as wait } from 'node:timers/promises';

/** Whether this process still runs and was started with this text in its command line. */
export function runsAs(pid: number, text: string): boolean {
  const path = `/proc/${pid}/cmdline`;
  return existsSync(path) && readFileSync(path, 'utf8').includes(text);
}

/** Tells a process to end, waits, and ends it when it does not. Returns whether it ran. */
export async function endProcess(pid: number, text: string, patienceMilliseconds = 15_000): Promise<boolean> {
  if (!runsAs(pid, text)) return false;
  process.kill(pid, 'SIGTERM');
  const until = Date.now() + patienceMilliseconds;
  while (runsAs(pid, text)) {
    if (Date.now() > until) process.kill(pid, 'SIGKILL');
    await wait(50);
  }
  return true;
}
