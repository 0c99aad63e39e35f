import type { Request } from 'express';
import type pg from 'pg';
import { HttpProblem } from '../problems.ts';
import { whoAsks } from './gate.ts';
import { signIn } from './people.ts';
import type { Secrets } from './secrets.ts';
import { refusedSignIn } from './refusals.ts';
import { sessionOf } from './sessions.ts';

/**
 * Somebody else who signs at the device of the one who is signed in; wrong secrets count as they do at the sign-in. The
 * one who asked stays signed in.
 * @returns who signs
 * @throws HttpProblem 403 when it is nobody else, or the secret does not fit; 429 in a pause
 */
export async function secondPerson(
  pool: pg.Pool,
  secrets: Secrets,
  request: Request,
  name: string,
  secret: string,
  at: string,
): Promise<string> {
  const outcome = await signIn(pool, secrets, name, secret, sessionOf(request).device != null, at);
  if (outcome.kind !== 'in') throw refusedSignIn(outcome);
  if (outcome.person.id === whoAsks(request).id)
    throw new HttpProblem(403, 'not-second', 'A second person signs, not the first', {
      errors: [{ path: 'name', message: 'is the first' }],
    });
  return outcome.person.id;
}
