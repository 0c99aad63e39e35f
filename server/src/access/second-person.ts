import type { Request } from 'express';
import type pg from 'pg';
import { HttpProblem } from '../problems.ts';
import { whoAsks } from './gate.ts';
import { signIn } from './people.ts';

const refused = (type: string, title: string) =>
  new HttpProblem(403, type, title, { errors: [{ path: 'secret', message: title }] });

/**
 * Somebody else who signs at the device of the one who is signed in; wrong secrets count as they do at the sign-in. The
 * one who asked stays signed in.
 * @returns who signs
 * @throws HttpProblem 403 when it is nobody else, or the secret does not fit; 429 in a pause
 */
export async function secondPerson(
  pool: pg.Pool,
  request: Request,
  name: string,
  secret: string,
  at: string,
): Promise<string> {
  const outcome = await signIn(pool, name, secret, request.session.device != null, at);
  switch (outcome.kind) {
    case 'wrong':
      throw refused('wrong-secret', 'Name and secret do not fit');
    case 'locked':
      throw refused('locked', 'Ten wrong secrets in a row: an owner gives a new one at People');
    case 'paused':
      throw new HttpProblem(429, 'paused', 'Wrong too often; wait a moment before the next try');
    case 'in':
      if (outcome.person.id === whoAsks(request).id)
        throw refused('not-second', 'A second person signs, not the first');
      return outcome.person.id;
  }
}
