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

/** A socket, then each inlet that its cable goes to; an inlet without a socket is that of a fixed cable. */
export function usePointing(): Pointing {
  const { job, shop, act, locked } = useDesk();
  const [inHand, setInHand] = useState<string | null>(null);
  const [socket, setSocket] = useState('');
  const [named, setNamed] = useState<readonly string[]>([]);
  const [told, setTold] = useState<string | null>(null);
  // A cable that takes two sockets, while the second of them is still to be pressed.
  const [halfWay, setHalfWay] = useState<string | null>(null);
  const [picked, setPicked] = useState<string | null>(null);
  // The guide leads here with the plug that it named.
  const [params, setParams] = useSearchParams();
  const plug = plugKinds.find((kind) => kind === params.get('plug')) ?? null;
  const inlets = partsAt(job.parts, 'present').flatMap((part) => part.inlets);
  const left = inlets.filter(({ id }) => cableAt(job.cables, id) === null);
  const kit = presentModel(job, shop.supplies)?.kit ?? null;
  const cable = job.cables.find(({ id }) => id === inHand) ?? null;
  const sockets = drawnSockets(job.cables, kit, named);

  const put = (changed: RecordedCable) => {
    // Whoever changes it has looked at it.
    const { version, likely: _likely, ...rest } = changed;
    return act({ kind: 'put-cable', cable: rest, basedOn: version }) === null;
  };
  function take(key: string): void {
    setTold(null);
    setPicked(null);
    setHalfWay(null);
    const both = `${socket} + ${key}`;
    if (
      cable !== null &&
      cable.id === halfWay &&
      freePairs(cable.plugs.map(({ kind }) => faceOfPlug[kind])).includes(both)
    ) {
      if (put({ ...cable, socketLabel: both })) setSocket(both);
      return;
    }
    const there = job.cables.find((one) => keysOf(one, kit).includes(key));
    setInHand(there?.id ?? null);
    setSocket(there?.socketLabel ?? key);
  }
  function next(): void {
    setInHand(null);
    setSocket('');
    setHalfWay(null);
    setTold(null);
    setPicked(null);
  }
  /** Pairs of the socket in hand and another one from which no recorded cable comes. */
  function freePairs(kinds: readonly InletKind[]): readonly string[] {
    const used = new Set(job.cables.filter(({ id }) => id !== inHand).flatMap((one) => keysOf(one, kit)));
    return pairsWith(kit, socket, kinds).filter((name) => !endsNamed(kit, name).some((label) => used.has(label)));
  }
  /** A new cable out of the socket in hand to an inlet; out of two where it has two ends and only one other is left. */
  function record(inlet: Inlet): void {
    const pairs = freePairs([inlet.kind]);
    const two = pairs.length > 0 && takesTwo(kit, socket, inlet.kind);
    const from = two && pairs.length === 1 ? pairs[0]! : socket;
    const id = crypto.randomUUID();
    const made = newCable(job, id, from, inlet);
    const asNamed = plug === null ? made : { ...made, plugs: [{ kind: plug, inletId: inlet.id }] };
    if (act({ kind: 'put-cable', cable: asNamed, basedOn: 0 }) !== null) return;
    setInHand(id);
    setSocket(from);
    if (two && from === socket) {
      setHalfWay(id);
      setTold(`The cable to ${inlet.label} takes two sockets of this supply: press the second one.`);
    }
    if (plug !== null) forget();
  }
  function press(inlet: Inlet): void {
    setTold(null);
    setHalfWay(null);
    const own = cableAt(job.cables, inlet.id);
    if (own !== null) {
      setInHand(own.id);
      setSocket(own.socketLabel);
      setPicked(inlet.id);
      return;
    }
    if (locked) return;
    setPicked(null);
    if (plug !== null && !plugServes(plug, inlet.kind)) {
      setTold(`A plug “${plugName[plug]}” does not go into ${inlet.label}.`);
      return;
    }
    if (socketAccepts(kit, socket, inlet.kind) === false && freePairs([inlet.kind]).length === 0) {
      setTold(`Socket ${socket} of this supply takes no cable to ${inlet.label}.`);
      return;
    }
    const goes = cable === null ? 'another' : pointedAt(cable, inlet);
    if (cable !== null && goes === 'no') {
      setTold(`Cable ${cable.label} from ${socket} does not go to ${inlet.label} as well: pick that one's socket.`);
      return;
    }
    if (cable !== null && goes === 'more') {
      put(withInlet(cable, inlet));
      return;
    }
    record(inlet);
  }
  /** What the guide named is recorded, or was passed over. */
  function forget(): void {
    const rest = new URLSearchParams(params);
    rest.delete('plug');
    setParams(rest, { replace: true });
  }
  function exchange(from: string, to: string): void {
    const own = cableAt(job.cables, from);
    if (own === null || locked) return;
    act({
      kind: 'swap-inlets',
      cableId: own.id,
      otherCableId: cableAt(job.cables, to)?.id ?? null,
      inletId: from,
      otherInletId: to,
      basedOn: own.version,
    });
    setPicked(to);
  }
  function nameSocket(label: string): void {
    if (!sockets.some(({ key }) => key === label)) setNamed([...named, label]);
    take(label);
  }
  return {
    inlets,
    left,
    sockets,
    cable,
    socket,
    currentSockets: cable === null ? [socket] : keysOf(cable, kit),
    secondEnds: cable === null || kit === null ? [] : secondEndsOf(cable, kit),
    picked,
    plug,
    told,
    press,
    take,
    nameSocket,
    put,
    exchange,
    next,
    forget,
  };
}
