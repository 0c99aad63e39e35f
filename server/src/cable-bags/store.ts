import type pg from 'pg';
import type { WireEnd } from '@fairwatt/core';
import type { BagAdapter, BagCable, CableBags, Pinout } from '@fairwatt/contract';
import { insertRows, many, maybeOne, standsAlready, transaction, type Queryable } from '../database/query.ts';
import { boolean, instant, member, number, orNull, text } from '../database/read.ts';
import { technicianExists } from '../shop/store.ts';

const nullable = (row: Record<string, unknown>, column: string): unknown[] =>
  Array.isArray(row[column]) ? (row[column] as unknown[]) : [];
const endOf = (value: unknown): WireEnd => (value === 0 ? 'none' : typeof value === 'number' ? value : null);
const storedEnd = (end: WireEnd): number | null => (end === 'none' ? 0 : end);

export async function readCableBags(db: Queryable): Promise<CableBags> {
  const sockets = await many(
    db,
    "select * from pinout_socket order by pinout_id, array_position(array['main', 'cpu', 'card', 'card-16', 'drive'], family)",
    [],
    (row) => ({
      pinoutId: text(row, 'pinout_id'),
      socket: {
        family: member<BagCable['family']>(row, 'family'),
        pins: nullable(row, 'pins') as Pinout['sockets'][number]['pins'],
      },
    }),
  );
  const of = await many(db, 'select * from pinout_supply order by model_id', [], (row) => ({
    pinoutId: text(row, 'pinout_id'),
    modelId: text(row, 'model_id'),
  }));
  const plugs = await many(db, 'select * from bag_cable_plug order by cable_id, position', [], (row) => ({
    cableId: text(row, 'cable_id'),
    plug: {
      kind: member<BagCable['plugs'][number]['kind']>(row, 'kind'),
      millimetres: number(row, 'millimetres'),
      ends: nullable(row, 'ends').map(endOf),
    },
  }));
  return {
    pinouts: await many(db, 'select * from pinout order by name, id', [], (row): Pinout => {
      const id = text(row, 'id');
      return {
        id,
        version: number(row, 'version'),
        name: text(row, 'name'),
        sockets: sockets.filter((item) => item.pinoutId === id).map((item) => item.socket),
        supplies: of.filter((item) => item.pinoutId === id).map((item) => item.modelId),
      };
    }),
    cables: await many(db, 'select * from bag_cable order by label, id', [], (row): BagCable => {
      const id = text(row, 'id');
      return {
        id,
        version: number(row, 'version'),
        label: text(row, 'label'),
        place: text(row, 'place'),
        family: member(row, 'family'),
        cameWith: text(row, 'came_with'),
        note: text(row, 'note'),
        gauge: orNull<NonNullable<BagCable['gauge']>>(
          (from, column) => number(from, column) as NonNullable<BagCable['gauge']>,
        )(row, 'gauge'),
        plugs: plugs.filter((item) => item.cableId === id).map((item) => item.plug),
      };
    }),
    proofs: await many(db, 'select * from cable_proof order by at desc', [], (row) => ({
      cableId: text(row, 'cable_id'),
      modelId: text(row, 'model_id'),
      by: text(row, 'by'),
      at: instant(row, 'at'),
      note: text(row, 'note'),
    })),
    adapters: await many(db, 'select * from bag_adapter order by label, id', [], (row): BagAdapter => ({
      id: text(row, 'id'),
      version: number(row, 'version'),
      label: text(row, 'label'),
      place: text(row, 'place'),
      takes: member(row, 'takes'),
      gives: member(row, 'gives'),
      legs: number(row, 'legs'),
      moulded: boolean(row, 'moulded'),
      addsMillimetres: number(row, 'adds_millimetres'),
      watts: orNull(number)(row, 'watts'),
      count: number(row, 'count'),
    })),
  };
}

export type BagChange =
  | { readonly kind: 'done' | 'unknown-technician' | 'stale' | 'not-found' }
  | { readonly kind: 'unknown-reference'; readonly path: string };

export async function putCable(db: Queryable, cable: BagCable): Promise<void> {
  await db.query(
    `insert into bag_cable (id, version, label, place, family, came_with, note, gauge) values ($1, $2, $3, $4, $5, $6, $7, $8)
    on conflict (id) do update set version = $2, label = $3, place = $4, family = $5, came_with = $6, note = $7, gauge = $8`,
    [cable.id, cable.version, cable.label, cable.place, cable.family, cable.cameWith, cable.note, cable.gauge],
  );
  await db.query('delete from bag_cable_plug where cable_id = $1', [cable.id]);
  await insertRows(
    db,
    'bag_cable_plug',
    ['cable_id', 'position', 'kind', 'millimetres', 'ends'],
    cable.plugs.map((plug, position) => [cable.id, position, plug.kind, plug.millimetres, plug.ends.map(storedEnd)]),
  );
}

export async function putAdapter(db: Queryable, adapter: BagAdapter): Promise<void> {
  await db.query('delete from bag_adapter where id = $1', [adapter.id]);
  await insertRows(
    db,
    'bag_adapter',
    ['id', 'version', 'label', 'place', 'takes', 'gives', 'legs', 'moulded', 'adds_millimetres', 'watts', 'count'],
    [
      [
        adapter.id,
        adapter.version,
        adapter.label,
        adapter.place,
        adapter.takes,
        adapter.gives,
        adapter.legs,
        adapter.moulded,
        adapter.addsMillimetres,
        adapter.watts,
        adapter.count,
      ],
    ],
  );
}

export function changeAdapter(pool: pg.Pool, by: string, basedOn: number, adapter: BagAdapter): Promise<BagChange> {
  return transaction(pool, async (db): Promise<BagChange> => {
    if (!(await technicianExists(db, by))) return { kind: 'unknown-technician' };
    const current = await maybeOne(
      db,
      'select version from bag_adapter where id = $1 for update',
      [adapter.id],
      (row) => number(row, 'version'),
    );
    if ((current ?? 0) !== basedOn) {
      const standing = (await readCableBags(db)).adapters.find((item) => item.id === adapter.id);
      return { kind: standsAlready(standing, adapter) ? 'done' : 'stale' };
    }
    await putAdapter(db, { ...adapter, version: basedOn + 1 });
    return { kind: 'done' };
  });
}

export async function putPinout(db: Queryable, pinout: Pinout): Promise<void> {
  await db.query(
    'insert into pinout (id, version, name) values ($1, $2, $3) on conflict (id) do update set version = $2, name = $3',
    [pinout.id, pinout.version, pinout.name],
  );
  await db.query('delete from pinout_socket where pinout_id = $1', [pinout.id]);
  await db.query('delete from pinout_supply where pinout_id = $1 or model_id = any($2)', [pinout.id, pinout.supplies]);
  await insertRows(
    db,
    'pinout_socket',
    ['pinout_id', 'family', 'pins'],
    pinout.sockets.map((socket) => [pinout.id, socket.family, socket.pins]),
  );
  await insertRows(
    db,
    'pinout_supply',
    ['model_id', 'pinout_id'],
    pinout.supplies.map((modelId) => [modelId, pinout.id]),
  );
}

/** A cable whose wires or plugs changed is another cable: what was proved of it goes. */
export function changeCable(pool: pg.Pool, by: string, basedOn: number, cable: BagCable): Promise<BagChange> {
  return transaction(pool, async (db): Promise<BagChange> => {
    if (!(await technicianExists(db, by))) return { kind: 'unknown-technician' };
    const current = await maybeOne(db, 'select version from bag_cable where id = $1 for update', [cable.id], (row) =>
      number(row, 'version'),
    );
    if ((current ?? 0) !== basedOn) {
      const standing = (await readCableBags(db)).cables.find((item) => item.id === cable.id);
      return { kind: standsAlready(standing, cable) ? 'done' : 'stale' };
    }
    const was = (await readCableBags(db)).cables.find((item) => item.id === cable.id);
    if (was !== undefined && JSON.stringify(was.plugs) !== JSON.stringify(cable.plugs))
      await db.query('delete from cable_proof where cable_id = $1', [cable.id]);
    await putCable(db, { ...cable, version: basedOn + 1 });
    return { kind: 'done' };
  });
}

export function removeFromBags(
  pool: pg.Pool,
  by: string,
  table: 'bag_cable' | 'bag_adapter',
  id: string,
): Promise<BagChange> {
  return transaction(pool, async (db): Promise<BagChange> => {
    if (!(await technicianExists(db, by))) return { kind: 'unknown-technician' };
    return { kind: (await db.query(`delete from ${table} where id = $1`, [id])).rowCount === 1 ? 'done' : 'not-found' };
  });
}

export function changePinout(pool: pg.Pool, by: string, basedOn: number, pinout: Pinout): Promise<BagChange> {
  return transaction(pool, async (db): Promise<BagChange> => {
    if (!(await technicianExists(db, by))) return { kind: 'unknown-technician' };
    const current = await maybeOne(db, 'select version from pinout where id = $1 for update', [pinout.id], (row) =>
      number(row, 'version'),
    );
    if ((current ?? 0) !== basedOn) {
      const standing = (await readCableBags(db)).pinouts.find((item) => item.id === pinout.id);
      return { kind: standsAlready(standing, pinout) ? 'done' : 'stale' };
    }
    const known = new Set(
      await many(db, 'select id from supply_model where id = any($1)', [pinout.supplies], (row) => text(row, 'id')),
    );
    const lost = pinout.supplies.findIndex((model) => !known.has(model));
    if (lost >= 0) return { kind: 'unknown-reference', path: `pinout.supplies.${lost}` };
    await putPinout(db, { ...pinout, version: basedOn + 1 });
    return { kind: 'done' };
  });
}

/** Keeps or takes back that a cable was probed on a supply and showed what it must. */
export function changeProof(
  pool: pg.Pool,
  by: string,
  cableId: string,
  modelId: string,
  note: string,
  proved: boolean,
  at: string,
): Promise<BagChange> {
  return transaction(pool, async (db): Promise<BagChange> => {
    if (!(await technicianExists(db, by))) return { kind: 'unknown-technician' };
    if ((await maybeOne(db, 'select id from bag_cable where id = $1', [cableId], (row) => row)) === null)
      return { kind: 'unknown-reference', path: 'cableId' };
    if ((await maybeOne(db, 'select id from supply_model where id = $1', [modelId], (row) => row)) === null)
      return { kind: 'unknown-reference', path: 'modelId' };
    await db.query('delete from cable_proof where cable_id = $1 and model_id = $2', [cableId, modelId]);
    if (proved)
      await db.query('insert into cable_proof (cable_id, model_id, by, at, note) values ($1, $2, $3, $4, $5)', [
        cableId,
        modelId,
        by,
        at,
        note,
      ]);
    return { kind: 'done' };
  });
}
