import express, { Router, type Response } from 'express';
import type pg from 'pg';
import { z } from 'zod';
import { plugName, spareVerdict, unprovedPlugs, type BagCable } from '@fairwatt/core';
import {
  bagAdapterMessageSchema,
  bagCableMessageSchema,
  cableBagsSchema,
  id,
  pinoutMessageSchema,
  proofMessageSchema,
  uuid,
} from '@fairwatt/contract';
import { signedInput } from '../access/index.ts';
import { snapshot } from '../database/query.ts';
import { readJob } from '../jobs/read.ts';
import { sendFromShelf } from '../shop/tagged.ts';
import { readSupplies } from '../supplies/store.ts';
import { HttpProblem, parseInput } from '../problems.ts';
import {
  changeAdapter,
  changeCable,
  changePinout,
  changeProof,
  readCableBags,
  removeFromBags,
  type BagChange,
} from './store.ts';

type Walks = z.infer<typeof proofMessageSchema>['walks'];

async function answer(pool: pg.Pool, response: Response, change: BagChange, what: string): Promise<void> {
  switch (change.kind) {
    case 'stale':
      throw new HttpProblem(409, 'stale', `Somebody changed this ${what} since you saw it`);
    case 'not-found':
      throw new HttpProblem(404, 'not-found', `There is no such ${what}`);
    case 'unknown-reference':
      throw new HttpProblem(422, 'unknown-reference', `The ${what} names something that is not known here`, {
        errors: [{ path: change.path, message: 'is not known here' }],
      });
    case 'done':
      response.json(cableBagsSchema.parse(await snapshot(pool, readCableBags)));
  }
}

/** The plugs of a cable that none of these walks proves on a supply. */
async function unproved(pool: pg.Pool, cable: BagCable, modelId: string, walks: Walks) {
  const guide = (await readSupplies(pool, [modelId]))[0]?.label.guide;
  if (guide === undefined) return [];
  const found = await Promise.all(
    walks.map(async ({ job, probeId }) => (await readJob(pool, job))?.job.probes.find((probe) => probe.id === probeId)),
  );
  const known = new Map(found.flatMap((probe) => (probe === undefined ? [] : [[probe.id, probe]])));
  return unprovedPlugs(
    cable.plugs.map(({ kind }) => kind),
    [...known.values()],
    guide,
  );
}

/** @throws HttpProblem where a cable may not be called proved on a supply */
async function refuseUnproved(pool: pg.Pool, cableId: string, modelId: string, walks: Walks): Promise<void> {
  // What is known to do harm cannot be proved by anybody.
  const bags = await snapshot(pool, readCableBags);
  const cable = bags.cables.find((item) => item.id === cableId);
  if (cable !== undefined && spareVerdict(bags, cable, modelId).word === 'harmful')
    throw new HttpProblem(
      422,
      'harmful',
      'This cable does harm on this supply by what is known of both; correct that first, if a probe says otherwise',
      { errors: [{ path: 'cableId', message: 'does harm there' }] },
    );
  if (cable !== undefined) {
    const left = await unproved(pool, cable, modelId, walks);
    if (left.length > 0)
      throw new HttpProblem(
        422,
        'not-walked',
        'A cable is proved by probe walks alone: one for each of its plugs, every pin right',
        { errors: [{ path: 'walks', message: `no safe walk of ${left.map((plug) => plugName[plug]).join(', ')}` }] },
      );
  }
}

/** Spare modular cables, the sockets of supplies pin by pin, and what was proved on what. */
export function cableBagRoutes(pool: pg.Pool, now: () => string): Router {
  const router = Router();
  const body = express.json({ limit: '100kb' });
  router.get('/', async (request, response) => {
    await sendFromShelf(
      request,
      response,
      pool,
      (shelf) => shelf.bags,
      (bags) => cableBagsSchema.parse(bags),
    );
  });
  router.put('/cables', body, async (request, response) => {
    const { basedOn, cable } = await signedInput(pool, request, bagCableMessageSchema, request.body, 'The cable');
    await answer(pool, response, await changeCable(pool, basedOn, cable), 'cable');
  });
  router.delete('/cables/:id', async (request, response) => {
    await signedInput(pool, request, z.strictObject({ by: id }), request.query, 'The query');
    await answer(
      pool,
      response,
      await removeFromBags(pool, 'bag_cable', parseInput(uuid, request.params['id'], 'The cable')),
      'cable',
    );
  });
  router.put('/adapters', body, async (request, response) => {
    const { basedOn, adapter } = await signedInput(pool, request, bagAdapterMessageSchema, request.body, 'The adapter');
    await answer(pool, response, await changeAdapter(pool, basedOn, adapter), 'adapter');
  });
  router.delete('/adapters/:id', async (request, response) => {
    await signedInput(pool, request, z.strictObject({ by: id }), request.query, 'The query');
    await answer(
      pool,
      response,
      await removeFromBags(pool, 'bag_adapter', parseInput(uuid, request.params['id'], 'The adapter')),
      'adapter',
    );
  });
  router.put('/pinouts', body, async (request, response) => {
    const { basedOn, pinout } = await signedInput(pool, request, pinoutMessageSchema, request.body, 'The pinout');
    await answer(pool, response, await changePinout(pool, basedOn, pinout), 'pinout');
  });
  router.put('/proofs', body, async (request, response) => {
    const { by, cableId, modelId, note, proved, walks } = await signedInput(
      pool,
      request,
      proofMessageSchema,
      request.body,
      'The proof',
    );
    if (proved) await refuseUnproved(pool, cableId, modelId, walks);
    await answer(pool, response, await changeProof(pool, by, cableId, modelId, note, proved, now()), 'proof');
  });
  return router;
}
