import {
  guides,
  modularities,
  excursionKinds,
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
  excursion: oneOf(excursionKinds),
  standbyWatts: number,
  source: oneOf(figureSources),
};

/** What a label says beside its rails and limits, which have rows of their own. */
export type LabelHead = Omit<SupplyLabel, 'rails' | 'combined'>;
export const labelHead: Fields<LabelHead> = {
  ratingWatts: number,
  shape: oneOf(shapes),
  guide: oneOf(guides),
  grade: oneOf(grades),
  modular: oneOf(modularities),
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
