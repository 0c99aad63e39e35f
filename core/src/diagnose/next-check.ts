import { barring, type Interlock } from './interlock.ts';
import { isFromFile, type Hazard, type Need } from './knowledge.ts';
import { posterior, type Model, type Observation } from './model.ts';
import { expectedRepairMinutes } from './remaining-time.ts';
import { wasDoneAsRepair } from './repair.ts';
import { endsAtOnce, minutesWithOneMore, secondStep, seenByGroup, type Unpaid } from './second-step.ts';

/** What the bench has; a check that needs something else is left out. */
export interface Bench {
  readonly has: readonly Need[];
  /** Allowed to work at mains beyond swapping lead and outlet; without it nothing is offered that asks for more. */
  readonly mayMeterMains: boolean;
}

/** What one outcome of a check would do. */
export interface OutcomePreview {
  readonly outcomeId: string;
  readonly probability: number;
  readonly leaderId: string;
  readonly leaderProbability: number;
}

/** A check that is worth doing next. */
export interface NextCheck {
  readonly checkId: string;
  readonly minutes: number;
  readonly hazard: Hazard;
  readonly needs: readonly Need[];
  /** Expected minutes to the end of the job that it saves against trying cures at once; may be negative. */
  readonly savesMinutes: number;
  /** What it saves by itself, with no other check after it. */
  readonly savesAloneMinutes: number;
  /**
   * How far its outcomes are expected to move the ranking, 0 to 1: the mean share of probability that changes hands.
   */
  readonly moves: number;
  readonly previews: readonly OutcomePreview[];
}

/** Differences of worth below this many minutes count as near equal, so that the safer check goes first. */
export const nearMinutes = 0.5;
const hazardRank: Record<Hazard, number> = { none: 0, low: 1, mains: 2 };

/** Does the machine stay on, as far as is known? Null when nobody said. */
export function machineRuns(model: Model, observations: readonly Observation[]): boolean | null {
  const told = observations.find((observation) => observation.checkId === 'told-button');
  if (!told) return null;
  const check = model.checkIndex.get('told-button');
  const outcome =
    check === undefined
      ? undefined
      : model.checks[check]!.outcomes.find((candidate) => candidate.id === told.outcomeId);
  return outcome === undefined ? null : outcome.stands !== true;
}

function available(
  model: Model,
  index: number,
  observations: readonly Observation[],
  bench: Bench,
  runs: boolean | null,
  interlocks: readonly Interlock[],
): boolean {
  const check = model.checks[index]!;
  if (!isFromFile(check)) return false;
  if (check.about !== undefined && model.absent.has(check.about)) return false;
  if (check.powers !== undefined && barring(interlocks, check.powers) !== null) return false;
  if (observations.some((observation) => observation.checkId === check.id)) return false;
  if (wasDoneAsRepair(check, observations)) return false;
  if (
    check.after !== undefined &&
    !observations.some(
      (observation) =>
        observation.checkId === check.after && (check.afterOutcomes?.includes(observation.outcomeId) ?? true),
    )
  )
    return false;
  if (check.hazard === 'mains' && !bench.mayMeterMains) return false;
  return check.needs.every((need) => (need === 'running' ? runs !== false : bench.has.includes(need)));
}

/**
 * What a check is worth in the ranking, in minutes: the mean of what it saves alone and with a second step. With the
 * second step alone whatever is done first looks good, since the best check may follow it.
 */
export function worthOf(check: Pick<NextCheck, 'savesMinutes' | 'savesAloneMinutes'>): number {
  return (check.savesMinutes + check.savesAloneMinutes) / 2;
}

/** Checks for which a second step is looked at, and how many checks that second step may be. */
const deepChecks = 8;
const secondChecks = 12;

/**
 * Every check that can be done now, best first by `worthOf`: expected remaining minutes are the check's own, then cures
 * in their best order, for the best checks also with one more check before the cures. Among near equals the safer, then
 * the quicker goes first.
 * @param observations outcomes so far; an answered check, also with `unknown`, is not offered again, nor one
 *   that would only do a repair again
 * @param interlocks from `interlocksOf`: what they bar is not offered
 */
export function rankChecks(
  model: Model,
  observations: readonly Observation[],
  bench: Bench,
  interlocks: readonly Interlock[] = [],
): NextCheck[] {
  const now = posterior(model, observations);
  const base = expectedRepairMinutes(model, now);
  const runs = machineRuns(model, observations);
  const seen = seenByGroup(model, observations);
  const looked: { index: number; unpaid: Unpaid[]; found: NextCheck }[] = [];
  for (let index = 0; index < model.checks.length; index += 1) {
    if (!available(model, index, observations, bench, runs, interlocks)) continue;
    const check = model.checks[index]!;
    let expected = check.minutes;
    let moves = 0;
    const left: Unpaid[] = [];
    const previews = check.outcomes.map((outcome, position): OutcomePreview => {
      const row = model.likelihood[index]![position]!;
      let probability = 0;
      for (let fault = 0; fault < now.length; fault += 1) probability += now[fault]! * row[fault]!;
      const then =
        seen(check.evidence).length === 0
          ? now.map((value, fault) => (value * row[fault]!) / probability)
          : posterior(model, [...observations, { checkId: check.id, outcomeId: outcome.id }]);
      let moved = 0;
      let leader = 0;
      for (let fault = 0; fault < then.length; fault += 1) {
        moved += Math.abs(then[fault]! - now[fault]!);
        if (then[fault]! > then[leader]!) leader = fault;
      }
      moves += (probability * moved) / 2;
      const unpaid = then.map((value) => value * probability);
      for (const fault of endsAtOnce(model, index, position) ?? []) unpaid[fault] = 0;
      left.push(unpaid);
      expected += expectedRepairMinutes(model, unpaid);
      return {
        outcomeId: outcome.id,
        probability,
        leaderId: model.faults[leader]!.id,
        leaderProbability: then[leader]!,
      };
    });
    const savesMinutes = base - expected;
    looked.push({
      index,
      unpaid: left,
      found: {
        checkId: check.id,
        minutes: check.minutes,
        hazard: check.hazard,
        needs: check.needs,
        savesMinutes,
        savesAloneMinutes: savesMinutes,
        moves,
        previews,
      },
    });
  }
  looked.sort((a, b) => b.found.savesMinutes - a.found.savesMinutes || a.found.checkId.localeCompare(b.found.checkId));
  const seconds = looked.slice(0, secondChecks).map(({ index }) => {
    const group = model.checks[index]!.evidence;
    return { index, group, step: secondStep(model, index, seen(group)) };
  });
  const work = new Float64Array(model.faults.length);
  const ranked = looked.map(({ index, unpaid, found }, position): NextCheck => {
    if (position >= deepChecks) return found;
    const group = model.checks[index]!.evidence;
    const others = seconds.filter((second) => second.index !== index);
    const steps = others.map((second) => second.step);
    const related = others.some((second) => second.group === group);
    const stepsAfter = (outcome: number) =>
      related
        ? others.map((second) =>
            second.group === group
              ? secondStep(model, second.index, [...seen(group), model.says[index]![outcome]!])
              : second.step,
          )
        : steps;
    return {
      ...found,
      savesMinutes:
        base -
        found.minutes -
        unpaid.reduce((sum, left, outcome) => sum + minutesWithOneMore(model, left, stepsAfter(outcome), work), 0),
    };
  });
  ranked.sort((a, b) => worthOf(b) - worthOf(a) || a.checkId.localeCompare(b.checkId));
  return looksFirst(model, saferFirst(ranked));
}

/** The looks for a danger that is likely by what was told, in the order in which it was told. */
export function likelyDangers(model: Model, observations: readonly Observation[]): string[] {
  const looks = observations.flatMap(({ checkId, outcomeId }) => {
    const check = model.checks[model.checkIndex.get(checkId) ?? -1];
    return check?.outcomes.find(({ id }) => id === outcomeId)?.lookFirst ?? [];
  });
  return looks.filter((look) => !observations.some(({ checkId }) => checkId === look));
}

/** What is likely to be dangerous is looked at before anything is powered, whatever that saves. */
export function lookedForFirst(
  model: Model,
  observations: readonly Observation[],
  ranked: readonly NextCheck[],
): NextCheck[] {
  const likely = likelyDangers(model, observations);
  const isLookedFor = ({ checkId }: NextCheck) => likely.includes(checkId);
  return [...ranked.filter(isLookedFor), ...ranked.filter((check) => !isLookedFor(check))];
}

/** A look tells something when its outcomes are expected to move the ranking by more than this share. */
const tellingLook = 0.02;

/** A minute's look that tells something is never ranked under a check that wants a meter or tester out. */
function looksFirst(model: Model, ranked: readonly NextCheck[]): NextCheck[] {
  const meterOut = ranked.findIndex(({ needs }) => needs.includes('meter') || needs.includes('tester'));
  if (meterOut < 0) return [...ranked];
  const isLook = ({ checkId, minutes, moves, hazard }: NextCheck) =>
    model.checks[model.checkIndex.get(checkId)!]!.kind === 'look' &&
    minutes <= 1 &&
    moves > tellingLook &&
    hazard === 'none';
  const rest = ranked.slice(meterOut);
  return [...ranked.slice(0, meterOut), ...rest.filter(isLook), ...rest.filter((check) => !isLook(check))];
}

function saferFirst(ranked: readonly NextCheck[]): NextCheck[] {
  const out: NextCheck[] = [];
  const left = [...ranked];
  while (left.length > 0) {
    const near = left.filter((check) => worthOf(left[0]!) - worthOf(check) <= nearMinutes);
    near.sort(
      (a, b) => hazardRank[a.hazard] - hazardRank[b.hazard] || a.minutes - b.minutes || worthOf(b) - worthOf(a),
    );
    const best = near[0]!;
    out.push(best);
    left.splice(left.indexOf(best), 1);
  }
  return out;
}
