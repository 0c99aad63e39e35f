import type { CableKit } from '../cable/index.ts';
import type { SupplyLabel } from '../machine/index.ts';

/** Money in minor units with its currency. */
export interface Money {
  readonly minor: number;
  readonly currency: string;
}

/** A supply the shop can get, with its sockets and its cable kit. */
export interface SupplyModel {
  readonly id: string;
  readonly name: string;
  readonly label: SupplyLabel;
  readonly depthMillimetres: number;
  readonly mainsLowVolts: number;
  readonly mainsHighVolts: number;
  readonly price: Money;
  readonly onShelf: number;
  readonly noiseDecibels: number | null;
  readonly warrantyYears: number;
  readonly kit: CableKit;
}
