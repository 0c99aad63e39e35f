import { z } from 'zod';
import {
  choiceKinds,
  candidateClasses,
  loadFindingCodes,
  loadFindingWords,
  moments,
  type CandidateFacts,
  type Choice,
  type PresentFacts,
} from '@fairwatt/core';
import { figure, id, line, text } from './primitives.ts';
import { priceSchema, supplyLabelSchema } from './supply.ts';

const much = figure(0, 1_000_000);
/** Labels of a combined limit, all of them with what joins them. */
const mostSubject = 400;

const candidateFactsSchema = z.strictObject({
  of: z.literal('candidate'),
  class: z.enum(candidateClasses),
  ...supplyLabelSchema.pick({ ratingWatts: true, shape: true, guide: true, grade: true }).shape,
  price: priceSchema,
  onShelf: z.int().min(0).max(999),
  runningAYear: z.strictObject({ minor: z.int().min(0).max(1_000_000_000), currency: priceSchema.shape.currency }),
  loadShare: much.nullable(),
  cables: z.int().min(0).max(1000),
  openOptional: z.int().min(0).max(1000),
  fullest: z
    .strictObject({
      code: z.enum(loadFindingCodes),
      subject: text(mostSubject),
      moment: z.enum(moments),
      unit: z.enum(['W', 'A']),
      figure: much,
      limit: much,
      word: z.enum(loadFindingWords),
    })
    .nullable(),
}) satisfies z.ZodType<CandidateFacts>;

const presentFactsSchema = z.strictObject({
  of: z.literal('present'),
  measuredWell: z.boolean(),
}) satisfies z.ZodType<PresentFacts>;

/** What was known when a choice was made. */
export const choiceFactsSchema = z.discriminatedUnion('of', [candidateFactsSchema, presentFactsSchema]);

export const choiceFields = {
  kind: z.enum(choiceKinds),
  modelId: id.nullable(),
  reason: text(500),
  facts: choiceFactsSchema.optional(),
  known: z.array(line(200)).max(20).default([]),
};

/** What is known of a supply of the list is kept with its choice, and never with that of the supply that came. */
export const isOfItsKind = ({ kind, facts }: Pick<Choice, 'kind' | 'facts'>): boolean =>
  facts === undefined || (facts.of === 'candidate') === (kind === 'replace');
export const notOfItsKind = { path: ['facts'], message: 'tells of another kind of choice' };
