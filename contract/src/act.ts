import { z } from 'zod';
import type { Act } from '@fairwatt/core';
import {
  cableFields,
  choiceFields,
  findingFields,
  logFields,
  newPartSchema,
  newReadingSchema,
  pinFields,
  presentSupplyFields,
  probeFields,
  seatFields,
  sheetFields,
  signOffFields,
  stepId,
  stepOrderFields,
} from './job.ts';
import { id, jobCode, line, seenVersion, text, uuid } from './primitives.ts';

const act = <K extends string, S extends z.ZodRawShape>(kind: K, shape: S) =>
  z.strictObject({ kind: z.literal(kind), ...shape });

export const actSchema = z.discriminatedUnion('kind', [
  act('edit-sheet', {
    changes: z
      .strictObject(sheetFields)
      .partial()
      .refine((changes) => Object.keys(changes).length > 0, 'nothing to change'),
    basedOn: seenVersion,
  }),
  act('put-part', { part: newPartSchema, basedOn: seenVersion }),
  act('drop-part', { partId: id, basedOn: seenVersion }),
  act('put-supply', { supply: z.strictObject(presentSupplyFields), basedOn: seenVersion }),
  act('drop-supply', { basedOn: seenVersion }),
  act('note-outcome', {
    id: uuid,
    checkId: id,
    outcomeId: id,
    instrumentId: id.nullable().optional(),
    instead: uuid.nullable().optional(),
  }),
  act('take-back-outcome', { id: uuid }),
  act('take-reading', { reading: newReadingSchema }),
  act('correct-reading', { reading: newReadingSchema }),
  act('strike-reading', { id: uuid }),
  act('restore-reading', { id: uuid }),
  act('put-probe', { probe: z.strictObject(probeFields), basedOn: seenVersion }),
  act('drop-probe', { probeId: uuid, basedOn: seenVersion }),
  act('put-log', { log: z.strictObject(logFields), basedOn: seenVersion }),
  act('drop-log', { logId: uuid, basedOn: seenVersion }),
  act('set-finding', { finding: z.strictObject(findingFields).nullable(), basedOn: seenVersion }),
  act('set-choice', { choice: z.strictObject(choiceFields).nullable(), basedOn: seenVersion }),
  act('put-cable', { cable: z.strictObject(cableFields), basedOn: seenVersion }),
  act('drop-cable', { cableId: uuid, basedOn: seenVersion }),
  act('put-pin', { pin: z.strictObject(pinFields), basedOn: seenVersion }),
  act('drop-pin', { inletId: id, basedOn: seenVersion }),
  act('put-seat', { seat: z.strictObject(seatFields), basedOn: seenVersion }),
  act('recheck-seats', { inletIds: z.array(id).min(1).max(200) }),
  act('tick-step', { stepId }),
  act('untick-step', { stepId }),
  act('order-steps', { ...stepOrderFields, basedOn: seenVersion }),
  act('sign-off', signOffFields),
  act('withdraw-sign-off', { id: uuid }),
  act('close', { basedOn: seenVersion }),
  act('reopen', { basedOn: seenVersion }),
]) satisfies z.ZodType<Act>;

/** One act on a job. `id` is made by the sender, so that sending it twice does it once. */
export const actMessageSchema = z.strictObject({ id: uuid, by: id, act: actSchema });
/** In the answer to an act: the revision that this act made, also when it is answered again later. */
export const revisionHeader = 'fairwatt-revision';
export type ActMessage = z.infer<typeof actMessageSchema>;

/** A new job in three fields; `code` comes from the server. */
export const newJobSchema = z.strictObject({ id: uuid, by: id, title: line(80), client: text(80), words: text(1000) });
export type NewJobMessage = z.infer<typeof newJobSchema>;

export const jobListQuerySchema = z.strictObject({
  search: text(100).default(''),
  state: z.enum(['open', 'closed', 'all']).default('all'),
  page: z.coerce.number().int().min(1).max(10_000).default(1),
});

const stationMark = z.strictObject({
  id: z.string(),
  state: z.enum(['untouched', 'in-hand', 'needs-you', 'settled']),
  line: z.string(),
});
export const jobListSchema = z.strictObject({
  jobs: z.array(
    z.strictObject({
      code: jobCode,
      title: z.string(),
      client: z.string(),
      words: z.string(),
      state: z.enum(['open', 'closed']),
      updatedAt: z.string(),
      stations: z.array(stationMark),
    }),
  ),
  total: z.int(),
  page: z.int(),
  pageSize: z.int(),
});
export type JobList = z.infer<typeof jobListSchema>;

export const jobEventsSchema = z.strictObject({
  events: z.array(z.strictObject({ id: uuid, at: z.string(), by: z.string(), kind: z.string(), detail: z.unknown() })),
});
