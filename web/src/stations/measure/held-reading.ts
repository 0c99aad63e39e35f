import { bareReading, type Condition, type Instrument, type Phase, type RailName } from '@fairwatt/core';
import type { LiveEvent } from '@fairwatt/contract';

interface Where {
  readonly rail: RailName;
  readonly phase: Phase;
  readonly condition: Condition;
  readonly instrumentId: string;
}

/** A figure that came to rest as a reading, with the places that the meter shows. */
export function heldReading(
  held: Extract<LiveEvent, { kind: 'held' }>,
  { rail, phase, condition, instrumentId }: Where,
  instruments: readonly Instrument[],
) {
  const instrument = instruments.find((item) => item.id === instrumentId);
  const places = instrument?.ranges.some((range) => range.digitVolts < 0.001) === true ? 4 : 3;
  return {
    ...bareReading,
    id: crypto.randomUUID(),
    phase,
    subject: rail,
    condition,
    value: { kind: 'figure', figure: Number(held.volts.toFixed(places)) },
    instrumentId,
    note: `live, mean of ${held.count}`,
  } as const;
}
