import { boundToBe } from '../bound-to-be.ts';
import { excursionMilliseconds, type ExcursionMilliseconds } from '../standards/index.ts';
import type { MachinePart } from '../machine/index.ts';
import {
  inputWatts,
  loadRails,
  moments,
  onRails,
  railVolts,
  sharesOf,
  startingWatts,
  totalWatts,
  wattsAt,
  type LoadRail,
  type Moment,
  type RailWatts,
} from './moments.ts';
import { routes, routesOf, type Route } from './routes.ts';

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
  /** Watts on each voltage at each moment. */
  readonly at: Readonly<Record<Moment, RailWatts>>;
  /** From +5 V standby while the machine is off or asleep. */
  readonly standbyWatts: number;
  /** Lasting watts by the way they come in. */
  readonly routes: Readonly<Record<Route, number>>;
  /** Longest first: 1 s, 100, 10, 1 and 0.1 ms. */
  readonly peaks: readonly Peak[];
  readonly parts: readonly PartDemand[];
  readonly has16Pin: boolean;
}

/** @param staggered drives start one after the other, which board, drive and plug must allow */
export interface DemandOptions {
  readonly staggered?: boolean;
}

/** What starting drives add on one voltage, or in all: of all at once, or of the hungriest one. */
function starting(parts: readonly MachinePart[], staggered: boolean, of: (watts: RailWatts) => number): number {
  const each = parts.map((part) => of(startingWatts(part)));
  return staggered
    ? Math.max(0, ...each)
    : each.reduce((sum, watts, index) => sum + boundToBe(parts[index], 'part').quantity * watts, 0);
}

/** Demand of the parts given; empty parts give zeros. */
export function demandOf(parts: readonly MachinePart[], { staggered = false }: DemandOptions = {}): Demand {
  const sum = (of: (part: MachinePart) => number) => parts.reduce((all, part) => all + of(part), 0);
  const at = Object.fromEntries(
    moments.map((moment): [Moment, RailWatts] => [
      moment,
      onRails(
        (rail) =>
          sum((part) => wattsAt(part, moment) * sharesOf(part)[rail]) +
          (moment === 'spin-up' ? starting(parts, staggered, (watts) => watts[rail]) : 0),
      ),
    ]),
  ) as Record<Moment, RailWatts>;
  const idleWatts = sum((part) => wattsAt(part, 'spin-up'));
  return {
    sustainedWatts: sum((part) => wattsAt(part, 'lasting')),
    lowWatts: sum((part) => inputWatts(part, part.figures.lowWatts)),
    highWatts: sum((part) => inputWatts(part, part.figures.highWatts)),
    idleWatts,
    spinUpWatts: idleWatts + starting(parts, staggered, totalWatts),
    standbyWatts: sum((part) => part.quantity * part.figures.standbyWatts),
    routes: routesOfAll(parts),
    rails: Object.fromEntries(
      loadRails.map((rail) => [rail, { watts: at.lasting[rail], amps: at.lasting[rail] / railVolts[rail] }]),
    ) as Demand['rails'],
    at,
    peaks: ([1000, ...excursionMilliseconds] as const).map((milliseconds): Peak => ({
      milliseconds,
      watts: sum((part) => wattsAt(part, String(milliseconds) as Moment)),
    })),
    parts: parts.map((part) => ({
      partId: part.id,
      sustainedWatts: wattsAt(part, 'lasting'),
      idleWatts: wattsAt(part, 'spin-up'),
    })),
    has16Pin: parts.some((part) => part.inlets.some((inlet) => inlet.kind === 'card-16')),
  };
}

function routesOfAll(parts: readonly MachinePart[]): Demand['routes'] {
  const each = parts.map((part) => routesOf(part, parts));
  return Object.fromEntries(
    routes.map((route) => [route, each.reduce((sum, ways) => sum + (ways[route] ?? 0), 0)]),
  ) as Demand['routes'];
}
