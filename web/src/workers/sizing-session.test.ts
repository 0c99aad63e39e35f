import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import {
  candidateRow,
  firstChoosing,
  noBags,
  questionOf,
  rankSupplies,
  type FitQuestion,
  type ShopSettings,
} from '@fairwatt/core';
import { jobFileSchema, presentJobFile, supplyFileSchema } from '@fairwatt/contract';
import { newSizingSession } from './sizing-session.ts';

const demo = (name: string): unknown =>
  JSON.parse(readFileSync(new URL(`../../../demo/${name}.json`, import.meta.url), 'utf8'));
const { supplies } = supplyFileSchema.parse(demo('supplies'));
const { weights } = firstChoosing;
const settings: ShopSettings = {
  name: 'Bench',
  codePrefix: 'LQ',
  mainsVolts: 230,
  currency: 'EUR',
  locale: 'en-GB',
  timeZone: '',
  school: 'peaks-covered',
  stopProbability: 0.9,
  bench: { has: ['meter'], mayMeterMains: false },
  choosing: firstChoosing,
};
/** What a job of the demo shop asks of its supply. */
function asked(name: string): FitQuestion {
  const { job } = jobFileSchema.parse(presentJobFile(demo(`jobs/${name}`)));
  return questionOf(job, { settings, bags: noBags })!;
}
const light = asked('5-ticket-kiosk');
const heavy = asked('3-tide-laboratory');
const many = [0, 1, 2].flatMap((copy) => supplies.map((model) => ({ ...model, id: `${model.id}-${copy}` })));

/** One that looks up after every portion. */
const attentive = () => {
  const session = newSizingSession(0);
  session.stock(many);
  return session;
};
const ids = (rows: readonly { readonly modelId: string }[] | null) => rows?.map(({ modelId }) => modelId);
const idsAtOneGo = (question: typeof light) =>
  rankSupplies(many, question, weights, 'EUR').map((ranked) => candidateRow(ranked).model.id);

describe('the ranking in the worker', () => {
  it('tells how far it is, and comes to what is ranked at one go', async () => {
    const told: number[] = [];
    const rows = await attentive().rank(light, weights, 'EUR', (share) => told.push(share));
    expect(ids(rows)).toEqual(idsAtOneGo(light));
    expect(told.length).toBeGreaterThan(2);
    expect(told).toEqual([...told].sort((a, b) => a - b));
    expect(told.every((share) => share > 0 && share < 1)).toBe(true);
  });
  it('ends when it is stopped, without an answer, and judges anew when asked again', async () => {
    const session = attentive();
    const told: number[] = [];
    const rows = await session.rank(light, weights, 'EUR', (share) => {
      told.push(share);
      session.stop();
    });
    expect(rows).toBe(null);
    expect(told).toHaveLength(1);
    expect(ids(await session.rank(light, weights, 'EUR', () => undefined))).toEqual(idsAtOneGo(light));
  });
  it('gives up a question for the next one', async () => {
    const session = attentive();
    const first = session.rank(light, weights, 'EUR', () => undefined);
    const second = session.rank(heavy, weights, 'EUR', () => undefined);
    expect(await first).toBe(null);
    expect(ids(await second)).toEqual(idsAtOneGo(heavy));
  });
  it('has an empty answer for an empty shop', async () => {
    expect(await newSizingSession(0).rank(light, weights, 'EUR', () => undefined)).toEqual([]);
  });
});
