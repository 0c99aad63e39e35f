import { plugServes, type CableFamily } from '../standards/index.ts';
import { adapterServes } from './adapters.ts';
import { isGraphics, loadOf, spreadsFreely } from './carried.ts';
import type { Adapter, KitCable } from './kit.ts';
import { isPair, servesInlet } from './pairs.ts';
import { carries, piecesOf, placedScore, put, spaced, takeOff, usedOf, type Piece, type Slot } from './pieces.ts';
import {
  inPlanOrder,
  leftOpen,
  newBudget,
  noExtras,
  openOf,
  roomTaken,
  signature,
  slackOf,
  strongEnough,
  type Budget,
  type FamilyExtras,
  type FamilyPlan,
  type LegToServe,
  type UsedCable,
} from './plan-family.ts';
import { addScores, compareScores, type PlanScore } from './score.ts';
import { hasRoom, noRoom, roomFor, type Room } from './supply-ends.ts';

/** Steps for one family of a plan. */
const mostSteps = 5_000;
/** Even with nothing left a first plan is looked for in so many. */
const hardlyAnySteps = 2_000;

/** An inlet in the order in which they are served. */
interface Waiting {
  readonly inlet: LegToServe;
  /** Whether the one before is just the same: it takes a plug after that one's. */
  readonly isAlike: boolean;
  /** How many required inlets are still to come, this one among them. */
  readonly required: number;
  /** What those still to come cost at least, this one among them. */
  readonly atLeast: Pick<PlanScore, 'unevenness' | 'slackMillimetres'>;
}

/** An adapter and how many of it are left. */
interface Stock {
  readonly adapter: Adapter;
  left: number;
}

/** A plug of a piece, by its number among all plugs. */
interface Place {
  readonly piece: Piece;
  readonly slot: Slot;
  readonly number: number;
}

/** What one inlet leaves over at least, on the plug that suits it best. */
function leastSlack(inlet: LegToServe, cables: readonly KitCable[], adapters: readonly Adapter[]): number {
  const adds = [0, ...adapters.map(({ addsMillimetres }) => addsMillimetres)];
  let least = Infinity;
  for (const { plugs } of cables)
    for (const { millimetres } of plugs)
      for (const more of adds)
        if (millimetres + more >= inlet.reachMillimetres) least = Math.min(least, slackOf(inlet, millimetres + more));
  return least === Infinity ? 0 : least;
}

/**
 * The inlets in their order, each with what it and those after it cost at least when all are served: each alone on a
 * cable, on the plug that leaves least over. What is left open instead costs more by a part of the score that goes
 * before.
 */
function waitingOf(
  inlets: readonly LegToServe[],
  cables: readonly KitCable[],
  adapters: readonly Adapter[],
): readonly Waiting[] {
  const queue = inPlanOrder(inlets);
  let [required, unevenness, slackMillimetres] = [0, 0, 0];
  const waiting = queue.map((inlet, index) => {
    const before = queue[index - 1];
    return { inlet, isAlike: before !== undefined && signature(before) === signature(inlet) };
  });
  return waiting
    .reverse()
    .map((one): Waiting => {
      required += one.inlet.optional ? 0 : 1;
      unevenness += loadOf(one.inlet) ** 2;
      slackMillimetres += leastSlack(one.inlet, cables, adapters);
      return { ...one, required, atLeast: { unevenness, slackMillimetres } };
    })
    .reverse();
}

/** What is still to come after the last inlet. */
const nothingToCome: Pick<Waiting, 'required' | 'atLeast'> = {
  required: 0,
  atLeast: { unevenness: 0, slackMillimetres: 0 },
};

/** One question, as `searchFamily` is asked it. */
interface Question {
  readonly family: CableFamily;
  readonly cables: readonly KitCable[];
  readonly inlets: readonly LegToServe[];
  readonly room: Room;
  readonly allowShared: boolean;
  readonly extras: FamilyExtras;
  readonly mostSteps: number;
}

interface Best {
  readonly score: PlanScore;
  readonly cables: readonly UsedCable[];
  readonly open: readonly LegToServe[];
}

/** One search: the pieces as they are filled on the way down, and the best that was seen. */
class FamilySearch {
  best: Best | null = null;
  steps = 0;
  private readonly question: Question;
  private readonly waiting: readonly Waiting[];
  private readonly pieces: readonly Piece[];
  private readonly stocks: readonly Stock[];
  private readonly taken: { own: number; pairs: number };
  private freePlugs: number;
  private readonly open: LegToServe[] = [];

  constructor(question: Question) {
    const { cables, inlets, extras } = question;
    this.question = question;
    this.waiting = waitingOf(inlets, cables, extras.adapters);
    this.pieces = piecesOf(cables, extras.placed);
    this.stocks = extras.adapters.map((adapter) => ({ adapter, left: adapter.count }));
    this.taken = { ...roomTaken(this.pieces.filter(({ count }) => count > 0)) };
    this.freePlugs = this.pieces.reduce((sum, piece) => sum + piece.slots.length - piece.count, 0);
  }

  /** Is there a socket for each piece that something is placed on? */
  get isPossible(): boolean {
    return hasRoom(this.question.room, noRoom, this.taken);
  }

  run(): void {
    this.search(0, placedScore(this.question.family, this.pieces), -1);
  }

  holdsSocket(used: UsedCable): boolean {
    return this.pieces.some(
      ({ cable, copy, holdsSocket }) => holdsSocket && cable === used.cable && copy === used.copy,
    );
  }

  private search(depth: number, score: PlanScore, lastNumber: number): void {
    if (this.isHopeless(depth, score) || this.isSpent()) return;
    this.steps += 1;
    const next = this.waiting[depth];
    if (next === undefined) {
      this.best = { score, open: [...this.open], cables: usedOf(this.pieces) };
      return;
    }
    this.tryPlugs(depth, next, score, lastNumber);
    if (next.inlet.leg !== undefined) return;
    this.open.push(next.inlet);
    this.search(depth + 1, addScores(score, leftOpen(next.inlet)), Number.MAX_SAFE_INTEGER);
    this.open.pop();
  }

  /** With nothing found yet the first way down is gone to its end; legs that nothing serves are not tried for ever. */
  private isSpent(): boolean {
    const most = this.question.mostSteps;
    return this.steps > most && (this.best !== null || this.steps > 4 * most + hardlyAnySteps);
  }

  /**
   * Is nothing that follows from here better than the best? What is still to come costs at least what it costs alone.
   */
  private isHopeless(depth: number, score: PlanScore): boolean {
    if (this.best === null) return false;
    const { required, atLeast } = this.waiting[depth] ?? nothingToCome;
    if (score.openRequired + Math.max(0, required - this.freePlugs) > this.best.score.openRequired) return true;
    const least = {
      ...score,
      unevenness: score.unevenness + atLeast.unevenness,
      slackMillimetres: score.slackMillimetres + atLeast.slackMillimetres,
    };
    return compareScores(least, this.best.score) >= 0;
  }

  /** Tries every plug for the next inlet, in order: the first way down fills one cable after the other. */
  private tryPlugs(depth: number, next: Waiting, score: PlanScore, lastNumber: number): void {
    const from = next.isAlike ? lastNumber + 1 : 0;
    let number = 0;
    let before: Piece | undefined;
    for (const piece of this.pieces) {
      const isTwinUnused = piece.count === 0 && piece.copy > 0 && before?.count === 0;
      before = piece;
      if (isTwinUnused || !this.takesMore(piece, next.inlet)) {
        number += piece.slots.length;
        continue;
      }
      for (const slot of piece.slots) {
        if (number >= from && slot.inlet === null) this.tryWays(depth, next.inlet, score, { piece, slot, number });
        number += 1;
      }
    }
  }

  private takesMore(piece: Piece, inlet: LegToServe): boolean {
    const { family, room, allowShared } = this.question;
    if (piece.count === 0 && !hasRoom(room, this.taken, roomFor(piece.cable))) return false;
    return strongEnough(piece.cable, inlet) && carries(family, piece, inlet, allowShared);
  }

  /** Tries a plug for an inlet by itself, then through each adapter that goes between the two. */
  private tryWays(depth: number, inlet: LegToServe, score: PlanScore, place: Place): void {
    const { kind } = place.slot.plug;
    if (servesInlet(kind, place.piece.cable, inlet)) this.tryPlug(depth, inlet, score, place, null);
    if (inlet.leg !== undefined || isPair(inlet)) return;
    for (const stock of this.stocks)
      if (stock.left > 0 && plugServes(kind, stock.adapter.takes) && adapterServes(stock.adapter, inlet))
        this.tryPlug(depth, inlet, score, place, stock);
  }

  /** Puts the inlet on this plug where that reaches, goes on from there, and takes it off again. */
  private tryPlug(depth: number, inlet: LegToServe, score: PlanScore, place: Place, stock: Stock | null): void {
    const { piece, slot } = place;
    const adds = stock?.adapter.addsMillimetres ?? 0;
    if (slot.plug.millimetres + adds < inlet.reachMillimetres || !spaced(piece, slot, inlet, adds)) return;
    const before = { carried: piece.carried, overload: piece.overload };
    const isFresh = piece.count === 0;
    const asked = isFresh ? roomFor(piece.cable) : noRoom;
    put(piece, slot, inlet, stock?.adapter ?? null);
    this.freePlugs -= 1;
    if (stock !== null) stock.left -= 1;
    this.taken.own += asked.own;
    this.taken.pairs += asked.pairs;
    this.search(depth + 1, this.scoreWith(score, place, inlet, before, isFresh), place.number);
    this.taken.own -= asked.own;
    this.taken.pairs -= asked.pairs;
    if (stock !== null) stock.left += 1;
    takeOff(piece, slot);
    this.freePlugs += 1;
  }

  /** The score with one inlet more on a piece, as it stands now and as it was before. */
  private scoreWith(
    score: PlanScore,
    { piece, slot }: Place,
    inlet: LegToServe,
    before: Pick<Piece, 'carried' | 'overload'>,
    isFresh: boolean,
  ): PlanScore {
    const { family } = this.question;
    const { cable, carried, overload } = piece;
    const millimetres = slot.plug.millimetres + (slot.adapter?.addsMillimetres ?? 0);
    return {
      openRequired: score.openRequired,
      openLarger: score.openLarger,
      overloaded: score.overloaded + overload - before.overload,
      openOptional: score.openOptional,
      sharing: score.sharing + (isGraphics(family) && !isFresh ? 1 : 0),
      foreign: score.foreign + (isFresh && cable.spare === true ? 1 : 0) + (slot.adapter === null ? 0 : 1),
      cables: score.cables + (isFresh && !spreadsFreely(family, cable) ? 1 : 0),
      unevenness: score.unevenness + loadOf(carried) ** 2 - loadOf(before.carried) ** 2,
      slackMillimetres: score.slackMillimetres + slackOf(inlet, millimetres),
    };
  }
}

/**
 * The exact best way to serve one family's inlets with cables for which there is room, by depth-first search with a
 * bound: legs of adapters first, then required inlets, inlets alike take plugs in rising order,
 * pieces alike are opened in order.
 * @returns null when a leg cannot be served, or what is placed needs more sockets than there are
 */
export function searchFamily(
  family: CableFamily,
  cables: readonly KitCable[],
  inlets: readonly LegToServe[],
  room: Room,
  allowShared: boolean,
  extras: FamilyExtras = noExtras,
  budget: Budget = newBudget(),
): FamilyPlan | null {
  const most = Math.max(0, Math.min(mostSteps, budget.left));
  const search = new FamilySearch({ family, cables, inlets, room, allowShared, extras, mostSteps: most });
  if (!search.isPossible) return null;
  search.run();
  budget.left -= search.steps;
  const { best } = search;
  if (best === null) return null;
  return {
    cables: best.cables,
    taken: roomTaken(best.cables.map((used) => ({ cable: used.cable, holdsSocket: search.holdsSocket(used) }))),
    score: best.score,
    proved: search.steps <= most,
    open: best.open.flatMap((inlet) => openOf(cables, inlet, room)),
  };
}
