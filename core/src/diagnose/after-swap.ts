/* oxlint-disable typescript/no-non-null-assertion --
   checks, outcomes and faults of a model are told by their number, which its own tables give */
import { faultNamed, checkNamed, type Model, type Observation } from './model.ts';
import { isEndedBy } from './knowledge.ts';
import type { NextCheck } from './next-check.ts';
import { rankFaults } from './rank-faults.ts';
import { triedCureId, triedCures } from './repair.ts';

/**
 * Checks that may follow a swap that cured it, before the part is replaced as sure as it is (set by simulation: with
 * fewer more parts are bought in vain, with more the way is no surer).
 */
const checksAfterSwap = 5;
/** A check that is expected to tell less than this of which cure it is settles nothing. */
const leastBits = 0.005;
/** The old part back in its place goes before what tells up to so many times as much: nothing proves so plainly. */
const backFirst = 1.5;

/** How sure the bench wants to be of a part. */
export interface SureOfPart {
  /** From this on it is replaced with no more checks. */
  readonly enough: number;
  /** From this on it is replaced once the checks that may follow are done. */
  readonly least: number;
}

/** The way to the end after a swap that cured it: one more check, or what ends it. */
export type AfterSwap = { readonly checkId: string } | { readonly faultId: string };

/** The probability that a cure ends the fault. */
export function endedShare(model: Model, probabilities: Float64Array, cureId: string): number {
  return model.faults.reduce((sum, fault, index) => (isEndedBy(fault, cureId) ? sum + probabilities[index]! : sum), 0);
}

/**
 * How much a check is expected to tell of which cure it is, in bits: the mutual information of its outcome and the
 * cure. Outcomes of one evidence group are taken as if they stood alone.
 * Source: Shannon 1948.
 */
export function tellsOfCure(model: Model, probabilities: Float64Array, checkId: string): number {
  const cureOf = model.faults.map((fault) => fault.cure.id);
  const byCure = (weights: Float64Array) => {
    const sums = new Map<string, number>();
    cureOf.forEach((cure, fault) => sums.set(cure, (sums.get(cure) ?? 0) + weights[fault]!));
    return sums;
  };
  const cures = byCure(probabilities);
  let bits = 0;
  for (const { joint, chance } of outcomesOf(model, probabilities, checkId))
    for (const [cure, both] of byCure(joint))
      if (both > 0) bits += both * Math.log2(both / (chance * cures.get(cure)!));
  return bits;
}

/** By outcome of a check: its chance, and that chance shared out over the faults. */
const outcomesOf = (model: Model, probabilities: Float64Array, checkId: string) =>
  model.likelihood[model.checkIndex.get(checkId)!]!.map((row) => {
    const joint = probabilities.map((value, fault) => value * row[fault]!);
    return { joint, chance: joint.reduce((sum, value) => sum + value, 0) };
  });

/**
 * The first swap that cured it, and what was seen since; null before one, and again once a repair was in vain: then
 * the swap did not say what it seemed to say.
 */
export function swapThatCured(
  model: Model,
  observations: readonly Observation[],
): { readonly checkId: string; readonly since: readonly Observation[] } | null {
  const swap = observations.find(({ checkId, outcomeId }) => {
    const check = model.checks[model.checkIndex.get(checkId) ?? -1];
    return check?.kind === 'decide' && check.outcomes.find((outcome) => outcome.id === outcomeId)?.cures !== undefined;
  });
  if (swap === undefined) return null;
  const since = observations.slice(observations.indexOf(swap) + 1);
  return since.some(({ checkId }) => triedCureId(checkId) !== null) ? null : { checkId: swap.checkId, since };
}

/**
 * After a swap that cured it the way to the end is short: the check that tells most of which cure it is, the old part
 * back in its place as a rule, until one is sure enough or enough checks were done. Null where this says nothing: no
 * swap cured it, or the part is still too unsure to be bought.
 * @param ranked the checks that can be done now, in any order
 */
export function afterSwap(
  model: Model,
  observations: readonly Observation[],
  probabilities: Float64Array,
  ranked: readonly NextCheck[],
  sure: SureOfPart,
): AfterSwap | null {
  const swap = swapThatCured(model, observations);
  if (swap === null) return null;
  const tried = triedCures(model, observations);
  const faultId = likeliestCured(model, probabilities, tried);
  if (faultId === null) return null;
  const { cure } = faultNamed(model, faultId);
  const share = endedShare(model, probabilities, cure.id);
  if (share >= sure.enough) return { faultId };
  const telling =
    swap.since.length < checksAfterSwap ? mostTelling(model, probabilities, ranked, swap.checkId, sure.enough) : null;
  if (telling !== null) return { checkId: telling };
  return cure.part === true && share < sure.least ? null : { faultId };
}

/** The chance that one cure is sure enough once the check is done. */
function endsDoubt(model: Model, probabilities: Float64Array, checkId: string, enough: number): number {
  const cures = new Set(model.faults.map(({ cure }) => cure.id));
  return outcomesOf(model, probabilities, checkId)
    .filter(({ joint, chance }) => [...cures].some((cureId) => endedShare(model, joint, cureId) >= enough * chance))
    .reduce((sum, { chance }) => sum + chance, 0);
}

/**
 * The check that tells most of which cure it is, in bits, one more for what ends the doubt at once; the old part back
 * in its place before others that tell little more. Null where none tells anything.
 */
function mostTelling(
  model: Model,
  probabilities: Float64Array,
  ranked: readonly NextCheck[],
  swapId: string,
  enough: number,
): string | null {
  const worth = ranked
    .map(({ checkId }) => {
      const bits = tellsOfCure(model, probabilities, checkId);
      const back = checkNamed(model, checkId).after === swapId; // ranked from the model's own checks
      return {
        checkId,
        bits,
        worth: (back ? backFirst * bits : bits) + endsDoubt(model, probabilities, checkId, enough),
      };
    })
    .filter(({ bits }) => bits > leastBits)
    .sort((a, b) => b.worth - a.worth || a.checkId.localeCompare(b.checkId));
  return worth[0]?.checkId ?? null;
}

/** Shares that differ by less are the same one, summed in another order. */
const sameShare = 1e-9;

/**
 * The fault whose cure is likeliest to end it, among cures not tried yet; of cures that end the same faults that of the
 * likeliest one. Null when none is left.
 */
function likeliestCured(model: Model, probabilities: Float64Array, tried: ReadonlySet<string>): string | null {
  let best: { readonly faultId: string; readonly share: number } | null = null;
  for (const { faultId } of rankFaults(model, probabilities)) {
    const { cure } = faultNamed(model, faultId); // ranked from the model's own faults
    if (tried.has(cure.id)) continue;
    const share = endedShare(model, probabilities, cure.id);
    if (best === null || share > best.share + sameShare) best = { faultId, share };
  }
  return best?.faultId ?? null;
}
