import type pg from 'pg';
import type { Logger } from 'pino';
import type { Model } from '@fairwatt/core';
import { programName, StationKeeper, Threads, Workers } from '@fairwatt/server';

/** The threads of a server and what keeps its lists, as the start makes them; without a background of its own. */
export function threadsOf(databaseUrl: string, pool: pg.Pool, model: Model, log: Logger) {
  const threads = new Threads({ program: programName(model) }, log);
  const workers = new Workers(threads, databaseUrl);
  return { threads, workers, keeper: new StationKeeper(pool, workers, log) };
}
