import pg from 'pg';
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
