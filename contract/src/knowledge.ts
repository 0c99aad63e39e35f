import { z } from 'zod';
import { hazards, abouts, allPowering, checkKinds, faultGroups, needs, type Knowledge } from '@fairwatt/core';
import { figure, id, line, text } from './primitives.ts';

const fault = z.strictObject({
  id,
  group: z.enum(faultGroups),
  name: line(80),
  prior: figure(0.001, 1000),
  cure: z.strictObject({ id, text: line(120), minutes: figure(0, 600), part: z.boolean().optional() }),
  alsoEndedBy: z.array(id).min(1).optional(),
  outside: z.boolean().optional(),
  healthy: z.boolean().optional(),
  about: z.enum(abouts).optional(),
  why: line(200),
});
const outcome = z.strictObject({
  id,
  label: line(60),
  hint: text(80).optional(),
  cures: z.array(id).optional(),
  tries: z.array(id).optional(),
  partly: z.boolean().optional(),
  sound: z.boolean().optional(),
  stands: z.boolean().optional(),
  danger: id.optional(),
  lookFirst: id.optional(),
});
const powering = z.enum(allPowering);
const danger = z.strictObject({
  id,
  title: line(80),
  why: line(200),
  minutes: figure(0, 240),
  first: z.array(line(200)).min(1).max(5),
  ways: z
    .array(
      z.strictObject({
        id,
        label: line(60),
        never: z.array(powering).min(1).optional(),
        leaves: z.array(id).min(1).optional(),
      }),
    )
    .max(5),
});
const check = z.strictObject({
  id,
  kind: z.enum(checkKinds),
  evidence: id,
  title: line(80),
  minutes: figure(0, 240),
  needs: z.array(z.enum(needs)),
  hazard: z.enum(hazards),
  powers: powering.optional(),
  caution: text(240).optional(),
  drawing: text(40).optional(),
  from: z.enum(['intake', 'measure', 'load']).optional(),
  after: id.optional(),
  afterOutcomes: z.array(id).min(1).optional(),
  instrument: z.literal('tester').optional(),
  about: z.enum(abouts).optional(),
  steps: z.array(line(200)).min(1).max(5),
  outcomes: z.array(outcome).min(2).max(9),
  rows: z
    .array(
      z.strictObject({
        faults: z.union([z.array(id).min(1), z.literal('others')]),
        weights: z.array(z.number()),
        why: line(200),
      }),
    )
    .min(1),
});

/** The knowledge file. Its inner logic is checked by the core's `validateKnowledge`. */
export const knowledgeSchema = z.strictObject({
  format: z.literal('fairwatt-knowledge'),
  version: z.literal(1),
  release: line(20),
  note: text(600),
  faults: z.array(fault).min(2),
  dangers: z.array(danger),
  checks: z.array(check).min(1),
}) satisfies z.ZodType<Knowledge>;
