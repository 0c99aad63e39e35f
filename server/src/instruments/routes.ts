import express, { Router } from 'express';
import type pg from 'pg';
import { z } from 'zod';
import type { Model } from '@fairwatt/core';
import {
  id,
  liveQuerySchema,
  networkInstrumentsSchema,
  newNetworkInstrumentSchema,
  loadOffSchema,
  powerGoodRequestSchema,
  type LiveEvent,
} from '@fairwatt/contract';
import { signedInput, type SessionWatch } from '../access/index.ts';
import { HttpProblem, parseInput } from '../problems.ts';
import { stream } from '../streams.ts';
import { askedInstrument, demandUnbarred, noInstrument } from './asked.ts';
import { timePowerGood, watchMeter } from './live.ts';
import { OneScreen } from './one-screen.ts';
import { InstrumentFailure, ScpiLink } from './scpi-link.ts';
import { addNetworkInstrument, listNetworkInstruments, removeNetworkInstrument, type AddressChange } from './store.ts';
import type { Sweeps } from './sweep.ts';
import { sweepRoutes } from './sweep-routes.ts';

function settled(result: AddressChange): void {
  switch (result) {
    case 'unknown-instrument':
      throw new HttpProblem(422, 'unknown-reference', "This instrument is not among the shop's", {
        errors: [{ path: 'instrument.instrumentId', message: 'is not known here' }],
      });
    case 'load-unsure':
      throw new HttpProblem(409, 'load-unsure', 'Nobody knows whether this load still draws; make sure first', {
        errors: [{ path: 'id', message: 'may still draw' }],
      });
    case 'not-found':
      throw noInstrument();
    case 'done':
  }
}

/** Instruments over the network: their addresses, a meter live, a load sweep. */
export function instrumentRoutes(pool: pg.Pool, model: Model, sweeps: Sweeps, sessions: SessionWatch): Router {
  const router = Router();
  const screens = new OneScreen();
  const body = express.json({ limit: '10kb' });
  router.get('/', async (_request, response) => {
    response.json(networkInstrumentsSchema.parse(await listNetworkInstruments(pool)));
  });
  router.post('/', body, async (request, response) => {
    const { by, instrument } = await signedInput(
      pool,
      request,
      newNetworkInstrumentSchema,
      request.body,
      'The instrument',
    );
    settled(await addNetworkInstrument(pool, by, instrument));
    response.status(201).json(networkInstrumentsSchema.parse(await listNetworkInstruments(pool)));
  });
  router.delete('/:id', async (request, response) => {
    await signedInput(pool, request, z.strictObject({ by: id }), request.query, 'The query');
    const instrument = parseInput(id, request.params['id'], 'The instrument');
    settled(await removeNetworkInstrument(pool, instrument));
    response.json(networkInstrumentsSchema.parse(await listNetworkInstruments(pool)));
  });
  router.get('/:id/identity', async (request, response) => {
    const instrument = await askedInstrument(pool, request.params['id']);
    let link: ScpiLink | null = null;
    try {
      link = await ScpiLink.open(instrument.host, instrument.port);
      response.json({ identity: (await link.ask('*IDN?')).slice(0, 120), trouble: null });
    } catch (error) {
      if (!(error instanceof InstrumentFailure)) throw error;
      response.json({ identity: null, trouble: error.trouble });
    } finally {
      link?.close();
    }
  });
  router.get('/:id/live', async (request, response) => {
    const { rail, job, moving } = parseInput(liveQuerySchema, request.query, 'The query');
    const meter = await askedInstrument(pool, request.params['id'], 'meter');
    const { send, closed } = stream(request, response, sessions);
    const elsewhere = moving === 'yes' ? screens.take(meter.id, closed) : null;
    const ended = elsewhere === null ? closed : AbortSignal.any([closed, elsewhere]);
    await watchMeter(meter, rail, job, send, ended, moving === 'yes');
    if (elsewhere?.aborted === true)
      send({ kind: 'trouble', at: new Date().toISOString(), trouble: 'taken' } satisfies LiveEvent);
    response.end();
  });
  router.post('/:id/power-good', body, async (request, response) => {
    const { job } = parseInput(powerGoodRequestSchema, request.body, 'The request');
    const meter = await askedInstrument(pool, request.params['id'], 'meter');
    await demandUnbarred(pool, model, job);
    try {
      response.json({ milliseconds: await timePowerGood(meter, job), trouble: null });
    } catch (error) {
      if (!(error instanceof InstrumentFailure)) throw error;
      response.json({ milliseconds: null, trouble: error.trouble });
    }
  });
  router.post('/:id/off', body, async (request, response) => {
    const { byHand } = await signedInput(pool, request, loadOffSchema, request.body, 'The request');
    const load = await askedInstrument(pool, request.params['id'], 'load');
    const loadOff = await sweeps.makeSure(load, byHand);
    if (loadOff === null)
      throw new HttpProblem(409, 'load-busy', 'This load is in a sweep; stop the sweep', {
        errors: [{ path: 'id', message: 'is busy' }],
      });
    response.json({ loadOff });
  });
  router.use('/sweeps', sweepRoutes(pool, model, sweeps, sessions));
  return router;
}
