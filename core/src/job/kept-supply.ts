import { inletFamily, type CableFamily } from '../standards/index.ts';
import {
  faceOfPlug,
  planCables,
  plugFits,
  socketsLabel,
  socketsNamed,
  socketsTake,
  type Assignment,
  type CableKit,
  type CablePlan,
  type InletToServe,
  type KitCable,
  type Pin,
  type PlanRules,
} from '../cable/index.ts';
import type { SupplyModel } from '../supply/index.ts';
import type { Job, RecordedCable } from './job.ts';

/** The supply of the shop's list that the present one is: of the same name and rating; null where none is. */
export function presentModel(job: Pick<Job, 'supply'>, supplies: readonly SupplyModel[]): SupplyModel | null {
  const { supply } = job;
  if (supply === null) return null;
  const plain = (name: string) => name.trim().replace(/\s+/g, ' ').toLowerCase();
  return (
    supplies.find(
      (model) => plain(model.name) === plain(supply.name) && model.label.ratingWatts === supply.label.ratingWatts,
    ) ?? null
  );
}

/** A recorded cable found again among the pieces of the kit, with the inlets that it goes on serving. */
interface FoundPiece {
  readonly label: string;
  readonly key: string;
  readonly pins: readonly Pin[];
}

const keyOf = ({ kitCableId, copy }: Pick<Pin, 'kitCableId' | 'copy'>) => `${kitCableId} ${copy}`;

/** The family that a recorded cable belongs to, by its first plug; null without one. */
export function familyOf({ plugs }: Pick<RecordedCable, 'plugs'>): CableFamily | null {
  return plugs.length === 0 ? null : inletFamily(faceOfPlug[plugs[0]!.kind]);
}

/** Plugs of a kit's cable for the inlets that a recorded one serves, each for itself; null where it lacks one. */
function plugsFor(cable: KitCable, recorded: RecordedCable, inlets: ReadonlyMap<string, InletToServe>) {
  const taken: { readonly inletId: string; readonly plugIndex: number }[] = [];
  for (const { inletId, through } of recorded.plugs) {
    const inlet = inletId === null ? undefined : inlets.get(inletId);
    // What goes through an adapter is no plug of the kit for this inlet.
    if (inlet === undefined || through !== undefined) continue;
    const plugIndex = cable.plugs.findIndex(
      (plug, index) => plugFits(plug.kind, cable, inlet) && !taken.some((one) => one.plugIndex === index),
    );
    if (plugIndex < 0) return null;
    taken.push({ inletId: inlet.id, plugIndex });
  }
  return taken;
}

/**
 * The recorded cables as pieces of the supply's kit, where one is like them: of the same family, fixed or not, with a
 * plug for each inlet that stays. A cable whose device leaves is free for another, under its own label. What is not
 * found again is left out, and its inlets are planned anew.
 */
function foundPieces(kit: CableKit, recorded: readonly RecordedCable[], inlets: readonly InletToServe[]): FoundPiece[] {
  const byId = new Map(inlets.map((inlet) => [inlet.id, inlet]));
  const used = new Map<string, number>();
  return recorded.flatMap((cable): FoundPiece[] => {
    const family = familyOf(cable);
    const sockets = socketsNamed(kit, cable.socketLabel);
    const fits = (piece: KitCable) => sockets !== null && socketsTake(sockets, piece);
    // What goes into the sockets that were recorded comes before what is only like it.
    for (const piece of [...kit.cables].sort((a, b) => Number(fits(b)) - Number(fits(a)))) {
      const copy = used.get(piece.id) ?? 0;
      if (piece.family !== family || piece.fixed !== (cable.socketLabel === '') || copy >= piece.count) continue;
      const taken = plugsFor(piece, cable, byId);
      if (taken === null) continue;
      used.set(piece.id, copy + 1);
      const socketLabel = sockets !== null && fits(piece) ? socketsLabel(sockets) : null;
      const key = keyOf({ kitCableId: piece.id, copy });
      return [
        { label: cable.label, key, pins: taken.map((one) => ({ ...one, kitCableId: piece.id, copy, socketLabel })) },
      ];
    }
    return [];
  });
}

/** Where the cables of inlets come from that the record does not serve, when the supply is kept. */
export interface KeptPlan {
  readonly plan: CablePlan;
  /** The assignments of those inlets, with the name of the cable: a recorded one's label, or N1, N2 for new ones. */
  readonly added: readonly (Assignment & { readonly cableCode: string })[];
}

/**
 * Plans cables for what the record leaves open, around what is recorded. @param open ids of the inlets it leaves open
 */
export function keptPlan(
  recorded: readonly RecordedCable[],
  kit: CableKit,
  rules: PlanRules,
  inlets: readonly InletToServe[],
  open: ReadonlySet<string>,
): KeptPlan {
  const pieces = foundPieces(kit, recorded, inlets);
  const plan = planCables(kit, inlets, { ...rules, pins: pieces.flatMap((piece) => piece.pins) });
  const labels = new Map(pieces.map(({ key, label }) => [key, label]));
  const fresh = new Map<string, string>();
  const nameOf = (key: string) => {
    const name = labels.get(key) ?? fresh.get(key) ?? `N${fresh.size + 1}`;
    if (!labels.has(key)) fresh.set(key, name);
    return name;
  };
  const added = plan.assignments
    .filter((item) => open.has(item.inletId))
    .map((item) => ({ ...item, cableCode: nameOf(keyOf(item)) }));
  return { plan, added };
}
