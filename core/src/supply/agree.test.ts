import { describe, expect, it } from 'vitest';
import { seeded, type Random } from '../simulate/index.ts';
import { assessLoad, hungByInlet, loadRails, moments, owedAt, type LoadWord } from '../load/index.ts';
import { partClasses, twelveVoltWatts, type MachinePart } from '../machine/index.ts';
import { assessSupply, judgeSupply, type SupplyModel } from './index.ts';
import { asking, part, supplies, tower } from './machines.test-help.ts';
import { casesOf } from '../size.test-help.ts';

const pickOf = <T>(random: Random, list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
const ofGroup = (group: string) => partClasses.filter((one) => one.group === group && one.id !== 'board-own');

/** A machine as one comes in: a board, a processor, some cards, drives and fans. */
function randomMachine(random: Random): MachinePart[] {
  const take = (group: string, most: number) =>
    Array.from({ length: Math.floor(random() * (most + 1)) }, (_, index) =>
      part(pickOf(random, ofGroup(group)).id, `${group}${index}`),
    );
  return [
    part(pickOf(random, ofGroup('board')).id, 'b'),
    part(pickOf(random, ofGroup('processor')).id, 'p'),
    ...take('card', 2),
    ...take('drive', 6),
    ...take('cooling', 3),
  ];
}

const good: readonly LoadWord[] = ['enough', 'tight'];

const machines = casesOf(300, 1000);

describe('Load and Replacement', () => {
  it(`say the same of ${machines} random machines and supplies, as far as both know the same`, () => {
    const random = seeded(140_014);
    const seen: Record<LoadWord, number> = { enough: 0, tight: 0, 'too-small': 0, 'cannot-tell': 0 };
    for (let run = 0; run < machines; run += 1) {
      const parts = randomMachine(random);
      const model = pickOf(random, supplies);
      const staggered = random() < 0.3;
      const question = asking(parts, tower, { staggered });
      const load = assessLoad(question.demand, model.label, { hung: hungByInlet(parts, { staggered }) });
      const { load: planned, plan } = assessSupply(model, question);
      seen[load.word] += 1;
      const told = `machine ${run}: ${model.id} ${JSON.stringify([load.word, planned.word])}`;
      // What needs no cable is found by both alike.
      const general = (findings: typeof load.findings) =>
        findings.filter(({ code }) => code !== 'twelve-output' && code !== 'conductor' && code !== 'combined');
      expect(general(planned.findings), told).toEqual(general(load.findings));
      // Where the plan leaves nothing open it may only be surer or stricter by its cables, never contrary.
      if (plan.open.length > 0) continue;
      const byCables = planned.findings.some(({ code, word }) => code === 'conductor' && word === 'beyond');
      if (load.word === 'too-small') expect(planned.word, told).toBe('too-small');
      if (good.includes(load.word) && !byCables) expect(planned.word, told).toBe(load.word);
    }
    expect(Object.values(seen).filter((count) => count > machines / 100).length).toBeGreaterThanOrEqual(3);
  });

  it('never call a supply good that one of its limits denies at any moment, counted out by hand', () => {
    const random = seeded(979);
    let fits = 0;
    for (let run = 0; run < machines; run += 1) {
      const question = asking(randomMachine(random));
      const model = weakened(random, pickOf(random, supplies));
      const { fits: said, load } = judgeSupply(model, question);
      if (!said) continue;
      fits += 1;
      for (const moment of moments) {
        const { least } = owedAt(model.label, moment);
        const at = question.demand.at[moment];
        const told = `machine ${run} ${model.id} ${moment} ${load.word}`;
        expect(at['+12'], told).toBeLessThanOrEqual(twelveVoltWatts(model.label) * least + 1e-6);
        for (const limit of model.label.combined) {
          const named = model.label.rails.filter(({ label }) => limit.labels.includes(label));
          const whole = model.label.rails
            .filter(({ rail }) => rail === '+12')
            .every(({ label }) => limit.labels.includes(label));
          const watts = loadRails
            .filter((rail) => named.some((one) => one.rail === rail) && (rail !== '+12' || whole))
            .reduce((sum, rail) => sum + at[rail], 0);
          expect(watts, told).toBeLessThanOrEqual(limit.watts * least + 1e-6);
        }
      }
    }
    expect(fits).toBeGreaterThan(machines / 20);
  });
});

/** A supply with less on +12 and on +5 and +3.3 together than its rating leads one to think. */
function weakened(random: Random, model: SupplyModel): SupplyModel {
  const share = 0.4 + random() * 0.6;
  const { label } = model;
  return {
    ...model,
    label: {
      ...label,
      rails: label.rails.map((rail) => (rail.rail === '+12' ? { ...rail, amps: rail.amps * share } : rail)),
      combined: label.combined.map((limit) => ({ ...limit, watts: limit.watts * (0.4 + random() * 0.6) })),
    },
  };
}
