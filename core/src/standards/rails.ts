import { sources, type Source } from './source.ts';

/** The voltages of a desktop supply. Power-good is a signal and stands in `signals.ts`. */
export type RailName = '+12' | '+5' | '+3.3' | '-12' | '+5sb';
export const railNames = ['+12', '+5', '+3.3', '-12', '+5sb'] as const satisfies readonly RailName[];

/** The design guide a supply was built to. */
export const guides = ['2.x', '3.x'] as const;
export type Guide = (typeof guides)[number];

/** Limits at the connector in volts; `lower` is the smaller number, also for the negative rail. */
export interface RailBand {
  readonly lower: number;
  readonly nominal: number;
  readonly upper: number;
  readonly mayBeAbsent: boolean;
  readonly source: Source;
}

const older: Record<RailName, RailBand> = {
  '+12': { lower: 11.4, nominal: 12, upper: 12.6, mayBeAbsent: false, source: sources.guide2 },
  '+5': { lower: 4.75, nominal: 5, upper: 5.25, mayBeAbsent: false, source: sources.guide2 },
  '+3.3': { lower: 3.14, nominal: 3.3, upper: 3.47, mayBeAbsent: false, source: sources.guide2 },
  '-12': { lower: -13.2, nominal: -12, upper: -10.8, mayBeAbsent: false, source: sources.guide2 },
  '+5sb': { lower: 4.75, nominal: 5, upper: 5.25, mayBeAbsent: false, source: sources.guide2 },
};

const recent: Record<RailName, RailBand> = {
  ...older,
  '+12': { lower: 11.2, nominal: 12, upper: 12.6, mayBeAbsent: false, source: sources.guide3 },
  '-12': { ...older['-12'], mayBeAbsent: true, source: sources.guide3 },
};

/** The band a rail must stay in, by the guide the supply declares; the 2.x band when none is declared. */
export function railBand(rail: RailName, guide: Guide): RailBand {
  return guide === '3.x' ? recent[rail] : older[rail];
}

/** The mark shown with a rail's wire: convention only, many modular cables are all black. */
export const railColour: Record<RailName, 'yellow' | 'red' | 'orange' | 'blue' | 'purple'> = {
  '+12': 'yellow',
  '+5': 'red',
  '+3.3': 'orange',
  '-12': 'blue',
  '+5sb': 'purple',
};
