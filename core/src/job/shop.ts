import type { CableBags } from '../cable/index.ts';
import type { Bench, Model } from '../diagnose/index.ts';
import type { School } from '../load/index.ts';
import type { Instrument } from '../measure/index.ts';
import type { DayProfile, SupplyModel, Weights } from '../supply/index.ts';

/** How the shop sizes and chooses supplies. */
export interface ChoosingSettings {
  /** What a supply is thought to lose of its rating in a year, percent (bench practice; no standard). */
  readonly agePercentAYear: number;
  /** Whether two graphics inlets may share a cable where the load allows it. */
  readonly sharedCardCable: boolean;
  /** Whether a supply of more than four times the lasting load is dropped; else it is only warned of. */
  readonly dropTooLarge: boolean;
  /** Whether spare cables that are safe on a supply, and adapters, may be planned with. */
  readonly spareCables: boolean;
  readonly adapters: boolean;
  /** In minor units of the shop's currency. */
  readonly minorPerKilowattHour: number;
  readonly breakerAmps: number;
  /** A machine's usual day; a job may say otherwise. */
  readonly day: DayProfile;
  /** Years that a supply is kept, for what it costs to run. */
  readonly keepYears: number;
  readonly weights: Weights;
}

/** What a shop starts with that has not said otherwise. */
export const firstChoosing: ChoosingSettings = {
  agePercentAYear: 1,
  sharedCardCable: true,
  dropTooLarge: false,
  spareCables: true,
  adapters: true,
  minorPerKilowattHour: 30,
  breakerAmps: 16,
  day: { idleHours: 4, typicalHours: 3, fullHours: 1, typicalShare: 0.4 },
  keepYears: 5,
  weights: { price: 5, headroom: 1, running: 2, noise: 1, warranty: 1, shelf: 3 },
};

/** The shop's settings that the computation needs. */
export interface ShopSettings {
  readonly name: string;
  /** Two capital letters that the codes of this shop's jobs begin with. */
  readonly codePrefix: string;
  readonly mainsVolts: number;
  readonly currency: string;
  /** How figures, money and days are written: a language tag (BCP 47). */
  readonly locale: string;
  /** By which clock times are told: a zone (IANA), or empty for each device's own. */
  readonly timeZone: string;
  readonly school: School;
  /** A leading fault above this is offered as the finding, 0 to 1. */
  readonly stopProbability: number;
  readonly bench: Bench;
  readonly choosing: ChoosingSettings;
}

/** Everything beside the job that its figures depend on. */
export interface Shop {
  readonly settings: ShopSettings;
  readonly model: Model;
  readonly instruments: readonly Instrument[];
  readonly supplies: readonly SupplyModel[];
  readonly bags: CableBags;
}
