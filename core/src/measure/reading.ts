import type { RailName } from '../standards/index.ts';

/** How the supply was loaded when the figure was taken. */
export type Condition = 'off-load' | 'idle' | 'work';
export const conditions = ['off-load', 'idle', 'work'] as const satisfies readonly Condition[];

/** What was measured: a rail in volts, or the power-good delay in milliseconds. */
export type Subject = RailName | 'power-good';
export const subjects = ['+12', '+5', '+3.3', '-12', '+5sb', 'power-good'] as const satisfies readonly Subject[];

/** Codes a tester or a meter shows instead of a figure. */
export type ReadingCode = 'too-high' | 'too-low' | 'absent' | 'wanders';
export const readingCodes = ['too-high', 'too-low', 'absent', 'wanders'] as const satisfies readonly ReadingCode[];

/** One figure or code. Volts for rails, milliseconds for power-good. */
export type ReadingValue =
  { readonly kind: 'figure'; readonly figure: number } | { readonly kind: 'code'; readonly code: ReadingCode };

/** What the verdict needs of a reading. */
export interface MeasuredValue {
  readonly subject: Subject;
  readonly condition: Condition;
  readonly value: ReadingValue;
  readonly instrumentId: string;
  /** When it was read, ISO 8601; where it is not given, the calibration is taken to have held. */
  readonly at?: string | undefined;
}
