import type pg from 'pg';
import type { BagAdapter, BagCable, CableBags, Pinout } from '@fairwatt/contract';
import { insertRows, many, maybeOne, standsAlready, transaction, type Queryable } from '../database/query.ts';
import { number, text } from '../database/read.ts';
import { readChildren, upsert, writeChildren } from '../database/table.ts';
import * as tables from './tables.ts';

export async function readCableBags(db: Queryable): Promise<CableBags> {
  const socketsOf = await readChildren(db, tables.pinoutSockets, 'true', []);
  const suppliesOf = await readChildren(db, tables.pinoutSupplies, 'true', []);
  const plugsOf = await readChildren(db, tables.cablePlugs, 'true', []);
  const pinouts = await many(db, 'select * from pinout order by name, id', [], tables.pinout.read);
  const cables = await many(db, 'select * from bag_cable order by label, id', [], tables.cable.read);
  return {
    pinouts: pinouts.map((pinout) => ({
      ...pinout,
      sockets: socketsOf(pinout.id).map(({ family, pins }) => ({ family, pins: [...pins] })),
      supplies: suppliesOf(pinout.id).map(({ modelId }) => modelId),
    })),
    cables: cables.map((cable) => ({
      ...cable,
      plugs: plugsOf(cable.id).map((plug) => ({ ...plug, ends: [...plug.ends] })),
    })),
    proofs: await many(db, 'select * from cable_proof order by at desc', [], tables.proof.read),
    adapters: await many(db, 'select * from bag_adapter order by label, id', [], tables.adapter.read),
  };
}

export type BagChange =
  { readonly kind: 'done' | 'stale' | 'not-found' } | { readonly kind: 'unknown-reference'; readonly path: string };

export async function putCable(db: Queryable, cable: BagCable): Promise<void> {
  await upsert(db, 'bag_cable', tables.cable, cable);
  await db.query('delete from bag_cable_plug where cable_id = $1', [cable.id]);
  await writeChildren(
    db,
    tables.cablePlugs,
    [cable],
    ({ id }) => id,
    ({ plugs }) => plugs,
  );
}

export const putAdapter = (db: Queryable, adapter: BagAdapter): Promise<void> =>
  upsert(db, 'bag_adapter', tables.adapter, adapter);

export function changeAdapter(pool: pg.Pool, basedOn: number, adapter: BagAdapter): Promise<BagChange> {
  return transaction(pool, async (db): Promise<BagChange> => {
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
  await upsert(db, 'pinout', tables.pinout, pinout);
  await db.query('delete from pinout_socket where pinout_id = $1', [pinout.id]);
  await db.query('delete from pinout_supply where pinout_id = $1 or model_id = any($2)', [pinout.id, pinout.supplies]);
  await writeChildren(
    db,
    tables.pinoutSockets,
    [pinout],
    ({ id }) => id,
    ({ sockets }) => sockets,
  );
  await insertRows(
    db,
    'pinout_supply',
    ['model_id', 'pinout_id'],
    pinout.supplies.map((modelId) => [modelId, pinout.id]),
  );
}

/** A cable whose wires or plugs changed is another cable: what was proved of it goes. */
export function changeCable(pool: pg.Pool, basedOn: number, cable: BagCable): Promise<BagChange> {
  return transaction(pool, async (db): Promise<BagChange> => {
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

export function removeFromBags(pool: pg.Pool, table: 'bag_cable' | 'bag_adapter', id: string): Promise<BagChange> {
  return transaction(pool, async (db): Promise<BagChange> => {
    return { kind: (await db.query(`delete from ${table} where id = $1`, [id])).rowCount === 1 ? 'done' : 'not-found' };
  });
}

export function changePinout(pool: pg.Pool, basedOn: number, pinout: Pinout): Promise<BagChange> {
  return transaction(pool, async (db): Promise<BagChange> => {
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
