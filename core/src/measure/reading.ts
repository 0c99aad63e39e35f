import { railNames, type RailName } from '../standards/index.ts';

/** How the supply was loaded when the figure was taken. */
export type Condition = 'off-load' | 'idle' | 'work';
export const conditions = ['off-load', 'idle', 'work'] as const satisfies readonly Condition[];

/** A time in milliseconds: power-good after the rails, the rails after the start, or after the mains is gone. */
export type TimeSubject = 'power-good' | 'power-on' | 'hold-up';
/** Ripple of a rail in millivolts peak to peak. */
export type RippleSubject = `ripple ${RailName}`;
/** What was measured: a rail in volts, a time in milliseconds, or a rail's ripple in millivolts. */
export type Subject = RailName | TimeSubject | RippleSubject;
export const subjects = [
  '+12',
  '+5',
  '+3.3',
  '-12',
  '+5sb',
  'power-good',
  'power-on',
  'hold-up',
  'ripple +12',
  'ripple +5',
  'ripple +3.3',
  'ripple -12',
  'ripple +5sb',
] as const satisfies readonly Subject[];

export const isRail = (subject: Subject): subject is RailName => (railNames as readonly Subject[]).includes(subject);
export const isTime = (subject: Subject): subject is TimeSubject =>
  subject === 'power-good' || subject === 'power-on' || subject === 'hold-up';
/** No output of a supply reaches this, whatever is wrong with it: extra low voltage ends at 60 V. */
export const mostRailVolts = 60;
/** What is longer in milliseconds, or more in millivolts peak to peak, is a slip. */
export const mostOther = 5000;
/**
 * Whether a figure can be read of a supply at all; what cannot is never kept.
 * @param figure volts for rails, milliseconds for times, millivolts peak to peak for ripple
 */
export const isPossible = (subject: Subject, figure: number): boolean =>
  isRail(subject) ? Math.abs(figure) <= mostRailVolts : figure >= 0 && figure <= mostOther;

/** The rail whose ripple was read; null where something else was. */
export const rippleRail = (subject: Subject): RailName | null =>
  railNames.find((rail) => subject === `ripple ${rail}`) ?? null;

/** Codes a tester or a meter shows instead of a figure. */
export type ReadingCode = 'too-high' | 'too-low' | 'absent' | 'wanders';
export const readingCodes = ['too-high', 'too-low', 'absent', 'wanders'] as const satisfies readonly ReadingCode[];

/** One figure or code. Volts for rails, milliseconds for times, millivolts peak to peak for ripple. */
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
