import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  compileModel,
  learn,
  movedShares,
  othersWeightJobs,
  posterior,
  shareInterval,
  shippedPriorJobs,
  shippedWeightJobs,
  validateKnowledge,
  type OutcomeCount,
  type ShopRecord,
} from './index.ts';
import { knowledge, model as shipped } from './knowledge.test-help.ts';

const count = (
  checkId: string,
  outcomeId: string,
  faultId: string,
  times: number,
  instrumentId: string | null = null,
): OutcomeCount => ({ checkId, outcomeId, faultId, instrumentId, count: times });
const record = (outcomes: readonly OutcomeCount[], faults: ShopRecord['faults'] = []): ShopRecord => ({
  jobs: faults.reduce((sum, item) => sum + item.count, 0),
  leftOut: 0,
  faults,
  outcomes,
});
const likelihood = (model: typeof shipped, checkId: string, outcomeId: string, faultId: string) => {
  const check = model.checkIndex.get(checkId)!;
  return model.likelihood[check]![model.checks[check]!.outcomes.findIndex((outcome) => outcome.id === outcomeId)]![
    model.faultIndex.get(faultId)!
  ]!;
};

describe('likelihoods moved by the shop', () => {
  it('stay as shipped without a record', () => {
    expect(learn(knowledge, record([])).knowledge).toBe(knowledge);
  });
  it('follow the closed formula of the Dirichlet mean', () => {
    expect(movedShares([0.5, 0.3, 0.2], 10, [4, 0, 6])).toEqual([9 / 20, 3 / 20, 8 / 20]);
    const moved = compileModel(
      knowledge,
      record([count('m-tester', 'all-good', 'psu-weak', 3), count('m-tester', 'one-out', 'psu-weak', 5)]),
    );
    const before = likelihood(shipped, 'm-tester', 'all-good', 'psu-weak');
    expect(likelihood(moved, 'm-tester', 'all-good', 'psu-weak')).toBeCloseTo(
      (shippedWeightJobs * before + 3) / (shippedWeightJobs + 8),
      12,
    );
    expect(likelihood(moved, 'm-tester', 'all-good', 'psu-hot')).toBe(
      likelihood(shipped, 'm-tester', 'all-good', 'psu-hot'),
    );
  });
  it('come ever nearer to what the shop saw as it sees more', () => {
    const distance = (times: number) =>
      Math.abs(
        likelihood(
          compileModel(knowledge, record([count('look-dust', 'clean', 'cpu-hot', times)])),
          'look-dust',
          'clean',
          'cpu-hot',
        ) - 1,
      );
    expect(distance(10)).toBeGreaterThan(distance(100));
    expect(distance(5000)).toBeLessThan(0.01);
  });
  it('move how common a fault is', () => {
    const share = (model: typeof shipped) => posterior(model, [])[model.faultIndex.get('wire-drive')!]!;
    const before = share(shipped);
    expect(share(compileModel(knowledge, record([], [{ faultId: 'wire-drive', count: 40 }])))).toBeCloseTo(
      (shippedPriorJobs * before + 40) / (shippedPriorJobs + 40),
      12,
    );
  });
  it('give knowledge that is still valid, whatever was counted, also of checks and faults that are gone', () => {
    const anyCount = fc.record({
      check: fc.nat(knowledge.checks.length - 1),
      outcome: fc.nat(20),
      fault: fc.nat(knowledge.faults.length - 1),
      count: fc.integer({ min: 1, max: 400 }),
      instrument: fc.constantFrom(null, 'a', 'b'),
    });
    fc.assert(
      fc.property(fc.array(anyCount, { maxLength: 30 }), (items) => {
        const outcomes = items.map((item) => {
          const check = knowledge.checks[item.check]!;
          return count(
            check.id,
            check.outcomes[item.outcome % check.outcomes.length]!.id,
            knowledge.faults[item.fault]!.id,
            item.count,
            item.instrument,
          );
        });
        const learned = learn(
          knowledge,
          record(
            [
              ...outcomes,
              count('gone', 'x', 'psu-weak', 3),
              count('m-tester', 'gone', 'psu-weak', 3),
              count('m-tester', 'all-good', 'gone', 3),
            ],
            [{ faultId: 'gone', count: 2 }],
          ),
        ).knowledge;
        expect(validateKnowledge(learned).filter((problem) => problem.code !== 'inseparable')).toEqual([]);
      }),
      { numRuns: 60 },
    );
  });
});

describe('trust in an instrument', () => {
  const outcomes = [
    count('m-tester', 'all-good', 'psu-weak', 9, 'liar'),
    count('m-tester', 'one-out', 'psu-weak', 1, 'liar'),
    count('m-tester', 'all-good', 'psu-weak', 1, 'honest'),
    count('m-tester', 'one-out', 'psu-weak', 9, 'honest'),
  ];
  const model = compileModel(knowledge, record(outcomes));
  const weak = (instrumentId?: string) =>
    posterior(model, [
      { checkId: 'told-button', outcomeId: 'cuts-load' },
      { checkId: 'm-tester', outcomeId: 'all-good', instrumentId },
    ])[model.faultIndex.get('psu-weak')!]!;
  it('gives the same words another weight', () => {
    expect(weak('liar')).toBeGreaterThan(weak());
    expect(weak('honest')).toBeLessThan(weak());
    expect(weak('liar')).toBeGreaterThan(1.3 * weak('honest'));
  });
  it('starts from what the shop knows of the others', () => {
    const shippedShare = likelihood(shipped, 'm-tester', 'all-good', 'psu-weak');
    const others = (shippedWeightJobs * shippedShare + 1) / (shippedWeightJobs + 10);
    const row = model.byInstrument.get('m-tester|liar')!.likelihood[0]!;
    expect(row[model.faultIndex.get('psu-weak')!]).toBeCloseTo(
      (othersWeightJobs * others + 9) / (othersWeightJobs + 10),
      12,
    );
    expect(weak('never-used')).toBe(weak());
  });
});

describe('the interval of a share', () => {
  it('is the published value for 8 of 10 and none for nothing', () => {
    expect(shareInterval(8, 10)!.low).toBeCloseTo(0.4902, 3);
    expect(shareInterval(8, 10)!.high).toBeCloseTo(0.9433, 3);
    expect(shareInterval(0, 0)).toBeNull();
  });
  it('solves the equation it comes from: the score test just holds at both ends', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 500 }).chain((n) => fc.tuple(fc.integer({ min: 0, max: n }), fc.constant(n))),
        ([k, n]) => {
          const { share, low, high } = shareInterval(k, n)!;
          for (const bound of [low, high])
            if (bound > 1e-9 && bound < 1 - 1e-9)
              expect(Math.abs(share - bound) / Math.sqrt((bound * (1 - bound)) / n)).toBeCloseTo(1.959964, 4);
        },
      ),
    );
  });
});
