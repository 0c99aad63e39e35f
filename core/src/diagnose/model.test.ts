import { checkNamed } from './model.ts';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  compileModel,
  conclude,
  expectedRepairMinutes,
  groupDamping,
  nextStep,
  posterior,
  proveMinutes,
  rankChecks,
  rankFaults,
  suspects,
  validateKnowledge,
  weigh,
  wrongPartMinutes,
  type Knowledge,
  type NextCheck,
  type Observation,
} from './index.ts';
import { knowledge, model, told } from './knowledge.test-help.ts';

const anyObservations = fc.uniqueArray(fc.nat(model.checks.length - 1), { maxLength: 12 }).chain((checks) =>
  fc.tuple(
    ...checks.map((index) =>
      fc.nat(model.checks[index]!.outcomes.length - 1).map((outcome): Observation => ({
        checkId: model.checks[index]!.id,
        outcomeId: model.checks[index]!.outcomes[outcome]!.id,
      })),
    ),
  ),
);

const allPriors = knowledge.faults.reduce((sum, fault) => sum + fault.prior, 0);

describe('posterior', () => {
  it('is the prior when nothing was observed', () => {
    const total = knowledge.faults.reduce((sum, fault) => sum + fault.prior, 0);
    posterior(model, []).forEach((value, index) =>
      expect(value).toBeCloseTo(knowledge.faults[index]!.prior / total, 12),
    );
  });
  it('is Bayes by hand for one observation', () => {
    const check = model.checks[0]!;
    const weights = knowledge.faults.map((fault, index) => fault.prior * model.likelihood[0]![0]![index]!);
    const total = weights.reduce((a, b) => a + b, 0);
    posterior(model, [{ checkId: check.id, outcomeId: check.outcomes[0]!.id }]).forEach((value, index) =>
      expect(value).toBeCloseTo(weights[index]! / total, 12),
    );
  });
  it('agrees with plain products outside log space, damping included, whatever the order', () => {
    fc.assert(
      fc.property(anyObservations, (observations) => {
        const { weighted } = weigh(model, observations);
        const expectedOf = ({ check, outcome }: { check: number; outcome: number }) =>
          model.likelihood[check]![outcome]!.reduce(
            (sum, value, fault) => sum + (value * knowledge.faults[fault]!.prior) / allPriors,
            0,
          );
        const raw = knowledge.faults.map((fault, index) =>
          weighted.reduce(
            (product, item) =>
              product *
              (model.likelihood[item.check]![item.outcome]![index]! / expectedOf(item)) ** item.damping[index]!,
            fault.prior,
          ),
        );
        const total = raw.reduce((a, b) => a + b, 0);
        const there = posterior(model, observations);
        const back = posterior(model, [...observations].reverse());
        there.forEach((value, index) => {
          expect(value).toBeCloseTo(raw[index]! / total, 9);
          expect(back[index]).toBeCloseTo(value, 12);
        });
      }),
    );
  });
  it('gives no weight to what cannot be told, nor to a check it does not know', () => {
    const base = posterior(model, [{ checkId: 'told-button', outcomeId: 'nothing' }]);
    const more = posterior(model, [
      { checkId: 'told-button', outcomeId: 'nothing' },
      { checkId: 'look-dust', outcomeId: 'unknown' },
      { checkId: 'gone', outcomeId: 'x' },
    ]);
    expect([...more]).toEqual([...base]);
    expect(weigh(model, [{ checkId: 'gone', outcomeId: 'x' }]).notCounted).toHaveLength(1);
  });
  it('damps the second outcome of a group and leaves the first whole', () => {
    const { weighted } = weigh(model, [
      { checkId: 'told-button', outcomeId: 'nothing' },
      { checkId: 'look-fans', outcomeId: 'none' },
    ]);
    // Both speak for dead mains; a card that is not home speaks against both.
    for (const fault of ['mains-lead', 'slot-card'])
      expect(weighted.map((item) => item.damping[model.faultIndex.get(fault)!]).sort()).toEqual([groupDamping, 1]);
  });
});

describe('expected repair time', () => {
  it('is the closed formula for two cures', () => {
    const weights = new Float64Array(model.faults.length);
    weights[model.faultIndex.get('mains-lead')!] = 0.25;
    weights[model.faultIndex.get('board')!] = 0.75;
    const expected = 2 + proveMinutes + 0.75 * (90 + proveMinutes);
    expect(expectedRepairMinutes(model, weights)).toBeCloseTo(expected, 9);
  });
  it('charges a part bought in vain', () => {
    const weights = new Float64Array(model.faults.length);
    weights[model.faultIndex.get('memory')!] = 0.9;
    weights[model.faultIndex.get('cpu')!] = 0.1;
    expect(expectedRepairMinutes(model, weights)).toBeCloseTo(15 + 0.1 * wrongPartMinutes + 0.1 * 33, 9);
  });
  it('counts one cure once for all faults it ends', () => {
    const weights = new Float64Array(model.faults.length);
    for (const fault of ['psu-weak', 'psu-rail-out', 'psu-no-start']) weights[model.faultIndex.get(fault)!] = 1 / 3;
    expect(expectedRepairMinutes(model, weights)).toBeCloseTo(40 + proveMinutes, 9);
  });
});

describe('next checks', () => {
  const full = { has: ['meter', 'tester', 'spare-supply', 'second-spare'] as const, mayMeterMains: true };
  it('never rank a telling look of a minute under one that wants a meter out', () => {
    for (const told of ['nothing', 'twitch', 'no-picture', 'restarts', 'cuts-load']) {
      const ranked = rankChecks(model, [{ checkId: 'told-button', outcomeId: told }], full);
      const meterOut = ranked.findIndex(({ needs }) => needs.includes('meter') || needs.includes('tester'));
      const late = ranked.slice(meterOut).filter(({ checkId, minutes, moves, hazard }) => {
        const { kind } = checkNamed(model, checkId);
        return kind === 'look' && minutes <= 1 && moves > 0.02 && hazard === 'none';
      });
      expect(late).toEqual([]);
    }
  });
  it('move the chances of the cures no further than those of the faults, and as far where each fault has its own cure', () => {
    const own: Knowledge = {
      ...knowledge,
      faults: knowledge.faults.map((fault) => ({ ...fault, cure: { ...fault.cure, id: `cure of ${fault.id}` } })),
    };
    const apart = compileModel(own);
    fc.assert(
      fc.property(anyObservations, (observations) => {
        for (const { moves, movesCures } of rankChecks(model, observations, full)) {
          expect(movesCures).toBeGreaterThanOrEqual(0);
          expect(movesCures).toBeLessThanOrEqual(moves + 1e-12);
        }
        for (const { moves, movesCures } of rankChecks(apart, observations, full))
          expect(movesCures).toBeCloseTo(moves, 12);
      }),
      { numRuns: 20 },
    );
  });
  it('move no cure where they tell faults of one cure apart: by hand, for one check', () => {
    const seen = told({ 'told-button': 'nothing' });
    const now = posterior(model, seen);
    const found = rankChecks(model, seen, full).find(({ checkId }) => checkId === 'look-switch')!;
    const cures = [...new Set(model.faults.map(({ cure }) => cure.id))];
    const shareOf = (chances: Float64Array, cureId: string) =>
      model.faults.reduce((sum, { cure }, fault) => (cure.id === cureId ? sum + chances[fault]! : sum), 0);
    const byHand = found.previews.reduce((sum, { outcomeId, probability }) => {
      const then = posterior(model, [...seen, { checkId: 'look-switch', outcomeId }]);
      const moved = cures.reduce((all, id) => all + Math.abs(shareOf(then, id) - shareOf(now, id)), 0);
      return sum + (probability * moved) / 2;
    }, 0);
    expect(found.movesCures).toBeCloseTo(byHand, 9);
  });
  it('that tell only faults of one cure apart do not keep its part from being bought', () => {
    // The supply, nearly certain; the known-good one could not be tried, and what the fans do tells its faults apart.
    const seen = told({
      'told-button': 'nothing',
      'look-standby-light': 'lit',
      'm-rails-off': 'out',
      'd-swap': 'unknown',
      'look-switch': 'right',
      'do-lead': 'same',
      'told-course': 'sudden',
    });
    const probabilities = posterior(model, seen);
    const conclusion = conclude(model, seen, rankFaults(model, probabilities), 0.9);
    const fans = rankChecks(model, seen, full).find(({ checkId }) => checkId === 'look-fans')!;
    expect([fans.moves > 0.02, fans.movesCures > 0.02, conclusion.state]).toEqual([true, false, 'to-prove']);
    const step = (ranked: readonly NextCheck[]) =>
      nextStep({ model, observations: seen, probabilities }, ranked, conclusion);
    expect(step([fans])).toEqual({ do: 'cure', faultId: 'psu-no-start' });
    expect(step([{ ...fans, movesCures: 0.03 }])).toEqual({ do: 'check', checkId: 'look-fans' });
  });
  it('leaves out what the bench lacks, what was answered and what cannot be done on a dead machine', () => {
    const observations = [
      { checkId: 'told-button', outcomeId: 'nothing' },
      { checkId: 'look-dust', outcomeId: 'unknown' },
    ];
    const ids = rankChecks(model, observations, { has: [], mayMeterMains: false }).map((check) => check.checkId);
    for (const gone of [
      'told-button',
      'look-dust',
      'm-standby',
      'm-tester',
      'd-swap',
      'd-swap-2',
      'm-cpu-temp',
      'm-mains',
    ])
      expect(ids).not.toContain(gone);
    expect(rankChecks(model, observations, full).map((check) => check.checkId)).not.toContain('d-swap-2');
    expect(rankChecks(model, observations, full).map((check) => check.checkId)).toContain('m-mains');
    expect(
      rankChecks(model, [...observations, { checkId: 'd-swap', outcomeId: 'same' }], full).map(
        (check) => check.checkId,
      ),
    ).toContain('d-swap-2');
  });
  it('foresees outcomes that sum to one and average back to the present', () => {
    const observations = [{ checkId: 'told-button', outcomeId: 'cuts-load' }];
    for (const check of rankChecks(model, observations, full))
      expect(check.previews.reduce((sum, preview) => sum + preview.probability, 0)).toBeCloseTo(1, 9);
  });
  it('computes the saving as brute force does', () => {
    const observations = [{ checkId: 'told-button', outcomeId: 'twitch' }];
    const now = posterior(model, observations);
    const found = rankChecks(model, observations, full).find((check) => check.checkId === 'do-extras')!;
    const index = model.checkIndex.get('do-extras')!;
    let expected = 5;
    for (const row of model.likelihood[index]!)
      expected += expectedRepairMinutes(
        model,
        now.map((value, fault) => value * row[fault]!),
      );
    expect(found.savesMinutes).toBeCloseTo(expectedRepairMinutes(model, now) - expected, 6);
  });
});

describe('evidence', () => {
  it('shows strengths in decibans that add up to the posterior odds when nothing is damped', () => {
    const observations = [{ checkId: 'told-button', outcomeId: 'nothing' }];
    const leader = suspects(model, observations)[0]!;
    const prior = Math.exp(model.logPrior[model.faultIndex.get(leader.faultId)!]!);
    const odds = 10 * Math.log10(leader.probability / (1 - leader.probability)) - 10 * Math.log10(prior / (1 - prior));
    expect(leader.evidence[0]!.decibans).toBeCloseTo(odds, 9);
  });
});

describe('validation', () => {
  const spoil = (change: (copy: Knowledge & { faults: { id: string }[] }) => void) => {
    const copy = structuredClone(knowledge) as never;
    change(copy);
    return validateKnowledge(copy).map((problem) => problem.code);
  };
  it('finds a row that does not sum to one hundred', () => {
    expect(
      spoil((copy) => {
        (copy.checks[3]!.rows[0]!.weights as number[])[0]! += 1;
      }),
    ).toContain('row-sum');
  });
  it('finds a check that no fault cares about', () => {
    expect(
      spoil((copy) => {
        (copy.checks[3] as { rows: unknown }).rows = [{ faults: 'others', weights: [25, 25, 25, 25], why: '' }];
      }),
    ).toContain('indifferent-check');
  });
  it('finds two faults that no check can tell apart', () => {
    expect(
      spoil((copy) => {
        (copy.faults as unknown[]).push({ ...copy.faults[0]!, id: 'twin' });
        for (const check of copy.checks)
          for (const row of check.rows)
            if (row.faults !== 'others' && row.faults.includes('mains-outlet')) (row.faults as string[]).push('twin');
      }),
    ).toContain('inseparable');
  });
  it('finds unknown names', () => {
    expect(
      spoil((copy) => {
        (copy.checks[3]!.rows[0]!.faults as string[])[0] = 'nobody';
      }),
    ).toContain('unknown-fault');
  });
});
