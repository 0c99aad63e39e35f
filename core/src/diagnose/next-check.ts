/* oxlint-disable typescript/no-non-null-assertion --
   checks, outcomes and faults of a model are told by their number, which its own tables give */
import { barring, type Interlock } from './interlock.ts';
import { isFromFile, type Hazard, type Need } from './knowledge.ts';
import { posterior, type Model, type Observation, checkNamed } from './model.ts';
import { expectedRepairMinutes } from './remaining-time.ts';
import { wasDoneAsRepair } from './repair.ts';
import {
  endsAtOnce,
  minutesWithOneMore,
  secondStep,
  seenByGroup,
  type SecondStep,
  type Unpaid,
} from './second-step.ts';

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
  /** The same of the chances of the cures: what tells faults of one cure apart moves none of them. At most `moves`. */
  readonly movesCures: number;
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

/** Below this many expected minutes saved a check does not pay. */
export const worthMinutes = 0.05;

/** Checks for which a second step is looked at, and how many checks that second step may be. */
const deepChecks = 8;
const secondChecks = 12;

/** A check that was looked at: what each outcome leaves to be paid for, and what it saves so far. */
interface Looked {
  readonly index: number;
  readonly unpaid: readonly Unpaid[];
  readonly found: NextCheck;
}

/** What one outcome of a check would leave. */
interface AfterOutcome {
  readonly preview: OutcomePreview;
  /** Share of probability that changes hands between faults, by how likely the outcome is. */
  readonly moves: number;
  /** The same between cures. */
  readonly movesCures: number;
  readonly unpaid: Unpaid;
}

/** The fault that is the likeliest, the first of those alike. */
function leaderOf(probabilities: Float64Array): number {
  let leader = 0;
  for (let fault = 0; fault < probabilities.length; fault += 1)
    if (probabilities[fault]! > probabilities[leader]!) leader = fault;
  return leader;
}

/** Ranks the checks of one model, as things stand after some observations. */
class CheckRanking {
  private readonly model: Model;
  private readonly observations: readonly Observation[];
  private readonly now: Float64Array;
  /** Expected minutes of trying cures at once. */
  private readonly base: number;
  private readonly seen: ReturnType<typeof seenByGroup>;
  /** By fault, the place of its cure among the cures. */
  private readonly cureOf: readonly number[];
  private readonly cureCount: number;

  constructor(model: Model, observations: readonly Observation[]) {
    this.model = model;
    this.observations = observations;
    this.now = posterior(model, observations);
    this.base = expectedRepairMinutes(model, this.now);
    this.seen = seenByGroup(model, observations);
    const cures = [...new Set(model.faults.map(({ cure }) => cure.id))];
    this.cureOf = model.faults.map(({ cure }) => cures.indexOf(cure.id));
    this.cureCount = cures.length;
  }

  /** A check by itself, with cures in their best order after it. */
  look(index: number): Looked {
    const { id, minutes, hazard, needs, outcomes } = this.model.checks[index]!;
    const after = outcomes.map((_, outcome) => this.afterOutcome(index, outcome));
    const left = after.reduce((sum, { unpaid }) => sum + expectedRepairMinutes(this.model, unpaid), minutes);
    const savesMinutes = this.base - left;
    return {
      index,
      unpaid: after.map(({ unpaid }) => unpaid),
      found: {
        checkId: id,
        minutes,
        hazard,
        needs,
        savesMinutes,
        savesAloneMinutes: savesMinutes,
        moves: after.reduce((sum, { moves }) => sum + moves, 0),
        movesCures: after.reduce((sum, { movesCures }) => sum + movesCures, 0),
        previews: after.map(({ preview }) => preview),
      },
    };
  }

  /** The best of those looked at with one more check before the cures; the others as they are. */
  withSecondSteps(looked: readonly Looked[]): readonly NextCheck[] {
    const { model } = this;
    const seconds = looked.slice(0, secondChecks).map(({ index }) => {
      const group = model.checks[index]!.evidence;
      return { index, group, step: secondStep(model, index, this.seen(group)) };
    });
    const work = new Float64Array(model.faults.length);
    return looked.map(({ index, unpaid, found }, position) => {
      if (position >= deepChecks) return found;
      const others = seconds.filter((second) => second.index !== index);
      const stepsAfter = this.stepsAfter(index, others);
      const left = unpaid.reduce(
        (sum, one, outcome) => sum + minutesWithOneMore(model, one, stepsAfter(outcome), work),
        0,
      );
      return { ...found, savesMinutes: this.base - found.minutes - left };
    });
  }

  private afterOutcome(index: number, outcome: number): AfterOutcome {
    const { model, now } = this;
    const check = model.checks[index]!;
    const outcomeId = check.outcomes[outcome]!.id;
    const row = model.likelihood[index]![outcome]!;
    let probability = 0;
    for (let fault = 0; fault < now.length; fault += 1) probability += now[fault]! * row[fault]!;
    const then =
      this.seen(check.evidence).length === 0
        ? now.map((value, fault) => (value * row[fault]!) / probability)
        : posterior(model, [...this.observations, { checkId: check.id, outcomeId }]);
    let moved = 0;
    const byCure = new Float64Array(this.cureCount);
    for (let fault = 0; fault < then.length; fault += 1) {
      const change = then[fault]! - now[fault]!;
      moved += Math.abs(change);
      byCure[this.cureOf[fault]!]! += change;
    }
    const movedCures = byCure.reduce((sum, change) => sum + Math.abs(change), 0);
    const unpaid = then.map((value) => value * probability);
    for (const fault of endsAtOnce(model, index, outcome) ?? []) unpaid[fault] = 0;
    const leader = leaderOf(then);
    const preview = {
      outcomeId,
      probability,
      leaderId: model.faults[leader]!.id,
      leaderProbability: then[leader]!,
    };
    return { preview, moves: (probability * moved) / 2, movesCures: (probability * movedCures) / 2, unpaid };
  }

  /** The second steps after an outcome: those of the same evidence group say less once it was seen. */
  private stepsAfter(
    index: number,
    others: readonly { readonly index: number; readonly group: string; readonly step: SecondStep }[],
  ): (outcome: number) => readonly SecondStep[] {
    const { model } = this;
    const group = model.checks[index]!.evidence;
    const steps = others.map(({ step }) => step);
    if (!others.some((second) => second.group === group)) return () => steps;
    return (outcome) => {
      const seen = [...this.seen(group), model.says[index]![outcome]!];
      return others.map((second) => (second.group === group ? secondStep(model, second.index, seen) : second.step));
    };
  }
}

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
  const ranking = new CheckRanking(model, observations);
  const runs = machineRuns(model, observations);
  const looked = model.checks
    .flatMap((_, index) =>
      available(model, index, observations, bench, runs, interlocks) ? [ranking.look(index)] : [],
    )
    .sort((a, b) => b.found.savesMinutes - a.found.savesMinutes || a.found.checkId.localeCompare(b.found.checkId));
  const ranked = [...ranking.withSecondSteps(looked)].sort(
    (a, b) => worthOf(b) - worthOf(a) || a.checkId.localeCompare(b.checkId),
  );
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
    checkNamed(model, checkId).kind === 'look' && minutes <= 1 && moves > tellingLook && hazard === 'none';
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
