import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import pg from 'pg';
import { pino } from 'pino';
import type { TestProject } from 'vitest/node';
import { letServersIn, migrate } from '@fairwatt/server/administration';
import { startCluster } from '../command/src/cluster/index.ts';
import { testCluster } from '../command/src/clusters.ts';
import { passwordOf } from './templates.ts';

const silent = pino({ level: 'silent' });
const schema = ['server/migrations/', 'server/src/database/server-role.ts'];
const fromRoot = (path: string) => fileURLToPath(new URL(`../${path}`, import.meta.url));

/** A name for what stands in these folders and files. */
function nameOf(paths: readonly string[]): string {
  const hash = createHash('sha256');
  for (const path of paths.map(fromRoot)) {
    const isFolder = path.endsWith('/');
    const files = isFolder ? readdirSync(path, { recursive: true, encoding: 'utf8' }).sort() : [''];
    for (const name of files.filter((file) => !isFolder || /\.\w+$/.test(file)))
      hash.update(name).update(readFileSync(`${path}${name}`));
  }
  return hash.digest('hex').slice(0, 12);
}

/** @param isBuilt whether the tests start what is built, or read the sources */
function fillWithDemo(databaseUrl: string, isBuilt: boolean): void {
  const conditions = isBuilt ? [] : ['--conditions=fairwatt-source'];
  execFileSync(process.execPath, [...conditions, '--import', 'tsx', fromRoot('tests/fill-with-demo.ts'), databaseUrl]);
}

/** Template databases on the test cluster, from which each test file makes its own. */
export default async function setup(project: TestProject): Promise<void> {
  const databaseUrl = process.env['FAIRWATT_TEST_DATABASE'] ?? (await startCluster(testCluster())).url('postgres');
  const client = new pg.Client({ connectionString: databaseUrl });
  await client.connect();
  const urlOf = (name: string) => databaseUrl.replace(/\/[^/]*$/, `/${name}`);
  /** Made once, whoever else asks for it meanwhile; what an earlier state of the sources left of the kind goes. */
  const template = async (kind: string, of: string, from: string, make: (url: string) => Promise<void> | void) => {
    const name = `${kind}_${of}`;
    await client.query('select pg_advisory_lock(hashtext($1))', [kind]);
    const { rows } = await client.query<{ datname: string }>(
      String.raw`select datname from pg_database where datname ~ ('^' || $1 || '_[0-9a-f]{12}(_making)?$')`,
      [kind],
    );
    if (!rows.some(({ datname }) => datname === name)) {
      for (const { datname } of rows) await client.query(`drop database ${datname} with (force)`);
      await client.query(`create database ${name}_making template ${from}`);
      await make(urlOf(`${name}_making`));
      await client.query(`alter database ${name}_making rename to ${name}`);
    }
    await client.query('select pg_advisory_unlock(hashtext($1))', [kind]);
    return name;
  };
  const bare = await template('bare', nameOf(schema), 'template1', async (url) => {
    await migrate(url, silent);
    await letServersIn(url, passwordOf(databaseUrl));
  });
  // The end-to-end tests start what is built; lines that another program wrote would all be made anew.
  const isBuilt = project.name === 'e2e';
  const code = ['core/', 'contract/', 'server/'].map((folder) => `${folder}${isBuilt ? 'dist' : 'src'}/`);
  const kind = `demo_of_${isBuilt ? 'built' : 'sources'}`;
  const demo = await template(kind, nameOf([...schema, ...code, 'demo/']), bare, (url) => fillWithDemo(url, isBuilt));
  await client.end();
  project.provide('databaseUrl', databaseUrl);
  project.provide('templates', { bare, demo });
}
