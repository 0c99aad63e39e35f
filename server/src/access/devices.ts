import { randomUUID } from 'node:crypto';
import type { Device } from '@fairwatt/contract';
import { many, maybeOne, type Queryable } from '../database/query.ts';
import { instant, orNull, text } from '../database/read.ts';
import { hashCode, isCode, newToken, oneTimeCode, plainHash } from './secrets.ts';

const codeMinutes = 10;

export interface KnownDevice {
  readonly id: string;
  readonly name: string;
}
const readKnown = (row: Record<string, unknown>): KnownDevice => ({ id: text(row, 'id'), name: text(row, 'name') });

/** Asks for a device of this name; the code lets a browser become it, once, for ten minutes. */
export async function askForDevice(
  db: Queryable,
  name: string,
  by: string,
  at: string,
): Promise<{ readonly code: string; readonly until: string }> {
  const code = oneTimeCode();
  const until = new Date(Date.parse(at) + codeMinutes * 60_000).toISOString();
  await db.query('delete from device where token is null and code_until < $1', [at]);
  await db.query('insert into device (id, name, enrolled_by, code, code_until) values ($1, $2, $3, $4, $5)', [
    randomUUID(),
    name,
    by,
    await hashCode(code),
    until,
  ]);
  return { code, until };
}

/** The device that waits for this code: those that wait are few, and none for longer than ten minutes. */
async function askedBy(db: Queryable, code: string, at: string): Promise<string | null> {
  const waiting = await many(
    db,
    'select id, code from device where code is not null and code_until > $1',
    [at],
    (row) => ({
      id: text(row, 'id'),
      code: text(row, 'code'),
    }),
  );
  for (const { id, code: kept } of waiting) if (await isCode(code, kept)) return id;
  return null;
}

/**
 * The browser that shows the code becomes the device.
 * @returns its token, which is kept nowhere here; null for a wrong code
 */
export async function enrol(
  db: Queryable,
  code: string,
  at: string,
): Promise<{ readonly token: string; readonly device: KnownDevice } | null> {
  const id = await askedBy(db, code, at);
  if (id === null) return null;
  const token = newToken();
  // Whoever comes second with the same code finds it gone.
  const device = await maybeOne(
    db,
    `update device set token = $2, enrolled_at = $3, seen_at = $3, code = null, code_until = null
      where id = $1 and code is not null returning id, name`,
    [id, plainHash(token), at],
    readKnown,
  );
  return device === null ? null : { token, device };
}

/** The device of a token, noted as seen once an hour; null for none. */
export async function deviceOf(db: Queryable, token: string | undefined, at: string): Promise<KnownDevice | null> {
  if (token === undefined || token === '') return null;
  const hash = plainHash(token);
  const device = await maybeOne(db, 'select id, name from device where token = $1', [hash], readKnown);
  if (device !== null)
    await db.query("update device set seen_at = $2 where id = $1 and seen_at < $2::timestamptz - interval '1 hour'", [
      device.id,
      at,
    ]);
  return device;
}

export const readDevices = (db: Queryable): Promise<Device[]> =>
  many(
    db,
    `select device.id, device.name, technician.name as enrolled_by_name, enrolled_at, seen_at
      from device join technician on technician.id = enrolled_by order by enrolled_at nulls first, device.name`,
    [],
    (row) => ({
      id: text(row, 'id'),
      name: text(row, 'name'),
      enrolledBy: text(row, 'enrolled_by_name'),
      enrolledAt: orNull(instant)(row, 'enrolled_at'),
      seenAt: orNull(instant)(row, 'seen_at'),
    }),
  );

/** Takes a device out and ends what was begun on it. @returns its name; null when there is none */
export async function endDevice(db: Queryable, id: string): Promise<string | null> {
  const name = await maybeOne(db, 'delete from device where id = $1 returning name', [id], (row) => text(row, 'name'));
  if (name !== null) await db.query("delete from web_session where sess ->> 'device' = $1", [id]);
  return name;
}
