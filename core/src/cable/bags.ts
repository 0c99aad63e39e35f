import type { CableFamily, Gauge, PlugKind, SocketSignal } from '../standards/index.ts';
import type { ProbedCode } from '../measure/index.ts';
import {
  countedWatts,
  crossingOf,
  wiredCode,
  worstCrossing,
  type Crossing,
  type SocketPinout,
  type WireEnd,
} from './crossing.ts';
import type { Adapter, CodedWatts, KitCable } from './kit.ts';
import { adapterRefusal } from './adapters.ts';
import { endFamily } from './supply-ends.ts';

/** What the sockets of a kind of supply give, pin by pin, and which supplies have them. */
export interface Pinout {
  readonly id: string;
  readonly version: number;
  readonly name: string;
  readonly sockets: readonly { readonly family: CableFamily; readonly pins: readonly (SocketSignal | null)[] }[];
  readonly supplies: readonly string[];
}

/** A spare modular cable with its plugs and, as far as somebody looked, its wires. */
export interface BagCable {
  readonly id: string;
  readonly version: number;
  readonly label: string;
  readonly place: string;
  readonly family: CableFamily;
  readonly cameWith: string;
  readonly note: string;
  /** Null where nobody read it off the wire; it is then reckoned as the thinnest. */
  readonly gauge: Gauge | null;
  /**
   * Its end at the supply is two plugs: of a main cable for both main sockets, of a 16-pin one for two card sockets.
   */
  readonly twoEnded: boolean;
  /** Of a 16-pin cable, the watts printed on it; null where nobody read them. */
  readonly codedWatts: CodedWatts | null;
  readonly plugs: readonly {
    readonly kind: PlugKind;
    /** Null where nobody measured it: no plan uses the cable before. */
    readonly millimetres: number | null;
    readonly ends: readonly WireEnd[];
  }[];
}

/** Somebody probed this cable on this kind of supply, and it showed what it must. */
export interface CableProof {
  readonly cableId: string;
  readonly modelId: string;
  readonly by: string;
  readonly at: string;
  readonly note: string;
}

/** An adapter or extension in a bag. */
export interface BagAdapter extends Adapter {
  readonly version: number;
  readonly label: string;
  readonly place: string;
}

export interface CableBags {
  readonly pinouts: readonly Pinout[];
  readonly cables: readonly BagCable[];
  readonly proofs: readonly CableProof[];
  readonly adapters: readonly BagAdapter[];
}
export const noBags: CableBags = { pinouts: [], cables: [], proofs: [], adapters: [] };

export interface SpareVerdict {
  readonly word: Crossing['word'];
  readonly crossings: readonly Crossing[];
  readonly pinout: SocketPinout | null;
  readonly proof: CableProof | null;
  /** What the contacts of a 16-pin cable code for the card; null for another cable, and where it is not known. */
  readonly code: ProbedCode | null;
}

/**
 * What the supply gives at the end of such a cable, pin by pin. The pins of the second plug of a 16-pin cable with two
 * ends are counted on from the first one's; a pinout of main sockets counts through all of them.
 */
function pinoutFor(bags: CableBags, cable: BagCable, modelId: string): SocketPinout | null {
  const end = endFamily({ ...cable, fixed: false });
  const sockets = bags.pinouts.find((one) => one.supplies.includes(modelId))?.sockets;
  const found = sockets?.find((socket) => socket.family === end) ?? null;
  return found === null || end === cable.family ? found : { pins: [...found.pins, ...found.pins] };
}

/**
 * May this cable go on this supply? What is not known but was proved by a probe is safe; what does harm is harmful
 * whatever was proved.
 */
export function spareVerdict(bags: CableBags, cable: BagCable, modelId: string): SpareVerdict {
  const pinout = pinoutFor(bags, cable, modelId);
  const crossings = cable.plugs.map((plug) => crossingOf(pinout, { plug: plug.kind, ends: plug.ends }));
  const proof = bags.proofs.find((one) => one.cableId === cable.id && one.modelId === modelId) ?? null;
  const word = worstCrossing(crossings);
  const code = crossings.map(wiredCode).find((one) => one !== null) ?? null;
  return { pinout, crossings, proof, code, word: proof !== null && word === 'unknown' ? 'safe' : word };
}

const sparePrefix = 'bag:';
/** The bag cable behind a planned cable's id; null for the supply's own. */
export function spareId(kitCableId: string): string | null {
  return kitCableId.startsWith(sparePrefix) ? kitCableId.slice(sparePrefix.length) : null;
}

/** The spare cables that are safe on this supply and were measured, as pieces that a plan may use. */
export function sparesFor(bags: CableBags, modelId: string): KitCable[] {
  return bags.cables
    .map((cable) => ({ cable, verdict: spareVerdict(bags, cable, modelId) }))
    .filter(({ verdict }) => verdict.word === 'safe')
    .flatMap(({ cable, verdict }): KitCable[] => {
      const watts = countedWatts(cable.codedWatts, verdict.code);
      const plugs = cable.plugs.flatMap(({ kind, millimetres }) => (millimetres === null ? [] : { kind, millimetres }));
      if (plugs.length < cable.plugs.length) return [];
      return [
        {
          id: `${sparePrefix}${cable.id}`,
          family: cable.family,
          fixed: false,
          count: 1,
          gauge: cable.gauge ?? 22,
          ...(cable.twoEnded ? { twoEnded: true } : {}),
          ...(watts === undefined ? {} : { codedWatts: watts }),
          plugs,
          spare: true,
        },
      ];
    });
}

/**
 * The safe spares of every supply that has some, by its id: only one whose pinout or proof somebody kept can have them.
 */
export function sparesBySupply(bags: CableBags): ReadonlyMap<string, readonly KitCable[]> {
  const known = new Set([
    ...bags.pinouts.flatMap((pinout) => pinout.supplies),
    ...bags.proofs.map((proof) => proof.modelId),
  ]);
  const found = [...known].map((modelId) => [modelId, sparesFor(bags, modelId)] as const);
  return new Map(found.filter(([, spares]) => spares.length > 0));
}

/** Spare cables with a plug for such inlets that nobody has proved on this supply yet: worth a probe. */
export function sparesToProbe(bags: CableBags, modelId: string, serves: (plug: PlugKind) => boolean): BagCable[] {
  return bags.cables.filter(
    (cable) => cable.plugs.some((plug) => serves(plug.kind)) && spareVerdict(bags, cable, modelId).word === 'unknown',
  );
}

/** The adapters in the bags that a plan may use. */
export function allowedAdapters(bags: CableBags): BagAdapter[] {
  return bags.adapters.filter((adapter) => adapter.count > 0 && adapterRefusal(adapter) === null);
}
