/* oxlint-disable typescript/no-non-null-assertion --
   checks, outcomes and faults of a model are told by their number, which its own tables give */
import {
  checkNamed,
  faultNamed,
  isFromFile,
  comeBackMinutes,
  isEndedBy,
  proveMinutes,
  repairCheckId,
  swapThatCured,
  type Model,
  type Observation,
} from '../diagnose/index.ts';
import { pick, type Random } from './random.ts';

/** A job drawn from a world: its fault, and what each check would show. */
export interface DrawnJob {
  readonly faultId: string;
  readonly outcomes: ReadonlyMap<string, string>;
}

/** What a technician does next, from what was seen so far. */
export type Move =
  | { readonly do: 'check'; readonly checkId: string }
  | { readonly do: 'cure'; readonly cureId: string }
  | { readonly do: 'give-up' };
export type Order = (seen: readonly Observation[], drawn: DrawnJob) => Move;

export interface SearchResult {
  /** Minutes to the confirmed fault; a search without one is charged the longest, whether given up early or not. */
  readonly minutes: number;
  readonly confirmed: boolean;
  /** Parts bought and fitted, and those of them that were not at fault. */
  readonly parts: number;
  readonly wrongParts: number;
  /** Times a fault was taken for cured, or handed on, and came back. */
  readonly cameBack: number;
  readonly steps: number;
  /** Steps from a swap that cured it to the confirmed fault, whatever they were; null without such a swap. */
  readonly stepsAfterSwap: number | null;
}

/** A day's half at the bench: a search longer than this counts as unfinished. */
export const longestSearchMinutes = 240;

/**
 * Draws a fault by its prior, and an outcome of every check by its likelihood.
 * @param misled share of the evidence groups that tell another story: all outcomes of such a group are drawn as for one
 *   other fault, drawn by its prior, so that they mislead together
 */
export function drawJob(world: Model, random: Random, misled = 0): DrawnJob {
  const prior = world.logPrior.map(Math.exp);
  const fault = pick(random, prior);
  const looksLike = new Map<string, number>();
  const outcomes = new Map(
    world.checks.filter(isFromFile).map((check) => {
      const rows = world.likelihood[world.checkIndex.get(check.id)!]!;
      const like = looksLike.get(check.evidence) ?? (misled > 0 && random() < misled ? pick(random, prior) : fault);
      looksLike.set(check.evidence, like);
      const shown = pick(
        random,
        rows.map((row) => row[like]!),
      );
      return [check.id, check.outcomes[shown]!.id];
    }),
  );
  return { faultId: world.faults[fault]!.id, outcomes };
}

/**
 * One job from the complaint to the confirmed fault. A fault counts as confirmed when its own cure was done, or a check
 * cured it. A check or hand-over that looks like a cure and is none is believed, comes back, and is struck from the
 * record. What the client tells is known at the start for one minute each.
 */
export function search(world: Model, drawn: DrawnJob, order: Order): SearchResult {
  const seen: Observation[] = [];
  const result = { minutes: 0, confirmed: false, parts: 0, wrongParts: 0, cameBack: 0, steps: 0 };
  let stepsAtSwap: number | null = null;
  for (const check of world.checks) {
    if (check.kind !== 'told' || check.from !== 'intake') continue;
    seen.push({ checkId: check.id, outcomeId: drawn.outcomes.get(check.id)! });
    result.minutes += check.minutes;
  }
  while (result.minutes < longestSearchMinutes) {
    const move = order(seen, drawn);
    if (swapThatCured(world, seen) !== null) stepsAtSwap ??= result.steps;
    if (move.do === 'give-up') break;
    result.steps += 1;
    if (move.do === 'check') {
      const check = checkNamed(world, move.checkId);
      // Most often what was dangerous is put right, and the search goes on.
      const outcomeId = check.kind === 'safety' ? check.outcomes[0]!.id : drawn.outcomes.get(check.id)!;
      const cures =
        check.kind === 'decide' ? undefined : check.outcomes.find((outcome) => outcome.id === outcomeId)?.cures;
      result.minutes += check.minutes;
      if (cures?.includes(drawn.faultId) === true) {
        result.confirmed = true;
        break;
      }
      if (cures !== undefined) {
        result.cameBack += 1;
        result.minutes += comeBackMinutes;
      }
      seen.push({ checkId: check.id, outcomeId: cures === undefined ? outcomeId : 'unknown' });
      continue;
    }
    const cured = world.faults.filter((fault) => fault.cure.id === move.cureId);
    const right = isEndedBy(faultNamed(world, drawn.faultId), move.cureId);
    result.minutes += Math.max(...cured.map((fault) => fault.cure.minutes)) + proveMinutes;
    if (cured.some((fault) => fault.cure.part === true)) {
      result.parts += 1;
      if (!right) result.wrongParts += 1;
    }
    if (right) {
      result.confirmed = true;
      break;
    }
    if (cured.some((fault) => fault.outside === true || fault.healthy === true)) {
      result.cameBack += 1;
      result.minutes += comeBackMinutes;
    }
    seen.push({ checkId: repairCheckId(move.cureId), outcomeId: 'same' });
  }
  const stepsAfterSwap = stepsAtSwap === null ? null : result.steps - stepsAtSwap;
  return result.confirmed && result.minutes <= longestSearchMinutes
    ? { ...result, stepsAfterSwap }
    : { ...result, stepsAfterSwap, confirmed: false, minutes: longestSearchMinutes };
}

/** The bound that nobody can beat: the fault is known, only its cure is done. */
export function knowsTheFault(world: Model): Order {
  return (_seen, drawn) => ({ do: 'cure', cureId: faultNamed(world, drawn.faultId).cure.id });
}
