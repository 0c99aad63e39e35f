import { readdir, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import type pg from 'pg';
import type { Instrument, Model } from '@fairwatt/core';
import {
  cableBagsFileSchema,
  jobFileSchema,
  ownPartSchema,
  partFromCells,
  presentJobFile,
  shelfFileSchema,
  shopFileSchema,
  supplyFileSchema,
} from '@fairwatt/contract';
import { signAtFirst } from './access/index.ts';
import { putAdapter, putCable, putPinout } from './cable-bags/store.ts';
import { one, transaction } from './database/query.ts';
import { number } from './database/read.ts';
import { importJob } from './jobs/store.ts';
import { addInstruments, addTechnicians, writeSettings } from './shop/store.ts';
import { checkEntries, csvEntries } from './supplies/import.ts';
import { writeOwnParts } from './supplies/own-parts.ts';
import { addSupplies } from './supplies/store.ts';
import { addUnits } from './supplies/units.ts';

const readJson = async (path: string): Promise<unknown> => JSON.parse(await readFile(path, 'utf8'));

/** The day on which the demo was written: what was out of calibration by then is meant to be. */
const writtenOn = '2026-11-23';
/** Everything else in it is calibrated for so many days more, whenever it is loaded. */
const calibratedDays = 120;

/** An instrument of the demo as it is on the day of loading. @param now ISO date and time */
export function calibratedNow<T extends Pick<Instrument, 'calibratedUntil'>>(instrument: T, now: string): T {
  const { calibratedUntil } = instrument;
  const least = new Date(Date.parse(now) + calibratedDays * 86_400_000).toISOString().slice(0, 10);
  return calibratedUntil === null || calibratedUntil <= writtenOn || calibratedUntil >= least
    ? instrument
    : { ...instrument, calibratedUntil: least };
}

/**
 * Loads the demo shop from its open formats when the database holds no job and no technician. Returns whether it did.
 */
export async function loadDemo(pool: pg.Pool, model: Model, directory: string, now: string): Promise<boolean> {
  const filled = await one(
    pool,
    'select (select count(*) from job) + (select count(*) from technician) as filled',
    [],
    (row) => number(row, 'filled'),
  );
  if (filled > 0) return false;
  const shop = shopFileSchema.parse(await readJson(join(directory, 'shop.json')));
  const supplies = supplyFileSchema.parse(await readJson(join(directory, 'supplies.json')));
  const bags = cableBagsFileSchema.parse(await readJson(join(directory, 'cable-bags.json')));
  const shelf = shelfFileSchema.parse(await readJson(join(directory, 'shelf.json')));
  const parts = checkEntries(
    csvEntries(await readFile(join(directory, 'parts.csv'), 'utf8'), ['name', 'class'], partFromCells),
    ownPartSchema,
  );
  if (parts.refused.length > 0)
    throw new Error(`demo/parts.csv, row ${parts.refused[0]?.row}: ${parts.refused[0]?.errors[0]?.message}`);
  await transaction(pool, async (db) => {
    // Invented people are picked by name; a shop of one's own starts with secrets.
    await signAtFirst(db, 'picked');
    await writeSettings(db, shop.settings);
    await addTechnicians(db, shop.technicians);
    await addInstruments(
      db,
      shop.instruments.map((instrument) => calibratedNow(instrument, now)),
    );
    // The shelf file names each unit, so the counts of the supplies file are not made into units beside it.
    await addSupplies(
      db,
      supplies.supplies.map((model) => ({ ...model, onShelf: 0 })),
    );
    await addUnits(db, shelf.units);
    for (const pinout of bags.pinouts) await putPinout(db, pinout);
    for (const cable of bags.cables) await putCable(db, cable);
    for (const adapter of bags.adapters) await putAdapter(db, adapter);
    await writeOwnParts(
      db,
      parts.good.map(({ item }) => item),
    );
  });
  for (const folder of ['past-jobs', 'jobs']) {
    for (const name of (await readdir(join(directory, folder))).filter((file) => file.endsWith('.json')).sort()) {
      await importJob(
        pool,
        model,
        jobFileSchema.parse(presentJobFile(await readJson(join(directory, folder, name)))),
        null,
        'same',
        now,
      );
    }
  }
  return true;
}
