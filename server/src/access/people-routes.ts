import express, { Router, type Request, type Response } from 'express';
import type pg from 'pg';
import {
  auditQuerySchema,
  auditSchema,
  changePersonSchema,
  givenSecretSchema,
  id,
  networkSchema,
  newPersonSchema,
  peopleSchema,
  roleText,
  signingSchema,
  type Network,
  type Role,
} from '@fairwatt/contract';
import { transaction } from '../database/query.ts';
import { HttpProblem, parseInput } from '../problems.ts';
import { nextTechnicianId } from '../shop/store.ts';
import { readAudit } from './audit.ts';
import { chosenSecret } from './chosen-secret.ts';
import { deviceRoutes } from './device-routes.ts';
import { audit, isFromHere } from './gate.ts';
import { changePerson, endSessions, isOwnerless, personNamed, readPeople, standingOf, writeSecret } from './people.ts';
import { nameTaken, nobody } from './refusals.ts';
import type { Secrets } from './secrets.ts';
import { sessionRoutes } from './session-routes.ts';
import { writeSigning, type KnownAccess } from './state.ts';

/** Why a person is not changed. */
function refusedChange(kind: Exclude<Awaited<ReturnType<typeof changePerson>>['kind'], 'done'>, name: string) {
  switch (kind) {
    case 'unknown':
      return nobody();
    case 'name-taken':
      return nameTaken(name);
    case 'last-owner':
      return new HttpProblem(409, 'last-owner', 'Somebody else is made an owner first, with a secret', {
        errors: [{ path: 'role', message: 'is the last owner' }],
      });
    case 'stale':
      return new HttpProblem(409, 'stale', 'Somebody changed this person since you saw it');
  }
}

/** How people sign: with a secret, or by picking their name. */
function signingRoute(pool: pg.Pool, access: KnownAccess, secrets: Secrets, now: () => string): Router {
  const router = Router();
  router.put('/signing', express.json({ limit: '4kb' }), async (request, response) => {
    const { signing } = parseInput(signingSchema, request.body, 'How people sign');
    if (signing === 'picked') {
      const others = (await readPeople(pool, secrets)).filter((person) => person.role !== 'none').length;
      if (others > 1 || !isFromHere(request))
        throw new HttpProblem(
          409,
          'not-alone',
          'Only a shop of one person goes without secrets, and it is said on the machine itself',
        );
    } else if (await isOwnerless(pool, secrets))
      throw new HttpProblem(409, 'ownerless', 'An owner gets a secret first, or nobody could sign in');
    await writeSigning(pool, signing);
    access.forget();
    await audit(pool, request, now(), 'signing-changed', signing);
    response.status(204).end();
  });
  return router;
}

/** What an owner says of people, devices and how people sign, and what was done about all that. */
export function peopleRoutes(
  pool: pg.Pool,
  access: KnownAccess,
  secrets: Secrets,
  now: () => string,
  network: Network,
): Router {
  const router = Router();
  const body = express.json({ limit: '4kb' });
  const people = async (response: Response, status = 200) => {
    response.status(status).json(peopleSchema.parse(await readPeople(pool, secrets)));
  };
  const personIn = (request: Request) => parseInput(id, request.params['id'], 'The person');
  const nameOf = async (person: string): Promise<string> => (await standingOf(pool, person))?.name ?? person;

  router.get('/people', async (_request, response) => people(response));

  router.post('/people', body, async (request, response) => {
    const { name, role, secret } = parseInput(newPersonSchema, request.body, 'The person');
    if (secret !== null) await chosenSecret(pool, secret, [name]);
    await transaction(pool, async (db) => {
      await db.query('lock table technician in share row exclusive mode');
      if ((await personNamed(db, name)) !== null) throw nameTaken(name);
      const made = await nextTechnicianId(db, name);
      await db.query('insert into technician (id, name, role) values ($1, $2, $3)', [made, name, role satisfies Role]);
      if (secret !== null) await writeSecret(db, secrets, made, secret, now());
      await audit(db, request, now(), 'person-added', `${name}, ${roleText[role].name.toLowerCase()}`);
    });
    await people(response, 201);
  });

  router.put('/people/:id', body, async (request, response) => {
    const wanted = parseInput(changePersonSchema, request.body, 'The person');
    const person = personIn(request);
    const { kind } = await changePerson(pool, secrets, person, wanted);
    if (kind !== 'done') throw refusedChange(kind, wanted.name);
    const about = `${wanted.name}, ${roleText[wanted.role].name.toLowerCase()}`;
    await audit(pool, request, now(), 'person-changed', about);
    await people(response);
  });

  router.put('/people/:id/secret', body, async (request, response) => {
    const { secret } = parseInput(givenSecretSchema, request.body, 'The secret');
    const person = personIn(request);
    const known = await standingOf(pool, person);
    if (known === null || known.role === 'none') throw nobody();
    await chosenSecret(pool, secret, [known.name]);
    await transaction(pool, async (db) => {
      await writeSecret(db, secrets, person, secret, now());
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

  router.use('/devices', deviceRoutes(pool, now));
  router.use('/sessions', sessionRoutes(pool, now));

  router.use(signingRoute(pool, access, secrets, now));

  router.get('/network', (_request, response) => {
    response.json(networkSchema.parse(network));
  });

  router.get('/audit', async (request, response) => {
    const { before } = parseInput(auditQuerySchema, request.query, 'The query');
    response.json(auditSchema.parse(await readAudit(pool, before ?? null)));
  });
  return router;
}
