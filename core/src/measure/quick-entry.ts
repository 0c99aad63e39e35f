import type { SupplyLabel } from '../machine/index.ts';
import { railBand, railColour, railNames, type RailName } from '../standards/index.ts';
import { isRail, isTime, type Condition, type ReadingCode, type ReadingValue, type Subject } from './reading.ts';

/** A figure that can be right but deserves a question before it is kept. */
export type Doubt =
  | { readonly code: 'sign'; readonly figure: number }
  | { readonly code: 'other-rail'; readonly figure: number; readonly rail: RailName }
  | { readonly code: 'millivolts'; readonly figure: number; readonly volts: number }
  /** Written without its decimal point. */
  | { readonly code: 'point'; readonly figure: number; readonly volts: number }
  | { readonly code: 'mains'; readonly figure: number }
  | { readonly code: 'far'; readonly figure: number }
  /** The supply's label names no such output. */
  | { readonly code: 'no-such-rail' };

export interface QuickReading {
  readonly subject: Subject;
  readonly value: ReadingValue;
  readonly condition: Condition | null;
  /** Load of the whole machine in watts, and of this rail in amps, where they were said. */
  readonly loadWatts: number | null;
  readonly loadAmps: number | null;
  readonly doubt: Doubt | null;
}

export type QuickProblem =
  | { readonly code: 'unknown-word'; readonly word: string }
  | { readonly code: 'missing-value'; readonly subject: Subject }
  | { readonly code: 'missing-rail'; readonly word: string }
  /** Supplies of today have no such rail; what was read there is left out with it. */
  | { readonly code: 'historic-rail' }
  /** No machine draws so much. */
  | { readonly code: 'load-too-large'; readonly word: string }
  | { readonly code: 'not-a-figure'; readonly subject: Subject; readonly word: string };

/** What one line of quick entry means: readings as far as understood, and what was not. */
export interface QuickEntry {
  readonly readings: readonly QuickReading[];
  readonly problems: readonly QuickProblem[];
}

/** A table of words; a map, since an object answers to names of its own, `constructor` among them. */
const wordsFor = <T>(table: Readonly<Record<string, T>>): ReadonlyMap<string, T> => new Map(Object.entries(table));

const subjectWords = wordsFor<Subject>({
  '12': '+12',
  '+12': '+12',
  '12v': '+12',
  '+12v': '+12',
  '5': '+5',
  '+5': '+5',
  '5v': '+5',
  '+5v': '+5',
  '3.3': '+3.3',
  '+3.3': '+3.3',
  '3.3v': '+3.3',
  '+3.3v': '+3.3',
  '3v3': '+3.3',
  '33': '+3.3',
  '3': '+3.3',
  '-12': '-12',
  '-12v': '-12',
  m12: '-12',
  '5sb': '+5sb',
  '+5sb': '+5sb',
  '5vsb': '+5sb',
  '+5vsb': '+5sb',
  sb: '+5sb',
  standby: '+5sb',
  pg: 'power-good',
  'power-good': 'power-good',
  'pwr-ok': 'power-good',
  pwrok: 'power-good',
  on: 'power-on',
  'power-on': 'power-on',
  hold: 'hold-up',
  holdup: 'hold-up',
  'hold-up': 'hold-up',
  r12: 'ripple +12',
  ripple12: 'ripple +12',
  r5: 'ripple +5',
  ripple5: 'ripple +5',
  'r3.3': 'ripple +3.3',
  r33: 'ripple +3.3',
  'ripple3.3': 'ripple +3.3',
  'r-12': 'ripple -12',
  'ripple-12': 'ripple -12',
  rsb: 'ripple +5sb',
  ripplesb: 'ripple +5sb',
  // By the colour of the wire; violet and gray are other words for two of them.
  ...Object.fromEntries(railNames.map((rail) => [railColour[rail], rail])),
  violet: '+5sb',
  grey: 'power-good',
  gray: 'power-good',
});
const codeWords = wordsFor<ReadingCode>({
  hh: 'too-high',
  high: 'too-high',
  ll: 'too-low',
  low: 'too-low',
  '--': 'absent',
  absent: 'absent',
  none: 'absent',
  dead: 'absent',
  missing: 'absent',
  nothing: 'absent',
  wanders: 'wanders',
  '~': 'wanders',
  wander: 'wanders',
});
const conditionWords = wordsFor<Condition>({
  off: 'off-load',
  'off-load': 'off-load',
  offload: 'off-load',
  idle: 'idle',
  work: 'work',
  load: 'work',
  busy: 'work',
  loaded: 'work',
  stress: 'work',
  unloaded: 'off-load',
});
/** Words that say nothing of their own: `the 12 volt rail reads 11.92`. */
const fillers = new Set(
  (
    'v volt volts at the a rail line wire is was reads read shows showed measured measures gives under in when and ' +
    'but then ' +
    'with about only just to sags sagged drops dropped dips dipped falls fell goes rises rose holds ok fine'
  ).split(' '),
);

const railWord = '([+-]?(?:12|5|3[.,]3)v?|3v3|(?:5\\s*v?\\s*)?sb|standby)';
/** `11.92 on 12`, `80 mV ripple on the 12 V rail`: the figure is said first. */
const figureFirst = new RegExp(
  `([+-]?\\d+[.,]\\d+)\\s*v?\\s+(?:on|at|from|for)\\s+(?:the\\s+)?${railWord}(?=\\s|$)`,
  'g',
);
const rippleFirst =
  /(\d+(?:[.,]\d+)?)\s*mv\s+(?:of\s+)?ripple\s+(?:on|at|of)\s+(?:the\s+)?\+?(-?12|5|3[.,]3|sb)\s*v?(?=\s|$)/g;
/** `on load` is a condition, `no load` the opposite of one; neither is the time of switching on. */
const onLoad = /\b(?:on|under)\s+(?:full\s+|heavy\s+|light\s+|max\s+)*(?=(?:load|work|idle|stress)\b)/g;
const noLoad = /\b(?:no|without(?:\s+a(?:ny)?)?|zero)[\s-]load\b/g;

/** A load as it is said, `310w` or `18,5a`; what the form and the record take at most. */
const loadPattern = /^(\d+(?:[.,]\d+)?)(w|a)$/;
const mostLoad = { w: 5000, a: 400 } as const;

/** A typed figure: decimal point or comma, optional V, mV or ms. Null when it is not one. */
export function parseFigure(text: string): number | null {
  const figure = /^([+-]?(?:\d+(?:[.,]\d*)?|[.,]\d+))\s*(?:v|mv|ms)?$/i.exec(text.trim())?.[1];
  return figure === undefined ? null : Number(figure.replace(',', '.'));
}

/**
 * A figure as it was said of a subject, in its unit: volts of a rail, millivolts of ripple, milliseconds of a time. A
 * unit that was said counts: `11920mv` of a rail is 11.92 V, `0.35s` of a time 350 ms. Null where it is no figure, or
 * one in a unit that such a thing is not read in.
 */
function figureOf(subject: Subject, word: string): number | null {
  const match = /^([+-]?(?:\d+(?:[.,]\d*)?|[.,]\d+))(v|mv|ms|s)?$/.exec(word);
  if (match?.[1] === undefined) return null;
  const figure = Number(match[1].replace(',', '.'));
  const own = isTime(subject) ? 'ms' : isRail(subject) ? 'v' : 'mv';
  const unit = match[2] ?? own;
  if (unit === own) return figure;
  // Rounded to what a meter shows: 0.35 s is 350 ms and nothing beside it.
  const scaled = (factor: number) => Number((figure * factor).toPrecision(12));
  if (unit === 'mv' && own === 'v') return scaled(1 / 1000);
  return (unit === 'v' && own === 'mv') || (unit === 's' && own === 'ms') ? scaled(1000) : null;
}

/** Signs between words are none, what belongs together is one word, and a figure has its unit with it. */
const wordsOf = (text: string): string[] =>
  text
    .toLowerCase()
    .replace(/[−–]/g, '-')
    .replace(/[:=;|]|,(?=\s|$)|(?<=^|\s)\/(?=\s|$)/g, ' ')
    .replace(/\bminus\s+(?=\d)/g, '-')
    .replace(noLoad, 'off-load')
    .replace(onLoad, '')
    .replace(/\b(?:full|heavy|max)\s+(?=load\b)/g, '')
    .replace(rippleFirst, 'r$2 $1mv')
    .replace(figureFirst, '$2 $1')
    .replace(/\b(?:power\s+good|pwr\s+ok)\b/g, 'pg')
    .replace(/\bhold\s+up\b/g, 'hold-up')
    .replace(/\bpower\s+on\b/g, 'power-on')
    // The pin, which is none of what is read here, and not the time of switching on.
    .replace(/\bps[\s_]on\b/g, 'ps-on')
    .replace(/\bripple\s+(?:on\s+)?\+?(-?12|5|3[.,]3|sb)v?(?=\s|$)/g, 'r$1')
    .replace(/(?<=\d)\s+(mv|ms|v|w|a|s)(?![\w-])/g, '$1')
    .replace(/(?<=\d)\s*(?:watts?)(?![\w-])/g, 'w')
    .replace(/(?<=\d)\s*(?:amps?)(?![\w-])/g, 'a')
    .split(/\s+/)
    .filter((word) => word !== '' && !fillers.has(word));

/**
 * A line that begins with a condition says it first all through: `idle 12 12.1 work 12 11.4`. The conditions go behind
 * what they hold for, where they stand otherwise, and so do loads that stand right behind them.
 */
function conditionsBehind(words: readonly string[]): readonly string[] {
  if (conditionWords.get(words[0] ?? '') === undefined) return words;
  const behind: string[] = [];
  let first: string[] = [];
  let fresh = true;
  for (const word of words) {
    if (conditionWords.get(word) !== undefined) {
      behind.push(...first);
      first = [word];
      fresh = true;
    } else if (fresh && loadPattern.test(word)) first.push(word);
    else {
      fresh = false;
      behind.push(word);
    }
  }
  return [...behind, ...first];
}

/**
 * Rails that a supply does not have, by its label. People often copy only the three large outputs, so the small ones
 * count as missing only where the label was copied further: -12 V beside a standby output, standby on a supply of +12
 * alone.
 */
export function missingRails(label: Pick<SupplyLabel, 'rails'> | null): RailName[] {
  if (label === null || label.rails.length === 0) return [];
  const named = new Set(label.rails.map((output) => output.rail));
  return railNames.filter(
    (rail) =>
      !named.has(rail) &&
      (rail === '-12' ? named.has('+5sb') || !named.has('+5') : rail === '+5sb' ? !named.has('+5') : true),
  );
}

/** What a figure is with the decimal point that it lacks, such as 12.04 of 1204; null where that is no such rail's. */
function withPoint(figure: number, nominal: number): number | null {
  const volts = [10, 100].map((by) => figure / by).find((read) => Math.abs(read - nominal) <= 0.1 * Math.abs(nominal));
  return Number.isInteger(figure) ? (volts ?? null) : null;
}

/**
 * A doubt about a figure under a rail: swapped probe, mixed-up rail, millivolts, mains, a lost point, or far out. Null
 * when plausible.
 */
export function doubtOf(subject: Subject, figure: number): Doubt | null {
  if (!isRail(subject)) return figure < 0 || figure > (isTime(subject) ? 5000 : 2000) ? { code: 'far', figure } : null;
  const nominal = railBand(subject, '2.x').nominal;
  if (figure === 0 || Math.abs(figure - nominal) <= 0.25 * Math.abs(nominal)) return null;
  if (Math.abs(figure + nominal) <= 0.25 * Math.abs(nominal)) return { code: 'sign', figure };
  const milli = figure / 1000;
  if (Math.abs(Math.abs(milli) - Math.abs(nominal)) <= 0.25 * Math.abs(nominal))
    return { code: 'millivolts', figure, volts: milli };
  for (const rail of railNames) {
    const other = railBand(rail, '2.x').nominal;
    if (rail !== subject && rail !== '+5sb' && Math.abs(figure - other) <= 0.08 * Math.abs(other))
      return { code: 'other-rail', figure, rail };
  }
  if (Math.abs(figure) >= 85 && Math.abs(figure) <= 270) return { code: 'mains', figure };
  const volts = withPoint(figure, nominal);
  if (volts !== null) return { code: 'point', figure, volts };
  return Math.sign(figure) !== Math.sign(nominal) || Math.abs(figure) > 1.5 * Math.abs(nominal)
    ? { code: 'far', figure }
    : null;
}

/** A reading as it is gathered: what is said of it may come behind it. */
type Gathered = { -readonly [Key in keyof QuickReading]: QuickReading[Key] };

/** A line as it is read, word by word. */
class QuickReader {
  readonly readings: Gathered[] = [];
  readonly problems: QuickProblem[] = [];
  /** What the next figure is of. */
  private subject: Subject | null = null;
  /** A condition between a rail and its figure: `12 under load 11.4`. */
  private said: Condition | null = null;
  /** The reading before this word was no figure: what is said of it belongs to nothing. */
  private failed = false;
  /** The rail before this word is one that supplies of today do not have. */
  private historic = false;
  private readonly missing: readonly RailName[];

  constructor(missing: readonly RailName[]) {
    this.missing = missing;
  }

  read(word: string): void {
    if (this.historic) {
      this.historic = false;
      if (parseFigure(word) !== null || codeWords.has(word)) return;
    }
    if (this.subject === null) this.between(word);
    else this.of(this.subject, word);
  }

  finish(): QuickEntry {
    const { readings, problems, subject } = this;
    if (subject !== null) problems.push({ code: 'missing-value', subject });
    return { readings, problems };
  }

  /** A word with no rail before it: what is said of the readings so far, or the next rail. */
  private between(word: string): void {
    if (/^(?:-5v?|white)$/.test(word)) {
      this.problems.push({ code: 'historic-rail' });
      this.historic = true;
      return;
    }
    const isBegun = this.readings.length > 0 || this.failed;
    const condition = conditionWords.get(word);
    const load = loadPattern.exec(word);
    if (isBegun && condition !== undefined) this.holdsFor(condition);
    else if (isBegun && load !== null) this.load(word, load);
    else this.rail(word);
  }

  /** A condition holds for the readings before it that have none yet. */
  private holdsFor(condition: Condition): void {
    for (const reading of lastWhile(this.readings, (one) => one.condition === null)) reading.condition = condition;
  }

  private load(word: string, [, figure, unit]: readonly string[]): void {
    const size = Number(figure?.replace(',', '.'));
    const last = this.readings.at(-1);
    if (size > mostLoad[unit === 'a' ? 'a' : 'w']) this.problems.push({ code: 'load-too-large', word });
    else if (last === undefined) return;
    else if (unit === 'w')
      // Of what was read in the same state: a load at work says nothing of what was read at idle.
      for (const reading of lastWhile(
        this.readings,
        (one) => one.loadWatts === null && one.condition === last.condition,
      ))
        reading.loadWatts = size;
    // Amps are those of the reading right before them.
    else if (!this.failed) last.loadAmps = size;
  }

  private rail(word: string): void {
    const named = subjectWords.get(word.replace(',', '.'));
    const same = this.sameRail(word);
    if (named !== undefined) this.subject = named;
    else if (same !== null) this.value(same, word);
    else if (parseFigure(word) === null) this.problems.push({ code: 'unknown-word', word });
    else this.problems.push({ code: 'missing-rail', word });
  }

  /** `12 12.1 idle, 11.4 work`: the rail of a figure that stands behind a state without one, where it can be its. */
  private sameRail(word: string): Subject | null {
    const last = this.readings.at(-1);
    if (last === undefined || this.failed || last.condition === null || !isRail(last.subject)) return null;
    const figure = figureOf(last.subject, word);
    return figure !== null && figure !== 0 && doubtOf(last.subject, figure) === null ? last.subject : null;
  }

  /** A word behind a rail: what else the rail is, its condition, or what was read. */
  private of(subject: Subject, word: string): void {
    const condition = conditionWords.get(word);
    if (subject === '+5' && /^v?sb$|^standby$/.test(word)) this.subject = '+5sb';
    else if (word === 'ripple' && isRail(subject)) this.subject = `ripple ${subject}`;
    else if (condition !== undefined) this.said = condition;
    else this.value(subject, word);
  }

  private value(subject: Subject, word: string): void {
    const code = codeWords.get(word);
    const figure = figureOf(subject, word);
    const isMissing = this.missing.some((rail) => rail === subject) && code !== 'absent';
    const lacking: Doubt | null = isMissing ? { code: 'no-such-rail' } : null;
    const rest = { subject, condition: this.said, loadWatts: null, loadAmps: null };
    this.failed = code === undefined && figure === null;
    if (code !== undefined) this.readings.push({ ...rest, value: { kind: 'code', code }, doubt: lacking });
    else if (figure !== null)
      this.readings.push({ ...rest, value: { kind: 'figure', figure }, doubt: doubtOf(subject, figure) ?? lacking });
    else this.problems.push({ code: 'not-a-figure', subject, word });
    this.subject = null;
    this.said = null;
  }
}

/** The last of a list, as far back as all of them are such. */
function lastWhile<T>(list: readonly T[], isSuch: (one: T) => boolean): readonly T[] {
  const end = list.findLastIndex((one) => !isSuch(one));
  return list.slice(end + 1);
}

/**
 * Reads a line such as `12 11.92`, `12v 11,92 work`, `5 HH`, `pg 370`, `-12 -11.6`, or several at once.
 * A condition word holds for the readings before it that have none yet, and so does the load in watts (`310w`), within
 * one state; amps (`18a`) are those of the rail read last. A figure without a rail behind a state is of the rail before
 * it, where it can be. A line that begins with a condition says conditions first
 * all through.
 * @param missing rails that the supply does not have: a reading there is asked about, unless it says "absent"
 */
export function parseQuickEntry(text: string, missing: readonly RailName[] = []): QuickEntry {
  const reader = new QuickReader(missing);
  for (const word of conditionsBehind(wordsOf(text))) reader.read(word);
  return reader.finish();
}
