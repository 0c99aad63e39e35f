import compression from 'compression';
import cookieParser from 'cookie-parser';
import express, { Router, type Express, type RequestHandler } from 'express';
import helmet from 'helmet';
import type pg from 'pg';
import type { Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import type { Network } from '@fairwatt/contract';
import type { Model } from '@fairwatt/core';
import {
  gate,
  isLoopback,
  KnownAccess,
  peopleRoutes,
  Secrets,
  SessionWatch,
  sessions,
  wayInRoutes,
} from './access/index.ts';
import { cableBagRoutes } from './cable-bags/routes.ts';
import type { ChangeFeed } from './changes/feed.ts';
import { changeRoutes } from './changes/routes.ts';
import type { ClockWatch } from './health/clock-watch.ts';
import { Reading } from './database/reading.ts';
import { healthRoutes } from './health/routes.ts';
import { watchDangers } from './instruments/danger-watch.ts';
import { instrumentRoutes } from './instruments/routes.ts';
import { Sweeps } from './instruments/sweep.ts';
import { labelPrinterRoutes, paperRoutes } from './jobs/paper-routes.ts';
import { photoRoutes } from './jobs/photo-routes.ts';
import { jobRoutes } from './jobs/routes.ts';
import type { StationKeeper } from './jobs/station-keeper.ts';
import { keepOtherPagesOut } from './other-pages.ts';
import { errorHandler, notFoundHandler } from './problems.ts';
import { giveNonce, nonceSource, screenRoutes } from './screens.ts';
import { shopRoutes } from './shop/routes.ts';
import { recordRoutes } from './record/routes.ts';
import type { Workers } from './workers/workers.ts';
import { supplyRoutes } from './supplies/routes.ts';

/**
 * A certificate from elsewhere is held to for a year. The one that is made here is not: where its authority is lost, a
 * phone that holds to it would not even be told that.
 */
const hstsSeconds = 365 * 86_400;

/** Where a phone fetches the authority that it is to trust. */
export const rootPath = '/fair-watt-root.crt';

export interface OnNetwork {
  readonly told: Network;
  /** Names beside addresses in figures under which it is called there. */
  readonly names: readonly string[];
  /** The authority that phones install, in PEM; null where the certificate is from elsewhere. */
  readonly root: string | null;
}

export interface AppParts {
  readonly pool: pg.Pool;
  /** Where lists and reports are read; at the database itself otherwise. */
  readonly reading?: Reading;
  /** What changes in the database. */
  readonly feed: ChangeFeed;
  readonly model: Model;
  /** Threads for what takes long; who started them ends them. */
  readonly workers: Workers;
  /** What jobs' stations say in lists; it may be told of changes, so that lists find it made. */
  readonly keeper: StationKeeper;
  readonly log: Logger;
  /** The built screens; null serves the API alone. */
  readonly webDirectory: string | null;
  /** Where a phone reaches the application, for the codes on tags; where the request came in otherwise. */
  readonly address?: string | null;
  /** More host names under which it is answered, beside those of address and network. */
  readonly names?: readonly string[];
  readonly now?: () => string;
  /** Load sweeps, so that whoever stops the server can end them first. */
  readonly sweeps?: Sweeps;
  readonly version?: string;
  /** Where the command keeps its data, for the state that an owner sees. */
  readonly dataFolder?: string | null;
  readonly clock?: ClockWatch | null;
  /** How secrets are kept. */
  readonly secrets?: Secrets;
  /** So many sign-ins that are refused may come from one address in a minute. */
  readonly refusedSignInsAMinute?: number;
  /** How other devices reach it, where it listens to them. */
  readonly network?: OnNetwork | null;
}

/** Every request in the log, without what it asked for. */
const requestLog = (logger: Logger): RequestHandler =>
  pinoHttp({
    logger,
    autoLogging: { ignore: (request) => request.url?.startsWith('/assets/') ?? false },
    redact: ['req.headers.cookie', 'res.headers["set-cookie"]'],
    serializers: {
      // What was searched for may be somebody's name or number.
      req: (request: { method: string; url: string }) => ({
        method: request.method,
        url: request.url.replace(/\?.*/s, ''),
      }),
      res: (response: { statusCode: number }) => ({ status: response.statusCode }),
    },
  });

/** What a page of this application may load, and whether browsers hold to TLS. */
const safeHeaders = (network: OnNetwork | null): RequestHandler =>
  helmet({
    contentSecurityPolicy: {
      directives: {
        // What reads print in a picture is WebAssembly; it comes from here like every other script.
        'script-src': ["'self'", "'wasm-unsafe-eval'"],
        'style-src': ["'self'", nonceSource],
        'img-src': ["'self'", 'data:', 'blob:'],
        'upgrade-insecure-requests': null,
      },
    },
    strictTransportSecurity:
      network !== null && network.root === null ? { maxAge: hstsSeconds, includeSubDomains: false } : false,
  });

/** Events that are streamed are not held back to be pressed together, and on the way within one machine nothing is. */
const pressed = (): RequestHandler =>
  compression({
    filter: (request, response) =>
      !isLoopback(request.ip) &&
      !String(response.getHeader('content-type')).startsWith('text/event-stream') &&
      compression.filter(request, response),
  });

/** Nothing of the API is a page: what is opened by its address is saved, but for papers and pictures, which say so. */
const noPage: RequestHandler = (_request, response, next) => {
  response.set('cache-control', 'no-store');
  response.set('content-disposition', 'attachment');
  next();
};

/** What `createApp` was given, with what it takes where nothing was said. */
type Given = Required<AppParts>;

function apiRoutes({
  pool,
  reading,
  feed,
  model,
  workers,
  keeper,
  log,
  now,
  sweeps,
  secrets,
  ...given
}: Given): Router {
  const api = Router();
  const access = new KnownAccess(pool, feed);
  const watch = new SessionWatch(pool, feed, log);
  const { version, dataFolder, clock, network, address, refusedSignInsAMinute } = given;
  api.use(noPage);
  api.use(sessions(pool, access));
  api.use(gate(pool, access, log, now));
  // What is asked for most comes first: each router before it is asked whether the request is its own.
  api.use('/jobs', jobRoutes({ pool, reading, model, workers, keeper, secrets, now }));
  api.use('/health', healthRoutes({ pool, sweeps, version, dataFolder, clock }));
  api.use('/access', cookieParser(), wayInRoutes({ pool, access, secrets, now, mostTries: refusedSignInsAMinute }));
  api.use('/access', peopleRoutes(pool, access, secrets, now, network?.told ?? null));
  api.use('/shop', shopRoutes(pool));
  api.use('/supplies', supplyRoutes(pool, reading, now));
  api.use('/cable-bags', cableBagRoutes(pool, now));
  api.get('/knowledge', (_request, response) => {
    response.json(model.shipped);
  });
  api.use('/instruments', instrumentRoutes(pool, model, sweeps, watch));
  api.use('/record', recordRoutes(pool, reading, now));
  api.use('/label-printer', labelPrinterRoutes(pool));
  api.use('/', changeRoutes(pool, feed, watch, now));
  api.use('/jobs', photoRoutes(pool, now));
  api.use('/jobs', paperRoutes(pool, workers, address));
  api.use(notFoundHandler);
  return api;
}

/** Application and API in one Express app. */
export function createApp(parts: AppParts): Express {
  const { pool, log } = parts;
  const given: Given = {
    address: null,
    names: [],
    version: 'unknown',
    dataFolder: null,
    clock: null,
    network: null,
    refusedSignInsAMinute: 30,
    now: () => new Date().toISOString(),
    ...parts,
    reading: parts.reading ?? new Reading(pool, null, log),
    sweeps: parts.sweeps ?? new Sweeps(pool, log),
    secrets: parts.secrets ?? new Secrets(null),
  };
  const { address, names, network, webDirectory } = given;
  watchDangers(pool, given.model, given.feed, given.sweeps, log);
  const app = express();
  app.disable('x-powered-by');
  // What a browser may keep has a tag of its own (shop/tagged.ts); of everything else none is made from its content.
  app.disable('etag');
  // A proxy of this machine says who asked, and whether by TLS; nobody else is believed.
  app.set('trust proxy', 'loopback');
  app.use(requestLog(log));
  app.use(keepOtherPagesOut([...(address === null ? [] : [address]), ...(network?.names ?? []), ...names]));
  app.use(giveNonce);
  app.use(safeHeaders(network));
  app.use(pressed());
  app.use('/api', apiRoutes(given));
  const root = network?.root ?? null;
  if (root !== null)
    app.get(rootPath, (_request, response) => {
      response.attachment('fair-watt-root.crt').type('application/x-x509-ca-cert').send(Buffer.from(root));
    });
  if (webDirectory !== null) app.use(screenRoutes(webDirectory));
  app.use(notFoundHandler);
  app.use(errorHandler(log));
  return app;
}
