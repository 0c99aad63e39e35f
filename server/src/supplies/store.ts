import type { SupplyModel } from '@fairwatt/core';
import { insertRows, many, type Queryable } from '../database/query.ts';
import { boolean, member, number, orNull, text, texts } from '../database/read.ts';

type Row = Record<string, unknown>;
const byModel = <T>(rows: readonly { modelId: string; value: T }[], modelId: string): T[] => rows.filter((row) => row.modelId === modelId).map((row) => row.value);

/** All supplies of the shop with their kits, by name. */
export async function readSupplies(db: Queryable): Promise<SupplyModel[]> {
  const child = <T>(table: string, order: string, read: (row: Row) => T) => many(db, `select * from ${table} order by model_id, ${order}`, [], (row) => ({ modelId: text(row, 'model_id'), value: read(row) }));
  const rails = await child('supply_model_rail', 'position', (row) => ({ label: text(row, 'label'), rail: member<SupplyModel['label']['rails'][number]['rail']>(row, 'rail'), amps: number(row, 'amps') }));
  const combined = await child('supply_model_combined', 'position', (row) => ({ labels: texts(row, 'labels'), watts: number(row, 'watts') }));
  const sockets = await child('supply_model_socket', 'position', (row) => ({ label: text(row, 'label'), kind: member<SupplyModel['kit']['sockets'][number]['kind']>(row, 'kind') }));
  const plugs = await child('supply_model_plug', 'cable_id, position', (row) => ({ cableId: text(row, 'cable_id'), kind: member<SupplyModel['kit']['cables'][number]['plugs'][number]['kind']>(row, 'kind'), millimetres: number(row, 'millimetres') }));
  const cables = await child('supply_model_cable', 'position', (row) => ({ id: text(row, 'cable_id'), family: member<SupplyModel['kit']['cables'][number]['family']>(row, 'family'), fixed: boolean(row, 'fixed'), count: number(row, 'count'), gauge: number(row, 'gauge') as 16 | 18 | 20 | 22 }));
  return many(db, 'select * from supply_model order by name', [], (row): SupplyModel => {
    const id = text(row, 'id');
    const ownPlugs = byModel(plugs, id);
    return {
      id, name: text(row, 'name'),
      label: {
        ratingWatts: number(row, 'rating_watts'), rails: byModel(rails, id), combined: byModel(combined, id),
        shape: member(row, 'shape'), guide: member(row, 'guide'), grade: member(row, 'grade'), modular: member(row, 'modular'), has16Pin: boolean(row, 'has_16_pin'),
      },
      depthMillimetres: number(row, 'depth_millimetres'), mainsLowVolts: number(row, 'mains_low_volts'), mainsHighVolts: number(row, 'mains_high_volts'),
      price: { minor: number(row, 'price_minor'), currency: text(row, 'currency') }, onShelf: number(row, 'on_shelf'), noiseDecibels: orNull(number)(row, 'noise_decibels'), warrantyYears: number(row, 'warranty_years'),
      kit: { sockets: byModel(sockets, id), cables: byModel(cables, id).map((cable) => ({ ...cable, plugs: ownPlugs.filter((plug) => plug.cableId === cable.id).map(({ kind, millimetres }) => ({ kind, millimetres })) })) },
    };
  });
}

/** Adds supplies that are not there yet, by id; those already there stay as they are. Returns how many were added. */
export async function addSupplies(db: Queryable, models: readonly SupplyModel[]): Promise<number> {
  const known = new Set(await many(db, 'select id from supply_model where id = any($1)', [models.map((model) => model.id)], (row) => text(row, 'id')));
  const fresh = models.filter((model) => !known.has(model.id));
  await insertRows(db, 'supply_model', ['id', 'name', 'rating_watts', 'shape', 'guide', 'grade', 'modular', 'has_16_pin', 'depth_millimetres', 'mains_low_volts', 'mains_high_volts', 'price_minor', 'currency', 'on_shelf', 'noise_decibels', 'warranty_years'],
    fresh.map((model) => [model.id, model.name, model.label.ratingWatts, model.label.shape, model.label.guide, model.label.grade, model.label.modular, model.label.has16Pin, model.depthMillimetres, model.mainsLowVolts, model.mainsHighVolts, model.price.minor, model.price.currency, model.onShelf, model.noiseDecibels, model.warrantyYears]));
  await insertRows(db, 'supply_model_rail', ['model_id', 'position', 'label', 'rail', 'amps'], fresh.flatMap((model) => model.label.rails.map((rail, position) => [model.id, position, rail.label, rail.rail, rail.amps])));
  await insertRows(db, 'supply_model_combined', ['model_id', 'position', 'labels', 'watts'], fresh.flatMap((model) => model.label.combined.map((limit, position) => [model.id, position, limit.labels, limit.watts])));
  await insertRows(db, 'supply_model_socket', ['model_id', 'position', 'label', 'kind'], fresh.flatMap((model) => model.kit.sockets.map((socket, position) => [model.id, position, socket.label, socket.kind])));
  await insertRows(db, 'supply_model_cable', ['model_id', 'cable_id', 'position', 'family', 'fixed', 'count', 'gauge'], fresh.flatMap((model) => model.kit.cables.map((cable, position) => [model.id, cable.id, position, cable.family, cable.fixed, cable.count, cable.gauge])));
  await insertRows(db, 'supply_model_plug', ['model_id', 'cable_id', 'position', 'kind', 'millimetres'], fresh.flatMap((model) => model.kit.cables.flatMap((cable) => cable.plugs.map((plug, position) => [model.id, cable.id, position, plug.kind, plug.millimetres]))));
  return fresh.length;
}
