import { randomBytes } from 'node:crypto';
import pg from 'pg';
import { pino } from 'pino';
import { asServer, giveServersRights, letServersIn, migrate, placesOf } from '@fairwatt/server/administration';
import { beforeUpgradePath, makeBackup } from './backup/index.ts';
import { say } from './clusters.ts';
import { migrationFiles } from './migration-files.ts';

async function migrationsRun(url: string): Promise<string[]> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    const there = await client.query<{ found: string | null }>("select to_regclass('schema_migration') as found");
    if (there.rows[0]?.found == null) return [];
    return (await client.query<{ name: string }>('select name from schema_migration order by name')).rows.map(
      (row) => row.name,
    );
  } finally {
    await client.end();
  }
}

/**
 * Looks at a database before the server brings its schema up to date: one written by a newer program is refused in
 * words, an older one is backed up first.
 */
export async function prepareSchema(url: string): Promise<void> {
  const known = await migrationFiles();
  const ran = await migrationsRun(url);
  const newer = ran.filter((name) => !known.includes(name));
  if (newer.length > 0)
    throw new Error(
      `This data was written by a newer Fair Watt (${newer.join(', ')}), and this one would not ` +
        'understand it. Start the newer one; nothing was changed.',
    );
  if (ran.length === 0 || ran.length === known.length) return;
  const now = new Date().toISOString();
  const path = beforeUpgradePath(now);
  say(`The data is of an older version; a backup is made first: ${path}`);
  await makeBackup(url, path, now);
}

/**
 * Brings the schema of this data folder's database up to date, as its owner, and lets servers in with a password made
 * anew at each start.
 * @returns tells the address for servers from the owner's, which may move to another port meanwhile
 */
export async function openToServers(url: string): Promise<(ownerUrl: string) => string> {
  const password = randomBytes(18).toString('base64url');
  await migrate(url, pino({ level: 'silent' }));
  await letServersIn(url, password);
  return (ownerUrl) => asServer(ownerUrl, password);
}

/** The same for a database that was given, whose servers work as a role that its keeper has made. */
export async function openToRoleOf(serverUrl: string, ownerUrl: string): Promise<void> {
  await migrate(ownerUrl, pino({ level: 'silent' }));
  await giveServersRights(ownerUrl, decodeURIComponent(new URL(placesOf(serverUrl)[0]).username));
}
