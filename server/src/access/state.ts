import { randomBytes } from 'node:crypto';
import type pg from 'pg';
import type { Signing } from '@fairwatt/contract';
import type { ChangeFeed } from '../changes/feed.ts';
import { maybeOne, type Queryable } from '../database/query.ts';
import { member, text } from '../database/read.ts';

/** How people of this shop sign, as every request needs it. */
export interface AccessState {
  readonly signing: Signing;
  readonly cookieSecret: string;
}

/** How people sign where nobody has said yet; what was said stands. */
export async function signAtFirst(db: Queryable, signing: Signing): Promise<void> {
  await db.query('insert into shop_access (signing, cookie_secret) values ($1, $2) on conflict do nothing', [
    signing,
    randomBytes(32).toString('base64url'),
  ]);
}

const standing = (db: Queryable): Promise<AccessState | null> =>
  maybeOne(db, 'select signing, cookie_secret from shop_access', [], (row) => ({
    signing: member<Signing>(row, 'signing'),
    cookieSecret: text(row, 'cookie_secret'),
  }));

/**
 * The shop's row, made at the first look: a shop starts with secrets. A look at what stands writes nothing, not even in
 * vain: the database tells everybody of each statement that could have changed it, and they would look again.
 */
export async function readAccessState(db: Queryable): Promise<AccessState> {
  const found = await standing(db);
  if (found !== null) return found;
  await signAtFirst(db, 'secret');
  return readAccessState(db);
}

export async function writeSigning(db: Queryable, signing: Signing): Promise<void> {
  await readAccessState(db);
  await db.query('update shop_access set signing = $1', [signing]);
}

/** Kept in memory, since it changes once in years; looked at anew when the database tells of a change. */
export class KnownAccess {
  private readonly pool: pg.Pool;
  private known: Promise<AccessState> | null = null;

  constructor(pool: pg.Pool, feed: ChangeFeed) {
    this.pool = pool;
    feed.listen(({ topic }) => {
      if (topic === 'shop' || topic === 'everything') this.forget();
    });
  }

  forget(): void {
    this.known = null;
  }

  async get(): Promise<AccessState> {
    this.known ??= readAccessState(this.pool);
    const looking = this.known;
    // What could not be read is asked for again, not remembered.
    return looking.catch((error: unknown) => {
      if (this.known === looking) this.known = null;
      throw error;
    });
  }
}
