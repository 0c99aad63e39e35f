import { excursionMilliseconds, excursionMultiple, limits, type ExcursionMilliseconds } from '../standards/index.ts';
import { partClass, type MachinePart } from '../machine/index.ts';

/** Share of a processor's input that its converters on the board pass on (bench practice). */
export const converterEfficiency = 0.87;

export type LoadRail = '+12' | '+5' | '+3.3';
export const loadRails = ['+12', '+5', '+3.3'] as const satisfies readonly LoadRail[];
const volts: Record<LoadRail, number> = { '+12': 12, '+5': 5, '+3.3': 3.3 };

/** One part's share of the demand, in watts at the supply. */
export interface PartDemand {
  readonly partId: string;
  readonly sustainedWatts: number;
  readonly idleWatts: number;
}

/** A peak of the whole machine: everything that can jump does so at once. */
export interface Peak {
  readonly milliseconds: 1000 | ExcursionMilliseconds;
  readonly watts: number;
}

/** What a machine asks of its supply. */
export interface Demand {
  readonly sustainedWatts: number;
  readonly lowWatts: number;
  readonly highWatts: number;
  readonly idleWatts: number;
  /** Drives starting on an otherwise idle machine: all at once, or one after the other where the start is staggered. */
  readonly spinUpWatts: number;
  readonly rails: Record<LoadRail, { readonly watts: number; readonly amps: number }>;
  /** From +5 V standby while the machine is off or asleep. */
  readonly standbyWatts: number;
  /** Lasting watts by the way they come in. */
  readonly routes: Readonly<Record<Route, number>>;
  /** Longest first: 1 s, 100, 10, 1 and 0.1 ms. */
  readonly peaks: readonly Peak[];
  readonly parts: readonly PartDemand[];
  readonly has16Pin: boolean;
}

/** Watts at the supply for watts at the part: a processor's go through its converters. */
export function inputWatts(part: MachinePart, watts: number): number {
  const throughConverters = partClass(part.classId)?.group === 'processor';
  return (part.quantity * watts) / (throughConverters ? converterEfficiency : 1);
}

const inletCapacity: Partial<Record<string, number>> = { ...limits.cardInletWatts, ...limits.processorInletWatts };

/** The way watts come into the machine. What goes through the slot and the headers also goes through the main connector. */
export type Route = 'main' | 'header' | 'processor-plug' | 'slot' | 'card-plug' | 'drive-plug';
export const routes = [
  'main',
  'header',
  'processor-plug',
  'slot',
  'card-plug',
  'drive-plug',
] as const satisfies readonly Route[];

/** Fans, pumps and USB devices without a plug of their own hang on headers, and through them on the main connector. */
function hangsOnHeader(part: MachinePart): boolean {
  return part.inlets.length === 0 && (partClass(part.classId)?.group === 'cooling' || part.classId === 'usb');
}

/**
 * A part's lasting watts by way. A processor's come through the processor plugs; a card with plugs of its own takes a quarter
 * from its slot, more where its plugs would not carry the rest, and never more than the slot's 5.5 A; a card without takes
 * everything from it; a drive's come through its plug (bench practice).
 */
export function routesOf(part: MachinePart): Readonly<Partial<Record<Route, number>>> {
  const watts = inputWatts(part, part.figures.likelyWatts);
  const group = partClass(part.classId)?.group;
  if (group === 'processor') return { 'processor-plug': watts };
  if (part.inlets.some((inlet) => inlet.kind.startsWith('card-'))) {
    const plugs = part.inlets.reduce((sum, inlet) => sum + (inletCapacity[inlet.kind] ?? 0), 0);
    const slot = Math.min(limits.slotTwelveVoltAmps * 12, Math.max(watts * 0.25, watts - plugs));
    return { slot, 'card-plug': watts - slot };
  }
  if (part.inlets.some((inlet) => ['sata', 'peripheral-4', 'small-drive-4'].includes(inlet.kind)))
    return { 'drive-plug': watts };
  if (group === 'card') return { slot: watts };
  return hangsOnHeader(part) ? { header: watts } : { main: watts };
}

/** @param staggered drives start one after the other, which board, drive and plug must allow */
export interface DemandOptions {
  readonly staggered?: boolean;
}

/** Demand of the parts given; empty parts give zeros. */
export function demandOf(parts: readonly MachinePart[], { staggered = false }: DemandOptions = {}): Demand {
  const sum = (of: (part: MachinePart) => number) => parts.reduce((total, part) => total + of(part), 0);
  const sustained = (part: MachinePart) => inputWatts(part, part.figures.likelyWatts);
  const railWatts: Record<LoadRail, number> = {
    '+12': sum((part) => sustained(part) * part.figures.share12),
    '+5': sum((part) => sustained(part) * part.figures.share5),
    '+3.3': sum((part) => sustained(part) * part.figures.share33),
  };
  const idleWatts = sum((part) => inputWatts(part, part.figures.idleWatts));
  const peaks: Peak[] = [
    { milliseconds: 1000, watts: sum((part) => inputWatts(part, part.figures.shortWatts)) },
    ...excursionMilliseconds.map((milliseconds): Peak => ({
      milliseconds,
      watts: sum((part) =>
        Math.max(
          sustained(part) * excursionMultiple[part.figures.excursion][milliseconds],
          inputWatts(part, part.figures.shortWatts),
        ),
      ),
    })),
  ];
  const rails = Object.fromEntries(
    loadRails.map((rail) => [rail, { watts: railWatts[rail], amps: railWatts[rail] / volts[rail] }]),
  ) as Demand['rails'];
  return {
    sustainedWatts: sum(sustained),
    lowWatts: sum((part) => inputWatts(part, part.figures.lowWatts)),
    highWatts: sum((part) => inputWatts(part, part.figures.highWatts)),
    idleWatts,
    spinUpWatts:
      idleWatts +
      12 *
        (staggered
          ? Math.max(0, ...parts.map((part) => part.figures.spinUpAmps))
          : sum((part) => part.quantity * part.figures.spinUpAmps)),
    standbyWatts: sum((part) => part.quantity * part.figures.standbyWatts),
    routes: Object.fromEntries(
      routes.map((route) => [route, sum((part) => routesOf(part)[route] ?? 0)]),
    ) as Demand['routes'],
    rails,
    peaks,
    parts: parts.map((part) => ({
      partId: part.id,
      sustainedWatts: sustained(part),
      idleWatts: inputWatts(part, part.figures.idleWatts),
    })),
    has16Pin: parts.some((part) => part.inlets.some((inlet) => inlet.kind === 'card-16')),
  };
}

/** What one inlet carries at lasting load, in amps by voltage. */
export interface InletLoad {
  readonly inletId: string;
  readonly watts: number;
  readonly amps: Record<LoadRail, number>;
}

/**
 * What each inlet carries. A card takes from its slot what the slot gives (12 V only, 5.5 A) and shares the rest over
 * its inlets by their capacity; the processor's draw is shared over the board's processor inlets, of which an optional
 * one takes no planned load; a drive's inlet carries the drive, at spin-up on +12 where that is more.
 */
export function inletLoads(parts: readonly MachinePart[]): InletLoad[] {
  const loads: InletLoad[] = [];
  const processors = parts.filter((part) => partClass(part.classId)?.group === 'processor');
  const processorWatts = processors.reduce((sum, part) => sum + inputWatts(part, part.figures.shortWatts), 0);
  const ownFeed = new Set<MachinePart>(processors);
  const feeds = parts.flatMap((part) => part.inlets.map((inlet) => ({ part, inlet })));
  const processorInlets = feeds.filter(({ inlet }) => inlet.kind.startsWith('cpu-'));
  const carrying = processorInlets.filter(({ inlet }) => !inlet.optional);
  const add = (inletId: string, amps: Partial<Record<LoadRail, number>>) => {
    const full = { '+12': amps['+12'] ?? 0, '+5': amps['+5'] ?? 0, '+3.3': amps['+3.3'] ?? 0 };
    loads.push({ inletId, amps: full, watts: loadRails.reduce((sum, rail) => sum + full[rail] * volts[rail], 0) });
  };
  const carryingCapacity = carrying.reduce((sum, { inlet }) => sum + (inletCapacity[inlet.kind] ?? 0), 0);
  for (const { inlet } of processorInlets)
    add(inlet.id, {
      '+12': inlet.optional ? 0 : (processorWatts / 12) * ((inletCapacity[inlet.kind] ?? 0) / carryingCapacity),
    });
  for (const part of parts) {
    const own = part.inlets.filter(
      (inlet) => inlet.kind.startsWith('card-') || ['sata', 'peripheral-4', 'small-drive-4'].includes(inlet.kind),
    );
    if (own.length === 0) continue;
    ownFeed.add(part);
    const watts = inputWatts(part, part.figures.likelyWatts);
    if (own.some((inlet) => inlet.kind.startsWith('card-'))) {
      const slot = routesOf(part).slot ?? 0;
      const capacity = own.reduce((sum, inlet) => sum + (inletCapacity[inlet.kind] ?? 0), 0);
      for (const inlet of own)
        add(inlet.id, { '+12': ((watts - slot) / 12) * ((inletCapacity[inlet.kind] ?? 0) / capacity) });
    } else {
      for (const inlet of own) {
        const share = watts / own.length;
        add(inlet.id, {
          '+12': Math.max((share * part.figures.share12) / 12, part.figures.spinUpAmps / own.length),
          '+5': (share * part.figures.share5) / 5,
          '+3.3': (share * part.figures.share33) / 3.3,
        });
      }
    }
  }
  const throughMain = parts.filter((part) => !ownFeed.has(part));
  const slots = parts.filter((part) => ownFeed.has(part)).reduce((sum, part) => sum + (routesOf(part).slot ?? 0), 0);
  for (const { inlet } of feeds.filter((feed) => feed.inlet.kind.startsWith('main-'))) {
    const demand = demandOf(throughMain);
    add(inlet.id, {
      '+12': demand.rails['+12'].amps + slots / 12,
      '+5': demand.rails['+5'].amps,
      '+3.3': demand.rails['+3.3'].amps,
    });
  }
  return loads;
}

/** Something the machine's own plugs and slots would carry beyond their limit, whatever supply is fitted. */
export interface PlugProblem {
  readonly kind: 'plug' | 'slot' | 'header' | 'main-connector';
  /** The inlet's or part's own name. */
  readonly subject: string;
  readonly rail: LoadRail | null;
  readonly unit: 'W' | 'A';
  readonly figure: number;
  readonly limit: number;
}

const drivePlugAmps: Partial<Record<string, number>> = {
  sata: limits.sataPlugAmps,
  'peripheral-4': limits.peripheralPlugAmps,
  'small-drive-4': limits.smallDrivePlugAmps,
};

/** Plugs, slots and the main connector against what each may carry (card specification, SATA, bench practice). */
export function plugProblems(parts: readonly MachinePart[]): PlugProblem[] {
  const loads = new Map(inletLoads(parts).map((load) => [load.inletId, load]));
  const problems: PlugProblem[] = [];
  for (const part of parts) {
    const slot = routesOf(part).slot ?? 0;
    const each = slot / part.quantity;
    if (each > limits.slotWatts + 1e-9)
      problems.push({ kind: 'slot', subject: part.name, rail: null, unit: 'W', figure: each, limit: limits.slotWatts });
    else {
      // Beside the whole, each voltage of the slot has its own limit; what a card with plugs takes from it is +12.
      const shares = part.inlets.some((inlet) => inlet.kind.startsWith('card-'))
        ? { '+12': 1, '+3.3': 0 }
        : { '+12': part.figures.share12, '+3.3': part.figures.share33 };
      for (const [rail, limit] of [
        ['+12', limits.slotTwelveVoltAmps],
        ['+3.3', limits.slotThreeVoltAmps],
      ] as const) {
        const amps = (each * shares[rail]) / volts[rail];
        if (amps > limit + 1e-9)
          problems.push({ kind: 'slot', subject: part.name, rail, unit: 'A', figure: amps, limit });
      }
    }
    const header =
      partClass(part.classId)?.group === 'cooling'
        ? ((routesOf(part).header ?? 0) * part.figures.share12) / part.quantity / volts['+12']
        : 0;
    if (header > limits.fanHeaderAmps + 1e-9)
      problems.push({
        kind: 'header',
        subject: part.name,
        rail: '+12',
        unit: 'A',
        figure: header,
        limit: limits.fanHeaderAmps,
      });
    for (const inlet of part.inlets) {
      const load = loads.get(inlet.id);
      if (load === undefined) continue;
      const watts = inletCapacity[inlet.kind];
      if (watts !== undefined && load.watts > watts + 1e-9)
        problems.push({ kind: 'plug', subject: inlet.label, rail: null, unit: 'W', figure: load.watts, limit: watts });
      for (const rail of loadRails) {
        const limit = drivePlugAmps[inlet.kind] ?? (inlet.kind === 'main-24' ? limits.mainConnectorAmps[rail] : null);
        if (limit !== null && load.amps[rail] > limit + 1e-9)
          problems.push({
            kind: inlet.kind === 'main-24' ? 'main-connector' : 'plug',
            subject: inlet.label,
            rail,
            unit: 'A',
            figure: load.amps[rail],
            limit,
          });
      }
    }
  }
  return problems;
}
