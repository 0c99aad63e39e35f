import type { Protection } from '../standards/index.ts';
import { reachMillimetres, usualPlace, type Adapter, type InletToServe, type KitCable } from '../cable/index.ts';
import { demandOf, inletDraws, inletLoads, type Demand, type InletDraw, type School } from '../load/index.ts';
import { ownMainLabel, partClass, partsAt, type CaseLayout, type Casing, type MachinePart } from '../machine/index.ts';
import type { DayProfile, Tariff } from './running-cost.ts';

/** What the client or the shop asks of a supply beside its power. */
export interface Wants {
  readonly noisiestDecibels: number | null;
  readonly leastWarrantyYears: number | null;
  readonly protections: readonly Protection[];
  readonly activeCorrection: boolean;
}
export const noWants: Wants = {
  noisiestDecibels: null,
  leastWarrantyYears: null,
  protections: [],
  activeCorrection: false,
};

/** What the machine asks of a replacement. */
export interface FitQuestion {
  readonly casing: Casing;
  readonly parts: readonly MachinePart[];
  readonly demand: Demand;
  readonly inlets: readonly InletToServe[];
  /** What each inlet carries at each moment, by its id. */
  readonly draws: ReadonlyMap<string, InletDraw>;
  readonly school: School;
  readonly presentRatingWatts: number | null;
  readonly cardAdviceWatts: number | null;
  readonly staggered: boolean;
  readonly wants: Wants;
  /** Whether the shop lets two graphics inlets share a cable where the load allows it. */
  readonly sharedCardCable: boolean;
  /** Whether the shop drops what is too large; else it is a warning. */
  readonly dropTooLarge: boolean;
  /**
   * Spare cables of the shop that are safe on a supply, by its id, and adapters, as far as its rules let them be used.
   */
  readonly spares: ReadonlyMap<string, readonly KitCable[]>;
  readonly adapters: readonly Adapter[];
  readonly day: DayProfile;
  readonly tariff: Tariff;
}

/** The inlets of the parts with their ways and loads, in the order of the parts. */
export function inletsToServe(
  parts: readonly MachinePart[],
  layout: CaseLayout,
  { staggered = false } = {},
): InletToServe[] {
  const loads = new Map(inletLoads(parts, { staggered }).map((load) => [load.inletId, load]));
  return parts.flatMap((part) =>
    part.inlets.map((inlet): InletToServe => {
      const load = loads.get(inlet.id);
      const place = inlet.place ?? usualPlace(inlet.kind);
      return {
        id: inlet.id,
        kind: inlet.kind,
        ...(inlet.kind === 'main-own' && inlet.label !== ownMainLabel ? { ownPlug: inlet.label } : {}),
        optional: inlet.optional,
        place,
        reachMillimetres: inlet.wayMillimetres ?? reachMillimetres(layout, inlet.kind, place),
        amps12: load?.amps['+12'] ?? 0,
        amps5: load?.amps['+5'] ?? 0,
        amps33: load?.amps['+3.3'] ?? 0,
        ...(load !== undefined && (load.startAmps['+12'] > 0 || load.startAmps['+5'] > 0)
          ? { startAmps12: load.startAmps['+12'], startAmps5: load.startAmps['+5'] }
          : {}),
        ...(partClass(part.classId)?.group === 'cooling' ? { cools: true } : {}),
      };
    }),
  );
}

type Asks = Omit<FitQuestion, 'casing' | 'parts' | 'demand' | 'inlets' | 'draws'>;

/** A question about the machine as it will be after the planned upgrade; what is left out asks for nothing special. */
export function fitQuestion(parts: readonly MachinePart[], casing: Casing, asks: Asks): FitQuestion {
  return aboutParts(partsAt(parts, 'planned'), casing, asks);
}

/** The same question with drives that start one after the other. */
export function staggeredQuestion(question: FitQuestion): FitQuestion {
  return aboutParts(question.parts, question.casing, { ...question, staggered: true });
}

function aboutParts(planned: readonly MachinePart[], casing: Casing, asks: Asks): FitQuestion {
  const { staggered } = asks;
  return {
    ...asks,
    casing,
    parts: planned,
    demand: demandOf(planned, { staggered }),
    inlets: inletsToServe(planned, casing.layout, { staggered }),
    draws: new Map(inletDraws(planned, { staggered }).map((draw) => [draw.inletId, draw])),
  };
}
