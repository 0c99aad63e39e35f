import type pg from 'pg';
import type { Model } from '@fairwatt/core';
import { id, type NetworkInstrument } from '@fairwatt/contract';
import { HttpProblem, parseInput } from '../problems.ts';
import { barOf } from './danger-watch.ts';
import { findNetworkInstrument } from './store.ts';

export const noInstrument = () =>
  new HttpProblem(404, 'no-such-instrument', 'No such instrument is entered', {
    errors: [{ path: 'id', message: 'no such instrument' }],
  });

/** @throws HttpProblem where no such instrument, or none of that role, is entered */
export async function askedInstrument(
  pool: pg.Pool,
  value: unknown,
  role?: NetworkInstrument['role'],
): Promise<NetworkInstrument> {
  const instrument = await findNetworkInstrument(pool, parseInput(id, value, 'The instrument'));
  if (instrument === null || (role !== undefined && instrument.role !== role)) throw noInstrument();
  return instrument;
}

/** @throws HttpProblem while something dangerous in this job keeps it from being powered */
export async function demandUnbarred(pool: pg.Pool, model: Model, job: string): Promise<void> {
  const bar = await barOf(pool, model, job);
  if (bar !== null)
    throw new HttpProblem(409, 'interlocked', `${bar.danger.title}: nothing is powered until that is made safe`, {
      errors: [{ path: 'job', message: bar.danger.why }],
    });
}
