import type pg from 'pg';
import { boardSensorId } from '@fairwatt/core';
import type { NetworkInstrument } from '@fairwatt/contract';
import { many, maybeOne, transaction, type Queryable } from '../database/query.ts';
import { networkInstrument } from '../shop/tables.ts';

const { read } = networkInstrument;

export const listNetworkInstruments = (db: Queryable): Promise<NetworkInstrument[]> =>
  many(db, 'select * from network_instrument order by role desc, name', [], read);
export const findNetworkInstrument = (db: Queryable, id: string): Promise<NetworkInstrument | null> =>
  maybeOne(db, 'select * from network_instrument where id = $1', [id], read);

/** Puts an instrument at its address; an id that is there already moves to the new one. */
export async function putNetworkInstrument(
  db: Queryable,
  instrument: NetworkInstrument,
  by: string | null,
): Promise<void> {
  await db.query(
    'insert into network_instrument (id, name, role, host, port, instrument_id, added_by) ' +
      'values ($1, $2, $3, $4, $5, $6, $7) on conflict (id) do update set name = $2, role = $3, ' +
      'host = $4, port = $5, instrument_id = $6',
    [instrument.id, instrument.name, instrument.role, instrument.host, instrument.port, instrument.instrumentId, by],
  );
}

/** Notes that a sweep may make this load draw. */
export async function noteSweep(db: Queryable, loadId: string): Promise<void> {
  await db.query('insert into load_sweep (load_id) values ($1) on conflict (load_id) do update set begun_at = now()', [
    loadId,
  ]);
}
/** The load is known to be off. */
export async function forgetSweep(db: Queryable, loadId: string): Promise<void> {
  await db.query('delete from load_sweep where load_id = $1', [loadId]);
}
/** Loads that were in a sweep whose end nobody saw. */
export const loadsLeftInSweeps = (db: Queryable): Promise<NetworkInstrument[]> =>
  many(
    db,
    'select network_instrument.* from network_instrument join load_sweep on load_id = id order by begun_at desc, id',
    [],
    read,
  );

export type AddressChange = 'done' | 'load-unsure' | 'unknown-instrument' | 'not-found';

/** A load of which nobody knows whether it draws: its address is needed to switch it off. */
const isUnsure = async (db: Queryable, id: string): Promise<boolean> =>
  (await maybeOne(db, 'select load_id from load_sweep where load_id = $1 for update', [id], (row) => row)) !== null;

export const addNetworkInstrument = (
  pool: pg.Pool,
  by: string,
  instrument: NetworkInstrument,
): Promise<AddressChange> =>
  transaction(pool, async (db): Promise<AddressChange> => {
    if (
      instrument.instrumentId !== null &&
      (await maybeOne(
        db,
        'select id from instrument where id = $1 and id <> $2',
        [instrument.instrumentId, boardSensorId],
        (row) => row,
      )) === null
    )
      return 'unknown-instrument';
    if (await isUnsure(db, instrument.id)) return 'load-unsure';
    await putNetworkInstrument(db, instrument, by);
    return 'done';
  });
export const removeNetworkInstrument = (pool: pg.Pool, id: string): Promise<AddressChange> =>
  transaction(pool, async (db): Promise<AddressChange> => {
    if (await isUnsure(db, id)) return 'load-unsure';
    return (await db.query('delete from network_instrument where id = $1', [id])).rowCount === 1 ? 'done' : 'not-found';
  });
