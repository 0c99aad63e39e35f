import { mkdir, mkdtemp, open, rename, rm, stat, writeFile } from 'node:fs/promises';
import { basename, dirname, join } from 'node:path';
import { programVersion } from '../version.ts';
import { connected, databaseOf, databaseTool, rowCounts, sha256Of, tool } from './database-tools.ts';
import { backupFormat, backupVersion, type Manifest } from './manifest.ts';

/** A backup lets nobody in: who is signed in just now is left out of it. */
const leftEmpty = ['web_session'];

/** Makes sure that a file's bytes are on the disk before its name is taken for good. */
async function settle(path: string): Promise<void> {
  const file = await open(path, 'r+');
  await file.sync();
  await file.close();
}

/**
 * Makes one file of everything in a database, pictures included, while it is being worked on: dump and counts are of
 * one snapshot. The file appears under its name when it is whole.
 */
export async function makeBackup(url: string, path: string, now: string): Promise<Manifest> {
  await mkdir(dirname(path), { recursive: true });
  const folder = await mkdtemp(join(dirname(path), `.${basename(path)}-`));
  const dump = join(folder, 'database.dump');
  try {
    const seen = await connected(url, async (client) => {
      await client.query('begin isolation level repeatable read, read only');
      const snapshot = await client.query<{ id: string }>('select pg_export_snapshot() as id');
      const schema = await client.query<{ name: string }>(
        'select name from schema_migration order by name desc limit 1',
      );
      const tables = await rowCounts(client);
      for (const table of leftEmpty) if (table in tables) tables[table] = 0;
      const left = leftEmpty.map((table) => `--exclude-table-data=${table}`);
      const how = ['--format=custom', '--no-owner', '--no-privileges', ...left, `--file=${dump}`];
      await databaseTool('pg_dump', [...how, `--snapshot=${snapshot.rows[0]?.id ?? ''}`], url);
      return { tables, schema: schema.rows[0]?.name ?? '' };
    });
    const manifest: Manifest = {
      format: backupFormat,
      version: backupVersion,
      madeAt: now,
      program: programVersion,
      database: databaseOf(url),
      schema: seen.schema,
      jobs: seen.tables['job'] ?? 0,
      pictures: seen.tables['job_photo'] ?? 0,
      tables: seen.tables,
      bytes: (await stat(dump)).size,
      sha256: await sha256Of(dump),
    };
    await writeFile(join(folder, 'manifest.json'), `${JSON.stringify(manifest, null, 2)}\n`);
    const whole = join(folder, 'whole');
    await tool('tar', ['--create', `--file=${whole}`, `--directory=${folder}`, 'manifest.json', 'database.dump']);
    await settle(whole);
    await rename(whole, path);
    return manifest;
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}
