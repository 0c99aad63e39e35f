import { z } from 'zod';
import {
  firstChoosing,
  firstLocale,
  isLocale,
  isTimeZone,
  needs,
  schools,
  type ChoosingSettings,
  type Instrument,
  type ShopSettings,
  boardSensorId,
  instrumentKinds,
} from '@fairwatt/core';
import { codePrefix, figure, id, line, text } from './primitives.ts';
import { standings } from './access.ts';
import { dayProfileSchema } from './supply.ts';

export const instrumentSchema = z.strictObject({
  id: id.refine((value) => value !== boardSensorId, 'is kept for the sensor of a machine’s own board'),
  name: line(60),
  kind: z.enum(instrumentKinds),
  ranges: z
    .array(
      z.strictObject({
        fullScaleVolts: figure(0.001, 2000),
        percent: figure(0, 20),
        counts: figure(0, 200),
        digitVolts: figure(0.000001, 10),
      }),
    )
    .min(1)
    .max(8),
  powerGoodErrorMilliseconds: figure(0, 1000).nullable(),
  rippleErrorMillivolts: figure(0, 1000).nullable().default(null),
  calibratedUntil: z.iso.date().nullable(),
  ownedBy: text(60).default(''),
}) satisfies z.ZodType<Instrument>;

const weight = figure(0, 10);
export const choosingSchema = z.strictObject({
  agePercentAYear: figure(0, 5),
  sharedCardCable: z.boolean(),
  dropTooLarge: z.boolean().default(false),
  spareCables: z.boolean().default(true),
  adapters: z.boolean().default(true),
  minorPerKilowattHour: figure(0, 1000),
  breakerAmps: figure(1, 100),
  day: dayProfileSchema,
  keepYears: figure(0.5, 30),
  weights: z
    .strictObject({ price: weight, headroom: weight, running: weight, noise: weight, warranty: weight, shelf: weight })
    .refine((weights) => Object.values(weights).some((value) => value > 0), 'at least one weight is above 0'),
}) satisfies z.ZodType<ChoosingSettings>;

/** What codes begin with where a shop has not said otherwise. */
export const firstCodePrefix = 'FW';

export const shopSettingsSchema = z.strictObject({
  name: line(80),
  codePrefix: codePrefix.default(firstCodePrefix),
  mainsVolts: figure(90, 260),
  currency: z.string().regex(/^[A-Z]{3}$/),
  locale: z.string().refine(isLocale, 'a language such as en-GB').default(firstLocale),
  timeZone: z.union([z.literal(''), z.string().refine(isTimeZone, 'a time zone such as Etc/UTC, or none')]).default(''),
  school: z.enum(schools),
  stopProbability: figure(0.5, 0.999),
  bench: z.strictObject({ has: z.array(z.enum(needs)), mayMeterMains: z.boolean() }),
  choosing: choosingSchema.default({ ...firstChoosing }),
}) satisfies z.ZodType<ShopSettings>;

export const technicianSchema = z.strictObject({ id, name: line(60), role: z.enum(standings) });
export type Technician = z.infer<typeof technicianSchema>;

/** Somebody as a file names them: what a person may do is said by the owner of a shop, never by a file. */
export const namedPersonSchema = z.strictObject({ id, name: line(60), owner: z.boolean().default(false) });
export type NamedPerson = z.infer<typeof namedPersonSchema>;

const shopFields = {
  settings: shopSettingsSchema,
  technicians: z.array(technicianSchema),
  instruments: z.array(instrumentSchema),
};
export const shopSchema = z.strictObject({ ...shopFields, settingsVersion: z.int().min(0) });
export type ShopMessage = z.infer<typeof shopSchema>;

export const shopFileSchema = z.strictObject({
  format: z.literal('fairwatt-shop'),
  version: z.literal(1),
  ...shopFields,
  technicians: z.array(namedPersonSchema),
});

/** A meter or tester as an owner wants it; `was` is how it stood on the screen, null for a new one. */
export const instrumentMessageSchema = z.strictObject({
  by: id,
  was: instrumentSchema.nullable(),
  instrument: instrumentSchema,
});
export interface InstrumentMessage {
  readonly by: string;
  readonly was: Instrument | null;
  readonly instrument: Instrument;
}

/** New settings of the shop, by an owner; `basedOn` is the version that was seen. */
export const settingsMessageSchema = z.strictObject({ by: id, basedOn: z.int().min(0), settings: shopSettingsSchema });
