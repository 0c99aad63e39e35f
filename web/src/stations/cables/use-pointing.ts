import { useState } from 'react';
import { useSearchParams } from 'react-router';
import {
  cableAt,
  endsNamed,
  faceOfPlug,
  inletFamily,
  newCable,
  partsAt,
  plugKinds,
  plugName,
  plugServes,
  pointedAt,
  presentModel,
  socketAccepts,
  withInlet,
  type CableKit,
  type Inlet,
  type InletKind,
  type Job,
  type NewCable,
  type PlugKind,
  type RecordedCable,
} from '@fairwatt/core';
import type { DrawnSocket } from '../../drawings/harness-layout.ts';
import { useDesk } from '../../job/job-context.ts';

const fixedKey = (cable: Pick<RecordedCable, 'label'>) => `fixed ${cable.label}`;
/** The drawn sockets that a cable is in: one, both of one with two ends, or its own where it is fixed. */
const keysOf = (cable: RecordedCable, kit: CableKit | null): readonly string[] =>
  cable.socketLabel === '' ? [fixedKey(cable)] : endsNamed(kit, cable.socketLabel);

/** The fixed cables, then the supply's sockets as far as they are known, then those that were recorded. */
function drawnSockets(cables: readonly RecordedCable[], kit: CableKit | null, named: readonly string[]): DrawnSocket[] {
  const known = [...(kit?.sockets.map(({ label }) => label) ?? []), ...named];
  const recorded = cables.filter(({ socketLabel }) => socketLabel !== '').flatMap((cable) => keysOf(cable, kit));
  const labels = [...new Set([...known, ...recorded])];
  const used = new Set(recorded);
  return [
    ...cables
      .filter(({ socketLabel }) => socketLabel === '')
      .map((cable) => ({ key: fixedKey(cable), label: fixedKey(cable), used: true, plugged: false })),
    ...labels.map((label) => ({ key: label, label, used: used.has(label), plugged: false })),
  ];
}

/** The pairs of this socket and another one that a cable to such inlets, with two ends at the supply, could be in. */
function pairsWith(kit: CableKit | null, socket: string | undefined, kinds: readonly InletKind[]): readonly string[] {
  if (kit === null || socket === undefined || kinds.length === 0) return [];
  const pairs = kit.sockets.map(({ label }) => `${socket} + ${label}`);
  return pairs.filter((name) => kinds.every((kind) => socketAccepts(kit, name, kind) === true));
}

/** Do cables to such an inlet have two ends at this supply, as far as the shop's list knows its kit? */
function takesTwo(kit: CableKit | null, socket: string, kind: InletKind): boolean {
  const cables = kit?.cables.filter(({ family, fixed }) => !fixed && family === inletFamily(kind)) ?? [];
  return (
    socketAccepts(kit, socket, kind) === false || (cables.length > 0 && cables.every((one) => one.twoEnded === true))
  );
}

const secondEndsOf = (cable: RecordedCable, kit: CableKit): readonly string[] =>
  pairsWith(
    kit,
    cable.socketLabel === '' ? undefined : endsNamed(kit, cable.socketLabel)[0],
    cable.plugs.map(({ kind }) => faceOfPlug[kind]),
  );

/** What is pointed at while a harness is recorded, and what each press does. */
export interface Pointing {
  readonly inlets: readonly Inlet[];
  /** Inlets without a recorded cable. */
  readonly left: readonly Inlet[];
  readonly sockets: readonly DrawnSocket[];
  /** The cable in hand, and the socket that it is in or will be; empty for a fixed one. */
  readonly cable: RecordedCable | null;
  readonly socket: string;
  readonly currentSockets: readonly string[];
  /** Names of two sockets that the cable in hand could be in, where it may have two ends at the supply. */
  readonly secondEnds: readonly string[];
  /** The inlet of the cable in hand that was pressed last. */
  readonly picked: string | null;
  /** The plug that the guide named and that is to be recorded. */
  readonly plug: PlugKind | null;
  /** Why the last press did nothing. */
  readonly told: string | null;
  readonly press: (inlet: Inlet) => void;
  readonly take: (socketKey: string) => void;
  readonly nameSocket: (label: string) => void;
  readonly put: (cable: RecordedCable) => boolean;
  readonly exchange: (from: string, to: string) => void;
  readonly next: () => void;
  readonly forget: () => void;
}

/** What is in hand while a harness is recorded. */
interface Hand {
  readonly cableId: string | null;
  readonly socket: string;
  readonly picked: string | null;
  readonly told: string | null;
  /** A cable that takes two sockets, while the second of them is still to be pressed. */
  readonly halfWay: string | null;
}
const emptyHand: Hand = { cableId: null, socket: '', picked: null, told: null, halfWay: null };

/** What is known while something is pointed at. */
interface Ground {
  readonly job: Job;
  readonly kit: CableKit | null;
  readonly cable: RecordedCable | null;
  readonly plug: PlugKind | null;
  readonly hand: Hand;
}

/** Pairs of the socket in hand and another one from which no recorded cable comes. */
function freePairs({ job, kit, hand }: Ground, kinds: readonly InletKind[]): readonly string[] {
  const others = job.cables.filter(({ id }) => id !== hand.cableId);
  const used = new Set(others.flatMap((one) => keysOf(one, kit)));
  return pairsWith(kit, hand.socket, kinds).filter((name) => !endsNamed(kit, name).some((label) => used.has(label)));
}

/** The name of both sockets, where this one is the second of a cable that takes two. */
function bothSockets(ground: Ground, key: string): string | null {
  const { cable, hand } = ground;
  const both = `${hand.socket} + ${key}`;
  if (cable === null || cable.id !== hand.halfWay) return null;
  const kinds = cable.plugs.map(({ kind }) => faceOfPlug[kind]);
  return freePairs(ground, kinds).includes(both) ? both : null;
}

/** Why the cable in hand, or a new one out of the socket in hand, does not go to an inlet; null where it may. */
function refusalOf(ground: Ground, inlet: Inlet): string | null {
  const { kit, cable, plug, hand } = ground;
  if (plug !== null && !plugServes(plug, inlet.kind))
    return `A plug “${plugName[plug]}” does not go into ${inlet.label}.`;
  if (socketAccepts(kit, hand.socket, inlet.kind) === false && freePairs(ground, [inlet.kind]).length === 0)
    return `Socket ${hand.socket} of this supply takes no cable to ${inlet.label}.`;
  if (cable !== null && pointedAt(cable, inlet) === 'no')
    return `Cable ${cable.label} from ${hand.socket} does not go to ${inlet.label} as well: pick that one's socket.`;
  return null;
}

/** A new cable out of the socket in hand to an inlet; out of two where it has two ends and only one other is left. */
function madeFor(ground: Ground, inlet: Inlet): { readonly made: NewCable; readonly hand: Hand } {
  const { job, kit, plug } = ground;
  const { socket } = ground.hand;
  const [pair, ...more] = freePairs(ground, [inlet.kind]);
  const takesBoth = pair !== undefined && takesTwo(kit, socket, inlet.kind);
  const from = takesBoth && more.length === 0 ? pair : socket;
  const made = newCable(job, crypto.randomUUID(), from, inlet);
  const isHalfWay = takesBoth && from === socket;
  return {
    made: plug === null ? made : { ...made, plugs: [{ kind: plug, inletId: inlet.id }] },
    hand: {
      ...emptyHand,
      cableId: made.id,
      socket: from,
      halfWay: isHalfWay ? made.id : null,
      told: isHalfWay ? `The cable to ${inlet.label} takes two sockets of this supply: press the second one.` : null,
    },
  };
}

/** The plug that the guide named when it led here, until it is recorded or passed over. */
function useNamedPlug(): { readonly plug: PlugKind | null; readonly forget: () => void } {
  const [params, setParams] = useSearchParams();
  return {
    plug: plugKinds.find((kind) => kind === params.get('plug')) ?? null,
    forget: () => {
      const rest = new URLSearchParams(params);
      rest.delete('plug');
      setParams(rest, { replace: true });
    },
  };
}

/** What changes recorded cables. */
function useRecording() {
  const { job, act, locked } = useDesk();
  return {
    locked,
    begin: (cable: NewCable): boolean => act({ kind: 'put-cable', cable, basedOn: 0 }) === null,
    put: (changed: RecordedCable): boolean => {
      // Whoever changes it has looked at it.
      const { version, likely: _likely, ...cable } = changed;
      return act({ kind: 'put-cable', cable, basedOn: version }) === null;
    },
    /** Exchanges what is in two inlets. */
    swap: (from: string, to: string): boolean => {
      const own = cableAt(job.cables, from);
      if (own === null || locked) return false;
      const otherCableId = cableAt(job.cables, to)?.id ?? null;
      const swapped = { cableId: own.id, otherCableId, inletId: from, otherInletId: to };
      act({ kind: 'swap-inlets', ...swapped, basedOn: own.version });
      return true;
    },
  };
}

/** A socket, then each inlet that its cable goes to; an inlet without a socket is that of a fixed cable. */
export function usePointing(): Pointing {
  const { job, shop } = useDesk();
  const { locked, begin, put, swap } = useRecording();
  const [hand, setHand] = useState(emptyHand);
  const [named, setNamed] = useState<readonly string[]>([]);
  const { plug, forget } = useNamedPlug();
  const inlets = partsAt(job.parts, 'present').flatMap((part) => part.inlets);
  const kit = presentModel(job, shop.supplies)?.kit ?? null;
  const cable = job.cables.find(({ id }) => id === hand.cableId) ?? null;
  const sockets = drawnSockets(job.cables, kit, named);
  const ground: Ground = { job, kit, cable, plug, hand };

  function take(key: string): void {
    const both = bothSockets(ground, key);
    if (cable !== null && both !== null) {
      const socket = put({ ...cable, socketLabel: both }) ? both : hand.socket;
      setHand({ ...emptyHand, cableId: cable.id, socket });
      return;
    }
    const there = job.cables.find((one) => keysOf(one, kit).includes(key));
    setHand({ ...emptyHand, cableId: there?.id ?? null, socket: there?.socketLabel ?? key });
  }
  function press(inlet: Inlet): void {
    const own = cableAt(job.cables, inlet.id);
    if (own !== null) {
      setHand({ ...emptyHand, cableId: own.id, socket: own.socketLabel, picked: inlet.id });
      return;
    }
    if (locked) return;
    const told = refusalOf(ground, inlet);
    const isMore = told === null && cable !== null && pointedAt(cable, inlet) === 'more';
    if (told !== null || isMore) setHand({ ...emptyHand, cableId: hand.cableId, socket: hand.socket, told });
    if (told !== null) return;
    if (isMore) {
      put(withInlet(cable, inlet));
      return;
    }
    const { made, hand: next } = madeFor(ground, inlet);
    if (!begin(made)) return;
    setHand(next);
    if (plug !== null) forget();
  }
  function exchange(from: string, to: string): void {
    if (swap(from, to)) setHand({ ...hand, picked: to });
  }
  function nameSocket(label: string): void {
    if (!sockets.some(({ key }) => key === label)) setNamed([...named, label]);
    take(label);
  }
  return {
    inlets,
    left: inlets.filter(({ id }) => cableAt(job.cables, id) === null),
    sockets,
    cable,
    socket: hand.socket,
    currentSockets: cable === null ? [hand.socket] : keysOf(cable, kit),
    secondEnds: cable === null || kit === null ? [] : secondEndsOf(cable, kit),
    picked: hand.picked,
    plug,
    told: hand.told,
    press,
    take,
    nameSocket,
    put,
    exchange,
    next: () => setHand(emptyHand),
    forget,
  };
}
