/* oxlint-disable typescript/no-non-null-assertion --
   values stand in rows of one length, gone through by number */
import { railBand, type Guide, type RailName } from '../standards/index.ts';
import { curvePieces, mostEvents, type LogChannel, type LogEvent } from './log-summary.ts';
import { nextToNothing } from './verdict.ts';

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

/** How much graver an event is: how far out times how long, in volt-seconds over nominal. */
export function gravity(event: LogEvent): number {
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

/** What counts of a rail's values; everything a single pass can sum up. */
class Figures {
  count = 0;
  differences = 0;
  differenceCount = 0;
  outside = 0;
  private mean = 0;
  private squares = 0;
  private lowest = Infinity;
  private highest = -Infinity;
  private timeSum = 0;
  private timeSquares = 0;
  private timeValue = 0;

  add(seconds: number, volts: number): void {
    this.count += 1;
    const off = volts - this.mean;
    this.mean += off / this.count;
    this.squares += off * (volts - this.mean);
    this.reach(volts);
    this.timeSum += seconds;
    this.timeSquares += seconds * seconds;
    this.timeValue += seconds * volts;
  }

  reach(volts: number): void {
    if (volts < this.lowest) this.lowest = volts;
    if (volts > this.highest) this.highest = volts;
  }

  /** Becomes what another is. */
  take(other: Figures): void {
    Object.assign(this, other);
  }

  /** A log in which the supply never ran has no figures: nothing stands for them. */
  summed() {
    const spread = this.timeSquares - (this.timeSum * this.timeSum) / this.count;
    const slope = spread > 0 ? (this.timeValue - this.timeSum * this.mean) / spread : 0;
    return {
      count: this.count,
      meanVolts: this.mean,
      lowestVolts: this.count === 0 ? 0 : this.lowest,
      highestVolts: this.count === 0 ? 0 : this.highest,
      deviationVolts: this.count > 1 ? Math.sqrt(this.squares / (this.count - 1)) : 0,
      driftVoltsPerHour: slope * 3600,
      outsideSeconds: this.outside,
    };
  }
}

interface Open {
  kind: 'dip' | 'spike';
  from: number;
  to: number;
  extreme: number;
}

/** Running figures of one rail; everything a single pass can know. */
export class Channel {
  readonly rail: RailName;
  readonly column: number;
  readonly scale: number;
  readonly lower: number;
  readonly upper: number;
  private readonly nominal: number;
  private readonly tellsOff: boolean;
  /** How it leaves its band on the way down to nothing: the negative rail rises. */
  private readonly weakKind: 'dip' | 'spike';
  private readonly figures = new Figures();
  /** The figures before what may turn out to be the way down of a switch-off. */
  private readonly before = new Figures();
  private last = Number.NaN;
  private lastTime = 0;
  private smallestStep = Infinity;
  private open: Open | null = null;
  /** The next value has none before it to differ from. */
  private fresh = true;
  /** It has just been started, and is on its way up. */
  private starting = false;
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
    if (weak && this.open?.kind !== this.weakKind) this.before.take(this.figures);
    this.figures.add(seconds, volts);
    if (this.fresh) this.fresh = false;
    else {
      const difference = volts - this.last;
      this.figures.differences += difference * difference;
      this.figures.differenceCount += 1;
      const step = Math.abs(difference);
      if (step > 0 && step < this.smallestStep) this.smallestStep = step;
    }
    // What happens at every value stands here, what is rare is called: a figure that is handed on is an object of its
    // own.
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

  private showsNothing(seconds: number, volts: number): void {
    if (Number.isNaN(this.nothingSince)) {
      // Only its last moments are the way down: a rail that was out of its band before stays so.
      if (this.open?.kind !== this.weakKind || seconds - this.open.from > switchedOffSeconds) {
        this.close();
        this.before.take(this.figures);
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
      this.figures.outside += seconds - Math.max(this.lastTime, this.nothingSince);
      this.figures.reach(this.open!.extreme);
    }
    this.nothingSince = Number.NaN;
    this.fresh = true;
  }

  /** What was outside on the way down is no dip; the steps of the session are looked for. */
  private endSession(until: number): void {
    this.figures.take(this.before);
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
    const since = this.figures.count > 1 ? seconds - this.lastTime : 0;
    if (kind === null) {
      if (this.open !== null) {
        this.open.to = seconds;
        this.figures.outside += since;
        this.close();
      }
      return;
    }
    if (this.open !== null && this.open.kind !== kind) {
      this.figures.outside += since;
      this.close();
    }
    if (this.open === null) this.open = { kind, from: seconds, to: seconds, extreme: volts };
    else {
      this.figures.outside += since;
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
   * The steps of a session: block means that moved and stay moved, then a change of level in its last values. A level
   * has moved when it did by more than white noise would give, and by more than neighbouring blocks usually differ, so
   * that noise that wanders by itself makes no steps. @param until what came later belongs to the way down
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
    const { differences, differenceCount } = this.figures;
    return differenceCount === 0 ? 0 : Math.sqrt(differences / differenceCount / 2);
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
    return {
      rail: this.rail,
      ...this.figures.summed(),
      noiseVolts: this.noiseWithoutRounding(),
      curve: {
        seconds: [...this.pieceTime.subarray(0, this.pieces)],
        low: [...this.pieceLow.subarray(0, this.pieces)],
        high: [...this.pieceHigh.subarray(0, this.pieces)],
      },
    };
  }
}
