import pg from 'pg';
import type { Logger } from 'pino';

// Dates stay the text they are; big integers here are prices and ids well inside the safe range.
pg.types.setTypeParser(pg.types.builtins.DATE, (value) => value);
pg.types.setTypeParser(pg.types.builtins.INT8, Number);

/**
 * A pool that survives a database that goes away, whether its connections are idle or at work: the loss is logged, the
 * request that was served fails, the next one connects anew.
 */
export function createPool(databaseUrl: string, log: Logger, most = 10): pg.Pool {
  const pool = new pg.Pool({ connectionString: databaseUrl, max: most, connectionTimeoutMillis: 4000 });
  pool.on('error', (error) => log.warn({ err: error.message }, 'idle database connection lost'));
  // The pool listens to idle connections only; without this a connection lost at work would end the process.
  pool.on('connect', (client) => {
    client.on('error', (error) => log.warn({ err: error.message }, 'database connection lost'));
  });
  return pool;
}
