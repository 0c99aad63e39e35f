import express, { Router, type Request, type Response } from 'express';
import { rateLimit } from 'express-rate-limit';
import type pg from 'pg';
import {
  accessSchema,
  auditQuerySchema,
  auditSchema,
  changePersonSchema,
  devicesSchema,
  enrolmentSchema,
  enrolSchema,
  givenSecretSchema,
  id,
  networkSchema,
  newDeviceSchema,
  newPersonSchema,
  ownerMessageSchema,
  ownSecretSchema,
  peopleSchema,
  roleText,
  signingSchema,
  signInSchema,
  uuid,
  type Access,
  type Network,
  type Role,
} from '@fairwatt/contract';
import { transaction, type Queryable } from '../database/query.ts';
import { HttpProblem, parseInput } from '../problems.ts';
import { nextTechnicianId, readSettings, writeSettings } from '../shop/store.ts';
import { addAudit, readAudit } from './audit.ts';
import { askForDevice, deviceOf, endDevice, enrol, readDevices, type KnownDevice } from './devices.ts';
import { audit, isFromHere, whoAsks } from './gate.ts';
import {
  changePerson,
  endSessions,
  isOwnerless,
  makeOwner,
  owners,
  personNamed,
  readPeople,
  signIn,
  standingOf,
  whoSignsIn,
  writeSecret,
} from './people.ts';
import { asRead } from './secrets.ts';
import { beginSession, endSession } from './sessions.ts';
import { writeSigning, type KnownAccess } from './state.ts';

const deviceCookie = 'fairwatt-device';
const deviceDays = 400;

const nobody = () => new HttpProblem(404, 'no-such-person', 'There is nobody of this name here');
const nameTaken = (name: string) =>
  new HttpProblem(409, 'name-taken', `${name} is already among the people of this shop`, {
    errors: [{ path: 'name', message: 'already here' }],
  });

async function nameShop(db: Queryable, said: { readonly name: string; readonly codePrefix: string }): Promise<void> {
  const settings = await readSettings(db);
  await writeSettings(db, {
    ...settings,
    name: said.name === '' ? settings.name : said.name,
    codePrefix: said.codePrefix === '' ? settings.codePrefix : said.codePrefix,
  });
}

/** The way in, and what an owner says of people and devices. */
export function accessRoutes(
  pool: pg.Pool,
  access: KnownAccess,
  now: () => string,
  mostTries: number,
  network: Network,
): Router {
  const router = Router();
  const body = express.json({ limit: '4kb' });
  const tries = rateLimit({
    windowMs: 60_000,
    limit: mostTries,
    // Only those that are refused count.
    skipSuccessfulRequests: true,
    standardHeaders: false,
    legacyHeaders: false,
    handler: () => {
      throw new HttpProblem(429, 'too-many-tries', 'Too many tries from here; wait a minute');
    },
  });
  const deviceHere = (request: Request): Promise<KnownDevice | null> =>
    deviceOf(pool, (request.cookies as Record<string, string | undefined>)[deviceCookie], now());
  const becomeDevice = (request: Request, response: Response, token: string) =>
    response.cookie(deviceCookie, token, {
      httpOnly: true,
      sameSite: 'strict',
      secure: request.secure,
      maxAge: deviceDays * 86_400_000,
      path: '/',
    });

  async function accessOf(request: Request): Promise<Access> {
    const [{ signing }, ownerless, device, settings] = await Promise.all([
      access.get(),
      isOwnerless(pool),
      deviceHere(request),
      readSettings(pool),
    ]);
    const { person, name, role } = request.session;
    const signedIn = person !== undefined && name !== undefined && role !== undefined;
    return accessSchema.parse({
      signing,
      ownerless,
      device: device?.name ?? null,
      person: signedIn ? { id: person, name, role } : null,
      names: ownerless ? await owners(pool) : device === null ? [] : await whoSignsIn(pool),
      shop: settings.name,
    });
  }

  router.get('/', async (request, response) => {
    response.json(await accessOf(request));
  });

  router.post('/owner', tries, body, async (request, response) => {
    const wanted = parseInput(ownerMessageSchema, request.body, 'The first owner');
    const made = await transaction(pool, async (db) => {
      const outcome = await makeOwner(db, wanted, now());
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
    switch (made.kind) {
      case 'no-name':
        throw new HttpProblem(422, 'invalid', 'The first owner is not valid', {
          errors: [{ path: 'name', message: 'must not be empty' }],
        });
      case 'unknown-person':
        throw nobody();
      case 'name-taken':
        throw nameTaken(wanted.name);
      case 'wrong-code':
        throw new HttpProblem(403, 'wrong-code', 'This is not the code that stands on the console', {
          errors: [{ path: 'code', message: 'is not the one of the console, or was used' }],
        });
      case 'made':
        if (made.enrolled !== null) becomeDevice(request, response, made.enrolled.token);
        await beginSession(request, made.person, made.enrolled?.device ?? null);
        access.forget();
        response.status(201).json({ person: made.person });
    }
  });

  router.post('/session', tries, body, async (request, response) => {
    const { name, secret } = parseInput(signInSchema, request.body, 'The sign-in');
    const device = await deviceHere(request);
    const outcome = await signIn(pool, name, secret, device !== null, now());
    const told = { at: now(), by: null, device: device?.name ?? null };
    switch (outcome.kind) {
      case 'wrong':
        await addAudit(pool, { ...told, kind: 'sign-in-refused', about: name.trim() });
        if (outcome.lockedNow)
          await addAudit(pool, { ...told, kind: 'locked', about: `${name.trim()}, after ten tries` });
        throw new HttpProblem(
          403,
          'wrong-secret',
          device === null
            ? 'Name and secret do not fit; on a device that is not enrolled a PIN is not enough'
            : 'Name and secret do not fit',
          { errors: [{ path: 'secret', message: 'does not fit' }] },
        );
      case 'paused':
        throw new HttpProblem(429, 'paused', 'Wrong too often; wait a moment before the next try', {
          detail: outcome.until,
        });
      case 'locked':
        throw new HttpProblem(403, 'locked', 'Ten wrong secrets in a row: an owner gives a new one at People');
      case 'in':
        await addAudit(pool, { ...told, by: outcome.person.name, kind: 'signed-in', about: outcome.person.role });
        await beginSession(request, outcome.person, device);
        response.status(201).json({ person: outcome.person });
    }
  });

  router.delete('/session', async (request, response) => {
    const { name } = request.session;
    if (name !== undefined) {
      await addAudit(pool, { at: now(), by: name, device: null, kind: 'signed-out', about: name });
      await endSession(request);
    }
    response.clearCookie('fairwatt', { path: '/' }).status(204).end();
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
    const outcome = await signIn(pool, person.name, was, true, now());
    if (outcome.kind === 'paused')
      throw new HttpProblem(429, 'paused', 'Wrong too often; wait a moment before the next try');
    if (outcome.kind !== 'in')
      throw new HttpProblem(403, 'wrong-secret', 'The secret that you have now does not fit', {
        errors: [{ path: 'was', message: 'does not fit' }],
      });
    await transaction(pool, async (db) => {
      await writeSecret(db, person.id, secret, now());
      await endSessions(db, person.id, request.sessionID);
      await audit(db, request, now(), 'secret-changed', person.name);
    });
    response.status(204).end();
  });

  const people = async (response: Response, status = 200) => {
    response.status(status).json(peopleSchema.parse(await readPeople(pool)));
  };
  const personIn = (request: Request) => parseInput(id, request.params['id'], 'The person');
  const nameOf = async (person: string): Promise<string> => (await standingOf(pool, person))?.name ?? person;

  router.get('/people', async (_request, response) => people(response));

  router.post('/people', body, async (request, response) => {
    const { name, role, secret } = parseInput(newPersonSchema, request.body, 'The person');
    await transaction(pool, async (db) => {
      await db.query('lock table technician in share row exclusive mode');
      if ((await personNamed(db, name)) !== null) throw nameTaken(name);
      const made = await nextTechnicianId(db, name);
      await db.query('insert into technician (id, name, role) values ($1, $2, $3)', [made, name, role satisfies Role]);
      if (secret !== null) await writeSecret(db, made, secret, now());
      await audit(db, request, now(), 'person-added', `${name}, ${roleText[role].name.toLowerCase()}`);
    });
    await people(response, 201);
  });

  router.put('/people/:id', body, async (request, response) => {
    const wanted = parseInput(changePersonSchema, request.body, 'The person');
    const person = personIn(request);
    const { kind } = await changePerson(pool, person, wanted);
    switch (kind) {
      case 'unknown':
        throw nobody();
      case 'name-taken':
        throw nameTaken(wanted.name);
      case 'last-owner':
        throw new HttpProblem(409, 'last-owner', 'Somebody else is made an owner first, with a secret', {
          errors: [{ path: 'role', message: 'is the last owner' }],
        });
      case 'stale':
        throw new HttpProblem(409, 'stale', 'Somebody changed this person since you saw it');
      case 'done':
        await audit(
          pool,
          request,
          now(),
          'person-changed',
          `${wanted.name}, ${roleText[wanted.role].name.toLowerCase()}`,
        );
        await people(response);
    }
  });

  router.put('/people/:id/secret', body, async (request, response) => {
    const { secret } = parseInput(givenSecretSchema, request.body, 'The secret');
    const person = personIn(request);
    const known = await standingOf(pool, person);
    if (known === null || known.role === 'none') throw nobody();
    await transaction(pool, async (db) => {
      await writeSecret(db, person, secret, now());
      await endSessions(db, person, person === request.session.person ? request.sessionID : null);
      await audit(db, request, now(), 'secret-changed', `${known.name}, given anew`);
    });
    await people(response);
  });

  router.delete('/people/:id/sessions', async (request, response) => {
    const person = personIn(request);
    const ended = await endSessions(pool, person, request.sessionID);
    await audit(pool, request, now(), 'sessions-ended', `${ended} of ${await nameOf(person)}`);
    await people(response);
  });

  const devices = async (response: Response) => {
    response.json(devicesSchema.parse(await readDevices(pool)));
  };
  router.get('/devices', async (_request, response) => devices(response));
  router.post('/devices', body, async (request, response) => {
    const { name } = parseInput(newDeviceSchema, request.body, 'The device');
    const { code, until } = await askForDevice(pool, name.trim(), whoAsks(request).id, now());
    await audit(pool, request, now(), 'device-asked', name.trim());
    response.status(201).json(enrolmentSchema.parse({ code: asRead(code), path: `/enrol#${code}`, until }));
  });
  router.delete('/devices/:id', async (request, response) => {
    const name = await endDevice(pool, parseInput(uuid, request.params['id'], 'The device'));
    if (name === null) throw new HttpProblem(404, 'no-such-device', 'This device is not enrolled');
    await audit(pool, request, now(), 'device-ended', name);
    await devices(response);
  });

  router.put('/signing', body, async (request, response) => {
    const { signing } = parseInput(signingSchema, request.body, 'How people sign');
    if (signing === 'picked') {
      const others = (await readPeople(pool)).filter((person) => person.role !== 'none').length;
      if (others > 1 || !isFromHere(request))
        throw new HttpProblem(
          409,
          'not-alone',
          'Only a shop of one person goes without secrets, and it is said on the machine itself',
        );
    } else if (await isOwnerless(pool))
      throw new HttpProblem(409, 'ownerless', 'An owner gets a secret first, or nobody could sign in');
    await writeSigning(pool, signing);
    access.forget();
    await audit(pool, request, now(), 'signing-changed', signing);
    response.json(await accessOf(request));
  });

  router.get('/network', (_request, response) => {
    response.json(networkSchema.parse(network));
  });

  router.get('/audit', async (request, response) => {
    const { before } = parseInput(auditQuerySchema, request.query, 'The query');
    response.json(auditSchema.parse(await readAudit(pool, before ?? null)));
  });
  return router;
}
