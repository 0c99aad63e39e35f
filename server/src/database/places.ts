import pg from 'pg';

/**
 * The places where a database may be, each as an address of its own. Several hosts of one address are divided by
 * commas, as PostgreSQL's own programs take them: `postgresql://fairwatt@10.0.0.5:5432,10.0.0.6:5432/fairwatt`.
 */
export function placesOf(databaseUrl: string): readonly [string, ...string[]] {
  const found = /^([a-z]+:\/\/(?:[^@/?]*@)?)([^/?]*)(.*)$/s.exec(databaseUrl);
  if (found === null) return [databaseUrl];
  const [, before = '', hosts = '', after = ''] = found;
  const [first = '', ...others] = hosts.split(',').map((host) => `${before}${host}${after}`);
  return [first, ...others];
}

/** A place as people may read it in a log: host and port. */
export const hostOf = (place: string): string => placesOf(place)[0].replace(/^[a-z]+:\/\/(?:[^@/?]*@)?|[/?].*$/gs, '');

/** What a place says of itself. */
export interface PlaceState {
  readonly place: string;
  /** Whether it takes writes; a standby does not. */
  readonly takesWrites: boolean;
  /** Counted up by each promotion; 0 for a standby. */
  readonly timeline: number;
}

const longestAnswerMilliseconds = 2000;
// The name of a piece of the journal begins with its timeline, in eight hexadecimal digits.
const question = `select case when pg_is_in_recovery() then null
  else left(pg_walfile_name(pg_current_wal_insert_lsn()), 8) end as timeline`;

/** Asks a place. @throws what it refuses with, or that it is not there within two seconds */
export async function askPlace(place: string): Promise<PlaceState> {
  const client = new pg.Client({
    connectionString: place,
    connectionTimeoutMillis: longestAnswerMilliseconds,
    query_timeout: longestAnswerMilliseconds,
  });
  client.on('error', () => undefined);
  try {
    await client.connect();
    const { rows } = await client.query<{ timeline: string | null }>(question);
    const timeline = rows[0]?.timeline ?? null;
    return { place, takesWrites: timeline !== null, timeline: Number.parseInt(timeline ?? '0', 16) };
  } finally {
    void client.end().catch(() => undefined);
  }
}

/**
 * The place of an address that takes writes, for whoever works on it once; an address with one place is taken as it is.
 * @throws when none of several places takes writes
 */
export async function writablePlace(databaseUrl: string): Promise<string> {
  const places = placesOf(databaseUrl);
  if (places.length === 1) return databaseUrl;
  const answers = await Promise.allSettled(places.map(askPlace));
  const states = answers.flatMap((answer) => (answer.status === 'fulfilled' ? [answer.value] : []));
  const chosen = chosenPlace(states, places[0]);
  if (chosen === null) throw new Error(`None of ${places.map(hostOf).join(' and ')} takes writes just now.`);
  return chosen.place;
}

/**
 * The place to write to among those that answered: of those that take writes the one on the highest timeline, since one
 * that was promoted past is an old primary that came back; `present` where it is among the equals.
 */
export function chosenPlace(states: readonly PlaceState[], present: string): PlaceState | null {
  const takers = states.filter((state) => state.takesWrites);
  const highest = Math.max(0, ...takers.map((state) => state.timeline));
  const equals = takers.filter((state) => state.timeline === highest);
  return equals.find((state) => state.place === present) ?? equals[0] ?? null;
}
