import { excursionMilliseconds, excursionMultiple, type ExcursionMilliseconds } from '../standards/index.ts';
import { deratedLabel, twelveVoltWatts, type MachinePart, type SupplyLabel } from '../machine/index.ts';
import { verdictShare } from './assess.ts';
import { inputWatts, loadRails, type LoadRail } from './demand.ts';

/** A share of the draws with its 95 % interval (Wilson). */
export interface DrawnShare {
  readonly share: number;
  readonly low: number;
  readonly high: number;
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
    /** As far as they are judged: 1 s always, shorter where the supply's guide promises something, 100 ms for 2.x as well. */
    readonly peaks: readonly { readonly milliseconds: 1000 | ExcursionMilliseconds; readonly over: DrawnShare }[];
    /** Any of them. */
    readonly anything: DrawnShare;
  } | null;
}

const curvePoints = 121;

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
 * one entry are alike and drawn together. Peaks follow from what was drawn by the part's multiples.
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
      : ([1000, ...excursionMilliseconds] as const).flatMap((milliseconds) => {
          const share = verdictShare(label.guide, label.has16Pin, label.ratingWatts, milliseconds);
          return share === null
            ? []
            : [
                {
                  milliseconds,
                  limit: share * label.ratingWatts,
                  multiples: Float64Array.from(parts, (part) =>
                    milliseconds === 1000 ? 1 : excursionMultiple[part.figures.excursion][milliseconds],
                  ),
                },
              ];
        });
  const railLimits =
    label === null
      ? []
      : loadRails.flatMap((rail) => {
          const outputs = label.rails.filter((output) => output.rail === rail);
          const volts = { '+12': 12, '+5': 5, '+3.3': 3.3 }[rail];
          return outputs.length === 0
            ? []
            : [
                {
                  rail,
                  limit:
                    rail === '+12'
                      ? twelveVoltWatts(label)
                      : outputs.reduce((sum, output) => sum + output.amps * volts, 0),
                  share: shares[rail],
                },
              ];
        });
  const totals = new Float64Array(draws);
  const railOver = railLimits.map(() => 0);
  const peakOver = judged.map(() => 0);
  let lastingOver = 0;
  let anyOver = 0;
  const drawn = new Float64Array(parts.length);
  for (let draw = 0; draw < draws; draw += 1) {
    let total = 0;
    for (let index = 0; index < drawn.length; index += 1) {
      const value = triangularQuantile(random(), low[index]!, likely[index]!, high[index]!);
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
      const { limit, multiples } = judged[item]!;
      let watts = 0;
      for (let index = 0; index < drawn.length; index += 1)
        watts += Math.max(drawn[index]! * multiples[index]!, short[index]!);
      if (watts > limit) {
        peakOver[item] = peakOver[item]! + 1;
        any = true;
      }
    }
    if (any) anyOver += 1;
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
          },
  };
}
