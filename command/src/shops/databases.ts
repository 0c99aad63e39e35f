import { setTimeout as wait } from 'node:timers/promises';
import { pino } from 'pino';
import {
  databaseOfShop,
  giveServersRights,
  makeServerRole,
  migrate,
  serverRole,
  urlOfShop,
  writablePlace,
  type ShopEntry,
} from '@fairwatt/server/administration';
import { connected, databaseOf, otherDatabase } from '../backup/index.ts';
import { runningCluster, startCluster, stopCluster, type ClusterOptions } from '../cluster/index.ts';
import { mainCluster } from '../clusters.ts';
import { prepareSchema } from '../upgrade.ts';

/** Servers have so long to let go of a shop that was shut, in milliseconds; then their connections are ended. */
const letGoMilliseconds = 15_000;

/** The cluster of the data folder where it serves many shops: four connections for each of those that are at work. */
export const shopsCluster = (): ClusterOptions => {
  const options = mainCluster();
  return { ...options, settings: { ...options.settings, max_connections: '1000' } };
};

/** Any database of the data folder's cluster, as its owner; a cluster that does not run is started for the work. */
export async function withOwnCluster<T>(work: (ownUrl: string) => Promise<T>): Promise<T> {
  const running = runningCluster(shopsCluster());
  const cluster = running ?? (await startCluster(shopsCluster()));
  try {
    return await work(cluster.url('postgres'));
  } finally {
    if (running === null) stopCluster(shopsCluster());
  }
}

/** A shop's database as the owner of its schema, where it takes writes. */
export const ownerUrl = (shop: ShopEntry, ownUrl: string): Promise<string> => writablePlace(urlOfShop(shop, ownUrl));

/** Whether there is a database of this address. */
export const databaseIsThere = (url: string): Promise<boolean> =>
  connected(otherDatabase(url, 'postgres'), async (client) => {
    const found = await client.query('select from pg_database where datname = $1', [databaseOf(url)]);
    return found.rowCount === 1;
  });

/** All databases of shops in the data folder's cluster, those that were closed or moved away among them. */
export const databasesOfShops = (ownUrl: string): Promise<readonly string[]> =>
  connected(ownUrl, async (client) => {
    const found = await client.query<{ datname: string }>(
      "select datname from pg_database where datname like $1 || '%' order by datname",
      [databaseOfShop('').replaceAll('_', String.raw`\_`)],
    );
    return found.rows.map(({ datname }) => datname);
  });

/** Makes a shop's database unless it is there. */
export async function ensureDatabaseOf(shop: ShopEntry, ownUrl: string): Promise<void> {
  const url = await ownerUrl(shop, ownUrl);
  if (await databaseIsThere(url)) return;
  await connected(otherDatabase(url, 'postgres'), (client) =>
    client.query(`create database ${client.escapeIdentifier(databaseOf(url))}`),
  );
}

/** Brings a shop's schema up to date and gives servers what they need in it. */
export async function prepareShop(shop: ShopEntry, ownUrl: string): Promise<void> {
  const url = await ownerUrl(shop, ownUrl);
  await prepareSchema(url);
  await migrate(url, pino({ level: 'silent' }));
  // Elsewhere servers enter as whoever the address names.
  if (shop.place === null) await giveServersRights(url, serverRole);
}

/** Makes the servers' role where there is none yet, with a password that nobody knows. */
export async function ensureServerRole(ownUrl: string): Promise<void> {
  const there = await connected(ownUrl, (client) =>
    client.query('select from pg_roles where rolname = $1', [serverRole]),
  );
  if (there.rowCount === 0) await makeServerRole(ownUrl, crypto.randomUUID());
}

/** Returns once nobody else is connected to a shop's database: servers let go of one that was shut. */
export async function untilLetGo(url: string): Promise<void> {
  await connected(otherDatabase(url, 'postgres'), async (client) => {
    const others = "from pg_stat_activity where datname = $1 and backend_type = 'client backend'";
    const until = Date.now() + letGoMilliseconds;
    while ((await client.query(`select ${others}`, [databaseOf(url)])).rowCount !== 0 && Date.now() < until)
      await wait(100);
    await client.query(`select pg_terminate_backend(pid) ${others}`, [databaseOf(url)]);
  });
}
