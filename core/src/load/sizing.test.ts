import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { anyFrom } from '../even.test-help.ts';
import { seeded } from '../simulate/random.ts';
import { lossModel, lossWatts } from '../standards/index.ts';
import { ageShare, deratedLabel, type MachinePart, type PowerFigures, type SupplyLabel } from '../machine/index.ts';
import { machinePart } from '../machine/machine-part.test-help.ts';
import {
  assessLoad,
  calibratedParts,
  compareMeasured,
  demandOf,
  drawLoads,
  hungByInlet,
  moments,
  inputWatts,
  outputBehind,
  plugProblems,
  routesOf,
  spreadOverOutputs,
  triangularQuantile,
  type HungLoad,
} from './index.ts';

let serial = 0;
function part(classId: string, figures: Partial<PowerFigures> = {}, extra: Partial<MachinePart> = {}): MachinePart {
  serial += 1;
  return machinePart(classId, `p${serial}`, figures, extra);
}
const label = (ratingWatts: number, extra: Partial<SupplyLabel> = {}): SupplyLabel => ({
  ratingWatts,
  shape: 'ATX',
  guide: '3.x',
  grade: 'gold',
  modular: 'full',
  has16Pin: false,
  rails: [
    { label: '12V', rail: '+12', amps: Math.floor(ratingWatts / 12) },
    { label: '5V', rail: '+5', amps: 20 },
    { label: '3.3V', rail: '+3.3', amps: 20 },
  ],
  combined: [],
  ...extra,
});

describe('several +12 outputs', () => {
  const three = (feeds: readonly (readonly HungLoad['family'][])[], amps = [18, 18, 18]) =>
    label(600, {
      rails: amps.map((limit, index) => ({
        label: `12V${index + 1}`,
        rail: '+12' as const,
        amps: limit,
        feeds: feeds[index]!,
      })),
    });
  const load = (name: string, family: HungLoad['family'], amps12: number, output: string | null = null): HungLoad => ({
    name,
    family,
    amps: Object.fromEntries(moments.map((moment) => [moment, amps12])) as HungLoad['amps'],
    startAmps: 0,
    output,
  });
  const idle = demandOf([]);
  it('are filled as the label says', () => {
    const spread = spreadOverOutputs(three([['main', 'drive'], ['cpu'], ['card']]), idle, [
      load('main', 'main', 4),
      load('drives', 'drive', 3),
      load('cpu', 'cpu', 15),
      load('card', 'card', 17),
    ])!;
    expect(spread.known).toBe(true);
    expect(spread.outputs.map((output) => output.amps)).toEqual([7, 15, 17]);
    expect(spread.outputs[0]!.carries).toEqual(['main', 'drives']);
  });
  it('leave what nobody knows to the kindest way, and say so', () => {
    const spread = spreadOverOutputs(three([[], [], []]), idle, [
      load('a', 'card', 12),
      load('b', 'card', 12),
      load('c', 'cpu', 14),
      load('d', 'main', 5),
    ])!;
    expect(spread.known).toBe(false);
    expect(Math.max(...spread.outputs.map((output) => output.amps))).toBe(17);
    expect(spread.worstRatio).toBeCloseTo(43 / 18, 9);
  });
  it('keep a cable at the output its socket belongs to', () => {
    const spread = spreadOverOutputs(three([[], [], []]), idle, [
      load('a', 'card', 10, '12V3'),
      load('b', 'card', 9, '12V3'),
    ])!;
    expect(spread.outputs[2]!.amps).toBe(19);
    expect(spread.known).toBe(true);
  });
  it('are nothing to share where there is one, or nothing hangs', () => {
    expect(spreadOverOutputs(label(500), idle, [load('a', 'card', 10)])).toBeNull();
    expect(spreadOverOutputs(three([[], [], []]), idle, [])).toBeNull();
  });
  it('are shared exactly as by trying every way, at every moment and under limits over some of them', () => {
    const random = seeded(7);
    for (let run = 0; run < 300; run += 1) {
      const problem = randomSpread(random);
      const spread = spreadOverOutputs(problem.asked, problem.demand, problem.hung)!;
      expect(spread.proved).toBe(true);
      const fullest = Math.max(...spread.figures.map((figure) => figure.figure / figure.least));
      const kindest = kindestByTrying(problem);
      expect(fullest).toBeGreaterThanOrEqual(kindest - 1e-9);
      expect(fullest).toBeLessThanOrEqual(kindest * 1.0005 + 1e-9);
      expect(spread.worstRatio).toBeGreaterThanOrEqual(fullest - 1e-9);
    }
  });
  it('are given up in words, never in time: many different loads end within the steps allowed', () => {
    const random = seeded(11);
    const hung = Array.from({ length: 24 }, (_, index) => load(`c${index}`, 'card', 1 + random() * 5));
    const spread = spreadOverOutputs(three([[], [], []], [20, 21, 22]), idle, hung)!;
    expect(spread.outputs.reduce((sum, output) => sum + output.amps, 0)).toBeCloseTo(
      hung.reduce((sum, item) => sum + item.amps.lasting, 0),
      6,
    );
  });

  /** Random loads, outputs and a limit over two of the outputs and +5. */
  function randomSpread(random: () => number) {
    const pick = (most: number) => 1 + random() * most;
    const limits = [10 + random() * 20, 10 + random() * 20, 10 + random() * 20];
    const alike = pick(15);
    const hung = Array.from({ length: 1 + Math.floor(random() * 6) }, (_, index): HungLoad => {
      const lasting = random() < 0.3 ? alike : pick(15);
      return {
        ...load(`c${index}`, random() < 0.5 ? 'card' : 'cpu', lasting),
        startAmps: random() < 0.3 ? 2 : 0,
        amps: { ...load('', 'card', lasting).amps, '1000': lasting * pick(0.5), '100': lasting * pick(1) },
      };
    });
    const feeds: HungLoad['family'][][] = [
      random() < 0.5 ? ['card'] : [],
      random() < 0.5 ? ['card', 'cpu'] : ['cpu'],
      random() < 0.5 ? ['cpu'] : [],
    ];
    const demand = demandOf([{ ...part('memory-new'), quantity: 4 }]);
    const plain = three(feeds, limits);
    const asked: SupplyLabel = {
      ...plain,
      guide: random() < 0.5 ? '2.x' : '3.x',
      rails: [...plain.rails, { label: '5V', rail: '+5', amps: 20 }],
      combined: [{ labels: ['12V1', '12V2', '5V'], watts: 150 + random() * 300 }],
    };
    return { asked, demand, hung, feeds, limits };
  }

  function kindestByTrying({ asked, demand, hung, feeds, limits }: ReturnType<typeof randomSpread>): number {
    const fed = (family: HungLoad['family']) => {
      const some = feeds.flatMap((list, index) => (list.includes(family) ? [index] : []));
      return some.length > 0 ? some : [0, 1, 2];
    };
    let best = Infinity;
    const full = (at: readonly number[]) =>
      Math.max(
        ...(['lasting', 'spin-up', '1000', '100'] as const).flatMap((moment) => {
          const share = moment === '100' && asked.guide === '3.x' ? 1.1 : 1;
          const amps = (outputs: readonly number[]) => {
            const there = hung.filter((_, item) => outputs.includes(at[item]!));
            const start = moment === 'spin-up' ? Math.max(0, ...there.map((item) => item.startAmps)) : 0;
            return there.reduce((sum, item) => sum + item.amps[moment], start);
          };
          const { watts } = asked.combined[0]!;
          const joint = amps([0, 1]) * 12 + demand.at[moment]['+5'];
          return [...limits.map((limit, output) => amps([output]) / (limit * share)), joint / (watts * share)];
        }),
      );
    const tryAll = (at: readonly number[]): void => {
      if (at.length === hung.length) best = Math.min(best, full(at));
      else for (const output of fed(hung[at.length]!.family)) tryAll([...at, output]);
    };
    tryAll([]);
    return best;
  }
  it('decide a verdict: beyond where even the kindest way is too much, cannot tell where it depends', () => {
    const parts = [
      part('board'),
      part('processor-125', { likelyWatts: 200, highWatts: 253, shortWatts: 253 }),
      part('card-8'),
    ];
    const demand = demandOf(parts);
    const hung = hungByInlet(parts);
    const outputs = (amps: number, feeds?: readonly HungLoad['family'][][]) =>
      label(900, {
        rails: [
          { label: '12V1', rail: '+12', amps, ...(feeds && { feeds: feeds[0] }) },
          { label: '12V2', rail: '+12', amps, ...(feeds && { feeds: feeds[1] }) },
          { label: '5V', rail: '+5', amps: 20 },
          { label: '3.3V', rail: '+3.3', amps: 20 },
        ],
      });
    expect(assessLoad(demand, outputs(20), { hung })).toMatchObject({
      word: 'too-small',
      deciding: { code: 'twelve-output' },
    });
    expect(assessLoad(demand, outputs(30), { hung }).word).toBe('cannot-tell');
    expect(assessLoad(demand, outputs(30, [['main', 'card', 'drive'], ['cpu']]), { hung }).word).toBe('enough');
    expect(assessLoad(demand, outputs(60), { hung }).word).toBe('enough');
  });
});

describe('ways in', () => {
  it('add up to the lasting load, and the slot never gives more than 5.5 A', () => {
    const parts = [
      part('board'),
      part('processor-105'),
      part('card-88'),
      part('card-slot'),
      part('drive-35'),
      part('drive-card'),
      part('usb'),
    ];
    const demand = demandOf(parts);
    expect(Object.values(demand.routes).reduce((sum, watts) => sum + watts, 0)).toBeCloseTo(demand.sustainedWatts, 9);
    expect(routesOf(parts[2]!, parts).slot).toBe(66);
    expect(routesOf(parts[3]!, parts)).toEqual({ slot: 60 });
  });
  it('standby adds up over what sleeps', () => {
    const demand = demandOf([part('board'), part('usb'), part('network')]);
    expect(demand.standbyWatts).toBeCloseTo(4, 9);
    const weak = label(500, { rails: [...label(500).rails, { label: '5VSB', rail: '+5sb', amps: 0.5 }] });
    expect(assessLoad(demand, weak).deciding).toMatchObject({
      code: 'standby',
      figure: 0.8,
      limit: 0.5,
      word: 'beyond',
    });
  });
  it('drives that start one after the other draw one spin-up', () => {
    const parts = [part('drive-35'), part('drive-35'), part('drive-35', { spinUpAmps: 2.5 })];
    expect(demandOf(parts).spinUpWatts).toBeCloseTo(15 + 6.9 * 12 + 3 * 0.7 * 5, 9);
    expect(demandOf(parts, { staggered: true }).spinUpWatts).toBeCloseTo(15 + 2.5 * 12 + 0.7 * 5, 9);
  });
  it('say what no supply mends: a plug, a slot or the main connector beyond its limit', () => {
    expect(plugProblems([part('board'), part('card-8', { likelyWatts: 180 })])).toEqual([]);
    expect(plugProblems([part('card-8', { likelyWatts: 300 })])).toMatchObject([
      { kind: 'plug', subject: 'Card 8', figure: 234, limit: 150 },
    ]);
    expect(plugProblems([part('card-slot', { likelyWatts: 90 })])).toMatchObject([
      { kind: 'slot', figure: 90, limit: 75 },
    ]);
    for (let watts = 1; watts <= 75; watts += 1)
      expect(plugProblems([part('card-slot', { likelyWatts: watts })])).toEqual([]);
    expect(plugProblems([part('card-slot', { likelyWatts: 60, share12: 0.8, share33: 0.2 })])).toMatchObject([
      { kind: 'slot', rail: '+3.3', figure: expect.closeTo(12 / 3.3, 9) as number, limit: 3 },
    ]);
    expect(plugProblems([part('card-slot', { likelyWatts: 70, share12: 1, share33: 0 })])).toMatchObject([
      { kind: 'slot', rail: '+12', limit: 5.5 },
    ]);
    expect(
      plugProblems([
        part('card-slot', { likelyWatts: 66, share12: 1, share33: 0 }),
        part('card-slot', { likelyWatts: 37, share12: 0.8, share33: 0.2 }),
      ]),
    ).toEqual([]);
    expect(plugProblems([part('fan', { likelyWatts: 14 })])).toMatchObject([
      { kind: 'header', rail: '+12', figure: expect.closeTo(14 / 12, 9) as number, limit: 1 },
    ]);
    expect(plugProblems([part('fan', { likelyWatts: 12 }), part('pump')])).toEqual([]);
    expect(plugProblems([part('board'), part('card-slot'), part('card-slot'), part('card-slot')])).toMatchObject([
      { kind: 'main-connector', rail: '+12' },
    ]);
    expect(plugProblems([part('drive-35', { spinUpAmps: 5 })])).toMatchObject([
      { kind: 'plug', rail: '+12', figure: 5, limit: 4.5 },
    ]);
  });
});

describe('age', () => {
  it('takes the same share off everything, never more than half', () => {
    expect(ageShare(null, 2)).toBe(1);
    expect(ageShare(8, 1)).toBeCloseTo(0.92, 12);
    expect(ageShare(60, 5)).toBe(0.5);
    expect(deratedLabel(label(500), 0.9)).toMatchObject({
      ratingWatts: 450,
      rails: [{ amps: 41 * 0.9 }, { amps: 18 }, { amps: 18 }],
    });
    expect(
      assessLoad(demandOf([part('other', { likelyWatts: 390, highWatts: 400, shortWatts: 390 })]), label(500)).word,
    ).toBe('enough');
    expect(
      assessLoad(demandOf([part('other', { likelyWatts: 390, highWatts: 400, shortWatts: 390 })]), label(500), {
        ageShare: 0.9,
      }).word,
    ).toBe('tight');
  });
});

describe('a measured load', () => {
  const parts = [part('board'), part('processor-65'), part('card-8'), part('card-8', {}, { change: 'added' })];
  it('goes back through the loss curve', () => {
    fc.assert(
      fc.property(anyFrom(20, 600), fc.constantFrom('none', 'bronze', 'gold', 'titanium'), (output, grade) => {
        const input = output + lossWatts(lossModel(grade, 650, 230), output, 650);
        expect(outputBehind(input, { grade, ratingWatts: 650 }, 230)!).toBeCloseTo(output, 2);
      }),
    );
    expect(outputBehind(1, { grade: 'gold', ratingWatts: 650 }, 230)).toBeNull();
  });
  it('is compared with the machine as it came, and replaces only what was there', () => {
    const estimated = demandOf(parts.slice(0, 3));
    const measured = compareMeasured({ kind: 'twelve', figure: 30, used: true }, parts, null, 230)!;
    expect(measured.factor).toBeCloseTo(360 / estimated.rails['+12'].watts, 9);
    const reckoned = calibratedParts(parts, measured.factor);
    expect(demandOf(reckoned.slice(0, 3)).rails['+12'].watts).toBeCloseTo(360, 6);
    expect(reckoned[3]).toBe(parts[3]);
    expect(reckoned[0]!.figures.source).toBe('measured');
  });
  it('cannot be used from the mains without a label, nor without a figure or parts', () => {
    expect(compareMeasured({ kind: 'mains', figure: 300, used: true }, parts, null, 230)).toBeNull();
    expect(compareMeasured({ kind: 'mains', figure: 300, used: true }, parts, label(650), 230)).not.toBeNull();
    expect(compareMeasured({ kind: 'twelve', figure: 0, used: true }, parts, null, 230)).toBeNull();
    expect(compareMeasured({ kind: 'twelve', figure: 10, used: true }, [], null, 230)).toBeNull();
    expect(compareMeasured(null, parts, label(650), 230)).toBeNull();
  });
});

/** Density of the sum of triangles on a grid of `step` watts, by convolution. */
function exactAbove(parts: readonly MachinePart[], watts: number, step = 0.1): number {
  let density = [1];
  let origin = 0;
  for (const item of parts) {
    const [low, likely, high] = [
      inputWatts(item, item.figures.lowWatts),
      inputWatts(item, item.figures.likelyWatts),
      inputWatts(item, item.figures.highWatts),
    ];
    const cells = Math.round((high - low) / step);
    // Mass of each cell from the distribution function, so that the whole is exactly one.
    const below = (x: number) =>
      x <= low
        ? 0
        : x >= high
          ? 1
          : x < likely
            ? (x - low) ** 2 / ((high - low) * (likely - low))
            : 1 - (high - x) ** 2 / ((high - low) * (high - likely));
    const mass =
      cells === 0
        ? [1]
        : Array.from(
            { length: cells },
            (_, cell) => below(low + ((cell + 1) * (high - low)) / cells) - below(low + (cell * (high - low)) / cells),
          );
    const sum = new Array<number>(density.length + mass.length - 1).fill(0);
    density.forEach((a, i) =>
      mass.forEach((b, j) => {
        sum[i + j] = sum[i + j]! + a * b;
      }),
    );
    density = sum;
    origin += cells === 0 ? low : low + (high - low) / cells / 2;
  }
  return density.reduce((total, mass, cell) => total + (origin + cell * step > watts ? mass : 0), 0);
}

describe('draws', () => {
  it("a triangle's quantile is the inverse of its distribution", () => {
    fc.assert(
      fc.property(anyFrom(0, 1), anyFrom(0, 50), anyFrom(0, 50), (u, left, right) => {
        const [low, likely, high] = [10, 10 + left, 10 + left + right];
        const x = triangularQuantile(u, low, likely, high);
        expect(x).toBeGreaterThanOrEqual(low - 1e-9);
        expect(x).toBeLessThanOrEqual(high + 1e-9);
        if (high - low > 1e-3) {
          const below =
            x < likely
              ? (x - low) ** 2 / ((high - low) * Math.max(left, 1e-12))
              : 1 - (high - x) ** 2 / ((high - low) * Math.max(right, 1e-12));
          expect(below).toBeCloseTo(u, 5);
        }
      }),
    );
    expect(triangularQuantile(0.3, 5, 5, 5)).toBe(5);
  });
  it('agree with exact convolution on small machines, within four deviations', () => {
    const small = [
      [part('processor-65'), part('card-8')],
      [part('board'), part('processor-105'), part('card-88')],
      [part('drive-35'), part('drive-35'), part('card-6'), part('optical')],
      [part('processor-125'), part('card-16', { lowWatts: 250, likelyWatts: 300, highWatts: 330 })],
    ];
    const draws = 40_000;
    small.forEach((parts, run) => {
      const middle = demandOf(parts).sustainedWatts;
      for (const share of [0.95, 1.02, 1.1]) {
        const rating = Math.round(middle * share);
        const exact = exactAbove(parts, rating);
        const drawn = drawLoads(
          parts,
          label(rating, { rails: [{ label: '12V', rail: '+12', amps: 900 }] }),
          seeded(run * 10 + Math.round(share * 100)),
          draws,
        ).against!.lasting;
        const deviation = Math.sqrt((exact * (1 - exact)) / draws);
        expect(
          Math.abs(drawn.share - exact),
          `machine ${run} over ${rating} W: ${drawn.share} drawn, ${exact} exact`,
        ).toBeLessThan(4 * deviation + 0.002);
        expect(drawn.low).toBeLessThanOrEqual(drawn.share);
        expect(drawn.high).toBeGreaterThanOrEqual(drawn.share);
      }
    });
  });
  it("the mean is the sum of the triangles' means", () => {
    const parts = [part('board'), part('processor-65'), part('card-88'), part('memory-old', {}, { quantity: 4 })];
    const mean = parts.reduce(
      (sum, item) =>
        sum +
        (inputWatts(item, item.figures.lowWatts) +
          inputWatts(item, item.figures.likelyWatts) +
          inputWatts(item, item.figures.highWatts)) /
          3,
      0,
    );
    expect(drawLoads(parts, null, seeded(3), 50_000).meanWatts).toBeCloseTo(mean, 0);
  });
  it('the curve falls from one to nothing and meets the share over the rating', () => {
    const parts = [part('board'), part('processor-125'), part('card-88')];
    const drawn = drawLoads(parts, label(560), seeded(5), 20_000);
    expect(drawn.curve.above[0]).toBe(1);
    expect(drawn.curve.above.at(-1)).toBe(0);
    for (let index = 1; index < drawn.curve.above.length; index += 1)
      expect(drawn.curve.above[index]!).toBeLessThanOrEqual(drawn.curve.above[index - 1]!);
    const { lasting, anything, peaks, rails } = drawn.against!;
    for (const over of [lasting, ...peaks.map((peak) => peak.over), ...rails.map((rail) => rail.over)])
      expect(anything.share).toBeGreaterThanOrEqual(over.share);
    expect(drawn.quantiles.low).toBeLessThan(drawn.quantiles.high);
  });
  it('are judged at the moments that decide, the shortest left out', () => {
    for (const guide of ['2.x', '3.x'] as const)
      expect(
        drawLoads([part('card-16')], label(700, { guide }), seeded(1), 100).against!.peaks.map(
          (peak) => peak.milliseconds,
        ),
      ).toEqual([1000, 100, 10, 1]);
  });
  it('say which part is worth reading, as numbers over the whole range of two parts do', () => {
    // Neither has peaks, so that lasting load alone decides.
    const [first, second] = [
      part('card-88', { lowWatts: 100, likelyWatts: 200, highWatts: 420, shortWatts: 100, excursion: 'none' }),
      part('board', { lowWatts: 20, likelyWatts: 30, highWatts: 60, shortWatts: 20, excursion: 'none' }),
    ];
    const over = (rating: number, of: number, other: number) => (of + other > rating ? 1 : 0);
    const steps = 400;
    const figuresOf = ({ figures }: MachinePart) =>
      Array.from({ length: steps }, (_, index) =>
        triangularQuantile((index + 0.5) / steps, figures.lowWatts, figures.likelyWatts, figures.highWatts),
      );
    const [ofFirst, ofSecond] = [figuresOf(first), figuresOf(second)];
    const mean = (all: readonly number[]) => all.reduce((sum, one) => sum + one, 0) / all.length;
    for (const rating of [230, 270, 330]) {
      const rails = [{ label: '12V', rail: '+12' as const, amps: 900 }];
      const { against } = drawLoads([first, second], label(rating, { rails }), seeded(rating), 100_000);
      const share = mean(ofFirst.map((of) => mean(ofSecond.map((other) => over(rating, of, other)))));
      const leftBy = (of: readonly number[], others: readonly number[]) =>
        mean(of.map((one) => mean(others.map((other) => over(rating, one, other)))).map((p) => Math.min(p, 1 - p)));
      expect(against!.anything.share).toBeCloseTo(share, 1);
      expect(against!.wrongCalls).toBeCloseTo(Math.min(share, 1 - share), 1);
      const worth = new Map(against!.worth.map(({ partId, left }) => [partId, left]));
      expect(worth.get(first.id)).toBeLessThan(worth.get(second.id)!);
      expect(Math.abs(worth.get(first.id)! - leftBy(ofFirst, ofSecond))).toBeLessThan(0.03);
      expect(Math.abs(worth.get(second.id)! - leftBy(ofSecond, ofFirst))).toBeLessThan(0.03);
    }
  });
  it('find nothing worth reading where nothing is in doubt, and never more wrong calls than before', () => {
    const sure = part('card-88', { lowWatts: 200, likelyWatts: 200, highWatts: 200 });
    const { against } = drawLoads([sure, part('board')], label(900), seeded(4), 5000);
    expect(against!.worth.map(({ partId }) => partId)).not.toContain(sure.id);
    for (let run = 0; run < 20; run += 1) {
      const machine = [part('board'), part('processor-125'), part('card-88'), part('drive-35')];
      const { wrongCalls, worth } = drawLoads(machine, label(380 + run * 15), seeded(run), 4000).against!;
      for (const { left } of worth) expect(left).toBeLessThanOrEqual(wrongCalls);
    }
  });
  it('the same seed draws the same', () => {
    const parts = [part('board'), part('card-8')];
    expect(drawLoads(parts, label(300), seeded(9), 1000)).toEqual(drawLoads(parts, label(300), seeded(9), 1000));
  });
});
