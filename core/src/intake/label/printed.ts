import { boundToBe } from '../../bound-to-be.ts';
import type { RailName } from '../../standards/index.ts';

/** Where something stands in a picture, in its points. */
export interface Box {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

/** A word as a reader of print gives it. */
export interface PrintedWord {
  readonly text: string;
  /** How sure the reader is of it, 0 to 100. */
  readonly sure: number;
  readonly box: Box;
}

/** An output named on a label, or a figure with its unit. */
export type Mark =
  | { readonly kind: 'rail'; readonly rail: RailName; readonly label: string; readonly box: Box; readonly sure: number }
  | {
      readonly kind: 'amps' | 'watts';
      readonly value: number;
      /** Something in it had to be taken for what it looks like, such as O for 0. */
      readonly mended: boolean;
      readonly box: Box;
      readonly sure: number;
    };

/** Words that stand side by side, and what is marked in them. */
export interface PrintedLine {
  readonly text: string;
  readonly box: Box;
  readonly marks: readonly Mark[];
}

export const middleX = ({ left, right }: Box): number => (left + right) / 2;
export const middleY = ({ top, bottom }: Box): number => (top + bottom) / 2;
export const highOf = ({ top, bottom }: Box): number => bottom - top;

export const around = (boxes: readonly Box[]): Box => ({
  left: Math.min(...boxes.map(({ left }) => left)),
  top: Math.min(...boxes.map(({ top }) => top)),
  right: Math.max(...boxes.map(({ right }) => right)),
  bottom: Math.max(...boxes.map(({ bottom }) => bottom)),
});

/** Surer than this, a word that holds nothing but letters is print and not grain. */
const leastSure = 25;

/** Words in lines from the top, each from the left. */
function lined(words: readonly PrintedWord[]): PrintedWord[][] {
  const lines: PrintedWord[][] = [];
  for (const word of [...words].sort((a, b) => middleY(a.box) - middleY(b.box))) {
    const line = lines.findLast((other) => {
      const last = around(other.map(({ box }) => box));
      const near = Math.min(highOf(last), highOf(word.box)) * 0.5;
      return Math.abs(middleY(last) - middleY(word.box)) < near;
    });
    if (line === undefined) lines.push([word]);
    else line.push(word);
  }
  return lines.map((line) => line.sort((a, b) => a.box.left - b.box.left));
}

/** `+12V`, `-12V`, `+12V2`, `5V`, `3.3V`, `5VSB`; the sign, the volts, standby and the number of an output. */
const voltsPattern = /([+±\-–—−]?)\s?(3[.,]?3|5|12)\s?V+(?:\s?(S+[B8E]|STB|STANDBY)|([1-8])(?!\d))?/;
/** `+121`, where the V of `+12V1` was read as nothing. */
const bareTwelve = /(?<=\+)12([1-6])(?!\d)/;
const railPattern = new RegExp(`(?<![A-Z0-9.])(?:${voltsPattern.source}|${bareTwelve.source})`, 'g');
const figurePattern = /((?<![A-Z0-9.] ?)\d (?=\d\s?A)\d|[0-9OILSBC][0-9OILSB.,]*)\s?(A|W+)(?![A-Z0-9])/g;

const lookAlikes: Readonly<Record<string, string>> = { O: '0', C: '0', I: '1', L: '1', S: '5', B: '8' };

/** A figure as it is printed; null where it is none. What has no point but begins with 0 had one behind that 0. */
function figure(text: string): { readonly value: number; readonly mended: boolean } | null {
  // A space in it was a point; and where a 1 is read as an L as well, it is one 1.
  const digits = text
    .replace(/^(\d) (\d)$/, '$1.$2')
    .replace(/1[LI]|[LI]1/g, '1')
    .replace(/[OCILSB]/g, (letter) => lookAlikes[letter] ?? letter)
    .replace(',', '.');
  const pointed = digits.replace(/^0(?=\d)/, '0.').replace(/\.$/, '');
  if (!/^\d{1,4}(?:\.\d{1,2})?$/.test(pointed)) return null;
  return { value: Number(pointed), mended: pointed !== text.replace(',', '.') };
}

const minus = new Set(['-', '–', '—', '−']);

function railOf([, sign = '', volts = '12', standby, number, bare]: RegExpExecArray): {
  rail: RailName;
  label: string;
} | null {
  if (standby !== undefined) return volts === '5' ? { rail: '+5sb', label: '5VSB' } : null;
  if (volts === '12' && minus.has(sign)) return { rail: '-12', label: '-12V' };
  if (volts === '12') return { rail: '+12', label: `12V${number ?? bare ?? ''}` };
  if (minus.has(sign)) return null;
  return volts === '5' ? { rail: '+5', label: '5V' } : { rail: '+3.3', label: '3.3V' };
}

/** Where the letters from one place of a line to another stand. */
function boxOf(words: readonly { readonly from: number; readonly word: PrintedWord }[], from: number, to: number) {
  const touched = words.filter((one) => one.from < to && one.from + one.word.text.length > from);
  const boxes = touched.map(({ from: begin, word: { text, box } }): Box => {
    const letter = (box.right - box.left) / Math.max(1, text.length);
    return {
      ...box,
      left: box.left + letter * Math.max(0, from - begin),
      right: box.right - letter * Math.max(0, begin + text.length - to),
    };
  });
  return { box: around(boxes), sure: Math.min(...touched.map(({ word }) => word.sure)) };
}

/** What is marked in the words of a line. */
function lineOf(words: readonly PrintedWord[]): PrintedLine {
  let text = '';
  const placed = words.map((word, index) => {
    const before = words[index - 1];
    // A unit may stand a little apart from its figure; cells of a table are further apart.
    const gap = before === undefined ? 0 : word.box.left - before.box.right;
    if (before !== undefined) text += gap < 0.9 * highOf(word.box) ? ' ' : '  ';
    const from = text.length;
    text += word.text.toUpperCase();
    return { from, word };
  });
  const marks: Mark[] = [];
  for (const found of text.matchAll(railPattern)) {
    const named = railOf(found);
    if (named === null) continue;
    const place = boxOf(placed, found.index, found.index + found[0].length);
    marks.push({ kind: 'rail', ...named, ...place });
  }
  for (const found of text.matchAll(figurePattern)) {
    const read = figure(boundToBe(found[1], 'figure'));
    if (read === null) continue;
    const place = boxOf(placed, found.index, found.index + found[0].length);
    marks.push({ kind: found[2] === 'A' ? 'amps' : 'watts', ...read, ...place });
  }
  return {
    text: text.replace(/\s+/g, ' '),
    box: around(words.map(({ box }) => box)),
    marks: marks.sort((a, b) => a.box.left - b.box.left),
  };
}

/** The lines of a label from the top, with the outputs and figures in them; what is grain and no print is left out. */
export function printedLines(words: readonly PrintedWord[]): PrintedLine[] {
  const print = words.filter(
    ({ text, sure, box }) => highOf(box) > 0 && (sure >= leastSure || /\d/.test(text)) && /[\w+]/.test(text),
  );
  return lined(print).map(lineOf);
}
