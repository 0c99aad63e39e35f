import pg from 'pg';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { giveServersRights } from '@fairwatt/server/administration';
import { freshDatabase } from './fresh-database.ts';

let database: Awaited<ReturnType<typeof freshDatabase>>;
let asServer: pg.Client;
let asOwner: pg.Client;

beforeAll(async () => {
  database = await freshDatabase('bare');
  asServer = new pg.Client({ connectionString: database.serverUrl });
  asOwner = new pg.Client({ connectionString: database.url });
  await Promise.all([asServer.connect(), asOwner.connect()]);
});
afterAll(async () => {
  await Promise.all([asServer.end(), asOwner.end()]);
  await database.drop();
});

const refused = (sql: string) => expect(asServer.query(sql), sql).rejects.toMatchObject({ code: '42501' });

describe('the role of servers', () => {
  it('adds to what is noted for the owner, and neither alters nor removes it', async () => {
    await asServer.query(
      "insert into audit (at, by_name, device, kind, about) values (now(), 'Ilse', null, 'signed-in', '')",
    );
    expect((await asServer.query('select by_name from audit')).rows).toEqual([{ by_name: 'Ilse' }]);
    await refused("update audit set about = 'nothing'");
    await refused('delete from audit');
    await refused('truncate audit');
    await refused('drop table audit');
  });
  it('changes no table, makes none, and takes no trigger away', async () => {
    await refused('alter table job add column more text');
    await refused('create table more (id bigint)');
    await refused("insert into schema_migration (name, run_on) values ('9999', now())");
    const { rows } = await asOwner.query<{ name: string; of: string }>(
      `select tgname as name, tgrelid::regclass::text as of from pg_trigger where not tgisinternal`,
    );
    expect(rows.length).toBeGreaterThan(0);
    for (const { name, of } of rows) await refused(`drop trigger ${name} on ${of}`);
  });
  it('makes no role and no database, and reads no file of the machine', async () => {
    await refused('create role another');
    await refused('create database another');
    await refused("copy job to '/tmp/job.csv'");
    await refused("select pg_read_file('/etc/hostname')");
  });
  it('reads every table and writes every one that the application has', async () => {
    const { rows } = await asOwner.query<{ name: string; may: boolean }>(
      `select table_name as name,
              has_table_privilege('fairwatt_server', quote_ident(table_name), 'select') and
              has_table_privilege('fairwatt_server', quote_ident(table_name), 'insert') as may
         from information_schema.tables where table_schema = 'public' and table_type = 'BASE TABLE'`,
    );
    expect(rows.filter(({ may }) => !may).map(({ name }) => name)).toEqual(['schema_migration']);
  });
  it('may be one that the keeper of a shop’s own database made', async () => {
    const role = `keeper_${database.url.slice(-12)}`;
    await asOwner.query(`create role ${role} login password 'tide'`);
    await giveServersRights(database.url, role);
    const url = new URL(database.url);
    Object.assign(url, { username: role, password: 'tide' });
    const theirs = new pg.Client({ connectionString: url.href });
    await theirs.connect();
    try {
      expect((await theirs.query('select count(*) as count from audit')).rows).toHaveLength(1);
      await expect(theirs.query('delete from audit')).rejects.toMatchObject({ code: '42501' });
      await expect(theirs.query('drop table job')).rejects.toMatchObject({ code: '42501' });
    } finally {
      await theirs.end();
      await asOwner.query(`drop owned by ${role}; drop role ${role}`);
    }
  });
});
