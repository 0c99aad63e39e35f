import type { CableKit } from '../cable/index.ts';
import type { SupplyLabel } from '../machine/index.ts';
import type { Correction, MainsInlet, Protection } from '../standards/index.ts';

/** Money in minor units with its currency. */
export interface Money {
  readonly minor: number;
  readonly currency: string;
}

/** A price with the day it was asked; null when nobody noted it. */
export interface Price extends Money {
  readonly asOf: string | null;
}

/** Where a supply takes its air in. */
export type FanSide = 'large-face' | 'rear' | 'none';
export const fanSides = ['large-face', 'rear', 'none'] as const satisfies readonly FanSide[];

/** A supply the shop can get, with its sockets and its cable kit. */
export interface SupplyModel {
  readonly id: string;
  readonly name: string;
  readonly label: SupplyLabel;
  readonly depthMillimetres: number;
  readonly mainsLowVolts: number;
  readonly mainsHighVolts: number;
  readonly inlet: MainsInlet;
  readonly correction: Correction;
  readonly protections: readonly Protection[];
  readonly fan: FanSide;
  /** Whether its mounting holes are its maker's own and not the standard four. */
  readonly ownHoles: boolean;
  readonly price: Price;
  /** Units that can be fitted now: new or used and proven, and not reserved. */
  readonly onShelf: number;
  readonly noiseDecibels: number | null;
  readonly warrantyYears: number;
  /** Year its design came out; null when unknown. */
  readonly designYear: number | null;
  readonly kit: CableKit;
}
