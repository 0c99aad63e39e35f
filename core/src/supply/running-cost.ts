import { boundToBe } from '../bound-to-be.ts';
import {
  leadAmps,
  lossModel,
  lossWatts,
  lowestMainsVolts,
  powerFactor,
  type Correction,
  type Grade,
  type MainsInlet,
} from '../standards/index.ts';
import type { Money } from './model.ts';

/** A machine's day in hours; the rest of the 24 it is off. */
export interface DayProfile {
  readonly idleHours: number;
  readonly typicalHours: number;
  readonly fullHours: number;
  /** Where typical lies between idle (0) and full (1). */
  readonly typicalShare: number;
}

/** What the mains and the money are. */
export interface Tariff {
  readonly mainsVolts: number;
  readonly minorPerKilowattHour: number;
  readonly breakerAmps: number;
}

export type WorkPoint = 'idle' | 'typical' | 'full';

/** The supply at one load. */
export interface PointOfWork {
  readonly point: WorkPoint;
  readonly outputWatts: number;
  readonly lossWatts: number;
  readonly inputWatts: number;
  /** Output over input, 0 to 1. */
  readonly efficiency: number;
}

/** What it costs to run the machine on a supply for a year, and what mains, lead and breaker see of it. */
export interface RunningCost {
  readonly points: readonly PointOfWork[];
  readonly kilowattHours: number;
  readonly lostKilowattHours: number;
  /** In minor units of the shop's currency. */
  readonly minorAYear: number;
  /** Heat into the room at typical load, in watts: all that is taken in. */
  readonly heatWatts: number;
  /** At full load and the lowest voltage that the mains may have. */
  readonly inputAmps: number;
  readonly leadAmps: number;
  /** Input amps over the breaker's, 0 to 1; more than 0.8 is not meant to last. */
  readonly breakerShare: number;
  readonly upsWatts: number;
  readonly upsVoltAmps: number;
}

/**
 * Energy and money of a year by the grade's loss curve, at idle, typical and full load.
 * Input current = output / (efficiency x power factor x lowest mains voltage).
 */
export function runningCost(
  supply: {
    readonly grade: Grade;
    readonly ratingWatts: number;
    readonly correction: Correction;
    readonly inlet: MainsInlet;
  },
  loads: { readonly idleWatts: number; readonly fullWatts: number },
  day: DayProfile,
  tariff: Tariff,
): RunningCost {
  const model = lossModel(supply.grade, supply.ratingWatts, tariff.mainsVolts);
  const outputs: Record<WorkPoint, number> = {
    idle: loads.idleWatts,
    typical: loads.idleWatts + day.typicalShare * (loads.fullWatts - loads.idleWatts),
    full: loads.fullWatts,
  };
  const hours: Record<WorkPoint, number> = { idle: day.idleHours, typical: day.typicalHours, full: day.fullHours };
  const points = (['idle', 'typical', 'full'] as const).map((point): PointOfWork => {
    const outputWatts = outputs[point];
    const loss = lossWatts(model, outputWatts, supply.ratingWatts);
    return {
      point,
      outputWatts,
      lossWatts: loss,
      inputWatts: outputWatts + loss,
      efficiency: outputWatts / (outputWatts + loss),
    };
  });
  const yearly = (of: (point: PointOfWork) => number) =>
    points.reduce((sum, point) => sum + (of(point) * hours[point.point] * 365) / 1000, 0);
  const kilowattHours = yearly((point) => point.inputWatts);
  const full = boundToBe(points[2], 'point full');
  const voltAmps = full.inputWatts / powerFactor[supply.correction];
  const inputAmps = voltAmps / lowestMainsVolts(tariff.mainsVolts);
  return {
    points,
    kilowattHours,
    lostKilowattHours: yearly((point) => point.lossWatts),
    minorAYear: kilowattHours * tariff.minorPerKilowattHour,
    heatWatts: boundToBe(points[1], 'point at work').inputWatts,
    inputAmps,
    leadAmps: leadAmps(supply.inlet, tariff.mainsVolts),
    breakerShare: inputAmps / tariff.breakerAmps,
    upsWatts: full.inputWatts,
    upsVoltAmps: voltAmps,
  };
}

/**
 * Years until a dearer supply that runs cheaper has paid for itself; 0 when it is not dearer, null when it never does
 * or the prices are not in one currency.
 */
export function paybackYears(
  dearer: { readonly price: Money; readonly minorAYear: number },
  cheaper: { readonly price: Money; readonly minorAYear: number },
): number | null {
  if (dearer.price.currency !== cheaper.price.currency) return null;
  const more = dearer.price.minor - cheaper.price.minor;
  const saved = cheaper.minorAYear - dearer.minorAYear;
  if (more <= 0) return saved >= 0 ? 0 : null;
  return saved > 0 ? more / saved : null;
}
