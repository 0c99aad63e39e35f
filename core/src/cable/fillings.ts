import { limits, plugServes, type CableFamily } from '../standards/index.ts';
import { adapterServes } from './adapters.ts';
import { carriedBy, isGraphics, isOverloaded, loadOf, rounding, spreadsFreely } from './carried.ts';
import type { Adapter, KitCable, KitPlug } from './kit.ts';
import { isPair, servesInlet } from './pairs.ts';
import { signature, inPlanOrder, slackOf, strongEnough, type LegToServe, type PlacedPlug } from './plan-family.ts';
import { betweenMillimetres } from './routing.ts';
import { noRoom, roomFor } from './supply-ends.ts';

/** Inlets that may stand for each other, at least one. */
export interface Kind {
  readonly first: LegToServe;
  readonly inlets: readonly LegToServe[];
}

/** The inlets by kind, in the order in which they are served. */
export function kindsOf(inlets: readonly LegToServe[]): readonly Kind[] {
  const kinds: { readonly first: LegToServe; readonly inlets: LegToServe[] }[] = [];
  for (const inlet of inPlanOrder(inlets)) {
    const last = kinds.at(-1);
    if (last !== undefined && signature(last.first) === signature(inlet)) last.inlets.push(inlet);
    else kinds.push({ first: inlet, inlets: [inlet] });
  }
  return kinds;
}

/** One way to fill a piece: how many of each kind, adapter and socket it takes, and what that costs. */
export interface Filling {
  /** Of each kind, of each adapter, sockets of its own, pairs of sockets. */
  readonly takes: readonly number[];
  readonly overloaded: number;
  readonly plugs: readonly FilledPlug[];
  readonly sharing: number;
  readonly foreign: number;
  readonly cables: number;
  readonly unevenness: number;
  readonly slackMillimetres: number;
}

interface FilledPlug {
  readonly plugIndex: number;
  /** The place of its inlet's kind among the kinds. */
  readonly kind: number;
  readonly adapter: Adapter | null;
}

/** What a family's pieces are filled with. */
export interface ToFill {
  readonly family: CableFamily;
  readonly kinds: readonly Kind[];
  readonly adapters: readonly Adapter[];
  readonly allowShared: boolean;
}

/** Up to so many fillings of a piece are gone through; beyond, a table would take too long. */
const mostFillings = 10_000;

/** A plug with what hangs on it; `kind` is -1 where it is placed by hand. */
interface Hung {
  readonly plugIndex: number;
  readonly plug: KitPlug;
  readonly inlet: LegToServe;
  readonly adapter: Adapter | null;
  readonly kind: number;
}

const addsOf = (adapter: Adapter | null): number => adapter?.addsMillimetres ?? 0;

/** Does the cable between two plugs reach from the one's inlet to the other's? */
const reaches = (one: Hung, other: Hung): boolean =>
  Math.abs(one.plug.millimetres - other.plug.millimetres) + addsOf(one.adapter) + addsOf(other.adapter) >=
  betweenMillimetres(one.inlet, other.inlet);

/** One piece as it is filled plug by plug, and the best arrangement of each content that was seen. */
class Filler {
  readonly best = new Map<string, Filling>();
  private readonly toFill: ToFill;
  private readonly cable: KitCable;
  private readonly placed: readonly PlacedPlug[];
  private readonly on: Hung[];
  private seen = 0;

  constructor(toFill: ToFill, cable: KitCable, placed: readonly PlacedPlug[]) {
    this.toFill = toFill;
    this.cable = cable;
    this.placed = placed;
    this.on = cable.plugs.flatMap((plug, plugIndex) =>
      placed
        .filter((item) => item.plugIndex === plugIndex)
        .map(({ inlet, adapter }) => ({ plugIndex, plug, inlet, adapter, kind: -1 })),
    );
  }

  /** @returns false when there are too many */
  fill(plugIndex = 0): boolean {
    this.seen += 1;
    if (this.seen > mostFillings) return false;
    const plug = this.cable.plugs[plugIndex];
    if (plug === undefined) {
      this.keep();
      return true;
    }
    if (!this.fill(plugIndex + 1)) return false;
    if (this.placed.some((item) => item.plugIndex === plugIndex)) return true;
    return this.hangEach(plug, plugIndex);
  }

  /** Hangs one of each kind on a plug, by itself and through each adapter, and goes on from there. */
  private hangEach(plug: KitPlug, plugIndex: number): boolean {
    const { kinds, adapters } = this.toFill;
    for (const [kind, { first, inlets }] of kinds.entries()) {
      if (!strongEnough(this.cable, first) || this.howMany((item) => item.kind === kind) >= inlets.length) continue;
      for (const adapter of [null, ...adapters]) {
        if (!this.fits(plug, first, adapter)) continue;
        this.on.push({ plugIndex, plug, inlet: first, adapter, kind });
        const goesOn = !this.mayStay() || this.fill(plugIndex + 1);
        this.on.pop();
        if (!goesOn) return false;
      }
    }
    return true;
  }

  private fits(plug: KitPlug, inlet: LegToServe, adapter: Adapter | null): boolean {
    if (plug.millimetres + addsOf(adapter) < inlet.reachMillimetres) return false;
    if (adapter === null) return servesInlet(plug.kind, this.cable, inlet);
    return (
      inlet.leg === undefined &&
      !isPair(inlet) &&
      this.hungBy(adapter) < adapter.count &&
      plugServes(plug.kind, adapter.takes) &&
      adapterServes(adapter, inlet)
    );
  }

  private howMany(test: (item: Hung) => boolean): number {
    let count = 0;
    for (const item of this.on) if (test(item)) count += 1;
    return count;
  }

  /** How many of an adapter are used beside those that were placed by hand, which are out of its count already. */
  private hungBy(adapter: Adapter): number {
    return this.howMany((item) => item.kind >= 0 && item.adapter === adapter);
  }

  /** May what hangs on the piece now hang there together, seen from the one that came last? */
  private mayStay(): boolean {
    const { family, allowShared } = this.toFill;
    const last = this.on.at(-1);
    if (last === undefined || this.on.length === 1) return true;
    if (this.on.some(({ inlet }) => inlet.leg !== undefined)) return false;
    if (family === 'main' || !this.on.every((other) => other === last || reaches(last, other))) return false;
    switch (family) {
      case 'cpu':
        return true;
      case 'card':
      case 'card-16': {
        const amps12 = this.on.reduce((total, item) => total + item.inlet.amps12, 0);
        return allowShared && amps12 * 12 <= limits.sharedCardCableWatts + rounding;
      }
      case 'drive':
        return !isOverloaded(this.cable, carriedBy(this.on.map(({ inlet }) => inlet)));
    }
  }

  /** Keeps what hangs on the piece now, where nothing with the same content leaves less over. */
  private keep(): void {
    const { cable, on } = this;
    if (on.length === 0) return;
    const takes = this.takes();
    const key = takes.join(' ');
    const slackMillimetres = on.reduce(
      (total, { inlet, plug, adapter }) => total + slackOf(inlet, plug.millimetres + addsOf(adapter)),
      0,
    );
    const known = this.best.get(key);
    if (known !== undefined && known.slackMillimetres <= slackMillimetres) return;
    const carried = carriedBy(on.map(({ inlet }) => inlet));
    this.best.set(key, {
      takes,
      slackMillimetres,
      plugs: on.filter(({ kind }) => kind >= 0).map(({ plugIndex, kind, adapter }) => ({ plugIndex, kind, adapter })),
      sharing: isGraphics(this.toFill.family) ? on.length - 1 : 0,
      foreign: (cable.spare === true ? 1 : 0) + this.howMany(({ adapter }) => adapter !== null),
      cables: spreadsFreely(this.toFill.family, cable) ? 0 : 1,
      overloaded: isOverloaded(cable, carried) ? 1 : 0,
      unevenness: loadOf(carried) ** 2,
    });
  }

  private takes(): readonly number[] {
    const { kinds, adapters } = this.toFill;
    const asked = this.placed.some(({ holdsSocket }) => holdsSocket) ? noRoom : roomFor(this.cable);
    return [
      ...kinds.map((_, kind) => this.howMany((item) => item.kind === kind)),
      ...adapters.map((adapter) => this.hungBy(adapter)),
      asked.own,
      asked.pairs,
    ];
  }
}

/**
 * Every way to fill one piece, the best arrangement of each content; null when there are too many. What is placed
 * stays.
 */
export function fillingsFor(toFill: ToFill, cable: KitCable, placed: readonly PlacedPlug[]): readonly Filling[] | null {
  const filler = new Filler(toFill, cable, placed);
  return filler.fill() ? [...filler.best.values()] : null;
}
