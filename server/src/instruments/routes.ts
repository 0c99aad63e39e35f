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
  sweepRequestSchema,
  sweepsSchema,
  type LiveEvent,
  type NetworkInstrument,
} from '@fairwatt/contract';
import { signedInput, type SessionWatch } from '../access/index.ts';
import { HttpProblem, parseInput } from '../problems.ts';
import { barOf } from './danger-watch.ts';
import { stream } from '../streams.ts';
import { timePowerGood, watchMeter } from './live.ts';
import { OneScreen } from './one-screen.ts';
import { InstrumentFailure, ScpiLink } from './scpi-link.ts';
import {
  addNetworkInstrument,
  findNetworkInstrument,
  listNetworkInstruments,
  removeNetworkInstrument,
  type AddressChange,
} from './store.ts';
import type { Sweeps } from './sweep.ts';

const noInstrument = () =>
  new HttpProblem(404, 'no-such-instrument', 'No such instrument is entered', {
    errors: [{ path: 'id', message: 'no such instrument' }],
  });

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
  const found = async (value: unknown, role?: NetworkInstrument['role']): Promise<NetworkInstrument> => {
    const instrument = await findNetworkInstrument(pool, parseInput(id, value, 'The instrument'));
    if (instrument === null || (role !== undefined && instrument.role !== role)) throw noInstrument();
    return instrument;
  };
  /** @throws HttpProblem while something dangerous in this job keeps it from being powered */
  const unbarred = async (job: string): Promise<void> => {
    const bar = await barOf(pool, model, job);
    if (bar !== null)
      throw new HttpProblem(409, 'interlocked', `${bar.danger.title}: nothing is powered until that is made safe`, {
        errors: [{ path: 'job', message: bar.danger.why }],
      });
  };
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
    const instrument = await found(request.params['id']);
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
    const meter = await found(request.params['id'], 'meter');
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
    const meter = await found(request.params['id'], 'meter');
    await unbarred(job);
    try {
      response.json({ milliseconds: await timePowerGood(meter, job), trouble: null });
    } catch (error) {
      if (!(error instanceof InstrumentFailure)) throw error;
      response.json({ milliseconds: null, trouble: error.trouble });
    }
  });
  router.get('/sweeps', async (_request, response) => {
    response.json(
      sweepsSchema.parse({
        running: sweeps.running,
        unsure: (await sweeps.unsure()).map((load) => ({ loadId: load.id, loadName: load.name })),
      }),
    );
  });
  router.post('/:id/off', body, async (request, response) => {
    const { byHand } = await signedInput(pool, request, loadOffSchema, request.body, 'The request');
    const load = await found(request.params['id'], 'load');
    const loadOff = await sweeps.makeSure(load, byHand);
    if (loadOff === null)
      throw new HttpProblem(409, 'load-busy', 'This load is in a sweep; stop the sweep', {
        errors: [{ path: 'id', message: 'is busy' }],
      });
    response.json({ loadOff });
  });
  router.post('/sweeps', body, async (request, response) => {
    const wanted = await signedInput(pool, request, sweepRequestSchema, request.body, 'The sweep');
    const [meter, load] = [await found(wanted.meterId, 'meter'), await found(wanted.loadId, 'load')];
    await unbarred(wanted.job);
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
  router.get('/sweeps/:id/events', async (request, response) => {
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
  router.post('/sweeps/:id/stop', async (request, response) => {
    const sweep = sweepOf(request.params['id']);
    sweep.stop();
    await sweep.ended;
    response.json({ ended: sweep.events.at(-1) });
  });
  return router;
}
