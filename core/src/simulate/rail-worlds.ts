/* oxlint-disable typescript/no-non-null-assertion --
   the worlds are made with a meter of one range and with points enough for a line */
import { fitLoadLine, forecastAt, type Instrument, type LoadPoint } from '../measure/index.ts';
import { railBand } from '../standards/index.ts';
import { normal, type Random } from './random.ts';

/** Ways in which a +12 V rail and its readings may be. */
export const railWorlds = ['straight', 'curved', 'drifting', 'shared-current-error', 'folds-back'] as const;
export type RailWorld = (typeof railWorlds)[number];

/** A rail that was read at some loads with one meter, and what it truly gives at any. */
export interface DrawnRail {
  readonly points: readonly LoadPoint[];
  readonly meter: Instrument;
  readonly voltsAt: (amps: number) => number;
  /** A load to ask about, 0.3 to 1.6 times the highest that was read. */
  readonly askedAmps: number;
}

const guide = '2.x';
const between = (random: Random, low: number, high: number) => low + random() * (high - low);

/** A meter by its specification, in per cent and counts of its last digit. */
export function meterOf(percent: number, counts: number, digitVolts: number): Instrument {
  return {
    id: 'm',
    name: 'M',
    kind: 'multimeter',
    ranges: [{ fullScaleVolts: 20, percent, counts, digitVolts }],
    powerGoodErrorMilliseconds: null,
    rippleErrorMillivolts: null,
    calibratedUntil: null,
    ownedBy: '',
  };
}

/** What a meter shows of a voltage: with its error, which stays, and noise, rounded to its last digit. */
export function shownBy(meter: Instrument, volts: number, errorVolts: number, noiseVolts: number, random: Random) {
  const { digitVolts } = meter.ranges[0]!;
  return Math.round((volts + errorVolts + noiseVolts * normal(random)) / digitVolts) * digitVolts;
}

/** An error that a meter may have all the time: anywhere inside its limit. */
export function errorOf(meter: Instrument, volts: number, random: Random): number {
  const { percent, counts, digitVolts } = meter.ranges[0]!;
  return (random() * 2 - 1) * ((Math.abs(volts) * percent) / 100 + counts * digitVolts);
}

/**
 * Draws a rail: 11.7 to 12.3 V without load, 2 to 25 mΩ, read at 2 to 8 loads up to 12 to 30 A.
 * @param noiseVolts of each reading; drawn from 2 to 30 mV where it is not given
 */
export function drawRail(
  world: RailWorld,
  random: Random,
  { noiseVolts, readings }: { readonly noiseVolts?: number; readonly readings?: number } = {},
): DrawnRail {
  const meter = random() < 0.5 ? meterOf(0.05, 2, 0.001) : meterOf(0.5, 2, 0.01);
  const open = between(random, 11.7, 12.3);
  const resistance = between(random, 0.002, 0.025);
  const most = between(random, 12, 30);
  const count = readings ?? 2 + Math.floor(random() * 7);
  const noise = noiseVolts ?? between(random, 0.002, 0.03);
  // Bends down by at most half of what the straight part loses at the highest load.
  const bend = world === 'curved' ? (between(random, 0, 0.5) * resistance) / most : 0;
  const foldAmps = world === 'folds-back' ? most * between(random, 0.7, 1.5) : Infinity;
  const drift = world === 'drifting' ? between(random, -0.03, 0.03) : 0;
  const clamp = world === 'shared-current-error' ? 1 + 0.02 * normal(random) : 1;
  const voltsAt = (amps: number) => open - resistance * amps - bend * amps ** 2 - 0.3 * Math.max(0, amps - foldAmps);
  const error = errorOf(meter, 12, random);
  const points = Array.from({ length: count }, (_, index): LoadPoint => {
    const amps = 2 + ((most - 2) * index) / (count - 1);
    const volts = voltsAt(amps) + (drift * index) / (count - 1);
    return {
      amps: amps * clamp,
      volts: shownBy(meter, volts, error, noise, random),
      instrumentId: meter.id,
      estimated: false,
    };
  });
  return { points, meter, voltsAt, askedAmps: most * between(random, 0.3, 1.6) };
}

/** How often forecasts hold the truth, and how often "will pass" is said of a rail that then is outside its band. */
export interface ForecastScore {
  readonly asked: number;
  readonly held: number;
  readonly passes: number;
  readonly falsePasses: number;
}

/** Asks one forecast of each rail. */
export function scoreForecasts(rails: readonly DrawnRail[]): ForecastScore {
  const { lower, upper } = railBand('+12', guide);
  const score = { asked: 0, held: 0, passes: 0, falsePasses: 0 };
  for (const { points, meter, voltsAt, askedAmps } of rails) {
    const line = fitLoadLine('+12', points, [meter], guide)!;
    const { interval, word } = forecastAt(line, askedAmps, guide);
    const truth = voltsAt(askedAmps);
    score.asked += 1;
    if (interval.low <= truth && truth <= interval.high) score.held += 1;
    if (word !== 'will-pass') continue;
    score.passes += 1;
    if (truth < lower || truth > upper) score.falsePasses += 1;
  }
  return score;
}
