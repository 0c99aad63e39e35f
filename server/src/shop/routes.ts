import express, { Router, type Response } from 'express';
import type pg from 'pg';
import { instrumentMessageSchema, settingsMessageSchema, shopFileSchema, shopSchema } from '@fairwatt/contract';
import { signedInput } from '../access/index.ts';
import { snapshot, transaction } from '../database/query.ts';
import { HttpProblem, parseInput } from '../problems.ts';
import {
  addInstruments,
  addTechnicians,
  changeInstrument,
  changeSettings,
  hasSettings,
  readShop,
  writeSettings,
  type ChangeResult,
} from './store.ts';

/** The shop's names, instruments and settings. */
export function shopRoutes(pool: pg.Pool): Router {
  const router = Router();
  const file = express.json({ limit: '8mb' });
  router.get('/', async (_request, response) => {
    response.json(shopSchema.parse(await snapshot(pool, readShop)));
  });
  /** Answers with the shop as it now is, or says why an owner's change was not made. */
  async function answer(response: Response, { kind }: ChangeResult, what: string): Promise<void> {
    switch (kind) {
      case 'stale':
        throw new HttpProblem(409, 'stale', `Somebody changed ${what} since you saw this`, {
          current: shopSchema.parse(await snapshot(pool, readShop)),
        });
      case 'done':
        response.json(shopSchema.parse(await snapshot(pool, readShop)));
    }
  }
  router.put('/settings', express.json({ limit: '50kb' }), async (request, response) => {
    const { basedOn, settings } = await signedInput(pool, request, settingsMessageSchema, request.body, 'The settings');
    await answer(response, await changeSettings(pool, basedOn, settings), 'the settings');
  });
  router.put('/instruments', express.json({ limit: '50kb' }), async (request, response) => {
    const { was, instrument } = await signedInput(
      pool,
      request,
      instrumentMessageSchema,
      request.body,
      'The instrument',
    );
    if (was !== null && was.id !== instrument.id)
      throw new HttpProblem(422, 'invalid', 'The instrument is not valid', {
        errors: [{ path: 'instrument.id', message: 'an instrument keeps its id' }],
      });
    await answer(response, await changeInstrument(pool, was, instrument), 'the instruments');
  });
  router.post('/import', file, async (request, response) => {
    const shop = parseInput(shopFileSchema, request.body, 'The shop file');
    await transaction(pool, async (db) => {
      if (!(await hasSettings(db))) await writeSettings(db, shop.settings);
      await addTechnicians(db, shop.technicians);
      await addInstruments(db, shop.instruments);
    });
    response.json(shopSchema.parse(await snapshot(pool, readShop)));
  });
  return router;
}
