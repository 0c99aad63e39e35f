import { limits, plugServes, type CableFamily } from '../standards/index.ts';
import type { InletToServe, KitCable } from './kit.ts';
import type { OpenInlet, OpenReason } from './plan.ts';
import { compareScores, noScore, type PlanScore } from './score.ts';

/** One piece of the kit and the inlets on its plugs. */
export interface UsedCable {
  readonly cable: KitCable;
  readonly plugs: readonly { readonly plugIndex: number; readonly inlet: InletToServe }[];
}

export interface FamilyPlan {
  readonly cables: readonly UsedCable[];
  readonly open: readonly OpenInlet[];
  readonly modularUsed: number;
  readonly score: PlanScore;
}

interface Piece {
  readonly cable: KitCable;
  /** Index among the pieces of the same cable, for breaking symmetry. */
  readonly copy: number;
  readonly taken: (InletToServe | null)[];
  amps12: number;
  amps5: number;
  amps33: number;
  count: number;
}

/** Sums of tenths may come out a hair above a limit that they meet exactly. */
const rounding = 1e-9;

const perVoltage = ['amps12', 'amps5', 'amps33'] as const;

/** May this inlet join what already hangs on the piece? */
function carries(family: CableFamily, piece: Piece, inlet: InletToServe, allowShared: boolean): boolean {
  if (piece.count === 0) return true;
  switch (family) {
    case 'main': return false;
    case 'cpu': return true;
    case 'card': case 'card-16': return allowShared && (piece.amps12 + inlet.amps12) * 12 <= limits.sharedCardCableWatts + rounding;
    case 'drive': return perVoltage.every((key) => piece[key] + inlet[key] <= limits.driveChainAmps + rounding);
  }
}

function load(piece: Piece): number {
  return piece.amps12 + piece.amps5 + piece.amps33;
}

function signature(inlet: InletToServe): string {
  return [inlet.kind, inlet.optional, inlet.reachMillimetres, inlet.amps12, inlet.amps5, inlet.amps33].join('|');
}

function whyOpen(cables: readonly KitCable[], inlet: InletToServe, sockets: number): OpenReason {
  const fitting = cables.flatMap((cable) => cable.plugs.filter((plug) => plugServes(plug.kind, inlet.kind)).map((plug) => ({ cable, plug })));
  if (fitting.length === 0) return 'no-such-plug';
  const reaching = fitting.filter(({ plug }) => plug.millimetres >= inlet.reachMillimetres);
  if (reaching.length === 0) return 'too-short';
  return reaching.every(({ cable }) => !cable.fixed) && sockets === 0 ? 'no-socket' : 'no-free-plug';
}

/**
 * The exact best way to serve one family's inlets with at most `sockets` modular cables, by depth-first search with a
 * bound: required inlets first, inlets alike take plugs in rising order, pieces alike are opened in order.
 */
export function planFamily(family: CableFamily, cables: readonly KitCable[], inlets: readonly InletToServe[], sockets: number, allowShared: boolean): FamilyPlan {
  const queue = [...inlets].sort((a, b) => Number(a.optional) - Number(b.optional) || b.reachMillimetres - a.reachMillimetres || signature(a).localeCompare(signature(b)));
  const pieces: Piece[] = cables.flatMap((cable) => Array.from({ length: cable.count }, (_, copy): Piece => ({ cable, copy, taken: cable.plugs.map(() => null), amps12: 0, amps5: 0, amps33: 0, count: 0 })));
  const graphics = family === 'card' || family === 'card-16';
  let best: { score: PlanScore; cables: UsedCable[]; open: InletToServe[] } | null = null;
  const open: InletToServe[] = [];
  let modular = 0;

  function snapshot(score: PlanScore): void {
    best = { score, open: [...open], cables: pieces.filter((piece) => piece.count > 0).map((piece) => ({ cable: piece.cable, plugs: piece.taken.flatMap((inlet, plugIndex) => (inlet ? [{ plugIndex, inlet }] : [])) })) };
  }

  function search(depth: number, score: PlanScore, lastSlot: number): void {
    if (best !== null && compareScores(score, best.score) >= 0) return;
    const inlet = queue[depth];
    if (inlet === undefined) { snapshot(score); return; }
    const alike = depth > 0 && signature(queue[depth - 1]!) === signature(inlet);
    const from = alike ? lastSlot + 1 : 0;
    let slot = 0;
    for (let index = 0; index < pieces.length; index += 1) {
      const piece = pieces[index]!;
      const fresh = piece.count === 0;
      const twinUnused = fresh && piece.copy > 0 && pieces[index - 1]!.count === 0;
      const blocked = twinUnused || (fresh && !piece.cable.fixed && modular >= sockets) || !carries(family, piece, inlet, allowShared);
      for (let plug = 0; plug < piece.taken.length; plug += 1, slot += 1) {
        if (blocked || slot < from || piece.taken[plug] !== null) continue;
        const { kind, millimetres } = piece.cable.plugs[plug]!;
        if (!plugServes(kind, inlet.kind) || millimetres < inlet.reachMillimetres) continue;
        const before = load(piece);
        const added = inlet.amps12 + inlet.amps5 + inlet.amps33;
        piece.taken[plug] = inlet; piece.count += 1; piece.amps12 += inlet.amps12; piece.amps5 += inlet.amps5; piece.amps33 += inlet.amps33;
        if (fresh && !piece.cable.fixed) modular += 1;
        search(depth + 1, {
          ...score,
          sharing: score.sharing + (graphics && !fresh ? 1 : 0),
          cables: score.cables + (fresh ? 1 : 0),
          unevenness: score.unevenness + (before + added) ** 2 - before ** 2,
          slackMillimetres: score.slackMillimetres + millimetres - inlet.reachMillimetres,
        }, slot);
        if (fresh && !piece.cable.fixed) modular -= 1;
        piece.taken[plug] = null; piece.count -= 1; piece.amps12 -= inlet.amps12; piece.amps5 -= inlet.amps5; piece.amps33 -= inlet.amps33;
      }
    }
    open.push(inlet);
    search(depth + 1, inlet.optional ? { ...score, openOptional: score.openOptional + 1 } : { ...score, openRequired: score.openRequired + 1 }, Number.MAX_SAFE_INTEGER);
    open.pop();
  }

  search(0, noScore, -1);
  const found = best as { score: PlanScore; cables: UsedCable[]; open: InletToServe[] } | null;
  if (found === null) throw new Error('the search ended without a plan');
  const modularUsed = found.cables.filter((used) => !used.cable.fixed).length;
  return {
    cables: found.cables, modularUsed, score: found.score,
    open: found.open.map((inlet) => ({ inletId: inlet.id, optional: inlet.optional, reason: whyOpen(cables, inlet, sockets) })),
  };
}
