import { describe, expect, it } from 'vitest';
import { drawJob, seeded } from '../simulate/index.ts';
import {
  isEndedBy,
  contradictionIn,
  mindChangers,
  posterior,
  rankChecks,
  repairCheckId,
  suspects,
  triedCureId,
} from './index.ts';
import { model, told } from './knowledge.test-help.ts';

describe('outcomes that contradict each other', () => {
  it('standby light lit and no standby voltage: named as the pair, whatever else was seen', () => {
    const found = contradictionIn(
      model,
      told({
        'told-button': 'nothing',
        'told-course': 'sudden',
        'look-dust': 'dusty',
        'look-standby-light': 'lit',
        'm-standby': 'absent',
      }),
    );
    expect(found?.pair.map((item) => item.checkId).sort()).toEqual(['look-standby-light', 'm-standby']);
    expect(found!.timesLess).toBeGreaterThan(10);
  });
  it('all fans turn and no standby voltage: the pair', () => {
    expect(
      contradictionIn(model, told({ 'look-fans': 'all', 'm-standby': 'absent' }))?.pair.map((item) => item.checkId),
    ).toEqual(expect.arrayContaining(['look-fans', 'm-standby']));
  });
  it('is not seen where a rare fault explains both', () => {
    expect(
      contradictionIn(model, told({ 'told-button': 'twitch', 'told-smell': 'burnt', 'look-harness': 'foreign' })),
    ).toBeNull();
    expect(
      contradictionIn(
        model,
        told({ 'told-button': 'cuts-load', 'told-course': 'slowly', 'm-rails-work': 'out', 'm-steady': 'sags' }),
      ),
    ).toBeNull();
    expect(contradictionIn(model, [])).toBeNull();
  });
  it('is seen in few honest jobs: under 4 in 100 with twelve checks done', () => {
    const random = seeded(12);
    const ids = [
      'told-button',
      'told-course',
      'told-smell',
      'look-switch',
      'look-standby-light',
      'look-fans',
      'look-dust',
      'look-plugs',
      'm-standby',
      'm-rails-off',
      'm-tester',
      'd-swap',
    ];
    let alarms = 0;
    for (let job = 0; job < 600; job += 1) {
      const drawn = drawJob(model, random);
      if (
        contradictionIn(
          model,
          ids.map((checkId) => ({ checkId, outcomeId: drawn.outcomes.get(checkId)! })),
        ) !== null
      )
        alarms += 1;
    }
    expect(alarms / 600).toBeLessThan(0.04);
  });
});

describe('what would change the mind', () => {
  it('names outcomes that put another fault first, and they do', () => {
    const observations = told({ 'told-button': 'cuts-load', 'told-course': 'slowly' });
    const leaderId = suspects(model, observations)[0]!.faultId;
    const changers = mindChangers(
      rankChecks(model, observations, { has: ['meter', 'tester', 'spare-supply'], mayMeterMains: false }),
      leaderId,
    );
    expect(changers.length).toBeGreaterThan(0);
    for (const changer of changers) {
      const then = suspects(model, [...observations, { checkId: changer.checkId, outcomeId: changer.outcomeId }])[0]!;
      expect(then.faultId).toBe(changer.leaderId);
      expect(then.faultId).not.toBe(leaderId);
      expect(then.probability).toBeCloseTo(changer.leaderProbability, 9);
    }
  });
});

describe('rounds', () => {
  it(
    'a repair that changed nothing opens the next round with what is known: its faults fall, ' +
      'the rest keeps its order',
    () => {
      const observations = told({ 'told-button': 'cuts-load', 'told-course': 'slowly', 'm-rails-work': 'marginal' });
      const first = suspects(model, observations);
      expect(first[0]!.faultId).toBe('psu-weak');
      const second = suspects(model, [
        ...observations,
        { checkId: repairCheckId('replace-supply'), outcomeId: 'same' },
      ]);
      expect(second[0]!.faultId).not.toBe('psu-weak');
      const chance = (list: typeof first, id: string) => list.find((suspect) => suspect.faultId === id)!.probability;
      const rest = model.faults.filter((fault) => !isEndedBy(fault, 'replace-supply'));
      const grown = rest.map(({ id }) => chance(second, id) / chance(first, id));
      for (const times of grown) expect(times).toBeCloseTo(grown[0]!, 9);
      expect(grown[0]).toBeGreaterThan(1);
      expect(second.find((suspect) => suspect.faultId === 'psu-weak')!.probability).toBeLessThan(0.1);
    },
  );
  it('a repair is evidence by Bayes like any other', () => {
    const index = model.faultIndex.get('mains-lead')!;
    const before = posterior(model, [])[index]!;
    const after = posterior(model, [{ checkId: repairCheckId('lead'), outcomeId: 'same' }])[index]!;
    expect(after).toBeCloseTo((before * 0.02) / (before * 0.02 + (1 - before) * 0.99), 9);
    expect(triedCureId(repairCheckId('lead'))).toBe('lead');
    expect(triedCureId('do-lead')).toBeNull();
  });
});
