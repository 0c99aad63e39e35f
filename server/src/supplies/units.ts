import type pg from 'pg';
import type { Unit } from '@fairwatt/contract';
import { many, maybeOne, standsAlready, transaction, type Queryable } from '../database/query.ts';
import { number, text } from '../database/read.ts';
import { insertAll, updateRow } from '../database/table.ts';
import * as tables from './tables.ts';

export function readUnits(db: Queryable): Promise<Unit[]> {
  return many(
    db,
    'select supply_unit.* from supply_unit join supply_model on supply_model.id = model_id ' +
      'order by supply_model.name, place, serial, supply_unit.id',
    [],
    tables.unit.read,
  );
}

export type UnitChange =
  | { readonly kind: 'done' | 'stale' | 'not-found' | 'used' }
  | { readonly kind: 'unknown-reference'; readonly path: string };

/** A unit as somebody wants it, on the version that was seen; 0 for a new one. */
export function changeUnit(pool: pg.Pool, basedOn: number, unit: Unit): Promise<UnitChange> {
  return transaction(pool, async (db): Promise<UnitChange> => {
    const current = await maybeOne(db, 'select version from supply_unit where id = $1 for update', [unit.id], (row) =>
      number(row, 'version'),
    );
    if ((current ?? 0) !== basedOn) {
      const standing = (await readUnits(db)).find((item) => item.id === unit.id);
      return { kind: standsAlready(standing, unit) ? 'done' : 'stale' };
    }
    if ((await maybeOne(db, 'select id from supply_model where id = $1', [unit.modelId], (row) => row)) === null)
      return { kind: 'unknown-reference', path: 'unit.modelId' };
    for (const [path, code] of [
      ['unit.reservedFor', unit.reservedFor],
      ['unit.usedIn', unit.usedIn],
    ] as const) {
      if (code !== null && (await maybeOne(db, 'select id from job where code = $1', [code], (row) => row)) === null)
        return { kind: 'unknown-reference', path };
    }
    const changed = { ...unit, version: basedOn + 1 };
    if (current === null) await addUnits(db, [changed]);
    else await updateRow(db, 'supply_unit', tables.unit, changed);
    return { kind: 'done' };
  });
}

/** Takes a unit off the record; one that was used in a job stays. */
export function removeUnit(pool: pg.Pool, id: string, basedOn: number): Promise<UnitChange> {
  return transaction(pool, async (db): Promise<UnitChange> => {
    const current = await maybeOne(
      db,
      'select version, state from supply_unit where id = $1 for update',
      [id],
      (row) => ({ version: number(row, 'version'), state: text(row, 'state') }),
    );
    if (current === null) return { kind: 'not-found' };
    if (current.version !== basedOn) return { kind: 'stale' };
    if (current.state === 'used') return { kind: 'used' };
    await db.query('delete from supply_unit where id = $1', [id]);
    return { kind: 'done' };
  });
}

/** Adds units as they stand in a file; none of them is here yet. */
export const addUnits = (db: Queryable, units: readonly Unit[]): Promise<void> =>
  insertAll(db, 'supply_unit', tables.unit, units);
