import type { Express } from 'express';
import type pg from 'pg';
import type { Logger } from 'pino';
import type { Model } from '@fairwatt/core';
import type { Secrets } from './access/index.ts';
import { createApp, type OnNetwork } from './app.ts';
import { ChangeFeed } from './changes/feed.ts';
import { createPool, createReplicaPool, type PoolSize } from './database/pool.ts';
import { Primary } from './database/primary.ts';
import { Reading } from './database/reading.ts';
import type { ClockWatch } from './health/clock-watch.ts';
import type { LoadGuard } from './instruments/load-guard.ts';
import { Sweeps } from './instruments/sweep.ts';
import { StationKeeper } from './jobs/station-keeper.ts';
import { Workers, type Threads } from './workers/workers.ts';

/** What all shops of a process share. */
export interface Shared {
  readonly model: Model;
  readonly threads: Threads;
  readonly guard: LoadGuard;
  readonly clock: ClockWatch;
  readonly webDirectory: string;
  readonly version: string;
  readonly secrets: Secrets;
}

/** Where a shop's data are, and under which name it is answered. */
export interface ShopPlace {
  readonly databaseUrl: string;
  /** A replica, for lists and reports; empty where there is none. */
  readonly readUrl: string;
  /** For what the command noted of it, such as its last backup. */
  readonly dataFolder: string | null;
  readonly address: string | null;
  readonly network: OnNetwork | null;
  /** More host names under which it is answered. */
  readonly names: readonly string[];
}

/** A shop that requests can be answered for. */
export interface OpenedShop {
  readonly app: Express;
  readonly sweeps: Sweeps;
  /** Begins to keep what its lists say in the background. */
  readonly keep: () => void;
  /** Ends what it does by itself: one load that is left drawing is worse than a slow end. */
  readonly halt: () => Promise<void>;
  /** Lets go of its database, once nothing is answered any more. */
  readonly end: () => Promise<void>;
}

/** The connections of a shop, before anything is served. */
export interface ShopConnections {
  readonly primary: Primary;
  readonly pool: pg.Pool;
}

export function connect(databaseUrl: string, log: Logger, size?: PoolSize): ShopConnections {
  const primary = new Primary(databaseUrl, log);
  return { primary, pool: createPool(primary, log, size) };
}

/** Opens a shop whose database answers and whose schema is up to date. */
export function openShop(
  { primary, pool }: ShopConnections,
  place: ShopPlace,
  shared: Shared,
  log: Logger,
): OpenedShop {
  const sweeps = new Sweeps(pool, log, shared.guard);
  void sweeps
    .switchOffLeftOvers()
    .catch((error: unknown) => log.error({ err: error }, 'loads left by an earlier run were not looked at'));
  const feed = new ChangeFeed(primary, log);
  const workers = new Workers(shared.threads, place.databaseUrl);
  const keeper = new StationKeeper(pool, workers, log);
  const replica = place.readUrl === '' ? null : createReplicaPool(place.readUrl, log);
  const { model, clock, webDirectory, version, secrets } = shared;
  const { dataFolder, address, network, names } = place;
  const app = createApp({
    pool,
    reading: new Reading(pool, replica, log),
    feed,
    model,
    workers,
    keeper,
    log,
    sweeps,
    secrets,
    webDirectory,
    version,
    dataFolder,
    clock,
    network,
    address,
    names,
  });
  return {
    app,
    sweeps,
    keep: () => {
      // What lists say of open jobs is made anew beside the first requests where it is old, and after each change.
      feed.listen((change) => keeper.heard(change));
      keeper.heard({ topic: 'everything', code: null, revision: null });
    },
    halt: async () => {
      keeper.end();
      await sweeps.stopAll();
    },
    end: async () => {
      await Promise.all([feed.close(), pool.end(), replica?.end(), primary.close()]);
    },
  };
}
