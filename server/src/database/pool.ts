import pg from 'pg';
import type { Logger } from 'pino';

// Dates stay the text they are; big integers here are prices and ids well inside the safe range.
pg.types.setTypeParser(pg.types.builtins.DATE, (value) => value);
pg.types.setTypeParser(pg.types.builtins.INT8, Number);

/** A pool that survives a database that goes away: errors of idle connections are logged, the next query connects anew. */
export function createPool(databaseUrl: string, log: Logger): pg.Pool {
  const pool = new pg.Pool({ connectionString: databaseUrl, max: 10, connectionTimeoutMillis: 4000 });
  pool.on('error', (error) => log.warn({ err: error.message }, 'idle database connection lost'));
  return pool;
}
