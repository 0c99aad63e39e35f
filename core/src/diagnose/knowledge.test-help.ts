import { readFileSync } from 'node:fs';
import { compileModel, type Knowledge, type Observation } from './index.ts';

/** The knowledge as it ships, and the model made from it. */
export const knowledge = JSON.parse(
  readFileSync(new URL('../../knowledge/knowledge.json', import.meta.url), 'utf8'),
) as Knowledge;
export const model = compileModel(knowledge);

/** Answers as check and outcome. */
export const told = (story: Readonly<Record<string, string>>): Observation[] =>
  Object.entries(story).map(([checkId, outcomeId]) => ({ checkId, outcomeId }));
