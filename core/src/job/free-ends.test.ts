import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type CableKit, type KitCable, planCables } from '../cable/index.ts';
import { freeEndsText } from '../wording/index.ts';
import { freeEndsOf, seatChecks, stepsOf } from './index.ts';
import { TestBench, testPart, testShop } from './fixture.test-help.ts';

const bench = (...classes: readonly string[]) =>
  new TestBench().do(
    ...classes.map((classId, index) => ({
      kind: 'put-part' as const,
      part: testPart(classId, `part-${index}`),
      basedOn: 0,
    })),
  );
const choose = (on: TestBench, modelId: string) =>
  on.do({
    kind: 'set-choice',
    choice: { kind: 'replace', modelId, known: [], reason: 'fits' },
    basedOn: on.job.choice?.version ?? 0,
  });

describe('what hangs free', () => {
  it('is as many plugs as hang in the machine and go nowhere, for any machine and supply', () => {
    const classes = ['processor-65', 'card-8', 'card-88', 'drive-35', 'drive-flat', 'optical'];
    fc.assert(
      fc.property(
        fc.subarray(classes, { minLength: 1 }),
        fc.constantFrom(...testShop.supplies.map(({ id }) => id)),
        (parts, modelId) => {
          const on = choose(bench('board', ...parts), modelId);
          const { cabling } = on.view();
          const { plan, kit } = cabling;
          if (plan === null || kit === null) return;
          // Counted once more, the plain way.
          const inMachine = kit.cables.flatMap((cable) =>
            Array.from({ length: cable.count }, (_, copy) => ({ cable, copy })).filter(
              ({ cable: { id, fixed }, copy: number }) =>
                fixed || plan.assignments.some((one) => one.kitCableId === id && one.copy === number),
            ),
          );
          const plugs = inMachine.reduce((sum, { cable }) => sum + cable.plugs.length, 0);
          const whole = freeEndsOf(cabling).filter(({ piece }) => piece === 'plug');
          expect(whole).toHaveLength(plugs - plan.assignments.length);
        },
      ),
      { numRuns: 40 },
    );
  });
  it('names the piece of a plug that its inlet has no room for, and never asks for both halves there', () => {
    const cable = (
      id: string,
      family: KitCable['family'],
      ...kinds: KitCable['plugs'][number]['kind'][]
    ): KitCable => ({
      id,
      family,
      fixed: true,
      count: 1,
      gauge: 18,
      plugs: kinds.map((kind) => ({ kind, millimetres: 600 })),
    });
    const kit: CableKit = {
      sockets: [],
      cables: [
        cable('main', 'main', 'main-20+4'),
        cable('cpu', 'cpu', 'cpu-4+4'),
        cable('card', 'card', 'card-6+2', 'card-6+2'),
        cable('spare', 'drive', 'sata', 'sata'),
      ],
    };
    const inlets = (['main-20', 'cpu-4', 'card-6'] as const).map((kind) => ({
      id: kind,
      kind,
      label: kind,
      optional: false,
      place: 'slots' as const,
      reachMillimetres: 300,
      amps12: 2,
      amps5: 0,
      amps33: 0,
    }));
    const plan = planCables(kit, inlets);
    expect(plan.assignments).toHaveLength(3);
    const rows = inlets.map(({ id, kind }) => ({ inletId: id, kind, adapterId: null }));
    const free = freeEndsOf({ plan, kit, rows } as unknown as Parameters<typeof freeEndsOf>[0]);
    expect(free.map(({ piece }) => piece)).toEqual(['four', 'half', 'two', 'plug', 'plug', 'plug']);
    expect(freeEndsText(free)).toContain('the four of its 20+4');
    expect(freeEndsText(free)).toMatch(/fixed cable, .*: 2 × SATA power$/);
    expect(seatChecks('main-20', 'main-20+4')).not.toContain('halves');
    expect(seatChecks('cpu-4', 'cpu-4+4')).not.toContain('halves');
    expect(seatChecks('main-24', 'main-20+4')).toContain('halves');
  });
  it('is a step of the refit, before the tying, with its caution', () => {
    const on = choose(bench('board', 'processor-65', 'drive-35'), 'corvane-650-s');
    const { cabling } = on.view();
    const kinds = stepsOf(on.job, cabling, 'refit').map(({ kind }) => kind);
    expect(kinds.includes('tie-free')).toBe(freeEndsOf(cabling).length > 0);
    expect(freeEndsOf({ ...cabling, plan: null })).toEqual([]);
  });
});
