import { boundToBe } from '../bound-to-be.ts';
import type { Model } from './model.ts';

/** A fault and how likely it is now. */
export interface Ranked {
  readonly faultId: string;
  readonly probability: number;
}

/** The faults by falling probability, those alike by id. */
export function rankFaults(model: Model, probabilities: Float64Array): Ranked[] {
  return model.faults
    .map((fault, index) => ({ faultId: fault.id, probability: boundToBe(probabilities[index], `fault ${fault.id}`) }))
    .sort((a, b) => b.probability - a.probability || a.faultId.localeCompare(b.faultId));
}
