import express, { Router, type Response } from 'express';
import type pg from 'pg';
import { z } from 'zod';
import { id, unitMessageSchema, unitsSchema, uuid, version } from '@fairwatt/contract';
import { signedInput } from '../access/index.ts';
import { snapshot } from '../database/query.ts';
import type { Reading } from '../database/reading.ts';
import { HttpProblem, parseInput } from '../problems.ts';
import { changeUnit, readUnits, removeUnit, type UnitChange } from './units.ts';

const removal = z.strictObject({ by: id, basedOn: z.coerce.number().pipe(version) });

function settled(change: UnitChange): void {
  switch (change.kind) {
    case 'stale':
      throw new HttpProblem(409, 'stale', 'Somebody changed this unit since you saw it');
    case 'not-found':
      throw new HttpProblem(404, 'not-found', 'There is no such unit');
    case 'used':
      throw new HttpProblem(409, 'in-use', 'A unit that was used in a job stays on the record', {
        errors: [{ path: 'id', message: 'was used' }],
      });
    case 'unknown-reference':
      throw new HttpProblem(422, 'unknown-reference', 'The unit names something that is not known here', {
        errors: [{ path: change.path, message: 'is not known here' }],
      });
    case 'done':
  }
}

/** The units on the shelf, each by itself. */
export function unitRoutes(pool: pg.Pool, reading: Reading): Router {
  const router = Router();
  const read = async () => unitsSchema.parse(await snapshot(pool, readUnits));
  const list = async (response: Response) => {
    response.json(await read());
  };
  router.get('/', async (_request, response) => {
    await list(response);
  });
  router.get('/export', async (_request, response) => {
    response
      .set('content-disposition', 'attachment; filename="shelf.json"')
      .json({ format: 'fairwatt-shelf', version: 1, units: unitsSchema.parse(await reading.snapshot(readUnits)) });
  });
  router.put('/', express.json({ limit: '200kb' }), async (request, response) => {
    const { basedOn, unit } = await signedInput(pool, request, unitMessageSchema, request.body, 'The unit');
    settled(await changeUnit(pool, basedOn, unit));
    await list(response);
  });
  router.delete('/:id', async (request, response) => {
    const { basedOn } = await signedInput(pool, request, removal, request.query, 'The query');
    settled(await removeUnit(pool, parseInput(uuid, request.params['id'], 'The unit'), basedOn));
    await list(response);
  });
  return router;
}
