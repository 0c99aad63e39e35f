import { type Grade, type Guide, type RailName, type Shape, grades, shapes } from '../../standards/index.ts';
import { nominalVolts, readDate } from '../../machine/index.ts';
import { placeFigures, type FigureMark, type PlacedLimit, type PlacedOutput } from './place-figures.ts';
import { highOf, printedLines, type Box, type PrintedLine, type PrintedWord } from './printed.ts';

/** Why a figure that was read is to be looked at. */
export type FigureDoubt =
  /** The reader of the print was not sure of it. */
  | 'unsure'
  /** Read a second time, alone, it was another. */
  | 'differs'
  /** Something in it was taken for what it looks like: a letter for a digit, a point that was lost. */
  | 'mended'
  /** No supply has so much, or so little, there. */
  | 'unusual'
  /** It does not add up with the others. */
  | 'adds-up-not';

/** A figure of a label with the piece of the picture that it stands in. */
export interface ReadFigure {
  readonly value: number;
  readonly box: Box;
  readonly doubts: readonly FigureDoubt[];
}

export interface ReadOutput {
  readonly label: string;
  readonly rail: RailName;
  /** Where its name stands. */
  readonly box: Box;
  /** Null where no amps were found for it. */
  readonly amps: ReadFigure | null;
}

export interface ReadLimit {
  readonly labels: readonly string[];
  readonly watts: ReadFigure;
}

/** What does not fit together, or is not there, on the whole label. */
export type LabelReadProblem =
  | { readonly code: 'nothing' }
  | { readonly code: 'no-rating' }
  | { readonly code: 'no-output'; readonly rail: RailName }
  | { readonly code: 'no-amps'; readonly label: string }
  | { readonly code: 'loose-amps'; readonly amps: number }
  | { readonly code: 'no-shared-limit' }
  | { readonly code: 'outputs-below-rating'; readonly outputsWatts: number; readonly ratingWatts: number }
  | {
      readonly code: 'limit-above-amps';
      readonly labels: readonly string[];
      readonly watts: number;
      readonly most: number;
    };

/** What a picture of a label says. Nothing of it is taken before somebody looked. */
export interface LabelRead {
  readonly name: string | null;
  readonly rating: ReadFigure | null;
  readonly outputs: readonly ReadOutput[];
  readonly limits: readonly ReadLimit[];
  readonly shape: Shape | null;
  readonly guide: Guide | null;
  readonly grade: Grade | null;
  /** Mains volts that it takes. */
  readonly mains: { readonly from: number; readonly to: number; readonly switched: boolean } | null;
  /** A plain date that is printed on it. */
  readonly date: string | null;
  readonly has16Pin: boolean;
  readonly problems: readonly LabelReadProblem[];
}

/** Less sure than this, out of 100, a figure is to be looked at (found by reading labels drawn for the purpose). */
const sureFrom = 80;

/** Amps that supplies have on an output, from bench practice; what lies outside was probably misread. */
const usualAmps: Readonly<Record<RailName, readonly [number, number]>> = {
  '+12': [4, 170],
  '+5': [4, 60],
  '+3.3': [4, 60],
  '-12': [0.1, 2],
  '+5sb': [0.5, 8],
};

/** A figure whose point was lost: 0.3 read as 3, 2.5 as 25. Only where it is unusual without. */
function withPoint(value: number, [low, high]: readonly [number, number]): number | null {
  const pointed = Math.round(value * 10) / 100;
  return value > high && pointed >= low && pointed <= high ? pointed : null;
}

function readAmps(mark: FigureMark, rail: RailName): ReadFigure {
  const range = usualAmps[rail];
  const pointed = withPoint(mark.value, range);
  const value = pointed ?? mark.value;
  const unusual = value < range[0] || value > range[1];
  return {
    value,
    box: mark.box,
    doubts: [
      ...(mark.sure < sureFrom ? (['unsure'] as const) : []),
      ...(mark.mended || pointed !== null ? (['mended'] as const) : []),
      ...(unusual ? (['unusual'] as const) : []),
    ],
  };
}

function readWatts(mark: FigureMark, isUsual: (watts: number) => boolean): ReadFigure {
  return {
    value: mark.value,
    box: mark.box,
    doubts: [
      ...(mark.sure < sureFrom ? (['unsure'] as const) : []),
      ...(mark.mended ? (['mended'] as const) : []),
      ...(isUsual(mark.value) ? [] : (['unusual'] as const)),
    ],
  };
}

/** Limits are printed in fives, or are whole amps at 12 V. */
const isUsualLimit = (watts: number): boolean => watts >= 10 && (watts % 5 === 0 || watts % 12 === 0);

/** Ratings go by fifties; another stands on the label twice, most often in its name. */
const isUsualRating =
  (text: string) =>
  (watts: number): boolean =>
    watts >= 100 && (watts % 50 === 0 || text.split(String(watts)).length > 2);

const doubted = (figure: ReadFigure, doubt: FigureDoubt): ReadFigure =>
  figure.doubts.includes(doubt) ? figure : { ...figure, doubts: [...figure.doubts, doubt] };

function readOutput({ rail: { rail, label, box }, amps, signLost }: PlacedOutput): ReadOutput {
  const read = amps === null ? null : readAmps(amps, rail);
  return { label, rail, box, amps: signLost && read !== null ? doubted(read, 'mended') : read };
}

/** Amps of an output alone against the watts that its own cell tells: one of them is misread where they differ. */
function againstOwnWatts(outputs: readonly ReadOutput[], limits: readonly PlacedLimit[]): ReadOutput[] {
  return outputs.map((output) => {
    const own = limits.find(
      ({ outputs: [first], outputs: { length } }) => length === 1 && first?.rail.box === output.box,
    );
    if (own === undefined || output.amps === null || output.rail === '+12') return output;
    const volts = nominalVolts[output.rail];
    if (Math.abs(own.watts.value - output.amps.value * volts) <= 0.06 * own.watts.value) return output;
    return { ...output, amps: doubted(output.amps, 'adds-up-not') };
  });
}

const rounded = (watts: number): number => Math.round(watts * 10) / 10;

/** Watts that outputs give by their amps; null where one is not read. */
function wattsBy(outputs: readonly ReadOutput[], labels: readonly string[]): number | null {
  let sum = 0;
  for (const { label, rail, amps } of outputs) {
    if (!labels.includes(label)) continue;
    if (amps === null) return null;
    sum += amps.value * nominalVolts[rail];
  }
  return rounded(sum);
}

/** What the figures say against each other. */
function problemsOf(
  rating: ReadFigure | null,
  outputs: readonly ReadOutput[],
  limits: readonly ReadLimit[],
  loose: readonly FigureMark[],
): LabelReadProblem[] {
  if (outputs.length === 0 && rating === null) return [{ code: 'nothing' }];
  const problems: LabelReadProblem[] = [];
  if (rating === null) problems.push({ code: 'no-rating' });
  const twelve = outputs.filter(({ rail }) => rail === '+12');
  const has = (rail: RailName) => outputs.some((output) => output.rail === rail);
  // A label that tells +12 alone is one; any other has all five.
  const wanted: readonly RailName[] = outputs.length === twelve.length ? ['+12'] : ['+12', '+5', '+3.3', '-12', '+5sb'];
  for (const rail of wanted) if (!has(rail)) problems.push({ code: 'no-output', rail });
  for (const { label, amps } of outputs) if (amps === null) problems.push({ code: 'no-amps', label });
  for (const { value } of loose) problems.push({ code: 'loose-amps', amps: value });
  if (has('+5') && has('+3.3') && !limits.some(({ labels }) => labels.includes('5V') && labels.includes('3.3V')))
    problems.push({ code: 'no-shared-limit' });
  if (twelve.length > 1 && !limits.some(({ labels }) => twelve.every(({ label }) => labels.includes(label))))
    problems.push({ code: 'no-shared-limit' });
  const all = wattsBy(
    outputs,
    outputs.map(({ label }) => label),
  );
  if (rating !== null && all !== null && outputs.length > 0 && all < rating.value * 0.95)
    problems.push({ code: 'outputs-below-rating', outputsWatts: all, ratingWatts: rating.value });
  for (const { labels, watts } of limits) {
    const most = wattsBy(outputs, labels);
    if (most !== null && watts.value > most * 1.03)
      problems.push({ code: 'limit-above-amps', labels, watts: watts.value, most });
  }
  return problems;
}

/** Figures that a contradiction speaks of are to be looked at. */
function withContradictions(read: LabelRead): LabelRead {
  let { rating, outputs, limits } = read;
  for (const problem of read.problems) {
    const twelveOrAll = (labels: readonly string[] | null) => (output: ReadOutput) =>
      (labels === null ? output.rail === '+12' : labels.includes(output.label)) && output.amps !== null
        ? { ...output, amps: doubted(output.amps, 'adds-up-not') }
        : output;
    if (problem.code === 'outputs-below-rating') {
      rating = rating === null ? null : doubted(rating, 'adds-up-not');
      outputs = outputs.map(twelveOrAll(null));
    } else if (problem.code === 'limit-above-amps') {
      outputs = outputs.map(twelveOrAll(problem.labels));
      limits = limits.map((limit) =>
        limit.labels === problem.labels ? { ...limit, watts: doubted(limit.watts, 'adds-up-not') } : limit,
      );
    }
  }
  return { ...read, rating, outputs, limits };
}

const lineText = (lines: readonly PrintedLine[]): string => lines.map(({ text }) => text).join('\n');

function mainsOf(text: string): LabelRead['mains'] {
  const found = /\b(\d{3})\s?V?\s?([-–/])\s?(\d{3})\s?V/.exec(text);
  if (found === null) return null;
  const [from, to] = [Number(found[1]), Number(found[3])];
  return from >= 90 && to <= 280 && from < to ? { from, to, switched: found[2] === '/' } : null;
}

function gradeOf(text: string): Grade | null {
  const named = grades.find((grade) => grade !== 'none' && new RegExp(`\\b${grade.toUpperCase()}\\b`).test(text));
  return named ?? null;
}

function guideOf(text: string): Guide | null {
  const found = /ATX\s?(?:12V)?\s?(?:V|VER\.?)?\s?([23])[.,]\d/.exec(text);
  return found === null ? null : found[1] === '3' ? '3.x' : '2.x';
}

/** A shape that is named; with a version behind it, it is the guide that is. */
function shapeOf(text: string): Shape | null {
  const longestFirst = [...shapes].sort((a, b) => b.length - a.length);
  return (
    longestFirst.find((shape) => new RegExp(`\\b${shape.toUpperCase()}\\b(?!\\s*(?:V|VER\\.?)?\\s*\\d)`).test(text)) ??
    null
  );
}

function dateOf(text: string, today: string): string | null {
  for (const [, found] of text.matchAll(/(?:DATE|MFG|MADE)\D{0,12}([\dW][\dW./-]{3,9}\d)/g))
    if (found !== undefined && readDate(found, today) !== null) return found;
  return null;
}

/** The words in the largest letters above the outputs, as they were printed. */
function nameOf(words: readonly PrintedWord[], lines: readonly PrintedLine[]): string | null {
  const first = lines.findIndex(({ marks }) => marks.length > 0);
  const head = (first === -1 ? lines : lines.slice(0, first)).filter(({ text }) => /[A-Z]{2}/.test(text));
  const largest = head.reduce<PrintedLine | null>(
    (most, line) => (most === null || highOf(line.box) > highOf(most.box) * 1.15 ? line : most),
    null,
  );
  if (largest === null) return null;
  const { top, bottom, left, right } = largest.box;
  return words
    .filter(
      ({ box, sure }) => sure >= 25 && box.top >= top && box.bottom <= bottom && box.left >= left && box.right <= right,
    )
    .sort((a, b) => a.box.left - b.box.left)
    .map(({ text }) => text)
    .join(' ')
    .slice(0, 80);
}

/** What the printed words of a label say of its supply. @param today ISO date */
export function readLabel(words: readonly PrintedWord[], today: string): LabelRead {
  const lines = printedLines(words);
  const placed = placeFigures(lines);
  const text = lineText(lines);
  const outputs = againstOwnWatts(placed.outputs.map(readOutput), placed.limits);
  const rating = placed.rating === null ? null : readWatts(placed.rating, isUsualRating(text));
  const labelOf = (output: PlacedOutput) =>
    outputs.find(({ box }) => box === output.rail.box)?.label ?? output.rail.label;
  const limits = placed.limits
    // What an output other than +12 gives alone is said by its amps.
    .filter(({ outputs: shared }) => shared.length > 1 || shared[0]?.rail.rail === '+12')
    .map((limit): ReadLimit => ({ labels: limit.outputs.map(labelOf), watts: readWatts(limit.watts, isUsualLimit) }));
  return withContradictions({
    name: nameOf(words, lines),
    rating,
    outputs,
    limits,
    shape: shapeOf(text),
    guide: guideOf(text),
    grade: gradeOf(text),
    mains: mainsOf(text),
    date: dateOf(text, today),
    has16Pin: /12V-?2X6|16[- ]?PIN/.test(text),
    problems: problemsOf(rating, outputs, limits, placed.loose),
  });
}

/** All figures of a label that was read, in the order of the label. */
export const figuresOf = ({ rating, outputs, limits }: LabelRead): ReadFigure[] => [
  ...outputs.flatMap(({ amps }) => (amps === null ? [] : [amps])),
  ...limits.map(({ watts }) => watts),
  ...(rating === null ? [] : [rating]),
];

/** Surer than this, a second reading that agrees settles a doubt of the first. */
const leastAgain = 60;

/** Digits of a piece of print, read alone; null where there are none. */
const digitsOf = (text: string): number | null => {
  const found = /\d+(?:[.,]\d+)?/.exec(text.replace(/\s/g, ''));
  return found === null ? null : Number(found[0].replace(',', '.'));
};

/**
 * The same once each figure was read a second time, alone: what was another then is to be looked at, and what both
 * agree on is sure, however little the first reading was.
 * @param again what was read in the piece of a figure; what is not there was not read again
 */
export function withSecondReading(read: LabelRead, again: ReadonlyMap<ReadFigure, PrintedWord>): LabelRead {
  const settle = (figure: ReadFigure): ReadFigure => {
    const second = again.get(figure);
    if (second === undefined) return figure;
    const same = digitsOf(second.text) === figure.value;
    if (!same) return doubted(figure, 'differs');
    return second.sure < leastAgain
      ? figure
      : { ...figure, doubts: figure.doubts.filter((doubt) => doubt !== 'unsure') };
  };
  return {
    ...read,
    rating: read.rating === null ? null : settle(read.rating),
    outputs: read.outputs.map((output) => ({ ...output, amps: output.amps === null ? null : settle(output.amps) })),
    limits: read.limits.map((limit) => ({ ...limit, watts: settle(limit.watts) })),
  };
}
