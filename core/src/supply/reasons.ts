import type { Protection } from '../standards/index.ts';
import type { CablePlan } from '../cable/index.ts';
import type { LoadFinding, School } from '../load/index.ts';

/** Why a supply is dropped. Figures in the unit of the rule. */
export type FitReason =
  | { readonly code: 'shape'; readonly shape: string; readonly allowed: readonly string[] }
  | { readonly code: 'depth'; readonly needsMillimetres: number; readonly roomMillimetres: number }
  | { readonly code: 'holes'; readonly caseOwn: boolean }
  | { readonly code: 'vent' }
  | { readonly code: 'mains'; readonly mainsVolts: number; readonly lowVolts: number; readonly highVolts: number }
  | { readonly code: 'lead'; readonly amps: number; readonly limitAmps: number }
  | { readonly code: 'load'; readonly finding: LoadFinding }
  | { readonly code: 'outputs-unknown' }
  | { readonly code: 'school'; readonly school: School; readonly asksWatts: number; readonly ratingWatts: number }
  | { readonly code: 'inlet'; readonly inletId: string; readonly reason: CablePlan['open'][number]['reason'] }
  | { readonly code: 'protection'; readonly missing: Protection }
  | { readonly code: 'correction' }
  | { readonly code: 'noise'; readonly decibels: number | null; readonly mostDecibels: number }
  | { readonly code: 'warranty'; readonly years: number; readonly leastYears: number }
  | TooLarge;

/** A rating above `tooLargeMultiple` times the lasting load. */
export interface TooLarge {
  readonly code: 'too-large';
  readonly ratingWatts: number;
  readonly sustainedWatts: number;
  /** Output over input at idle, 0 to 1, and money a year in minor units: what being too large costs. */
  readonly idleEfficiency: number;
  readonly minorAYear: number;
}
