import { z } from 'zod';
import {
  actMessageSchema,
  cableBagsFileSchema,
  computeSchemas,
  jobFileSchema,
  knowledgeSchema,
  problemSchema,
  shelfFileSchema,
  shopFileSchema,
  supplyFileSchema,
} from '@fairwatt/contract';

/** JSON Schemas of the open formats by file name, made from the schemas that read them. */
export function jsonSchemas(): Map<string, string> {
  const formats: Record<string, z.ZodType> = {
    'job-file': jobFileSchema,
    supplies: supplyFileSchema,
    shelf: shelfFileSchema,
    'cable-bags': cableBagsFileSchema,
    shop: shopFileSchema,
    knowledge: knowledgeSchema,
    problem: problemSchema,
    act: actMessageSchema,
  };
  for (const [verb, schema] of Object.entries(computeSchemas)) formats[`compute-${verb}`] = schema;
  return new Map(
    Object.entries(formats).map(([name, schema]) => [
      `${name}.schema.json`,
      `${JSON.stringify(z.toJSONSchema(schema, { io: 'input' }), null, 1)}\n`,
    ]),
  );
}
