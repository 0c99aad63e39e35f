import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import pg from 'pg';
import { postgresPrograms } from '../system.ts';

/** The same server, another database. */
export function otherDatabase(url: string, database: string): string {
  const parsed = new URL(url);
  parsed.pathname = `/${database}`;
  return parsed.href;
}
export const databaseOf = (url: string): string => decodeURIComponent(new URL(url).pathname.slice(1));

/** Runs `work` with a connection of its own. */
export async function connected<T>(url: string, work: (client: pg.Client) => Promise<T>): Promise<T> {
  const client = new pg.Client({ connectionString: url });
  client.on('error', () => undefined);
  await client.connect();
  try {
    return await work(client);
  } finally {
    await client.end().catch(() => undefined);
  }
}

/** Runs a program to its end. The password goes by the environment, so that no list of processes shows it. */
export function tool(program: string, args: readonly string[], url?: string): Promise<void> {
  const address = url === undefined ? null : new URL(url);
  const password = address === null ? {} : { PGPASSWORD: decodeURIComponent(address.password) };
  if (address !== null) address.password = '';
  const all = address === null ? [...args] : [...args, `--dbname=${address.href}`];
  return new Promise((resolve, reject) => {
    const child = spawn(program, all, { stdio: ['ignore', 'ignore', 'pipe'], env: { ...process.env, ...password } });
    let told = '';
    child.stderr.on('data', (chunk: Buffer) => {
      told = `${told}${chunk.toString()}`.slice(-4000);
    });
    child.once('error', reject);
    child.once('close', (code, signal) => {
      if (code === 0) resolve();
      else reject(new Error(`${program} ended with ${signal ?? code}:\n${told}`));
    });
  });
}
export const databaseTool = (name: string, args: readonly string[], url: string): Promise<void> =>
  tool(join(postgresPrograms(), name), args, url);

export async function sha256Of(path: string): Promise<string> {
  const hash = createHash('sha256');
  await pipeline(createReadStream(path), hash);
  return hash.digest('hex');
}

/** Rows of every table of the schema, seen by one connection. */
export async function rowCounts(client: pg.Client): Promise<Record<string, number>> {
  const { rows } = await client.query<{ name: string }>(
    "select table_name as name from information_schema.tables where table_schema = 'public' " +
      "and table_type = 'BASE TABLE' order by 1",
  );
  const counts: Record<string, number> = {};
  for (const { name } of rows) {
    const found = await client.query<{ count: string }>(`select count(*) as count from ${pg.escapeIdentifier(name)}`);
    counts[name] = Number(found.rows[0]?.count ?? 0);
  }
  return counts;
}
