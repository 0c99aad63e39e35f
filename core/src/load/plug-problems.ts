import { limits } from '../standards/index.ts';
import { partClass, type Inlet, type MachinePart } from '../machine/index.ts';
import { loadRails, railVolts, totalWatts, type LoadRail } from './moments.ts';
import { drivePlugLimit, inletLoads, plugWatts, routesOf, slotDraw, type InletLoad } from './routes.ts';

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

/** Sums of shares may come out a hair above a limit that they meet exactly. */
const rounding = 1e-9;

/** Plugs, slots and the main connector against what each may carry (card specification, SATA, bench practice). */
export function plugProblems(parts: readonly MachinePart[], { staggered = false } = {}): PlugProblem[] {
  const loads = new Map(inletLoads(parts, { staggered }).map((load) => [load.inletId, load]));
  return parts.flatMap((part) => [
    ...slotProblems(part, parts),
    ...headerProblems(part, parts),
    ...part.inlets.flatMap((inlet) => inletProblems(inlet, loads.get(inlet.id))),
  ]);
}

function slotProblems(part: MachinePart, parts: readonly MachinePart[]): PlugProblem[] {
  const draw = slotDraw(part, parts);
  const problem = (figure: number, limit: number, rail: LoadRail | null): PlugProblem[] =>
    figure > limit + rounding
      ? [{ kind: 'slot', subject: part.name, rail, unit: rail === null ? 'W' : 'A', figure, limit }]
      : [];
  const whole = problem(totalWatts(draw) / part.quantity, limits.slotWatts, null);
  if (whole.length > 0) return whole;
  // Beside the whole, each voltage of the slot has its own limit.
  const amps = (rail: LoadRail) => draw[rail] / part.quantity / railVolts[rail];
  return [
    ...problem(amps('+12'), limits.slotTwelveVoltAmps, '+12'),
    ...problem(amps('+3.3'), limits.slotThreeVoltAmps, '+3.3'),
  ];
}

function headerProblems(part: MachinePart, parts: readonly MachinePart[]): PlugProblem[] {
  if (partClass(part.classId)?.group !== 'cooling') return [];
  const watts = ((routesOf(part, parts).header ?? 0) * part.figures.share12) / part.quantity;
  const figure = watts / railVolts['+12'];
  return figure > limits.fanHeaderAmps + rounding
    ? [{ kind: 'header', subject: part.name, rail: '+12', unit: 'A', figure, limit: limits.fanHeaderAmps }]
    : [];
}

function inletProblems(inlet: Inlet, load: InletLoad | undefined): PlugProblem[] {
  if (load === undefined) return [];
  const watts = plugWatts[inlet.kind];
  const main = inlet.kind === 'main-24' || inlet.kind === 'main-20';
  return [
    ...(watts !== undefined && load.watts > watts + rounding
      ? [{ kind: 'plug', subject: inlet.label, rail: null, unit: 'W', figure: load.watts, limit: watts } as const]
      : []),
    ...loadRails.flatMap((rail): PlugProblem[] => {
      const limit = main ? limits.mainConnectorAmps[inlet.kind][rail] : (drivePlugLimit(inlet.kind) ?? null);
      const figure = load.amps[rail] + load.startAmps[rail];
      return limit !== null && figure > limit + rounding
        ? [{ kind: main ? 'main-connector' : 'plug', subject: inlet.label, rail, unit: 'A', figure, limit }]
        : [];
    }),
  ];
}
