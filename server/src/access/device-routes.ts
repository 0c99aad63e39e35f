import express, { Router, type Response } from 'express';
import type pg from 'pg';
import { devicesSchema, enrolmentSchema, newDeviceSchema, uuid } from '@fairwatt/contract';
import { HttpProblem, parseInput } from '../problems.ts';
import { askForDevice, endDevice, readDevices } from './devices.ts';
import { audit, whoAsks } from './gate.ts';
import { asRead } from './secrets.ts';

/** Devices that an owner lets in, and takes out again. */
export function deviceRoutes(pool: pg.Pool, now: () => string): Router {
  const router = Router();
  const body = express.json({ limit: '4kb' });
  const devices = async (response: Response) => {
    response.json(devicesSchema.parse(await readDevices(pool)));
  };
  router.get('/', async (_request, response) => devices(response));
  router.post('/', body, async (request, response) => {
    const { name } = parseInput(newDeviceSchema, request.body, 'The device');
    const { code, until } = await askForDevice(pool, name.trim(), whoAsks(request).id, now());
    await audit(pool, request, now(), 'device-asked', name.trim());
    response.status(201).json(enrolmentSchema.parse({ code: asRead(code), path: `/enrol#${code}`, until }));
  });
  router.delete('/:id', async (request, response) => {
    const name = await endDevice(pool, parseInput(uuid, request.params['id'], 'The device'));
    if (name === null) throw new HttpProblem(404, 'no-such-device', 'This device is not enrolled');
    await audit(pool, request, now(), 'device-ended', name);
    await devices(response);
  });
  return router;
}
