import { unwatchFile, watchFile } from 'node:fs';
import { join } from 'node:path';
import express, { type Express, type Request, type Response } from 'express';
import type { Logger } from 'pino';
import { untilAnswers } from '../database/until-answers.ts';
import { Sweeps } from '../instruments/sweep.ts';
import { connect, openShop, type OpenedShop, type Shared } from '../opened-shop.ts';
import { hostName, isOwnHost, notThisHost } from '../other-pages.ts';
import { errorHandler, HttpProblem } from '../problems.ts';
import { problemPage } from './problem-page.ts';
import { readShops, shopOfHost, urlOfShop, type ShopEntry } from './registry.ts';

/** Connections of one shop, beside the one that listens: many shops share what a database lets in. */
const sizeOfShop = { most: 3, idleMilliseconds: 30_000 };
/** A request waits so long for its shop's database, in milliseconds; the browser asks again. */
const patienceMilliseconds = 4000;
/** A shop that nobody has asked for so long is let go until somebody does, looked at so often, in milliseconds. */
const usualRest = { after: 10 * 60_000, betweenLooks: 30_000 };
const registryLookMilliseconds = 500;
/** Shops whose loads are looked after at once when the process starts. */
const lookedAtTogether = 8;

/** Where the shops are found. */
export interface ShopsPlace {
  readonly registryPath: string;
  /** Any database of the data folder's cluster, as servers enter it. */
  readonly ownUrl: string;
  readonly dataFolder: string;
  /** Hosts before which a shop's name stands, such as `localhost`. */
  readonly bases: readonly string[];
  /** Where a phone reaches a shop, for the codes on tags; null for where the request came in. */
  readonly addressOf: (name: string) => string | null;
}

/** A shop that is open in this process. */
interface Held {
  readonly entry: ShopEntry;
  readonly shop: OpenedShop;
  readonly answering: Set<Response>;
  lastAsked: number;
}

/** Many shops behind one address, each opened when it is asked for and let go when nobody has for a while. */
export class Shops {
  readonly app: Express;
  private readonly place: ShopsPlace;
  private readonly shared: Shared;
  private readonly log: Logger;
  private readonly rest: typeof usualRest;
  private readonly held = new Map<string, Promise<Held>>();
  private readonly looking: NodeJS.Timeout;
  private entries: readonly ShopEntry[] = [];

  constructor(place: ShopsPlace, shared: Shared, log: Logger, rest = usualRest) {
    this.place = place;
    this.rest = rest;
    this.shared = shared;
    this.log = log;
    this.app = this.createApp();
    this.looking = setInterval(() => {
      this.letGoIdle().catch((error: unknown) => log.error({ err: error }, 'shops that rest were not let go'));
    }, rest.betweenLooks);
    this.looking.unref();
  }

  /** Reads which shops there are, follows what the command changes there, and sees to loads that were left on. */
  async begin(): Promise<void> {
    const { registryPath } = this.place;
    this.entries = await readShops(registryPath);
    watchFile(registryPath, { interval: registryLookMilliseconds }, () => {
      this.follow().catch((error: unknown) => this.log.error({ err: error }, 'the list of shops cannot be read'));
    });
    void this.seeToLoads();
  }

  private createApp(): Express {
    const app = express();
    app.disable('x-powered-by');
    const bases = new Set(this.place.bases);
    app.use(async (request, response, next) => {
      const name = shopOfHost(hostName(request.get('host') ?? ''), this.place.bases);
      if (name === null) {
        if (!isOwnHost(request.get('host'), bases)) throw notThisHost();
        answerWithoutShop(request, response);
        return;
      }
      const held = await this.open(name);
      held.lastAsked = Date.now();
      held.answering.add(response);
      response.once('close', () => held.answering.delete(response));
      held.shop.app(request, response, next);
    });
    app.use(problemPage);
    app.use(errorHandler(this.log));
    return app;
  }

  private entryOf(name: string): ShopEntry | undefined {
    return this.entries.find((one) => one.name === name);
  }

  /** @throws HttpProblem when there is no such shop, or it is shut just now */
  private async open(name: string): Promise<Held> {
    // What was opened a moment ago may not have been noticed yet.
    if (this.entryOf(name)?.state !== 'open') this.entries = await readShops(this.place.registryPath);
    const entry = this.entryOf(name);
    if (entry === undefined) throw new HttpProblem(404, 'no-such-shop', 'There is no shop of this name here');
    if (entry.state === 'shut')
      throw new HttpProblem(503, 'shop-shut', 'This shop is being moved or restored; what you type is kept meanwhile');
    const known = this.held.get(name);
    if (known !== undefined) return known;
    const opening = this.opened(entry);
    this.held.set(name, opening);
    opening.catch(() => this.held.delete(name));
    return opening;
  }

  private async opened(entry: ShopEntry): Promise<Held> {
    const log = this.log.child({ shop: entry.name });
    const databaseUrl = urlOfShop(entry, this.place.ownUrl);
    const connections = connect(databaseUrl, log, sizeOfShop);
    try {
      await untilAnswers(connections.primary, connections.pool, () => undefined, patienceMilliseconds);
    } catch (error) {
      await Promise.all([connections.pool.end(), connections.primary.close()]);
      throw error;
    }
    const address = this.place.addressOf(entry.name);
    const place = {
      databaseUrl,
      readUrl: '',
      dataFolder: join(this.place.dataFolder, 'shops', entry.name),
      address,
      network: null,
      names: this.place.bases.map((base) => `${entry.name}.${base}`),
    };
    const shop = openShop(connections, place, this.shared, log);
    shop.keep();
    return { entry, shop, answering: new Set(), lastAsked: Date.now() };
  }

  /** What the command changed: shops that went, were shut or lead elsewhere are let go at once. */
  private async follow(): Promise<void> {
    this.entries = await readShops(this.place.registryPath);
    for (const [name, opening] of this.held) {
      const entry = this.entryOf(name);
      const held = await opening.catch(() => null);
      if (held !== null && (entry?.state !== 'open' || entry.place !== held.entry.place)) await this.letGo(name, held);
    }
  }

  /** What is being answered is cut: it is asked again, and done once. */
  private async letGo(name: string, { shop, answering }: Held): Promise<void> {
    // Whoever comes second finds it gone.
    if (!this.held.delete(name)) return;
    await shop.halt();
    for (const response of answering) response.destroy();
    await shop.end();
  }

  private async letGoIdle(): Promise<void> {
    const before = Date.now() - this.rest.after;
    for (const [name, opening] of this.held) {
      const held = await opening.catch(() => null);
      if (held === null || held.answering.size > 0 || held.lastAsked > before) continue;
      const needed = await held.shop.sweeps.areNeeded().catch(() => true);
      if (!needed && held.answering.size === 0) await this.letGo(name, held);
    }
  }

  /** A load that an earlier run left on is switched off whether or not anybody asks for its shop. */
  private async seeToLoads(): Promise<void> {
    const rest = this.entries.filter(({ state }) => state === 'open');
    while (rest.length > 0)
      await Promise.all(rest.splice(0, lookedAtTogether).map((entry) => this.seeToLoadsOf(entry)));
  }

  private async seeToLoadsOf(entry: ShopEntry): Promise<void> {
    const log = this.log.child({ shop: entry.name });
    const { primary, pool } = connect(urlOfShop(entry, this.place.ownUrl), log, { ...sizeOfShop, most: 1 });
    try {
      await untilAnswers(primary, pool, () => undefined);
      // An open shop switches them off by itself, and stays open until it has.
      if (await new Sweeps(pool, log).areNeeded()) await this.open(entry.name);
    } catch (error) {
      log.error({ err: error }, 'loads left by an earlier run were not looked at');
    } finally {
      await Promise.all([pool.end(), primary.close()]);
    }
  }

  /** Switches all loads off. */
  async halt(): Promise<void> {
    clearInterval(this.looking);
    unwatchFile(this.place.registryPath);
    await this.each((held) => held.shop.halt());
  }

  async end(): Promise<void> {
    await this.each((held) => held.shop.end());
  }

  private async each(work: (held: Held) => Promise<unknown>): Promise<void> {
    await Promise.all([...this.held.values()].map(async (opening) => opening.then(work, () => undefined)));
  }
}

/** Whoever asks without a shop's name: whether the process lives, or how a shop is named. */
function answerWithoutShop(request: Request, response: Response): void {
  if (request.path === '/api/health') response.json({ status: 'ready', pid: process.pid });
  else
    throw new HttpProblem(
      404,
      'which-shop',
      'Several shops are served here, each under its own name before this address, such as name.localhost',
    );
}
