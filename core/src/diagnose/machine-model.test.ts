import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { machinePart } from '../machine/machine-part.test-help.ts';
import { absentIn, compileModel, modelOf, posterior, rankChecks, type Observation } from './index.ts';
import { knowledge } from './knowledge.test-help.ts';

const model = compileModel(knowledge);
const bench = { has: ['meter', 'tester', 'spare-supply', 'spare-card', 'spare-memory'], mayMeterMains: false } as const;
const parts = (...classIds: readonly string[]) => classIds.map((classId, index) => machinePart(classId, `p${index}`));
const bare = parts('board', 'processor-65', 'memory-new', 'drive-flat');

describe('what a machine has not', () => {
  it.each([
    ['nothing, before board and processor are entered', parts('board'), []],
    ['cards and their plugs, where none is entered', bare, ['card', 'card-plug', 'card-16']],
    ['plugs, where the card lives on its slot', [...bare, ...parts('card-slot')], ['card-plug', 'card-16']],
    ['a 16-pin plug, where the card has others', [...bare, ...parts('card-88')], ['card-16']],
    ['nothing, where the card has one', [...bare, ...parts('card-16')], []],
    ['nothing of plugs, where the board has a card inlet', [...bare, ...parts('board-8-card')], ['card', 'card-16']],
  ])('%s', (_what, machine, absent) => {
    expect([...absentIn(machine)]).toEqual(absent);
  });
});

describe('the search in a machine without a card', () => {
  const here = modelOf(model, bare);
  const aboutCards = ['wire-card', 'wire-shared', 'wire-16pin', 'slot-card', 'card'];

  it('knows no fault of a card, and offers no check of one, whatever was seen', () => {
    expect(here.faults.map(({ id }) => id).filter((id) => aboutCards.includes(id))).toEqual([]);
    const answers = model.checks.flatMap((check) =>
      check.outcomes.map((outcome): Observation => ({ checkId: check.id, outcomeId: outcome.id })),
    );
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.constantFrom(...answers), { maxLength: 6, selector: (one) => one.checkId }),
        (seen) => {
          const offered = rankChecks(here, seen, bench).map(({ checkId }) => checkId);
          expect(offered.filter((id) => /card|16pin/.test(id))).toEqual([]);
        },
      ),
      { seed: 8, numRuns: 40 },
    );
  });
  it('holds the chances of the other faults as they are to one another, before anything was seen', () => {
    const whole = posterior(model, []);
    const without = posterior(here, []);
    const gone = aboutCards.reduce((sum, id) => sum + whole[model.faultIndex.get(id)!]!, 0);
    for (const [index, { id }] of here.faults.entries())
      expect(without[index]).toBeCloseTo(whole[model.faultIndex.get(id)!]! / (1 - gone), 12);
  });
  it('still counts an answer about a card that was given', () => {
    const seen = [
      { checkId: 'look-card', outcomeId: knowledge.checks.find(({ id }) => id === 'look-card')!.outcomes[0]!.id },
    ];
    expect([...posterior(here, seen)]).not.toEqual([...posterior(here, [])]);
  });
  it('is the same model for the same absence, and the whole one where nothing is absent', () => {
    expect(modelOf(model, [...bare])).toBe(here);
    expect(modelOf(model, [])).toBe(model);
  });
});
