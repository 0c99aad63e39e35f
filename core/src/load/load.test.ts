import { describe, expect, it } from 'vitest';
import { lossModel, lossWatts } from '../standards/index.ts';
import {
  partClass,
  partsAt,
  labelProblems,
  twelveVoltWatts,
  type MachinePart,
  type SupplyLabel,
  partClasses,
} from '../machine/index.ts';
import { machinePart } from '../machine/machine-part.test-help.ts';
import { assessLoad, converterEfficiency, demandOf, inletLoads, peaksCoveredRating, schoolRatings } from './index.ts';

let serial = 0;
function part(classId: string, extra: Partial<MachinePart> = {}): MachinePart {
  serial += 1;
  return machinePart(classId, `p${serial}`, {}, extra);
}
const label = (ratingWatts: number, extra: Partial<SupplyLabel> = {}): SupplyLabel => ({
  ratingWatts,
  shape: 'ATX',
  guide: '2.x',
  grade: 'bronze',
  modular: 'fixed',
  has16Pin: false,
  rails: [
    { label: '12V', rail: '+12', amps: Math.floor(ratingWatts / 12) },
    { label: '5V', rail: '+5', amps: 20 },
    { label: '3.3V', rail: '+3.3', amps: 20 },
  ],
  combined: [{ labels: ['5V', '3.3V'], watts: 110 }],
  ...extra,
});

describe('a 16-pin inlet', () => {
  it('is seen in whatever part has one, and in no other', () => {
    for (const { id, inlets } of partClasses)
      expect(demandOf([part('board'), part(id)]).has16Pin, id).toBe(inlets.some((inlet) => inlet.kind === 'card-16'));
  });
});

describe('demand', () => {
  it('adds up by hand: board 35, processor 88 through converters, two memory modules 3', () => {
    const demand = demandOf([part('board'), part('processor-65'), part('memory-old', { quantity: 2 })]);
    expect(demand.sustainedWatts).toBeCloseTo(35 + 88 / converterEfficiency + 6, 9);
    expect(demand.rails['+12'].watts).toBeCloseTo(17.5 + 88 / converterEfficiency, 9);
    expect(demand.rails['+5'].amps).toBeCloseTo((8.75 + 6) / 5, 9);
    expect(demand.rails['+3.3'].watts).toBeCloseTo(8.75, 9);
    expect(demand.peaks[0]!.watts).toBeCloseTo(35 + 150 / converterEfficiency + 6, 9);
  });
  it('says between what it lies, and what each part has of it, idle and at work', () => {
    const parts = [part('board'), part('processor-65'), part('memory-old', { quantity: 2 }), part('drive-35')];
    const demand = demandOf(parts);
    const alone = parts.map((one) => demandOf([one]));
    const together = (of: (one: ReturnType<typeof demandOf>) => number) => alone.reduce((sum, one) => sum + of(one), 0);
    for (const key of ['lowWatts', 'highWatts', 'sustainedWatts', 'idleWatts', 'spinUpWatts', 'standbyWatts'] as const)
      expect(demand[key], key).toBeCloseTo(
        together((one) => one[key]),
        9,
      );
    expect(demand.lowWatts).toBeGreaterThan(0);
    expect(demand.lowWatts).toBeLessThan(demand.sustainedWatts);
    expect(demand.highWatts).toBeGreaterThan(demand.sustainedWatts);
    // A processor's figures are behind converters, a board's are not.
    const [board, processor] = parts as [MachinePart, MachinePart];
    expect(alone[0]!.lowWatts).toBeCloseTo(board.figures.lowWatts, 9);
    expect(alone[1]!.highWatts).toBeCloseTo(processor.figures.highWatts / converterEfficiency, 9);
    expect(demand.parts).toEqual(
      parts.map(({ id }, index) => ({
        partId: id,
        sustainedWatts: alone[index]!.sustainedWatts,
        idleWatts: alone[index]!.idleWatts,
      })),
    );
    expect(demand.idleWatts).toBeLessThan(demand.sustainedWatts);
  });
  it('the rails add up to the whole', () => {
    const demand = demandOf([
      part('board-84'),
      part('processor-125'),
      part('card-88'),
      part('drive-35'),
      part('drive-flat'),
      part('lighting'),
    ]);
    expect(demand.rails['+12'].watts + demand.rails['+5'].watts + demand.rails['+3.3'].watts).toBeCloseTo(
      demand.sustainedWatts,
      9,
    );
  });
  it('a newer card doubles for ten milliseconds', () => {
    const card = part('card-16');
    expect(demandOf([card]).peaks.find((peak) => peak.milliseconds === 10)!.watts).toBeCloseTo(2 * 285, 9);
  });
  it('drives start all at once', () => {
    expect(demandOf([part('drive-35'), part('drive-35')]).spinUpWatts).toBeCloseTo(2 * (5 + 2.2 * 12 + 0.7 * 5), 9);
  });
  it('an empty machine asks nothing', () => {
    expect(demandOf([]).sustainedWatts).toBe(0);
  });
  it('separates present from planned', () => {
    const parts = [
      part('card-6', { change: 'replaced' }),
      part('card-88', { change: 'added' }),
      part('optical', { change: 'removed' }),
      part('board'),
    ];
    expect(partsAt(parts, 'present').map((item) => item.classId)).toEqual(['card-6', 'optical', 'board']);
    expect(partsAt(parts, 'planned').map((item) => item.classId)).toEqual(['card-88', 'board']);
  });
});

describe('inlets', () => {
  it('carry what their parts draw, less the slot', () => {
    const card = part('card-88');
    const loads = inletLoads([card, part('board'), part('processor-65')]);
    const left = loads.find((load) => load.inletId === card.inlets[0]!.id)!;
    expect(left.watts).toBeCloseTo((270 - 66) / 2, 9);
  });
  it('give the optional processor inlet no planned load', () => {
    const board = part('board-84');
    const loads = inletLoads([board, part('processor-125')]);
    expect(loads.find((load) => load.inletId === board.inlets[2]!.id)!.watts).toBe(0);
    expect(loads.find((load) => load.inletId === board.inlets[1]!.id)!.watts).toBeCloseTo(253 / converterEfficiency, 9);
  });
});

describe('assessment', () => {
  const machine = demandOf([part('board'), part('processor-65'), part('card-8')]);
  it('is enough, tight or too small', () => {
    expect(assessLoad(machine, label(650)).word).toBe('enough');
    expect(assessLoad(demandOf([part('other', { quantity: 30 })]), label(350))).toMatchObject({
      word: 'tight',
      deciding: { code: 'twelve-total', moment: 'lasting', limit: 29 * 12 },
    });
    expect(assessLoad(machine, label(300))).toMatchObject({ word: 'too-small' });
  });
  it('names the rail that decides although the watts in total would do', () => {
    const lopsided = label(650, {
      rails: [
        { label: '12V', rail: '+12', amps: 20 },
        { label: '5V', rail: '+5', amps: 40 },
        { label: '3.3V', rail: '+3.3', amps: 40 },
      ],
    });
    expect(assessLoad(machine, lopsided)).toMatchObject({ word: 'too-small', deciding: { code: 'twelve-total' } });
  });
  it('checks the combined limit of +5 and +3.3', () => {
    const memory = demandOf([part('memory-old', { quantity: 32 }), part('drive-card', { quantity: 4 })]);
    expect(assessLoad(memory, label(500)).deciding).toMatchObject({ code: 'combined', limit: 110, word: 'beyond' });
  });
  it('cannot tell from a label without rails, unless the total is already too much', () => {
    expect(assessLoad(machine, label(650, { rails: [], combined: [] })).word).toBe('cannot-tell');
    expect(assessLoad(machine, label(200, { rails: [], combined: [] })).word).toBe('too-small');
    expect(assessLoad(demandOf([]), label(650)).word).toBe('cannot-tell');
  });
  it('holds +12 to its own amps for seconds: 468 W are too much for 32 A of a 600 W supply', () => {
    const seconds = part('other', {
      figures: { ...partClass('other')!.figures, likelyWatts: 300, highWatts: 300, shortWatts: 468 },
    });
    const supply = label(600, { guide: '3.x', rails: [{ label: '12V', rail: '+12', amps: 32 }], combined: [] });
    expect(assessLoad(demandOf([seconds]), supply)).toMatchObject({
      word: 'too-small',
      deciding: { code: 'twelve-total', moment: '1000', figure: 468, limit: 384 },
    });
  });
  it('names the longest lasting reason first, though a short peak is farther beyond', () => {
    const jumpy = demandOf([part('card-16'), part('processor-125')]);
    const { deciding, findings } = assessLoad(jumpy, label(380, { guide: '3.x' }));
    expect(deciding).toMatchObject({ moment: 'lasting', word: 'beyond' });
    expect(findings.some((item) => item.moment === '1' && item.ratio > deciding!.ratio)).toBe(true);
  });
  it('a peak of 0.1 ms alone is a doubt, and so is what a 2.x supply is silent about; neither decides', () => {
    const card = demandOf([part('board'), part('processor-65'), part('card-16-300')]);
    const recent = assessLoad(card, label(540, { guide: '3.x', has16Pin: false }));
    expect(recent.word).toBe('enough');
    expect(recent.doubts.map((item) => item.moment)).toEqual(['0.1']);
    const older = assessLoad(card, label(540));
    expect(older.doubts.map((item) => item.moment)).toEqual(['10', '1', '0.1']);
  });
  it('silence of a 2.x supply is never worth more than the promise of a recent one of the same label', () => {
    const classes = ['card-16', 'card-8', 'card-88', 'card-16-450', 'processor-125', 'processor-65'];
    for (let watts = 200; watts <= 1200; watts += 25)
      for (const card of classes) {
        const demand = demandOf([part('board'), part('processor-65'), part(card)]);
        const rank = { 'too-small': 0, 'cannot-tell': 1, tight: 2, enough: 3 } as const;
        const word = (guide: SupplyLabel['guide']) => rank[assessLoad(demand, label(watts, { guide })).word];
        expect(word('2.x'), `${card} at ${watts} W`).toBeLessThanOrEqual(word('3.x'));
      }
  });
  it('takes a combined limit over all +12 outputs', () => {
    expect(
      twelveVoltWatts({
        ratingWatts: 600,
        rails: [
          { label: '12V1', rail: '+12', amps: 25 },
          { label: '12V2', rail: '+12', amps: 25 },
        ],
        combined: [{ labels: ['12V1', '12V2'], watts: 504 }],
      }),
    ).toBe(504);
  });
  it('finds labels that do not add up', () => {
    expect(labelProblems(label(500, { rails: [] }))).toEqual([{ code: 'no-rails' }]);
    expect(
      labelProblems(label(1200, { rails: [{ label: '12V', rail: '+12', amps: 20 }], combined: [] }))[0],
    ).toMatchObject({ code: 'rails-below-rating' });
    expect(
      labelProblems(label(200, { rails: [{ label: '12V', rail: '+12', amps: 90 }], combined: [] }))[0],
    ).toMatchObject({ code: 'rails-far-above-rating' });
  });
});

describe('schools', () => {
  const machine = demandOf([part('board'), part('processor-65'), part('card-16')]);
  it('ask for ratings by their formulas', () => {
    const ratings = Object.fromEntries(
      schoolRatings(machine, 450, '2.x').map((rating) => [rating.school, rating.ratingWatts]),
    );
    expect(ratings['like-for-like']).toBe(450);
    expect(ratings['fixed-margin']).toBeCloseTo(machine.sustainedWatts + 150, 9);
    expect(ratings['half-load']).toBeCloseTo(machine.sustainedWatts * 1.75, 9);
  });
  it('"peaks covered" is exactly the smallest rating that the assessment calls enough', () => {
    for (const guide of ['2.x', '3.x'] as const)
      for (const has16Pin of [false, true]) {
        const asked = peaksCoveredRating(machine, guide, has16Pin).ratingWatts!;
        const at = (ratingWatts: number) =>
          assessLoad(
            machine,
            label(ratingWatts, { guide, has16Pin, rails: [{ label: '12V', rail: '+12', amps: 200 }], combined: [] }),
          ).word;
        expect(at(asked + 1.01)).toBe('enough');
        expect(at(asked - 1)).not.toBe('enough');
      }
  });
});

describe('loss model', () => {
  it('keeps what titanium asks at a tenth of the rating, on both mains, and goes on without a jump', () => {
    for (const mains of [115, 230]) {
      const model = lossModel('titanium', 1000, mains);
      expect(100 / (100 + lossWatts(model, 100, 1000))).toBeCloseTo(0.9, 9);
      expect(lossWatts(model, 199.999, 1000)).toBeCloseTo(lossWatts(model, 200, 1000), 3);
      expect(lossWatts(model, 0, 1000)).toBeGreaterThan(0);
    }
  });
  it("goes through the grade's three points", () => {
    const model = lossModel('gold', 600, 230);
    for (const [share, percent] of [
      [0.2, 90],
      [0.5, 92],
      [1, 89],
    ] as const) {
      const out = 600 * share;
      expect(out / (out + lossWatts(model, out, 600))).toBeCloseTo(percent / 100, 9);
    }
  });
});
