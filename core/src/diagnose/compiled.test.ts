import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { knowledge } from './knowledge.test-help.ts';
import { rowFor } from './knowledge.ts';
import { emptyRecord, type ShopRecord } from './learn.ts';
import {
  compileModel,
  normalise,
  posterior,
  restricted,
  weigh,
  type Model,
  type Observation,
  checkNamed,
} from './model.ts';

/** A bench whose old tester is known to err. */
const record: ShopRecord = {
  ...emptyRecord,
  jobs: 9,
  outcomes: [
    { checkId: 'm-tester', outcomeId: 'all-good', faultId: 'psu-weak', instrumentId: 'old', count: 3 },
    { checkId: 'm-tester', outcomeId: 'one-out', faultId: 'memory', instrumentId: 'new', count: 2 },
  ],
};
const gone = new Set(['card'] as const);
// Every model is compiled inside its test, so that whatever changes in compiling is seen there.
const total = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0);

/** What an outcome says, by its definition. */
function saysByHand(row: Float64Array, logPrior: Float64Array): number[] {
  const expected = total([...row].map((value, fault) => value * Math.exp(logPrior[fault]!)));
  return [...row].map((value) => Math.log(value / expected));
}

function expectSound({ likelihood, says, logPrior, faults, checks, faultIndex, checkIndex }: Model): void {
  faults.forEach(({ id }, index) => expect(faultIndex.get(id)).toBe(index));
  checks.forEach(({ id }, index) => expect(checkIndex.get(id)).toBe(index));
  expect(total([...logPrior].map(Math.exp))).toBeCloseTo(1, 12);
  checks.forEach((check, index) => {
    expect(likelihood[index]).toHaveLength(check.outcomes.length);
    check.outcomes.forEach((_, outcome) => {
      const row = likelihood[index]![outcome]!;
      expect(row).toHaveLength(faults.length);
      saysByHand(row, logPrior).forEach((value, fault) => expect(says[index]![outcome]![fault]).toBeCloseTo(value, 12));
    });
  });
}

describe('a compiled model', () => {
  it('has every weight of the file in its place, and what follows from it', () => {
    const model = compileModel(knowledge);
    expectSound(model);
    knowledge.checks.forEach((check, index) =>
      knowledge.faults.forEach((fault, column) =>
        check.outcomes.forEach((_, outcome) =>
          expect(model.likelihood[index]![outcome]![column]).toBe(rowFor(check, fault.id)!.weights[outcome]! / 100),
        ),
      ),
    );
    const all = total(knowledge.faults.map(({ prior }) => prior));
    knowledge.faults.forEach(({ prior }, index) =>
      expect(model.logPrior[index]).toBeCloseTo(Math.log(prior / all), 12),
    );
    expect([model.byInstrument.size, model.absent.size]).toEqual([0, 0]);
  });
  it('has rows of its own for an instrument with a record, of the fault that was seen and no other', () => {
    const model = compileModel(knowledge, record);
    expect([...model.byInstrument.keys()].sort()).toEqual(['m-tester|new', 'm-tester|old']);
    const old = model.byInstrument.get('m-tester|old')!;
    const shared = model.likelihood[model.checkIndex.get('m-tester')!]!;
    const [weak, memory] = ['psu-weak', 'memory'].map((id) => model.faultIndex.get(id)!);
    const good = checkNamed(model, 'm-tester').outcomes.findIndex(({ id }) => id === 'all-good');
    expect(old.likelihood[good]![weak!]).toBeGreaterThan(shared[good]![weak!]!);
    expect(old.likelihood[good]![memory!]).toBe(shared[good]![memory!]);
    old.likelihood.forEach((row, outcome) =>
      saysByHand(row, model.logPrior).forEach((value, fault) =>
        expect(old.says[outcome]![fault]).toBeCloseTo(value, 12),
      ),
    );
  });
  it('is none where a fault has no row in a check', () => {
    const holed = {
      ...knowledge,
      checks: knowledge.checks.map((check, index) =>
        index === 0 ? { ...check, rows: check.rows.filter(({ faults }) => faults !== 'others').slice(0, 1) } : check,
      ),
    };
    expect(() => compileModel(holed)).toThrow(/no weight for \S+ in told-button/);
  });
});

describe('a model without the faults of what is not there', () => {
  it('is by those that are left alone: priors, what outcomes say, cures and instruments', () => {
    const model = compileModel(knowledge, record);
    const here = restricted(model, gone);
    const kept = model.faults.flatMap((fault, index) => (fault.about === 'card' ? [] : [index]));
    expect(kept.length).toBeLessThan(model.faults.length);
    expect(here.faults).toEqual(kept.map((index) => model.faults[index]));
    expectSound(here);
    const left = total(kept.map((index) => Math.exp(model.logPrior[index]!)));
    kept.forEach((index, at) => {
      expect(Math.exp(here.logPrior[at]!)).toBeCloseTo(Math.exp(model.logPrior[index]!) / left, 12);
      model.likelihood.forEach((rows, check) =>
        rows.forEach((row, outcome) => expect(here.likelihood[check]![outcome]![at]).toBe(row[index])),
      );
    });
    expect(here.absent).toBe(gone);
    for (const [key, { likelihood, says }] of model.byInstrument) {
      const mine = here.byInstrument.get(key)!;
      expect(mine.likelihood.map((row) => [...row])).toEqual(likelihood.map((row) => kept.map((index) => row[index]!)));
      expect(mine.says.map((row) => row.length)).toEqual(says.map(() => kept.length));
    }
  });
  it('names no cure of a fault that is not there, and leaves outcomes that cure nothing as they are', () => {
    const model = compileModel(knowledge);
    const here = restricted(model, gone);
    const lost = new Set(model.faults.filter(({ about }) => about === 'card').map(({ id }) => id));
    let dropped = 0;
    model.checks.forEach((check, index) =>
      check.outcomes.forEach((outcome, at) => {
        const mine = here.checks[index]!.outcomes[at]!;
        if (outcome.cures === undefined) expect(mine).toBe(outcome);
        else {
          expect(mine).toEqual({ ...outcome, cures: outcome.cures.filter((id) => !lost.has(id)) });
          dropped += outcome.cures.length - mine.cures!.length;
        }
      }),
    );
    expect(dropped).toBeGreaterThan(0);
  });
  it('is the same model where nothing is missing', () => {
    const model = compileModel(knowledge);
    const here = restricted(model, new Set());
    expect(here.faults).toEqual(model.faults);
    expectSound(here);
  });
});

describe('weighing', () => {
  it('comes to the same whatever the order, also of two answers to one check', () => {
    const model = compileModel(knowledge, record);
    const answers = model.checks
      .slice(0, 12)
      .flatMap((check) => check.outcomes.map((outcome): Observation => ({ checkId: check.id, outcomeId: outcome.id })));
    fc.assert(
      fc.property(fc.uniqueArray(fc.constantFrom(...answers), { minLength: 2, maxLength: 8 }), (seen) => {
        const { weighted } = weigh(model, seen);
        expect(weigh(model, [...seen].reverse()).weighted).toEqual(weighted);
        expect(weighted).toHaveLength(seen.length);
      }),
    );
  });
  it('goes by the rows of the instrument that gave the outcome, where it has some', () => {
    const model = compileModel(knowledge, record);
    const said = { checkId: 'm-tester', outcomeId: 'all-good' };
    const rowsOf = (instrumentId: string | null) => weigh(model, [{ ...said, instrumentId }]).weighted[0]!.rows;
    expect(rowsOf('old')).toBe(model.byInstrument.get('m-tester|old')!.likelihood);
    expect(rowsOf('unheard-of')).toBe(model.likelihood[model.checkIndex.get('m-tester')!]);
    expect(rowsOf(null)).toBe(model.likelihood[model.checkIndex.get('m-tester')!]);
    expect([...posterior(model, [{ ...said, instrumentId: 'old' }])]).not.toEqual([...posterior(model, [said])]);
  });
  it('counts no outcome of a check that is gone, whatever it is called', () => {
    const model = compileModel(knowledge);
    const named = model.checks.flatMap(({ outcomes }) => outcomes.map(({ id }) => id));
    const odd = [...new Set(named)].map((outcomeId): Observation => ({ checkId: 'gone', outcomeId }));
    expect(weigh(model, odd)).toEqual({ weighted: [], notCounted: odd });
  });
});

describe('normalising', () => {
  it('neither overflows nor loses what is far below', () => {
    expect([...normalise(Float64Array.of(1000, -1000))]).toEqual([1, 0]);
    expect([...normalise(Float64Array.of(-1000, 1000))]).toEqual([0, 1]);
    const [less, more] = normalise(Float64Array.of(-2000, -2000 + Math.log(3)));
    expect([less, more]).toEqual([expect.closeTo(0.25, 9), expect.closeTo(0.75, 9)]);
  });
});
