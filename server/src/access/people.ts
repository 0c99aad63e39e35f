import type pg from 'pg';
import { isPin, type Person, type Role, type Standing } from '@fairwatt/contract';
import { many, maybeOne, one, transaction, type Queryable } from '../database/query.ts';
import { boolean, instant, member, number, orNull, text } from '../database/read.ts';
import { nextTechnicianId } from '../shop/store.ts';
import { afterFailure } from './attempts.ts';
import { hashCode, isCode, oneTimeCode, type Secrets } from './secrets.ts';
import { readAccessState } from './state.ts';

/** Somebody of this shop, with what they may do in it. */
export interface Somebody {
  readonly id: string;
  readonly name: string;
  readonly role: Standing;
}

/** Somebody who may sign in. */
export interface Known extends Somebody {
  readonly role: Role;
}

const readKnown = (row: Record<string, unknown>): Known => ({
  id: text(row, 'id'),
  name: text(row, 'name'),
  role: member<Role>(row, 'role'),
});

/** A name that a device shows before anybody signs in, and whether a PIN belongs to it. */
export interface NameShown {
  readonly id: string;
  readonly name: string;
  readonly pin: boolean;
}

/** Everybody who has a secret and is somebody here. */
export const whoSignsIn = (db: Queryable, { readable }: Secrets): Promise<NameShown[]> =>
  many(
    db,
    `select id, name, kind from technician join technician_secret on technician = id
      where role <> 'none' and hash like any($1) order by name`,
    [readable],
    (row) => ({ id: text(row, 'id'), name: text(row, 'name'), pin: text(row, 'kind') === 'pin' }),
  );

/** Those who are to be owners and have no secret yet, or have. */
export const owners = (db: Queryable): Promise<NameShown[]> =>
  many(db, "select id, name, role from technician where role = 'owner' order by name", [], (row) => ({
    id: text(row, 'id'),
    name: text(row, 'name'),
    pin: false,
  }));

/** What somebody may do here; null for nobody of this shop. */
export const standingOf = (db: Queryable, id: string): Promise<Somebody | null> =>
  maybeOne(db, 'select id, name, role from technician where id = $1', [id], (row) => ({
    id: text(row, 'id'),
    name: text(row, 'name'),
    role: member<Standing>(row, 'role'),
  }));

/** Whether no owner can sign in, also since all their secrets were kept by a key that is not here. */
export const isOwnerless = (db: Queryable, { readable }: Secrets): Promise<boolean> =>
  one(
    db,
    `select not exists (
      select from technician join technician_secret on technician = id where role = 'owner' and hash like any($1)
    ) as ownerless`,
    [readable],
    (row) => boolean(row, 'ownerless'),
  );

/** Whose secret was kept by a key that is not here: they sign in when that key is, or with a new secret. */
export const countUnreadable = (db: Queryable, { readable }: Secrets): Promise<number> =>
  one(db, 'select count(*)::integer as people from technician_secret where not hash like any($1)', [readable], (row) =>
    number(row, 'people'),
  );

/** All people with what the owner sees of their way in; a secret that nobody can look at here is none. */
export const readPeople = (db: Queryable, { readable }: Secrets): Promise<Person[]> =>
  many(
    db,
    `select technician.id, name, role, version, kind, coalesce(failures, 0) as failures,
        coalesce(locked, false) as locked,
        (select count(*) from web_session where sess ->> 'person' = technician.id and expire > now()) as sessions
      from technician left join technician_secret on technician = technician.id and hash like any($1)
      order by role = 'none', name`,
    [readable],
    (row) => ({
      id: text(row, 'id'),
      name: text(row, 'name'),
      role: member<Standing>(row, 'role'),
      version: number(row, 'version'),
      secret: orNull(member<'pin' | 'passphrase'>)(row, 'kind'),
      failures: number(row, 'failures'),
      locked: boolean(row, 'locked'),
      sessions: number(row, 'sessions'),
    }),
  );

/** Gives somebody a secret, which also takes a lock off. */
export async function writeSecret(
  db: Queryable,
  secrets: Secrets,
  technician: string,
  secret: string,
  at: string,
): Promise<void> {
  await db.query(
    `insert into technician_secret (technician, kind, hash, changed_at) values ($1, $2, $3, $4)
      on conflict (technician) do update
        set kind = $2, hash = $3, changed_at = $4, failures = 0, paused_until = null, locked = false`,
    [technician, isPin(secret) ? 'pin' : 'passphrase', await secrets.hash(secret), at],
  );
}

/** Ends the sessions of one person, but for one of them. @returns how many were ended */
export async function endSessions(db: Queryable, person: string, but: string | null = null): Promise<number> {
  const ended = await db.query(
    "delete from web_session where sess ->> 'person' = $1 and ($2::text is null or sid <> $2)",
    [person, but],
  );
  return ended.rowCount ?? 0;
}

export type SignIn =
  | { readonly kind: 'in'; readonly person: Known }
  /** Name and secret do not fit, or a PIN where it is not enough: which of them is not told. */
  | { readonly kind: 'wrong'; readonly lockedNow: boolean }
  | { readonly kind: 'paused'; readonly until: string }
  | { readonly kind: 'locked' };

interface KeptSecret {
  readonly person: Known;
  readonly kind: 'pin' | 'passphrase';
  readonly hash: string;
  readonly failures: number;
  readonly pausedUntil: string | null;
  readonly locked: boolean;
}

/** Held until the try is noted, so that many tries at once are one after the other. */
const secretNamed = (db: Queryable, { readable }: Secrets, name: string): Promise<KeptSecret | null> =>
  maybeOne(
    db,
    `select id, name, role, kind, hash, failures, paused_until, locked
      from technician join technician_secret on technician = id
      where lower(name) = lower($1) and role <> 'none' and hash like any($2)
      for update of technician_secret`,
    [name.trim(), readable],
    (row) => ({
      person: readKnown(row),
      kind: member<'pin' | 'passphrase'>(row, 'kind'),
      hash: text(row, 'hash'),
      failures: number(row, 'failures'),
      pausedUntil: orNull(instant)(row, 'paused_until'),
      locked: boolean(row, 'locked'),
    }),
  );

/** Kept anew where the key came after it. */
async function noteRight(db: Queryable, secrets: Secrets, { person, hash }: KeptSecret, secret: string): Promise<void> {
  await db.query('update technician_secret set failures = 0, paused_until = null, hash = $2 where technician = $1', [
    person.id,
    secrets.isOld(hash) ? await secrets.hash(secret) : hash,
  ]);
}

/**
 * Looks at a name and a secret. Each wrong one makes the next wait longer, and ten in a row lock the person. Where a
 * PIN is not enough none is looked at, so that it cannot be guessed from there either.
 */
export const signIn = (
  pool: pg.Pool,
  secrets: Secrets,
  name: string,
  secret: string,
  pinIsEnough: boolean,
  at: string,
): Promise<SignIn> =>
  transaction(pool, async (db): Promise<SignIn> => {
    const kept = await secretNamed(db, secrets, name);
    if (kept === null || (kept.kind === 'pin' && !pinIsEnough)) {
      await secrets.asIfLooked(secret);
      return { kind: 'wrong', lockedNow: false };
    }
    if (kept.locked) return { kind: 'locked' };
    if (kept.pausedUntil !== null && kept.pausedUntil > at) return { kind: 'paused', until: kept.pausedUntil };
    if (await secrets.is(secret, kept.hash)) {
      await noteRight(db, secrets, kept, secret);
      return { kind: 'in', person: kept.person };
    }
    const { failures, pausedUntil, locked } = afterFailure(kept.failures, at);
    await db.query('update technician_secret set failures = $2, paused_until = $3, locked = $4 where technician = $1', [
      kept.person.id,
      failures,
      pausedUntil,
      locked,
    ]);
    return { kind: 'wrong', lockedNow: locked };
  });

/** A new one-time code that makes an owner; an earlier one no longer does. */
export async function makeOwnerCode(db: Queryable): Promise<string> {
  await readAccessState(db);
  const code = oneTimeCode();
  await db.query('update shop_access set owner_code = $1, owner_code_failures = 0', [await hashCode(code)]);
  return code;
}

export type MadeOwner =
  | { readonly kind: 'made'; readonly person: Known }
  | { readonly kind: 'wrong-code' | 'unknown-person' | 'name-taken' | 'no-name' };

const mostCodeFailures = 10;

/** Whether this is the code; ten wrong ones and it is none any more. */
async function takeOwnerCode(db: Queryable, code: string): Promise<boolean> {
  const kept = await maybeOne(db, 'select owner_code from shop_access for update', [], (row) =>
    orNull(text)(row, 'owner_code'),
  );
  if (kept === null) return false;
  if (await isCode(code, kept)) {
    await db.query('update shop_access set owner_code = null, owner_code_failures = 0');
    return true;
  }
  await db.query(
    `update shop_access set owner_code_failures = owner_code_failures + 1,
      owner_code = case when owner_code_failures + 1 >= ${mostCodeFailures} then null else owner_code end`,
  );
  return false;
}

/** Whoever reads the console makes an owner with its code: a new one, or somebody who is here already. */
export async function makeOwner(
  db: Queryable,
  secrets: Secrets,
  wanted: { readonly code: string; readonly person: string | null; readonly name: string; readonly secret: string },
  at: string,
): Promise<MadeOwner> {
  if (wanted.person === null && wanted.name === '') return { kind: 'no-name' };
  const known = wanted.person === null ? null : await standingOf(db, wanted.person);
  if (wanted.person !== null && known === null) return { kind: 'unknown-person' };
  if (known === null && (await personNamed(db, wanted.name)) !== null) return { kind: 'name-taken' };
  if (!(await takeOwnerCode(db, wanted.code))) return { kind: 'wrong-code' };
  const id = known?.id ?? (await nextTechnicianId(db, wanted.name));
  if (known === null)
    await db.query("insert into technician (id, name, role) values ($1, $2, 'owner')", [id, wanted.name]);
  else await db.query("update technician set role = 'owner', version = version + 1 where id = $1", [id]);
  await writeSecret(db, secrets, id, wanted.secret, at);
  await endSessions(db, id);
  return { kind: 'made', person: { id, name: known?.name ?? wanted.name, role: 'owner' } };
}

export const personNamed = (db: Queryable, name: string): Promise<string | null> =>
  maybeOne(db, 'select id from technician where lower(name) = lower($1) limit 1', [name], (row) => text(row, 'id'));

export type PersonChange = {
  readonly kind: 'done' | 'unknown' | 'stale' | 'name-taken' | 'last-owner';
};

/**
 * Another name or standing; the last owner who can sign in stays one. A changed standing ends the person's sessions.
 */
export const changePerson = (
  pool: pg.Pool,
  secrets: Secrets,
  id: string,
  wanted: { readonly name: string; readonly role: Standing; readonly basedOn: number },
): Promise<PersonChange> =>
  transaction(pool, async (db): Promise<PersonChange> => {
    await db.query('lock table technician in share row exclusive mode');
    const stands = (await readPeople(db, secrets)).find((person) => person.id === id);
    if (stands === undefined) return { kind: 'unknown' };
    if (stands.name === wanted.name && stands.role === wanted.role) return { kind: 'done' };
    if (stands.version !== wanted.basedOn) return { kind: 'stale' };
    const named = await personNamed(db, wanted.name);
    if (named !== null && named !== id) return { kind: 'name-taken' };
    const otherOwners = await many(
      db,
      `select id from technician join technician_secret on technician = id
        where role = 'owner' and id <> $1 and hash like any($2)`,
      [id, secrets.readable],
      (row) => text(row, 'id'),
    );
    if (stands.role === 'owner' && wanted.role !== 'owner' && otherOwners.length === 0) return { kind: 'last-owner' };
    await db.query('update technician set name = $2, role = $3, version = version + 1 where id = $1', [
      id,
      wanted.name,
      wanted.role,
    ]);
    if (stands.role !== wanted.role) await endSessions(db, id);
    return { kind: 'done' };
  });
