import { isDeepStrictEqual } from 'node:util';
import express, { Router, type Response } from 'express';
import type pg from 'pg';
import { z } from 'zod';
import {
  id,
  ownPartMessageSchema,
  ownPartSchema,
  partColumns,
  partFromCells,
  partToCells,
  type OwnPart,
} from '@fairwatt/contract';
import { signedInput } from '../access/index.ts';
import { snapshot, transaction } from '../database/query.ts';
import type { Reading } from '../database/reading.ts';
import { parseInput } from '../problems.ts';
import { csvEntries, UnreadableFile } from './import.ts';
import { readOwnParts, writeOwnParts } from './own-parts.ts';
import { answerWithProgress } from './progress.ts';
import { sendCsv, takeFile } from './take-file.ts';

const byQuery = z.strictObject({ by: id });

/** How parts are taken out of a table. */
const taking = {
  schema: ownPartSchema,
  entriesOf: (format: 'csv' | 'json', text: string) => {
    if (format !== 'csv') throw new UnreadableFile('Parts come as CSV.');
    return csvEntries(text, ['name', 'class'], partFromCells);
  },
  here: (db: pg.PoolClient) => readOwnParts(db),
  same: isDeepStrictEqual,
  write: (db: pg.PoolClient, added: readonly OwnPart[], updated: readonly OwnPart[]) =>
    writeOwnParts(db, [...added, ...updated]),
};

/** The parts of the shop's own, which Intake offers beside the classes. */
export function partRoutes(pool: pg.Pool, reading: Reading): Router {
  const router = Router();
  const list = async (response: Response) => {
    response.json(z.array(ownPartSchema).parse(await snapshot(pool, readOwnParts)));
  };
  router.get('/', async (_request, response) => {
    await list(response);
  });
  router.put('/', express.json({ limit: '200kb' }), async (request, response) => {
    const { part } = await signedInput(pool, request, ownPartMessageSchema, request.body, 'The part');
    await transaction(pool, async (db) => {
      await writeOwnParts(db, [part]);
    });
    await list(response);
  });
  router.delete('/:id', async (request, response) => {
    await signedInput(pool, request, byQuery, request.query, 'The query');
    await pool.query('delete from own_part where id = $1', [parseInput(id, request.params['id'], 'The part')]);
    await list(response);
  });
  router.get('/export', async (_request, response) => {
    sendCsv(response, 'parts.csv', partColumns, (await reading.snapshot(readOwnParts)).map(partToCells));
  });
  router.post('/import', express.json({ limit: '9mb' }), async (request, response) => {
    await answerWithProgress(request, response, (progress) => takeFile(pool, request, taking, progress));
  });
  return router;
}
