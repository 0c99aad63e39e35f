import express, { Router, type Request, type Response } from 'express';
import Papa from 'papaparse';
import type pg from 'pg';
import { isDeepStrictEqual } from 'node:util';
import type { SupplyModel } from '@fairwatt/core';
import { z } from 'zod';
import { signedInput } from '../access/index.ts';
import { answerWithProgress } from './progress.ts';
import {
  id,
  importMessageSchema,
  importReportSchema,
  ownPartMessageSchema,
  ownPartSchema,
  partColumns,
  partFromCells,
  partToCells,
  supplyColumns,
  supplyFromCells,
  supplyMessageSchema,
  supplyModelSchema,
  supplyToCells,
  unitMessageSchema,
  unitsSchema,
  uuid,
  version,
  type ImportReport,
  type ImportRow,
} from '@fairwatt/contract';
import { snapshot, transaction } from '../database/query.ts';
import { HttpProblem, parseInput } from '../problems.ts';
import { sendFromShelf } from '../shop/tagged.ts';
import { checkLongFile, csvEntries, jsonEntries, reportOf, UnreadableFile, type Entry } from './import.ts';
import { readOwnParts, writeOwnParts } from './own-parts.ts';
import { FeedFailure, fetchPrices, isPrivateUrl, readPriceFeed, takePrices, writePriceFeed } from './prices.ts';
import {
  addSupplies,
  changeSupply,
  overwriteSupplies,
  readSupplies,
  removeSupply,
  sameSupply,
  type SupplyChange,
} from './store.ts';
import { changeUnit, readUnits, removeUnit, type UnitChange } from './units.ts';

const byQuery = z.strictObject({ by: id });
const unreadable = (error: unknown): never => {
  if (error instanceof UnreadableFile)
    throw new HttpProblem(422, 'unreadable-file', error.message, {
      errors: [{ path: 'text', message: error.message }],
    });
  throw error;
};

/** The shop's supplies: data, units on the shelf, prices, and the shop's own parts; files in and out. */
export function supplyRoutes(pool: pg.Pool, now: () => string): Router {
  const router = Router();
  const file = express.json({ limit: '9mb' });
  const small = express.json({ limit: '200kb' });
  const list = async (response: Response) => {
    response.json(z.array(supplyModelSchema).parse(await snapshot(pool, (db) => readSupplies(db))));
  };
  const csv = (
    response: Response,
    name: string,
    columns: readonly string[],
    rows: readonly Record<string, string>[],
  ) => {
    response
      .set('content-disposition', `attachment; filename="${name}"`)
      .type('text/csv')
      .send(Papa.unparse([...rows], { columns: [...columns], newline: '\n', escapeFormulae: true }) + '\n');
  };
  function settled(change: SupplyChange): void {
    switch (change.kind) {
      case 'stale':
        throw new HttpProblem(409, 'stale', 'Somebody changed this supply since you saw it');
      case 'not-found':
        throw new HttpProblem(404, 'not-found', 'There is no such supply');
      case 'in-use':
        throw new HttpProblem(409, 'in-use', `This supply cannot be taken out: ${change.why}`, {
          errors: [{ path: 'id', message: change.why }],
        });
      case 'done':
    }
  }
  router.get('/', async (request, response) => {
    const parse = (supplies: readonly SupplyModel[]) => z.array(supplyModelSchema).parse(supplies);
    await sendFromShelf(request, response, pool, (shelf) => shelf.supplies, parse);
  });
  router.put('/', small, async (request, response) => {
    const { was, model } = await signedInput(pool, request, supplyMessageSchema, request.body, 'The supply');
    if (was !== null && was.id !== model.id)
      throw new HttpProblem(422, 'invalid', 'The supply is not valid', {
        errors: [{ path: 'model.id', message: 'a supply keeps its id' }],
      });
    settled(await changeSupply(pool, was, model));
    await list(response);
  });
  router.delete('/:id', async (request, response) => {
    await signedInput(pool, request, byQuery, request.query, 'The query');
    settled(await removeSupply(pool, parseInput(id, request.params['id'], 'The supply')));
    await list(response);
  });
  router.get('/export', async (request, response) => {
    const { format } = parseInput(z.strictObject({ format: z.enum(['csv', 'json']) }), request.query, 'The query');
    const supplies = await snapshot(pool, (db) => readSupplies(db));
    if (format === 'csv') csv(response, 'supplies.csv', supplyColumns, supplies.map(supplyToCells));
    else
      response
        .set('content-disposition', 'attachment; filename="supplies.json"')
        .json({ format: 'fairwatt-supplies', version: 1, supplies });
  });
  /**
   * Somebody's file, checked row by row, in one transaction; `take` says what became of each good row and writes them.
   */
  async function takeFile<T extends { readonly id: string }>(
    request: Request,
    entriesOf: (format: 'csv' | 'json', text: string) => Entry[],
    schema: z.ZodType<T>,
    take: (
      db: pg.PoolClient,
      good: readonly { row: number; name: string; item: T }[],
      update: boolean,
      dryRun: boolean,
    ) => Promise<ImportRow[]>,
    progress: (rows: number, of: number) => void,
  ): Promise<ImportReport> {
    const { format, text, update, dryRun } = await signedInput(
      pool,
      request,
      importMessageSchema,
      request.body,
      'The file',
    );
    let entries: Entry[];
    try {
      entries = entriesOf(format, text);
    } catch (error) {
      return unreadable(error);
    }
    const { good, refused } = await checkLongFile(entries, schema, (rows) => progress(rows, entries.length));
    return transaction(pool, async (db) => {
      return importReportSchema.parse(reportOf([...refused, ...(await take(db, good, update, dryRun))], dryRun));
    });
  }
  router.post('/import', file, async (request, response) => {
    await answerWithProgress(request, response, (progress) =>
      takeFile(
        request,
        (format, text) =>
          format === 'csv'
            ? csvEntries(text, ['id', 'name', 'rating_w', 'rails', 'cables'], supplyFromCells)
            : jsonEntries(text, 'fairwatt-supplies', 'supplies'),
        supplyModelSchema,
        async (db, good, update, dryRun) => {
          const here = new Map(
            (
              await readSupplies(
                db,
                good.map(({ item }) => item.id),
              )
            ).map((model) => [model.id, model]),
          );
          const sorted = good.map(({ row, name, item }) => {
            const was = here.get(item.id);
            return {
              row,
              name,
              item,
              result:
                was === undefined
                  ? ('added' as const)
                  : sameSupply(was, item)
                    ? ('same' as const)
                    : update
                      ? ('updated' as const)
                      : ('known' as const),
            };
          });
          if (!dryRun) {
            await addSupplies(
              db,
              sorted.filter(({ result }) => result === 'added').map(({ item }) => item),
            );
            await overwriteSupplies(
              db,
              sorted.filter(({ result }) => result === 'updated').map(({ item }) => item),
            );
          }
          return sorted.map(({ row, name, result }) => ({ row, name, result, errors: [] }));
        },
        progress,
      ),
    );
  });

  const units = async (response: Response) => {
    response.json(unitsSchema.parse(await snapshot(pool, readUnits)));
  };
  function unitSettled(change: UnitChange): void {
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
  router.get('/units', async (_request, response) => {
    await units(response);
  });
  router.get('/units/export', async (_request, response) => {
    response
      .set('content-disposition', 'attachment; filename="shelf.json"')
      .json({ format: 'fairwatt-shelf', version: 1, units: unitsSchema.parse(await snapshot(pool, readUnits)) });
  });
  router.put('/units', small, async (request, response) => {
    const { basedOn, unit } = await signedInput(pool, request, unitMessageSchema, request.body, 'The unit');
    unitSettled(await changeUnit(pool, basedOn, unit));
    await units(response);
  });
  router.delete('/units/:id', async (request, response) => {
    const { basedOn } = await signedInput(
      pool,
      request,
      z.strictObject({ by: id, basedOn: z.coerce.number().pipe(version) }),
      request.query,
      'The query',
    );
    unitSettled(await removeUnit(pool, parseInput(uuid, request.params['id'], 'The unit'), basedOn));
    await units(response);
  });

  router.get('/parts', async (_request, response) => {
    response.json(z.array(ownPartSchema).parse(await snapshot(pool, readOwnParts)));
  });
  router.put('/parts', small, async (request, response) => {
    const { part } = await signedInput(pool, request, ownPartMessageSchema, request.body, 'The part');
    await transaction(pool, async (db) => {
      await writeOwnParts(db, [part]);
    });
    response.json(z.array(ownPartSchema).parse(await snapshot(pool, readOwnParts)));
  });
  router.delete('/parts/:id', async (request, response) => {
    await signedInput(pool, request, byQuery, request.query, 'The query');
    await pool.query('delete from own_part where id = $1', [parseInput(id, request.params['id'], 'The part')]);
    response.json(z.array(ownPartSchema).parse(await snapshot(pool, readOwnParts)));
  });
  router.get('/parts/export', async (_request, response) => {
    csv(response, 'parts.csv', partColumns, (await snapshot(pool, readOwnParts)).map(partToCells));
  });
  router.post('/parts/import', file, async (request, response) => {
    await answerWithProgress(request, response, (progress) =>
      takeFile(
        request,
        (format, text) => {
          if (format !== 'csv') throw new UnreadableFile('Parts come as CSV.');
          return csvEntries(text, ['name', 'class'], partFromCells);
        },
        ownPartSchema,
        async (db, good, update, dryRun) => {
          const here = new Map((await readOwnParts(db)).map((part) => [part.id, part]));
          const sorted = good.map(({ row, name, item }) => {
            const was = here.get(item.id);
            return {
              row,
              name,
              item,
              result:
                was === undefined
                  ? ('added' as const)
                  : isDeepStrictEqual(was, item)
                    ? ('same' as const)
                    : update
                      ? ('updated' as const)
                      : ('known' as const),
            };
          });
          if (!dryRun)
            await writeOwnParts(
              db,
              sorted.filter(({ result }) => result === 'added' || result === 'updated').map(({ item }) => item),
            );
          return sorted.map(({ row, name, result }) => ({ row, name, result, errors: [] }));
        },
        progress,
      ),
    );
  });

  router.post('/prices', file, async (request, response) => {
    const { format, text, dryRun } = await signedInput(
      pool,
      request,
      importMessageSchema,
      request.body,
      'The price list',
    );
    if (format !== 'csv')
      throw new HttpProblem(422, 'invalid', 'The price list is not valid', {
        errors: [{ path: 'format', message: 'prices come as CSV' }],
      });
    response.json(
      await transaction(pool, async (db) => {
        return importReportSchema.parse(await takePrices(db, text, dryRun).catch(unreadable));
      }),
    );
  });
  router.get('/prices/feed', async (_request, response) => {
    response.json(await readPriceFeed(pool));
  });
  router.put('/prices/feed', small, async (request, response) => {
    const { url } = await signedInput(
      pool,
      request,
      z.strictObject({
        by: id,
        url: z
          .string()
          .max(300)
          .refine(
            isPrivateUrl,
            'http at a loopback or private address in figures, such as http://192.168.1.9:8080/prices.csv',
          ),
      }),
      request.body,
      'The address',
    );
    await writePriceFeed(pool, url);
    response.json(await readPriceFeed(pool));
  });
  router.post('/prices/fetch', small, async (request, response) => {
    await signedInput(pool, request, byQuery, request.body, 'The request');
    const feed = await readPriceFeed(pool);
    if (feed === null) throw new HttpProblem(404, 'no-feed', 'No address of a price list is entered');
    try {
      response.json(importReportSchema.parse(await fetchPrices(pool, feed, now())));
    } catch (error) {
      if (error instanceof FeedFailure || error instanceof UnreadableFile)
        throw new HttpProblem(502, 'feed-failed', `No prices were taken: ${error.message}`);
      throw error;
    }
  });
  return router;
}
