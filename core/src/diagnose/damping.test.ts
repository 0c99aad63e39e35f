import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { anyFrom } from '../even.test-help.ts';
import { knowledge } from './knowledge.test-help.ts';
import { compileModel, dampingOf, groupDamping, posterior, saidTogether } from './index.ts';

const model = compileModel(knowledge);
const together = (values: readonly number[]) => saidTogether(values.map((value) => Float64Array.of(value)))[0]!;
const anyValue = anyFrom(-12, 12);
const anyGroup = fc.array(anyValue, { minLength: 1, maxLength: 6 });

describe('damping inside an evidence group', () => {
  it('counts each way apart, the strongest first', () => {
    expect(dampingOf([1, -4, 3, -1, 2])).toEqual([groupDamping ** 2, 1, 1, groupDamping, groupDamping]);
  });
  it('counts the earlier of two alike in full, and nothing at all as speaking for it', () => {
    expect(dampingOf([2, 2, -3, -3])).toEqual([1, groupDamping, 1, groupDamping]);
    expect(dampingOf([0, -3])).toEqual([1, 1]);
    expect(dampingOf([-3, 0])).toEqual([1, 1]);
    expect(dampingOf([0, 3, 0])).toEqual([groupDamping, 1, groupDamping ** 2]);
  });
  it('adds by the closed formula: sorted, halved, summed', () => {
    fc.assert(
      fc.property(anyGroup, (values) => {
        const halved = (side: readonly number[]) =>
          [...side]
            .sort((a, b) => Math.abs(b) - Math.abs(a))
            .reduce((sum, value, index) => sum + value / 2 ** index, 0);
        const expected = halved(values.filter((value) => value >= 0)) + halved(values.filter((value) => value < 0));
        expect(together(values)).toBeCloseTo(expected, 9);
      }),
    );
  });
  it('moves a score the way the new outcome speaks, and never further than undamped', () => {
    fc.assert(
      fc.property(anyGroup, anyValue, (values, added) => {
        const moved = together([...values, added]) - together(values);
        expect(Math.sign(added) * moved).toBeGreaterThanOrEqual(-1e-9);
        expect(Math.abs(moved)).toBeLessThanOrEqual(Math.abs(added) + 1e-9);
      }),
    );
  });
  it('does not depend on the order in which the outcomes came', () => {
    fc.assert(
      fc.property(anyGroup, (values) => {
        expect(together([...values].reverse())).toBeCloseTo(together(values), 9);
      }),
    );
  });
});

describe('outcomes of the shipped knowledge', () => {
  it('move every fault the way they speak, whatever else of their group was seen', () => {
    const anyOutcome = fc
      .constantFrom(...model.knowledge.checks)
      .chain((check) => fc.constantFrom(...check.outcomes).map((outcome) => ({ check, outcome })));
    fc.assert(
      fc.property(anyOutcome, fc.array(anyOutcome, { maxLength: 6 }), (added, others) => {
        const index = model.checkIndex.get(added.check.id)!;
        const says = model.says[index]![added.check.outcomes.indexOf(added.outcome)]!;
        const before = others
          .filter(({ check }) => check.evidence === added.check.evidence && check.id !== added.check.id)
          .map(({ check, outcome }) => model.says[model.checkIndex.get(check.id)!]![check.outcomes.indexOf(outcome)]!);
        if (before.length === 0) return;
        const now = saidTogether(before);
        saidTogether([...before, says]).forEach((value, fault) => {
          expect((value - now[fault]!) * Math.sign(says[fault]!)).toBeGreaterThanOrEqual(-1e-9);
          expect(Math.abs(value - now[fault]!)).toBeLessThanOrEqual(Math.abs(says[fault]!) + 1e-9);
        });
      }),
    );
  });
  it('that are weak do not undo a decisive one', () => {
    const out = [
      { checkId: 'told-button', outcomeId: 'no-picture' },
      { checkId: 'm-rails-off', outcomeId: 'out' },
      { checkId: 'm-rails-work', outcomeId: 'out' },
    ];
    const of = (seen: typeof out, fault: string) => posterior(model, seen)[model.faultIndex.get(fault)!]!;
    expect(of(out, 'psu-rail-out')).toBeGreaterThan(0.85);
    expect(of([...out, { checkId: 'm-tester', outcomeId: 'all-good' }], 'psu-rail-out')).toBeGreaterThan(0.65);
    const sags = [
      { checkId: 'told-button', outcomeId: 'cuts-load' },
      { checkId: 'm-steady', outcomeId: 'sags' },
    ];
    expect(of([...sags, { checkId: 'm-rails-off', outcomeId: 'in' }], 'psu-weak')).toBeGreaterThan(
      0.9 * of(sags, 'psu-weak'),
    );
  });
});
