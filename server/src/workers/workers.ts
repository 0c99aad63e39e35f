import { availableParallelism } from 'node:os';
import { fileURLToPath } from 'node:url';
import { MessageChannel } from 'node:worker_threads';
import { Piscina } from 'piscina';
import type { Logger } from 'pino';
import { HttpProblem } from '../problems.ts';
import type { Closing, Order, OrderInThread, Paper, PaperOrder, Task, WorkerStart } from './tasks.ts';

export type { Closing, Paper, PaperOrder } from './tasks.ts';

/** How threads are used; a test has others. */
export interface ThreadLimits {
  /** What runs in them. */
  readonly filename: string;
  readonly maxThreads: number;
  /** Longest that a task may wait for a thread that is free and has started. */
  readonly waitMilliseconds: number;
  /** Longest that it may take from there; its thread is ended then, and another one started for what comes next. */
  readonly budgetMilliseconds: number;
}

const isSource = import.meta.url.endsWith('.ts');
const usual: ThreadLimits = {
  filename: fileURLToPath(new URL(isSource ? './worker.ts' : './worker.js', import.meta.url)),
  maxThreads: Math.max(1, availableParallelism() - 1),
  waitMilliseconds: 90_000,
  budgetMilliseconds: 30_000,
};
/** Tasks that may wait; more are refused rather than kept for ever. */
const mostWaiting = 500;

/**
 * A thread reads sources as they are where the server itself is read so; what the server was started with does not
 * reach it.
 */
function readSources(): string[] {
  const hook = `import { register } from ${JSON.stringify(import.meta.resolve('tsx/esm/api'))}; register();`;
  return ['--import', `data:text/javascript,${encodeURIComponent(hook)}`, '--conditions=fairwatt-source'];
}

/** Threads for what takes long, for all shops of this process. */
export class Threads {
  /** The name of the program that judges in them. */
  readonly program: string;
  private readonly pool: Piscina;
  private readonly log: Logger;
  private readonly limits: ThreadLimits;

  constructor(start: WorkerStart, log: Logger, limits: Partial<ThreadLimits> = {}) {
    this.log = log;
    this.limits = { ...usual, ...limits };
    this.program = start.program;
    const { filename, maxThreads } = this.limits;
    this.pool = new Piscina({
      filename,
      execArgv: isSource ? readSources() : [],
      workerData: start,
      minThreads: 0,
      maxThreads,
      idleTimeout: 120_000,
      maxQueue: mostWaiting,
    });
  }

  /** Has a task done. @throws HttpProblem 503 where it did not begin, or was not done, in time */
  async run<T>(order: Order): Promise<T> {
    const { waitMilliseconds, budgetMilliseconds } = this.limits;
    const abort = new AbortController();
    const { port1: hears, port2: begun } = new MessageChannel();
    const late = () => abort.abort();
    let timer = setTimeout(late, waitMilliseconds);
    // What stands before it in the queue, and the start of a thread, are none of the task's own time.
    hears.once('message', () => {
      clearTimeout(timer);
      timer = setTimeout(late, budgetMilliseconds);
    });
    try {
      const given: OrderInThread = { ...order, begun };
      return (await this.pool.run(given, { signal: abort.signal, transferList: [begun] })) as T;
    } catch (error) {
      this.log.warn({ err: error, task: order.task.kind }, 'a worker did not do its task');
      throw new HttpProblem(503, 'not-worked-out', 'This was not worked out in time; try again in a moment');
    } finally {
      clearTimeout(timer);
      hears.close();
    }
  }

  /** Ends the threads, whatever they are at. */
  close(): Promise<void> {
    return this.pool.destroy();
  }
}

/**
 * Ranking, plans and papers of a shop are worked out in threads, so that requests never wait for somebody else's.
 */
export class Workers {
  /** The name of the program that judges in them. */
  readonly program: string;
  private readonly threads: Threads;
  private readonly databaseUrl: string;

  constructor(threads: Threads, databaseUrl: string) {
    this.program = threads.program;
    this.threads = threads;
    this.databaseUrl = databaseUrl;
  }

  private run<T>(task: Task): Promise<T> {
    return this.threads.run({ databaseUrl: this.databaseUrl, task });
  }

  /** Makes anew what the stations of a job say, and keeps it. */
  renewStations(jobId: number): Promise<void> {
    return this.run({ kind: 'stations', jobId });
  }

  /** Writes what these jobs are found by. */
  indexJobs(jobIds: readonly number[]): Promise<void> {
    return this.run({ kind: 'index', jobIds });
  }

  /** Counts what is open in a job that is to be closed, and says what it will teach. */
  closing(jobId: number): Promise<Closing | null> {
    return this.run({ kind: 'closing', jobId });
  }

  paper(order: PaperOrder): Promise<Paper> {
    return this.run({ kind: 'paper', order });
  }
}
