/* oxlint-disable typescript/no-non-null-assertion --
   values stand in rows of one length, gone through by number */
import type { RailName } from '../standards/index.ts';

/** What a column of a log holds. */
export type LogColumn =
  | { readonly holds: 'time'; readonly format: TimeFormat }
  | { readonly holds: 'rail'; readonly rail: RailName; readonly unit: 'V' | 'mV' }
  | { readonly holds: 'load'; readonly unit: 'A' | 'mA' }
  | { readonly holds: 'nothing' };

/** Seconds since the start, seconds or milliseconds since 1970, a time of day, or a date with a time. */
export type TimeFormat =
  'seconds' | 'epoch-seconds' | 'epoch-milliseconds' | 'clock' | 'iso' | 'day-first' | 'month-first';
export const timeFormats = [
  'seconds',
  'epoch-seconds',
  'epoch-milliseconds',
  'clock',
  'iso',
  'day-first',
  'month-first',
] as const satisfies readonly TimeFormat[];

/** How a log is to be read. `headerRows` rows at the top are no data. */
export interface LogMapping {
  readonly columns: readonly LogColumn[];
  readonly decimal: '.' | ',';
  readonly headerRows: number;
}

const day = 86_400;
const clockPattern = /^(\d{1,2}):(\d{2})(?::(\d{2}(?:[.,]\d+)?))?\s*([ap]m)?$/i;
const datePattern =
  /^(\d{1,4})[./-](\d{1,2})[./-](\d{1,4})[ T]+(\d{1,2}):(\d{2})(?::(\d{2}(?:[.,]\d+)?))?(?:Z|([+-])(\d{2}):?(\d{2}))?$/;
const isoPattern = /^\d{4}-\d{2}-\d{2}[ T]\d{2}:\d{2}/;

/** What `plainFigure` read last. A million rows would otherwise leave millions of numbers to be collected. */
export const lastFigure = new Float64Array(1);

const powersOfTen = Array.from({ length: 16 }, (_, index) => 10 ** index);

/**
 * Reads a plain decimal between two places of a text into `lastFigure`, without making a string or a number object of
 * it; false where it is not plain. Fifteen digits over an exact power of ten round as the language's own reading does
 * (Clinger 1990).
 */
export function plainFigure(text: string, from: number, to: number, decimal: number): boolean {
  let at = from;
  const sign = text.charCodeAt(at);
  if (sign === 45 || sign === 43) at += 1;
  if (to - at > 16 || at >= to) return false;
  let digits = 0;
  let places = -1;
  for (; at < to; at += 1) {
    const code = text.charCodeAt(at);
    if (code >= 48 && code <= 57) {
      digits = digits * 10 + code - 48;
      if (places >= 0) places += 1;
    } else if (code === decimal && places < 0) places = 0;
    else return false;
  }
  if (digits > 1e15 || places === to - from - 1) return false;
  const value = places > 0 ? digits / powersOfTen[places]! : digits;
  lastFigure[0] = sign === 45 ? -value : value;
  return true;
}

/** A figure with the log's decimal sign; NaN for anything else. */
export function logFigure(text: string, decimal: '.' | ','): number {
  if (plainFigure(text, 0, text.length, decimal === ',' ? 44 : 46)) return lastFigure[0]!;
  // Number('') and Number(' ') are 0.
  if (text.trim() === '') return Number.NaN;
  return Number(decimal === ',' ? text.replace(',', '.') : text);
}

/** Days from the civil calendar to 1970 (Hinnant's algorithm), so that no clock or time zone is needed. */
function daysSince1970(year: number, month: number, dayOfMonth: number): number {
  const y = month <= 2 ? year - 1 : year;
  const era = Math.floor(y / 400);
  const yearOfEra = y - era * 400;
  const dayOfYear = Math.floor((153 * (month + (month > 2 ? -3 : 9)) + 2) / 5) + dayOfMonth - 1;
  return (
    era * 146_097 + yearOfEra * 365 + Math.floor(yearOfEra / 4) - Math.floor(yearOfEra / 100) + dayOfYear - 719_468
  );
}

/**
 * A time stamp in seconds, on a scale of its own for each format; NaN for anything else. A zone's offset is taken off,
 * so that a night in which the clocks change runs on.
 */
export function logSeconds(text: string, format: TimeFormat, decimal: '.' | ','): number {
  switch (format) {
    case 'seconds':
    case 'epoch-seconds':
      return logFigure(text, decimal);
    case 'epoch-milliseconds':
      return logFigure(text, decimal) / 1000;
    case 'clock': {
      const match = clockPattern.exec(text);
      if (match === null) return Number.NaN;
      const half = match[4]?.toLowerCase();
      const hours = (Number(match[1]) % (half === undefined ? 24 : 12)) + (half === 'pm' ? 12 : 0);
      return hours * 3600 + Number(match[2]) * 60 + Number((match[3] ?? '0').replace(',', '.'));
    }
    case 'iso': {
      const quick = quickIso(text);
      return Number.isNaN(quick) ? dated(text, format) : quick;
    }
    case 'day-first':
    case 'month-first':
      return dated(text, format);
  }
}

const digits = (text: string, at: number) => (text.charCodeAt(at) - 48) * 10 + text.charCodeAt(at + 1) - 48;
let lastDate = -1;
let lastDays = Number.NaN;
/** Date, hour and minute of the row before as character codes, and their seconds: most rows share them. */
const lastMinute = new Uint8Array(17);
const lastMinuteSeconds = new Float64Array(1);

function sameMinute(text: string): boolean {
  if (text.length < 19) return false;
  // From the end, where times differ first.
  for (let at = 16; at >= 0; at -= 1) if (text.charCodeAt(at) !== lastMinute[at]) return false;
  return true;
}

/** `2026-11-24T13:05:01.5Z` without a pattern, the date remembered from row to row; NaN where it does not look so. */
function quickIso(text: string): number {
  if (sameMinute(text)) {
    const until = text.charCodeAt(text.length - 1) === 90 ? text.length - 1 : text.length;
    return plainFigure(text, 17, until, 46) ? lastMinuteSeconds[0]! + lastFigure[0]! : Number.NaN;
  }
  if (
    text.length < 19 ||
    text.charCodeAt(4) !== 45 ||
    text.charCodeAt(7) !== 45 ||
    text.charCodeAt(13) !== 58 ||
    text.charCodeAt(16) !== 58
  )
    return Number.NaN;
  const date = (digits(text, 0) * 100 + digits(text, 2)) * 10_000 + digits(text, 5) * 100 + digits(text, 8);
  if (date !== lastDate) {
    const month = digits(text, 5);
    const dayOfMonth = digits(text, 8);
    if (!(month >= 1 && month <= 12 && dayOfMonth >= 1 && dayOfMonth <= 31)) return Number.NaN;
    lastDate = date;
    lastDays = daysSince1970(Math.floor(date / 10_000), month, dayOfMonth) * day;
  }
  const end = text.charCodeAt(text.length - 1) === 90 ? text.length - 1 : text.length;
  const minute = lastDays + digits(text, 11) * 3600 + digits(text, 14) * 60;
  if (!plainFigure(text, 17, end, 46)) return Number.NaN;
  for (let at = 0; at < 17; at += 1) lastMinute[at] = text.charCodeAt(at);
  lastMinuteSeconds[0] = minute;
  return minute + lastFigure[0]!;
}

function dated(text: string, format: 'iso' | 'day-first' | 'month-first'): number {
  const match = datePattern.exec(text);
  if (match === null) return Number.NaN;
  const [a, b, c] = [Number(match[1]), Number(match[2]), Number(match[3])];
  const [year, month, dayOfMonth] =
    format === 'iso'
      ? [a, b, c]
      : format === 'day-first'
        ? [c < 100 ? c + 2000 : c, b, a]
        : [c < 100 ? c + 2000 : c, a, b];
  if (month < 1 || month > 12 || dayOfMonth < 1 || dayOfMonth > 31) return Number.NaN;
  const zone =
    match[7] === undefined ? 0 : (match[7] === '-' ? -1 : 1) * (Number(match[8]) * 3600 + Number(match[9]) * 60);
  return (
    daysSince1970(year, month, dayOfMonth) * day +
    Number(match[4]) * 3600 +
    Number(match[5]) * 60 +
    Number((match[6] ?? '0').replace(',', '.')) -
    zone
  );
}

const railWords: readonly (readonly [RegExp, RailName])[] = [
  [/(stand ?by|5 ?v ?sb|\bsb\b|vsb)/i, '+5sb'],
  [/(^|[^\d.])[-−–]\s?12/i, '-12'],
  [/12/, '+12'],
  [/3[.,_]?3|3v3/i, '+3.3'],
  [/5/, '+5'],
];
const timeWords = /time|date|stamp|elapsed|seconds|uhr|zeit|heure|^t( ?\[?s\]?)?$/i;
const loadWords = /amp|current|\bload\b|\[a\]|\(a\)|\bma\b/i;

function guessTime(values: readonly string[], decimal: '.' | ','): TimeFormat | null {
  const all = (test: (value: string) => boolean) => values.length > 0 && values.every(test);
  if (all((value) => isoPattern.test(value))) return 'iso';
  if (all((value) => datePattern.test(value)))
    return values.some((value) => Number(datePattern.exec(value)![1]) > 12) || values[0]!.includes('.')
      ? 'day-first'
      : values.some((value) => Number(datePattern.exec(value)![2]) > 12)
        ? 'month-first'
        : 'day-first';
  if (all((value) => clockPattern.test(value))) return 'clock';
  const figures = values.map((value) => logFigure(value, decimal));
  if (
    !figures.every(Number.isFinite) ||
    !figures.every((figure, index) => index === 0 || figure >= figures[index - 1]!) ||
    figures[0] === figures.at(-1)
  )
    return null;
  return figures[0]! > 1e11 ? 'epoch-milliseconds' : figures[0]! > 1e8 ? 'epoch-seconds' : 'seconds';
}

function nearest(volts: number): RailName | null {
  for (const [rail, nominal] of [
    ['+12', 12],
    ['+5', 5],
    ['+3.3', 3.3],
    ['-12', -12],
  ] as const)
    if (Math.abs(volts - nominal) <= 0.15 * Math.abs(nominal)) return rail;
  return null;
}

/** What could not be guessed of a log. */
export type LogShapeProblem =
  | { readonly code: 'empty' }
  | { readonly code: 'one-column' }
  | { readonly code: 'no-figures' }
  | { readonly code: 'no-time' }
  | { readonly code: 'no-rail' };

/**
 * Guesses how a log is to be read from its first rows: header rows, decimal sign, the column of time and its format,
 * the rails by their names or else by their level, millivolts. Every guess can be corrected.
 * @param rows the first rows as cells, header included
 */
export function guessMapping(rows: readonly (readonly string[])[]): {
  readonly mapping: LogMapping;
  readonly problems: readonly LogShapeProblem[];
} {
  const cells = rows.map((row) => row.map((cell) => cell.trim()));
  const width = Math.max(0, ...cells.map((row) => row.length));
  const looksDecimalComma =
    cells.flat().filter((cell) => /^[+-]?\d+,\d+$/.test(cell)).length >
    cells.flat().filter((cell) => /^[+-]?\d+\.\d+$/.test(cell)).length;
  const decimal = looksDecimalComma ? (',' as const) : ('.' as const);
  const isData = (row: readonly string[]) =>
    row.filter((cell) => Number.isFinite(logFigure(cell, decimal))).length >= Math.max(1, Math.min(2, width) - 1);
  const first = cells.findIndex(
    (row, index) => isData(row) && (cells[index + 1] === undefined || isData(cells[index + 1]!)),
  );
  const headerRows = first < 0 ? cells.length : first;
  const header = cells[headerRows - 1] ?? [];
  const data = cells.slice(headerRows, headerRows + 40);
  const column = (index: number) => data.map((row) => row[index] ?? '').filter((cell) => cell !== '');
  const figures = (index: number) => column(index).map((cell) => logFigure(cell, decimal));
  const named = Array.from({ length: width }, (_, index) => index).filter((index) =>
    timeWords.test(header[index] ?? ''),
  );
  const timeAt =
    [...named, ...Array.from({ length: width }, (_, index) => index)].find(
      (index) =>
        guessTime(column(index), decimal) !== null &&
        (named.includes(index) || railOfName(header[index] ?? '') === null),
    ) ?? -1;
  const taken = new Set<RailName>();
  const columns = Array.from({ length: width }, (_, index): LogColumn => {
    if (index === timeAt) return { holds: 'time', format: guessTime(column(index), decimal)! };
    const own = figures(index).filter(Number.isFinite);
    if (own.length === 0) return { holds: 'nothing' };
    const name = header[index] ?? '';
    if (loadWords.test(name)) return { holds: 'load', unit: /ma/i.test(name) ? 'mA' : 'A' };
    const middle = own.sort((a, b) => a - b)[own.length >> 1]!;
    const milli = Math.abs(middle) > 1000;
    const rail = railOfName(name) ?? nearest(milli ? middle / 1000 : middle);
    if (rail === null || taken.has(rail)) return { holds: 'nothing' };
    taken.add(rail);
    return { holds: 'rail', rail, unit: milli ? 'mV' : 'V' };
  });
  const problems: LogShapeProblem[] = [];
  if (cells.every((row) => row.every((cell) => cell === ''))) problems.push({ code: 'empty' });
  else if (width < 2) problems.push({ code: 'one-column' });
  else if (data.length === 0) problems.push({ code: 'no-figures' });
  else {
    if (timeAt < 0) problems.push({ code: 'no-time' });
    if (taken.size === 0) problems.push({ code: 'no-rail' });
  }
  return { mapping: { columns, decimal, headerRows }, problems };
}

function railOfName(name: string): RailName | null {
  return railWords.find(([pattern]) => pattern.test(name))?.[1] ?? null;
}
