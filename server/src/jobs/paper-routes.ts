import express, { Router, type Request, type Response } from 'express';
import type pg from 'pg';
import {
  labelPrinterMessageSchema,
  labelPrinterSchema,
  labelQuerySchema,
  printedSchema,
  printLabelsSchema,
} from '@fairwatt/contract';
import { signedInput } from '../access/index.ts';
import { PrinterFailure, printPdf, readLabelPrinter, writeLabelPrinter } from '../label-printer.ts';
import { HttpProblem, parseInput } from '../problems.ts';
import { isPrivateUrl } from '../supplies/prices.ts';
import { codeOf, noJob } from './refusals.ts';
import type { PaperOrder, Workers } from '../workers/workers.ts';

/** Paper: cable tags and the cable schedule, as PDF and CSV, and the label printer. */
export function paperRoutes(pool: pg.Pool, workers: Workers, address: string | null): Router {
  const router = Router();
  const body = express.json({ limit: '10kb' });
  async function made(order: PaperOrder): Promise<Buffer> {
    const paper = await workers.paper(order);
    if (paper.kind === 'no-job') throw noJob(order.code);
    if (paper.kind === 'no-cables')
      throw new HttpProblem(409, 'no-cables', 'No cable is planned or recorded in this job yet');
    if (paper.kind === 'no-supply')
      throw new HttpProblem(409, 'no-supply', 'The supply that came is not entered in this job yet');
    return Buffer.from(paper.bytes);
  }
  const codeIn = (request: Request) => codeOf(String(request.params['code']));
  const addressOf = (request: Request) => address ?? `${request.protocol}://${request.get('host') ?? '127.0.0.1'}`;
  const pdf = (response: Response, name: string, document: Buffer) => {
    response.type('application/pdf').set('content-disposition', `inline; filename="${name}"`).send(document);
  };

  router.get('/:code/labels.pdf', async (request, response) => {
    const { stock, skip } = parseInput(labelQuerySchema, request.query, 'The query');
    const code = codeIn(request);
    const address = addressOf(request);
    pdf(response, `${code}-labels.pdf`, await made({ kind: 'labels', code, address, stock, skip }));
  });
  router.get('/:code/supply-label.pdf', async (request, response) => {
    const { stock, skip } = parseInput(labelQuerySchema, request.query, 'The query');
    const code = codeIn(request);
    const address = addressOf(request);
    pdf(response, `${code}-supply.pdf`, await made({ kind: 'supply-label', code, address, stock, skip }));
  });
  router.get('/:code/cables.pdf', async (request, response) => {
    const code = codeIn(request);
    pdf(response, `${code}-cables.pdf`, await made({ kind: 'schedule', code, address: addressOf(request) }));
  });
  router.get('/:code/cables.csv', async (request, response) => {
    const code = codeIn(request);
    const csv = await made({ kind: 'schedule-csv', code, address: addressOf(request) });
    response.attachment(`${code}-cables.csv`).type('text/csv').send(csv);
  });
  router.post('/:code/labels/print', body, async (request, response) => {
    const { what } = await signedInput(pool, request, printLabelsSchema, request.body, 'The print job');
    const printer = await readLabelPrinter(pool);
    if (printer === null)
      throw new HttpProblem(404, 'no-printer', 'No label printer is entered; an owner does that at Settings');
    const address = addressOf(request);
    const kind = what === 'supply' ? 'supply-label' : 'labels';
    const labels = await made({ kind, code: codeIn(request), address, stock: 'roll', skip: 0 });
    try {
      response.json(printedSchema.parse(await printPdf(printer, labels)));
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
    const { url } = await signedInput(pool, request, labelPrinterMessageSchema, request.body, 'The address');
    if (!isPrivateUrl(url))
      throw new HttpProblem(422, 'invalid', 'The address is not valid', {
        errors: [
          {
            path: 'url',
            message: 'http at a loopback or private address in figures, such as http://192.168.1.9:8080/print',
          },
        ],
      });
    await writeLabelPrinter(pool, url);
    response.json({ url });
  });
  return router;
}
