import { HttpProblem } from '../problems.ts';
import type { SignIn } from './people.ts';

/** Why somebody was not let in, at the field of the secret. */
export function refusedSignIn(
  outcome: Exclude<SignIn, { readonly kind: 'in' }>,
  title = 'Name and secret do not fit',
  path = 'secret',
): HttpProblem {
  switch (outcome.kind) {
    case 'wrong':
      return new HttpProblem(403, 'wrong-secret', title, { errors: [{ path, message: 'does not fit' }] });
    case 'paused':
      return new HttpProblem(429, 'paused', 'Wrong too often; wait a moment before the next try', {
        detail: outcome.until,
      });
    case 'locked':
      return new HttpProblem(403, 'locked', 'Ten wrong secrets in a row: an owner gives a new one at People');
  }
}

export const nobody = () => new HttpProblem(404, 'no-such-person', 'There is nobody of this name here');
export const nameTaken = (name: string) =>
  new HttpProblem(409, 'name-taken', `${name} is already among the people of this shop`, {
    errors: [{ path: 'name', message: 'already here' }],
  });
