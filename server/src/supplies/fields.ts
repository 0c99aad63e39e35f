import {
  cableFamilies,
  figureSources,
  grades,
  railNames,
  shapes,
  type PowerFigures,
  type SupplyLabel,
} from '@fairwatt/core';
import { boolean, list, named, number, oneOf, optional, orNull, text, type Fields } from '../database/table.ts';

// What more than one table keeps of parts and of labels.

export const figures: Fields<PowerFigures> = {
  lowWatts: number,
  likelyWatts: number,
  highWatts: number,
  idleWatts: number,
  shortWatts: number,
  spinUpAmps: number,
  spinUpAmps5: named('spin_up_amps5', number),
  slotWatts: orNull(number),
  share12: number,
  share5: number,
  share33: number,
  excursion: oneOf(['none', 'processor', 'card-older', 'card-newer']),
  standbyWatts: number,
  source: oneOf(figureSources),
};

/** What a label says beside its rails and limits, which have rows of their own. */
export type LabelHead = Omit<SupplyLabel, 'rails' | 'combined'>;
export const labelHead: Fields<LabelHead> = {
  ratingWatts: number,
  shape: oneOf(shapes),
  guide: oneOf(['2.x', '3.x']),
  grade: oneOf(grades),
  modular: oneOf(['fixed', 'semi', 'full']),
  has16Pin: boolean,
};
export const railFields: Fields<SupplyLabel['rails'][number]> = {
  label: text,
  rail: oneOf(railNames),
  amps: number,
  feeds: optional(list(oneOf(cableFamilies))),
  usual: optional(boolean),
};
export const combinedFields: Fields<SupplyLabel['combined'][number]> = {
  labels: list(text),
  watts: number,
  usual: optional(boolean),
};
