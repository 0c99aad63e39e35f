import { checkNamed } from './model.ts';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  allPowering,
  barring,
  conclude,
  cureAllowed,
  diagnose,
  interlocksOf,
  nextStep,
  posterior,
  provingFirst,
  rankChecks,
  rankFaults,
  safetyCheckId,
  validateKnowledge,
  type Knowledge,
  type Observation,
} from './index.ts';
import { knowledge, model, told } from './knowledge.test-help.ts';
import { casesOf } from '../size.test-help.ts';

const bench = {
  has: ['meter', 'tester', 'spare-supply', 'second-spare', 'spare-memory', 'spare-card', 'spare-board'] as const,
  mayMeterMains: true,
};
function advise(observations: readonly Observation[], has: readonly (typeof bench.has)[number][] = bench.has) {
  const interlocks = interlocksOf(model, observations);
  const probabilities = posterior(model, observations);
  const conclusion = conclude(model, observations, rankFaults(model, probabilities), 0.9);
  const ranked = provingFirst(model, rankChecks(model, observations, { ...bench, has }, interlocks), conclusion);
  return { interlocks, ranked, step: nextStep({ model, observations, probabilities, interlocks }, ranked, conclusion) };
}
const checkOf = (id: string) => checkNamed(model, id);
const dangerous = knowledge.checks.flatMap((check) =>
  check.outcomes.flatMap((outcome) =>
    outcome.danger === undefined ? [] : [{ checkId: check.id, outcomeId: outcome.id, dangerId: outcome.danger }],
  ),
);

describe('what was found dangerous', () => {
  it.each(dangerous)('$checkId $outcomeId stops everything that is powered', ({ checkId, outcomeId, dangerId }) => {
    const { interlocks, ranked, step } = advise(told({ 'told-button': 'cuts-load', [checkId]: outcomeId }));
    expect(interlocks.map((interlock) => interlock.danger.id)).toEqual([dangerId]);
    expect(step).toEqual({ do: 'make-safe', dangerId });
    expect(ranked.length).toBeGreaterThan(0);
    for (const { checkId: offered } of ranked) expect(checkOf(offered).powers, offered).toBeUndefined();
  });

  it('goes on by itself once a way without consequence was noted', () => {
    const seen = told({ 'told-button': 'nothing', 'look-switch': 'selector' });
    expect(advise([...seen, { checkId: safetyCheckId('selector'), outcomeId: 'set' }]).interlocks).toEqual([]);
    expect(advise([...seen, { checkId: safetyCheckId('selector'), outcomeId: 'unknown' }]).step.do).toBe('make-safe');
  });

  it('is told again when it is seen again later', () => {
    const at = (minute: number) => `2026-11-26T08:${String(minute).padStart(2, '0')}:00.000Z`;
    const seen: Observation[] = [
      { checkId: 'look-harness', outcomeId: 'foreign', at: at(1) },
      { checkId: safetyCheckId('foreign-cable'), outcomeId: 'taken-away', at: at(2) },
    ];
    expect(interlocksOf(model, seen)).toEqual([]);
    const cause = { kind: 'plug', inlet: 'card' } as const;
    expect(interlocksOf(model, seen, [{ dangerId: 'foreign-cable', cause, at: at(1) }])).toEqual([]);
    const again = interlocksOf(model, seen, [{ dangerId: 'foreign-cable', cause, at: at(3) }]);
    expect(again.map((interlock) => interlock.madeSafe)).toEqual([null]);
  });

  it('leads straight to a known-good supply when the old one gave too much', () => {
    const seen: Observation[] = [
      { checkId: 'told-button', outcomeId: 'cuts-random' },
      { checkId: safetyCheckId('rail-high'), outcomeId: 'supply-out', at: '2026-11-26T09:00:00.000Z' },
    ];
    const high = {
      dangerId: 'rail-high',
      cause: { kind: 'rail', rail: '+12', volts: 13.4, limit: 12.6 },
      at: '2026-11-26T08:00:00.000Z',
    } as const;
    const interlocks = interlocksOf(model, seen, [high]);
    expect(interlocks[0]?.bars).toEqual(['machine', 'supply']);
    const probabilities = posterior(model, seen);
    const conclusion = conclude(model, seen, rankFaults(model, probabilities), 0.9);
    const with_ = (has: (typeof bench.has)[number][]) =>
      nextStep(
        { model, observations: seen, probabilities, interlocks },
        rankChecks(model, seen, { ...bench, has }, interlocks),
        conclusion,
      );
    expect(with_(['meter', 'spare-supply'])).toEqual({ do: 'check', checkId: 'd-swap' });
    const without = with_(['meter']);
    expect(without.do).toBe('cure');
    if (without.do !== 'cure') return;
    const { cure } = knowledge.faults.find((fault) => fault.id === without.faultId)!;
    expect(['replace-supply', 'larger-supply']).toContain(cure.id);
  });

  it('leaves only the board to replace when the board is burnt', () => {
    const seen = told({
      'told-button': 'nothing',
      'look-board': 'damaged',
      [safetyCheckId('burnt-board')]: 'board-out',
    });
    const { interlocks, step } = advise(seen);
    expect(cureAllowed(interlocks, 'board')).toBe(true);
    expect(cureAllowed(interlocks, 'replace-supply')).toBe(false);
    expect(step).toMatchObject({ do: 'cure', faultId: 'board' });
  });

  it('says nothing about the fault when it is made safe', () => {
    const seen = told({ 'told-button': 'nothing', 'told-smell': 'burnt' });
    const after = [...seen, { checkId: safetyCheckId('burnt'), outcomeId: 'supply-out' }];
    const before = posterior(model, seen);
    posterior(model, after).forEach((value, fault) => expect(value).toBeCloseTo(before[fault]!, 12));
  });

  it('is never led past, whatever else was answered', () => {
    const answer = fc.constantFrom(...knowledge.checks).chain((check) =>
      fc.record({
        checkId: fc.constant(check.id),
        outcomeId: fc.constantFrom(...check.outcomes.map((outcome) => outcome.id), 'unknown'),
      }),
    );
    const notes = fc.constantFrom(...knowledge.dangers.filter((danger) => danger.ways.length > 0)).chain((danger) =>
      fc.record({
        checkId: fc.constant(safetyCheckId(danger.id)),
        outcomeId: fc.constantFrom(...danger.ways.map((way) => way.id)),
      }),
    );
    fc.assert(
      fc.property(
        fc.uniqueArray(answer, { selector: (item) => item.checkId, maxLength: 7 }),
        fc.array(notes, { maxLength: 3 }),
        (answers, made) => {
          const { interlocks, ranked, step } = advise([...answers, ...made]);
          for (const { checkId } of ranked) {
            const { powers } = checkOf(checkId);
            if (powers !== undefined) expect(barring(interlocks, powers)).toBeNull();
          }
          if (interlocks.some((interlock) => interlock.madeSafe === null)) expect(step.do).toBe('make-safe');
          else expect(step.do).not.toBe('make-safe');
          if (step.do === 'cure') {
            const { cure } = knowledge.faults.find((fault) => fault.id === step.faultId)!;
            expect(cureAllowed(interlocks, cure.id)).toBe(true);
          }
          for (const { bars } of interlocks) for (const item of bars) expect(allPowering).toContain(item);
        },
      ),
      { numRuns: casesOf(60, 150) },
    );
  });

  it.each([
    ['metal', 'look-dust', 'clean'],
    ['damp', 'look-wet', 'dry'],
  ] as const)('and is only likely, by %s where the machine stands, is looked for before anything else', (...story) => {
    const [place, look, nothing] = story;
    const answer = fc
      .constantFrom(...knowledge.checks.filter(({ id }) => id !== 'told-place' && id !== look))
      .chain((check) =>
        fc.record({
          checkId: fc.constant(check.id),
          outcomeId: fc.constantFrom(
            ...check.outcomes.filter(({ danger }) => danger === undefined).map(({ id }) => id),
          ),
        }),
      );
    fc.assert(
      fc.property(fc.uniqueArray(answer, { selector: (item) => item.checkId, maxLength: 6 }), (answers) => {
        const where = told({ 'told-place': place });
        const { nextChecks, step } = diagnose(model, [...answers, ...where], { bench, stopProbability: 0.9 });
        expect(step).toEqual({ do: 'check', checkId: look });
        expect(nextChecks[0]!.checkId).toBe(look);
        const looked = advise([...answers, ...where, ...told({ [look]: nothing })]);
        expect(looked.ranked.map(({ checkId }) => checkId)).not.toContain(look);
        expect(looked.step).not.toEqual(step);
      }),
      { numRuns: casesOf(20, 60) },
    );
  });

  it('is looked for by a look that can find it, and that powers nothing', () => {
    const pointingAt = (lookFirst: string): Knowledge => ({
      ...knowledge,
      checks: knowledge.checks.map((check) =>
        check.id === 'told-place'
          ? { ...check, outcomes: check.outcomes.map((outcome) => ({ ...outcome, lookFirst })) }
          : check,
      ),
    });
    expect(validateKnowledge(pointingAt('look-dust'))).toEqual([]);
    for (const wrong of ['look-fans', 'm-offload', 'look-nowhere'])
      expect(new Set(validateKnowledge(pointingAt(wrong)).map(({ code, detail }) => `${code} ${detail}`))).toEqual(
        new Set([`unknown-look ${wrong}`]),
      );
  });

  it('is named by the file only where it is defined', () => {
    const broken: Knowledge = {
      ...knowledge,
      dangers: knowledge.dangers.map((danger) =>
        danger.id === 'burnt' ? { ...danger, id: 'other', ways: [{ id: 'x', label: 'X', leaves: ['magic'] }] } : danger,
      ),
    };
    expect(validateKnowledge(broken).map((problem) => [problem.code, problem.detail])).toEqual([
      ['unknown-danger', 'burnt'],
      ['unknown-leaving', 'magic'],
    ]);
    const twice = { ...knowledge, dangers: [...knowledge.dangers, knowledge.dangers[0]!] };
    expect(validateKnowledge(twice).map((problem) => problem.code)).toContain('duplicate-id');
  });
});
