import { railBand, type Guide, type RailName } from '../standards/index.ts';
import { nextToNothing } from './verdict.ts';
import { lastFigure, logFigure, logSeconds, plainFigure, type LogMapping } from './log-columns.ts';

/** Something that happened on a rail, in seconds from the log's start. */
export interface LogEvent {
  readonly rail: RailName;
  /**
   * `dip` and `spike`: outside its band; `step`: the level moved and stayed; `gap`: nothing was logged; `off`: the supply was
   * switched off, or had not been started.
   */
  readonly kind: 'dip' | 'spike' | 'step' | 'gap' | 'off';
  readonly atSeconds: number;
  readonly lastsSeconds: number;
  /** The extreme of a dip or spike, the level after a step, in volts; null for a gap and while off. */
  readonly volts: number | null;
  /** The level before a step, in volts. */
  readonly fromVolts: number | null;
}

/** One rail over the whole log. */
export interface LogChannel {
  readonly rail: RailName;
  readonly count: number;
  readonly meanVolts: number;
  readonly lowestVolts: number;
  readonly highestVolts: number;
  /** Deviation about the mean. */
  readonly deviationVolts: number;
  /** Noise from one value to the next, free of steps and drift: deviation of the differences over the square root of 2, the logger's rounding to its last digit taken out. */
  readonly noiseVolts: number;
  /** Slope over time, volts per hour. */
  readonly driftVoltsPerHour: number;
  readonly outsideSeconds: number;
  /** Lowest and highest in equal pieces of the log, with the second at which each piece starts. */
  readonly curve: {
    readonly seconds: readonly number[];
    readonly low: readonly number[];
    readonly high: readonly number[];
  };
}

export interface LogSummary {
  readonly rows: number;
  /** Rows that could not be read, by what was wrong with them. */
  readonly skipped: {
    readonly columns: number;
    readonly figures: number;
    readonly time: number;
    readonly backwards: number;
  };
  readonly lastsSeconds: number;
  readonly channels: readonly LogChannel[];
  /** The gravest first; at most `mostEvents`. */
  readonly events: readonly LogEvent[];
  readonly eventsInAll: number;
}

/** Why a log is not taken. `row` counts from the file's top, 1 first. */
export type LogProblem =
  | { readonly code: 'no-rows' }
  | { readonly code: 'no-time-column' }
  | { readonly code: 'no-rail-column' }
  | { readonly code: 'too-many-rows'; readonly most: number }
  | { readonly code: 'changing-columns'; readonly row: number; readonly share: number }
  | { readonly code: 'endless-row'; readonly row: number }
  | { readonly code: 'unreadable'; readonly row: number; readonly share: number }
  | { readonly code: 'time-backwards'; readonly row: number; readonly share: number };

export const mostLogRows = 1_000_000;
/** No logger has so many channels; a file that has is something else. */
export const mostLogColumns = 64;
export const mostEvents = 200;
/** More rows than this share that cannot be read, and the whole is doubted. */
const toleratedShare = 0.05;
/** Pieces of the reduced curve: between half of this and this. */
export const curvePieces = 600;
/** Values in one block for steps and drift. */
const blockSize = 50;
/** A step moves the level by more than this share of nominal, and by this many standard errors of a block. */
const stepShare = 0.004;
const stepErrors = 6;
/** Fewer values than this at a log's end are no level of their own. */
const leastTail = 8;
/** A rail that shows next to nothing for longer than this, in seconds, was switched off; for less it dropped out. */
const switchedOffSeconds = 2;
/** The smallest step between values is the logger's last digit, unless it is larger than this share of nominal. */
const coarsestDigitShare = 0.01;

interface Open {
  kind: 'dip' | 'spike';
  from: number;
  to: number;
  extreme: number;
}

/** Running figures of one rail; everything a single pass can know. */
class Channel {
  readonly rail: RailName;
  readonly column: number;
  readonly scale: number;
  readonly lower: number;
  readonly upper: number;
  private readonly nominal: number;
  private readonly tellsOff: boolean;
  /** How it leaves its band on the way down to nothing: the negative rail rises. */
  private readonly weakKind: 'dip' | 'spike';
  count = 0;
  private mean = 0;
  private squares = 0;
  lowest = Infinity;
  highest = -Infinity;
  private last = Number.NaN;
  private lastTime = 0;
  private differences = 0;
  private differenceCount = 0;
  private smallestStep = Infinity;
  private outside = 0;
  private open: Open | null = null;
  /** The next value has none before it to differ from. */
  private fresh = true;
  /** It has just been started, and is on its way up. */
  private starting = false;
  private timeSum = 0;
  private timeSquares = 0;
  private timeValue = 0;
  private blockSum = 0;
  private blockCount = 0;
  private blockStart = 0;
  /** Means of the whole blocks of a session, where each begins, and the values since the last of them and in it. */
  private blocks: { readonly mean: number; readonly from: number }[] = [];
  private readonly tail = new Float64Array(2 * blockSize);
  private readonly tailTime = new Float64Array(2 * blockSize);
  private tailCount = 0;
  /** Since when it shows next to nothing; not a number while it runs. */
  private nothingSince = Number.NaN;
  private readonly kept = new Float64Array(11);
  /** The gravest so far; a rail that swings about its limit would give as many as rows. */
  readonly events: LogEvent[] = [];
  found = 0;
  private pieceSize = 1;
  private pieceFill = 0;
  private pieces = 0;
  private readonly pieceTime = new Float64Array(curvePieces);
  private readonly pieceLow = new Float64Array(curvePieces);
  private readonly pieceHigh = new Float64Array(curvePieces);

  /** @param tellsOff all rails go off together, and one of them tells it */
  constructor(rail: RailName, column: number, scale: number, guide: Guide, tellsOff: boolean) {
    this.tellsOff = tellsOff;
    const band = railBand(rail, guide);
    this.rail = rail;
    this.column = column;
    this.scale = scale;
    this.lower = band.lower;
    this.upper = band.upper;
    this.nominal = Math.abs(band.nominal);
    this.weakKind = band.nominal < 0 ? 'spike' : 'dip';
  }

  add(seconds: number, volts: number): void {
    if (Math.abs(volts) < nextToNothing * this.nominal) {
      this.showsNothing(seconds, volts);
      this.draw(seconds, volts);
      return;
    }
    if (!Number.isNaN(this.nothingSince)) this.runsAgain(seconds);
    const weak = this.weakKind === 'dip' ? volts < this.lower : volts > this.upper;
    if (this.starting && weak) {
      // The way up of a start is no dip.
      this.draw(seconds, volts);
      return;
    }
    this.starting = false;
    if (weak && this.open?.kind !== this.weakKind) this.keepFigures();
    this.count += 1;
    const off = volts - this.mean;
    this.mean += off / this.count;
    this.squares += off * (volts - this.mean);
    if (volts < this.lowest) this.lowest = volts;
    if (volts > this.highest) this.highest = volts;
    this.timeSum += seconds;
    this.timeSquares += seconds * seconds;
    this.timeValue += seconds * volts;
    if (this.fresh) this.fresh = false;
    else {
      const difference = volts - this.last;
      this.differences += difference * difference;
      this.differenceCount += 1;
      const step = Math.abs(difference);
      if (step > 0 && step < this.smallestStep) this.smallestStep = step;
    }
    // What happens at every value stands here, what is rare is called: a figure that is handed on is an object of its own.
    if (volts < this.lower || volts > this.upper || this.open !== null) this.watch(seconds, volts);
    if (this.blockCount === 0) this.blockStart = seconds;
    this.blockSum += volts;
    this.blockCount += 1;
    this.tail[this.tailCount] = volts;
    this.tailTime[this.tailCount] = seconds;
    this.tailCount += 1;
    if (this.blockCount === blockSize) this.endBlock();
    this.draw(seconds, volts);
    this.last = volts;
    this.lastTime = seconds;
  }

  /** The curve shows everything, off or not. */
  private draw(seconds: number, volts: number): void {
    if (this.pieceFill === 0) {
      this.pieceTime[this.pieces] = seconds;
      this.pieceLow[this.pieces] = volts;
      this.pieceHigh[this.pieces] = volts;
      this.pieces += 1;
    } else {
      const at = this.pieces - 1;
      if (volts < this.pieceLow[at]!) this.pieceLow[at] = volts;
      if (volts > this.pieceHigh[at]!) this.pieceHigh[at] = volts;
    }
    this.pieceFill += 1;
    if (this.pieceFill === this.pieceSize) {
      this.pieceFill = 0;
      if (this.pieces === curvePieces) this.halve();
    }
  }

  /** Everything that counts, to be put back when what looked like a dip was the way down of a switch-off. */
  private keepFigures(): void {
    this.kept.set([
      this.count,
      this.mean,
      this.squares,
      this.lowest,
      this.highest,
      this.differences,
      this.differenceCount,
      this.timeSum,
      this.timeSquares,
      this.timeValue,
      this.outside,
    ]);
  }

  private putBack(): void {
    const [
      count,
      mean,
      squares,
      lowest,
      highest,
      differences,
      differenceCount,
      timeSum,
      timeSquares,
      timeValue,
      outside,
    ] = this.kept as unknown as readonly [
      number,
      number,
      number,
      number,
      number,
      number,
      number,
      number,
      number,
      number,
      number,
    ];
    Object.assign(this, { count, mean, squares, lowest, highest, differences, differenceCount, timeSum });
    Object.assign(this, { timeSquares, timeValue, outside });
  }

  private showsNothing(seconds: number, volts: number): void {
    if (Number.isNaN(this.nothingSince)) {
      // Only its last moments are the way down: a rail that was out of its band before stays so.
      if (this.open?.kind !== this.weakKind || seconds - this.open.from > switchedOffSeconds) {
        this.close();
        this.keepFigures();
        this.open = { kind: this.weakKind, from: seconds, to: seconds, extreme: volts };
      }
      this.nothingSince = this.open.from;
    }
    this.open!.to = seconds;
    if (Math.abs(volts) < Math.abs(this.open!.extreme)) this.open!.extreme = volts;
  }

  /** It comes back: after a moment that was a drop-out, after longer a new session begins. */
  private runsAgain(seconds: number): void {
    if (seconds - this.nothingSince > switchedOffSeconds) {
      this.endSession(seconds);
      this.starting = true;
    } else {
      this.outside += seconds - Math.max(this.lastTime, this.nothingSince);
      if (this.open!.extreme < this.lowest) this.lowest = this.open!.extreme;
      if (this.open!.extreme > this.highest) this.highest = this.open!.extreme;
    }
    this.nothingSince = Number.NaN;
    this.fresh = true;
  }

  /** What was outside on the way down is no dip; the steps of the session are looked for. */
  private endSession(until: number): void {
    this.putBack();
    this.open = null;
    this.endSteps(this.nothingSince);
    if (!this.tellsOff) return;
    this.keep({
      rail: this.rail,
      kind: 'off',
      atSeconds: this.nothingSince,
      lastsSeconds: until - this.nothingSince,
      volts: null,
      fromVolts: null,
    });
  }

  private watch(seconds: number, volts: number): void {
    const kind = volts < this.lower ? 'dip' : volts > this.upper ? 'spike' : null;
    const since = this.count > 1 ? seconds - this.lastTime : 0;
    if (kind === null) {
      if (this.open !== null) {
        this.open.to = seconds;
        this.outside += since;
        this.close();
      }
      return;
    }
    if (this.open !== null && this.open.kind !== kind) {
      this.outside += since;
      this.close();
    }
    if (this.open === null) this.open = { kind, from: seconds, to: seconds, extreme: volts };
    else {
      this.outside += since;
      this.open.to = seconds;
      this.open.extreme = kind === 'dip' ? Math.min(this.open.extreme, volts) : Math.max(this.open.extreme, volts);
    }
  }

  private close(): void {
    if (this.open === null) return;
    this.keep({
      rail: this.rail,
      kind: this.open.kind,
      atSeconds: this.open.from,
      lastsSeconds: this.open.to - this.open.from,
      volts: this.open.extreme,
      fromVolts: null,
    });
    this.open = null;
  }

  private keep(event: LogEvent): void {
    this.found += 1;
    this.events.push(event);
    if (this.events.length < 10 * mostEvents) return;
    this.events.sort((a, b) => gravity(b) - gravity(a));
    this.events.length = 2 * mostEvents;
  }

  private endBlock(): void {
    this.blocks.push({ mean: this.blockSum / blockSize, from: this.blockStart });
    this.blockSum = 0;
    this.blockCount = 0;
    // The last whole block stays, for a step that begins in it.
    const from = this.tailCount - blockSize;
    this.tail.copyWithin(0, from, this.tailCount);
    this.tailTime.copyWithin(0, from, this.tailCount);
    this.tailCount = blockSize;
  }

  /**
   * The steps of a session: block means that moved and stay moved, then a change of level in its last values. A level has
   * moved when it did by more than white noise would give, and by more than neighbouring blocks usually differ, so that noise
   * that wanders by itself makes no steps. @param until what came later belongs to the way down
   */
  private endSteps(until: number): void {
    const { blocks } = this;
    const white = this.noise();
    const between = blocks
      .slice(1)
      .map(({ mean }, index) => Math.abs(mean - blocks[index]!.mean))
      .sort((a, b) => a - b);
    // Median of absolute differences of two normal figures: 0.6745 times the square root of 2 times their deviation.
    const wander = between.length < 4 ? 0 : between[between.length >> 1]! / (0.6745 * Math.SQRT2);
    const least = (values: number) =>
      Math.max(stepShare * this.nominal, stepErrors * Math.max(white / Math.sqrt(values), wander));
    for (let at = 1; at < blocks.length - 1; at += 1) {
      const level = blocks[at - 1]!.mean;
      if (Math.abs(blocks[at]!.mean - level) <= least(blockSize)) continue;
      // The block after a jump decides: still away from the old level, and near the new one.
      const { mean } = blocks[at + 1]!;
      if (Math.abs(mean - level) > least(blockSize)) this.keepStep(blocks[at]!.from, level, mean);
      at += 1;
    }
    this.lastStep(until, least);
    this.blocks = [];
    this.blockSum = 0;
    this.blockCount = 0;
    this.tailCount = 0;
  }

  private keepStep(atSeconds: number, fromVolts: number, volts: number): void {
    this.keep({ rail: this.rail, kind: 'step', atSeconds, lastsSeconds: 0, volts, fromVolts });
  }

  /** The change of level in the last values that stands out most, where it does enough. */
  private lastStep(until: number, least: (values: number) => number): void {
    let count = this.tailCount;
    while (count > 0 && this.tailTime[count - 1]! >= until) count -= 1;
    const values = [...this.tail.subarray(0, count)];
    const mean = (from: number, to: number) =>
      values.slice(from, to).reduce((sum, value) => sum + value, 0) / (to - from);
    let best = { at: -1, share: 1, from: 0, to: 0 };
    for (let at = leastTail; at <= count - leastTail; at += 1) {
      const [from, to] = [mean(0, at), mean(at, count)];
      const share = Math.abs(to - from) / (least(Math.min(at, count - at)) * Math.SQRT2);
      if (share > best.share) best = { at, share, from, to };
    }
    if (best.at >= 0) this.keepStep(this.tailTime[best.at]!, best.from, best.to);
  }

  /** The curve is full: every two pieces become one. */
  private halve(): void {
    const half = this.pieces >> 1;
    for (let at = 0; at < half; at += 1) {
      this.pieceTime[at] = this.pieceTime[2 * at]!;
      this.pieceLow[at] = Math.min(this.pieceLow[2 * at]!, this.pieceLow[2 * at + 1]!);
      this.pieceHigh[at] = Math.max(this.pieceHigh[2 * at]!, this.pieceHigh[2 * at + 1]!);
    }
    this.pieces = half;
    this.pieceSize *= 2;
  }

  private noise(): number {
    return this.differenceCount === 0 ? 0 : Math.sqrt(this.differences / this.differenceCount / 2);
  }

  /** Rounding to a digit d adds d²/12 to the variance (uniform law); Sheppard's correction takes it out. */
  private noiseWithoutRounding(): number {
    const digit = this.smallestStep <= coarsestDigitShare * this.nominal ? this.smallestStep : 0;
    return Math.sqrt(Math.max(0, this.noise() ** 2 - digit ** 2 / 12));
  }

  /** @param until the last time in the log, seconds */
  finish(until: number): LogChannel {
    if (!Number.isNaN(this.nothingSince)) this.endSession(until);
    else {
      this.close();
      this.endSteps(Infinity);
    }
    const spread = this.timeSquares - (this.timeSum * this.timeSum) / this.count;
    const slope = spread > 0 ? (this.timeValue - this.timeSum * this.mean) / spread : 0;
    return {
      rail: this.rail,
      count: this.count,
      meanVolts: this.mean,
      // A log in which the supply never ran has no figures.
      lowestVolts: this.count === 0 ? 0 : this.lowest,
      highestVolts: this.count === 0 ? 0 : this.highest,
      deviationVolts: this.count > 1 ? Math.sqrt(this.squares / (this.count - 1)) : 0,
      noiseVolts: this.noiseWithoutRounding(),
      driftVoltsPerHour: slope * 3600,
      outsideSeconds: this.outside,
      curve: {
        seconds: [...this.pieceTime.subarray(0, this.pieces)],
        low: [...this.pieceLow.subarray(0, this.pieces)],
        high: [...this.pieceHigh.subarray(0, this.pieces)],
      },
    };
  }
}

/** Takes every value that was read, so that it can be shown in full; times in seconds from the start. */
export type LogSink = (seconds: number, volts: Float64Array) => void;

/** A log read piece by piece; `push` tells when it must stop. Two pieces running without a whole row are a row that does not end. */
export interface LogReader {
  readonly rails: readonly RailName[];
  readonly push: (rows: readonly (readonly string[])[]) => LogProblem | null;
  readonly finish: () =>
    { readonly ok: true; readonly summary: LogSummary } | { readonly ok: false; readonly problem: LogProblem };
}

/** Trimming costs more than looking whether it is needed. */
const trimmed = (text: string) =>
  text.charCodeAt(0) <= 32 || text.charCodeAt(text.length - 1) <= 32 ? text.trim() : text;

/** How much graver an event is: how far out times how long, in volt-seconds over nominal. */
function gravity(event: LogEvent): number {
  const { lower, upper, nominal } = railBand(event.rail, '2.x');
  if (event.volts === null) return 0;
  const out =
    event.kind === 'step'
      ? Math.abs(event.volts - (event.fromVolts ?? event.volts)) / 4
      : event.kind === 'dip'
        ? lower - event.volts
        : event.volts - upper;
  return (out / Math.abs(nominal)) * (1 + Math.min(event.lastsSeconds, 60));
}

/**
 * Reads a log in pieces of any size and sums it up in one pass, whatever its length.
 * @param mapping as `guessMapping` gives it, or as it was corrected
 * @param sink gets every row that could be read; its array is used again for the next row
 */
export function readLog(mapping: LogMapping, guide: Guide, sink?: LogSink): LogReader {
  const timeColumn = mapping.columns.findIndex((column) => column.holds === 'time');
  const time = mapping.columns[timeColumn];
  const format = time?.holds === 'time' ? time.format : 'seconds';
  const firstRail = mapping.columns.findIndex((column) => column.holds === 'rail');
  const channels = mapping.columns.flatMap((column, index) =>
    column.holds === 'rail'
      ? [new Channel(column.rail, index, column.unit === 'mV' ? 0.001 : 1, guide, index === firstRail)]
      : [],
  );
  const { decimal } = mapping;
  const width = mapping.columns.length;
  const values = new Float64Array(channels.length);
  const skipped = { columns: 0, figures: 0, time: 0, backwards: 0 };
  const first = { columns: 0, figures: 0, time: 0, backwards: 0 };
  const gaps: LogEvent[] = [];
  let seen = 0;
  let rows = 0;
  // Start, last time and usual step; in an array, since a figure in a closure's variable is an object anew at every row.
  const clock = new Float64Array([Number.NaN, -Infinity, 0]);
  let midnights = 0;
  let emptyPieces = 0;
  const point = decimal === ',' ? 44 : 46;
  const skip = (why: keyof typeof skipped): void => {
    skipped[why] += 1;
    if (first[why] === 0) first[why] = seen;
  };
  function take(row: readonly string[]): void {
    if (row.length < width && !(row.length === width - 1)) {
      if (row.length <= 1 && (row[0] ?? '').trim() === '') return;
      skip('columns');
      return;
    }
    let seconds = logSeconds(trimmed(row[timeColumn] ?? ''), format, decimal);
    if (!Number.isFinite(seconds)) {
      skip('time');
      return;
    }
    if (format === 'clock') {
      // A time of day starts over at midnight.
      if (seconds + midnights * 86_400 < clock[1]! - 43_200) midnights += 1;
      seconds += midnights * 86_400;
    }
    for (let index = 0; index < channels.length; index += 1) {
      const channel = channels[index]!;
      const cell = row[channel.column] ?? '';
      const figure =
        (plainFigure(cell, 0, cell.length, point) ? lastFigure[0]! : logFigure(cell, decimal)) * channel.scale;
      if (!Number.isFinite(figure)) {
        skip('figures');
        return;
      }
      values[index] = figure;
    }
    if (seconds < clock[1]!) {
      skip('backwards');
      return;
    }
    if (rows === 0) clock[0] = seconds;
    const from = seconds - clock[0]!;
    const step = rows === 0 ? 0 : seconds - clock[1]!;
    if (rows > 20 && step > 20 * clock[2]! && step > 5)
      gaps.push({
        rail: channels[0]!.rail,
        kind: 'gap',
        atSeconds: clock[1]! - clock[0]!,
        lastsSeconds: step,
        volts: null,
        fromVolts: null,
      });
    clock[2] = rows === 1 ? step : clock[2]! + (step - clock[2]!) * 0.02;
    clock[1] = seconds;
    rows += 1;
    for (let index = 0; index < channels.length; index += 1) channels[index]!.add(from, values[index]!);
    sink?.(from, values);
  }
  function doubt(): LogProblem | null {
    const share = (count: number) => count / Math.max(1, seen - mapping.headerRows);
    if (share(skipped.columns) > toleratedShare)
      return { code: 'changing-columns', row: first.columns, share: share(skipped.columns) };
    if (share(skipped.backwards) > toleratedShare)
      return { code: 'time-backwards', row: first.backwards, share: share(skipped.backwards) };
    if (share(skipped.figures + skipped.time) > toleratedShare)
      return {
        code: 'unreadable',
        row: first.time === 0 ? first.figures : first.figures === 0 ? first.time : Math.min(first.time, first.figures),
        share: share(skipped.figures + skipped.time),
      };
    return null;
  }
  return {
    rails: channels.map((channel) => channel.rail),
    push(list) {
      if (timeColumn < 0) return { code: 'no-time-column' };
      if (channels.length === 0) return { code: 'no-rail-column' };
      emptyPieces = list.length === 0 ? emptyPieces + 1 : 0;
      if (emptyPieces > 1) return { code: 'endless-row', row: seen + 1 };
      for (const row of list) {
        seen += 1;
        if (seen <= mapping.headerRows) continue;
        take(row);
        if (rows > mostLogRows) return { code: 'too-many-rows', most: mostLogRows };
      }
      return seen > 5000 ? doubt() : null;
    },
    finish() {
      if (timeColumn < 0) return { ok: false, problem: { code: 'no-time-column' } };
      if (channels.length === 0) return { ok: false, problem: { code: 'no-rail-column' } };
      const problem = doubt() ?? (rows === 0 ? { code: 'no-rows' as const } : null);
      if (problem !== null) return { ok: false, problem };
      const summed = channels.map((channel) => channel.finish(clock[1]! - clock[0]!));
      const events = [...channels.flatMap((channel) => channel.events), ...gaps].sort(
        (a, b) => gravity(b) - gravity(a) || a.atSeconds - b.atSeconds,
      );
      return {
        ok: true,
        summary: {
          rows,
          skipped,
          lastsSeconds: clock[1]! - clock[0]!,
          channels: summed,
          events: events.slice(0, mostEvents),
          eventsInAll: channels.reduce((sum, channel) => sum + channel.found, gaps.length),
        },
      };
    },
  };
}
