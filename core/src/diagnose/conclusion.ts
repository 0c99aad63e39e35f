/* oxlint-disable typescript/no-non-null-assertion --
   checks, outcomes and faults of a model are told by their number, which its own tables give */
import { faultNamed, checkNamed, type Model, type Observation } from './model.ts';
import { afterSwap, endedShare } from './after-swap.ts';
import { barring, cureAllowed, standingInterlock, type Interlock } from './interlock.ts';
import { isEndedBy } from './knowledge.ts';
import { rankFaults, type Ranked } from './rank-faults.ts';
import { triedCures } from './repair.ts';
import { expectedRepairMinutes, firstCure } from './remaining-time.ts';
import { bestCureFirst } from './second-step.ts';
import { likelyDangers, worthMinutes, type NextCheck } from './next-check.ts';

/** Likely enough to end the search. */
export interface Likely {
  readonly leaderId: string;
  /** Of the leader with those that share its cure, or that one outcome proved together with it. */
  readonly probability: number;
  /** Of the leader by itself. */
  readonly alone: number;
  /** Whether the leader's remedy ends all that is counted; what one outcome proved together may need others. */
  readonly oneRemedy: boolean;
}

/** Where the search stands. */
export type Conclusion =
  /** Nothing was observed yet. */
  | { readonly state: 'untouched' }
  /** Still open; `leaderId` is the likeliest. */
  | { readonly state: 'open'; readonly leaderId: string; readonly probability: number }
  /** Likely enough, but its proving check is still to do. */
  | ({ readonly state: 'to-prove'; readonly cureId: string } & Likely)
  /** Likely enough and proved by a cure or a swap: offered as the finding. */
  | ({ readonly state: 'offered'; readonly cureId: string } & Likely)
  /** Likely enough and not a power fault: hand on. */
  | ({ readonly state: 'outside' } & Likely)
  /** Likely enough that nothing is wrong. */
  | ({ readonly state: 'well' } & Likely);

/**
 * The stop rule. The leading fault, with those that share its cure or that one outcome proved together with it, above
 * `stopProbability`: offered as the finding when an outcome that cures or convicts proved it, else still to prove.
 * @param ranked from `rankFaults` or `suspects`
 * @param stopProbability 0 to 1, 0.9 unless the shop says otherwise
 */
export function conclude(
  model: Model,
  observations: readonly Observation[],
  ranked: readonly Ranked[],
  stopProbability: number,
): Conclusion {
  const leader = ranked[0];
  if (observations.length === 0 || leader === undefined) return { state: 'untouched' };
  const faultOf = (id: string) => faultNamed(model, id);
  const fault = faultOf(leader.faultId);
  const together = ranked
    .filter((suspect) => isEndedBy(faultOf(suspect.faultId), fault.cure.id))
    .reduce((sum, suspect) => sum + suspect.probability, 0);
  const proven = provenShare(model, observations, ranked, leader.faultId);
  const base: Likely = {
    leaderId: leader.faultId,
    probability: Math.min(1, Math.max(together, proven)),
    alone: leader.probability,
    oneRemedy: together >= proven,
  };
  if (base.probability < stopProbability)
    return { state: 'open', leaderId: leader.faultId, probability: leader.probability };
  if (fault.outside === true) return { state: 'outside', ...base };
  if (fault.healthy === true) return { state: 'well', ...base };
  return { state: proven >= stopProbability ? 'offered' : 'to-prove', ...base, cureId: fault.cure.id };
}

/**
 * With a fault likely enough but not proved, what is worth most is the check that can prove it: those go first, the
 * quicker before the slower, the rest keep their order.
 */
export function provingFirst(model: Model, ranked: readonly NextCheck[], conclusion: Conclusion): NextCheck[] {
  if (conclusion.state !== 'to-prove') return [...ranked];
  const proving = ranked
    .filter((check) => proves(model, check.checkId, conclusion.leaderId))
    .sort((a, b) => a.minutes - b.minutes);
  return [...proving, ...ranked.filter((check) => !proving.includes(check))];
}

/** How sure the bench wants to be before it buys a part, as probabilities that the part ends the fault. */
export interface Caution {
  /** Below this a part is not bought as long as a check is left that may tell. */
  readonly sureOfPart: number;
  /** The same once an outcome proved it. */
  readonly sureOfProved: number;
  /** Below this a part is not bought even when nothing more can be checked here: the job is handed on. */
  readonly leastForPart: number;
  /** The same after a swap that cured it, once the checks that may follow are done. */
  readonly leastAfterSwap: number;
  /** Below this a cure that buys nothing is not tried either. */
  readonly leastForCure: number;
}
/** Set by simulation, so that few parts in a hundred are bought in vain. */
export const usualCaution: Caution = {
  sureOfPart: 0.985,
  sureOfProved: 0.97,
  leastForPart: 0.85,
  leastAfterSwap: 0.8,
  leastForCure: 0.01,
};
/** A check tells something when its outcomes are expected to move the chances of the cures by more than this share. */
const telling = 0.02;

export type NextStep =
  /** A danger stands: nothing is powered before it is made safe. */
  | { readonly do: 'make-safe'; readonly dangerId: string }
  | { readonly do: 'check'; readonly checkId: string }
  | { readonly do: 'cure'; readonly faultId: string }
  | { readonly do: 'finding'; readonly faultId: string }
  | { readonly do: 'nothing' };

/** What the step stands on. */
export interface Footing {
  readonly model: Model;
  readonly observations: readonly Observation[];
  /** Posterior by fault, as `posterior` gives it. */
  readonly probabilities: Float64Array;
  /** From `interlocksOf`; without them nothing is barred. */
  readonly interlocks?: readonly Interlock[] | undefined;
}

/**
 * What to do next.
 * - A danger stands: making it safe, before anything else.
 * - A danger is likely by what was told: the look that finds out, so that nothing is powered before.
 * - The supply that came is never powered again: the known-good one in its place, else the cure that is left.
 * - A swap cured it: the few checks that tell most of which cure it is, then that one.
 * - Proved: the finding; for a bought part first any check that still pays, such as the old supply back in its place.
 * - Likely enough: the check that can prove it, else the cure.
 * - Open: the best check while one pays, then the cure with the most probability for its cost. A part is not bought
 *   on a guess while any check is left that may tell.
 * @param ranked from `provingFirst`
 */
export function nextStep(
  footing: Footing,
  ranked: readonly NextCheck[],
  conclusion: Conclusion,
  caution: Caution = usualCaution,
): NextStep {
  const { model, observations, probabilities, interlocks = [] } = footing;
  const standing = standingInterlock(interlocks);
  if (standing !== null) return { do: 'make-safe', dangerId: standing.danger.id };
  const likely = likelyDangers(model, observations);
  const look = ranked.find(({ checkId }) => likely.includes(checkId));
  if (look !== undefined) return { do: 'check', checkId: look.checkId };
  if (barring(interlocks, 'machine') !== null && conclusion.state !== 'offered')
    return stepWithoutSupply(footing, ranked, telling);
  const top = ranked[0];
  const check = (found: NextCheck): NextStep => ({ do: 'check', checkId: found.checkId });
  const settled = settledBySwap(footing, ranked, conclusion, caution);
  if (settled !== null) return settled;
  switch (conclusion.state) {
    case 'untouched':
      return top === undefined ? { do: 'nothing' } : check(top);
    case 'outside':
    case 'well':
      return { do: 'finding', faultId: conclusion.leaderId };
    case 'offered': {
      const { cure } = faultNamed(model, conclusion.leaderId);
      const better =
        cure.part === true && endedShare(model, probabilities, cure.id) < caution.sureOfProved
          ? (ranked.find((found) => found.savesMinutes >= worthMinutes) ??
            ranked.find((found) => found.movesCures > telling))
          : undefined;
      return better === undefined ? { do: 'finding', faultId: conclusion.leaderId } : check(better);
    }
    case 'to-prove':
    case 'open': {
      if (top !== undefined && conclusion.state === 'to-prove' && proves(model, top.checkId, conclusion.leaderId))
        return check(top);
      const share = (faultId: string) => endedShare(model, probabilities, faultNamed(model, faultId).cure.id);
      const buys = (faultId: string) => faultNamed(model, faultId).cure.part === true;
      const tried = triedCures(model, observations);
      // A look that goes first by custom may save nothing; one that pays may stand behind it.
      const paying = ranked.find((found) => found.savesMinutes >= worthMinutes);
      if (paying !== undefined && conclusion.state === 'open') {
        const before = quickerCure(
          { model, observations, probabilities },
          ranked,
          (cureId) =>
            !tried.has(cureId) &&
            endedShare(model, probabilities, cureId) >=
              (partCure(model, cureId) ? caution.sureOfPart : caution.leastForCure),
        );
        return before === null ? check(paying) : { do: 'cure', faultId: before };
      }
      const leader =
        conclusion.state === 'to-prove' && !tried.has(faultNamed(model, conclusion.leaderId).cure.id)
          ? conclusion.leaderId
          : null;
      const first = leader ?? firstCure(model, probabilities, tried, () => true);
      if (first === null) return { do: 'nothing' };
      const left =
        buys(first) && share(first) < caution.sureOfPart
          ? ranked.find((found) => found.movesCures > telling)
          : undefined;
      if (left !== undefined) return check(left);
      const affordable =
        leader ??
        firstCure(model, probabilities, tried, (faultId) =>
          buys(faultId) ? share(faultId) >= caution.leastForPart : share(faultId) >= caution.leastForCure,
        );
      return affordable === null ? { do: 'nothing' } : { do: 'cure', faultId: affordable };
    }
  }
}

/** The step after a swap that cured it; null where the search goes on as usual. */
function settledBySwap(
  { model, observations, probabilities, interlocks = [] }: Footing,
  ranked: readonly NextCheck[],
  conclusion: Conclusion,
  caution: Caution,
): NextStep | null {
  if (conclusion.state === 'outside' || conclusion.state === 'well') return null;
  // What is proved of a supply that is never powered again is proved enough.
  if (barring(interlocks, 'machine') !== null) return null;
  const sure = { enough: caution.sureOfProved, least: caution.leastAfterSwap };
  const after = afterSwap(model, observations, probabilities, ranked, sure);
  if (after === null) return null;
  if ('checkId' in after) return { do: 'check', checkId: after.checkId };
  const proved = conclusion.state === 'offered' && conclusion.leaderId === after.faultId;
  return { do: proved ? 'finding' : 'cure', faultId: after.faultId };
}

/** What is left where the supply that came, or the board, is never powered again. */
function stepWithoutSupply(
  { model, observations, probabilities, interlocks = [] }: Footing,
  ranked: readonly NextCheck[],
  least: number,
): NextStep {
  const spare = ranked.find((found) => checkNamed(model, found.checkId).powers === 'spare');
  if (spare !== undefined) return { do: 'check', checkId: spare.checkId };
  const cure = firstCure(model, probabilities, triedCures(model, observations), (faultId) =>
    cureAllowed(interlocks, faultNamed(model, faultId).cure.id),
  );
  if (cure !== null) return { do: 'cure', faultId: cure };
  const left = ranked.find((found) => found.movesCures > least);
  return left === undefined ? { do: 'nothing' } : { do: 'check', checkId: left.checkId };
}

const partCure = (model: Model, cureId: string) =>
  model.faults.some((fault) => fault.cure.id === cureId && fault.cure.part === true);
/** By this many expected minutes a cure has to beat the best check before it is offered first. */
const clearlyQuicker = 0.1;

/** The fault whose cure is quicker done than any check that could tell more; null when the best check is quicker. */
function quickerCure(
  { model, observations, probabilities }: Footing,
  ranked: readonly NextCheck[],
  allowed: (cureId: string) => boolean,
): string | null {
  const cure = bestCureFirst(
    model,
    observations,
    probabilities,
    ranked.slice(0, 16).map((found) => found.checkId),
    allowed,
  );
  const most = Math.max(...ranked.map((found) => found.savesMinutes));
  if (cure === null || cure.minutes > expectedRepairMinutes(model, probabilities) - most - clearlyQuicker) return null;
  return rankFaults(model, probabilities).find(({ faultId }) => faultNamed(model, faultId).cure.id === cure.cureId)!
    .faultId;
}

const proves = (model: Model, checkId: string, faultId: string) =>
  checkNamed(model, checkId).outcomes.some((outcome) => outcome.cures?.includes(faultId) === true);

/**
 * The largest share of the faults that one outcome proved together, among outcomes that prove the leader; 0 without
 * one.
 */
function provenShare(
  model: Model,
  observations: readonly Observation[],
  ranked: readonly Ranked[],
  leaderId: string,
): number {
  let most = 0;
  for (const observation of observations) {
    const check = model.checkIndex.get(observation.checkId);
    const cures =
      check === undefined
        ? undefined
        : model.checks[check]!.outcomes.find((candidate) => candidate.id === observation.outcomeId)?.cures;
    if (cures?.includes(leaderId) !== true) continue;
    most = Math.max(
      most,
      ranked
        .filter((suspect) => cures.includes(suspect.faultId))
        .reduce((sum, suspect) => sum + suspect.probability, 0),
    );
  }
  return most;
}
