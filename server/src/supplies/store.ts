import { isDeepStrictEqual } from 'node:util';
import { randomUUID } from 'node:crypto';
import type pg from 'pg';
import type { SupplyModel } from '@fairwatt/core';
import { insertRows, many, maybeOne, transaction, type Queryable } from '../database/query.ts';
import { text } from '../database/read.ts';
import { insertAll, readChildren, updateRow, writeChildren } from '../database/table.ts';
import * as tables from './tables.ts';

/** Units of a model that can be fitted now. */
const onShelf = `(select count(*) from supply_unit
  where model_id = supply_model.id and state in ('new', 'proven') and reserved_for is null) as on_shelf`;

/** All supplies of the shop with their kits, by name; `onShelf` counts the units that can be fitted now. */
export async function readSupplies(db: Queryable, only: readonly string[] | null = null): Promise<SupplyModel[]> {
  const wanted = ['$1::text[] is null or model_id = any($1)', [only]] as const;
  const railsOf = await readChildren(db, tables.rails, ...wanted);
  const combinedOf = await readChildren(db, tables.combined, ...wanted);
  const socketsOf = await readChildren(db, tables.sockets, ...wanted);
  const cablesOf = await readChildren(db, tables.cables, ...wanted);
  const plugsOf = await readChildren(db, tables.plugs, ...wanted);
  const kitCables = (modelId: string) => {
    const plugs = plugsOf(modelId);
    return cablesOf(modelId).map((cable) => ({
      ...cable,
      plugs: plugs.filter((plug) => plug.cableId === cable.id).map(({ kind, millimetres }) => ({ kind, millimetres })),
    }));
  };
  return many(
    db,
    `select supply_model.*, ${onShelf} from supply_model where $1::text[] is null or id = any($1) order by name, id`,
    [only],
    (row): SupplyModel => {
      const head = tables.modelOnShelf.read(row);
      return {
        ...head,
        label: { ...head.label, rails: railsOf(head.id), combined: combinedOf(head.id) },
        kit: { sockets: socketsOf(head.id), cables: kitCables(head.id) },
      };
    },
  );
}

/** Writes what stands beside the rows of models. */
async function writeBeside(db: Queryable, models: readonly SupplyModel[]): Promise<void> {
  const id = (model: SupplyModel) => model.id;
  await writeChildren(db, tables.rails, models, id, (model) => model.label.rails);
  await writeChildren(db, tables.combined, models, id, (model) => model.label.combined);
  await writeChildren(db, tables.sockets, models, id, (model) => model.kit.sockets);
  await writeChildren(db, tables.cables, models, id, (model) => model.kit.cables);
  await writeChildren(db, tables.plugs, models, id, (model) =>
    model.kit.cables.flatMap((cable) => cable.plugs.map((plug) => ({ ...plug, cableId: cable.id }))),
  );
}

/**
 * Adds supplies that are not there yet, by id, with as many new units as they say are on the shelf; those already there
 * stay as they are. Returns how many were added.
 */
export async function addSupplies(db: Queryable, models: readonly SupplyModel[]): Promise<number> {
  const known = new Set(
    await many(db, 'select id from supply_model where id = any($1)', [models.map((model) => model.id)], (row) =>
      text(row, 'id'),
    ),
  );
  const fresh = models.filter((model) => !known.has(model.id));
  await insertAll(db, 'supply_model', tables.model, fresh);
  await writeBeside(db, fresh);
  await insertRows(
    db,
    'supply_unit',
    ['id', 'version', 'model_id', 'place', 'state', 'serial', 'bag', 'note'],
    fresh.flatMap((model) =>
      Array.from({ length: model.onShelf }, () => [randomUUID(), 1, model.id, '', 'new', '', '', '']),
    ),
  );
  return fresh.length;
}

/** Writes supplies that are there over what is there; their units stay. */
export async function overwriteSupplies(db: Queryable, models: readonly SupplyModel[]): Promise<void> {
  for (const model of models) await updateRow(db, 'supply_model', tables.model, model);
  const ids = models.map((model) => model.id);
  for (const table of ['supply_model_rail', 'supply_model_combined', 'supply_model_socket', 'supply_model_cable'])
    await db.query(`delete from ${table} where model_id = any($1)`, [ids]);
  await writeBeside(db, models);
}

/** Two supplies alike in all but how many are on the shelf, which the units say. */
export const sameSupply = (a: SupplyModel, b: SupplyModel): boolean =>
  isDeepStrictEqual({ ...a, onShelf: 0 }, { ...b, onShelf: 0 });

export type SupplyChange =
  { readonly kind: 'done' | 'stale' | 'not-found' } | { readonly kind: 'in-use'; readonly why: string };

/** A supply as somebody wants it. `was` must be how it still stands; null for one that is not there yet. */
export function changeSupply(pool: pg.Pool, was: SupplyModel | null, wanted: SupplyModel): Promise<SupplyChange> {
  return transaction(pool, async (db): Promise<SupplyChange> => {
    await db.query('lock table supply_model in share row exclusive mode');
    const current = (await readSupplies(db, [wanted.id]))[0] ?? null;
    if (current === null ? was !== null : was === null || !sameSupply(current, was))
      return { kind: current !== null && sameSupply(current, wanted) ? 'done' : 'stale' };
    if (current === null) await addSupplies(db, [wanted]);
    else await overwriteSupplies(db, [wanted]);
    return { kind: 'done' };
  });
}

/** Takes a supply out, unless units of it are kept or a job chose it. */
export function removeSupply(pool: pg.Pool, id: string): Promise<SupplyChange> {
  return transaction(pool, async (db): Promise<SupplyChange> => {
    if (
      (await maybeOne(db, 'select id from supply_model where id = $1 for update', [id], (row) => text(row, 'id'))) ===
      null
    )
      return { kind: 'not-found' };
    const chosen = await many(
      db,
      'select code from job_choice join job on job.id = job_choice.job_id where model_id = $1 order by code limit 3',
      [id],
      (row) => text(row, 'code'),
    );
    if (chosen.length > 0) return { kind: 'in-use', why: `chosen in ${chosen.join(', ')}` };
    const units = await many(db, 'select id from supply_unit where model_id = $1 limit 1', [id], (row) =>
      text(row, 'id'),
    );
    if (units.length > 0) return { kind: 'in-use', why: 'units of it are on the shelf' };
    await db.query('delete from supply_model where id = $1', [id]);
    return { kind: 'done' };
  });
}
