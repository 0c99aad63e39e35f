import { z } from 'zod';
import { mostSweepSteps, railNames } from '@fairwatt/core';
import { figure, id, jobCode, line } from './primitives.ts';

/** Loopback and private addresses, as figures: nothing else is ever connected to. */
export function isPrivateAddress(host: string): boolean {
  const parts = /^(\d{1,3})\.(\d{1,3})\.(\d{1,3})\.(\d{1,3})$/.exec(host)?.slice(1).map(Number);
  if (parts !== undefined) {
    if (parts.some((part) => part > 255)) return false;
    const [a = 0, b = 0] = parts;
    return a === 127 || a === 10 || (a === 172 && b >= 16 && b <= 31) || (a === 192 && b === 168);
  }
  return host === '::1' || /^f[cd][0-9a-f]{2}:[0-9a-f:]*$/i.test(host);
}

/** What an instrument that is reached over the network is there for. */
export const instrumentRoles = ['meter', 'load'] as const;

export const networkInstrumentSchema = z
  .strictObject({
    id,
    name: line(60),
    role: z.enum(instrumentRoles),
    host: z.string().refine(isPrivateAddress, 'a loopback or private address in figures, such as 192.168.1.40'),
    port: z.int('a whole number').min(1, 'from 1 to 65535').max(65_535, 'from 1 to 65535'),
    instrumentId: id.nullable(),
  })
  .refine((value) => value.role === 'load' || value.instrumentId !== null, {
    path: ['instrumentId'],
    message: 'a meter needs the error specification it is judged by',
  });
export type NetworkInstrument = z.infer<typeof networkInstrumentSchema>;
export const networkInstrumentsSchema = z.array(networkInstrumentSchema);
export const newNetworkInstrumentSchema = z.strictObject({ by: id, instrument: networkInstrumentSchema });

export const liveQuerySchema = z.strictObject({
  rail: z.enum(railNames),
  job: jobCode,
  /**
   * The probe is on its way there, and the screen takes by itself what it shows: one screen at a time. Stand-ins show
   * it in the air first.
   */
  moving: z.literal('yes').optional(),
});

/** Asks a meter to time power-good of the supply on the bench. */
export const powerGoodRequestSchema = z.strictObject({ job: jobCode });

/** What goes wrong with an instrument, as data. */
export const instrumentTroubles = [
  'no-connection',
  'silent',
  'vanished',
  'nonsense',
  'flood',
  'stale-answer',
  'out-of-range',
  'refused',
  /** Another screen takes its figures by itself now. */
  'taken',
] as const;
export type InstrumentTrouble = (typeof instrumentTroubles)[number];

export type LiveEvent =
  | { readonly kind: 'identity'; readonly text: string }
  | { readonly kind: 'reading'; readonly at: string; readonly volts: number }
  | {
      readonly kind: 'held';
      readonly at: string;
      readonly volts: number;
      readonly spreadVolts: number;
      readonly count: number;
    }
  | { readonly kind: 'trouble'; readonly at: string; readonly trouble: InstrumentTrouble };

export const sweepRequestSchema = z
  .strictObject({
    by: id,
    job: jobCode,
    meterId: id,
    loadId: id,
    rail: z.enum(railNames),
    fromAmps: figure(0, 200),
    toAmps: figure(0, 200),
    steps: z.int().min(2, 'at least 2').max(mostSweepSteps, `at most ${mostSweepSteps}`),
    dwellSeconds: figure(0.2, 60),
    hottestCelsius: figure(30, 120),
  })
  .refine((value) => value.toAmps > value.fromAmps, { path: ['toAmps'], message: 'is above where it starts' });
export type SweepRequest = z.infer<typeof sweepRequestSchema>;

/** A sweep that runs now, so that any screen can show it and stop it. */
export const runningSweepSchema = z.strictObject({
  id: z.uuid(),
  job: jobCode,
  rail: z.enum(railNames),
  meterId: id,
  loadId: id,
  loadName: line(60),
  steps: z.int().min(2).max(mostSweepSteps),
});
export type RunningSweepMessage = z.infer<typeof runningSweepSchema>;
/** `unsure`: loads that were in a sweep whose end nobody saw; they may still draw. */
export const sweepsSchema = z.strictObject({
  running: z.array(runningSweepSchema),
  unsure: z.array(z.strictObject({ loadId: id, loadName: line(60) })),
});
export type SweepsMessage = z.infer<typeof sweepsSchema>;
/** Asks to make sure that a load is off, or says that somebody has switched it off by hand. */
export const loadOffSchema = z.strictObject({ by: id, byHand: z.boolean() });

export interface SweepStep {
  readonly amps: number;
  readonly volts: number;
  readonly spreadVolts: number;
  readonly celsius: number | null;
  readonly at: string;
}
export type SweepEnd = 'done' | 'stopped' | 'rail-low' | 'rail-high' | 'too-hot' | InstrumentTrouble;

export type SweepEvent =
  | { readonly kind: 'begun'; readonly amps: readonly number[] }
  | { readonly kind: 'setting'; readonly amps: number }
  | { readonly kind: 'step'; readonly step: SweepStep }
  /** `loadOff` false: nobody knows whether the load still draws; it has to be switched off by hand. */
  | { readonly kind: 'ended'; readonly end: SweepEnd; readonly loadOff: boolean };
