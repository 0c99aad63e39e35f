/* oxlint-disable typescript/no-non-null-assertion --
   rows of a table are typed arrays, all of one length, gone through by their number: each index is below it */
import type { CableFamily } from '../standards/index.ts';
import { fillingsFor, kindsOf, type Filling, type Kind, type ToFill } from './fillings.ts';
import type { Adapter, KitCable } from './kit.ts';
import {
  leftOpen,
  newBudget,
  openOf,
  roomTaken,
  type Budget,
  type FamilyExtras,
  type FamilyPlan,
  type LegToServe,
  type PlacedPlug,
  type ServedPlug,
  type UsedCable,
} from './plan-family.ts';
import { addScores, compareScores, noScore, type PlanScore } from './score.ts';
import type { Room } from './supply-ends.ts';

/** Up to so many states a table is made; beyond, it would take too long. */
const mostStates = 60_000;
/** Up to so many pairs of a state and a filling are gone through. */
const mostPairs = 2_000_000;
/** So many pairs take about as long as one step of a search. */
const pairsAStep = 200;
const tolerance = 1e-9;

/** One piece of the kit: what is placed on it and the ways to fill it. */
interface Stage {
  readonly cable: KitCable;
  readonly copy: number;
  readonly placed: readonly PlacedPlug[];
  readonly fillings: readonly Filling[];
}

/**
 * All states, as numbers of mixed radix: how many of each kind are served, of each adapter spent, how many sockets are
 * taken, alone and in pairs.
 */
interface States {
  readonly count: number;
  readonly radices: readonly number[];
  readonly strides: readonly number[];
  /** The digits of each state, one state after the other. */
  readonly digits: Uint16Array;
}

/** The best way to each state after some pieces; `rank` is Infinity where none leads there. */
interface Row {
  /** Overloaded cables, sharing, foreign pieces and cables: small whole numbers, in one figure. */
  readonly rank: Float64Array;
  readonly unevenness: Float64Array;
  readonly slack: Float64Array;
}

/** How each state after a piece came about: from which state, by which of the piece's fillings (-1 for none). */
interface Ways {
  readonly from: Int32Array;
  readonly filling: Int32Array;
}

/** @returns null where there are more than a table is made for */
function statesOf(
  kinds: readonly Kind[],
  adapters: readonly Adapter[],
  room: Room,
  mostAdapters: number,
): States | null {
  const radices = [
    ...kinds.map(({ inlets }) => inlets.length + 1),
    ...adapters.map((adapter) => Math.min(adapter.count, mostAdapters) + 1),
    room.own + 1,
    room.pairs + 1,
  ];
  const strides: number[] = [];
  let count = 1;
  for (const radix of radices) {
    strides.push(count);
    count *= radix;
    if (count > mostStates) return null;
  }
  const digits = new Uint16Array(count * radices.length);
  for (let state = 0; state < count; state += 1)
    for (const [dim, radix] of radices.entries())
      digits[state * radices.length + dim] = Math.floor(state / strides[dim]!) % radix;
  return { count, radices, strides, digits };
}

/** Every piece of the kit; null where one can be filled in too many ways. */
function stagesOf(toFill: ToFill, cables: readonly KitCable[], placed: readonly PlacedPlug[]): readonly Stage[] | null {
  const stages: Stage[] = [];
  for (const cable of cables) {
    let unplaced: readonly Filling[] | undefined;
    for (let copy = 0; copy < cable.count; copy += 1) {
      const onIt = placed.filter((item) => item.cable === cable && item.copy === copy);
      const known = onIt.length === 0 ? unplaced : undefined;
      const fillings = known ?? fillingsFor(toFill, cable, onIt);
      if (fillings === null) return null;
      if (onIt.length === 0) unplaced = fillings;
      stages.push({ cable, copy, placed: onIt, fillings });
    }
  }
  return stages;
}

const emptyRow = (count: number): Row => ({
  rank: new Float64Array(count).fill(Infinity),
  unevenness: new Float64Array(count),
  slack: new Float64Array(count),
});

const copyOf = ({ rank, unevenness, slack }: Row): Row => ({
  rank: rank.slice(),
  unevenness: unevenness.slice(),
  slack: slack.slice(),
});

/** Does a filling still go into a state: is there as much left of each thing as it takes? */
function fits({ digits, radices }: States, state: number, takes: readonly number[]): boolean {
  for (let dim = 0; dim < radices.length; dim += 1)
    if (takes[dim]! > 0 && digits[state * radices.length + dim]! + takes[dim]! >= radices[dim]!) return false;
  return true;
}

/** What a filling adds to the rank. */
const rankOf = ({ overloaded, sharing, foreign, cables }: Filling): number =>
  overloaded * 1e9 + sharing * 1e6 + foreign * 1e3 + cables;

/** The states after one filling of a piece, wherever it makes a better way to them than there is. */
function fillOnce(states: States, row: Row, next: Row, ways: Ways, option: Filling, index: number): void {
  const step = option.takes.reduce((sum, take, dim) => sum + take * states.strides[dim]!, 0);
  const cost = rankOf(option);
  for (let state = 0; state < states.count; state += 1) {
    if (row.rank[state] === Infinity || !fits(states, state, option.takes)) continue;
    const to = state + step;
    const rank = row.rank[state]! + cost;
    const unevenness = row.unevenness[state]! + option.unevenness;
    const slack = row.slack[state]! + option.slackMillimetres;
    if (rank > next.rank[to]!) continue;
    if (rank === next.rank[to]!) {
      const gain = next.unevenness[to]! - unevenness;
      if (gain < -tolerance || (gain <= tolerance && slack >= next.slack[to]! - tolerance)) continue;
    }
    next.rank[to] = rank;
    next.unevenness[to] = unevenness;
    next.slack[to] = slack;
    ways.from[to] = state;
    ways.filling[to] = index;
  }
}

/** The states after one piece. One with something placed on it is filled; another may be left out. */
function afterStage(
  states: States,
  row: Row,
  { placed, fillings }: Stage,
): { readonly next: Row; readonly ways: Ways } {
  const mayBeLeftOut = placed.length === 0;
  const next = mayBeLeftOut ? copyOf(row) : emptyRow(states.count);
  const ways = { from: new Int32Array(states.count).fill(-1), filling: new Int32Array(states.count).fill(-1) };
  if (mayBeLeftOut) for (let state = 0; state < states.count; state += 1) ways.from[state] = state;
  for (const [index, option] of fillings.entries()) fillOnce(states, row, next, ways, option, index);
  return { next, ways };
}

/** What a state leaves open; null where it leaves a leg, which must be served. */
function opensOf(states: States, kinds: readonly Kind[], state: number): PlanScore | null {
  let opens = noScore;
  for (const [dim, { first, inlets }] of kinds.entries()) {
    const open = inlets.length - states.digits[state * states.radices.length + dim]!;
    if (open > 0 && first.leg !== undefined) return null;
    for (let count = 0; count < open; count += 1) opens = addScores(opens, leftOpen(first));
  }
  return opens;
}

/** The best state at the end; null where every one leaves a leg. */
function bestState(
  states: States,
  row: Row,
  kinds: readonly Kind[],
): { readonly state: number; readonly score: PlanScore } | null {
  let best: { readonly state: number; readonly score: PlanScore } | null = null;
  for (let state = 0; state < states.count; state += 1) {
    const rank = row.rank[state]!;
    const opens = rank === Infinity ? null : opensOf(states, kinds, state);
    if (opens === null) continue;
    const score: PlanScore = {
      ...opens,
      overloaded: Math.floor(rank / 1e9),
      sharing: Math.floor((rank % 1e9) / 1e6),
      foreign: Math.floor((rank % 1e6) / 1e3),
      cables: rank % 1e3,
      unevenness: row.unevenness[state]!,
      slackMillimetres: row.slack[state]!,
    };
    if (best === null || compareScores(score, best.score) < 0) best = { state, score };
  }
  return best;
}

/** Back through the pieces from the last state: which filling each of them had, null where it was left out. */
function chosenOn(stages: readonly Stage[], ways: readonly Ways[], last: number): readonly (Filling | null)[] {
  let state = last;
  return stages
    .map((stage, index) => ({ stage, way: ways[index]! }))
    .reverse()
    .map(({ stage, way }) => {
      const filling = stage.fillings[way.filling[state]!] ?? null;
      state = way.from[state]!;
      return filling;
    })
    .reverse();
}

/** The pieces that are used, each with the next inlets of each kind that it takes; what is left over of the kinds. */
function used(
  stages: readonly Stage[],
  chosen: readonly (Filling | null)[],
  kinds: readonly Kind[],
): {
  readonly cables: readonly (UsedCable & { readonly holdsSocket: boolean })[];
  readonly left: readonly LegToServe[];
} {
  const left = kinds.map(({ inlets }) => [...inlets]);
  const cables = stages.flatMap(({ cable, copy, placed }, index) => {
    const option = chosen[index] ?? null;
    if (option === null) return [];
    const byHand = placed.map(({ plugIndex, inlet, adapter }): ServedPlug => ({ plugIndex, inlet, adapter }));
    const planned = option.plugs.map(({ plugIndex, kind, adapter }): ServedPlug => ({
      plugIndex,
      inlet: left[kind]!.shift()!,
      adapter,
    }));
    const plugs = [...byHand, ...planned].sort((a, b) => a.plugIndex - b.plugIndex);
    return plugs.length === 0
      ? []
      : [{ cable, copy, plugs, holdsSocket: placed.some(({ holdsSocket }) => holdsSocket) }];
  });
  return { cables, left: left.flat() };
}

/**
 * The exact best way to serve one family's inlets, by dynamic programming over the pieces of the kit: a state says how
 * many of each kind of inlet are served, which adapters are spent and how many sockets are taken. Every part of the
 * score adds up over the pieces, and the order of scores is kept by adding, so that the best way to a state is all that
 * must be known.
 * @returns null when a leg cannot be served or what is placed needs more sockets than there are; `too-large` where too
 * many inlets differ for a table
 */
export function tabulateFamily(
  family: CableFamily,
  cables: readonly KitCable[],
  inlets: readonly LegToServe[],
  room: Room,
  allowShared: boolean,
  extras: FamilyExtras,
  budget: Budget = newBudget(),
): FamilyPlan | null | 'too-large' {
  const { adapters } = extras;
  const kinds = kindsOf(inlets);
  const states = statesOf(kinds, adapters, room, inlets.length);
  const stages = states && stagesOf({ family, kinds, adapters, allowShared }, cables, extras.placed);
  if (states === null || stages === null) return 'too-large';
  const pairs = states.count * stages.reduce((sum, { fillings }) => sum + fillings.length, 0);
  if (pairs > Math.min(mostPairs, budget.left * pairsAStep)) return 'too-large';
  budget.left -= Math.ceil(pairs / pairsAStep);

  let row = emptyRow(states.count);
  row.rank[0] = 0;
  const ways: Ways[] = [];
  for (const stage of stages) {
    const after = afterStage(states, row, stage);
    row = after.next;
    ways.push(after.ways);
  }
  const best = bestState(states, row, kinds);
  if (best === null) return null;
  const plan = used(stages, chosenOn(stages, ways, best.state), kinds);
  return {
    cables: plan.cables.map(({ cable, copy, plugs }) => ({ cable, copy, plugs })),
    score: best.score,
    proved: true,
    taken: roomTaken(plan.cables),
    open: plan.left.flatMap((inlet) => openOf(cables, inlet, room)),
  };
}
