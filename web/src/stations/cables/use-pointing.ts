import { useState } from 'react';
import { useSearchParams } from 'react-router';
import {
  cableAt,
  newCable,
  partsAt,
  plugKinds,
  plugName,
  plugServes,
  pointedAt,
  presentModel,
  socketAccepts,
  withInlet,
  type Inlet,
  type PlugKind,
  type RecordedCable,
} from '@fairwatt/core';
import type { DrawnSocket } from '../../drawings/harness-drawing.tsx';
import { useDesk } from '../../job/job-context.ts';

const fixedKey = (cable: Pick<RecordedCable, 'label'>) => `fixed ${cable.label}`;
const keyOf = (cable: RecordedCable) => cable.socketLabel || fixedKey(cable);

/** The fixed cables, then the supply's sockets as far as they are known, then those that were recorded. */
function drawnSockets(cables: readonly RecordedCable[], known: readonly string[]): DrawnSocket[] {
  const recorded = cables.map(({ socketLabel }) => socketLabel).filter((label) => label !== '');
  const labels = [...new Set([...known, ...recorded])];
  const used = new Set(recorded);
  return [
    ...cables
      .filter(({ socketLabel }) => socketLabel === '')
      .map((cable) => ({ key: fixedKey(cable), label: fixedKey(cable), used: true, plugged: false })),
    ...labels.map((label) => ({ key: label, label, used: used.has(label), plugged: false })),
  ];
}

/** What is pointed at while a harness is recorded, and what each press does. */
export interface Pointing {
  readonly inlets: readonly Inlet[];
  /** Inlets without a recorded cable. */
  readonly left: readonly Inlet[];
  readonly sockets: readonly DrawnSocket[];
  /** The cable in hand, and the socket that it is in or will be; empty for a fixed one. */
  readonly cable: RecordedCable | null;
  readonly socket: string;
  readonly currentSocket: string;
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
  const [picked, setPicked] = useState<string | null>(null);
  // The guide leads here with the plug that it named.
  const [params, setParams] = useSearchParams();
  const plug = plugKinds.find((kind) => kind === params.get('plug')) ?? null;
  const inlets = partsAt(job.parts, 'present').flatMap((part) => part.inlets);
  const left = inlets.filter(({ id }) => cableAt(job.cables, id) === null);
  const kit = presentModel(job, shop.supplies)?.kit ?? null;
  const cable = job.cables.find(({ id }) => id === inHand) ?? null;
  const sockets = drawnSockets(job.cables, [...(kit?.sockets.map(({ label }) => label) ?? []), ...named]);

  const put = (changed: RecordedCable) => {
    // Whoever changes it has looked at it.
    const { version, likely: _likely, ...rest } = changed;
    return act({ kind: 'put-cable', cable: rest, basedOn: version }) === null;
  };
  function take(key: string): void {
    setTold(null);
    setPicked(null);
    const there = job.cables.find((one) => keyOf(one) === key);
    setInHand(there?.id ?? null);
    setSocket(there?.socketLabel ?? key);
  }
  function next(): void {
    setInHand(null);
    setSocket('');
    setTold(null);
    setPicked(null);
  }
  function press(inlet: Inlet): void {
    setTold(null);
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
    if (socketAccepts(kit, socket, inlet.kind) === false) {
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
    const id = crypto.randomUUID();
    const made = newCable(job, id, socket, inlet);
    const asNamed = plug === null ? made : { ...made, plugs: [{ kind: plug, inletId: inlet.id }] };
    if (act({ kind: 'put-cable', cable: asNamed, basedOn: 0 }) !== null) return;
    setInHand(id);
    if (plug !== null) forget();
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
    currentSocket: cable === null ? socket : keyOf(cable),
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
