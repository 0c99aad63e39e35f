import { readingsOf } from './fitting.ts';
import { demandOf, type Demand } from '../load/index.ts';
import { partsAt } from '../machine/index.ts';
import {
  crossLoadOf,
  fitLoadLine,
  forecastAt,
  whileRunning,
  type CrossLoad,
  type Forecast,
  type Instrument,
  type LoadLine,
  type LoadPoint,
  type Steadiness,
} from '../measure/index.ts';
import type { Guide } from '../standards/index.ts';
import type { Job, Phase, Reading } from './job.ts';

const rails = ['+12', '+5', '+3.3'] as const;
type LineRail = (typeof rails)[number];
const nominal: Record<LineRail, number> = { '+12': 12, '+5': 5, '+3.3': 3.3 };

/** A rail's load line with what it will show at the planned load. */
export interface RailForecast {
  readonly line: LoadLine;
  readonly planned: Forecast;
  /** At the lasting load of the machine as it came. */
  readonly present: Forecast;
}

export interface LoadLines {
  readonly forecasts: readonly RailForecast[];
  readonly crossLoad: CrossLoad | null;
}

/**
 * The current on a rail when a reading was taken, in amps: as measured or set; else from the watts of the whole
 * machine, shared as the parts share them; else nothing off load, and the parts' idle or lasting load. Null when
 * nothing tells.
 */
function ampsOf(
  reading: Reading,
  rail: LineRail,
  machine: Demand,
): { readonly amps: number; readonly estimated: boolean } | null {
  if (reading.loadAmps !== null) return { amps: reading.loadAmps, estimated: false };
  if (reading.condition === 'off-load') return { amps: 0, estimated: false };
  if (machine.sustainedWatts <= 0) return null;
  const share = machine.rails[rail].watts / machine.sustainedWatts;
  if (reading.loadWatts !== null) return { amps: (reading.loadWatts * share) / nominal[rail], estimated: true };
  return {
    amps: ((reading.condition === 'idle' ? machine.idleWatts : machine.sustainedWatts) * share) / nominal[rail],
    estimated: true,
  };
}

/** Load lines from the readings of a phase, and what each rail will show at the planned load. */
export function loadLinesOf(
  job: Pick<Job, 'parts' | 'readings' | 'choice'>,
  phase: Phase,
  steadiness: readonly Steadiness[],
  instruments: readonly Instrument[],
  guide: Guide,
): LoadLines {
  const present = demandOf(partsAt(job.parts, 'present'));
  const planned = demandOf(partsAt(job.parts, 'planned'));
  const machine = phase === 'before' ? present : planned;
  const running = whileRunning(readingsOf(job, phase), guide);
  const forecasts = rails.flatMap((rail): RailForecast[] => {
    const points = running.flatMap((reading): LoadPoint[] => {
      if (reading.subject !== rail || reading.value.kind !== 'figure') return [];
      const load = ampsOf(reading, rail, machine);
      return load === null ? [] : [{ ...load, volts: reading.value.figure, instrumentId: reading.instrumentId }];
    });
    const line = fitLoadLine(rail, points, instruments, guide);
    return line === null || planned.sustainedWatts <= 0
      ? []
      : [
          {
            line,
            planned: forecastAt(line, planned.rails[rail].amps, guide),
            present: forecastAt(line, present.rails[rail].amps, guide),
          },
        ];
  });
  const pair = (rail: LineRail) => {
    const item = steadiness.find((candidate) => candidate.rail === rail);
    return item?.lightVolts == null || item.workVolts === null
      ? null
      : { light: item.lightVolts, work: item.workVolts };
  };
  return { forecasts, crossLoad: crossLoadOf(pair('+12'), pair('+5')) };
}
