import pg from 'pg';
import type { Logger } from 'pino';
import { placedClients } from './placed-client.ts';
import { Primary } from './primary.ts';

// Dates stay the text they are; big integers here are prices and ids well inside the safe range.
pg.types.setTypeParser(pg.types.builtins.DATE, (value) => value);
pg.types.setTypeParser(pg.types.builtins.INT8, Number);

/**
 * A pool that survives a database that goes away, whether its connections are idle or at work: the loss is logged, the
 * request that was served fails, the next one connects anew.
 */
function survivingPool(config: pg.PoolConfig, log: Logger): pg.Pool {
  const pool = new pg.Pool(config);
  pool.on('error', (error) => log.warn({ err: error.message }, 'idle database connection lost'));
  // The pool listens to idle connections only; without this a connection lost at work would end the process.
  pool.on('connect', (client) => {
    client.on('error', (error) => log.warn({ err: error.message }, 'database connection lost'));
  });
  return pool;
}

/** How many connections there may be at once, and how long one is kept that nobody uses, in milliseconds. */
export interface PoolSize {
  readonly most: number;
  readonly idleMilliseconds: number;
}

const usualSize: PoolSize = { most: 10, idleMilliseconds: 10_000 };

/** Connections to where the database takes writes; given as an address, it is followed as long as the process lives. */
export function createPool(database: Primary | string, log: Logger, size: PoolSize = usualSize): pg.Pool {
  const primary = typeof database === 'string' ? new Primary(database, log) : database;
  const { most: max, idleMilliseconds: idleTimeoutMillis } = size;
  return survivingPool(
    {
      Client: placedClients(primary),
      max,
      idleTimeoutMillis,
      connectionTimeoutMillis: 4000,
      // What is asked of a connection goes out at once, also while an earlier answer is still to come.
      pipeline: true,
    },
    log,
  );
}

/** Connections to a replica: whoever reads there goes elsewhere soon when it does not answer. */
export const createReplicaPool = (url: string, log: Logger): pg.Pool =>
  survivingPool({ connectionString: url, max: 10, connectionTimeoutMillis: 1000, keepAlive: true }, log);
