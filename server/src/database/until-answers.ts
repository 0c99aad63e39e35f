import { setTimeout as wait } from 'node:timers/promises';
import type { Pool } from 'pg';
import { databaseIsGone } from './gone.ts';
import type { Primary } from './primary.ts';

/** A start waits this long for a database that is still coming up, or held up with its machine, in milliseconds. */
const startPatience = 60_000;
const betweenTries = 250;

/** It answers, but writes cannot be taken there. */
class TakesNoWrites extends Error {}

/**
 * Waits until the database answers and takes writes.
 * @param onWaiting called once, when it did not at the first try
 * @throws what it said last when it is not there after `patience` milliseconds; at once what it refuses, such as a
 * wrong password
 */
export async function untilAnswers(
  primary: Primary,
  pool: Pool,
  onWaiting: () => void,
  patience = startPatience,
): Promise<void> {
  const until = Date.now() + patience;
  for (let tries = 1; ; tries += 1) {
    try {
      await mustTakeWrites(primary, pool);
      return;
    } catch (error) {
      if (!(error instanceof TakesNoWrites || databaseIsGone(error)) || Date.now() > until) throw error;
      if (tries === 1) onWaiting();
      await wait(betweenTries);
    }
  }
}

async function mustTakeWrites(primary: Primary, pool: Pool): Promise<void> {
  if (!primary.isKnown && primary.refusal !== null) throw primary.refusal;
  if (!primary.isKnown) throw new TakesNoWrites('None of the places of the database takes writes.');
  const { rows } = await pool.query<{ standby: boolean }>('select pg_is_in_recovery() as standby');
  if (rows[0]?.standby !== false) throw new TakesNoWrites('This database is a standby, which takes no writes.');
}
