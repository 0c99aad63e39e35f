import type pg from 'pg';
import type { Logger } from 'pino';
import type { ChangeMessage } from '@fairwatt/contract';
import type { Workers } from '../workers/workers.ts';
import { jobsNotSearchable } from './search.ts';
import { jobsWithOldLines } from './station-lines.ts';
import { readShopStamps } from './store.ts';

/** A job that somebody is at is left alone in the background for so long after each change. */
const restMilliseconds = 3000;
/** Topics after which lines of open jobs may be old. */
const topics: readonly ChangeMessage['topic'][] = ['job', 'shop', 'supplies', 'bags', 'record', 'everything'];

/**
 * Has the lines of jobs' stations made anew in the workers: at once for what is shown in a list, one after the other
 * and in the background for the rest, so that what is shown never waits for more than one job of the background.
 */
export class StationKeeper {
  readonly program: string;
  private readonly underWay = new Map<number, Promise<boolean>>();
  private timer: NodeJS.Timeout | null = null;
  private running = false;
  private again = false;
  private ended = false;
  private readonly pool: pg.Pool;
  private readonly workers: Workers;
  private readonly log: Logger;

  constructor(pool: pg.Pool, workers: Workers, log: Logger) {
    this.pool = pool;
    this.workers = workers;
    this.program = workers.program;
    this.log = log;
  }

  /** Makes the lines of these jobs anew. @returns whether all of them were made */
  async renew(jobIds: readonly number[]): Promise<boolean> {
    const made = await Promise.all(jobIds.map((id) => this.underWay.get(id) ?? this.start(id)));
    return made.every(Boolean);
  }

  private start(jobId: number): Promise<boolean> {
    const work = this.workers
      .renewStations(jobId)
      .then(
        () => true,
        (error: unknown) => {
          if (!this.ended) this.log.warn({ err: error, jobId }, 'what the stations of a job say was not made anew');
          return false;
        },
      )
      .finally(() => this.underWay.delete(jobId));
    this.underWay.set(jobId, work);
    return work;
  }

  /** Something changed, whatever it was. */
  heard({ topic }: ChangeMessage): void {
    if (topics.includes(topic)) this.later();
  }

  private later(): void {
    if (this.ended) return;
    this.timer ??= setTimeout(() => {
      this.timer = null;
      void this.workThrough();
    }, restMilliseconds).unref();
  }

  /** Has whatever an older program left without it made findable. */
  private async index(): Promise<void> {
    for (;;) {
      const ids = await jobsNotSearchable(this.pool, 100);
      if (ids.length === 0 || this.ended) return;
      await this.workers.indexJobs(ids);
    }
  }

  /**
   * Goes through the open jobs with old lines until none is left. Each is made anew once in a round: lines that are old
   * again at once, as where a server of another version works beside this one, have the pause of the next round.
   */
  private async workThrough(): Promise<void> {
    this.again = true;
    if (this.running) return;
    this.running = true;
    try {
      await this.index();
      while (this.again && !this.ended) {
        this.again = false;
        const failed = await this.round();
        // Those that somebody was at just now, and those that are old once more.
        if ((await this.old(0, failed)).length > 0) this.later();
      }
    } catch (error) {
      if (!this.ended) this.log.warn({ err: error }, 'old lines of jobs were not looked for');
    } finally {
      this.running = false;
    }
  }

  /** @returns the jobs whose lines could not be made */
  private async round(): Promise<readonly number[]> {
    const tried: number[] = [];
    const failed: number[] = [];
    while (!this.ended) {
      const next = await this.old(restMilliseconds, tried);
      if (next.length === 0) break;
      for (const id of next) if (!(await this.renew([id]))) failed.push(id);
      tried.push(...next);
    }
    return failed;
  }

  /** Open jobs with old lines that have rested for so long, but for these. */
  private async old(milliseconds: number, but: readonly number[]): Promise<readonly number[]> {
    const since = new Date(Date.now() - milliseconds);
    return jobsWithOldLines(this.pool, this.program, await readShopStamps(this.pool), since, but, 20);
  }

  /** Nothing more is begun. */
  end(): void {
    this.ended = true;
    if (this.timer !== null) clearTimeout(this.timer);
  }
}
