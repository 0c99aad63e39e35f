import { describe, expect, it } from 'vitest';
import { normal, seeded } from '../../simulate/index.ts';
import { laidOut, printedLabels, type PrintedTruth } from './label.test-help.ts';
import type { PrintedWord } from './printed.ts';
import { figuresOf, readLabel, withSecondReading, type LabelRead } from './read-label.ts';

const today = '2026-11-27';

const word = (text: string, left: number, top: number, sure = 95): PrintedWord => ({
  text,
  sure,
  box: { left, top, right: left + text.length * 14, bottom: top + 28 },
});

/** What was read, as the label tells it. */
const told = ({ rating, outputs, limits }: LabelRead): PrintedTruth => ({
  watts: rating?.value ?? 0,
  rails: outputs.map(({ label, rail, amps }) => ({ label, rail, amps: amps?.value ?? 0 })),
  combined: limits.map(({ labels, watts }) => ({ labels, watts: watts.value })),
});

describe('a label that is well printed', () => {
  it('is read as it was printed, in whatever layout, with nothing to look at', () => {
    const random = seeded(11);
    for (const truth of printedLabels(random, 400))
      for (const layout of ['columns', 'rows', 'pairs'] as const) {
        const read = readLabel(laidOut(truth, layout, random), today);
        expect(told(read), `${layout} ${JSON.stringify(truth)}`).toEqual(truth);
        expect(read.problems, `${layout} ${JSON.stringify(truth)}`).toEqual([]);
        expect(figuresOf(read).every(({ doubts }) => doubts.length === 0)).toBe(true);
      }
  });
  it('tells its name, mains, guide, grade, shape and date', () => {
    const words = [
      word('Ostrel', 40, 20),
      word('V450', 140, 20),
      word('SFX', 40, 80),
      word('POWER', 100, 80),
      word('AC', 40, 120),
      word('INPUT', 90, 120),
      word('115V/230V', 180, 120),
      word('8A/4A', 320, 120),
      word('ATX12V', 40, 160),
      word('2.52', 140, 160),
      word('GRADE', 40, 200),
      word('GOLD', 130, 200),
      word('+12V', 40, 260),
      word('36A', 120, 260),
      word('TOTAL', 40, 300),
      word('450W', 140, 300),
      word('DATE', 40, 340),
      word('2021-05', 120, 340),
    ];
    const large = words.map((one, index) =>
      index < 2 ? { ...one, box: { ...one.box, top: one.box.top - 10, bottom: one.box.bottom + 10 } } : one,
    );
    expect(readLabel(large, today)).toMatchObject({
      name: 'Ostrel V450',
      shape: 'SFX',
      guide: '2.x',
      grade: 'gold',
      mains: { from: 115, to: 230, switched: true },
      date: '2021-05',
      outputs: [{ label: '12V', amps: { value: 36 } }],
      rating: { value: 450 },
      problems: [],
    });
  });
});

describe('print that is hard to read', () => {
  it('has no wrong figure that nothing points at, whatever digit was misread without being sure', () => {
    const random = seeded(5);
    for (const truth of printedLabels(random, 300)) {
      const words = laidOut(truth, 'columns', random);
      const at = Math.floor(random() * words.length);
      const spoiled = words.map((one, index) =>
        index === at
          ? { ...one, sure: 40, text: one.text.replace(/\d/, () => String(Math.floor(random() * 10))) }
          : one,
      );
      const read = readLabel(spoiled, today);
      const wanted = new Map([
        ...truth.rails.map(({ label, amps }): [string, number] => [label, amps]),
        ...truth.combined.map(({ labels, watts }): [string, number] => [`limit ${labels.join()}`, watts]),
        ['rating', truth.watts],
      ]);
      const found = [
        ...read.outputs.map(({ label, amps }) => [label, amps] as const),
        ...read.limits.map(({ labels, watts }) => [`limit ${labels.join()}`, watts] as const),
        ['rating', read.rating] as const,
      ];
      for (const [name, figure] of found) {
        if (figure === null || figure.doubts.length > 0 || read.problems.length > 0) continue;
        expect(figure.value, `${name} of ${JSON.stringify(truth)}`).toBe(wanted.get(name));
      }
    }
  });
  it.each([
    ['05A', '-12V', 0.5, ['mended']],
    ['35A', '+5VSB', 3.5, ['mended']],
    ['O.8A', '-12V', 0.8, ['mended']],
    ['2I A', '+5V', 21, ['mended']],
    ['1L8A', '+5V', 18, ['mended']],
    ['900A', '+12V', 90, ['mended']],
    ['1900A', '+12V', 1900, ['unusual']],
    ['18AA', '+5V', null, null],
  ])('%s by %s', (printed, output, value, doubts) => {
    const read = readLabel([word(output, 40, 40), word(printed, 160, 40)], today);
    expect(read.outputs[0]?.amps?.value ?? null).toBe(value);
    expect(read.outputs[0]?.amps?.doubts ?? null).toEqual(doubts);
  });
  it('takes 12 V with an amp or less for the minus output whose sign was lost, and says so', () => {
    const read = readLabel(
      [word('+12V', 40, 40), word('30A', 160, 40), word('12V', 40, 90), word('0.5A', 160, 90)],
      today,
    );
    expect(read.outputs).toMatchObject([
      { rail: '+12', amps: { doubts: [] } },
      { rail: '-12', label: '-12V', amps: { value: 0.5, doubts: ['mended'] } },
    ]);
  });
  it('tells what is not there, stands alone, or does not add up', () => {
    expect(readLabel([], today).problems).toEqual([{ code: 'nothing' }]);
    const read = readLabel(
      [
        word('+5V', 40, 40),
        word('20A', 160, 40),
        word('+12V', 40, 90),
        word('10A', 160, 90),
        word('17A', 600, 140),
        word('TOTAL', 40, 190),
        word('600W', 160, 190),
      ],
      today,
    );
    expect(read.problems).toEqual([
      { code: 'no-output', rail: '+3.3' },
      { code: 'no-output', rail: '-12' },
      { code: 'no-output', rail: '+5sb' },
      { code: 'loose-amps', amps: 17 },
      { code: 'outputs-below-rating', outputsWatts: 220, ratingWatts: 600 },
    ]);
    expect(read.rating?.doubts).toEqual(['adds-up-not']);
  });
  it('leaves the mains side alone', () => {
    const read = readLabel(
      [word('AC', 40, 40), word('INPUT', 90, 40), word('100-240V~', 180, 40), word('8A', 330, 40)],
      today,
    );
    expect(read.outputs).toEqual([]);
    expect(read.mains).toEqual({ from: 100, to: 240, switched: false });
  });
  it('never throws, whatever stands there', () => {
    const random = seeded(77);
    const letters = '+-12V5AWSBOIL.,3 0/~Hz9%€Ж';
    for (let round = 0; round < 400; round += 1) {
      const words = Array.from({ length: 1 + Math.floor(random() * 30) }, () => {
        const length = 1 + Math.floor(random() * 6);
        const text = Array.from({ length }, () => letters[Math.floor(random() * letters.length)]).join('');
        return word(text, random() * 900, random() * 600, 50 + normal(random) * 30);
      });
      expect(() => readLabel(words, today)).not.toThrow();
    }
  });
});

describe('a second reading', () => {
  const words = [word('+12V', 40, 40), word('34A', 160, 40, 60), word('TOTAL', 40, 90), word('400W', 160, 90)];
  const again = (text: string, sure: number) => {
    const read = readLabel(words, today);
    const [first] = figuresOf(read);
    return withSecondReading(read, new Map([[first!, word(text, 0, 0, sure)]])).outputs[0]!.amps!.doubts;
  };
  it('that agrees settles what was only hard to read', () => expect(again('34A', 90)).toEqual([]));
  it('that agrees and is as unsure settles nothing', () => expect(again('34A', 40)).toEqual(['unsure']));
  it('that is another figure, or none, is told', () => {
    expect(again('36A', 90)).toContain('differs');
    expect(again('', 0)).toContain('differs');
  });
});
