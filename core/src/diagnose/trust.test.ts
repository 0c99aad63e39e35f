import { faultNamed } from './model.ts';
import { describe, expect, it } from 'vitest';
import { part } from '../simulate/index.ts';
import {
  compileModel,
  conclude,
  firstCure,
  movedMost,
  nextStep,
  posterior,
  provingFirst,
  rankChecks,
  rankFaults,
  trustIn,
  worthOf,
  type Observation,
  type ShopRecord,
} from './index.ts';
import { knowledge, model, told } from './knowledge.test-help.ts';

const bench = { has: ['meter', 'tester', 'spare-supply'] as const, mayMeterMains: false };
const stepAfter = (story: Record<string, string>, stop = 0.9) => {
  const observations = told(story);
  const probabilities = posterior(model, observations);
  const conclusion = conclude(model, observations, rankFaults(model, probabilities), stop);
  return nextStep(
    { model, observations, probabilities },
    provingFirst(model, rankChecks(model, observations, bench), conclusion),
    conclusion,
  );
};

describe('the record of what judges supplies', () => {
  const record: ShopRecord = {
    jobs: 9,
    leftOut: 0,
    faults: [],
    outcomes: [
      { checkId: 'm-tester', outcomeId: 'all-good', faultId: 'psu-weak', instrumentId: 'old', count: 3 },
      { checkId: 'm-tester', outcomeId: 'one-out', faultId: 'psu-rail-out', instrumentId: 'old', count: 1 },
      { checkId: 'm-tester', outcomeId: 'one-out', faultId: 'memory', instrumentId: 'new', count: 1 },
      { checkId: 'm-tester', outcomeId: 'all-good', faultId: 'board', instrumentId: 'new', count: 4 },
      { checkId: 'm-tester', outcomeId: 'nothing', faultId: 'mains-lead', instrumentId: 'new', count: 2 },
      { checkId: 'look-dust', outcomeId: 'clean', faultId: 'memory', instrumentId: null, count: 5 },
      { checkId: 'gone', outcomeId: 'x', faultId: 'memory', instrumentId: null, count: 5 },
    ],
  };
  it('counts supplies passed though bad and failed though good, for the check and for each instrument', () => {
    const rows = trustIn(knowledge, record);
    expect(rows.find((row) => row.checkId === 'm-tester' && row.instrumentId === null)).toEqual({
      checkId: 'm-tester',
      instrumentId: null,
      passedBad: { count: 3, of: 4 },
      failedGood: { count: 1, of: 5 },
    });
    expect(rows.find((row) => row.instrumentId === 'old')).toMatchObject({
      passedBad: { count: 3, of: 4 },
      failedGood: { count: 0, of: 0 },
    });
    expect(rows.find((row) => row.instrumentId === 'new')).toMatchObject({
      passedBad: { count: 0, of: 0 },
      failedGood: { count: 1, of: 5 },
    });
    expect(rows.some((row) => row.checkId === 'look-dust' || row.checkId === 'gone')).toBe(false);
  });
  it('shows the figures that moved most, with what they were', () => {
    const learned = compileModel(knowledge, record).knowledge;
    const moved = movedMost(knowledge, learned, record, 3);
    expect(moved).toHaveLength(3);
    for (const item of moved) expect(item.now).not.toBe(item.shipped);
    const weak = movedMost(knowledge, learned, record, 100).find(
      (item) => item.faultId === 'psu-weak' && item.checkId === 'm-tester',
    )!;
    expect(weak).toMatchObject({ seen: { count: 3, of: 3 }, shipped: 0.68 });
    expect(weak.now).toBeCloseTo((20 * 0.68 + 3) / 23, 9);
  });
});

describe('what to do next', () => {
  it('a cheap cure of a likely fault goes before checks that cost more', () => {
    const small = compileModel(part(model, ['picture', 'board'], ['d-swap', 'do-bare']));
    const observations: Observation[] = [{ checkId: 'd-swap', outcomeId: 'unknown' }];
    const probabilities = posterior(small, observations);
    const conclusion = conclude(small, observations, rankFaults(small, probabilities), 0.9);
    expect(
      nextStep({ model: small, observations, probabilities }, rankChecks(small, observations, bench), conclusion),
    ).toEqual({ do: 'cure', faultId: 'picture' });
  });
  it('a part is not bought on a guess while a check is left that may tell', () => {
    for (const story of [
      { 'told-button': 'twitch' },
      { 'told-button': 'no-picture' },
      { 'told-button': 'cuts-load', 'told-course': 'slowly' },
    ]) {
      const step = stepAfter(story);
      expect(step.do === 'cure' && faultNamed(model, step.faultId).cure.part === true).toBe(false);
    }
  });
  it('a cure that was tried is not offered again', () => {
    const observations = told({ 'told-button': 'nothing', 'repair.lead': 'same' });
    const tried = new Set(['lead']);
    expect(firstCure(model, posterior(model, observations), tried, () => true)).not.toBe('mains-lead');
    expect(firstCure(model, posterior(model, observations), tried, (faultId) => faultId === 'mains-switch')).toBe(
      'mains-switch',
    );
    expect(
      firstCure(model, posterior(model, observations), new Set(model.faults.map((fault) => fault.cure.id)), () => true),
    ).toBeNull();
  });
  it('a proved finding is offered, and not this job is said as soon as it is likely enough', () => {
    expect(stepAfter({ 'told-button': 'nothing', 'look-standby-light': 'dark', 'do-lead': 'cured' })).toEqual({
      do: 'finding',
      faultId: 'mains-lead',
    });
    expect(
      stepAfter({
        'told-button': 'restarts',
        'look-drive': 'listed',
        'look-diag': 'boot',
        'm-rails-off': 'in',
        'd-swap': 'same',
        'do-memory': 'same',
        'm-steady': 'steady',
      }),
    ).toMatchObject({ faultId: 'os-drive' });
  });
  it('mains is metered only where it is allowed; swapping lead and outlet is open to all', () => {
    const offered = (mayMeterMains: boolean) =>
      rankChecks(model, told({ 'told-button': 'nothing' }), { has: ['meter'], mayMeterMains }).map(
        (check) => check.checkId,
      );
    expect(offered(false)).not.toContain('m-mains');
    expect(offered(true)).toContain('m-mains');
    for (const check of ['do-lead', 'do-outlet', 'look-outlet']) expect(offered(false)).toContain(check);
  });
  it('among near equals the safer goes first, in every state of a long list', () => {
    const hazard = { none: 0, low: 1, mains: 2 } as const;
    for (const story of [
      {},
      { 'told-button': 'nothing' },
      { 'told-button': 'cuts-random', 'told-course': 'slowly' },
      { 'told-button': 'no-picture', 'look-fans': 'all' },
    ]) {
      const list = rankChecks(model, told(story), { has: ['meter', 'tester', 'spare-supply'], mayMeterMains: true });
      for (let index = 1; index < list.length; index += 1) {
        const [before, after] = [list[index - 1]!, list[index]!];
        if (worthOf(after) > worthOf(before))
          expect(
            hazard[before.hazard] < hazard[after.hazard] ||
              (before.hazard === after.hazard && before.minutes <= after.minutes),
            `${before.checkId} ${after.checkId}`,
          ).toBe(true);
      }
    }
  });
});
