import express, { Router } from 'express';
import type pg from 'pg';
import { z } from 'zod';
import { mostOriginalBytes, uuid } from '@fairwatt/contract';
import { HttpProblem, parseInput } from '../problems.ts';
import { codeOf } from './refusals.ts';
import { putOriginal, readOriginal } from './store.ts';

const noLog = () =>
  new HttpProblem(404, 'no-such-log', 'This job keeps no such log', {
    errors: [{ path: 'id', message: 'no such log' }],
  });

/** The files of logging meters, as they came. */
export function logRoutes(pool: pg.Pool): Router {
  const router = Router();
  router.put(
    '/:code/logs/:id/original',
    express.text({ limit: mostOriginalBytes, type: 'text/csv' }),
    async (request, response) => {
      const logId = parseInput(uuid, request.params['id'], 'The log');
      const original = parseInput(z.string().min(1), request.body, 'The file');
      if (original.includes('\0'))
        throw new HttpProblem(422, 'binary', 'This is no text file', {
          errors: [{ path: 'body', message: 'contains bytes that are no text' }],
        });
      if (!(await putOriginal(pool, codeOf(request.params['code']), logId, original))) throw noLog();
      response.status(204).end();
    },
  );
  router.get('/:code/logs/:id/original', async (request, response) => {
    const original = await readOriginal(
      pool,
      codeOf(request.params['code']),
      parseInput(uuid, request.params['id'], 'The log'),
    );
    if (original === null) throw noLog();
    response.type('text/csv').send(original);
  });
  return router;
}
