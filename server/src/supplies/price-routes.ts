import express, { Router } from 'express';
import type pg from 'pg';
import { z } from 'zod';
import { id, importMessageSchema, importReportSchema } from '@fairwatt/contract';
import { signedInput } from '../access/index.ts';
import { transaction } from '../database/query.ts';
import { HttpProblem } from '../problems.ts';
import { UnreadableFile } from './import.ts';
import { FeedFailure, fetchPrices, isPrivateUrl, readPriceFeed, takePrices, writePriceFeed } from './prices.ts';
import { unreadable } from './take-file.ts';

const byQuery = z.strictObject({ by: id });
const feedAddress = z.strictObject({
  by: id,
  url: z
    .string()
    .max(300)
    .refine(
      isPrivateUrl,
      'http at a loopback or private address in figures, such as http://192.168.1.9:8080/prices.csv',
    ),
});

/** Prices from a list, or from a supplier's feed. */
export function priceRoutes(pool: pg.Pool, now: () => string): Router {
  const router = Router();
  const small = express.json({ limit: '200kb' });
  router.post('/', express.json({ limit: '9mb' }), async (request, response) => {
    const message = await signedInput(pool, request, importMessageSchema, request.body, 'The price list');
    const { format, text, dryRun } = message;
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
  router.get('/feed', async (_request, response) => {
    response.json(await readPriceFeed(pool));
  });
  router.put('/feed', small, async (request, response) => {
    const { url } = await signedInput(pool, request, feedAddress, request.body, 'The address');
    await writePriceFeed(pool, url);
    response.json(await readPriceFeed(pool));
  });
  router.post('/fetch', small, async (request, response) => {
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
