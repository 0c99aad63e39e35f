import { setTimeout as wait } from 'node:timers/promises';
import type { OrderInThread } from './tasks.ts';

/** A thread that only rests, for as many milliseconds as the number of its job. */
export default async function rest({ task, begun }: OrderInThread): Promise<number> {
  begun.postMessage(null);
  begun.close();
  const milliseconds = task.kind === 'stations' ? task.jobId : 0;
  await wait(milliseconds);
  return milliseconds;
}
