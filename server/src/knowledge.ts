import { readFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import { compileModel, validateKnowledge, type Model } from '@fairwatt/core';
import { fieldErrors, knowledgeSchema } from '@fairwatt/contract';

export const shippedKnowledge = fileURLToPath(new URL('../../core/knowledge/knowledge.json', import.meta.url));

/** The knowledge file is broken; the server does not start with it. */
export class BrokenKnowledge extends Error {}

/**
 * Reads, validates and compiles the knowledge file.
 * @throws BrokenKnowledge with every place that is wrong
 */
export async function loadModel(path: string = shippedKnowledge): Promise<Model> {
  let raw: unknown;
  try {
    raw = JSON.parse(await readFile(path, 'utf8'));
  } catch (error) {
    throw new BrokenKnowledge(
      `The knowledge file cannot be read: ${error instanceof Error ? error.message : String(error)}`,
    );
  }
  const parsed = knowledgeSchema.safeParse(raw);
  if (!parsed.success)
    throw new BrokenKnowledge(
      [
        'The knowledge file does not have its shape:',
        ...fieldErrors(parsed.error).map((item) => `  ${item.path}: ${item.message}`),
      ].join('\n'),
    );
  const problems = validateKnowledge(parsed.data);
  if (problems.length > 0)
    throw new BrokenKnowledge(
      [
        'The knowledge file contradicts itself:',
        ...problems.map((item) => `  ${item.path}: ${item.code}, ${item.detail}`),
      ].join('\n'),
    );
  return compileModel(parsed.data);
}
