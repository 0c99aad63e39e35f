import { faultNamed } from './model.ts';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { drawJob, ourOrder, remembering, search, seeded, type SearchResult } from '../simulate/index.ts';
import { afterSwap, endedShare, swapThatCured, tellsOfCure } from './after-swap.ts';
import { diagnose, posterior, rankChecks, repairCheckId, usualCaution, type Observation } from './index.ts';
import { model, told } from './knowledge.test-help.ts';
import { casesOf } from '../size.test-help.ts';

const bench = {
  has: ['meter', 'tester', 'spare-supply', 'spare-memory', 'spare-card'] as const,
  mayMeterMains: true,
};
const sure = { enough: usualCaution.sureOfProved, least: usualCaution.leastAfterSwap };
const after = (observations: readonly Observation[]) =>
  afterSwap(model, observations, posterior(model, observations), rankChecks(model, observations, bench), sure);

/** The entropy of the cure, in bits, for weights by fault that sum to one. */
function cureEntropy(weights: Float64Array): number {
  return [...new Set(model.faults.map(({ cure }) => cure.id))].reduce((bits, id) => {
    const share = model.faults.reduce((sum, { cure }, fault) => (cure.id === id ? sum + weights[fault]! : sum), 0);
    return share > 0 ? bits - share * Math.log2(share) : bits;
  }, 0);
}

describe('what a check tells of the cure', () => {
  const evidence = fc.uniqueArray(
    fc.constantFrom(...model.checks).chain((check) =>
      fc.record({
        checkId: fc.constant(check.id),
        outcomeId: fc.constantFrom(...check.outcomes.map(({ id }) => id)),
      }),
    ),
    { selector: ({ checkId }) => checkId, maxLength: 6 },
  );

  it('is what the doubt about the cure falls by on the average, outcome by outcome', () => {
    fc.assert(
      fc.property(evidence, fc.nat(model.checks.length - 1), (observations, index) => {
        const now = posterior(model, observations);
        let left = 0;
        for (const row of model.likelihood[index]!) {
          const joint = now.map((value, fault) => value * row[fault]!);
          const chance = joint.reduce((sum, value) => sum + value, 0);
          if (chance > 0) left += chance * cureEntropy(joint.map((value) => value / chance));
        }
        const bits = tellsOfCure(model, now, model.checks[index]!.id);
        expect(bits).toBeCloseTo(cureEntropy(now) - left, 9);
        expect(bits).toBeGreaterThan(-1e-12);
      }),
      { numRuns: 200 },
    );
  });
});

describe('after a swap that cured it', () => {
  const swapped = { 'told-button': 'cuts-load', 'told-course': 'slowly', 'd-swap': 'cured' };

  it('counts from the swap on, and no more once a repair was in vain', () => {
    expect(swapThatCured(model, told({ 'told-button': 'twitch', 'd-swap': 'same' }))).toBeNull();
    expect(swapThatCured(model, told(swapped))).toEqual({ checkId: 'd-swap', since: [] });
    expect(swapThatCured(model, told({ ...swapped, 'd-swap-back': 'returns' }))?.since).toHaveLength(1);
    expect(swapThatCured(model, told({ ...swapped, [repairCheckId('replace-supply')]: 'same' }))).toBeNull();
  });

  it('says nothing before a swap', () => {
    expect(after(told({ 'told-button': 'cuts-load', 'm-rails-work': 'out' }))).toBeNull();
  });

  it('ends once one cure is sure enough, whichever of the supply faults it is', () => {
    const proved = told({ ...swapped, 'm-rails-work': 'out', 'd-swap-back': 'returns' });
    const found = after(proved);
    expect(found).toEqual({ faultId: 'psu-weak' });
    expect(endedShare(model, posterior(model, proved), 'replace-supply')).toBeGreaterThan(usualCaution.sureOfProved);
    expect(diagnose(model, proved, { bench, stopProbability: 0.9 }).step).toEqual({
      do: 'finding',
      faultId: 'psu-weak',
    });
  });

  it('names the larger supply where the load is what was wrong', () => {
    const small = told({
      ...swapped,
      'told-course': 'change',
      'c-load': 'over-100',
      'do-second-cable': 'same',
      'd-swap-back': 'returns',
    });
    expect(after(small)).toEqual({ faultId: 'psu-undersized' });
  });

  it('asks for the old supply back where a plug may have been it, and no part is bought when it runs', () => {
    const seen = told({ 'told-button': 'twitch', 'told-course': 'change', 'do-cpu-power': 'home', 'd-swap': 'cured' });
    const usual = { 'd-swap-back': 'stays-away', 'look-harness': 'own', 'do-main': 'home', 'look-drive': 'no-screen' };
    let end: string | null = null;
    for (let found = after(seen); found !== null && end === null; found = after(seen)) {
      if ('faultId' in found) end = found.faultId;
      else seen.push({ checkId: found.checkId, outcomeId: usual[found.checkId as keyof typeof usual] ?? 'unknown' });
    }
    expect(seen.map(({ checkId }) => checkId)).toContain('d-swap-back');
    expect(end === null || !faultNamed(model, end).cure.part).toBe(true);
  });

  it('never asks for more than five checks, nor for a check that was done', () => {
    const random = seeded(31);
    for (let round = 0; round < casesOf(12, 40); round += 1) {
      const drawn = drawJob(model, random);
      const seen = told({ 'told-button': drawn.outcomes.get('told-button')!, 'd-swap': 'cured' });
      let asked = 0;
      for (let found = after(seen); found !== null && 'checkId' in found; found = after(seen)) {
        const { checkId } = found;
        expect(seen.some((one) => one.checkId === checkId)).toBe(false);
        seen.push({ checkId, outcomeId: drawn.outcomes.get(checkId)! });
        asked += 1;
      }
      expect(asked).toBeLessThanOrEqual(5);
    }
  });

  it('is a short way over simulated jobs: three steps at the median, six at the 90th percentile', () => {
    const random = seeded(1137);
    const order = remembering(ourOrder(model, bench, 0.9));
    const jobs = casesOf(60, 160);
    const ends: SearchResult[] = Array.from({ length: jobs }, () => search(model, drawJob(model, random), order));
    const steps = ends.flatMap(({ stepsAfterSwap }) => stepsAfterSwap ?? []).sort((a, b) => a - b);
    expect(steps.length).toBeGreaterThan(jobs / 3);
    expect(steps[Math.ceil(0.5 * steps.length) - 1]).toBeLessThanOrEqual(3);
    expect(steps[Math.ceil(0.9 * steps.length) - 1]).toBeLessThanOrEqual(6);
  });
});
