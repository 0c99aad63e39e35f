import { checkNamed } from './model.ts';
import { describe, expect, it } from 'vitest';
import { drawJob, ourOrder, seeded } from '../simulate/index.ts';
import { rankChecks, repairCheckId, triedCures, validateKnowledge, type Observation } from './index.ts';
import { knowledge, model, told } from './knowledge.test-help.ts';
import { casesOf } from '../size.test-help.ts';

const bench = {
  has: ['meter', 'tester', 'spare-supply', 'spare-memory', 'spare-card'] as const,
  mayMeterMains: true,
};

describe('what was done already', () => {
  it('counts as tried, be it as a repair or in the course of a check', () => {
    expect([
      ...triedCures(model, told({ 'do-lead': 'same', 'do-main': 'home', [repairCheckId('coin')]: 'same' })),
    ]).toEqual(['lead', 'seat-main', 'coin']);
    expect([...triedCures(model, told({ 'do-lead': 'unknown', 'do-coin': 'good', 'do-memory': 'same' }))]).toEqual([]);
  });

  it('is not offered again as a check once it was done as a repair', () => {
    const offered = (observations: readonly Observation[]) =>
      rankChecks(model, observations, bench).map(({ checkId }) => checkId);
    const before = told({ 'told-button': 'nothing', 'look-standby-light': 'dark' });
    expect(offered(before)).toContain('do-lead');
    expect(offered([...before, ...told({ [repairCheckId('lead')]: 'same' })])).not.toContain('do-lead');
  });

  it('is never asked for again over whole searches, whatever the checks show', () => {
    const random = seeded(77);
    const order = ourOrder(model, bench, 0.9);
    for (let job = 0; job < casesOf(8, 40); job += 1) {
      const drawn = drawJob(model, random);
      const seen: Observation[] = told({ 'told-button': drawn.outcomes.get('told-button')! });
      for (let step = 0; step < 45; step += 1) {
        const move = order(seen, drawn);
        if (move.do === 'give-up') break;
        const tried = triedCures(model, seen);
        if (move.do === 'cure') {
          expect(tried.has(move.cureId)).toBe(false);
          seen.push({ checkId: repairCheckId(move.cureId), outcomeId: 'same' });
          continue;
        }
        expect(seen.some(({ checkId }) => checkId === move.checkId)).toBe(false);
        const check = checkNamed(model, move.checkId);
        // No check cures anything, so that the search goes on to its end.
        const shown = check.outcomes.find((outcome) => outcome.id === drawn.outcomes.get(check.id));
        const outcome =
          shown !== undefined && shown.cures === undefined
            ? shown
            : check.outcomes.find(({ cures }) => cures === undefined)!;
        for (const { tries = [] } of check.outcomes)
          for (const cure of tries) expect(seen.some(({ checkId }) => checkId === repairCheckId(cure))).toBe(false);
        seen.push({ checkId: check.id, outcomeId: outcome.id });
      }
    }
  });

  it('is a cure that is there, of an outcome that cures nothing', () => {
    const broken = {
      ...knowledge,
      checks: knowledge.checks.map((check) =>
        check.id === 'do-lead'
          ? {
              ...check,
              outcomes: check.outcomes.map((outcome) => ({
                ...outcome,
                tries: outcome.id === 'same' ? ['no-such-cure'] : ['lead'],
              })),
            }
          : check,
      ),
    };
    expect(validateKnowledge(broken)).toEqual([
      { code: 'unknown-try', path: 'checks.do-lead.outcomes.same', detail: 'no-such-cure' },
      { code: 'unknown-try', path: 'checks.do-lead.outcomes.cured', detail: 'lead' },
    ]);
  });
});
