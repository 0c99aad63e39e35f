import express, { Router, type Response } from 'express';
import type pg from 'pg';
import type { SupplyModel } from '@fairwatt/core';
import { z } from 'zod';
import {
  id,
  supplyColumns,
  supplyFromCells,
  supplyKitsSchema,
  supplyMessageSchema,
  supplyModelSchema,
  supplySummarySchema,
  supplyToCells,
} from '@fairwatt/contract';
import { signedInput } from '../access/index.ts';
import { snapshot } from '../database/query.ts';
import type { Reading } from '../database/reading.ts';
import { HttpProblem, parseInput } from '../problems.ts';
import type { Shelf } from '../shop/shelf.ts';
import { sendFromShelf } from '../shop/tagged.ts';
import { csvEntries, jsonEntries } from './import.ts';
import { partRoutes } from './part-routes.ts';
import { priceRoutes } from './price-routes.ts';
import { answerWithProgress } from './progress.ts';
import {
  addSupplies,
  changeSupply,
  overwriteSupplies,
  readSupplies,
  removeSupply,
  sameSupply,
  type SupplyChange,
} from './store.ts';
import { partSupplies } from './summaries.ts';
import { sendCsv, takeFile } from './take-file.ts';
import { unitRoutes } from './unit-routes.ts';

const byQuery = z.strictObject({ by: id });
const exportQuery = z.strictObject({ format: z.enum(['csv', 'json']) });
const summariesSchema = z.array(supplySummarySchema);

const notThere = () => new HttpProblem(404, 'not-found', 'There is no such supply');

function settled(change: SupplyChange): void {
  switch (change.kind) {
    case 'stale':
      throw new HttpProblem(409, 'stale', 'Somebody changed this supply since you saw it');
    case 'not-found':
      throw notThere();
    case 'in-use':
      throw new HttpProblem(409, 'in-use', `This supply cannot be taken out: ${change.why}`, {
        errors: [{ path: 'id', message: change.why }],
      });
    case 'done':
  }
}

/** How supplies are taken out of a file, our own or a table. */
const taking = {
  schema: supplyModelSchema,
  entriesOf: (format: 'csv' | 'json', text: string) =>
    format === 'csv'
      ? csvEntries(text, ['id', 'name', 'rating_w', 'rails', 'cables'], supplyFromCells)
      : jsonEntries(text, 'fairwatt-supplies', 'supplies'),
  here: readSupplies,
  same: sameSupply,
  write: async (db: pg.PoolClient, added: readonly SupplyModel[], updated: readonly SupplyModel[]) => {
    await addSupplies(db, added);
    await overwriteSupplies(db, updated);
  },
};

/** The shop's supplies as data, in and out; their units on the shelf, their prices, and the shop's own parts. */
export function supplyRoutes(pool: pg.Pool, reading: Reading, now: () => string): Router {
  const router = Router();
  const sendOne = async (response: Response, wanted: string) => {
    const [model] = await snapshot(pool, (db) => readSupplies(db, [wanted]));
    if (model === undefined) throw notThere();
    response.json(supplyModelSchema.parse(model));
  };
  router.get('/', async (request, response) => {
    const part = (shelf: Shelf) => partSupplies(shelf.supplies).summaries;
    await sendFromShelf(request, response, pool, part, (summaries) => summariesSchema.parse(summaries));
  });
  router.get('/kits', async (request, response) => {
    const part = (shelf: Shelf) => partSupplies(shelf.supplies).kits;
    await sendFromShelf(request, response, pool, part, (kits) => supplyKitsSchema.parse(kits));
  });
  router.get('/models/:id', async (request, response) => {
    await sendOne(response, parseInput(id, request.params['id'], 'The supply'));
  });
  router.put('/', express.json({ limit: '200kb' }), async (request, response) => {
    const { was, model } = await signedInput(pool, request, supplyMessageSchema, request.body, 'The supply');
    if (was !== null && was.id !== model.id)
      throw new HttpProblem(422, 'invalid', 'The supply is not valid', {
        errors: [{ path: 'model.id', message: 'a supply keeps its id' }],
      });
    settled(await changeSupply(pool, was, model));
    await sendOne(response, model.id);
  });
  router.delete('/:id', async (request, response) => {
    await signedInput(pool, request, byQuery, request.query, 'The query');
    settled(await removeSupply(pool, parseInput(id, request.params['id'], 'The supply')));
    response.status(204).end();
  });
  router.get('/export', async (request, response) => {
    const { format } = parseInput(exportQuery, request.query, 'The query');
    const supplies = await reading.snapshot((db) => readSupplies(db));
    if (format === 'csv') sendCsv(response, 'supplies.csv', supplyColumns, supplies.map(supplyToCells));
    else
      response
        .set('content-disposition', 'attachment; filename="supplies.json"')
        .json({ format: 'fairwatt-supplies', version: 1, supplies });
  });
  router.post('/import', express.json({ limit: '9mb' }), async (request, response) => {
    await answerWithProgress(request, response, (progress) => takeFile(pool, request, taking, progress));
  });
  router.use('/units', unitRoutes(pool, reading));
  router.use('/parts', partRoutes(pool, reading));
  router.use('/prices', priceRoutes(pool, now));
  return router;
}
