import { boundToBe } from '../bound-to-be.ts';
import { inletFamily, plugServes, type CableFamily } from '../standards/index.ts';
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
  type KitPlug,
  type Pin,
  type PlanRules,
} from '../cable/index.ts';
import type { SupplyModel } from '../supply/index.ts';
import type { Job, RecordedCable, RecordedPlug } from './job.ts';

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

/** A plug of a recorded cable that stays in use: straight in its inlet, or by an adapter that may stay. */
interface UsedPlug {
  readonly plugIndex: number;
  readonly inletId: string;
  /** What an adapter between them asks of the plug; null without one. */
  readonly asked: InletToServe | null;
}

/** A recorded cable found again among the pieces of the kit, with what its plugs go on serving. */
interface FoundPiece {
  readonly label: string;
  readonly key: string;
  readonly pins: readonly Pin[];
  readonly plugs: readonly UsedPlug[];
}

const keyOf = ({ kitCableId, copy }: Pick<Pin, 'kitCableId' | 'copy'>) => `${kitCableId} ${copy}`;

/** The family that a recorded cable belongs to, by its first plug; null without one. */
export function familyOf({ plugs }: Pick<RecordedCable, 'plugs'>): CableFamily | null {
  return plugs[0] === undefined ? null : inletFamily(faceOfPlug[plugs[0].kind]);
}

/** What an adapter asks of the plug that it hangs on: an inlet after its face, with the leg's part of the load. */
function askedOfPlug(
  inlet: InletToServe,
  { kind, through }: RecordedPlug,
  cableId: string,
  plug: KitPlug,
): InletToServe {
  const legs = through?.legs ?? 1;
  return {
    ...inlet,
    id: `${inlet.id} by ${cableId}`,
    kind: faceOfPlug[kind],
    // How much the adapter adds nobody knows; it reaches, or it would not be there.
    reachMillimetres: Math.min(inlet.reachMillimetres, plug.millimetres),
    amps12: inlet.amps12 / legs,
    amps5: inlet.amps5 / legs,
    amps33: inlet.amps33 / legs,
  };
}

/**
 * Plugs of a kit's cable for what a recorded one goes on serving, each for itself; null where it lacks one.
 * @param open inlets that get a cable of their own: an adapter before them comes out
 */
function plugsFor(
  cable: KitCable,
  recorded: RecordedCable,
  inlets: ReadonlyMap<string, InletToServe>,
  open: ReadonlySet<string>,
): readonly UsedPlug[] | null {
  const used: UsedPlug[] = [];
  for (const plug of recorded.plugs) {
    const inlet = plug.inletId === null ? undefined : inlets.get(plug.inletId);
    const through = plug.through !== undefined;
    if (inlet === undefined || (through && open.has(inlet.id))) continue;
    const plugIndex = cable.plugs.findIndex(
      ({ kind }, index) =>
        (through ? plugServes(kind, faceOfPlug[plug.kind]) : plugFits(kind, cable, inlet)) &&
        !used.some((one) => one.plugIndex === index),
    );
    if (plugIndex < 0) return null;
    const asked = through
      ? askedOfPlug(inlet, plug, recorded.id, boundToBe(cable.plugs[plugIndex], 'such plug'))
      : null;
    used.push({ plugIndex, inletId: inlet.id, asked });
  }
  return used;
}

/**
 * The recorded cables as pieces of the supply's kit, where one is like them: of the same family, fixed or not, with a
 * plug for each inlet that stays. A cable whose device leaves is free for another, under its own label. What is not
 * found again is left out, and its inlets are planned anew.
 */
function foundPieces(
  kit: CableKit,
  recorded: readonly RecordedCable[],
  inlets: readonly InletToServe[],
  open: ReadonlySet<string>,
): FoundPiece[] {
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
      const taken = plugsFor(piece, cable, byId, open);
      if (taken === null) continue;
      used.set(piece.id, copy + 1);
      const where = {
        ...{ kitCableId: piece.id, copy },
        socketLabel: sockets !== null && fits(piece) ? socketsLabel(sockets) : null,
      };
      return [
        {
          label: cable.label,
          key: keyOf(where),
          pins: taken.map(({ plugIndex, inletId, asked }) => ({ ...where, plugIndex, inletId: asked?.id ?? inletId })),
          plugs: taken,
        },
      ];
    }
    return [];
  });
}

/** The inlets that the kit's plugs serve: what adapters ask of them stands for the inlets behind those. */
function askedOfKit(inlets: readonly InletToServe[], pieces: readonly FoundPiece[]): readonly InletToServe[] {
  const through = pieces.flatMap(({ plugs }) => plugs.filter(({ asked }) => asked !== null));
  if (through.length === 0) return inlets;
  const behind = new Set(through.map(({ inletId }) => inletId));
  return [...inlets.filter(({ id }) => !behind.has(id)), ...through.flatMap(({ asked }) => asked ?? [])];
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
  const pieces = foundPieces(kit, recorded, inlets, open);
  const pins = pieces.flatMap((piece) => piece.pins);
  const plan = planCables(kit, askedOfKit(inlets, pieces), { ...rules, pins });
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
