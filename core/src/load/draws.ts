/* oxlint-disable typescript/no-non-null-assertion --
   figures of parts and draws are typed arrays of one length, gone through by their number: each index is below it */
import { excursionMultiple, type ExcursionMilliseconds } from '../standards/index.ts';
import { deratedLabel, twelveVoltWatts, type MachinePart, type SupplyLabel } from '../machine/index.ts';
import { inputWatts, loadRails, owedAt, railVolts, type LoadRail, type Moment } from './moments.ts';

/** A share of the draws with its 95 % interval (Wilson). */
export interface DrawnShare {
  readonly share: number;
  readonly low: number;
  readonly high: number;
}

/** What it is worth to read one part's watts off its label or sheet. */
export interface WorthReading {
  readonly partId: string;
  /** Share of wrong calls, "enough" or "too small", that is left once these watts are known. */
  readonly left: number;
}

/** What 100,000 machines alike would draw, each part somewhere in its range. */
export interface LoadDraws {
  readonly draws: number;
  readonly meanWatts: number;
  /** Lasting watts not exceeded by 5, 50 and 95 % of the draws. */
  readonly quantiles: { readonly low: number; readonly middle: number; readonly high: number };
  /** Share of the draws above each of these watts, evenly spaced. */
  readonly curve: { readonly watts: readonly number[]; readonly above: readonly number[] };
  /** Against the supply: null without one. */
  readonly against: {
    readonly lasting: DrawnShare;
    readonly rails: readonly { readonly rail: LoadRail; readonly over: DrawnShare }[];
    /** Those that decide: 1 s, 100, 10 and 1 ms, over what the supply owes in all or on +12. */
    readonly peaks: readonly { readonly milliseconds: 1000 | ExcursionMilliseconds; readonly over: DrawnShare }[];
    /** Any of them. */
    readonly anything: DrawnShare;
    /** Share of wrong calls as things stand: whichever of "enough" and "too small" is the rarer one. */
    readonly wrongCalls: number;
    /** For each part in which there is doubt, the one that leaves least wrong first. */
    readonly worth: readonly WorthReading[];
  } | null;
}

const curvePoints = 121;
const decidingPeaks = [1000, 100, 10, 1] as const satisfies readonly (1000 | ExcursionMilliseconds)[];

/** A part's range is cut into so many stretches of equal chance, within each of which its watts count as known. */
const stretches = 20;

/** How often something is exceeded in each stretch of each part's range. */
class ByStretch {
  private readonly drawn: Uint32Array;
  private readonly over: Uint32Array;
  private readonly at: Uint32Array;

  constructor(parts: number) {
    this.drawn = new Uint32Array(parts * stretches);
    this.over = new Uint32Array(parts * stretches);
    this.at = new Uint32Array(parts);
  }

  /** A part was drawn at this share of its range, from 0 up to 1. */
  note(part: number, share: number): void {
    this.at[part] = part * stretches + Math.min(stretches - 1, Math.floor(share * stretches));
  }

  /** All parts of one machine were drawn; was anything exceeded? */
  count(over: boolean): void {
    for (const at of this.at) {
      this.drawn[at]! += 1;
      if (over) this.over[at]! += 1;
    }
  }

  /** Wrong calls left once the watts of this part are known: in each stretch the rarer of the two. */
  left(part: number, draws: number): number {
    let wrong = 0;
    for (let at = part * stretches; at < (part + 1) * stretches; at += 1)
      wrong += Math.min(this.over[at]!, this.drawn[at]! - this.over[at]!);
    return wrong / draws;
  }
}

function shareOf(count: number, of: number): DrawnShare {
  const z = 1.96;
  const p = count / of;
  const middle = (p + (z * z) / (2 * of)) / (1 + (z * z) / of);
  const half = (z / (1 + (z * z) / of)) * Math.sqrt((p * (1 - p)) / of + (z * z) / (4 * of * of));
  return { share: p, low: count === 0 ? 0 : middle - half, high: count === of ? 1 : middle + half };
}

/** The value below which a share `u` of a triangular distribution lies. @param likely between low and high */
export function triangularQuantile(u: number, low: number, likely: number, high: number): number {
  const width = high - low;
  if (width <= 0) return likely;
  const left = likely - low;
  return u * width < left ? low + Math.sqrt(u * width * left) : high - Math.sqrt((1 - u) * width * (high - likely));
}

/** The watts of all parts, each drawn from the triangle of its low, likely and high. */
class DrawnParts {
  /** What each part of this draw takes. */
  readonly watts: Float64Array;
  readonly byStretch: ByStretch;
  private readonly low: Float64Array;
  private readonly likely: Float64Array;
  private readonly high: Float64Array;

  constructor(parts: readonly MachinePart[]) {
    this.watts = new Float64Array(parts.length);
    this.byStretch = new ByStretch(parts.length);
    this.low = Float64Array.from(parts, (part) => inputWatts(part, part.figures.lowWatts));
    this.likely = Float64Array.from(parts, (part) => inputWatts(part, part.figures.likelyWatts));
    this.high = Float64Array.from(parts, (part) => inputWatts(part, part.figures.highWatts));
  }

  /** Draws them all and gives their sum. */
  draw(random: () => number): number {
    let total = 0;
    for (let index = 0; index < this.watts.length; index += 1) {
      const share = random();
      const value = triangularQuantile(share, this.low[index]!, this.likely[index]!, this.high[index]!);
      this.byStretch.note(index, share);
      this.watts[index] = value;
      total += value;
    }
    return total;
  }

  /** For each part in which there is doubt, the one that leaves least wrong first. */
  worth(parts: readonly MachinePart[], draws: number): readonly WorthReading[] {
    return parts
      .map((part, index) => ({ partId: part.id, left: this.byStretch.left(index, draws), index }))
      .filter(({ index }) => this.high[index]! > this.low[index]!)
      .map(({ partId, left }) => ({ partId, left }))
      .sort((a, b) => a.left - b.left);
  }
}

/** What one rail's outputs carry together, and how many draws went over it. */
class RailLimit {
  over = 0;
  readonly rail: LoadRail;
  private readonly limit: number;
  private readonly shares: Float64Array;

  constructor(rail: LoadRail, limit: number, shares: Float64Array) {
    this.rail = rail;
    this.limit = limit;
    this.shares = shares;
  }

  isExceeded(watts: Float64Array): boolean {
    let sum = 0;
    for (let index = 0; index < watts.length; index += 1) sum += watts[index]! * this.shares[index]!;
    if (sum <= this.limit) return false;
    this.over += 1;
    return true;
  }
}

type DecidingPeak = (typeof decidingPeaks)[number];

/** What a supply owes for so many milliseconds, in all and on +12, and how many draws went over it. */
class PeakLimit {
  over = 0;
  readonly milliseconds: DecidingPeak;
  private readonly limit: number;
  private readonly limit12: number;
  private readonly shares12: Float64Array;
  private readonly multiples: Float64Array;
  private readonly short: Float64Array;

  constructor(label: SupplyLabel, parts: readonly MachinePart[], milliseconds: DecidingPeak) {
    const { least } = owedAt(label, String(milliseconds) as Moment);
    this.milliseconds = milliseconds;
    this.limit = least * label.ratingWatts;
    this.limit12 = label.rails.some(({ rail }) => rail === '+12') ? least * twelveVoltWatts(label) : Infinity;
    this.shares12 = sharesOf(parts, '+12');
    this.multiples = Float64Array.from(parts, ({ figures }) =>
      milliseconds === 1000 ? 1 : excursionMultiple[figures.excursion][milliseconds],
    );
    this.short = Float64Array.from(parts, (part) => inputWatts(part, part.figures.shortWatts));
  }

  isExceeded(watts: Float64Array): boolean {
    let sum = 0;
    let sum12 = 0;
    for (let index = 0; index < watts.length; index += 1) {
      const peak = Math.max(watts[index]! * this.multiples[index]!, this.short[index]!);
      sum += peak;
      sum12 += peak * this.shares12[index]!;
    }
    if (sum <= this.limit && sum12 <= this.limit12) return false;
    this.over += 1;
    return true;
  }
}

const shareKey = { '+12': 'share12', '+5': 'share5', '+3.3': 'share33' } as const satisfies Record<LoadRail, string>;

const sharesOf = (parts: readonly MachinePart[], rail: LoadRail): Float64Array =>
  Float64Array.from(parts, ({ figures }) => figures[shareKey[rail]]);

function railLimitsOf(label: SupplyLabel, parts: readonly MachinePart[]): readonly RailLimit[] {
  return loadRails.flatMap((rail) => {
    const outputs = label.rails.filter((output) => output.rail === rail);
    const amps = outputs.reduce((sum, output) => sum + output.amps, 0);
    const limit = rail === '+12' ? twelveVoltWatts(label) : amps * railVolts[rail];
    return outputs.length === 0 ? [] : [new RailLimit(rail, limit, sharesOf(parts, rail))];
  });
}

/** All that a supply could be too small in, and how many draws went over it. */
class Against {
  private lastingOver = 0;
  private anyOver = 0;
  private readonly ratingWatts: number;
  private readonly rails: readonly RailLimit[];
  private readonly peaks: readonly PeakLimit[];

  constructor(label: SupplyLabel, parts: readonly MachinePart[]) {
    this.ratingWatts = label.ratingWatts;
    this.rails = railLimitsOf(label, parts);
    this.peaks = decidingPeaks.map((milliseconds) => new PeakLimit(label, parts, milliseconds));
  }

  /** Every limit counts for itself, whatever the others say. */
  count({ watts, byStretch }: DrawnParts, total: number): void {
    let any = total > this.ratingWatts;
    if (any) this.lastingOver += 1;
    for (const limit of this.rails) if (limit.isExceeded(watts)) any = true;
    for (const limit of this.peaks) if (limit.isExceeded(watts)) any = true;
    if (any) this.anyOver += 1;
    byStretch.count(any);
  }

  told(draws: number, worth: readonly WorthReading[]): NonNullable<LoadDraws['against']> {
    return {
      lasting: shareOf(this.lastingOver, draws),
      rails: this.rails.map(({ rail, over }) => ({ rail, over: shareOf(over, draws) })),
      peaks: this.peaks.map(({ milliseconds, over }) => ({ milliseconds, over: shareOf(over, draws) })),
      anything: shareOf(this.anyOver, draws),
      wrongCalls: Math.min(this.anyOver, draws - this.anyOver) / draws,
      worth,
    };
  }
}

/** The share of the draws above each of some watts, evenly spaced over what was drawn and what the supply owes. */
function curveOf(sorted: Float64Array, ratingWatts: number): LoadDraws['curve'] {
  const draws = sorted.length;
  const from = Math.max(0, (sorted[0] ?? 0) * 0.9);
  const to = Math.max((sorted[draws - 1] ?? 0) * 1.05, ratingWatts * 1.05, from + 1);
  const watts = Array.from({ length: curvePoints }, (_, index) => from + ((to - from) * index) / (curvePoints - 1));
  let cursor = 0;
  const above = watts.map((value) => {
    while (cursor < draws && sorted[cursor]! <= value) cursor += 1;
    return (draws - cursor) / draws;
  });
  return { watts, above };
}

/**
 * Draws every part's lasting watts from the triangle of its low, likely and high, independently of the others; parts of
 * one entry are alike and drawn together. Peaks follow from what was drawn by the part's multiples. What it is worth to
 * know one part is its expected value of perfect information, where a wrong call costs one and a right one nothing.
 * @param random evenly spread figures from 0 up to 1
 */
export function drawLoads(
  parts: readonly MachinePart[],
  printed: SupplyLabel | null,
  random: () => number,
  draws = 100_000,
  ageShare = 1,
): LoadDraws {
  const label = printed === null ? null : deratedLabel(printed, ageShare);
  const drawn = new DrawnParts(parts);
  const against = label === null ? null : new Against(label, parts);
  const totals = new Float64Array(draws);
  for (let draw = 0; draw < draws; draw += 1) {
    const total = drawn.draw(random);
    totals[draw] = total;
    against?.count(drawn, total);
  }
  totals.sort();
  const at = (share: number) => totals[Math.min(draws - 1, Math.floor(share * draws))] ?? 0;
  return {
    draws,
    meanWatts: totals.reduce((sum, value) => sum + value, 0) / draws,
    quantiles: { low: at(0.05), middle: at(0.5), high: at(0.95) },
    curve: curveOf(totals, label?.ratingWatts ?? 0),
    against: against?.told(draws, drawn.worth(parts, draws)) ?? null,
  };
}
