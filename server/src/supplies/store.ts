import { isDeepStrictEqual } from 'node:util';
import { randomUUID } from 'node:crypto';
import type pg from 'pg';
import type { SupplyModel } from '@fairwatt/core';
import { insertRows, many, maybeOne, transaction, type Queryable } from '../database/query.ts';
import { boolean, member, number, orNull, text, texts } from '../database/read.ts';
import { technicianExists } from '../shop/store.ts';

type Row = Record<string, unknown>;
type Rail = SupplyModel['label']['rails'][number];
type KitCable = SupplyModel['kit']['cables'][number];

/** What hangs on an output, where the label says it. */
export const feedsOf = (row: Row): Pick<Rail, 'feeds'> =>
  row['feeds'] === null ? {} : { feeds: texts(row, 'feeds') as Rail['feeds'] };
const outputOf = (row: Row) => (row['output'] === null ? {} : { output: text(row, 'output') });

/** All supplies of the shop with their kits, by name; `onShelf` counts the units that can be fitted now. */
export async function readSupplies(db: Queryable, only: readonly string[] | null = null): Promise<SupplyModel[]> {
  const child = async <T>(table: string, order: string, read: (row: Row) => T): Promise<Map<string, T[]>> => {
    const found = new Map<string, T[]>();
    await many(
      db,
      `select * from ${table} where $1::text[] is null or model_id = any($1) order by model_id, ${order}`,
      [only],
      (row) => {
        const id = text(row, 'model_id');
        const list = found.get(id);
        if (list === undefined) found.set(id, [read(row)]);
        else list.push(read(row));
      },
    );
    return found;
  };
  const rails = await child('supply_model_rail', 'position', (row): Rail => ({
    label: text(row, 'label'),
    rail: member(row, 'rail'),
    amps: number(row, 'amps'),
    ...feedsOf(row),
  }));
  const combined = await child('supply_model_combined', 'position', (row) => ({
    labels: texts(row, 'labels'),
    watts: number(row, 'watts'),
  }));
  const sockets = await child('supply_model_socket', 'position', (row): SupplyModel['kit']['sockets'][number] => ({
    label: text(row, 'label'),
    kind: member(row, 'kind'),
    ...outputOf(row),
  }));
  const plugs = await child('supply_model_plug', 'cable_id, position', (row) => ({
    cableId: text(row, 'cable_id'),
    plug: { kind: member<KitCable['plugs'][number]['kind']>(row, 'kind'), millimetres: number(row, 'millimetres') },
  }));
  const cables = await child('supply_model_cable', 'position', (row): Omit<KitCable, 'plugs'> => ({
    id: text(row, 'cable_id'),
    family: member(row, 'family'),
    fixed: boolean(row, 'fixed'),
    count: number(row, 'count'),
    gauge: number(row, 'gauge') as KitCable['gauge'],
    ...outputOf(row),
  }));
  return many(
    db,
    `select supply_model.*, (select count(*) from supply_unit where model_id = supply_model.id and state in ('new', 'proven') and reserved_for is null) as on_shelf
    from supply_model where $1::text[] is null or id = any($1) order by name, id`,
    [only],
    (row): SupplyModel => {
      const id = text(row, 'id');
      const ownPlugs = plugs.get(id) ?? [];
      return {
        id,
        name: text(row, 'name'),
        label: {
          ratingWatts: number(row, 'rating_watts'),
          rails: rails.get(id) ?? [],
          combined: combined.get(id) ?? [],
          shape: member(row, 'shape'),
          guide: member(row, 'guide'),
          grade: member(row, 'grade'),
          modular: member(row, 'modular'),
          has16Pin: boolean(row, 'has_16_pin'),
        },
        depthMillimetres: number(row, 'depth_millimetres'),
        mainsLowVolts: number(row, 'mains_low_volts'),
        mainsHighVolts: number(row, 'mains_high_volts'),
        inlet: member(row, 'inlet'),
        correction: member(row, 'correction'),
        protections: texts(row, 'protections') as SupplyModel['protections'],
        fan: member(row, 'fan'),
        ownHoles: boolean(row, 'own_holes'),
        price: {
          minor: number(row, 'price_minor'),
          currency: text(row, 'currency'),
          asOf: orNull(text)(row, 'price_as_of'),
        },
        onShelf: number(row, 'on_shelf'),
        noiseDecibels: orNull(number)(row, 'noise_decibels'),
        warrantyYears: number(row, 'warranty_years'),
        designYear: orNull(number)(row, 'design_year'),
        kit: {
          sockets: sockets.get(id) ?? [],
          cables: (cables.get(id) ?? []).map((cable) => ({
            ...cable,
            plugs: ownPlugs.filter((item) => item.cableId === cable.id).map((item) => item.plug),
          })),
        },
      };
    },
  );
}

const modelColumns = [
  'id',
  'name',
  'rating_watts',
  'shape',
  'guide',
  'grade',
  'modular',
  'has_16_pin',
  'depth_millimetres',
  'mains_low_volts',
  'mains_high_volts',
  'inlet',
  'correction',
  'protections',
  'fan',
  'own_holes',
  'price_minor',
  'currency',
  'price_as_of',
  'noise_decibels',
  'warranty_years',
  'design_year',
] as const;
const modelRow = (model: SupplyModel) => [
  model.id,
  model.name,
  model.label.ratingWatts,
  model.label.shape,
  model.label.guide,
  model.label.grade,
  model.label.modular,
  model.label.has16Pin,
  model.depthMillimetres,
  model.mainsLowVolts,
  model.mainsHighVolts,
  model.inlet,
  model.correction,
  model.protections,
  model.fan,
  model.ownHoles,
  model.price.minor,
  model.price.currency,
  model.price.asOf,
  model.noiseDecibels,
  model.warrantyYears,
  model.designYear,
];

async function writeChildren(db: Queryable, models: readonly SupplyModel[]): Promise<void> {
  await insertRows(
    db,
    'supply_model_rail',
    ['model_id', 'position', 'label', 'rail', 'amps', 'feeds'],
    models.flatMap((model) =>
      model.label.rails.map((rail, position) => [
        model.id,
        position,
        rail.label,
        rail.rail,
        rail.amps,
        rail.feeds ?? null,
      ]),
    ),
  );
  await insertRows(
    db,
    'supply_model_combined',
    ['model_id', 'position', 'labels', 'watts'],
    models.flatMap((model) =>
      model.label.combined.map((limit, position) => [model.id, position, limit.labels, limit.watts]),
    ),
  );
  await insertRows(
    db,
    'supply_model_socket',
    ['model_id', 'position', 'label', 'kind', 'output'],
    models.flatMap((model) =>
      model.kit.sockets.map((socket, position) => [
        model.id,
        position,
        socket.label,
        socket.kind,
        socket.output ?? null,
      ]),
    ),
  );
  await insertRows(
    db,
    'supply_model_cable',
    ['model_id', 'cable_id', 'position', 'family', 'fixed', 'count', 'gauge', 'output'],
    models.flatMap((model) =>
      model.kit.cables.map((cable, position) => [
        model.id,
        cable.id,
        position,
        cable.family,
        cable.fixed,
        cable.count,
        cable.gauge,
        cable.output ?? null,
      ]),
    ),
  );
  await insertRows(
    db,
    'supply_model_plug',
    ['model_id', 'cable_id', 'position', 'kind', 'millimetres'],
    models.flatMap((model) =>
      model.kit.cables.flatMap((cable) =>
        cable.plugs.map((plug, position) => [model.id, cable.id, position, plug.kind, plug.millimetres]),
      ),
    ),
  );
}

/** Adds supplies that are not there yet, by id, with as many new units as they say are on the shelf; those already there stay as they are. Returns how many were added. */
export async function addSupplies(db: Queryable, models: readonly SupplyModel[]): Promise<number> {
  const known = new Set(
    await many(db, 'select id from supply_model where id = any($1)', [models.map((model) => model.id)], (row) =>
      text(row, 'id'),
    ),
  );
  const fresh = models.filter((model) => !known.has(model.id));
  await insertRows(db, 'supply_model', modelColumns, fresh.map(modelRow));
  await writeChildren(db, fresh);
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
  for (const model of models)
    await db.query(
      `update supply_model set ${modelColumns
        .slice(1)
        .map((column, index) => `${column} = $${index + 2}`)
        .join(', ')} where id = $1`,
      modelRow(model),
    );
  const ids = models.map((model) => model.id);
  for (const table of ['supply_model_rail', 'supply_model_combined', 'supply_model_socket', 'supply_model_cable'])
    await db.query(`delete from ${table} where model_id = any($1)`, [ids]);
  await writeChildren(db, models);
}

/** Two supplies alike in all but how many are on the shelf, which the units say. */
export const sameSupply = (a: SupplyModel, b: SupplyModel): boolean =>
  isDeepStrictEqual({ ...a, onShelf: 0 }, { ...b, onShelf: 0 });

export type SupplyChange =
  | { readonly kind: 'done' | 'unknown-technician' | 'stale' | 'not-found' }
  | { readonly kind: 'in-use'; readonly why: string };

/** A supply as somebody wants it. `was` must be how it still stands; null for one that is not there yet. */
export function changeSupply(
  pool: pg.Pool,
  by: string,
  was: SupplyModel | null,
  wanted: SupplyModel,
): Promise<SupplyChange> {
  return transaction(pool, async (db): Promise<SupplyChange> => {
    if (!(await technicianExists(db, by))) return { kind: 'unknown-technician' };
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
export function removeSupply(pool: pg.Pool, by: string, id: string): Promise<SupplyChange> {
  return transaction(pool, async (db): Promise<SupplyChange> => {
    if (!(await technicianExists(db, by))) return { kind: 'unknown-technician' };
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
