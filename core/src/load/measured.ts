import { lossModel, lossWatts } from '../standards/index.ts';
import { partsAt, type MachinePart, type SupplyLabel } from '../machine/index.ts';
import { demandOf } from './demand.ts';

export const measuredKinds = ['mains', 'twelve'] as const;
export type MeasuredKind = (typeof measuredKinds)[number];

/** What the machine as it came was seen to draw under full work: at the mains in watts, or on +12 in amps. */
export interface MeasuredLoad {
  readonly kind: MeasuredKind;
  readonly figure: number;
  /** Whether it replaces the estimate; else it is only compared. */
  readonly used: boolean;
}

/** A measured load beside the estimate. */
export interface MeasuredComparison {
  /** Watts that the supply gives, by the measurement; on +12 alone for `twelve`. */
  readonly measuredWatts: number;
  readonly estimatedWatts: number;
  /** measured / estimated. */
  readonly factor: number;
}

/**
 * Output in watts behind an input at the mains, by the supply's own loss curve: the output at which output and loss add
 * up to the input (bisection, to a milliwatt). Null when the input is below the loss without load.
 */
export function outputBehind(
  inputWatts: number,
  label: Pick<SupplyLabel, 'grade' | 'ratingWatts'>,
  mainsVolts: number,
): number | null {
  const model = lossModel(label.grade, label.ratingWatts, mainsVolts);
  const input = (output: number) => output + lossWatts(model, output, label.ratingWatts);
  if (inputWatts < input(0)) return null;
  let low = 0;
  let high = inputWatts;
  while (high - low > 0.001) {
    const middle = (low + high) / 2;
    if (input(middle) > inputWatts) high = middle;
    else low = middle;
  }
  return (low + high) / 2;
}

/**
 * Compares a measured load with the estimate of the machine as it came; null without a label for mains, or without
 * parts.
 */
export function compareMeasured(
  measured: MeasuredLoad | null,
  parts: readonly MachinePart[],
  label: SupplyLabel | null,
  mainsVolts: number,
): MeasuredComparison | null {
  const demand = demandOf(partsAt(parts, 'present'));
  if (measured === null || measured.figure <= 0 || demand.sustainedWatts <= 0) return null;
  const estimatedWatts = measured.kind === 'mains' ? demand.sustainedWatts : demand.rails['+12'].watts;
  const measuredWatts =
    measured.kind === 'twelve'
      ? measured.figure * 12
      : label === null
        ? null
        : outputBehind(measured.figure, label, mainsVolts);
  return measuredWatts === null || measuredWatts <= 0 || estimatedWatts <= 0
    ? null
    : { measuredWatts, estimatedWatts, factor: measuredWatts / estimatedWatts };
}

/**
 * The parts with the figures of those that were there multiplied by what was measured; added parts keep their estimate.
 */
export function calibratedParts<P extends MachinePart>(parts: readonly P[], factor: number): P[] {
  return parts.map((part) =>
    part.change === 'added'
      ? part
      : {
          ...part,
          figures: {
            ...part.figures,
            source: 'measured' as const,
            lowWatts: part.figures.lowWatts * factor,
            likelyWatts: part.figures.likelyWatts * factor,
            highWatts: part.figures.highWatts * factor,
            idleWatts: part.figures.idleWatts * factor,
            shortWatts: part.figures.shortWatts * factor,
          },
        },
  );
}
