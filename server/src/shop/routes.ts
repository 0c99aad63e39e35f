import express, { Router } from 'express';
import type pg from 'pg';
import { newTechnicianSchema, settingsMessageSchema, shopFileSchema, shopSchema, supplyFileSchema, supplyImportSchema } from '@fairwatt/contract';
import { transaction } from '../database/query.ts';
import { noTechnician } from '../jobs/refusals.ts';
import { HttpProblem, notOwner, parseInput } from '../problems.ts';
import { addSupplies } from '../supplies/store.ts';
import { addInstruments, addTechnicians, changeSettings, hasSettings, nextTechnicianId, readShop, technicianNamed, writeSettings } from './store.ts';

/** The shop's people, instruments and settings. Whoever reaches the server may change them: there are no passwords yet. */
export function shopRoutes(pool: pg.Pool): Router {
  const router = Router();
  const file = express.json({ limit: '8mb' });
  router.get('/', async (_request, response) => { response.json(shopSchema.parse(await readShop(pool))); });
  router.post('/technicians', express.json({ limit: '10kb' }), async (request, response) => {
    const { name } = parseInput(newTechnicianSchema, request.body, 'The name');
    const technician = await transaction(pool, async (db) => {
      if (await technicianNamed(db, name)) throw new HttpProblem(409, 'name-taken', `${name} is already among the technicians`, { errors: [{ path: 'name', message: 'already here' }] });
      const made = { id: await nextTechnicianId(db, name), name, owner: (await readShop(db)).technicians.length === 0 };
      await addTechnicians(db, [made]);
      return made;
    });
    response.status(201).json(technician);
  });
  router.put('/settings', express.json({ limit: '50kb' }), async (request, response) => {
    const { by, basedOn, settings } = parseInput(settingsMessageSchema, request.body, 'The settings');
    switch ((await changeSettings(pool, by, basedOn, settings)).kind) {
      case 'unknown-technician': throw noTechnician();
      case 'not-owner': throw notOwner('Only an owner changes the settings');
      case 'stale': throw new HttpProblem(409, 'stale', 'Somebody changed the settings since you saw them', { current: shopSchema.parse(await readShop(pool)) });
      case 'done': response.json(shopSchema.parse(await readShop(pool)));
    }
  });
  router.post('/import', file, async (request, response) => {
    const shop = parseInput(shopFileSchema, request.body, 'The shop file');
    await transaction(pool, async (db) => {
      if (!(await hasSettings(db))) await writeSettings(db, shop.settings);
      await addTechnicians(db, shop.technicians);
      await addInstruments(db, shop.instruments);
    });
    response.json(shopSchema.parse(await readShop(pool)));
  });
  router.post('/supplies', file, async (request, response) => {
    const { supplies } = parseInput(supplyFileSchema, request.body, 'The supplies file');
    const added = await transaction(pool, (db) => addSupplies(db, supplies));
    response.json(supplyImportSchema.parse({ added, known: supplies.length - added }));
  });
  return router;
}
