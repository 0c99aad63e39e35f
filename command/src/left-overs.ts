import { say } from './clusters.ts';
import { notedHolder } from './lock.ts';
import { endProcess } from './processes.ts';
import { serverProgram, standInsProgram } from './supervise.ts';

/**
 * Ends what a killed command left running. They end by themselves when it is gone, but may take their time: a server
 * switches its loads off first. Only while this process holds the lock.
 */
export async function endLeftOvers(lockPath: string): Promise<number> {
  let ended = 0;
  for (const pid of notedHolder(lockPath)?.children ?? [])
    for (const program of [serverProgram, standInsProgram]) if (await endProcess(pid, program)) ended += 1;
  if (ended > 0) say('What an earlier run had left running is ended.');
  return ended;
}
