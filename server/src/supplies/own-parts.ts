import type { OwnPart } from '@fairwatt/contract';
import { many, type Queryable } from '../database/query.ts';
import { insertAll, readChildren, writeChildren } from '../database/table.ts';
import * as tables from './tables.ts';

/** The shop's own parts by name. */
export async function readOwnParts(db: Queryable): Promise<OwnPart[]> {
  const inletsOf = await readChildren(db, tables.ownPartInlets, 'true', []);
  const parts = await many(db, 'select * from own_part order by name, id', [], tables.ownPart.read);
  return parts.map((part) => ({ ...part, inlets: [...inletsOf(part.id)] }));
}

/** Writes parts, over those with the same id. */
export async function writeOwnParts(db: Queryable, parts: readonly OwnPart[]): Promise<void> {
  await db.query('delete from own_part where id = any($1)', [parts.map((part) => part.id)]);
  await insertAll(db, 'own_part', tables.ownPart, parts);
  await writeChildren(
    db,
    tables.ownPartInlets,
    parts,
    (part) => part.id,
    (part) => part.inlets,
  );
}
