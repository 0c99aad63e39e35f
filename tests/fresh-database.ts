import { randomBytes } from 'node:crypto';
import pg from 'pg';
import { inject } from 'vitest';
import { asServer } from '@fairwatt/server/administration';
import { passwordOf, type Template } from './templates.ts';

/** A database of its own: the schema alone, or the demo shop. */
export async function freshDatabase(template: Template): Promise<{
  /** As the owner of the schema. */
  readonly url: string;
  /** As a server works on it. */
  readonly serverUrl: string;
  readonly drop: () => Promise<void>;
}> {
  const admin = inject('databaseUrl');
  const name = `test_${randomBytes(6).toString('hex')}`;
  const asAdmin = async (sql: string) => {
    const client = new pg.Client({ connectionString: admin });
    await client.connect();
    await client.query(sql);
    await client.end();
  };
  await asAdmin(`create database ${name} template ${inject('templates')[template]}`);
  const url = admin.replace(/\/[^/]*$/, `/${name}`);
  return {
    url,
    serverUrl: asServer(url, passwordOf(url)),
    drop: () => asAdmin(`drop database if exists ${name} with (force)`),
  };
}
