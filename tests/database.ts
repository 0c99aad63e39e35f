import { createHash } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import pg from 'pg';
import { pino } from 'pino';
import type { TestProject } from 'vitest/node';
import { migrate } from '@fairwatt/server';
import { startCluster } from '../command/src/cluster/index.ts';
import { testCluster } from '../command/src/clusters.ts';

declare module 'vitest' {
  interface ProvidedContext {
    readonly databaseUrl: string;
    readonly templateDatabase: string;
  }
}

/** A migrated template database on the test cluster, from which each test file makes its own. */
export default async function setup(project: TestProject): Promise<void> {
  const databaseUrl = process.env['FAIRWATT_TEST_DATABASE'] ?? (await startCluster(testCluster())).url('postgres');
  const directory = fileURLToPath(new URL('../server/migrations/', import.meta.url));
  const hash = createHash('sha256');
  for (const name of readdirSync(directory).sort()) hash.update(readFileSync(`${directory}${name}`));
  const template = `template_${hash.digest('hex').slice(0, 12)}`;
  const client = new pg.Client({ connectionString: databaseUrl });
  await client.connect();
  const there = await client.query('select from pg_database where datname = $1', [template]);
  if (there.rowCount === 0) {
    // One whose making was cut short.
    await client.query(`drop database if exists ${template}_making`);
    await client.query(`create database ${template}_making`);
    await migrate(databaseUrl.replace(/\/[^/]*$/, `/${template}_making`), pino({ level: 'silent' }));
    await client.query(`alter database ${template}_making rename to ${template}`);
  }
  await client.end();
  project.provide('databaseUrl', databaseUrl);
  project.provide('templateDatabase', template);
}
