import { z } from 'zod';
import { id, jobCode, uuid } from './primitives.ts';

export const changeTopics = [
  'job',
  'lines',
  'photos',
  'presence',
  'shop',
  'supplies',
  'bags',
  'record',
  'instruments',
  'everything',
] as const;

/**
 * Something changed, whoever changed it. `code` names the job it is about, `revision` what the job has come to.
 * `everything`: the line to the database was broken, and nobody knows what happened meanwhile.
 */
export const changeMessageSchema = z.strictObject({
  topic: z.enum(changeTopics),
  code: jobCode.nullable(),
  revision: z.int().nullable(),
});
export type ChangeMessage = z.infer<typeof changeMessageSchema>;

/** How long somebody counts as being at a job after the last sign of life, and how often a screen gives one. */
export const presentSeconds = 60;
export const presenceBeatSeconds = 20;

/** A tab tells that somebody has a job open; null when it is closed. */
export const presenceMessageSchema = z.strictObject({ tab: uuid, by: id, code: jobCode.nullable() });
export const presentSchema = z.array(z.strictObject({ tab: uuid, by: id }));
export type Present = z.infer<typeof presentSchema>;
