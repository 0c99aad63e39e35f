import { faultNamed, checkNamed } from './model.ts';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { drawJob, pick, seeded, type Random } from '../simulate/index.ts';
import {
  bothSay,
  diagnose,
  doubleShare,
  isEndedBy,
  isFromFile,
  lookingForFirst,
  posterior,
  repairCheckId,
  twoFaultsIn,
  type Observation,
} from './index.ts';
import { model, told } from './knowledge.test-help.ts';

const terms = {
  bench: { has: ['meter', 'tester', 'spare-supply'], mayMeterMains: false },
  stopProbability: 0.9,
} as const;
const weakAndHot = {
  'told-button': 'cuts-load',
  'told-course': 'slowly',
  'm-steady': 'sags',
  'm-rails-work': 'out',
  'm-cpu-temp': 'hot',
  'look-dust': 'blocked',
};
const faultOf = (id: string) => faultNamed(model, id);

/** Pairs of faults that two repairs end, none of them well or of somebody else. */
const pairs = model.faults.flatMap((a, first) =>
  model.faults
    .slice(first + 1)
    .filter((b) => !isEndedBy(a, b.cure.id) && !isEndedBy(b, a.cure.id))
    .filter((b) => [a, b].every((fault) => fault.healthy !== true && fault.outside !== true))
    .map((b) => [a.id, b.id] as const),
);
const rowsOf = (checkId: string, faultId: string) =>
  model.likelihood[model.checkIndex.get(checkId)!]!.map((row) => row[model.faultIndex.get(faultId)!]!);
const usual = (checkId: string) => {
  const check = checkNamed(model, checkId);
  const others = check.rows.find((row) => row.faults === 'others');
  return (
    others?.weights.map((weight) => weight / 100) ??
    model.likelihood[model.checkIndex.get(checkId)!]!.map((row) =>
      row.reduce((sum, value, fault) => sum + Math.exp(model.logPrior[fault]!) * value, 0),
    )
  );
};
const saidByBoth = (checkId: string, [a, b]: readonly [string, string]) =>
  bothSay(checkNamed(model, checkId), rowsOf(checkId, a), rowsOf(checkId, b), usual(checkId));

describe('a weak supply and a hot processor', () => {
  it('are one fault as long as one explains it', () => {
    expect(diagnose(model, told(weakAndHot), terms)).toMatchObject({ twoFaults: null });
  });
  it('are two once a known-good supply makes it better and does not cure it; the quicker cure goes first', () => {
    const found = diagnose(model, told({ ...weakAndHot, 'd-swap': 'better' }), terms);
    expect(found.twoFaults?.pairs[0]?.faultIds).toEqual(['psu-weak', 'cpu-hot']);
    expect(found.twoFaults?.firstId).toBe('cpu-hot');
    expect(found.suspects.slice(0, 2).map(({ faultId }) => faultId)).toEqual(['cpu-hot', 'psu-weak']);
    expect(found.step).toEqual({ do: 'cure', faultId: 'cpu-hot' });
  });
  it('are both found: after the first cure the search goes on with the second', () => {
    const story = told({ ...weakAndHot, 'd-swap': 'better', [repairCheckId('cool-cpu')]: 'same' });
    const { twoFaults, conclusion } = diagnose(model, story, terms);
    expect(twoFaults?.firstId).toBe('psu-weak');
    expect(conclusion).toMatchObject({ leaderId: 'psu-weak' });
  });
  it('are two as well where a supply was replaced in vain though its rails were out', () => {
    const story = told({ ...weakAndHot, [repairCheckId('replace-supply')]: 'same' });
    expect(diagnose(model, story, terms).twoFaults?.firstId).toBe('cpu-hot');
  });
  it('are one again when a swap alone cures it', () => {
    expect(twoFaultsIn(model, told({ ...weakAndHot, 'd-swap': 'cured' }))).toBeNull();
  });
});

describe('two symptoms told at different times', () => {
  it('both count, each a little less than alone', () => {
    const one = posterior(model, told({ 'told-button': 'cuts-load' }));
    const both = posterior(model, [
      { checkId: 'told-button', outcomeId: 'cuts-load' },
      { checkId: 'told-button', outcomeId: 'several-tries' },
    ]);
    const weak = model.faultIndex.get('psu-weak')!;
    const power = model.faultIndex.get('psu-power-good')!;
    expect(both[weak]!).toBeGreaterThan(one[weak]!);
    expect(both[power]!).toBeGreaterThan(one[power]!);
  });
});

describe('what two faults say together', () => {
  it.each(model.checks.filter(isFromFile).map(({ id }) => id))('of %s is a distribution for every pair', (checkId) => {
    for (const pair of pairs) {
      const both = saidByBoth(checkId, pair);
      expect(both.reduce((sum, value) => sum + value, 0)).toBeCloseTo(1, 9);
      expect(Math.min(...both)).toBeGreaterThan(0);
    }
  });
  it('is what the one says where the other has nothing to do with the check', () => {
    const check = checkNamed(model, 'm-cpu-temp');
    expect(check.rows.some((row) => row.faults === 'others')).toBe(true);
    const alone = rowsOf('m-cpu-temp', 'cpu-hot');
    saidByBoth('m-cpu-temp', ['cpu-hot', 'ctl-button']).forEach((value, outcome) =>
      expect(value).toBeCloseTo(alone[outcome]!, 9),
    );
  });
});

describe('against Bayes written out', () => {
  /** Checks of which no two stand in one evidence group, so that nothing is damped. */
  const apart = model.checks
    .filter(isFromFile)
    .filter(({ evidence }, index, all) => all.findIndex((other) => other.evidence === evidence) === index);
  const observed = fc
    .uniqueArray(fc.integer({ min: 0, max: apart.length - 1 }), { minLength: 2, maxLength: 14 })
    .chain((indexes) =>
      fc.tuple(
        ...indexes.map((index) =>
          fc
            .constantFrom(...apart[index]!.outcomes)
            .map(({ id }): Observation => ({ checkId: apart[index]!.id, outcomeId: id })),
        ),
      ),
    );
  const priorOf = (id: string) => Math.exp(model.logPrior[model.faultIndex.get(id)!]!);
  const outcomeOf = ({ checkId, outcomeId }: Observation) =>
    checkNamed(model, checkId).outcomes.findIndex(({ id }) => id === outcomeId);

  it('gives the probability that there are two, and the likeliest pair', () => {
    fc.assert(
      fc.property(observed, (observations) => {
        const single = model.faults.map(
          ({ id }) =>
            (1 - doubleShare) *
            priorOf(id) *
            observations.reduce((product, one) => product * rowsOf(one.checkId, id)[outcomeOf(one)]!, 1),
        );
        const priors = pairs.map(([a, b]) => priorOf(a) * priorOf(b));
        const allPriors = priors.reduce((sum, value) => sum + value, 0);
        const double = pairs.map(
          (pair, index) =>
            ((doubleShare * priors[index]!) / allPriors) *
            observations.reduce((product, one) => product * saidByBoth(one.checkId, pair)[outcomeOf(one)]!, 1),
        );
        const [ones, twos] = [single, double].map((list) => list.reduce((sum, value) => sum + value, 0));
        const probability = twos! / (ones! + twos!);
        const found = twoFaultsIn(model, observations);
        if (found === null) expect(probability).toBeLessThan(0.5 + 1e-9);
        else {
          expect(found.probability).toBeCloseTo(probability, 9);
          expect(found.pairs[0]!.probability).toBeCloseTo(Math.max(...double) / (ones! + twos!), 9);
        }
      }),
      { numRuns: 60, seed: 5 },
    );
  });
  it('the model that looks for the first of two says what was asked of it', () => {
    const observations = told({ ...weakAndHot, 'd-swap': 'better' });
    const two = twoFaultsIn(model, observations)!;
    const looking = posterior(lookingForFirst(model, observations, two), observations);
    expect(looking[model.faultIndex.get('cpu-hot')!]).toBeCloseTo(two.present[model.faultIndex.get('cpu-hot')!]!, 9);
    expect(looking.reduce((sum, value) => sum + value, 0)).toBeCloseTo(1, 9);
  });
});

describe('in simulated shops', () => {
  const checks = model.checks.filter(isFromFile);
  const some = (random: Random, share: number) => checks.filter(() => random() < share);
  /** Outcomes of a machine with two faults. */
  function drawDouble(random: Random, share: number): { pair: readonly string[]; observations: Observation[] } {
    const weights = pairs.map(([a, b]) => faultOf(a).prior * faultOf(b).prior);
    const all = weights.reduce((sum, value) => sum + value, 0);
    const pair =
      pairs[
        pick(
          random,
          weights.map((weight) => weight / all),
        )
      ]!;
    const observations = some(random, share).map((check) => ({
      checkId: check.id,
      outcomeId: check.outcomes[pick(random, saidByBoth(check.id, pair))]!.id,
    }));
    return { pair, observations };
  }
  it('one fault is hardly ever taken for two: in at most 2 of 100, however much was looked at', () => {
    const random = seeded(17);
    for (const share of [0.2, 0.6, 1]) {
      let taken = 0;
      for (let run = 0; run < 150; run += 1) {
        const { outcomes } = drawJob(model, random);
        const observations = some(random, share).map(({ id }) => ({ checkId: id, outcomeId: outcomes.get(id)! }));
        if (twoFaultsIn(model, observations) !== null) taken += 1;
      }
      expect(taken).toBeLessThanOrEqual(3);
    }
  });
  it('two are seen in most of those that were looked at all over, and named right in most of these', () => {
    const random = seeded(18);
    let [seen, right] = [0, 0];
    for (let run = 0; run < 150; run += 1) {
      const { pair, observations } = drawDouble(random, 1);
      const found = twoFaultsIn(model, observations);
      if (found === null) continue;
      seen += 1;
      if (found.pairs.some(({ faultIds }) => faultIds.every((id) => pair.includes(id)))) right += 1;
    }
    expect(seen).toBeGreaterThan(90);
    expect(right / seen).toBeGreaterThan(0.6);
  });
});
