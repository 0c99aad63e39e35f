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
      this.drawn[at] = this.drawn[at]! + 1;
      if (over) this.over[at] = this.over[at]! + 1;
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
  const low = Float64Array.from(parts, (part) => inputWatts(part, part.figures.lowWatts));
  const likely = Float64Array.from(parts, (part) => inputWatts(part, part.figures.likelyWatts));
  const high = Float64Array.from(parts, (part) => inputWatts(part, part.figures.highWatts));
  const short = Float64Array.from(parts, (part) => inputWatts(part, part.figures.shortWatts));
  const shares: Record<LoadRail, Float64Array> = {
    '+12': Float64Array.from(parts, (part) => part.figures.share12),
    '+5': Float64Array.from(parts, (part) => part.figures.share5),
    '+3.3': Float64Array.from(parts, (part) => part.figures.share33),
  };
  const judged =
    label === null
      ? []
      : decidingPeaks.map((milliseconds) => {
          const { least } = owedAt(label, String(milliseconds) as Moment);
          return {
            milliseconds,
            limit: least * label.ratingWatts,
            limit12: label.rails.some(({ rail }) => rail === '+12') ? least * twelveVoltWatts(label) : Infinity,
            multiples: Float64Array.from(parts, (part) =>
              milliseconds === 1000 ? 1 : excursionMultiple[part.figures.excursion][milliseconds],
            ),
          };
        });
  const railLimits =
    label === null
      ? []
      : loadRails.flatMap((rail) => {
          const outputs = label.rails.filter((output) => output.rail === rail);
          const amps = outputs.reduce((sum, output) => sum + output.amps, 0);
          const limit = rail === '+12' ? twelveVoltWatts(label) : amps * railVolts[rail];
          return outputs.length === 0 ? [] : [{ rail, limit, share: shares[rail] }];
        });
  const totals = new Float64Array(draws);
  const railOver = railLimits.map(() => 0);
  const peakOver = judged.map(() => 0);
  let lastingOver = 0;
  let anyOver = 0;
  const drawn = new Float64Array(parts.length);
  const byStretch = new ByStretch(parts.length);
  for (let draw = 0; draw < draws; draw += 1) {
    let total = 0;
    for (let index = 0; index < drawn.length; index += 1) {
      const share = random();
      const value = triangularQuantile(share, low[index]!, likely[index]!, high[index]!);
      byStretch.note(index, share);
      drawn[index] = value;
      total += value;
    }
    totals[draw] = total;
    if (label === null) continue;
    let any = false;
    if (total > label.ratingWatts) {
      lastingOver += 1;
      any = true;
    }
    for (let item = 0; item < railLimits.length; item += 1) {
      const { limit, share } = railLimits[item]!;
      let watts = 0;
      for (let index = 0; index < drawn.length; index += 1) watts += drawn[index]! * share[index]!;
      if (watts > limit) {
        railOver[item] = railOver[item]! + 1;
        any = true;
      }
    }
    for (let item = 0; item < judged.length; item += 1) {
      const { limit, limit12, multiples } = judged[item]!;
      let watts = 0;
      let watts12 = 0;
      for (let index = 0; index < drawn.length; index += 1) {
        const peak = Math.max(drawn[index]! * multiples[index]!, short[index]!);
        watts += peak;
        watts12 += peak * shares['+12'][index]!;
      }
      if (watts > limit || watts12 > limit12) {
        peakOver[item] = peakOver[item]! + 1;
        any = true;
      }
    }
    if (any) anyOver += 1;
    byStretch.count(any);
  }
  totals.sort();
  const at = (share: number) => totals[Math.min(draws - 1, Math.floor(share * draws))] ?? 0;
  const from = Math.max(0, (totals[0] ?? 0) * 0.9);
  const to = Math.max((totals[draws - 1] ?? 0) * 1.05, (label?.ratingWatts ?? 0) * 1.05, from + 1);
  const watts = Array.from({ length: curvePoints }, (_, index) => from + ((to - from) * index) / (curvePoints - 1));
  let cursor = 0;
  const above = watts.map((value) => {
    while (cursor < draws && totals[cursor]! <= value) cursor += 1;
    return (draws - cursor) / draws;
  });
  return {
    draws,
    meanWatts: totals.reduce((sum, value) => sum + value, 0) / draws,
    quantiles: { low: at(0.05), middle: at(0.5), high: at(0.95) },
    curve: { watts, above },
    against:
      label === null
        ? null
        : {
            lasting: shareOf(lastingOver, draws),
            rails: railLimits.map(({ rail }, index) => ({ rail, over: shareOf(railOver[index]!, draws) })),
            peaks: judged.map(({ milliseconds }, index) => ({ milliseconds, over: shareOf(peakOver[index]!, draws) })),
            anything: shareOf(anyOver, draws),
            wrongCalls: Math.min(anyOver, draws - anyOver) / draws,
            worth: parts
              .map((part, index) => ({
                partId: part.id,
                left: byStretch.left(index, draws),
                doubt: high[index]! - low[index]!,
              }))
              .filter(({ doubt }) => doubt > 0)
              .map(({ partId, left }) => ({ partId, left }))
              .sort((a, b) => a.left - b.left),
          },
  };
}
