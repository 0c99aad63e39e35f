import { availableParallelism } from 'node:os';
import { fileURLToPath } from 'node:url';
import { Piscina } from 'piscina';
import type { Logger } from 'pino';
import { HttpProblem } from '../problems.ts';
import type { Closing, Order, Paper, PaperOrder, Task, WorkerStart } from './tasks.ts';

export type { Closing, Paper, PaperOrder } from './tasks.ts';

/** Longest that one task may take; its thread is ended then, and another one started for what comes next. */
const budgetMilliseconds = 30_000;
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

  constructor(start: WorkerStart, log: Logger) {
    this.log = log;
    this.program = start.program;
    const source = import.meta.url.endsWith('.ts');
    this.pool = new Piscina({
      filename: fileURLToPath(new URL(source ? './worker.ts' : './worker.js', import.meta.url)),
      execArgv: source ? readSources() : [],
      workerData: start,
      minThreads: 0,
      maxThreads: Math.max(1, availableParallelism() - 1),
      idleTimeout: 120_000,
      maxQueue: mostWaiting,
    });
  }

  async run<T>(order: Order): Promise<T> {
    try {
      return (await this.pool.run(order, { signal: AbortSignal.timeout(budgetMilliseconds) })) as T;
    } catch (error) {
      this.log.warn({ err: error, task: order.task.kind }, 'a worker did not do its task');
      throw new HttpProblem(503, 'not-worked-out', 'This was not worked out in time; try again in a moment');
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
