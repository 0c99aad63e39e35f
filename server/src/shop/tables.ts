import {
  instrumentKinds,
  needs,
  schools,
  type ChoosingSettings,
  type Instrument,
  type MeterRange,
  type ShopSettings,
} from '@fairwatt/core';
import { instrumentRoles, standings, type NetworkInstrument, type Technician } from '@fairwatt/contract';
import {
  boolean,
  describe,
  list,
  named,
  number,
  oneOf,
  orNull,
  text,
  within,
  type ChildTable,
} from '../database/table.ts';

// Every table of a shop's settings, people and instruments, described once for reading and for writing.

export const technician = describe<Technician>({ id: text, name: text, role: oneOf(standings) });

export const instrument = describe<Omit<Instrument, 'ranges'>>({
  id: text,
  name: text,
  kind: oneOf(instrumentKinds),
  powerGoodErrorMilliseconds: orNull(number),
  rippleErrorMillivolts: orNull(number),
  calibratedUntil: orNull(text),
  ownedBy: text,
});
export const instrumentRanges: ChildTable<MeterRange> = {
  table: 'instrument_range',
  parent: 'instrument_id',
  order: 'position',
  ...describe<MeterRange>({ fullScaleVolts: number, percent: number, counts: number, digitVolts: number }),
};

export const networkInstrument = describe<NetworkInstrument>({
  id: text,
  name: text,
  role: oneOf(instrumentRoles),
  host: text,
  port: number,
  instrumentId: orNull(text),
});

export const settings = describe<ShopSettings>({
  name: text,
  codePrefix: text,
  mainsVolts: number,
  currency: text,
  locale: text,
  timeZone: text,
  school: oneOf(schools),
  stopProbability: number,
  bench: within({ has: named('bench_has', list(oneOf(needs))), mayMeterMains: boolean }),
  choosing: within<ChoosingSettings>({
    agePercentAYear: number,
    sharedCardCable: boolean,
    dropTooLarge: boolean,
    spareCables: boolean,
    adapters: boolean,
    minorPerKilowattHour: number,
    breakerAmps: number,
    keepYears: number,
    day: within({ idleHours: number, typicalHours: number, fullHours: number, typicalShare: number }),
    weights: within(
      { price: number, headroom: number, running: number, noise: number, warranty: number, shelf: number },
      'weight',
    ),
  }),
});
