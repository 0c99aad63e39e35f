import { setTimeout as wait } from 'node:timers/promises';
import type { Pool } from 'pg';
import { databaseIsGone } from './gone.ts';

/** A start waits this long for a database that is still coming up, or held up with its machine, in milliseconds. */
const startPatience = 60_000;
const betweenTries = 250;

/**
 * Waits until the database answers.
 * @param onWaiting called once, when it did not answer at the first try
 * @throws what it said last when it is not there after `patience` milliseconds; at once what it refuses, such as a
 * wrong password
 */
export async function untilAnswers(pool: Pool, onWaiting: () => void, patience = startPatience): Promise<void> {
  const until = Date.now() + patience;
  for (let tries = 1; ; tries += 1) {
    try {
      await pool.query('select 1');
      return;
    } catch (error) {
      if (!databaseIsGone(error) || Date.now() > until) throw error;
      if (tries === 1) onWaiting();
      await wait(betweenTries);
    }
  }
}
