import { mkdtemp, readFile, rm, stat } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pino } from 'pino';
import { migrate } from '@fairwatt/server/administration';
import { migrationFiles } from '../migration-files.ts';
import { connected, databaseTool, otherDatabase, rowCounts, sha256Of, tool } from './database-tools.ts';
import { manifestSchema, type Manifest } from './manifest.ts';

/** A file that cannot be restored, said in words. */
export class BadBackup extends Error {}

async function unpack(path: string, folder: string): Promise<Manifest> {
  if ((await stat(path).catch(() => null)) === null) throw new BadBackup(`There is no file ${path}.`);
  await tool('tar', ['--extract', `--file=${path}`, `--directory=${folder}`, 'manifest.json', 'database.dump']).catch(
    () => {
      throw new BadBackup(`${path} is not a Fair Watt backup, or it is cut off.`);
    },
  );
  const text = await readFile(join(folder, 'manifest.json'), 'utf8');
  const parsed = manifestSchema.safeParse(
    (() => {
      try {
        return JSON.parse(text) as unknown;
      } catch {
        return null;
      }
    })(),
  );
  if (!parsed.success) throw new BadBackup(`${path} is not a Fair Watt backup of a version that is read here.`);
  return parsed.data;
}

/** What differs between the rows that a backup promises and those that are there. */
export const missingRows = (promised: Manifest['tables'], found: Manifest['tables']): string[] =>
  Object.keys({ ...promised, ...found })
    .filter((table) => promised[table] !== found[table])
    .map((table) => `${table}: ${promised[table] ?? 0} promised, ${found[table] ?? 0} there`);

/**
 * Restores a backup into a database of its own on the same server, compares every table's rows with what it promises,
 * and brings its schema up to date. Nothing else is touched.
 * @throws BadBackup when it is not one, is damaged, or comes from a newer program
 */
export async function restoreInto(url: string, scratch: string, path: string): Promise<Manifest> {
  const folder = await mkdtemp(join(tmpdir(), 'fairwatt-restore-'));
  try {
    const manifest = await unpack(path, folder);
    const dump = join(folder, 'database.dump');
    if ((await sha256Of(dump)) !== manifest.sha256) throw new BadBackup(`${path} is damaged: its checksum differs.`);
    if (!(await migrationFiles()).includes(manifest.schema))
      throw new BadBackup(`${path} was made by a newer Fair Watt (${manifest.program}, ${manifest.schema}).`);
    await connected(otherDatabase(url, 'postgres'), (client) => client.query(`create database ${scratch}`));
    const target = otherDatabase(url, scratch);
    await databaseTool('pg_restore', ['--exit-on-error', '--no-owner', '--no-privileges', dump], target).catch(
      (error: unknown) => {
        throw new BadBackup(`${path} cannot be restored: ${error instanceof Error ? error.message : String(error)}`);
      },
    );
    const missing = missingRows(manifest.tables, await connected(target, rowCounts));
    if (missing.length > 0) throw new BadBackup(`${path} does not hold what it promises: ${missing.join('; ')}`);
    await migrate(target, pino({ level: 'silent' }));
    return manifest;
  } catch (error) {
    await dropDatabase(url, scratch);
    throw error;
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

export const dropDatabase = (url: string, database: string): Promise<unknown> =>
  connected(otherDatabase(url, 'postgres'), (client) =>
    client.query(`drop database if exists ${database} with (force)`),
  );
