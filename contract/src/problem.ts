import { z } from 'zod';

/** A problem document (RFC 9457) with the fields it is about. */
export const problemSchema = z.object({
  type: z.string(),
  title: z.string(),
  status: z.int(),
  detail: z.string().optional(),
  errors: z.array(z.object({ path: z.string(), message: z.string() })).optional(),
  /** For a stale update or a refused act: what was refused and why, and the state as it is now. */
  refusal: z.unknown().optional(),
  current: z.unknown().optional(),
  /** Who made it so, and when. */
  changed: z.object({ by: z.string(), at: z.string() }).optional(),
});
export type Problem = z.infer<typeof problemSchema>;

/** Field paths and messages of a failed parse; at most 40, so that a hostile file does not make a huge answer. */
export function fieldErrors(error: z.ZodError): { path: string; message: string }[] {
  return error.issues.slice(0, 40).map((issue) => ({
    path: [...issue.path, ...(issue.code === 'unrecognized_keys' ? [issue.keys[0] ?? ''] : [])].map(String).join('.'),
    message: issue.code === 'unrecognized_keys' ? 'is not a field of this format' : issue.message,
  }));
}
