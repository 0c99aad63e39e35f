import type { SessionShown } from '@fairwatt/contract';
import { many, maybeOne, type Queryable } from '../database/query.ts';
import { boolean, instant, orNull, text } from '../database/read.ts';
import { sessionHours } from './sessions.ts';

/** Told instead of the session's own id, which lets in whoever has it. */
const shownId = "left(encode(sha256(convert_to(sid, 'UTF8')), 'hex'), 32)";

/** Who is signed in where, the latest first: one person's sessions, or everybody's for null. */
export const readSessions = (db: Queryable, person: string | null, asking: string): Promise<SessionShown[]> =>
  many(
    db,
    `select ${shownId} as id, sess ->> 'name' as person, sess ->> 'deviceName' as device,
        expire::timestamptz - make_interval(hours => ${sessionHours}) as begun_at, expire::timestamptz as ends_at,
        sid = $2 as here
      from web_session
      where expire > now() and sess ->> 'person' is not null and ($1::text is null or sess ->> 'person' = $1)
      order by expire desc`,
    [person, asking],
    (row) => ({
      id: text(row, 'id'),
      person: text(row, 'person'),
      device: orNull(text)(row, 'device'),
      begunAt: instant(row, 'begun_at'),
      endsAt: instant(row, 'ends_at'),
      here: boolean(row, 'here'),
    }),
  );

/** Ends a session of one person, or of anybody for null. @returns whose it was; null when there is none */
export const endSessionShown = (db: Queryable, id: string, person: string | null): Promise<string | null> =>
  maybeOne(
    db,
    `delete from web_session where ${shownId} = $1 and ($2::text is null or sess ->> 'person' = $2)
      returning sess ->> 'name' as person`,
    [id, person],
    (row) => text(row, 'person'),
  );
