import { fileURLToPath } from 'node:url';
import { runner } from 'node-pg-migrate';
import type { Logger } from 'pino';

const directory = fileURLToPath(new URL('../../migrations', import.meta.url));

/** Brings the schema up to date; waits where another process is doing it. */
export async function migrate(databaseUrl: string, log: Logger): Promise<void> {
  await runner({
    databaseUrl,
    dir: directory,
    direction: 'up',
    migrationsTable: 'schema_migration',
    advisoryLockMode: 'wait',
    singleTransaction: true,
    checkOrder: true,
    log: (message) => log.debug(message),
  });
}
