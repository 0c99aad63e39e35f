import { z } from 'zod';
import { jobStates, priorities, searchFieldIds, stationStates, type Act } from '@fairwatt/core';
import { choiceFields, isOfItsKind, notOfItsKind } from './choice.ts';
import {
  cableFields,
  findingFields,
  jobSchema,
  laidWayFields,
  leadFields,
  noteFields,
  logFields,
  newPartSchema,
  newReadingSchema,
  pinFields,
  presentSupplyFields,
  putAwayReason,
  probeFields,
  proofFields,
  seatFields,
  sheetFields,
  signOffFields,
  stepId,
  stepOrderFields,
} from './job.ts';
import { problemSchema } from './problem.ts';
import { id, jobCode, line, seenVersion, text, uuid } from './primitives.ts';

const act = <K extends string, S extends z.ZodRawShape>(kind: K, shape: S) =>
  z.strictObject({ kind: z.literal(kind), ...shape });

/** A note says something, or is about a picture. */
const newNote = z
  .strictObject(noteFields)
  .refine(({ text, photoId }) => text.trim() !== '' || photoId !== null, { path: ['text'], error: 'say something' });

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
  act('set-choice', {
    choice: z.strictObject(choiceFields).refine(isOfItsKind, notOfItsKind).nullable(),
    basedOn: seenVersion,
  }),
  act('put-cable', { cable: z.strictObject(cableFields), basedOn: seenVersion }),
  act('drop-cable', { cableId: uuid, basedOn: seenVersion }),
  act('swap-inlets', {
    cableId: uuid,
    otherCableId: uuid.nullable(),
    inletId: id,
    otherInletId: id,
    basedOn: seenVersion,
  }),
  act('put-pin', { pin: z.strictObject(pinFields), basedOn: seenVersion }),
  act('drop-pin', { inletId: id, basedOn: seenVersion }),
  act('put-seat', { seat: z.strictObject(seatFields), basedOn: seenVersion }),
  act('recheck-seats', { inletIds: z.array(id).min(1).max(200) }),
  act('tick-step', { stepId }),
  act('untick-step', { stepId }),
  act('lay-cable', { cable: laidWayFields.cable, way: laidWayFields.way, basedOn: seenVersion }),
  act('order-steps', { ...stepOrderFields, basedOn: seenVersion }),
  act('put-lead', { lead: z.strictObject(leadFields), basedOn: seenVersion }),
  act('drop-lead', { leadId: uuid, basedOn: seenVersion }),
  act('put-note', { note: newNote, basedOn: seenVersion }),
  act('drop-note', { noteId: uuid, basedOn: seenVersion }),
  act('mark-leads', { leadIds: z.array(uuid).min(1).max(80), state: leadFields.state }),
  act('note-proof', { ...proofFields, basedOn: seenVersion }),
  act('drop-proof', { item: proofFields.item, basedOn: seenVersion }),
  act('sign-off', signOffFields),
  act('withdraw-sign-off', { id: uuid }),
  act('close', { basedOn: seenVersion }),
  act('reopen', { basedOn: seenVersion }),
  act('put-away', { reason: putAwayReason, basedOn: seenVersion }),
]) satisfies z.ZodType<Act>;

/** One act on a job. `id` is made by the sender, so that sending it twice does it once. */
export const actMessageSchema = z.strictObject({ id: uuid, by: id, act: actSchema });
/** In the answer to an act: the revision that this act made, also when it is answered again later. */
export const revisionHeader = 'fairwatt-revision';
export type ActMessage = z.infer<typeof actMessageSchema>;

/** Most acts that are sent at once. */
export const mostActsTogether = 50;
const alone: readonly Act['kind'][] = ['close', 'reopen', 'put-away'];
/**
 * Acts of one person on one job, in the order in which they were done. Each is a message of its own: sending it again,
 * alone or with others, does it once. Closing, reopening and putting away come alone.
 */
export const actsTogetherSchema = z
  .strictObject({ messages: z.array(actMessageSchema).min(1).max(mostActsTogether) })
  .refine(({ messages }) => new Set(messages.map((message) => message.id)).size === messages.length, {
    path: ['messages'],
    error: 'must have an id each',
  })
  .refine(({ messages }) => new Set(messages.map((message) => message.by)).size === 1, {
    path: ['messages'],
    error: 'must be of one person',
  })
  .refine(({ messages }) => messages.every((message) => !alone.includes(message.act.kind)), {
    path: ['messages'],
    error: 'closing, reopening and putting away come alone',
  });
/** What became of them: the revision that each made, up to the first that was not done, and why that one was not. */
export const actsDoneSchema = z.strictObject({
  revisions: z.array(z.int()).max(mostActsTogether),
  problem: problemSchema.nullable(),
  job: jobSchema,
});
export type ActsDone = z.infer<typeof actsDoneSchema>;
/** Whether an act is sent without others. */
export const comesAlone = (act: Act): boolean => alone.includes(act.kind);

/** An act that takes a second person, who signs it with a secret at the device of the first. */
export const secondMessageSchema = z.strictObject({ name: line(60), secret: text(200), message: actMessageSchema });

/** A new job in three fields; `code` comes from the server. */
export const newJobSchema = z.strictObject({ id: uuid, by: id, title: line(80), client: text(80), words: text(1000) });
export type NewJobMessage = z.infer<typeof newJobSchema>;

/** A place in the list of jobs, as an answer gave it. */
const jobListCursor = z
  .string()
  .regex(/^(open|closed|away)~\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d\.\d{3}Z~\d{1,15}$/, 'must be a place that a list gave')
  .refine((cursor) => !Number.isNaN(Date.parse(cursor.split('~')[1] ?? '')), 'must be a place that a list gave');
/** A place in the list of what is wanted next. */
const turnCursor = z.string().regex(/^[012] \d{4}-\d\d-\d\d~\d{1,15}$/, 'must be a place that a list gave');
/** A page of jobs: the first, or the one after (older) or before (newer) a place in the list. */
export const jobListQuerySchema = z
  .strictObject({
    search: text(100).default(''),
    /** `all` without those that were put away. */
    state: z.enum([...jobStates, 'all']).default('all'),
    /** Those that changed last first; or open ones in the order in which they are wanted. */
    order: z.enum(['changed', 'wanted']).default('changed'),
    /** Only those in hand of this technician; empty for all. */
    inCharge: id.or(z.literal('')).default(''),
    after: jobListCursor.or(turnCursor).nullable().default(null),
    before: jobListCursor.or(turnCursor).nullable().default(null),
  })
  .refine(
    ({ order, after, before }) => [after, before].every((at) => at === null || (order === 'wanted') === /^\d/.test(at)),
    {
      path: ['after'],
      error: 'must be a place that a list in this order gave',
    },
  )
  .refine(({ after, before }) => after === null || before === null, {
    path: ['before'],
    error: 'one of after and before',
  });
export type JobListQuery = z.infer<typeof jobListQuerySchema>;
/** Jobs whose machines the shop starts others from, by the names that they have there. */
export const usualMachinesSchema = z.array(z.strictObject({ code: jobCode, name: z.string() }));
export type UsualMachine = z.infer<typeof usualMachinesSchema>[number];
/** The first page of all jobs. */
export const firstJobPage: JobListQuery = jobListQuerySchema.parse({});

const stationMark = z.strictObject({
  id: z.string(),
  state: z.enum(stationStates),
  line: z.string(),
});
export const jobListSchema = z.strictObject({
  jobs: z.array(
    z.strictObject({
      code: jobCode,
      title: z.string(),
      client: z.string(),
      words: z.string(),
      state: z.enum(jobStates),
      updatedAt: z.string(),
      priority: z.enum(priorities),
      promisedOn: z.string().nullable(),
      /** The technician who has it in hand. */
      inCharge: z.string().nullable(),
      /**
       * False while what the stations say is being made anew: `stations` then tells what they said before, or nothing.
       */
      fresh: z.boolean(),
      /** What was found of a search; null where nothing was searched for. */
      hit: z.strictObject({ field: z.enum(searchFieldIds), text: z.string() }).nullable(),
      stations: z.array(stationMark),
    }),
  ),
  /** How many are found; with `more` there are more than that. */
  total: z.int(),
  more: z.boolean(),
  /** Where the page of newer and the page of older jobs begins; null where there is none. */
  newer: z.string().nullable(),
  older: z.string().nullable(),
});
export type JobList = z.infer<typeof jobListSchema>;

export const jobEventsSchema = z.strictObject({
  events: z.array(
    z.strictObject({
      id: uuid,
      at: z.string(),
      by: z.string(),
      kind: z.string(),
      detail: z.unknown(),
      /** What was done, where it was an act and still reads as one. */
      act: actSchema.nullable(),
    }),
  ),
});
export type JobEvents = z.infer<typeof jobEventsSchema>;
