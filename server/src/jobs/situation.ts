import { LRUCache } from 'lru-cache';
import type pg from 'pg';
import type { Role } from '@fairwatt/contract';
import { one, type Prepared, type Queryable } from '../database/query.ts';
import { member, number, orNull, text } from '../database/read.ts';
import type { ShopStamps } from './store.ts';
import type { Condition } from './write.ts';

/** What an act needs to know of the database, seen at one moment. */
export interface Situation {
  /** What the one who acts is here; null for nobody. */
  readonly role: Role | null;
  readonly job: { readonly id: number; readonly stamp: string } | null;
  /** What the ids were used for before. */
  readonly earlier: ReadonlyMap<string, Earlier>;
  readonly shop: ShopStamps;
}

export interface Earlier {
  readonly jobId: number;
  readonly revision: number | null;
  readonly hash: string;
}

const situationText = (isSent: string) => `select
    (select role from technician where technician.id = $2 and role <> 'none') as role,
    job.id, job.stamp, (select stamp from shelf_stamp) as shelf, (select revision from shop_record) as record,
    (select json_agg(json_build_array(job_event.id, job_id, job_event.revision, content_hash))
      from job_event where ${isSent}) as earlier
  from (select) as one_row left join job on job.code = $1`;

const situationSql: Prepared = { name: 'situation', text: situationText('job_event.id = any($3::uuid[])') };
/** The same for one act, which most come as: for a list of ids the database makes a plan each time. */
const situationOfOneSql: Prepared = { name: 'situation-of-one', text: situationText('job_event.id = $3::uuid') };

type EarlierRow = readonly [id: string, jobId: number, revision: number | null, hash: string];

/** Looks how a job stands for somebody who acts on it. */
export function situationOf(db: Queryable, code: string, by: string, ids: readonly string[]): Promise<Situation> {
  const [statement, sent] = ids.length === 1 ? [situationOfOneSql, ids[0]] : [situationSql, ids];
  return one(db, statement, [code, by, sent], (row) => ({
    role: orNull(member<Role>)(row, 'role'),
    job: row['id'] === null ? null : { id: number(row, 'id'), stamp: text(row, 'stamp') },
    earlier: new Map(
      ((row['earlier'] ?? []) as readonly EarlierRow[]).map(([id, jobId, revision, hash]) => [
        id,
        { jobId, revision, hash },
      ]),
    ),
    shop: { shelf: text(row, 'shelf'), record: text(row, 'record') },
  }));
}

/** How an act left a job and the shop that it was done with. */
export interface Left {
  readonly id: number;
  readonly stamp: string;
  readonly shop: ShopStamps;
}

const left = new WeakMap<pg.Pool, LRUCache<string, Left>>();

/** How the last act that was done here left a job; it may have gone on since. Null for none that is remembered. */
export const lastLeft = (pool: pg.Pool, code: string): Left | null => left.get(pool)?.get(code) ?? null;

/** Remembers how an act left a job. */
export function keepLeft(pool: pg.Pool, code: string, state: Left): void {
  const jobs = left.get(pool) ?? new LRUCache<string, Left>({ max: 400 });
  left.set(pool, jobs);
  jobs.set(code, state);
}

/** That the shop is still as it was left, with who works there and what they may, and an act not done yet. */
export const stillSo = ({ shop }: Left, id: string): Condition => ({
  name: 'still-so',
  text: (from) => `exists (select from shelf_stamp where stamp = $${from})
    and exists (select from shop_record where revision = $${from + 1})
    and not exists (select from job_event where job_event.id = $${from + 2}::uuid)`,
  values: [shop.shelf, shop.record, id],
});
