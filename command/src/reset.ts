import { createInterface } from 'node:readline/promises';
import { deleteCluster } from './postgres.ts';
import { stop } from './serve.ts';

/** Deletes the database of this checkout with every job in it, after asking. */
export async function reset(yes: boolean): Promise<number> {
  if (!yes) {
    if (!process.stdin.isTTY) {
      process.stderr.write('This deletes every job of this checkout. Say ./fairwatt reset --yes\n');
      return 2;
    }
    const prompt = createInterface({ input: process.stdin, output: process.stdout });
    const answer = await prompt.question('This deletes every job of this checkout. Type yes to go on: ');
    prompt.close();
    if (answer.trim().toLowerCase() !== 'yes') {
      process.stdout.write('Nothing was deleted.\n');
      return 1;
    }
  }
  await stop();
  deleteCluster('main');
  process.stdout.write('All data is deleted. ./fairwatt demo begins anew.\n');
  return 0;
}
