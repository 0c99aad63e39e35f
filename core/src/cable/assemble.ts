import { boundToBe } from '../bound-to-be.ts';
import { socketTakes } from '../standards/index.ts';
import type { CableKit, InletToServe, KitCable, Socket } from './kit.ts';
import { inletsBehind } from './pairs.ts';
import { isGraphics } from './carried.ts';
import { pieceKey, type Settled } from './pins.ts';
import { leftOpen, type FamilyPlan, type ServedPlug, type UsedCable } from './plan-family.ts';
import type { Assignment, CablePlan, PlannedCable } from './plan.ts';
import { addScores, type PlanScore } from './score.ts';
import { endFamily, endsAtSupply, socketsForAll, socketsLabel, socketsNamed } from './supply-ends.ts';

/** Takes the first free socket for an end of a cable, one that takes nothing else before one that takes several. */
function takeSocket(free: Socket[], cable: KitCable): Socket {
  const fitting = free.filter((socket) => socketTakes(socket.kind, endFamily(cable)));
  const found = boundToBe(fitting.find((socket) => socket.kind !== 'cpu-card') ?? fitting[0], `socket for ${cable.id}`);
  free.splice(free.indexOf(found), 1);
  return found;
}

/** Gives each piece its sockets: those that a hand put it into, the one that is its own, or the next that are free. */
function socketsGiver(kit: CableKit, settled: Settled): (used: UsedCable) => readonly Socket[] {
  const held = new Set([...settled.sockets.values()].flat());
  const free = socketsForAll(kit).filter((socket) => !held.has(socket));
  return ({ cable, copy }) =>
    settled.sockets.get(pieceKey(cable.id, copy)) ??
    (cable.onlySocket === undefined
      ? Array.from({ length: endsAtSupply(cable) }, () => takeSocket(free, cable))
      : boundToBe(socketsNamed(kit, cable.onlySocket), `socket ${cable.onlySocket}`));
}

/** A used piece with its code and socket. */
interface Coded {
  readonly used: UsedCable;
  readonly code: string;
  readonly socketLabel: string | null;
}

/** The pieces of all families with their codes, in each by the order of the inlets, so that wires cross little. */
function codedPieces(
  kit: CableKit,
  chosen: readonly FamilyPlan[],
  settled: Settled,
  placeOf: (inletId: string) => number,
): readonly Coded[] {
  const socketsOf = socketsGiver(kit, settled);
  const firstInlet = ({ plugs }: UsedCable) =>
    Math.min(...plugs.flatMap(({ inlet }) => inletsBehind(inlet)).map(({ id }) => placeOf(id)));
  return chosen
    .flatMap((plan) => [...plan.cables].sort((a, b) => firstInlet(a) - firstInlet(b)))
    .map((used, index) => {
      const sockets = socketsOf(used);
      return {
        used,
        code: `C${String(index + 1).padStart(2, '0')}`,
        socketLabel: sockets.length === 0 ? null : socketsLabel(sockets),
      };
    });
}

function plannedCable({ used, code, socketLabel }: Coded, misplaced: ReadonlySet<string>): PlannedCable {
  const { cable, copy, plugs } = used;
  const served = plugs.filter(({ inlet }) => !misplaced.has(inlet.id));
  return {
    code,
    kitCableId: cable.id,
    copy,
    family: cable.family,
    socketLabel,
    spare: cable.spare === true,
    amps12: served.reduce((sum, { inlet }) => sum + inlet.amps12, 0),
    inletIds: plugs.flatMap(({ inlet }) => inletsBehind(inlet)).map(({ id }) => id),
  };
}

const plugAt = ({ id, plugs }: KitCable, index: number) => boundToBe(plugs[index], `plug ${index} of ${id}`);

/** One plug that serves: once for each inlet behind it. */
function assignmentsOf(
  { used, code, socketLabel }: Coded,
  { inlet, adapter, plugIndex }: ServedPlug,
  pinned: ReadonlySet<string>,
): readonly Assignment[] {
  const { cable, copy } = used;
  const plug = plugAt(cable, plugIndex);
  return inletsBehind(inlet).map((one) => ({
    inletId: one.id,
    cableCode: code,
    kitCableId: cable.id,
    copy,
    socketLabel,
    plugIndex,
    plugKind: plug.kind,
    adapterId: inlet.leg?.adapterId ?? adapter?.id ?? null,
    slackMillimetres: plug.millimetres + (adapter?.addsMillimetres ?? 0) - one.reachMillimetres,
    pinned: pinned.has(one.id),
  }));
}

/** A plug that a hand put into the wrong inlet. */
function wrongAt({ used, code, socketLabel }: Coded, { inlet, plugIndex }: ServedPlug): CablePlan['wrong'][number] {
  return { inletId: inlet.id, cableCode: code, socketLabel, plugIndex, plugKind: plugAt(used.cable, plugIndex).kind };
}

/** What of the kit stays in the bag. */
function baggedOf(kit: CableKit, pieces: readonly Coded[]): CablePlan['bagged'] {
  return kit.cables
    .filter((cable) => !cable.fixed && cable.spare !== true)
    .map(({ id, count }) => ({
      kitCableId: id,
      count: count - pieces.filter(({ used }) => used.cable.id === id).length,
    }))
    .filter(({ count }) => count > 0);
}

/** The plan that the families' plans make together: codes, sockets, and what stays open or in the bag. */
export function assemble(
  kit: CableKit,
  inlets: readonly InletToServe[],
  chosen: readonly FamilyPlan[],
  score: PlanScore,
  settled: Settled,
): CablePlan {
  const place = new Map(inlets.map(({ id }, index) => [id, index]));
  const placeOf = (inletId: string) => boundToBe(place.get(inletId), `inlet ${inletId}`);
  const inOrder = <T extends { readonly inletId: string }>(list: readonly T[]): readonly T[] =>
    [...list].sort((a, b) => placeOf(a.inletId) - placeOf(b.inletId));
  const misplaced = new Set(settled.misplaced.map(({ inlet }) => inlet.id));
  const pinned = new Set(settled.placed.map(({ inlet }) => inlet.id));
  const pieces = codedPieces(kit, chosen, settled, placeOf);
  const plugs = pieces.flatMap((piece) => piece.used.plugs.map((served) => ({ piece, served })));
  const isWrong = ({ served }: (typeof plugs)[number]) => misplaced.has(served.inlet.id);
  return {
    assignments: inOrder(
      plugs.filter((one) => !isWrong(one)).flatMap(({ piece, served }) => assignmentsOf(piece, served, pinned)),
    ),
    cables: pieces.map((piece) => plannedCable(piece, misplaced)),
    open: inOrder(chosen.flatMap((plan) => plan.open)),
    wrong: plugs.filter(isWrong).map(({ piece, served }) => wrongAt(piece, served)),
    refused: settled.refused,
    bagged: baggedOf(kit, pieces),
    sharedCables: pieces.filter(({ used }) => isGraphics(used.cable.family) && used.plugs.length > 1).length,
    // What a hand put into the wrong inlet serves nobody.
    score: settled.misplaced.reduce((sum, { inlet }) => addScores(sum, leftOpen(inlet)), score),
    proved: chosen.every((plan) => plan.proved),
  };
}
