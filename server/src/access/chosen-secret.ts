import { strengthOf } from '@fairwatt/contract/secret-strength';
import type { Queryable } from '../database/query.ts';
import { HttpProblem } from '../problems.ts';
import { readSettings } from '../shop/store.ts';

/**
 * Looks at a secret that somebody chooses.
 * @param names what else whoever guesses would try, beside the shop's name
 * @throws HttpProblem 422 at the field when it is among those that are tried first
 */
export async function chosenSecret(db: Queryable, secret: string, names: readonly string[]): Promise<void> {
  const { name } = await readSettings(db);
  if (strengthOf(secret, [...names, name]) === 'guessed')
    throw new HttpProblem(422, 'invalid', 'The secret is too easily guessed', {
      errors: [{ path: 'secret', message: 'is tried first by whoever guesses: take something less usual' }],
    });
}
