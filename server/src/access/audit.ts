import type { Audit, AuditKind } from '@fairwatt/contract';
import { many, type Queryable } from '../database/query.ts';
import { instant, member, number, orNull, text } from '../database/read.ts';

/** Something that the owner can look up later. */
export interface AuditLine {
  readonly at: string;
  /** The person's name; null for nobody who signed in. */
  readonly by: string | null;
  readonly device: string | null;
  readonly kind: AuditKind;
  /** Whom or what it was about, in words; never a secret. */
  readonly about: string;
}

export async function addAudit(db: Queryable, { at, by, device, kind, about }: AuditLine): Promise<void> {
  await db.query('insert into audit (at, by_name, device, kind, about) values ($1, $2, $3, $4, $5)', [
    at,
    by,
    device,
    kind,
    about,
  ]);
}

const pageLines = 100;

/** The latest lines, or those before one. */
export async function readAudit(db: Queryable, before: number | null): Promise<Audit> {
  const lines = await many(
    db,
    `select id, at, by_name, device, kind, about from audit
      where $1::bigint is null or id < $1::bigint order by id desc limit ${pageLines + 1}`,
    [before],
    (row) => ({
      id: number(row, 'id'),
      at: instant(row, 'at'),
      by: orNull(text)(row, 'by_name'),
      device: orNull(text)(row, 'device'),
      kind: member<AuditKind>(row, 'kind'),
      about: text(row, 'about'),
    }),
  );
  return { lines: lines.slice(0, pageLines), more: lines.length > pageLines };
}
