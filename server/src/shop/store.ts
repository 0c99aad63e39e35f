import { isDeepStrictEqual } from 'node:util';
import type pg from 'pg';
import { firstChoosing, type Instrument, type ShopSettings } from '@fairwatt/core';
import type { ShopMessage, Technician } from '@fairwatt/contract';
import { insertRows, many, maybeOne, transaction, type Queryable } from '../database/query.ts';
import { boolean, member, number, orNull, text, texts } from '../database/read.ts';

export const technicianExists = async (db: Queryable, id: string): Promise<boolean> =>
  (await maybeOne(db, 'select id from technician where id = $1', [id], (row) => text(row, 'id'))) !== null;

export const technicianNamed = async (db: Queryable, name: string): Promise<boolean> =>
  (await many(db, 'select id from technician where lower(name) = lower($1)', [name], (row) => text(row, 'id'))).length >
  0;
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
    if (!(await technicianExists(db, id))) return id;
  }
}

export function readTechnicians(db: Queryable): Promise<Technician[]> {
  return many(db, 'select id, name, owner from technician order by owner desc, name', [], (row) => ({
    id: text(row, 'id'),
    name: text(row, 'name'),
    owner: boolean(row, 'owner'),
  }));
}

export async function readInstruments(db: Queryable): Promise<Instrument[]> {
  const ranges = await many(db, 'select * from instrument_range order by instrument_id, position', [], (row) => ({
    instrumentId: text(row, 'instrument_id'),
    range: {
      fullScaleVolts: number(row, 'full_scale_volts'),
      percent: number(row, 'percent'),
      counts: number(row, 'counts'),
      digitVolts: number(row, 'digit_volts'),
    },
  }));
  return many(db, 'select * from instrument order by name', [], (row): Instrument => ({
    id: text(row, 'id'),
    name: text(row, 'name'),
    kind: member(row, 'kind'),
    ranges: ranges.filter((item) => item.instrumentId === row['id']).map((item) => item.range),
    powerGoodErrorMilliseconds: orNull(number)(row, 'power_good_error_milliseconds'),
    calibratedUntil: orNull(text)(row, 'calibrated_until'),
    ownedBy: text(row, 'owned_by'),
  }));
}

/** What a shop starts with that has not said otherwise. */
export const firstSettings: ShopSettings = {
  name: 'Repair bench',
  mainsVolts: 230,
  currency: 'EUR',
  school: 'peaks-covered',
  stopProbability: 0.9,
  bench: { has: ['meter'], mayMeterMains: true },
  choosing: firstChoosing,
};

export async function readSettings(db: Queryable): Promise<ShopSettings> {
  const found = await maybeOne(db, 'select * from shop_settings', [], (row): ShopSettings => ({
    name: text(row, 'name'),
    mainsVolts: number(row, 'mains_volts'),
    currency: text(row, 'currency'),
    school: member(row, 'school'),
    stopProbability: number(row, 'stop_probability'),
    bench: {
      has: texts(row, 'bench_has') as ShopSettings['bench']['has'],
      mayMeterMains: boolean(row, 'may_meter_mains'),
    },
    choosing: {
      agePercentAYear: number(row, 'age_percent_a_year'),
      sharedCardCable: boolean(row, 'shared_card_cable'),
      spareCables: boolean(row, 'spare_cables'),
      adapters: boolean(row, 'adapters'),
      minorPerKilowattHour: number(row, 'minor_per_kilowatt_hour'),
      breakerAmps: number(row, 'breaker_amps'),
      keepYears: number(row, 'keep_years'),
      day: {
        idleHours: number(row, 'idle_hours'),
        typicalHours: number(row, 'typical_hours'),
        fullHours: number(row, 'full_hours'),
        typicalShare: number(row, 'typical_share'),
      },
      weights: {
        price: number(row, 'weight_price'),
        headroom: number(row, 'weight_headroom'),
        running: number(row, 'weight_running'),
        noise: number(row, 'weight_noise'),
        warranty: number(row, 'weight_warranty'),
        shelf: number(row, 'weight_shelf'),
      },
    },
  }));
  return found ?? firstSettings;
}

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

export async function addTechnicians(db: Queryable, technicians: readonly Technician[]): Promise<void> {
  for (const technician of technicians)
    await db.query('insert into technician (id, name, owner) values ($1, $2, $3) on conflict (id) do nothing', [
      technician.id,
      technician.name,
      technician.owner,
    ]);
}

/** Adds instruments that are not there yet, by id; those already there stay as they are. */
export async function addInstruments(db: Queryable, instruments: readonly Instrument[]): Promise<void> {
  for (const instrument of instruments) {
    const added = await db.query(
      'insert into instrument (id, name, kind, power_good_error_milliseconds, calibrated_until, owned_by) values ($1, $2, $3, $4, $5, $6) on conflict (id) do nothing',
      instrumentRow(instrument),
    );
    if (added.rowCount === 1) await writeRanges(db, instrument);
  }
}

const instrumentRow = (instrument: Instrument) => [
  instrument.id,
  instrument.name,
  instrument.kind,
  instrument.powerGoodErrorMilliseconds,
  instrument.calibratedUntil,
  instrument.ownedBy,
];

async function writeRanges(db: Queryable, { id, ranges }: Instrument): Promise<void> {
  await db.query('delete from instrument_range where instrument_id = $1', [id]);
  await insertRows(
    db,
    'instrument_range',
    ['instrument_id', 'position', 'full_scale_volts', 'percent', 'counts', 'digit_volts'],
    ranges.map((range, position) => [
      id,
      position,
      range.fullScaleVolts,
      range.percent,
      range.counts,
      range.digitVolts,
    ]),
  );
}

export type ChangeResult = { readonly kind: 'done' | 'unknown-technician' | 'not-owner' | 'stale' };

/** Is this person an owner? Null when nobody here is called so. */
export const ownerOf = (db: Queryable, by: string): Promise<boolean | null> =>
  maybeOne(db, 'select owner from technician where id = $1', [by], (row) => boolean(row, 'owner'));

/** An instrument as an owner wants it. `was` must be how it still stands; null for one that is not there yet. */
export function changeInstrument(
  pool: pg.Pool,
  by: string,
  was: Instrument | null,
  wanted: Instrument,
): Promise<ChangeResult> {
  return transaction(pool, async (db): Promise<ChangeResult> => {
    const owner = await ownerOf(db, by);
    if (owner !== true) return { kind: owner === null ? 'unknown-technician' : 'not-owner' };
    await db.query('lock table instrument in share row exclusive mode');
    const current = (await readInstruments(db)).find((instrument) => instrument.id === wanted.id) ?? null;
    // A change whose answer was lost is sent again, and is then no conflict.
    if (!isDeepStrictEqual(current, was)) return { kind: isDeepStrictEqual(current, wanted) ? 'done' : 'stale' };
    if (current === null) {
      await addInstruments(db, [wanted]);
      return { kind: 'done' };
    }
    await db.query(
      'update instrument set name = $2, kind = $3, power_good_error_milliseconds = $4, calibrated_until = $5, owned_by = $6 where id = $1',
      instrumentRow(wanted),
    );
    await writeRanges(db, wanted);
    return { kind: 'done' };
  });
}

const settingsColumns = [
  'name',
  'mains_volts',
  'currency',
  'school',
  'stop_probability',
  'bench_has',
  'may_meter_mains',
  'age_percent_a_year',
  'shared_card_cable',
  'spare_cables',
  'adapters',
  'minor_per_kilowatt_hour',
  'breaker_amps',
  'keep_years',
  'idle_hours',
  'typical_hours',
  'full_hours',
  'typical_share',
  'weight_price',
  'weight_headroom',
  'weight_running',
  'weight_noise',
  'weight_warranty',
  'weight_shelf',
] as const;

export async function writeSettings(db: Queryable, { choosing, ...settings }: ShopSettings): Promise<void> {
  const { day, weights } = choosing;
  await db.query(
    `insert into shop_settings (${settingsColumns.join(', ')}) values (${settingsColumns.map((_, index) => `$${index + 1}`).join(', ')})
    on conflict (only_row) do update set ${settingsColumns.map((column, index) => `${column} = $${index + 1}`).join(', ')}, version = shop_settings.version + 1`,
    [
      settings.name,
      settings.mainsVolts,
      settings.currency,
      settings.school,
      settings.stopProbability,
      settings.bench.has,
      settings.bench.mayMeterMains,
      choosing.agePercentAYear,
      choosing.sharedCardCable,
      choosing.spareCables,
      choosing.adapters,
      choosing.minorPerKilowattHour,
      choosing.breakerAmps,
      choosing.keepYears,
      day.idleHours,
      day.typicalHours,
      day.fullHours,
      day.typicalShare,
      weights.price,
      weights.headroom,
      weights.running,
      weights.noise,
      weights.warranty,
      weights.shelf,
    ],
  );
}

/** New settings by an owner, based on the version that was seen. */
export function changeSettings(
  pool: pg.Pool,
  by: string,
  basedOn: number,
  settings: ShopSettings,
): Promise<ChangeResult> {
  return transaction(pool, async (db): Promise<ChangeResult> => {
    const owner = await ownerOf(db, by);
    if (owner !== true) return { kind: owner === null ? 'unknown-technician' : 'not-owner' };
    const version =
      (await maybeOne(db, 'select version from shop_settings for update', [], (row) => number(row, 'version'))) ?? 0;
    if (version !== basedOn) return { kind: isDeepStrictEqual(await readSettings(db), settings) ? 'done' : 'stale' };
    await writeSettings(db, settings);
    return { kind: 'done' };
  });
}
