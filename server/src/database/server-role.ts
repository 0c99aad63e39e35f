import pg from 'pg';

/** The role as which servers work; the schema belongs to another. */
export const serverRole = 'fairwatt_server';

/** The same database, entered as the server's role. */
export function asServer(ownerUrl: string, password: string): string {
  const url = new URL(ownerUrl);
  url.username = serverRole;
  url.password = encodeURIComponent(password);
  return url.href;
}

/** Rows are read and written; no table is changed, and what was noted for an owner is added to only. */
const rightsOf = (role: string) => `
  grant usage on schema public to ${role};
  grant select, insert, update, delete on all tables in schema public to ${role};
  grant usage, select, update on all sequences in schema public to ${role};
  revoke update, delete on audit from ${role};
  revoke insert, update, delete on schema_migration from ${role};`;

async function asOwner(ownerUrl: string, work: (client: pg.Client) => Promise<unknown>): Promise<void> {
  const client = new pg.Client({ connectionString: ownerUrl });
  await client.connect();
  try {
    await client.query('begin');
    await work(client);
    await client.query('commit');
  } finally {
    await client.end();
  }
}

/** Makes the servers' role of a cluster, or gives it another password. */
export const makeServerRole = (ownerUrl: string, password: string): Promise<void> =>
  asOwner(ownerUrl, async (client) => {
    const there = await client.query('select from pg_roles where rolname = $1', [serverRole]);
    const verb = there.rowCount === 0 ? 'create' : 'alter';
    await client.query(`${verb} role ${serverRole} login password ${client.escapeLiteral(password)}`);
  });

/**
 * Lets servers work in a database whose schema is up to date, as a role of their own.
 * @param ownerUrl the database, as the owner of its schema, who may make roles
 * @param password of the servers' role from now on
 * @returns the address for servers
 */
export async function letServersIn(ownerUrl: string, password: string): Promise<string> {
  await makeServerRole(ownerUrl, password);
  await giveServersRights(ownerUrl, serverRole);
  return asServer(ownerUrl, password);
}

/** Gives a role that somebody else has made what servers need, in a database whose schema is up to date. */
export const giveServersRights = (ownerUrl: string, role: string): Promise<void> =>
  asOwner(ownerUrl, (client) => client.query(rightsOf(client.escapeIdentifier(role))));
