import { hostname } from 'node:os';
import type pg from 'pg';
import { connected } from './database-tools.ts';

/** A backup that was made, wherever: `place` is machine and path. */
export interface MadeSomewhere {
  readonly at: string;
  readonly place: string;
  readonly jobs: number;
  readonly bytes: number;
}

export type Once =
  /** It was made here. */
  | { readonly kind: 'made' }
  /** Another command made it since it was due. */
  | { readonly kind: 'elsewhere'; readonly made: MadeSomewhere }
  /** Another command is at it just now. */
  | { readonly kind: 'under-way' };

/** Held in the database while somebody makes its nightly backup; any figure that nothing else takes. */
const nightlyLock = 46_574_201;

/** The code of PostgreSQL for a table that is not there: a schema that is older than this. */
const isMissingTable = (error: unknown): boolean => error instanceof Error && 'code' in error && error.code === '42P01';

async function lastNoted(client: pg.Client): Promise<MadeSomewhere | null> {
  const { rows } = await client.query<{ at: Date; place: string; jobs: number; bytes: string }>(
    'select at, place, jobs, bytes from nightly_backup',
  );
  const [row] = rows;
  return row === undefined ? null : { ...row, at: row.at.toISOString(), bytes: Number(row.bytes) };
}

const note = (client: pg.Client, { at, path, jobs, bytes }: Omit<MadeSomewhere, 'place'> & { readonly path: string }) =>
  client.query(
    `insert into nightly_backup (at, place, jobs, bytes) values ($1, $2, $3, $4)
      on conflict (only_row) do update set at = $1, place = $2, jobs = $3, bytes = $4`,
    [at, `${hostname()}: ${path}`, jobs, bytes],
  );

/**
 * Makes a backup unless another command that serves the same database makes it, or has made it since it was due. A
 * database whose schema does not know of this is backed up by everybody.
 * @throws what making it throws, or when the database cannot be reached
 */
export const onceForAll = (
  url: string,
  due: Date,
  make: () => Promise<Omit<MadeSomewhere, 'place'> & { readonly path: string }>,
): Promise<Once> =>
  connected(url, async (client): Promise<Once> => {
    const { rows } = await client.query<{ held: boolean }>('select pg_try_advisory_lock($1) as held', [nightlyLock]);
    if (rows[0]?.held !== true) return { kind: 'under-way' };
    let known = true;
    const last = await lastNoted(client).catch((error: unknown) => {
      if (!isMissingTable(error)) throw error;
      known = false;
      return null;
    });
    if (last !== null && Date.parse(last.at) >= due.getTime()) return { kind: 'elsewhere', made: last };
    const made = await make();
    if (known) await note(client, made);
    return { kind: 'made' };
  });
