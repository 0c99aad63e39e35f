import { boundToBe } from '../../bound-to-be.ts';
import type { RailName } from '../../standards/index.ts';
import { nominalVolts } from '../../machine/index.ts';
import { highOf, middleX, middleY, type Box, type Mark, type PrintedLine } from './printed.ts';

export type RailMark = Extract<Mark, { kind: 'rail' }>;
export type FigureMark = Exclude<Mark, { kind: 'rail' }>;

/** An output with the amps that stand by it; null where none were found. */
export interface PlacedOutput {
  readonly rail: RailMark;
  readonly amps: FigureMark | null;
  /** It was read without its sign, and is the minus output by its amps. */
  readonly signLost: boolean;
}

/** A figure in watts with the outputs that share it. */
export interface PlacedLimit {
  readonly outputs: readonly PlacedOutput[];
  readonly watts: FigureMark;
}

export interface PlacedFigures {
  readonly outputs: readonly PlacedOutput[];
  readonly limits: readonly PlacedLimit[];
  readonly rating: FigureMark | null;
  /** Amps that belong to no output that was read. */
  readonly loose: readonly FigureMark[];
}

const isRail = (mark: Mark): mark is RailMark => mark.kind === 'rail';
const isAmps = (mark: Mark): mark is FigureMark => mark.kind === 'amps';
const isWatts = (mark: Mark): mark is FigureMark => mark.kind === 'watts';

/** The mains side of a label: its volts and amps are no output's. */
export const isMains = ({ text }: PrintedLine): boolean =>
  /HZ\b|\bAC\b|INPU|~/.test(text) || /\b\d{3}\s?[-–/]\s?\d{3}\s?V/.test(text);

/** The first figure of amps behind an output on its line, before the next output. */
function ampsBeside(line: PrintedLine, rail: RailMark): FigureMark | null {
  const behind = line.marks.slice(line.marks.indexOf(rail) + 1);
  const next = behind.findIndex(isRail);
  return (next === -1 ? behind : behind.slice(0, next)).find(isAmps) ?? null;
}

/** Amps below an output: the nearest in its column. */
function ampsBelow(lines: readonly PrintedLine[], rail: RailMark, column: number): FigureMark | null {
  const below = lines
    .flatMap(({ marks }) => marks.filter(isAmps))
    .filter(({ box }) => {
      const down = middleY(box) - middleY(rail.box);
      return down > 0.5 * highOf(rail.box) && down < 5 * highOf(rail.box);
    })
    .filter(({ box }) => Math.abs(middleX(box) - middleX(rail.box)) < column / 2);
  return below.sort((a, b) => middleY(a.box) - middleY(b.box))[0] ?? null;
}

/** How far the columns of a table stand apart; for a single one, the table's width is not known. */
function columnOf(rails: readonly RailMark[], whole: Box): number {
  const middles = rails.map(({ box }) => middleX(box)).sort((a, b) => a - b);
  const gaps = middles.slice(1).map((middle, index) => middle - boundToBe(middles[index], 'middle before it'));
  return gaps.length === 0 ? whole.right - whole.left : Math.min(...gaps);
}

/** +12 and -12 differ by a small sign that is easily lost: the amps tell them apart. */
function withSign({ rail, amps }: Omit<PlacedOutput, 'signLost'>): PlacedOutput {
  const signLost = rail.label === '12V' && amps !== null && amps.value <= 2;
  return { rail: signLost ? { ...rail, rail: '-12', label: '-12V' } : rail, amps, signLost };
}

/** Outputs named once; where a label names one again, as a limit does, the one that has amps is it. */
function namedOnce(outputs: readonly PlacedOutput[]): PlacedOutput[] {
  const once = new Map<string, PlacedOutput>();
  for (const output of outputs) {
    const before = once.get(output.rail.label);
    if (before === undefined || (before.amps === null && output.amps !== null)) once.set(output.rail.label, output);
  }
  return [...once.values()];
}

/** Watts that all outputs of a run could give by their amps; infinite where one of them is not known. */
const wattsOf = (outputs: readonly PlacedOutput[]): number =>
  outputs.reduce((sum, { rail, amps }) => sum + (amps === null ? Infinity : amps.value * nominalVolts[rail.rail]), 0);

/** Outputs that a label puts under one limit: +5 with +3.3, all of +12, each alone. */
function runsOf(outputs: readonly PlacedOutput[]): PlacedOutput[][] {
  const of = (...rails: RailName[]) => outputs.filter(({ rail }) => rails.includes(rail.rail));
  const joint = [of('+5', '+3.3'), of('+12'), of('+5', '+3.3', '+12')].filter((run) => run.length > 1);
  return [...outputs.map((output) => [output]), ...joint];
}

/** The outputs whose cells a figure is in the middle of, as its watts allow; null where none fits. */
function runUnder(
  watts: FigureMark,
  outputs: readonly PlacedOutput[],
  middle: (box: Box) => number,
  cell: number,
): PlacedOutput[] | null {
  const scored = runsOf(outputs).map((run) => {
    const middles = run.map(({ rail }) => middle(rail.box));
    const off = Math.abs((Math.min(...middles) + Math.max(...middles)) / 2 - middle(watts.box)) / cell;
    const most = wattsOf(run);
    const alone = run.length === 1 && run[0]?.rail.rail !== '+12';
    // Nothing shares more than its outputs give; one alone has just what it gives.
    const tooMuch = watts.value > most * 1.03;
    const tooLittle = most < Infinity && watts.value < most * (alone ? 0.9 : 0.3);
    const unlike = tooMuch || tooLittle;
    return { run, score: off + (unlike ? (run.length === 1 ? 0.3 : 1) : 0) };
  });
  const best = scored.reduce((least, other) => (other.score < least.score ? other : least));
  return best.score < 0.6 ? best.run : null;
}

/** Watts that stand on a line behind outputs without amps: they share them. */
function limitOnLine(line: PrintedLine, outputs: readonly PlacedOutput[]): PlacedLimit | null {
  const watts = line.marks.find(isWatts);
  if (watts === undefined || line.marks.some(isAmps)) return null;
  const named = line.marks.filter(isRail).map(({ label }) => label);
  const shared = outputs.filter(({ rail }) => named.includes(rail.label));
  return shared.length === 0 ? null : { outputs: shared, watts };
}

/** The line that tells the rating by its words, or else the largest figure in watts. */
function ratingOf(lines: readonly PrintedLine[]): FigureMark | null {
  const total = lines.filter(({ text }) => /TOTAL|T0TAL/.test(text)).flatMap(({ marks }) => marks.filter(isWatts));
  const last = total.at(-1);
  if (last !== undefined) return last;
  const all = lines.flatMap(({ marks }) => marks.filter(isWatts)).sort((a, b) => b.value - a.value);
  return all[0] ?? null;
}

/**
 * Puts each figure of a label to its output: beside it, below it in its column, and the limits to those outputs whose
 * cells they stand in the middle of.
 */
export function placeFigures(all: readonly PrintedLine[]): PlacedFigures {
  const lines = all.filter((line) => !isMains(line));
  const headed = lines.find(({ marks }) => marks.filter(isRail).length > 1 && !marks.some(isAmps)) ?? null;
  const whole = { left: 0, top: 0, right: Math.max(1, ...all.map(({ box }) => box.right)), bottom: 0 };
  const outputs = namedOnce(
    lines.flatMap((line) => {
      const rails = line.marks.filter(isRail);
      const column = columnOf(rails, whole);
      const beside = line.marks.some(isAmps);
      return rails.map((rail): PlacedOutput => {
        const found = beside
          ? ampsBeside(line, rail)
          : line.marks.some(isWatts)
            ? null
            : ampsBelow(lines, rail, column);
        return withSign({ rail, amps: found });
      });
    }),
  );
  const rating = ratingOf(lines);
  const limits: PlacedLimit[] = [];
  const inColumns = headed !== null && outputs.every(({ rail }) => headed.marks.some(({ box }) => box === rail.box));
  const cells = outputs.map(({ rail }) => (inColumns ? middleX(rail.box) : middleY(rail.box))).sort((a, b) => a - b);
  const cell = Math.max(
    1,
    Math.min(...cells.slice(1).map((middle, index) => middle - boundToBe(cells[index], 'cell before it'))),
  );
  for (const line of lines) {
    const onLine = limitOnLine(line, outputs);
    if (onLine !== null) {
      limits.push(onLine);
      continue;
    }
    for (const watts of line.marks.filter(isWatts)) {
      if (watts === rating || outputs.length < 2) continue;
      const run = runUnder(watts, outputs, inColumns ? middleX : middleY, cell);
      if (run !== null) limits.push({ outputs: run, watts });
    }
  }
  const placed = new Set(outputs.map(({ amps }) => amps));
  const loose = lines.flatMap(({ marks }) => marks.filter(isAmps)).filter((mark) => !placed.has(mark));
  return { outputs, limits, rating, loose };
}
