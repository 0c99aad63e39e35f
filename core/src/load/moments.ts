import { boundToBe } from '../bound-to-be.ts';
import { carriedShare, excursionMultiple, type ExcursionMilliseconds } from '../standards/index.ts';
import { partClass, type MachinePart, type SupplyLabel } from '../machine/index.ts';

export type LoadRail = '+12' | '+5' | '+3.3';
export const loadRails = ['+12', '+5', '+3.3'] as const satisfies readonly LoadRail[];
export const railVolts: Record<LoadRail, number> = { '+12': 12, '+5': 5, '+3.3': 3.3 };

/**
 * For how long a load is asked for: lasting, at the start of the drives (some seconds), or a peak of so many
 * milliseconds. Longest first, which is also the order in which reasons are given.
 */
export type Moment = 'lasting' | 'spin-up' | '1000' | '100' | '10' | '1' | '0.1';
export const moments = ['lasting', 'spin-up', '1000', '100', '10', '1', '0.1'] as const satisfies readonly Moment[];

/** Watts on each voltage. */
export type RailWatts = Readonly<Record<LoadRail, number>>;

/** Share of a processor's input that its converters on the board pass on (bench practice). */
export const converterEfficiency = 0.87;

/** Watts at the supply for watts at the part: a processor's go through its converters. */
export function inputWatts(part: MachinePart, watts: number): number {
  const throughConverters = partClass(part.classId)?.group === 'processor';
  return (part.quantity * watts) / (throughConverters ? converterEfficiency : 1);
}

/** Watts at the supply that a part draws at a moment, without the extra of a starting drive. */
export function wattsAt(part: MachinePart, moment: Moment): number {
  const { figures } = part;
  switch (moment) {
    case 'lasting':
      return inputWatts(part, figures.likelyWatts);
    case 'spin-up':
      return inputWatts(part, figures.idleWatts);
    case '1000':
      return inputWatts(part, figures.shortWatts);
    default:
      return Math.max(
        inputWatts(part, figures.likelyWatts) *
          excursionMultiple[figures.excursion][Number(moment) as ExcursionMilliseconds],
        inputWatts(part, figures.shortWatts),
      );
  }
}

/** What the start of one drive adds, in watts on each voltage; zeros for what does not spin. */
export function startingWatts({ figures }: MachinePart): RailWatts {
  return { '+12': 12 * figures.spinUpAmps, '+5': 5 * figures.spinUpAmps5, '+3.3': 0 };
}

export function sharesOf({ figures }: MachinePart): RailWatts {
  return { '+12': figures.share12, '+5': figures.share5, '+3.3': figures.share33 };
}

/** Records a figure for each voltage. */
export function onRails(of: (rail: LoadRail) => number): RailWatts {
  return { '+12': of('+12'), '+5': of('+5'), '+3.3': of('+3.3') };
}

export const totalWatts = (watts: RailWatts): number => watts['+12'] + watts['+5'] + watts['+3.3'];

/**
 * What a supply owes at a moment, as shares of its figures: up to `promised` it carries the load by its guide; over
 * `least` it surely is not made for it; between them nobody promises anything, which is a doubt and no verdict.
 *
 * A recent supply promises what its guide says; a peak of 0.1 ms alone never decides. A 2.x supply promises its rating;
 * below 100 ms it is silent, and is granted no more than the weakest recent supply of its rating must carry, so that
 * silence is never worth more than a promise.
 */
export function owedAt(
  label: Pick<SupplyLabel, 'guide' | 'has16Pin' | 'ratingWatts'>,
  moment: Moment,
): { readonly promised: number; readonly least: number } {
  if (moment === 'lasting' || moment === 'spin-up' || moment === '1000') return { promised: 1, least: 1 };
  const milliseconds = Number(moment) as ExcursionMilliseconds;
  const recent = label.guide === '2.x' ? '3.x' : label.guide;
  const plain = boundToBe(
    carriedShare(recent, label.guide !== '2.x' && label.has16Pin, label.ratingWatts, milliseconds),
    'share of a recent guide',
  );
  const promised = label.guide === '2.x' ? 1 : plain;
  if (moment === '0.1') return { promised, least: Infinity };
  return { promised, least: label.guide === '2.x' && moment === '100' ? 1 : plain };
}
