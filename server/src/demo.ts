import { readdir, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import type pg from 'pg';
import type { Model } from '@fairwatt/core';
import { jobFileSchema, shopFileSchema, supplyFileSchema } from '@fairwatt/contract';
import { one, transaction } from './database/query.ts';
import { number } from './database/read.ts';
import { importJob } from './jobs/store.ts';
import { addInstruments, addTechnicians, writeSettings } from './shop/store.ts';
import { addSupplies } from './supplies/store.ts';

const readJson = async (path: string): Promise<unknown> => JSON.parse(await readFile(path, 'utf8'));

/** Loads the demo shop from its open formats when the database holds no job and no technician. Returns whether it did. */
export async function loadDemo(pool: pg.Pool, model: Model, directory: string, now: string): Promise<boolean> {
  const filled = await one(pool, 'select (select count(*) from job) + (select count(*) from technician) as filled', [], (row) => number(row, 'filled'));
  if (filled > 0) return false;
  const shop = shopFileSchema.parse(await readJson(join(directory, 'shop.json')));
  const supplies = supplyFileSchema.parse(await readJson(join(directory, 'supplies.json')));
  await transaction(pool, async (db) => {
    await writeSettings(db, shop.settings);
    await addTechnicians(db, shop.technicians);
    await addInstruments(db, shop.instruments);
    await addSupplies(db, supplies.supplies);
  });
  for (const folder of ['past-jobs', 'jobs']) {
    for (const name of (await readdir(join(directory, folder))).filter((file) => file.endsWith('.json')).sort()) {
      await importJob(pool, model, jobFileSchema.parse(await readJson(join(directory, folder, name))), null, 'same', now);
    }
  }
  return true;
}
