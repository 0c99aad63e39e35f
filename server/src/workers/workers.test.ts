import { fileURLToPath } from 'node:url';
import { pino } from 'pino';
import { afterEach, describe, expect, it } from 'vitest';
import { Threads } from './workers.ts';

const filename = fileURLToPath(new URL('./resting-worker.test-help.ts', import.meta.url));
const limits = { filename, maxThreads: 1, budgetMilliseconds: 3000 };

let threads: Threads;
afterEach(() => threads.close());

/** Has a thread rest for so long; the job's number is what it rests for. */
const rest = (milliseconds: number): Promise<number> =>
  threads.run<number>({ databaseUrl: '', task: { kind: 'stations', jobId: milliseconds } });
const notInTime = { problem: { status: 503, type: '/problems/not-worked-out' } };

describe('a task in a thread', () => {
  it('has all of its time for itself, however many stand before it', async () => {
    threads = new Threads({ program: 'test' }, pino({ level: 'silent' }), limits);
    const each = Array.from({ length: 8 }, () => 400);
    expect(await Promise.all(each.map(rest))).toEqual(each);
  });
  it('is ended when it takes longer, and the next one has a thread again', async () => {
    threads = new Threads({ program: 'test' }, pino({ level: 'silent' }), limits);
    await expect(rest(60_000)).rejects.toMatchObject(notInTime);
    expect(await rest(1)).toBe(1);
  });
  it('is let go when no thread is free for it in time', async () => {
    threads = new Threads({ program: 'test' }, pino({ level: 'silent' }), { ...limits, waitMilliseconds: 1 });
    await expect(rest(1)).rejects.toMatchObject(notInTime);
  });
});
