import express, { Router, type Request, type Response } from 'express';
import { rateLimit } from 'express-rate-limit';
import type pg from 'pg';
import type { z } from 'zod';
import {
  accessSchema,
  enrolSchema,
  ownerMessageSchema,
  ownSecretSchema,
  signInSchema,
  type Access,
} from '@fairwatt/contract';
import { transaction, type Queryable } from '../database/query.ts';
import { HttpProblem, parseInput } from '../problems.ts';
import { readSettings, writeSettings } from '../shop/store.ts';
import { addAudit } from './audit.ts';
import { askForDevice, deviceOf, enrol, type KnownDevice } from './devices.ts';
import { audit, whoAsks } from './gate.ts';
import { endSessions, isOwnerless, makeOwner, owners, signIn, standingOf, whoSignsIn, writeSecret } from './people.ts';
import { nameTaken, nobody, refusedSignIn } from './refusals.ts';
import { chosenSecret } from './chosen-secret.ts';
import type { Secrets } from './secrets.ts';
import { beginSession, cookieName, endSession, sessionCookie } from './sessions.ts';
import { type KnownAccess } from './state.ts';

const deviceCookie = (request: Request): string => cookieName('fairwatt-device', request.secure);
const deviceDays = 400;

async function nameShop(db: Queryable, said: { readonly name: string; readonly codePrefix: string }): Promise<void> {
  const settings = await readSettings(db);
  await writeSettings(db, {
    ...settings,
    name: said.name === '' ? settings.name : said.name,
    codePrefix: said.codePrefix === '' ? settings.codePrefix : said.codePrefix,
  });
}

export interface WayIn {
  readonly pool: pg.Pool;
  readonly access: KnownAccess;
  readonly secrets: Secrets;
  readonly now: () => string;
  /** So many that are refused may come from one address in a minute. */
  readonly mostTries: number;
}

/** Only those that are refused count. */
const triesAtMost = (limit: number) =>
  rateLimit({
    windowMs: 60_000,
    limit,
    skipSuccessfulRequests: true,
    standardHeaders: false,
    legacyHeaders: false,
    handler: () => {
      throw new HttpProblem(429, 'too-many-tries', 'Too many tries from here; wait a minute');
    },
  });

const deviceHere = ({ pool, now }: WayIn, request: Request): Promise<KnownDevice | null> =>
  deviceOf(pool, (request.cookies as Record<string, string | undefined>)[deviceCookie(request)], now());

const becomeDevice = (request: Request, response: Response, token: string) =>
  response.cookie(deviceCookie(request), token, {
    httpOnly: true,
    sameSite: 'strict',
    secure: request.secure,
    maxAge: deviceDays * 86_400_000,
    path: '/',
  });

/** Who asks, and what the way in shows of the shop. */
async function accessOf(way: WayIn, request: Request): Promise<Access> {
  const { pool, access, secrets } = way;
  const [{ signing }, ownerless, device, settings] = await Promise.all([
    access.get(),
    isOwnerless(pool, secrets),
    deviceHere(way, request),
    readSettings(pool),
  ]);
  const { person, name, role } = request.session;
  const signedIn = person !== undefined && name !== undefined && role !== undefined;
  return accessSchema.parse({
    signing,
    ownerless,
    device: device?.name ?? null,
    person: signedIn ? { id: person, name, role } : null,
    names: ownerless ? await owners(pool) : device === null ? [] : await whoSignsIn(pool, secrets),
    shop: settings.name,
  });
}

/** The message as it was read, with what was left out filled in. */
type OwnerWanted = z.output<typeof ownerMessageSchema>;

/** Makes the first owner, names the shop and takes the device in, all of it or nothing. */
async function firstOwner({ pool, secrets, now }: WayIn, wanted: OwnerWanted) {
  const known = wanted.person === null ? null : await standingOf(pool, wanted.person);
  await chosenSecret(pool, wanted.secret, [known?.name ?? wanted.name]);
  return transaction(pool, async (db) => {
    const outcome = await makeOwner(db, secrets, wanted, now());
    if (outcome.kind !== 'made') return outcome;
    if (wanted.shop !== null) await nameShop(db, wanted.shop);
    const { code } = await askForDevice(db, wanted.device, outcome.person.id, now());
    await addAudit(db, {
      at: now(),
      by: outcome.person.name,
      device: wanted.device,
      kind: 'owner-made',
      about: `${outcome.person.name}, by the code of the console`,
    });
    return { ...outcome, enrolled: await enrol(db, code, now()) };
  });
}

type OwnerRefusal = Exclude<Awaited<ReturnType<typeof firstOwner>>['kind'], 'made'>;

/** Why there is no first owner. */
function refusedOwner(kind: OwnerRefusal, name: string): HttpProblem {
  switch (kind) {
    case 'no-name':
      return new HttpProblem(422, 'invalid', 'The first owner is not valid', {
        errors: [{ path: 'name', message: 'must not be empty' }],
      });
    case 'unknown-person':
      return nobody();
    case 'name-taken':
      return nameTaken(name);
    case 'wrong-code':
      return new HttpProblem(403, 'wrong-code', 'This is not the code that stands on the console', {
        errors: [{ path: 'code', message: 'is not the one of the console, or was used' }],
      });
  }
}

/** The way in: the first owner, signing in and out, enrolling a device, and one's own secret. */
export function wayInRoutes(way: WayIn): Router {
  const { pool, access, secrets, now, mostTries } = way;
  const router = Router();
  const body = express.json({ limit: '4kb' });
  const tries = triesAtMost(mostTries);
  router.get('/', async (request, response) => {
    response.json(await accessOf(way, request));
  });

  router.post('/owner', tries, body, async (request, response) => {
    const wanted = parseInput(ownerMessageSchema, request.body, 'The first owner');
    const made = await firstOwner(way, wanted);
    if (made.kind !== 'made') throw refusedOwner(made.kind, wanted.name);
    if (made.enrolled !== null) becomeDevice(request, response, made.enrolled.token);
    await beginSession(request, made.person, made.enrolled?.device ?? null);
    access.forget();
    response.status(201).json({ person: made.person });
  });

  router.post('/session', tries, body, async (request, response) => {
    const { name, secret } = parseInput(signInSchema, request.body, 'The sign-in');
    const device = await deviceHere(way, request);
    const outcome = await signIn(pool, secrets, name, secret, device !== null, now());
    const told = { at: now(), by: null, device: device?.name ?? null };
    if (outcome.kind !== 'in') {
      if (outcome.kind === 'wrong') await addAudit(pool, { ...told, kind: 'sign-in-refused', about: name.trim() });
      if (outcome.kind === 'wrong' && outcome.lockedNow)
        await addAudit(pool, { ...told, kind: 'locked', about: `${name.trim()}, after ten tries` });
      throw device === null
        ? refusedSignIn(outcome, 'Name and secret do not fit; on a device that is not enrolled a PIN is not enough')
        : refusedSignIn(outcome);
    }
    await addAudit(pool, { ...told, by: outcome.person.name, kind: 'signed-in', about: outcome.person.role });
    await beginSession(request, outcome.person, device);
    response.status(201).json({ person: outcome.person });
  });

  router.delete('/session', async (request, response) => {
    const { name } = request.session;
    if (name !== undefined) {
      await addAudit(pool, { at: now(), by: name, device: null, kind: 'signed-out', about: name });
      await endSession(request);
    }
    response.clearCookie(sessionCookie(request), { path: '/', secure: request.secure }).status(204).end();
  });

  router.post('/device', tries, body, async (request, response) => {
    const { code } = parseInput(enrolSchema, request.body, 'The code');
    const enrolled = await enrol(pool, code, now());
    if (enrolled === null)
      throw new HttpProblem(403, 'wrong-code', 'This code is not one of ours, or its ten minutes are over', {
        errors: [{ path: 'code', message: 'is not one, or no longer' }],
      });
    await addAudit(pool, {
      at: now(),
      by: null,
      device: enrolled.device.name,
      kind: 'device-enrolled',
      about: enrolled.device.name,
    });
    becomeDevice(request, response, enrolled.token).status(201).json({ name: enrolled.device.name });
  });

  router.put('/secret', tries, body, async (request, response) => {
    const { was, secret } = parseInput(ownSecretSchema, request.body, 'The secret');
    const person = whoAsks(request);
    await chosenSecret(pool, secret, [person.name]);
    const outcome = await signIn(pool, secrets, person.name, was, true, now());
    if (outcome.kind !== 'in') throw refusedSignIn(outcome, 'The secret that you have now does not fit', 'was');
    await transaction(pool, async (db) => {
      await writeSecret(db, secrets, person.id, secret, now());
      await endSessions(db, person.id, request.sessionID);
      await audit(db, request, now(), 'secret-changed', person.name);
    });
    response.status(204).end();
  });
  return router;
}
