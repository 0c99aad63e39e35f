import type { ChildProcess } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { asServer, makeServerRole, writablePlace } from '@fairwatt/server/administration';
import { lastBackupPath, NightlyBackups, type BackedUp } from './backup/index.ts';
import { build } from './build.ts';
import { ensureDatabase, startCluster, stopCluster } from './cluster/index.ts';
import { databaseName, lockPath, mainCluster, say } from './clusters.ts';
import { endLeftOvers } from './left-overs.ts';
import { isLocked, notedHolder, takeLock, type Holder, type Lock } from './lock.ts';
import { dataDirectory } from './paths.ts';
import { endProcess, runsAs } from './processes.ts';
import { secretsKeyPath } from './secrets-key.ts';
import { listedShops, ownerUrl, prepareShop, shopFolder, shopsCluster, shopsPath } from './shops/index.ts';
import { KeptDatabase, KeptServer, lineOf, standInsProgram, startChild } from './supervise.ts';
import { openToRoleOf, openToServers, prepareSchema } from './upgrade.ts';
import { programVersion } from './version.ts';

/** The stand-in meter, load, price list and label printer that ship with the application, on free ports of loopback. */
async function startStandIns(): Promise<{ readonly child: ChildProcess; readonly ports: string }> {
  const child = startChild(standInsProgram);
  const pattern = /^ready (meter=\d+ load=\d+ prices=\d+ printer=\d+)$/;
  return { child, ports: (await lineOf(child, pattern, 'The stand-in instruments'))[1] ?? '' };
}

function tellWhoHoldsIt(): number {
  const holder = notedHolder(lockPath);
  if (holder?.url != null)
    say(`Fair Watt already runs at ${holder.url} (process ${holder.pid}). Stop it with ./fairwatt stop`);
  else if (holder !== null)
    say(`This data folder is in use by ./fairwatt ${holder.verb} (process ${holder.pid}, since ${holder.since}).`);
  else say('This data folder is in use by another ./fairwatt that is just starting.');
  return 0;
}

/** What is served: the demo, the shop of this data folder or of `DATABASE_URL`, or all shops that were opened. */
export type Served = 'demo' | 'shop' | 'shops';

/** A database of this data folder, or the one that `serve` was given. */
interface Source {
  /** What is backed up at night, into a folder or folders below it. */
  readonly backedUp: (folder: string) => Promise<readonly BackedUp[]>;
  /** Brings schemas up to date where servers may not, and tells what they are started with. */
  readonly open: () => Promise<() => NodeJS.ProcessEnv>;
  readonly kept: KeptDatabase | null;
}

/** One shop: what is backed up is its database, into the folder itself. */
const oneShop =
  (url: () => Promise<string>): Source['backedUp'] =>
  (folder) =>
    Promise.resolve([{ url, folder, statePath: lastBackupPath }]);

function openDatabase(served: Served, onMoved: () => void): Promise<Source> {
  if (served === 'shops') return openShops(onMoved);
  const given = served === 'demo' ? '' : (process.env['DATABASE_URL'] ?? '');
  return given === ''
    ? openOwn(served === 'demo', onMoved)
    : Promise.resolve(givenDatabase(given, process.env['DATABASE_OWNER_URL'] ?? ''));
}

async function openOwn(demo: boolean, onMoved: () => void): Promise<Source> {
  const cluster = await startCluster(mainCluster());
  await ensureDatabase(cluster, databaseName(demo));
  const kept = new KeptDatabase(mainCluster(), cluster, onMoved);
  const url = () => kept.cluster.url(databaseName(demo));
  const open = async () => {
    await prepareSchema(url());
    const forServers = await openToServers(url());
    const FAIRWATT_SECRETS_KEY = secretsKeyPath();
    return () => ({ DATABASE_URL: forServers(url()), FAIRWATT_SCHEMA: 'ready', FAIRWATT_SECRETS_KEY });
  };
  return { backedUp: oneShop(() => Promise.resolve(url())), open, kept };
}

/** All shops that were opened; one that cannot be prepared is said, and keeps no other from being served. */
async function openShops(onMoved: () => void): Promise<Source> {
  const kept = new KeptDatabase(shopsCluster(), await startCluster(shopsCluster()), onMoved);
  const url = () => kept.cluster.url('postgres');
  const open = async () => {
    const password = randomBytes(18).toString('base64url');
    await makeServerRole(url(), password);
    for (const shop of await listedShops())
      await prepareShop(shop, url()).catch((error: unknown) =>
        say(`The shop ${shop.name} cannot be served: ${error instanceof Error ? error.message : String(error)}`),
      );
    const FAIRWATT_SECRETS_KEY = secretsKeyPath();
    return () => ({ DATABASE_URL: asServer(url(), password), FAIRWATT_SHOPS: shopsPath, FAIRWATT_SECRETS_KEY });
  };
  const backedUp = async (folder: string) => {
    const open = (await listedShops()).filter(({ state }) => state === 'open');
    return open.map((shop) => ({
      url: () => ownerUrl(shop, url()),
      folder: join(folder, shop.name),
      statePath: join(shopFolder(shop.name), 'last-backup.json'),
    }));
  };
  return { backedUp, open, kept };
}

/** Without another role for the schema, servers own what they work on, and bring it up to date themselves. */
function givenDatabase(given: string, owner: string): Source {
  if (owner === '') {
    const url = () => writablePlace(given);
    const open = async () => {
      await prepareSchema(await url());
      return () => ({ DATABASE_URL: given });
    };
    return { backedUp: oneShop(url), open, kept: null };
  }
  const url = () => writablePlace(owner);
  const open = async () => {
    await prepareSchema(await url());
    await openToRoleOf(given, await url());
    return () => ({ DATABASE_URL: given, DATABASE_OWNER_URL: undefined, FAIRWATT_SCHEMA: 'ready' });
  };
  return { backedUp: oneShop(url), open, kept: null };
}

/** What the command holds while it runs, let go in the order of need. */
async function keepRunning(served: Served, lan: boolean, lock: Lock): Promise<number> {
  const demo = served === 'demo';
  const holder: Holder = {
    pid: process.pid,
    verb: demo ? 'demo' : 'serve',
    since: new Date().toISOString(),
    url: null,
    database: null,
    children: [],
  };
  const children = new Map<string, number>();
  const note = (changes: Partial<Holder>) =>
    lock.note(Object.assign(holder, changes, { children: [...children.values()] }));
  await endLeftOvers(lockPath);
  note({});
  await build(say);
  let server: KeptServer | null = null;
  let told = false;
  const stop = () => {
    told = true;
    server?.stop();
  };
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const) process.on(signal, stop);
  const standIns = demo ? await startStandIns() : null;
  if (standIns?.child.pid !== undefined) children.set('stand-ins', standIns.child.pid);
  let source: Source | null = null;
  let nightly: NightlyBackups | null = null;
  try {
    source = await openDatabase(served, () => server?.restart());
    const forServers = await source.open();
    note({ database: served === 'shops' ? null : databaseName(demo) });
    const env = () => ({
      ...forServers(),
      FAIRWATT_DATA: dataDirectory,
      FAIRWATT_VERSION: programVersion,
      FAIRWATT_DEMO: demo ? '1' : '0',
      FAIRWATT_LAN: lan ? '1' : '0',
      FAIRWATT_STAND_INS: standIns?.ports ?? '',
    });
    server = new KeptServer(env, (address, pid) => {
      if (pid !== null) children.set('server', pid);
      note({ url: address });
    });
    if (told) return 0;
    const address = await server.start().catch((error: unknown) => {
      // Told to stop while it was starting: that is no failure.
      if (told) return null;
      throw error;
    });
    if (address === null) return 0;
    say(`Fair Watt is ready at ${address}`);
    say('Stop it with Ctrl-C here, or ./fairwatt stop elsewhere.');
    nightly = new NightlyBackups(source.backedUp, demo);
    await server.ended;
    return 0;
  } finally {
    standIns?.child.kill('SIGTERM');
    await nightly?.leave();
    if (source?.kept != null) {
      await source.kept.leave();
      stopCluster(mainCluster());
    }
  }
}

/**
 * Starts database and server and stays until it is told to stop; whichever of them dies meanwhile is started again.
 * With DATABASE_URL set, `serve` uses that database and starts none. With `lan` it speaks TLS on the network as well.
 */
export async function serve(served: Served, lan = false): Promise<number> {
  mkdirSync(dataDirectory, { recursive: true });
  const lock = takeLock(lockPath);
  if (lock === null) return tellWhoHoldsIt();
  try {
    return await keepRunning(served, lan, lock);
  } finally {
    lock.release();
  }
}

/** Stops a running Fair Watt of this data folder, and whatever an earlier one left behind. */
export async function stop(): Promise<number> {
  const holder = isLocked(lockPath) ? notedHolder(lockPath) : null;
  if (holder !== null && runsAs(holder.pid, 'command/src/main.ts')) {
    await endProcess(holder.pid, 'command/src/main.ts', 60_000);
    for (let attempt = 0; attempt < 100 && isLocked(lockPath); attempt += 1) await wait(50);
  }
  const lock = takeLock(lockPath);
  if (lock === null) {
    tellWhoHoldsIt();
    return 1;
  }
  try {
    const left = await endLeftOvers(lockPath);
    const database = stopCluster(mainCluster());
    if (holder !== null) say('Fair Watt is stopped.');
    else if (left > 0 || database) say('Fair Watt did not run; what was left of it is stopped.');
    else say('Fair Watt does not run.');
    return 0;
  } finally {
    lock.release();
  }
}
