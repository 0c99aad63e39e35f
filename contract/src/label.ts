import { z } from 'zod';
import { id } from './primitives.ts';

/** Common label stock: A4 with 24 labels of 70 x 37 mm, with 65 of 38.1 x 21.2 mm, and a roll of 57 x 32 mm. */
export const labelStocks = ['a4-24', 'a4-65', 'roll'] as const;
export type LabelStock = (typeof labelStocks)[number];
export const labelQuerySchema = z.strictObject({
  stock: z.enum(labelStocks).default('a4-24'),
  skip: z.coerce.number().int().min(0).max(64).default(0),
});
export const printLabelsSchema = z.strictObject({ by: id, what: z.enum(['cables', 'supply']).default('cables') });
/** What the printer said of a print job. */
export const printedSchema = z.strictObject({ job: z.string().max(60), labels: z.int() });
export const labelPrinterSchema = z.strictObject({ url: z.string().max(300) });
export const labelPrinterMessageSchema = z.strictObject({
  by: id,
  url: z.url('an address such as http://127.0.0.1:4880/print').max(300),
});
