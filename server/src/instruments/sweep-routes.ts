import express, { Router } from 'express';
import type pg from 'pg';
import { z } from 'zod';
import type { Model } from '@fairwatt/core';
import { sweepRequestSchema, sweepsSchema } from '@fairwatt/contract';
import { signedInput, type SessionWatch } from '../access/index.ts';
import { HttpProblem, parseInput } from '../problems.ts';
import { stream } from '../streams.ts';
import { askedInstrument, demandUnbarred } from './asked.ts';
import type { Sweeps } from './sweep.ts';

/** Load sweeps: begun, followed, stopped. */
export function sweepRoutes(pool: pg.Pool, model: Model, sweeps: Sweeps, sessions: SessionWatch): Router {
  const router = Router();
  const body = express.json({ limit: '10kb' });
  router.get('/', async (_request, response) => {
    response.json(
      sweepsSchema.parse({
        running: sweeps.running,
        unsure: (await sweeps.unsure()).map((load) => ({ loadId: load.id, loadName: load.name })),
      }),
    );
  });
  router.post('/', body, async (request, response) => {
    const wanted = await signedInput(pool, request, sweepRequestSchema, request.body, 'The sweep');
    const [meter, load] = [
      await askedInstrument(pool, wanted.meterId, 'meter'),
      await askedInstrument(pool, wanted.loadId, 'load'),
    ];
    await demandUnbarred(pool, model, wanted.job);
    const sweep = await sweeps.start(wanted, meter, load);
    if (sweep === null)
      throw new HttpProblem(409, 'load-busy', 'This load is in another sweep; stop that one first', {
        errors: [{ path: 'loadId', message: 'is busy' }],
      });
    response.status(201).json({ id: sweep.message.id });
  });
  const sweepOf = (value: unknown) => {
    const sweep = sweeps.find(parseInput(z.uuid(), value, 'The sweep'));
    if (sweep === undefined)
      throw new HttpProblem(404, 'no-such-sweep', 'This sweep is over and gone', {
        errors: [{ path: 'id', message: 'no such sweep' }],
      });
    return sweep;
  };
  router.get('/:id/events', async (request, response) => {
    const sweep = sweepOf(request.params['id']);
    const { send, closed } = stream(request, response, sessions);
    const leave = sweep.listen(send);
    await Promise.race([
      sweep.ended,
      new Promise((resolve) => {
        closed.addEventListener('abort', resolve);
      }),
    ]);
    leave();
    response.end();
  });
  router.post('/:id/stop', async (request, response) => {
    const sweep = sweepOf(request.params['id']);
    sweep.stop();
    await sweep.ended;
    response.json({ ended: sweep.events.at(-1) });
  });
  return router;
}
