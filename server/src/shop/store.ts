import { isDeepStrictEqual } from 'node:util';
import type pg from 'pg';
import { boardSensorId, firstChoosing, firstLocale, type Instrument, type ShopSettings } from '@fairwatt/core';
import { firstCodePrefix, type NamedPerson, type ShopMessage, type Technician } from '@fairwatt/contract';
import { many, maybeOne, transaction, type Queryable } from '../database/query.ts';
import { number, text } from '../database/read.ts';
import { insertAll, readChildren, updateRow, writeChildren } from '../database/table.ts';
import * as tables from './tables.ts';

export const hasSettings = async (db: Queryable): Promise<boolean> =>
  (await maybeOne(db, 'select name from shop_settings', [], (row) => text(row, 'name'))) !== null;

/** A short id from the name, with a number where it is taken. */
export async function nextTechnicianId(db: Queryable, name: string): Promise<string> {
  const base =
    name
      .toLowerCase()
      .normalize('NFKD')
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-+|-+$/g, '')
      .slice(0, 40) || 'technician';
  for (let count = 1; ; count += 1) {
    const id = count === 1 ? base : `${base}-${count}`;
    if ((await maybeOne(db, 'select id from technician where id = $1', [id], (row) => row)) === null) return id;
  }
}

export const readTechnicians = (db: Queryable): Promise<Technician[]> =>
  many(db, "select id, name, role from technician order by role <> 'owner', name", [], tables.technician.read);

export async function readInstruments(db: Queryable): Promise<Instrument[]> {
  const rangesOf = await readChildren(db, tables.instrumentRanges, 'true', []);
  const instruments = await many(
    db,
    'select * from instrument where id <> $1 order by name',
    [boardSensorId],
    tables.instrument.read,
  );
  return instruments.map((instrument) => ({ ...instrument, ranges: rangesOf(instrument.id) }));
}

/** What a shop starts with that has not said otherwise: nobody measures at the outlet until somebody says who may. */
export const firstSettings: ShopSettings = {
  name: 'Repair bench',
  codePrefix: firstCodePrefix,
  mainsVolts: 230,
  currency: 'EUR',
  locale: firstLocale,
  timeZone: '',
  school: 'peaks-covered',
  stopProbability: 0.9,
  bench: { has: ['meter'], mayMeterMains: false },
  choosing: firstChoosing,
};

export const readSettings = async (db: Queryable): Promise<ShopSettings> =>
  (await maybeOne(db, 'select * from shop_settings', [], tables.settings.read)) ?? firstSettings;

export async function readShop(db: Queryable): Promise<ShopMessage> {
  const settings = await readSettings(db);
  const settingsVersion =
    (await maybeOne(db, 'select version from shop_settings', [], (row) => number(row, 'version'))) ?? 0;
  return {
    settingsVersion,
    settings: { ...settings, bench: { ...settings.bench, has: [...settings.bench.has] } },
    technicians: await readTechnicians(db),
    instruments: (await readInstruments(db)).map((instrument) => ({ ...instrument, ranges: [...instrument.ranges] })),
  };
}

/**
 * Adds people of a shop's file that are not there yet, by id. They come without a secret, so none of them is a way in;
 * a file makes owners only where nobody is entered yet.
 */
export async function addTechnicians(db: Queryable, people: readonly NamedPerson[]): Promise<void> {
  const known = new Set((await readTechnicians(db)).map((technician) => technician.id));
  const fresh = people.filter(({ id }) => !known.has(id));
  await insertAll(
    db,
    'technician',
    tables.technician,
    fresh.map(({ id, name, owner }): Technician => ({
      id,
      name,
      role: owner && known.size === 0 ? 'owner' : 'technician',
    })),
  );
}

/** Adds instruments that are not there yet, by id; those already there stay as they are. */
export async function addInstruments(db: Queryable, instruments: readonly Instrument[]): Promise<void> {
  const known = new Set((await readInstruments(db)).map((instrument) => instrument.id));
  const fresh = instruments.filter((instrument) => !known.has(instrument.id));
  await insertAll(db, 'instrument', tables.instrument, fresh);
  await writeRanges(db, fresh);
}

const writeRanges = (db: Queryable, instruments: readonly Instrument[]): Promise<void> =>
  writeChildren(
    db,
    tables.instrumentRanges,
    instruments,
    (instrument) => instrument.id,
    (instrument) => instrument.ranges,
  );

export type ChangeResult = { readonly kind: 'done' | 'stale' };

/** An instrument as an owner wants it. `was` must be how it still stands; null for one that is not there yet. */
export function changeInstrument(pool: pg.Pool, was: Instrument | null, wanted: Instrument): Promise<ChangeResult> {
  return transaction(pool, async (db): Promise<ChangeResult> => {
    await db.query('lock table instrument in share row exclusive mode');
    const current = (await readInstruments(db)).find((instrument) => instrument.id === wanted.id) ?? null;
    // A change whose answer was lost is sent again, and is then no conflict.
    if (!isDeepStrictEqual(current, was)) return { kind: isDeepStrictEqual(current, wanted) ? 'done' : 'stale' };
    if (current === null) {
      await addInstruments(db, [wanted]);
      return { kind: 'done' };
    }
    await updateRow(db, 'instrument', tables.instrument, wanted);
    await db.query('delete from instrument_range where instrument_id = $1', [wanted.id]);
    await writeRanges(db, [wanted]);
    return { kind: 'done' };
  });
}

export async function writeSettings(db: Queryable, settings: ShopSettings): Promise<void> {
  const { columns, values } = tables.settings;
  const sets = columns.map((column, index) => `${column} = $${index + 1}`);
  await db.query(
    `insert into shop_settings (${columns.join(', ')}) values (${columns.map((_, index) => `$${index + 1}`).join(', ')})
    on conflict (only_row) do update set ${sets.join(', ')}, version = shop_settings.version + 1`,
    [...values(settings)],
  );
}

/** New settings by an owner, based on the version that was seen. */
export function changeSettings(pool: pg.Pool, basedOn: number, settings: ShopSettings): Promise<ChangeResult> {
  return transaction(pool, async (db): Promise<ChangeResult> => {
    const version =
      (await maybeOne(db, 'select version from shop_settings for update', [], (row) => number(row, 'version'))) ?? 0;
    if (version !== basedOn) return { kind: isDeepStrictEqual(await readSettings(db), settings) ? 'done' : 'stale' };
    await writeSettings(db, settings);
    return { kind: 'done' };
  });
}
