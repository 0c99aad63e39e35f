import { z } from 'zod';
import type { ShopRecord } from '@fairwatt/core';
import { id, instant, jobCode } from './primitives.ts';

const count = z.int().min(0);
export const recordCountsSchema = z.strictObject({
  jobs: count,
  leftOut: count,
  faults: z.array(z.strictObject({ faultId: id, count })),
  outcomes: z.array(z.strictObject({ checkId: id, outcomeId: id, faultId: id, instrumentId: id.nullable(), count })),
}) satisfies z.ZodType<ShopRecord>;

/** The shop's record with the closed jobs it stands on, the newest first. */
export const recordSchema = z.strictObject({
  counts: recordCountsSchema,
  jobs: z.array(
    z.strictObject({ code: jobCode, title: z.string(), closedAt: instant, faultId: id, leftOut: z.boolean() }),
  ),
});
export type RecordMessage = z.infer<typeof recordSchema>;

/** Leaves a job out of the record, or counts it again; `was` is what was seen. */
export const leaveOutSchema = z.strictObject({ by: id, leftOut: z.boolean(), was: z.boolean() });
