import { z } from 'zod';

export const backupFormat = 'fairwatt-backup';
export const backupVersion = 1;

/** What a backup says of itself, beside the dump. */
export const manifestSchema = z.strictObject({
  format: z.literal(backupFormat),
  version: z.literal(backupVersion),
  madeAt: z.iso.datetime({ precision: 3 }),
  /** Version of the program that made it. */
  program: z.string(),
  database: z.string(),
  /** The last migration that had run. */
  schema: z.string(),
  jobs: z.int().min(0),
  pictures: z.int().min(0),
  /** Rows of every table, in the very snapshot that was dumped. */
  tables: z.record(z.string(), z.int().min(0)),
  bytes: z.int().min(1),
  sha256: z.string().regex(/^[0-9a-f]{64}$/),
});
export type Manifest = z.infer<typeof manifestSchema>;
