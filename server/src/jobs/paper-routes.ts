import express, { Router, type Request, type Response } from 'express';
import type pg from 'pg';
import { viewJob, type Job, type JobView, type Model, type Shop } from '@fairwatt/core';
import {
  labelPrinterMessageSchema,
  labelPrinterSchema,
  labelQuerySchema,
  printedSchema,
  printLabelsSchema,
} from '@fairwatt/contract';
import { snapshot } from '../database/query.ts';
import { PrinterFailure, printPdf, readLabelPrinter, writeLabelPrinter } from '../label-printer.ts';
import { HttpProblem, notOwner, parseInput } from '../problems.ts';
import { ownerOf, readTechnicians, technicianExists } from '../shop/store.ts';
import { isPrivateUrl } from '../supplies/prices.ts';
import { labelsPdf, scheduleCsv, schedulePdf } from './documents.ts';
import { readJob } from './read.ts';
import { codeOf, noJob, noTechnician } from './refusals.ts';
import { readComputingShop } from './store.ts';

/** Paper: cable tags and the cable schedule, as PDF and CSV, and the label printer. */
export function paperRoutes(pool: pg.Pool, model: Model, address: string | null): Router {
  const router = Router();
  const body = express.json({ limit: '10kb' });
  async function viewed(request: Request): Promise<{ job: Job; shop: Shop; view: JobView }> {
    const code = codeOf(String(request.params['code']));
    const read = await snapshot(pool, async (db) => {
      const found = await readJob(db, code);
      return found === null ? null : { stored: found, shop: await readComputingShop(db, model) };
    });
    if (read === null) throw noJob(code);
    const { stored, shop } = read;
    const view = viewJob(stored.job, shop, { candidates: [] });
    if (view.cabling.basis === 'none')
      throw new HttpProblem(409, 'no-cables', 'No cable is planned or recorded in this job yet');
    return { job: stored.job, shop, view };
  }
  const addressOf = (request: Request) => address ?? `${request.protocol}://${request.get('host') ?? '127.0.0.1'}`;
  const pdf = (response: Response, name: string, document: Buffer) => {
    response.type('application/pdf').set('content-disposition', `inline; filename="${name}"`).send(document);
  };

  router.get('/:code/labels.pdf', async (request, response) => {
    const { stock, skip } = parseInput(labelQuerySchema, request.query, 'The query');
    const { job, view } = await viewed(request);
    pdf(response, `${job.code}-labels.pdf`, await labelsPdf(job, view, addressOf(request), stock, skip));
  });
  router.get('/:code/cables.pdf', async (request, response) => {
    const { job, shop, view } = await viewed(request);
    const people = await readTechnicians(pool);
    pdf(
      response,
      `${job.code}-cables.pdf`,
      await schedulePdf(
        job,
        view,
        shop,
        addressOf(request),
        (id) => people.find((person) => person.id === id)?.name ?? id,
      ),
    );
  });
  router.get('/:code/cables.csv', async (request, response) => {
    const { job, shop, view } = await viewed(request);
    response
      .attachment(`${job.code}-cables.csv`)
      .type('text/csv')
      .send(scheduleCsv(job, view, shop));
  });
  router.post('/:code/labels/print', body, async (request, response) => {
    const { by } = parseInput(printLabelsSchema, request.body, 'The print job');
    if (!(await technicianExists(pool, by))) throw noTechnician();
    const printer = await readLabelPrinter(pool);
    if (printer === null)
      throw new HttpProblem(404, 'no-printer', 'No label printer is entered; an owner does that at Settings');
    const { job, view } = await viewed(request);
    try {
      response.json(
        printedSchema.parse(await printPdf(printer, await labelsPdf(job, view, addressOf(request), 'roll', 0))),
      );
    } catch (error) {
      if (error instanceof PrinterFailure)
        throw new HttpProblem(502, 'printer-failed', `Nothing is known to be printed: ${error.message}`);
      throw error;
    }
  });
  return router;
}

/** Where labels are printed; an owner says it. */
export function labelPrinterRoutes(pool: pg.Pool): Router {
  const router = Router();
  router.get('/', async (_request, response) => {
    const url = await readLabelPrinter(pool);
    response.json(url === null ? null : labelPrinterSchema.parse({ url }));
  });
  router.put('/', express.json({ limit: '10kb' }), async (request, response) => {
    const { by, url } = parseInput(labelPrinterMessageSchema, request.body, 'The address');
    if (!isPrivateUrl(url))
      throw new HttpProblem(422, 'invalid', 'The address is not valid', {
        errors: [
          {
            path: 'url',
            message: 'http at a loopback or private address in figures, such as http://192.168.1.9:8080/print',
          },
        ],
      });
    const owner = await ownerOf(pool, by);
    if (owner === null) throw noTechnician();
    if (!owner) throw notOwner('Only an owner says where labels are printed');
    await writeLabelPrinter(pool, url);
    response.json({ url });
  });
  return router;
}
