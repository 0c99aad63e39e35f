import { z } from 'zod';

/** How the application is, for whoever looks after it. */
export const healthSchema = z.strictObject({
  status: z.literal('ready'),
  pid: z.int(),
  version: z.string(),
  upSeconds: z.number(),
  database: z.strictObject({ version: z.string(), bytes: z.int(), schema: z.string() }),
  /** Room on the disk of the data folder; null where the server has none. */
  disk: z.strictObject({ freeBytes: z.number(), totalBytes: z.number() }).nullable(),
  /** The last backup that the command made or tried; null when there is none yet. */
  backup: z
    .strictObject({ at: z.string(), path: z.string(), jobs: z.int(), bytes: z.number(), error: z.string().nullable() })
    .nullable(),
  /** Loads of which nobody knows whether they draw. */
  unsureLoads: z.array(z.string()),
  /** The machine's clock was set while the server ran. */
  clock: z.strictObject({ seconds: z.number(), at: z.string() }).nullable(),
});
export type Health = z.infer<typeof healthSchema>;
/** Less room than this on the disk is told. */
export const leastFreeBytes = 500_000_000;
/** A backup older than this is told, in hours. */
export const oldBackupHours = 30;
