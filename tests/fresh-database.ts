import { randomBytes } from 'node:crypto';
import pg from 'pg';
import { inject } from 'vitest';

/** A database of its own, copied from the migrated template. */
export async function freshDatabase(): Promise<{ readonly url: string; readonly drop: () => Promise<void> }> {
  const admin = inject('databaseUrl');
  const name = `test_${randomBytes(6).toString('hex')}`;
  const asAdmin = async (sql: string) => {
    const client = new pg.Client({ connectionString: admin });
    await client.connect();
    await client.query(sql);
    await client.end();
  };
  await asAdmin(`create database ${name} template ${inject('templateDatabase')}`);
  return {
    url: admin.replace(/\/[^/]*$/, `/${name}`),
    drop: () => asAdmin(`drop database if exists ${name} with (force)`),
  };
}
