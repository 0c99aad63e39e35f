import type { RequestListener } from 'node:http';
import { fileURLToPath } from 'node:url';
import type { Pool } from 'pg';
import type { Model } from '@fairwatt/core';
import {
  asRead,
  countUnreadable,
  isOwnerless,
  makeOwnerCode,
  readAccessState,
  type Secrets,
  secretsBy,
  signAtFirst,
} from './access/index.ts';
import { rootPath, type OnNetwork } from './app.ts';
import { migrate } from './database/migrate.ts';
import { untilAnswers } from './database/until-answers.ts';
import { loadDemo } from './demo.ts';
import { ClockWatch } from './health/clock-watch.ts';
import { GuardProcess } from './instruments/load-guard.ts';
import { answerWith, listenPlainly, listenSecurely, type Listening } from './listen.ts';
import { createLog } from './log.ts';
import { connect, openShop, type Shared } from './opened-shop.ts';
import { programName } from './program.ts';
import { BrokenKnowledge, loadModel } from './knowledge.ts';
import { readSettings } from './shop/store.ts';
import { Shops } from './shops/shops.ts';
import { enterStandIns } from './stand-ins.ts';
import { givenTls, ownAddresses, ownNames, ownTls, type ServerTls } from './tls/kept.ts';
import { Threads } from './workers/workers.ts';

// Environment: DATABASE_URL, DATABASE_READ_URL (a replica, for lists and reports), FAIRWATT_SHOPS (the list of shops
// to serve, whose own databases stand beside DATABASE_URL's), FAIRWATT_SCHEMA (`ready` where whoever starts it has
// brought the schema up to date, which this role may not), FAIRWATT_DATA (the data folder, for logs and what the
// command noted there), FAIRWATT_HOST, FAIRWATT_PORT, FAIRWATT_ADDRESS (where a phone reaches the application, for
// the codes on tags), FAIRWATT_DEMO (1 loads the demo data into an empty database), FAIRWATT_STAND_INS (ports of the
// stand-in instruments, set by the start command), FAIRWATT_LAN (1 speaks TLS on the network as well),
// FAIRWATT_TLS_CERT and FAIRWATT_TLS_KEY (files of the shop's own certificate), FAIRWATT_TLS_NAMES (more names for
// the one that is made here), FAIRWATT_SECRETS_KEY (a file with the key by which secrets are kept), FAIRWATT_LOG.
const dataFolder = process.env['FAIRWATT_DATA'] ?? null;
const log = createLog(dataFolder, process.env['FAIRWATT_LOG'] ?? (dataFolder === null ? 'warn' : 'info'));
const databaseUrl = process.env['DATABASE_URL'];
const readUrl = process.env['DATABASE_READ_URL'] ?? '';
const shopsFile = process.env['FAIRWATT_SHOPS'] ?? '';
const address = process.env['FAIRWATT_ADDRESS']?.replace(/\/+$/, '') ?? null;
const host = process.env['FAIRWATT_HOST'] ?? '127.0.0.1';
const wanted = Number(process.env['FAIRWATT_PORT'] ?? '4870');
const onLan = process.env['FAIRWATT_LAN'] === '1';
const moreNames = (process.env['FAIRWATT_TLS_NAMES'] ?? '').split(/[\s,]+/).filter((name) => name !== '');
const fromRoot = (path: string) => fileURLToPath(new URL(`../../${path}`, import.meta.url));

/** While nobody can sign in as owner, whoever reads the console makes one, with a code that each start makes anew. */
async function tellOwnerCode(pool: Pool, secrets: Secrets, url: string): Promise<void> {
  const unreadable = await countUnreadable(pool, secrets);
  if (unreadable > 0)
    process.stdout.write(
      `notice ${unreadable === 1 ? 'The secret of one person was' : `The secrets of ${unreadable} people were`} kept ` +
        'by a key that is not here; an owner gives new ones (docs/security.md)\n',
    );
  if ((await readAccessState(pool)).signing !== 'secret' || !(await isOwnerless(pool, secrets))) return;
  process.stdout.write(
    `notice To make the owner of this shop, open ${url} and enter ${asRead(await makeOwnerCode(pool))}\n`,
  );
}

/** The shop's own certificate where it has one, else one of an authority made here. */
function tlsOf(shop: string): Promise<ServerTls> {
  const [certificate, key] = [process.env['FAIRWATT_TLS_CERT'], process.env['FAIRWATT_TLS_KEY']];
  if (certificate !== undefined && key !== undefined) return givenTls(certificate, key);
  if (certificate !== undefined || key !== undefined)
    throw new Error('FAIRWATT_TLS_CERT and FAIRWATT_TLS_KEY go together; one of them is not set');
  if (dataFolder === null) throw new Error('FAIRWATT_DATA is not set; the shop’s certificate is kept there');
  return ownTls(dataFolder, shop, moreNames, new Date());
}

function networkOf({ root }: ServerTls, port: number): OnNetwork {
  const names = [...ownNames(), ...moreNames];
  const hosts = [...ownAddresses(), ...names.slice(-1)];
  return {
    told: {
      urls: (hosts.length === 0 ? ['127.0.0.1'] : hosts).map(
        (name) => `https://${name.includes(':') ? `[${name}]` : name}:${port}`,
      ),
      fingerprint: root?.fingerprint ?? null,
      rootPath,
    },
    names,
    root: root?.certificate ?? null,
  };
}

/** What is served, once it is known under which addresses. */
interface Served {
  readonly handler: RequestListener;
  /** Tells what a person at the console must know, and begins what goes on by itself. */
  readonly begin: () => Promise<void>;
  readonly halt: () => Promise<void>;
  readonly end: () => Promise<unknown>;
}

/** Where others reach this process. */
interface Reached {
  readonly url: string;
  readonly port: number;
  readonly network: OnNetwork | null;
}

/** The one shop of a database, brought up to date and filled where that is asked for. */
async function prepareShop(databaseUrl: string, model: Model) {
  const connections = connect(databaseUrl, log);
  const { primary, pool } = connections;
  await untilAnswers(primary, pool, () => process.stdout.write('notice Waiting for the database.\n'));
  if (process.env['FAIRWATT_SCHEMA'] !== 'ready') await migrate(primary.url, log);
  if (process.env['FAIRWATT_DEMO'] === '1') {
    // The demo's invented people are picked by name; a shop of one's own starts with secrets.
    await signAtFirst(pool, 'picked');
    await loadDemo(pool, model, fromRoot('demo'), new Date().toISOString());
  }
  await enterStandIns(pool, process.env['FAIRWATT_STAND_INS'] ?? '');
  const { name } = await readSettings(pool);
  const serve = ({ url, network }: Reached, shared: Shared): Served => {
    const place = { databaseUrl, readUrl, dataFolder, address: address ?? network?.told?.urls[0] ?? null, network };
    const shop = openShop(connections, { ...place, names: [] }, shared, log);
    const begin = async () => {
      await tellOwnerCode(pool, shared.secrets, url);
      shop.keep();
    };
    return { handler: shop.app, begin, halt: shop.halt, end: shop.end };
  };
  return { name, serve };
}

/** The shops of a list, each under its own name before this address. */
function prepareShops(registryPath: string, ownUrl: string) {
  if (dataFolder === null) throw new Error('FAIRWATT_DATA is not set; the shops are noted there');
  const folder = dataFolder;
  const base = address === null ? null : new URL(address);
  const serve = ({ port }: Reached, shared: Shared): Served => {
    const addressOf = (name: string) =>
      base === null ? `http://${name}.localhost:${port}` : `${base.protocol}//${name}.${base.host}`;
    const bases = [...(base === null ? [] : [base.hostname]), ...moreNames, 'localhost'];
    const shops = new Shops({ registryPath, ownUrl, dataFolder: folder, bases, addressOf }, shared, log);
    return {
      handler: shops.app,
      begin: () => shops.begin(),
      halt: () => shops.halt(),
      end: () => shops.end(),
    };
  };
  return { name: 'Fair Watt', serve };
}

async function start(): Promise<void> {
  if (databaseUrl === undefined || databaseUrl === '') throw new Error('DATABASE_URL is not set');
  if (!Number.isInteger(wanted) || wanted < 0 || wanted > 65_535)
    throw new Error(`FAIRWATT_PORT is not a port: ${process.env['FAIRWATT_PORT']}`);
  const model = await loadModel();
  const { name, serve } =
    shopsFile === '' ? await prepareShop(databaseUrl, model) : prepareShops(shopsFile, databaseUrl);
  const plain = await listenPlainly(host, wanted);
  const tls = onLan ? await tlsOf(name) : null;
  const secure = tls === null ? null : await listenSecurely(tls.pair, plain.port + 1);
  const network = tls === null || secure === null ? null : networkOf(tls, secure.port);
  const url = `http://${host.includes(':') ? `[${host}]` : host}:${plain.port}`;
  const shared: Shared = {
    model,
    threads: new Threads({ program: programName(model) }, log),
    guard: new GuardProcess(),
    clock: new ClockWatch(),
    webDirectory: fromRoot('web/dist'),
    version: process.env['FAIRWATT_VERSION'] ?? 'unknown',
    secrets: await secretsBy(process.env['FAIRWATT_SECRETS_KEY'] ?? null),
  };
  const served = serve({ url, port: plain.port, network }, shared);
  answerWith(served.handler, plain, ...(secure === null ? [] : [secure]));
  await served.begin();
  for (const other of network?.told?.urls ?? []) process.stdout.write(`notice On the network: ${other}\n`);
  process.stdout.write(`ready ${url}\n`);
  endWhenTold(served, shared.threads, [plain, ...(secure === null ? [] : [secure])]);
}

function endWhenTold(served: Served, threads: Threads, listening: readonly Listening[]): void {
  const end = () => {
    for (const { server } of listening) {
      server.close();
      server.closeAllConnections();
    }
    void Promise.all([threads.close(), served.end()]).then(() => process.exit(0));
    setTimeout(() => process.exit(0), 3000).unref();
  };
  const stop = () => {
    // A load that is left drawing is worse than a slow end.
    void served.halt().then(end);
  };
  process.once('SIGINT', stop);
  process.once('SIGTERM', stop);
  // The command that started it was killed: nobody would end it later.
  process.once('disconnect', stop);
}

start().catch((error: unknown) => {
  process.stderr.write(
    `${error instanceof BrokenKnowledge ? error.message : error instanceof Error ? error.message : String(error)}\n`,
  );
  process.exit(1);
});
