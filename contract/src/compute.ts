import { z } from 'zod';
import {
  guides,
  conditions,
  firstChoosing,
  needs,
  noWants,
  schools,
  subjects,
  caseLayouts,
  shapes,
} from '@fairwatt/core';
import { adapterSchema } from './cable-bag.ts';
import { newPartSchema, pinFields, readingValueSchema } from './job.ts';
import { figure, id } from './primitives.ts';
import { recordCountsSchema } from './record.ts';
import { choosingSchema, instrumentSchema } from './shop.ts';
import { cableKitSchema, supplyLabelSchema, supplyModelSchema, wantsSchema } from './supply.ts';

const reading = z.strictObject({
  subject: z.enum(subjects),
  condition: z.enum(conditions),
  value: readingValueSchema,
  instrumentId: id,
});
const casing = z.strictObject({
  layout: z.enum(caseLayouts),
  shapes: z.array(z.enum(shapes)).min(1),
  depthMillimetres: figure(50, 600).nullable(),
  ownHoles: z.boolean().default(false),
  ventClosed: z.boolean().default(false),
});

/** Inputs of `fairwatt compute`, one for each verb. */
export const computeSchemas = {
  verdict: z
    .strictObject({
      guide: z.enum(guides),
      instruments: z.array(instrumentSchema).min(1),
      readings: z.array(reading).min(1),
      /** The supply was told to start: main rails that show next to nothing then speak for themselves. */
      started: z.boolean().default(false),
    })
    .superRefine((input, context) => {
      input.readings.forEach((item, index) => {
        if (!input.instruments.some((instrument) => instrument.id === item.instrumentId))
          context.addIssue({
            code: 'custom',
            path: ['readings', index, 'instrumentId'],
            message: 'is not among the instruments',
          });
      });
    }),
  diagnose: z.strictObject({
    outcomes: z.array(z.strictObject({ check: id, outcome: id, instrument: id.optional() })),
    bench: z.strictObject({ has: z.array(z.enum(needs)), mayMeterMains: z.boolean() }).optional(),
    stopProbability: figure(0.5, 0.999).optional(),
    record: recordCountsSchema.optional(),
  }),
  load: z.strictObject({
    parts: z.array(newPartSchema).min(1),
    supply: supplyLabelSchema.nullable(),
    supplyYears: figure(0, 60).nullable().default(null),
    agePercentAYear: figure(0, 5).default(0),
    staggeredStart: z.boolean().default(false),
    cardAdviceWatts: figure(1, 5000).nullable().default(null),
    draws: z.int().min(0).max(1_000_000).default(0),
    seed: z.int().default(1),
  }),
  rank: z.strictObject({
    parts: z.array(newPartSchema).min(1),
    casing,
    mainsVolts: figure(90, 260),
    school: z.enum(schools),
    presentRatingWatts: figure(1, 5000).nullable(),
    cardAdviceWatts: figure(1, 5000).nullable().default(null),
    staggeredStart: z.boolean().default(false),
    wants: wantsSchema.default({ ...noWants, protections: [] }),
    currency: z
      .string()
      .regex(/^[A-Z]{3}$/)
      .default('EUR'),
    choosing: choosingSchema.default({ ...firstChoosing }),
    adapters: z.array(adapterSchema).max(50).default([]),
    supplies: z.array(supplyModelSchema).min(1),
  }),
  plan: z.strictObject({
    parts: z.array(newPartSchema).min(1),
    layout: z.enum(caseLayouts),
    kit: cableKitSchema,
    sharedCardCable: z.boolean().default(true),
    staggeredStart: z.boolean().default(false),
    adapters: z.array(adapterSchema).max(50).default([]),
    pins: z.array(z.strictObject(pinFields)).max(100).default([]),
  }),
} as const;
export type ComputeVerb = keyof typeof computeSchemas;
export const computeVerbs = Object.keys(computeSchemas) as ComputeVerb[];
