import type pg from 'pg';
import type { Logger } from 'pino';
import { measuringBar, standingInterlock, viewJob, type Interlock, type Model } from '@fairwatt/core';
import type { ChangeFeed } from '../changes/feed.ts';
import { snapshot } from '../database/query.ts';
import { readJob } from '../jobs/read.ts';
import { readComputingShop } from '../jobs/store.ts';
import type { Sweeps } from './sweep.ts';

/** What keeps a job's supply from being loaded; null where nothing does, or there is no such job. */
export function barOf(pool: pg.Pool, model: Model, code: string): Promise<Interlock | null> {
  return snapshot(pool, async (db) => {
    const stored = await readJob(db, code);
    if (stored === null) return null;
    const { interlocks } = viewJob(stored.job, await readComputingShop(db, model), { candidates: [] });
    // Neither the supply that came nor a fitted one: then there is nothing left that a load may be put on.
    return (
      standingInterlock(interlocks) ??
      (measuringBar(interlocks, 'before') === null ? null : measuringBar(interlocks, 'after'))
    );
  });
}

/** Ends the sweeps of a job as soon as anybody notes something dangerous in it. @returns stops watching */
export function watchDangers(pool: pg.Pool, model: Model, feed: ChangeFeed, sweeps: Sweeps, log: Logger): () => void {
  return feed.listen(({ code }) => {
    for (const { id, job } of sweeps.running) {
      if (code !== null && code !== job) continue;
      barOf(pool, model, job)
        .then((bar) => {
          if (bar === null) return;
          log.warn({ job, danger: bar.danger.id }, 'a sweep is ended, since something dangerous was noted');
          sweeps.find(id)?.stop();
        })
        .catch((error: unknown) => log.error({ err: error, job }, 'the dangers of a sweep could not be read'));
    }
  });
}
