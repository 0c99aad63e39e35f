import {
  inletFamily,
  limits,
  plugServes,
  socketTakes,
  type InletKind,
  type PlugKind,
  type SocketKind,
} from '../standards/index.ts';
import type { Random } from '../simulate/index.ts';
import {
  adapterCarries,
  adapterRefusal,
  codedWatts,
  betweenMillimetres,
  usualPlace,
  usualRules,
  type Adapter,
  type CableKit,
  type InletToServe,
  type KitCable,
  type PlanRules,
  type Socket,
} from './index.ts';

const pickOf = <T>(random: Random, list: readonly T[]): T => list[Math.floor(random() * list.length)]!;

export interface PlanProblem {
  readonly kit: CableKit;
  readonly inlets: readonly InletToServe[];
  readonly rules: PlanRules;
}

/**
 * A random machine and a random kit of the usual kind, with spare cables and adapters at hand; some cannot be served.
 */
export function randomProblem(random: Random): PlanProblem {
  const inlets: InletToServe[] = [];
  const add = (kind: InletKind, optional: boolean, amps12: number, amps5 = 0) =>
    inlets.push({
      id: `i${inlets.length}`,
      kind,
      optional,
      place: random() < 0.15 ? pickOf(random, ['front', 'top', 'floor']) : usualPlace(kind),
      reachMillimetres: 200 + Math.floor(random() * 6) * 100,
      amps12,
      amps5,
      amps33: 0,
      ...((kind === 'sata' || kind === 'peripheral-4') && random() < 0.25 ? { cools: true } : {}),
    });
  add(random() < 0.9 ? 'main-24' : 'main-20', false, 4, 4);
  add(random() < 0.8 ? 'cpu-8' : 'cpu-4', false, pickOf(random, [12, 19, 33]));
  if (random() < 0.5) add(random() < 0.5 ? 'cpu-8' : 'cpu-4', random() < 0.6, pickOf(random, [6, 19, 33]));
  // Two 4-pin inlets beside each other, as some boards have them.
  if (random() < 0.15) {
    add('cpu-4', false, 6);
    inlets.push({ ...inlets.at(-1)!, id: `i${inlets.length}`, optional: random() < 0.3 });
  }
  const cards = Math.floor(random() * 4);
  for (let card = 0; card < cards; card += 1)
    add(pickOf(random, ['card-8', 'card-8', 'card-6']), random() < 0.15, pickOf(random, [5, 8, 10, 12.5]));
  if (random() < 0.3) add('card-16', false, pickOf(random, [24, 24, 37, 48]));
  const drives = Math.floor(random() * 6);
  for (let drive = 0; drive < drives; drive += 1)
    add(
      pickOf(random, ['sata', 'sata', 'sata', 'peripheral-4']),
      random() < 0.2,
      pickOf(random, [0.4, 2.2, 2.6]),
      pickOf(random, [0.7, 1.2, 3]),
    );
  const modular = random() < 0.7;
  const at = () => 300 + Math.floor(random() * 6) * 100;
  const cables: KitCable[] = [
    {
      id: 'main',
      family: 'main',
      fixed: random() < 0.5,
      count: 1,
      gauge: 18,
      plugs: [{ kind: random() < 0.7 ? 'main-20+4' : 'main-24', millimetres: at() + 100 }],
    },
  ];
  // A main cable with two plugs at the supply; now and then one of its sockets is not there.
  const twoMain = !cables[0]!.fixed && random() < 0.4;
  if (twoMain) cables[0] = { ...cables[0]!, twoEnded: true };
  const cable = (id: string, family: KitCable['family'], count: number, plugs: KitCable['plugs']) => {
    if (count > 0 && plugs.length > 0)
      cables.push({
        id,
        family,
        fixed: !modular || random() < 0.1,
        count,
        gauge: pickOf(random, [16, 18, 18, 18, 20, 22] as const),
        ...(family === 'card-16' && random() < 0.5 ? { codedWatts: pickOf(random, codedWatts) } : {}),
        plugs,
      });
  };
  const chain = (kinds: readonly KitCable['plugs'][number]['kind'][]) => {
    let millimetres = at() - 100;
    return kinds.map((kind) => {
      millimetres += 100 + Math.floor(random() * 2) * 50;
      return { kind, millimetres };
    });
  };
  cable('cpu', 'cpu', 1 + Math.floor(random() * 2), chain([random() < 0.8 ? 'cpu-4+4' : 'cpu-8']));
  if (random() < 0.4) cable('cpu-two', 'cpu', 1, chain(['cpu-4+4', 'cpu-4+4']));
  if (random() < 0.2) cable('cpu-small', 'cpu', 1, chain(['cpu-4']));
  cable('card-two', 'card', Math.floor(random() * 3), chain(['card-6+2', 'card-6+2']));
  cable('card-one', 'card', Math.floor(random() * 3), chain([random() < 0.7 ? 'card-6+2' : 'card-6']));
  cable('sixteen', 'card-16', random() < 0.3 ? 1 : 0, chain(['card-16']));
  cable('sixteen-two', 'card-16', random() < 0.4 ? 1 + Math.floor(random() * 2) : 0, chain(['card-16']));
  const double = cables.findIndex(({ id, fixed }) => id === 'sixteen-two' && !fixed);
  if (double >= 0) cables[double] = { ...cables[double]!, twoEnded: true };
  cable(
    'sata',
    'drive',
    Math.floor(random() * 3),
    chain(['sata', 'sata', 'sata'].slice(0, 1 + Math.floor(random() * 3)) as 'sata'[]),
  );
  cable('old', 'drive', Math.floor(random() * 2), chain(['peripheral-4', 'sata']));
  if (random() < 0.3)
    cables.push({
      id: 'spare',
      family: 'drive',
      fixed: false,
      count: 1,
      gauge: 18,
      spare: true,
      plugs: chain(['sata', 'sata']),
    });
  if (random() < 0.2)
    cables.push({
      id: 'spare-card',
      family: 'card',
      fixed: false,
      count: 1,
      gauge: 18,
      spare: true,
      plugs: chain(['card-6+2']),
    });
  const adapters: Adapter[] = [
    {
      id: 'longer',
      takes: 'cpu-8',
      gives: 'cpu-4+4',
      legs: 1,
      moulded: false,
      addsMillimetres: 200,
      watts: null,
      count: 1,
    },
    {
      id: 'flat',
      takes: 'peripheral-4',
      gives: 'sata',
      legs: 1,
      moulded: false,
      addsMillimetres: 150,
      watts: null,
      count: 1,
    },
    {
      id: 'flat-longer',
      takes: 'sata',
      gives: 'sata',
      legs: 1,
      moulded: false,
      addsMillimetres: 300,
      watts: null,
      count: 1,
    },
    {
      id: 'sixteen',
      takes: 'card-8',
      gives: 'card-16',
      legs: 2,
      moulded: false,
      addsMillimetres: 100,
      watts: 300,
      count: 1,
    },
    {
      id: 'sixteen-strong',
      takes: 'card-8',
      gives: 'card-16',
      legs: 3,
      moulded: false,
      addsMillimetres: 100,
      watts: 450,
      count: 1,
    },
  ] satisfies Adapter[];
  const atHand = adapters.filter(
    (adapter) => random() < (adapter.legs > 1 ? 0.7 : 0.3) && adapterRefusal(adapter) === null,
  );
  const kinds: SocketKind[] = [
    'main',
    ...(twoMain && random() < 0.9 ? ['main' as const] : []),
    ...Array.from({ length: Math.floor(random() * 3) }, () => 'cpu' as const),
    ...Array.from({ length: Math.floor(random() * 4) }, () =>
      random() < 0.5 ? ('cpu-card' as const) : ('card' as const),
    ),
    ...(random() < 0.3 ? ['card-16' as const] : []),
    ...Array.from({ length: Math.floor(random() * 4) }, () => 'drive' as const),
  ];
  // A maker's own main, with what is made for it and for another one that looks alike.
  if (random() < 0.15) {
    inlets[0] = { ...inlets[0]!, kind: 'main-own', ownPlug: 'North 10' };
    for (const ownPlug of ['North 10', 'South 10']) {
      const made = { takes: 'main-24', gives: 'main-own', legs: 1, moulded: false, watts: null, count: 1 } as const;
      if (random() < 0.6) atHand.push({ ...made, id: ownPlug, ownPlug, addsMillimetres: 150 });
    }
    if (random() < 0.3) {
      const ownPlug = random() < 0.5 ? 'North 10' : 'South 10';
      cables[0] = { ...cables[0]!, ownPlug, plugs: [{ kind: 'main-own', millimetres: 600 }] };
    }
  }
  const sockets = kinds.map((kind, index) => ({ kind, label: `${kind} ${index}` }));
  return {
    inlets,
    rules: { ...usualRules, adapters: atHand },
    kit: { sockets, cables: random() < 0.4 ? numbered(random, cables, sockets) : cables },
  };
}

/** The same cables, some of them with a number that only one socket bears. */
export function numbered(random: Random, cables: readonly KitCable[], sockets: readonly Socket[]): KitCable[] {
  const left = [...sockets];
  return cables.map((cable) => {
    const fitting = left.filter(({ kind }) => socketTakes(kind, cable.family));
    if (cable.fixed || cable.twoEnded === true || cable.spare === true || fitting.length === 0 || random() < 0.4)
      return cable;
    const { label } = pickOf(random, fitting);
    left.splice(
      left.findIndex((socket) => socket.label === label),
      1,
    );
    return { ...cable, count: 1, onlySocket: label };
  });
}

const goesInto = (kind: PlugKind, { ownPlug }: { readonly ownPlug?: string | undefined }, inlet: InletToServe) =>
  plugServes(kind, inlet.kind) && (kind !== 'main-own' || ownPlug === inlet.ownPlug);

/**
 * Weights that keep the linear part of the order: open inlets, the larger of them, overloaded cables, optional inlets,
 * shared graphics cables, pieces of no kit, cables.
 */
export const planWeights = {
  openRequired: 10_000_000,
  openLarger: 1_000_000,
  overloaded: 200_000,
  openOptional: 10_000,
  sharing: 1000,
  foreign: 30,
  cables: 1,
} as const;

const ampsOfWire = { 16: 9, 18: 7, 20: 5, 22: 3 } as const;

/** What a cable's wires, contacts and code allow, in amps. */
function wireLimits(piece: KitCable): Record<'amps12' | 'amps5' | 'amps33', number> {
  const wire = ampsOfWire[piece.gauge];
  switch (piece.family) {
    case 'main':
      return { amps12: 2 * wire, amps5: 5 * wire, amps33: 4 * wire };
    case 'cpu':
      return { amps12: (piece.plugs.every((plug) => plug.kind === 'cpu-4') ? 2 : 4) * wire, amps5: 0, amps33: 0 };
    case 'card':
      return { amps12: 3 * wire, amps5: 0, amps33: 0 };
    case 'card-16':
      return { amps12: Math.min(6 * wire, (piece.codedWatts ?? 10_000) / 12), amps5: 0, amps33: 0 };
    case 'drive':
      return { amps12: Math.min(7, wire), amps5: Math.min(7, wire), amps33: Math.min(7, wire) };
  }
}

/**
 * The plan as a mixed integer programme in LP format. Binaries: x (inlet on plug, through an adapter or not), z (inlet
 * on an adapter of several legs), l (one leg on a plug), y (piece used), s (piece in socket), m (piece with several
 * inlets), o (piece overloaded). The objective leaves out its constant, which is returned beside it.
 */
export function planProgramme({ kit, inlets, rules }: PlanProblem): { readonly lp: string; readonly constant: number } {
  const pieces = kit.cables.flatMap((cable) => Array.from({ length: cable.count }, () => cable));
  const weights = new Map<string, number>();
  const weigh = (weight: number, name: string) => weights.set(name, (weights.get(name) ?? 0) + weight);
  const rows: string[] = [];
  const binaries: string[] = [];
  const sum = (names: readonly string[]) => names.map((name) => `+ ${name}`).join(' ');
  let constant = 0;
  const smallInlets = new Set<string>();
  const onInlet = inlets.map((): string[] => []);
  const throughAdapter = rules.adapters.map((): string[] => []);
  // Adapters of several legs: z for each inlet and adapter, and its legs wherever they could go.
  const legged = inlets.flatMap((inlet, i) =>
    rules.adapters.flatMap((adapter, a) =>
      adapter.legs > 1 &&
      plugServes(adapter.gives, inlet.kind) &&
      inlet.amps12 * 12 <= Math.min(adapter.watts ?? Infinity, adapter.legs * limits.cardInletWatts['card-8'])
        ? [{ i, a, inlet, adapter, z: `z${i}_${a}`, legs: [] as string[] }]
        : [],
    ),
  );
  for (const item of legged) {
    binaries.push(item.z);
    onInlet[item.i]!.push(item.z);
    throughAdapter[item.a]!.push(item.z);
    weigh(planWeights.foreign, item.z);
  }
  pieces.forEach((piece, p) => {
    const own: { name: string; inlet: InletToServe; plug: number; adds: number }[] = [];
    const legs: string[] = [];
    piece.plugs.forEach((plug, k) => {
      const onPlug: string[] = [];
      inlets.forEach((inlet, i) => {
        if (
          inletFamily(inlet.kind) !== piece.family ||
          (piece.family === 'drive' && inlet.cools === true && piece.gauge > 18)
        )
          return;
        const offer = (name: string, adds: number) => {
          binaries.push(name);
          own.push({ name, inlet, plug: k, adds });
          onPlug.push(name);
          onInlet[i]!.push(name);
          if (inlet.kind === 'cpu-4' && adds === 0) smallInlets.add(name);
        };
        if (goesInto(plug.kind, piece, inlet) && plug.millimetres >= inlet.reachMillimetres)
          offer(`x${i}_${p}_${k}`, 0);
        rules.adapters.forEach((adapter, a) => {
          if (
            adapter.legs > 1 ||
            !plugServes(plug.kind, adapter.takes) ||
            !goesInto(adapter.gives, adapter, inlet) ||
            !adapterCarries(adapter, inlet) ||
            plug.millimetres + adapter.addsMillimetres < inlet.reachMillimetres
          )
            return;
          const name = `x${i}_${p}_${k}_${a}`;
          offer(name, adapter.addsMillimetres);
          throughAdapter[a]!.push(name);
          weigh(planWeights.foreign, name);
        });
      });
      for (const item of legged) {
        if (
          inletFamily(item.adapter.takes) !== piece.family ||
          !plugServes(plug.kind, item.adapter.takes) ||
          plug.millimetres < item.inlet.reachMillimetres - item.adapter.addsMillimetres
        )
          continue;
        const name = `l${item.i}_${item.a}_${p}_${k}`;
        binaries.push(name);
        item.legs.push(name);
        legs.push(name);
        onPlug.push(name);
      }
      // The halves of a plug that comes apart may go into two 4-pin inlets beside each other.
      const halves = piece.plugs[k]!.kind === 'cpu-4+4' ? onPlug.filter((name) => smallInlets.has(name)) : [];
      const whole = onPlug.filter((name) => !halves.includes(name));
      if (onPlug.length > 1)
        rows.push(`${[...whole.map((name) => `+ 2 ${name}`), ...halves.map((name) => `+ ${name}`)].join(' ')} <= 2`);
    });
    const y = `y${p}`;
    binaries.push(y);
    const graphics = piece.family === 'card' || piece.family === 'card-16';
    const countsAsCable = piece.family !== 'drive' || piece.spare === true;
    weigh(
      (countsAsCable ? planWeights.cables : 0) +
        (piece.spare === true ? planWeights.foreign : 0) -
        (graphics ? planWeights.sharing : 0),
      y,
    );
    const all = [...own.map(({ name }) => name), ...legs];
    if (graphics) for (const name of all) weigh(planWeights.sharing, name);
    if (all.length === 0) {
      rows.push(`${y} = 0`);
      return;
    }
    for (const name of all) rows.push(`${name} - ${y} <= 0`);
    rows.push(`${y} ${all.map((name) => `- ${name}`).join(' ')} <= 0`);
    if (piece.family === 'main') rows.push(`${sum(all)} <= 1`);
    // A leg has its cable for itself.
    for (const leg of legs) {
      const others = all.filter((name) => name !== leg);
      if (others.length > 0) rows.push(`${sum(others)} + ${others.length} ${leg} <= ${others.length}`);
    }
    // Two inlets on one cable need the cable between them.
    own.forEach((one, index) =>
      own.slice(0, index).forEach((other) => {
        if (one.inlet === other.inlet) return;
        if (one.plug === other.plug && !(smallInlets.has(one.name) && smallInlets.has(other.name))) return;
        const has =
          Math.abs(piece.plugs[one.plug]!.millimetres - piece.plugs[other.plug]!.millimetres) + one.adds + other.adds;
        if (has < betweenMillimetres(one.inlet, other.inlet)) rows.push(`+ ${one.name} + ${other.name} <= 1`);
      }),
    );
    const capped: readonly (readonly ['amps12' | 'amps5' | 'amps33', number])[] =
      piece.family === 'drive'
        ? (['amps12', 'amps5', 'amps33'] as const).map(
            (key) => [key, Math.min(limits.driveChainAmps, ampsOfWire[piece.gauge])] as const,
          )
        : graphics
          ? [['amps12', limits.sharedCardCableWatts / 12]]
          : [];
    if (capped.length > 0 && own.length > 1) {
      const m = `m${p}`;
      binaries.push(m);
      rows.push(`${sum(own.map(({ name }) => name))} - ${inlets.length} ${m} <= 1`);
      for (const [key, limit] of capped) {
        const amps = own
          .filter(({ inlet }) => inlet[key] > 0)
          .map(({ name, inlet }) => `+ ${inlet[key]} ${name}`)
          .join(' ');
        if (amps !== '') rows.push(`${amps} + 1000 ${m} <= ${limit + 1000}`);
      }
    }
    // An overloaded cable: its wires by gauge, contacts and code, written out here once more.
    const most: Record<'amps12' | 'amps5' | 'amps33', number> = wireLimits(piece);
    const o = `o${p}`;
    binaries.push(o);
    weigh(planWeights.overloaded, o);
    for (const key of ['amps12', 'amps5', 'amps33'] as const) {
      const amps = [
        ...own.filter(({ inlet }) => inlet[key] > 0).map(({ name, inlet }) => `+ ${inlet[key]} ${name}`),
        ...legged.flatMap((item) =>
          item.legs
            .filter((name) => legs.includes(name) && item.inlet[key] > 0)
            .map((name) => `+ ${item.inlet[key] / item.adapter.legs} ${name}`),
        ),
      ];
      if (amps.length > 0) rows.push(`${amps.join(' ')} - 1000 ${o} <= ${most[key] + 1e-7}`);
    }
    if (!piece.fixed) {
      // A cable with two ends takes two sockets, a 16-pin one of those for card cables.
      const takes = piece.twoEnded === true && piece.family === 'card-16' ? 'card' : piece.family;
      // A numbered one goes into its socket, and nothing else does.
      const may = ({ label, kind }: Socket) =>
        piece.onlySocket === undefined
          ? socketTakes(kind, takes) && kit.cables.every(({ onlySocket }) => onlySocket !== label)
          : piece.onlySocket === label;
      const places = kit.sockets.flatMap((socket, index) => (may(socket) ? [`s${p}_${index}`] : []));
      binaries.push(...places);
      const ends = piece.twoEnded === true ? 2 : 1;
      rows.push(places.length === 0 ? `${y} = 0` : `${sum(places)} - ${ends} ${y} = 0`);
    }
  });
  for (const item of legged)
    rows.push(item.legs.length === 0 ? `${item.z} = 0` : `${sum(item.legs)} - ${item.adapter.legs} ${item.z} = 0`);
  throughAdapter.forEach((names, a) => {
    if (names.length > 0) rows.push(`${sum(names)} <= ${rules.adapters[a]!.count}`);
  });
  kit.sockets.forEach((_, index) => {
    const there = binaries.filter((name) => name.startsWith('s') && name.endsWith(`_${index}`));
    if (there.length > 1) rows.push(`${sum(there)} <= 1`);
  });
  inlets.forEach((inlet, i) => {
    const weight = inlet.optional
      ? planWeights.openOptional
      : planWeights.openRequired + (inlet.kind === 'cpu-8' ? planWeights.openLarger : 0);
    constant += weight;
    for (const name of onInlet[i]!) weigh(-weight, name);
    if (onInlet[i]!.length > 1) rows.push(`${sum(onInlet[i]!)} <= 1`);
  });
  // A programme needs a row and a variable even when there is nothing to decide.
  binaries.push('nothing');
  rows.push('nothing <= 1');
  const terms = [...weights].map(([name, weight]) => `${weight < 0 ? '-' : '+'} ${Math.abs(weight)} ${name}`);
  return {
    constant,
    lp:
      `Minimize\n obj: ${terms.length === 0 ? '0 nothing' : terms.join('\n ')}\nSubject ` +
      `To\n${rows.map((row, index) => ` r${index}: ${row}`).join('\n')}\nBinary\n ` +
      `${binaries.join('\n ')}\nEnd\n`,
  };
}
