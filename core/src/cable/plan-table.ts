import { limits, plugServes, type CableFamily } from '../standards/index.ts';
import type { Adapter, KitCable } from './kit.ts';
import { adapterServes } from './adapters.ts';
import { carriedBy, isOverloaded, rounding, spreadsFreely } from './carried.ts';
import {
  inPlanOrder,
  leftOpen,
  newBudget,
  openOf,
  roomTaken,
  slackOf,
  strongEnough,
  signature,
  type Budget,
  type FamilyExtras,
  type FamilyPlan,
  type LegToServe,
  type PlacedPlug,
  type ServedPlug,
  type UsedCable,
} from './plan-family.ts';
import { isPair, servesInlet } from './pairs.ts';
import { betweenMillimetres } from './routing.ts';
import { addScores, compareScores, noScore, type PlanScore } from './score.ts';
import { noRoom, roomFor, type Room } from './supply-ends.ts';

/** Inlets that may stand for each other. */
interface Kind {
  readonly inlets: readonly LegToServe[];
  readonly first: LegToServe;
}

/** One way to fill a piece: how many of each kind, adapter and socket it takes, and what that costs. */
interface Filling {
  readonly takes: readonly number[];
  readonly overloaded: number;
  readonly plugs: readonly { readonly plugIndex: number; readonly kind: number; readonly adapter: number }[];
  readonly sharing: number;
  readonly foreign: number;
  readonly cables: number;
  readonly unevenness: number;
  readonly slackMillimetres: number;
}

/** Up to so many states and fillings a table is made; beyond, it would take too long. */
const mostStates = 60_000;
const mostFillings = 10_000;
/** Up to so many pairs of a state and a filling are gone through. */
const mostPairs = 2_000_000;
/** So many pairs take about as long as one step of a search. */
const pairsAStep = 200;
const tolerance = 1e-9;

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
  const queue = inPlanOrder(inlets);
  const kinds: Kind[] = [];
  for (const inlet of queue) {
    const last = kinds.at(-1);
    if (last !== undefined && signature(last.first) === signature(inlet)) (last.inlets as LegToServe[]).push(inlet);
    else kinds.push({ inlets: [inlet], first: inlet });
  }
  const { adapters } = extras;
  const radices = [
    ...kinds.map((kind) => kind.inlets.length + 1),
    ...adapters.map((adapter) => Math.min(adapter.count, queue.length) + 1),
    room.own + 1,
    room.pairs + 1,
  ];
  const strides: number[] = [];
  let states = 1;
  for (const radix of radices) {
    strides.push(states);
    states *= radix;
    if (states > mostStates) return 'too-large';
  }

  const fillingsOf = new Map<string, readonly Filling[]>();
  const pieces: {
    readonly cable: KitCable;
    readonly copy: number;
    readonly placed: readonly PlacedPlug[];
    readonly fillings: readonly Filling[];
  }[] = [];
  for (const cable of cables)
    for (let copy = 0; copy < cable.count; copy += 1) {
      const placed = extras.placed.filter((item) => item.cable === cable && item.copy === copy);
      const key = placed.length === 0 ? `${cables.indexOf(cable)}` : `${cables.indexOf(cable)} ${copy}`;
      let fillings = fillingsOf.get(key);
      if (fillings === undefined) {
        const found = fillingsFor(family, cable, placed, kinds, adapters, allowShared);
        if (found === null) return 'too-large';
        fillings = found;
        fillingsOf.set(key, fillings);
      }
      pieces.push({ cable, copy, placed, fillings });
    }

  const pairs = states * pieces.reduce((sum, piece) => sum + piece.fillings.length, 0);
  if (pairs > Math.min(mostPairs, budget.left * pairsAStep)) return 'too-large';
  budget.left -= Math.ceil(pairs / pairsAStep);

  const digits = new Uint16Array(states * radices.length);
  for (let state = 0; state < states; state += 1)
    for (let dim = 0; dim < radices.length; dim += 1)
      digits[state * radices.length + dim] = Math.floor(state / strides[dim]!) % radices[dim]!;
  // Overloaded cables, sharing, foreign pieces and cables are small whole numbers and stand in one figure.
  let rank = new Float64Array(states).fill(Infinity);
  let unevenness = new Float64Array(states);
  let slack = new Float64Array(states);
  rank[0] = 0;
  const ways: { readonly from: Int32Array; readonly filling: Int32Array }[] = [];
  for (const piece of pieces) {
    const nextRank = piece.placed.length > 0 ? new Float64Array(states).fill(Infinity) : rank.slice();
    const nextUneven = piece.placed.length > 0 ? new Float64Array(states) : unevenness.slice();
    const nextSlack = piece.placed.length > 0 ? new Float64Array(states) : slack.slice();
    const from = new Int32Array(states).fill(-1);
    const filling = new Int32Array(states).fill(-1);
    if (piece.placed.length === 0) for (let state = 0; state < states; state += 1) from[state] = state;
    piece.fillings.forEach((option, index) => {
      const step = option.takes.reduce((sum, take, dim) => sum + take * strides[dim]!, 0);
      const cost = option.overloaded * 1e9 + option.sharing * 1e6 + option.foreign * 1e3 + option.cables;
      for (let state = 0; state < states; state += 1) {
        if (rank[state] === Infinity) continue;
        let fits = true;
        for (let dim = 0; dim < radices.length; dim += 1)
          if (option.takes[dim]! > 0 && digits[state * radices.length + dim]! + option.takes[dim]! >= radices[dim]!) {
            fits = false;
            break;
          }
        if (!fits) continue;
        const to = state + step;
        const newRank = rank[state]! + cost;
        const newUneven = unevenness[state]! + option.unevenness;
        const newSlack = slack[state]! + option.slackMillimetres;
        const oldRank = nextRank[to]!;
        if (newRank > oldRank) continue;
        if (newRank === oldRank) {
          const gain = nextUneven[to]! - newUneven;
          if (gain < -tolerance || (gain <= tolerance && newSlack >= nextSlack[to]! - tolerance)) continue;
        }
        nextRank[to] = newRank;
        nextUneven[to] = newUneven;
        nextSlack[to] = newSlack;
        from[to] = state;
        filling[to] = index;
      }
    });
    rank = nextRank;
    unevenness = nextUneven;
    slack = nextSlack;
    ways.push({ from, filling });
  }

  let best = -1;
  let bestScore: PlanScore = noScore;
  for (let state = 0; state < states; state += 1) {
    if (rank[state] === Infinity) continue;
    let opens = noScore;
    let legLeft = false;
    kinds.forEach((kind, dim) => {
      const open = kind.inlets.length - digits[state * radices.length + dim]!;
      if (open > 0 && kind.first.leg !== undefined) legLeft = true;
      for (let count = 0; count < open; count += 1) opens = addScores(opens, leftOpen(kind.first));
    });
    if (legLeft) continue;
    const score: PlanScore = {
      ...opens,
      overloaded: Math.floor(rank[state]! / 1e9),
      sharing: Math.floor((rank[state]! % 1e9) / 1e6),
      foreign: Math.floor((rank[state]! % 1e6) / 1e3),
      cables: rank[state]! % 1e3,
      unevenness: unevenness[state]!,
      slackMillimetres: slack[state]!,
    };
    if (best < 0 || compareScores(score, bestScore) < 0) {
      best = state;
      bestScore = score;
    }
  }
  if (best < 0) return null;

  // Back through the pieces: which filling each had, and which inlets of its kind are on it.
  const used: UsedCable[] = [];
  const given = kinds.map(() => 0);
  const chosen: (Filling | null)[] = [];
  let state = best;
  for (let index = pieces.length - 1; index >= 0; index -= 1) {
    const { from, filling } = ways[index]!;
    chosen[index] = filling[state]! < 0 ? null : pieces[index]!.fillings[filling[state]!]!;
    state = from[state]!;
  }
  pieces.forEach((piece, index) => {
    const option = chosen[index];
    if (option == null) return;
    const plugs = [
      ...piece.placed.map((item): ServedPlug => ({
        plugIndex: item.plugIndex,
        inlet: item.inlet,
        adapter: item.adapter,
      })),
      ...option.plugs.map(({ plugIndex, kind, adapter }): ServedPlug => {
        const inlet = kinds[kind]!.inlets[given[kind]!]!;
        given[kind]! += 1;
        return { plugIndex, inlet, adapter: adapter < 0 ? null : adapters[adapter]! };
      }),
    ].sort((a, b) => a.plugIndex - b.plugIndex);
    if (plugs.length > 0) used.push({ cable: piece.cable, copy: piece.copy, plugs });
  });
  const holds = (item: UsedCable) =>
    pieces
      .find((piece) => piece.cable === item.cable && piece.copy === item.copy)!
      .placed.some((one) => one.holdsSocket);
  return {
    cables: used,
    score: bestScore,
    proved: true,
    taken: roomTaken(used.map((item) => ({ cable: item.cable, holdsSocket: holds(item) }))),
    open: kinds.flatMap((kind, dim) => kind.inlets.slice(given[dim])).flatMap((inlet) => openOf(cables, inlet, room)),
  };
}

/**
 * Every way to fill one piece, the best arrangement of each content; null when there are too many. What is placed
 * stays.
 */
function fillingsFor(
  family: CableFamily,
  cable: KitCable,
  placed: readonly PlacedPlug[],
  kinds: readonly Kind[],
  adapters: readonly Adapter[],
  allowShared: boolean,
): Filling[] | null {
  const graphics = family === 'card' || family === 'card-16';
  const best = new Map<string, Filling>();
  const on: (ServedPlug & { readonly kind: number; readonly which: number })[] = placed.map((item) => ({
    plugIndex: item.plugIndex,
    inlet: item.inlet,
    adapter: item.adapter,
    kind: -1,
    which: -1,
  }));
  const asked = placed.some((item) => item.holdsSocket) ? noRoom : roomFor(cable);
  let seen = 0;
  const amps12 = () => on.reduce((total, item) => total + item.inlet.amps12, 0);

  /** May what hangs on the piece now hang there together, seen from the one that came last? */
  function together(): boolean {
    if (on.length < 2) return true;
    if (on.some((item) => item.inlet.leg !== undefined)) return false;
    const last = on.at(-1)!;
    const spaced = on.every(
      (other) =>
        other === last ||
        Math.abs(cable.plugs[last.plugIndex]!.millimetres - cable.plugs[other.plugIndex]!.millimetres) +
          (last.adapter?.addsMillimetres ?? 0) +
          (other.adapter?.addsMillimetres ?? 0) >=
          betweenMillimetres(last.inlet, other.inlet),
    );
    switch (family) {
      case 'main':
        return false;
      case 'cpu':
        return spaced;
      case 'card':
      case 'card-16':
        return spaced && allowShared && amps12() * 12 <= limits.sharedCardCableWatts + rounding;
      case 'drive':
        return spaced && !isOverloaded(cable, carriedBy(on.map((item) => item.inlet)));
    }
  }

  function keep(): void {
    const fresh = on.length > placed.length || placed.length > 0;
    if (!fresh) return;
    const takes = [
      ...kinds.map((_, kind) => on.filter((item) => item.kind === kind).length),
      ...adapters.map((_, which) => on.filter((item) => item.which === which).length),
      asked.own,
      asked.pairs,
    ];
    const slackMillimetres = on.reduce(
      (total, item) =>
        total + slackOf(item.inlet, cable.plugs[item.plugIndex]!.millimetres + (item.adapter?.addsMillimetres ?? 0)),
      0,
    );
    const key = takes.join(' ');
    const known = best.get(key);
    if (known !== undefined && known.slackMillimetres <= slackMillimetres) return;
    const carried = carriedBy(on.map((item) => item.inlet));
    best.set(key, {
      takes,
      slackMillimetres,
      plugs: on
        .filter((item) => item.kind >= 0)
        .map(({ plugIndex, kind, which }) => ({ plugIndex, kind, adapter: which })),
      sharing: graphics ? on.length - 1 : 0,
      foreign: (cable.spare === true ? 1 : 0) + on.filter((item) => item.adapter !== null).length,
      cables: spreadsFreely(family, cable) ? 0 : 1,
      overloaded: isOverloaded(cable, carried) ? 1 : 0,
      unevenness: (carried.amps12 + carried.amps5 + carried.amps33) ** 2,
    });
  }

  function fill(plugIndex: number): boolean {
    seen += 1;
    if (seen > mostFillings) return false;
    if (plugIndex === cable.plugs.length) {
      keep();
      return true;
    }
    if (!fill(plugIndex + 1)) return false;
    if (placed.some((item) => item.plugIndex === plugIndex)) return true;
    const plug = cable.plugs[plugIndex]!;
    for (let kind = 0; kind < kinds.length; kind += 1) {
      const inlet = kinds[kind]!.first;
      if (on.filter((item) => item.kind === kind).length >= kinds[kind]!.inlets.length) continue;
      for (let which = -1; which < adapters.length; which += 1) {
        const adapter = which < 0 ? null : adapters[which]!;
        if (
          adapter === null
            ? !servesInlet(plug.kind, cable, inlet)
            : inlet.leg !== undefined ||
              isPair(inlet) ||
              on.filter((item) => item.which === which).length >= adapter.count ||
              !plugServes(plug.kind, adapter.takes) ||
              !adapterServes(adapter, inlet)
        )
          continue;
        if (plug.millimetres + (adapter?.addsMillimetres ?? 0) < inlet.reachMillimetres || !strongEnough(cable, inlet))
          continue;
        on.push({ plugIndex, inlet, adapter, kind, which });
        const goesOn = !together() || fill(plugIndex + 1);
        on.pop();
        if (!goesOn) return false;
      }
    }
    return true;
  }
  return fill(0) ? [...best.values()] : null;
}
