import { readFile, statfs } from 'node:fs/promises';
import { join } from 'node:path';
import { Router } from 'express';
import type pg from 'pg';
import { healthSchema, type Health } from '@fairwatt/contract';
import { one, snapshot } from '../database/query.ts';
import { number, text } from '../database/read.ts';
import type { Sweeps } from '../instruments/sweep.ts';
import type { ClockWatch } from './clock-watch.ts';

export interface HealthParts {
  readonly pool: pg.Pool;
  readonly sweeps: Sweeps;
  readonly version: string;
  readonly dataFolder: string | null;
  readonly clock: ClockWatch | null;
}

async function diskOf(folder: string | null): Promise<Health['disk']> {
  if (folder === null) return null;
  const { bavail, blocks, bsize } = await statfs(folder);
  return { freeBytes: bavail * bsize, totalBytes: blocks * bsize };
}

async function lastBackup(folder: string | null): Promise<Health['backup']> {
  if (folder === null) return null;
  const noted = await readFile(join(folder, 'last-backup.json'), 'utf8').catch(() => null);
  return noted === null ? null : (healthSchema.shape.backup.safeParse(JSON.parse(noted)).data ?? null);
}

const databaseState = (pool: pg.Pool): Promise<Health['database']> =>
  snapshot(pool, (db) =>
    one(
      db,
      "select current_setting('server_version') as version, " +
        'pg_database_size(current_database())::bigint as bytes, (select max(name) from ' +
        'schema_migration) as schema',
      [],
      (row) => ({ version: text(row, 'version'), bytes: number(row, 'bytes'), schema: text(row, 'schema') }),
    ),
  );

/** Whether the application works (`/health`, cheap, asked by every screen) and how it is (`/health/state`). */
export function healthRoutes({ pool, sweeps, version, dataFolder, clock }: HealthParts): Router {
  const router = Router();
  router.get('/', async (_request, response) => {
    await pool.query('select 1');
    response.json({ status: 'ready', pid: process.pid, version });
  });
  router.get('/state', async (_request, response) => {
    const [database, disk, backup, unsure] = await Promise.all([
      databaseState(pool),
      diskOf(dataFolder),
      lastBackup(dataFolder),
      sweeps.unsure(),
    ]);
    const health: Health = {
      status: 'ready',
      pid: process.pid,
      version,
      upSeconds: Math.round(process.uptime()),
      database,
      disk,
      backup,
      unsureLoads: unsure.map((load) => load.name),
      clock: clock?.jump ?? null,
    };
    response.json(healthSchema.parse(health));
  });
  return router;
}
