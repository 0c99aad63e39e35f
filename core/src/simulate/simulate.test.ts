import { describe, expect, it } from 'vitest';
import {
  comeBackMinutes,
  compileModel,
  faultNamed,
  proveMinutes,
  validateKnowledge,
  wrongPartMinutes,
} from '../diagnose/index.ts';
import {
  disturbed,
  drawJob,
  expectedMinutesOf,
  knowsTheFault,
  leastExpectedMinutes,
  normal,
  ourOrder,
  part,
  pick,
  remembering,
  search,
  seeded,
} from './index.ts';
import { model } from '../diagnose/knowledge.test-help.ts';

const bench = { has: ['meter', 'tester', 'spare-supply', 'spare-memory', 'spare-card'] as const, mayMeterMains: true };
const uncautious = { sureOfPart: 0, sureOfProved: 0, leastForPart: 0, leastAfterSwap: 0, leastForCure: 0 };

describe('drawing', () => {
  it('gives the same figures for the same seed, and others for another', () => {
    const list = (seed: number) => {
      const random = seeded(seed);
      return Array.from({ length: 5 }, random);
    };
    expect(list(7)).toEqual(list(7));
    expect(list(7)).not.toEqual(list(8));
  });
  it('draws by weight and by the normal law', () => {
    const random = seeded(3);
    const counts = [0, 0, 0];
    for (let draw = 0; draw < 20_000; draw += 1) counts[pick(random, [1, 0, 3])]! += 1;
    expect(counts[1]).toBe(0);
    expect(counts[2]! / 20_000).toBeCloseTo(0.75, 1);
    const values = Array.from({ length: 20_000 }, () => normal(random));
    expect(values.reduce((sum, value) => sum + value, 0) / 20_000).toBeCloseTo(0, 1);
    expect(values.reduce((sum, value) => sum + value * value, 0) / 20_000).toBeCloseTo(1, 1);
  });
  it('draws faults as often as the knowledge says', () => {
    const random = seeded(5);
    let weak = 0;
    for (let job = 0; job < 5000; job += 1) if (drawJob(model, random).faultId === 'psu-weak') weak += 1;
    expect(weak / 5000).toBeCloseTo(Math.exp(model.logPrior[model.faultIndex.get('psu-weak')!]!), 1);
  });
  it('a disturbed world is still valid knowledge, with other figures', () => {
    const shaken = disturbed(model.shipped, 0.5, seeded(9));
    expect(validateKnowledge(shaken)).toEqual([]);
    expect(shaken.faults[0]!.prior).not.toBe(model.faults[0]!.prior);
  });
});

describe('a search', () => {
  const random = seeded(21);
  const jobs = Array.from({ length: 16 }, () => drawJob(model, random));
  it('that knows the fault costs its cure, the proof and the two questions at intake', () => {
    for (const job of jobs) {
      const fault = faultNamed(model, job.faultId);
      expect(search(model, job, knowsTheFault(model))).toMatchObject({
        confirmed: true,
        wrongParts: 0,
        minutes: fault.cure.minutes + proveMinutes + 2,
        steps: 1,
      });
    }
  });
  it('in our order ends mostly confirmed, and the remembered order is the same order', () => {
    const order = ourOrder(model, bench, 0.9);
    const results = jobs.map((job) => search(model, job, order));
    expect(results.filter((result) => result.confirmed).length).toBeGreaterThan(12);
    expect(jobs.map((job) => search(model, job, remembering(order)))).toEqual(results);
  });
  it('that gives up counts as unfinished and is charged the longest', () => {
    expect(search(model, jobs[0]!, () => ({ do: 'give-up' }))).toMatchObject({ confirmed: false, minutes: 240 });
  });
  it('charges a machine that was handed on wrongly and came back', () => {
    const lead = { ...jobs[0]!, faultId: 'mains-lead' };
    const result = search(model, lead, (seen) =>
      seen.some((item) => item.checkId === 'repair.not-this-job')
        ? { do: 'cure', cureId: 'lead' }
        : { do: 'cure', cureId: 'not-this-job' },
    );
    expect(result).toMatchObject({
      confirmed: true,
      cameBack: 1,
      minutes: 2 + (5 + proveMinutes) + comeBackMinutes + (2 + proveMinutes),
    });
  });
});

describe('the exact optimum', () => {
  const small = (faults: string[], checks: string[]) => compileModel(part(model, faults, checks));
  it('is the closed formula where the only check tells nothing', () => {
    const two = small(['mains-lead', 'board'], ['m-cpu-temp']);
    const [lead, board] = two.logPrior.map(Math.exp) as unknown as [number, number];
    // Lead first, then the board.
    expect(leastExpectedMinutes(two)).toBeCloseTo(5 + board * 93, 6);
    expect(lead + board).toBeCloseTo(1, 9);
  });
  it('is never above cures alone, nor above our order, and our order is within a tenth of it', () => {
    const models = [
      small(['psu-weak', 'cpu-hot', 'psu-hot', 'memory'], ['look-dust', 'm-cpu-temp', 'm-steady', 'do-memory']),
      small(
        ['mains-lead', 'mains-switch', 'psu-no-standby', 'ctl-button', 'board'],
        ['look-switch', 'do-lead', 'look-standby-light', 'do-bridge', 'm-standby'],
      ),
      small(
        ['slot-card', 'card', 'wire-card', 'picture'],
        ['look-card', 'do-card-seat', 'do-card-power', 'do-picture'],
      ),
    ];
    for (const one of models) {
      const least = leastExpectedMinutes(one);
      const ours = expectedMinutesOf(one, ourOrder(one, { has: [], mayMeterMains: true }, 1.01, uncautious));
      expect(ours).toBeGreaterThanOrEqual(least - 1e-9);
      expect(ours / least).toBeLessThan(1.1);
    }
  });
  it('agrees with the expected minutes of following one fixed list of cures', () => {
    const two = small(['memory', 'cpu'], ['look-dust']);
    const [memory, cpu] = two.logPrior.map(Math.exp) as unknown as [number, number];
    const minutes = expectedMinutesOf(two, (seen) => ({ do: 'cure', cureId: seen.length === 0 ? 'memory' : 'cpu' }));
    expect(minutes).toBeCloseTo(15 + cpu * (wrongPartMinutes + 33), 9);
    expect(memory + cpu).toBeCloseTo(1, 9);
    expect(() => expectedMinutesOf(two, () => ({ do: 'give-up' }))).toThrow('gives up');
  });
});
