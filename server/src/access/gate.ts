import type { Request, RequestHandler } from 'express';
import type pg from 'pg';
import type { Logger } from 'pino';
import { z } from 'zod';
import type { Act } from '@fairwatt/core';
import {
  actPermissions,
  endpointOf,
  mostActsTogether,
  permissions,
  roleMay,
  roleText,
  type AuditKind,
  type Permission,
  type Signing,
  type Standing,
} from '@fairwatt/contract';
import type { Queryable } from '../database/query.ts';
import { HttpProblem, noTechnician, notOwner, parseInput } from '../problems.ts';
import { addAudit } from './audit.ts';
import { standingOf, type Somebody } from './people.ts';
import { sessionOf } from './sessions.ts';
import type { KnownAccess } from './state.ts';

/** Who a request is from, and what its endpoint needs. */
interface Asking {
  readonly signing: Signing;
  readonly needs: Permission | 'anyone';
  /** The one who signed in; where names are picked, the one whom the request names, null where it names nobody. */
  readonly person: Somebody | null;
  readonly device: string | null;
}

const askings = new WeakMap<Request, Asking>();
const askingOf = (request: Request): Asking => {
  const asking = askings.get(request);
  if (asking === undefined) throw new Error('this request did not come through the gate');
  return asking;
};

/** Where names are picked, a screen says by this header whose name is picked. */
export const personHeader = 'fairwatt-person';

export const isLoopback = (address: string | undefined): boolean =>
  address !== undefined && /^(::1|(::ffff:)?127\.)/.test(address);

/** Whether a request came from this machine itself: plainly, and not through something that passed it on. */
export const isFromHere = (request: Request): boolean =>
  !request.secure &&
  isLoopback(request.socket.remoteAddress) &&
  request.get('x-forwarded-for') === undefined &&
  request.get('forwarded') === undefined;

export const notSignedIn = () => new HttpProblem(401, 'sign-in', 'Sign in first; what you typed is kept');
const rolesNamed = (permission: Permission) =>
  permissions[permission].roles.map((role) => roleText[role].name.toLowerCase()).join(', ');

/** @throws HttpProblem when somebody of this role may not */
export function demand(role: Standing, permission: Permission): void {
  if (roleMay(role, permission)) return;
  if (permission === 'own') throw notOwner('Only an owner does this');
  throw new HttpProblem(403, 'not-allowed', `Your role may not: ${permissions[permission].what}`, {
    detail: `Allowed to: ${rolesNamed(permission)}. Somebody of these signs in, or switches in at the top right.`,
  });
}

async function personOf(request: Request, pool: pg.Pool, signing: Signing): Promise<Somebody | null> {
  if (signing === 'secret') {
    const { person, name, role } = sessionOf(request);
    return person === undefined ? null : { id: person, name: name ?? person, role: role ?? 'none' };
  }
  const picked = request.get(personHeader);
  return picked === undefined ? null : standingOf(pool, picked);
}

/**
 * Lets through what the matrix allows, and nothing else: an endpoint that the matrix does not name is not answered.
 * Comes after the sessions.
 */
export function gate(pool: pg.Pool, access: KnownAccess, log: Logger, now: () => string): RequestHandler {
  return async (request, response, next) => {
    const endpoint = endpointOf(request.method, request.path);
    if (endpoint === null)
      throw new HttpProblem(404, 'not-found', 'There is nothing here', { detail: request.originalUrl });
    const { signing } = await access.get();
    if (signing === 'picked' && endpoint.path !== '/health' && !isFromHere(request))
      throw new HttpProblem(
        403,
        'this-machine-only',
        'Names are picked without a secret here, so only the machine itself is answered',
      );
    const open = endpoint.needs === 'anyone' && endpoint.path === '/health';
    const person = open ? null : await personOf(request, pool, signing);
    const device = signing === 'secret' && !open ? (sessionOf(request).deviceName ?? null) : null;
    askings.set(request, { signing, needs: endpoint.needs, person, device });
    if (endpoint.needs !== 'anyone') {
      if (person !== null) demand(person.role, endpoint.needs);
      // What is said of people says nobody's name in its message.
      else if (signing === 'secret' || endpoint.path.startsWith('/access/')) throw notSignedIn();
    }
    const { told } = endpoint;
    if (told !== undefined)
      response.once('finish', () => {
        if (response.statusCode < 400)
          void audit(pool, request, now(), told, `${request.method} ${request.originalUrl.replace(/\?.*/, '')}`).catch(
            (error: unknown) => log.error({ err: error }, 'a line of the audit was not written'),
          );
      });
    next();
  };
}

/** Nobody writes under another name than the one that signed in. @throws HttpProblem 403 */
export function holdToPerson(request: Request, by: string): void {
  const { signing, person } = askingOf(request);
  if (signing === 'secret' && person?.id !== by)
    throw new HttpProblem(403, 'not-you', 'This was made under another name; it waits until that person signs in', {
      errors: [{ path: 'by', message: 'is not who signed in' }],
    });
}

/**
 * Holds a message to the one who signed in: nobody writes under another name. Where names are picked, the name in the
 * message is the one that was picked, and its role counts.
 * @throws HttpProblem 403
 */
async function holdTo(db: Queryable, request: Request, by: string): Promise<void> {
  holdToPerson(request, by);
  const { signing, needs } = askingOf(request);
  if (signing === 'secret') return;
  const named = await standingOf(db, by);
  if (named === null || named.role === 'none') throw noTechnician();
  askings.set(request, { ...askingOf(request), person: named });
  if (needs !== 'anyone') demand(named.role, needs);
}

/** Parses a message that says who made it, and holds it to that. */
export async function signedInput<T extends { readonly by: string }>(
  db: Queryable,
  request: Request,
  schema: z.ZodType<T>,
  input: unknown,
  what: string,
): Promise<T> {
  const parsed = parseInput(schema, input, what);
  await holdTo(db, request, parsed.by);
  return parsed;
}

const actKind = z.object({ act: z.object({ kind: z.enum(Object.keys(actPermissions) as [Act['kind']]) }) });
const severalActs = z.object({ messages: z.array(z.unknown()).max(mostActsTogether) });

/** Whether this person may do such an act at all, before it is looked at more closely. @throws HttpProblem 403 */
export function demandAct(request: Request, body: unknown): void {
  const { person } = askingOf(request);
  const { data } = actKind.safeParse(body);
  if (person !== null && data !== undefined) demand(person.role, actPermissions[data.act.kind]);
}

/** The same of acts that come together: one that this person may not do, and none of them is done. */
export function demandActs(request: Request, body: unknown): void {
  for (const message of severalActs.safeParse(body).data?.messages ?? []) demandAct(request, message);
}

/** Who asks, for what belongs to nobody else. @throws HttpProblem 401 where nobody is named */
export function whoAsks(request: Request): Somebody {
  const { person } = askingOf(request);
  if (person === null) throw notSignedIn();
  return person;
}

/** A line for the owner to look up. */
export async function audit(
  db: Queryable,
  request: Request,
  at: string,
  kind: AuditKind,
  about: string,
): Promise<void> {
  const { person, device } = askingOf(request);
  await addAudit(db, { at, by: person?.name ?? null, device, kind, about });
}
