import connectPgSimple from 'connect-pg-simple';
import type { Request, RequestHandler } from 'express';
import session, { type SessionData } from 'express-session';
import type pg from 'pg';
import type { Role } from '@fairwatt/contract';
import type { Known } from './people.ts';
import type { KnownDevice } from './devices.ts';
import type { KnownAccess } from './state.ts';

declare module 'express-session' {
  interface SessionData {
    person: string;
    name: string;
    role: Role;
    /** The enrolled device on which it was begun; null elsewhere. */
    device: string | null;
    deviceName: string | null;
  }
}

/** A session ends by itself after a day's work. */
export const sessionHours = 12;

/**
 * What a cookie is called: over TLS so that a browser takes it from this very host alone, whole and by TLS; on the
 * machine itself there is no TLS, and no browser would take such a name.
 */
export const cookieName = (name: string, secure: boolean): string => (secure ? `__Host-${name}` : name);
const sessionName = 'fairwatt';
export const sessionCookie = (request: Request): string => cookieName(sessionName, request.secure);

/** Sessions of browsers, kept in the database, so that any process of the shop knows them and any can end them. */
function sessionsIn(pool: pg.Pool, secret: string, secure: boolean): RequestHandler {
  const Store = connectPgSimple(session);
  return session({
    name: cookieName(sessionName, secure),
    secret,
    resave: false,
    saveUninitialized: false,
    store: new Store({ pool, tableName: 'web_session', disableTouch: true, pruneSessionInterval: false }),
    cookie: { httpOnly: true, sameSite: 'strict', secure, maxAge: sessionHours * 3_600_000, path: '/' },
  });
}

/** What a request's session says; nothing of one that came without. */
export function sessionOf(request: { readonly session?: Partial<SessionData> }): Partial<SessionData> {
  return request.session ?? {};
}

/**
 * Sessions for whatever needs to know who asks. Whether the server answers is asked by everybody, all the time; and
 * where names are picked there are none but on the way in, where the first one may begin.
 */
export function sessions(pool: pg.Pool, access: KnownAccess): RequestHandler {
  let made: { readonly secret: string; readonly plain: RequestHandler; readonly secure: RequestHandler } | null = null;
  return async (request, response, next) => {
    if (request.path === '/health') {
      next();
      return;
    }
    const { cookieSecret: secret, signing } = await access.get();
    if (signing === 'picked' && !request.path.startsWith('/access')) {
      next();
      return;
    }
    if (made?.secret !== secret)
      made = { secret, plain: sessionsIn(pool, secret, false), secure: sessionsIn(pool, secret, true) };
    await (request.secure ? made.secure : made.plain)(request, response, next);
  };
}

/** Begins a session of this person under a new id, so that an id known before is worth nothing. */
export function beginSession(request: Request, person: Known, device: KnownDevice | null): Promise<void> {
  return new Promise((resolve, reject) => {
    request.session.regenerate((error?: Error) => {
      if (error !== undefined && error !== null) {
        reject(error);
        return;
      }
      Object.assign(request.session, {
        person: person.id,
        name: person.name,
        role: person.role,
        device: device?.id ?? null,
        deviceName: device?.name ?? null,
      });
      request.session.save((failed?: Error) => {
        if (failed !== undefined && failed !== null) reject(failed);
        else resolve();
      });
    });
  });
}

export function endSession(request: Request): Promise<void> {
  return new Promise((resolve, reject) => {
    request.session.destroy((error?: Error) => {
      if (error !== undefined && error !== null) reject(error);
      else resolve();
    });
  });
}
