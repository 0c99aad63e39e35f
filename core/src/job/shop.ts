import type { Bench, Model } from '../diagnose/index.ts';
import type { School } from '../load/index.ts';
import type { Instrument } from '../measure/index.ts';
import type { SupplyModel } from '../supply/index.ts';

/** The shop's settings that the computation needs. */
export interface ShopSettings {
  readonly name: string;
  readonly mainsVolts: number;
  readonly currency: string;
  readonly school: School;
  /** A leading fault above this is offered as the finding, 0 to 1. */
  readonly stopProbability: number;
  readonly bench: Bench;
}

/** Everything beside the job that its figures depend on. */
export interface Shop {
  readonly settings: ShopSettings;
  readonly model: Model;
  readonly instruments: readonly Instrument[];
  readonly supplies: readonly SupplyModel[];
}
