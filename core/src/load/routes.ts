import { boundToBe } from '../bound-to-be.ts';
import { limits, type InletKind } from '../standards/index.ts';
import { partClass, type Inlet, type MachinePart } from '../machine/index.ts';
import {
  inputWatts,
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

/**
 * The way watts come into the machine. What goes through the slot and the headers also goes through the main connector.
 */
export type Route = 'main' | 'header' | 'processor-plug' | 'slot' | 'card-plug' | 'drive-plug';
export const routes = [
  'main',
  'header',
  'processor-plug',
  'slot',
  'card-plug',
  'drive-plug',
] as const satisfies readonly Route[];

/** Watts that the plugs of cards and processors carry (card specification; bench practice for processors). */
export const plugWatts: Partial<Record<InletKind, number>> = {
  ...limits.cardInletWatts,
  ...limits.processorInletWatts,
};

export const isCardInlet = ({ kind }: Pick<Inlet, 'kind'>): boolean => kind.startsWith('card-');
export const isProcessorInlet = ({ kind }: Pick<Inlet, 'kind'>): boolean => kind.startsWith('cpu-');
export const isDriveInlet = ({ kind }: Pick<Inlet, 'kind'>): boolean =>
  ['sata', 'peripheral-4', 'small-drive-4'].includes(kind);
export const isMainInlet = ({ kind }: Pick<Inlet, 'kind'>): boolean => kind.startsWith('main-') || kind === 'aux-6';

/** Contacts on each voltage of the inlets through which a board is fed; a maker's own is taken for a usual one. */
const mainContacts: Partial<Record<InletKind, RailWatts>> = {
  'main-24': { '+12': 2, '+5': 5, '+3.3': 4 },
  'main-20': { '+12': 1, '+5': 4, '+3.3': 3 },
  'main-own': { '+12': 2, '+5': 5, '+3.3': 4 },
  'aux-6': { '+12': 0, '+5': 1, '+3.3': 2 },
};
const groupOf = (part: MachinePart) => partClass(part.classId)?.group;

/** A board's own card inlet helps the main connector to feed the slots; it makes no card of the board. */
const isCardWithPlugs = (part: MachinePart) => groupOf(part) !== 'board' && part.inlets.some(isCardInlet);

/** An old card that has a drive plug for what its slot does not give. */
const isCardOnDrivePlug = (part: MachinePart) =>
  groupOf(part) === 'card' && !isCardWithPlugs(part) && part.inlets.some(isDriveInlet);

/** What sits in a slot and has plugs besides. */
const isPluggedCard = (part: MachinePart) => isCardWithPlugs(part) || isCardOnDrivePlug(part);

/** Fans, pumps and USB devices without a plug of their own hang on headers, and through them on the main connector. */
function hangsOnHeader(part: MachinePart): boolean {
  return part.inlets.length === 0 && (groupOf(part) === 'cooling' || part.classId === 'usb');
}

/**
 * What a 16-pin card draws from its slot where its own figure is not known (bench practice; the slot gives 66 W on
 * +12).
 */
export const sixteenPinSlotWatts = 25;

/** What a card with plugs of its own takes from its slot on +12 at lasting load, in watts; 0 for any other part. */
function slotTwelveWatts(part: MachinePart): number {
  if (!isPluggedCard(part)) return 0;
  const watts = part.figures.likelyWatts * part.figures.share12;
  const plugs = part.inlets.reduce((sum, inlet) => sum + (plugWatts[inlet.kind] ?? drivePlugWatts(inlet.kind)), 0);
  const usual = part.inlets.some((inlet) => inlet.kind === 'card-16')
    ? Math.min(sixteenPinSlotWatts, watts * 0.25)
    : watts * 0.25;
  const most = limits.slotTwelveVoltAmps * 12;
  return part.quantity * Math.min(most, watts, part.figures.slotWatts ?? Math.max(usual, watts - plugs));
}

/** Rails that come by a card's or a processor's own plug: +12 alone; a drive plug carries +5 as well. */
function plugRails(part: MachinePart): readonly LoadRail[] {
  return isCardOnDrivePlug(part) ? ['+12', '+5'] : ['+12'];
}

/** The watts that come through a card's own plugs, of what it draws on each voltage; its slot gives the rest. */
function ofPlugs(part: MachinePart, watts: RailWatts): RailWatts {
  const rails = plugRails(part);
  const plugged = onRails((rail) => (rails.includes(rail) ? watts[rail] : 0));
  return { ...plugged, '+12': Math.max(0, plugged['+12'] - slotTwelveWatts(part)) };
}

const drivePlugAmps: Partial<Record<InletKind, number>> = {
  sata: limits.sataPlugAmps,
  'peripheral-4': limits.peripheralPlugAmps,
  'small-drive-4': limits.smallDrivePlugAmps,
};
/** Amps on each voltage that a drive plug carries; undefined for other plugs. */
export const drivePlugLimit = (kind: InletKind): number | undefined => drivePlugAmps[kind];
const drivePlugWatts = (kind: InletKind) => 12 * (drivePlugAmps[kind] ?? 0);

/**
 * A part's lasting watts by way. A processor's come through the processor plugs, or through the main connector on an
 * old board without; a card with plugs of its own takes a quarter from its slot (a 16-pin card 25 W), or what its sheet
 * says, more where its plugs would not carry the rest, and never more than the slot's 5.5 A; a card without takes
 * everything from it; a drive's come through its plug, or through the main connector where the board feeds it (bench
 * practice).
 * @param machine all parts, to know whether the board has processor inlets
 */
export function routesOf(part: MachinePart, machine: readonly MachinePart[]): Readonly<Partial<Record<Route, number>>> {
  const watts = inputWatts(part, part.figures.likelyWatts);
  const group = groupOf(part);
  if (group === 'processor')
    return machine.some((one) => one.inlets.some(isProcessorInlet)) ? { 'processor-plug': watts } : { main: watts };
  if (group === 'board') return { main: watts };
  if (isPluggedCard(part)) {
    const plugged = totalWatts(ofPlugs(part, partAt(part, 'lasting')));
    return { slot: watts - plugged, [isCardWithPlugs(part) ? 'card-plug' : 'drive-plug']: plugged };
  }
  if (part.inlets.some(isDriveInlet)) return { 'drive-plug': watts };
  if (group === 'card') return { slot: watts };
  return hangsOnHeader(part) ? { header: watts } : { main: watts };
}

/** What a part takes from its slot at lasting load, in watts on each voltage; zeros for what sits in none. */
export function slotDraw(part: MachinePart, machine: readonly MachinePart[]): RailWatts {
  if ((routesOf(part, machine).slot ?? 0) <= 0) return onRails(() => 0);
  return isPluggedCard(part) ? besidePlugs(part, 'lasting') : partAt(part, 'lasting');
}

/** What one inlet carries, in watts by moment and voltage. */
export interface InletDraw {
  readonly inletId: string;
  readonly at: Readonly<Record<Moment, RailWatts>>;
  /** What this one draws while it starts, whether drives start together or one after the other. */
  readonly starts: RailWatts;
}

const nothing = onRails(() => 0);
const noMoments: Record<Moment, RailWatts> = {
  lasting: nothing,
  'spin-up': nothing,
  '1000': nothing,
  '100': nothing,
  '10': nothing,
  '1': nothing,
  '0.1': nothing,
};
const eachMoment = (of: (moment: Moment) => RailWatts): Record<Moment, RailWatts> =>
  Object.fromEntries(Object.keys(noMoments).map((moment) => [moment, of(moment as Moment)])) as Record<
    Moment,
    RailWatts
  >;
const plus = (a: RailWatts, b: RailWatts) => onRails((rail) => a[rail] + b[rail]);
const times = (watts: RailWatts, factor: number) => onRails((rail) => watts[rail] * factor);
const addMoments = (a: Record<Moment, RailWatts>, b: Record<Moment, RailWatts>) =>
  eachMoment((moment) => plus(a[moment], b[moment]));

/**
 * How a load is shared over inlets: those whose watts somebody knows take their part of it, the rest is shared by what
 * each other may carry, evenly where nobody says. Where all are known they share in proportion.
 * @param watts lasting watts that come through these inlets
 */
function sharesBetween(inlets: readonly Inlet[], watts: number, of: (kind: InletKind) => number): Map<string, number> {
  const known = inlets.reduce((sum, inlet) => sum + (inlet.watts ?? 0), 0);
  const others = inlets.filter((inlet) => inlet.watts === undefined);
  const capacity = others.reduce((sum, inlet) => sum + of(inlet.kind), 0);
  const left = others.length === 0 ? 0 : Math.max(0, watts - known);
  const all = known + left;
  return new Map(
    inlets.map((inlet) => {
      const other = capacity > 0 ? of(inlet.kind) / capacity : 1 / others.length;
      if (all <= 0) return [inlet.id, inlet.watts === undefined ? other : 0];
      return [inlet.id, (inlet.watts ?? left * other) / all];
    }),
  );
}

/** A part's watts on each voltage at a moment. */
function partAt(part: MachinePart, moment: Moment): RailWatts {
  return times(sharesOf(part), wattsAt(part, moment));
}

/**
 * A part's draw through its own plugs: of a card what its slot does not give, which gives at every moment what it gives
 * at lasting load; of a drive all of it.
 */
function throughPlugs(part: MachinePart, moment: Moment): RailWatts {
  const watts = partAt(part, moment);
  return isPluggedCard(part) ? ofPlugs(part, watts) : watts;
}

/** What a part with plugs draws besides, from its slot. */
function besidePlugs(part: MachinePart, moment: Moment): RailWatts {
  const watts = partAt(part, moment);
  const plugged = throughPlugs(part, moment);
  return onRails((rail) => watts[rail] - plugged[rail]);
}

/** What inlets carry, as far as it is shared out, and what is left for the main connector. */
interface Shared {
  readonly draws: readonly InletDraw[];
  readonly main: Moments;
}
type Moments = Record<Moment, RailWatts>;

const drawOf = ({ id }: Inlet, at: Moments, starts: RailWatts = nothing): InletDraw => ({ inletId: id, at, starts });

/**
 * Processors over the board's processor inlets, of which an optional one takes no planned load while another is there.
 * Such a plug carries +12 alone; without one the board feeds it all.
 */
function processorDraws(parts: readonly MachinePart[]): Shared {
  const inlets = parts.flatMap((part) => part.inlets).filter(isProcessorInlet);
  const required = inlets.filter((inlet) => !inlet.optional);
  const draw = parts
    .filter((part) => groupOf(part) === 'processor')
    .map((part) => eachMoment((moment) => partAt(part, moment)))
    .reduce(addMoments, noMoments);
  const carrying = required.length > 0 ? required : inlets;
  const shares = sharesBetween(carrying, draw.lasting['+12'], (kind) => plugWatts[kind] ?? 0);
  const through = (inlet: Inlet) =>
    eachMoment((moment) => ({ ...nothing, '+12': draw[moment]['+12'] * (shares.get(inlet.id) ?? 0) }));
  return {
    draws: inlets.map((inlet) => drawOf(inlet, through(inlet))),
    main: inlets.length === 0 ? draw : eachMoment((moment) => ({ ...draw[moment], '+12': 0 })),
  };
}

/** One part over its own card and drive inlets, by their capacity; a board, and a part without, through the main. */
function deviceDraws(part: MachinePart, staggered: boolean): Shared {
  const inlets = part.inlets.filter((inlet) => isCardInlet(inlet) || isDriveInlet(inlet));
  if (inlets.length === 0 || groupOf(part) === 'board')
    return { draws: [], main: eachMoment((moment) => plus(partAt(part, moment), started(part, moment, staggered))) };
  const isCard = inlets.some(isCardInlet);
  const plugged = totalWatts(throughPlugs(part, 'lasting'));
  const shares = sharesBetween(inlets, plugged, (kind) => (isCard ? (plugWatts[kind] ?? 0) : 1));
  const draws = inlets.map((inlet) => {
    const share = boundToBe(shares.get(inlet.id), `share of ${inlet.id}`);
    const at = eachMoment((moment) => times(plus(throughPlugs(part, moment), started(part, moment, staggered)), share));
    return drawOf(inlet, at, times(startingWatts(part), part.quantity * share));
  });
  return { draws, main: eachMoment((moment) => besidePlugs(part, moment)) };
}

/** What comes through the board: main connectors by their contacts, its own card inlets with part of the slots. */
function boardDraws(parts: readonly MachinePart[], main: Moments): readonly InletDraw[] {
  const inlets = parts.flatMap((part) =>
    part.inlets.filter((inlet) => isMainInlet(inlet) || (groupOf(part) === 'board' && isCardInlet(inlet))),
  );
  const mains = inlets.filter(isMainInlet);
  const helping = inlets.filter((inlet) => isCardInlet(inlet) && !inlet.optional);
  const slots = parts.reduce((sum, part) => sum + slotDraw(part, parts)['+12'], 0);
  // A board's own card inlet takes its part of what the slots draw.
  const helped = mains.length === 0 ? slots : (slots * helping.length) / (helping.length + mains.length);
  const most = Math.min(helped, limits.cardInletWatts['card-6'] * helping.length);
  const help = (moment: Moment) => Math.min(most, main[moment]['+12']);
  const contacts = (inlet: Inlet, rail: LoadRail) => mainContacts[inlet.kind]?.[rail] ?? 0;
  const every = onRails((rail) => mains.reduce((sum, one) => sum + contacts(one, rail), 0));
  const contactShare = (inlet: Inlet, rail: LoadRail) => (every[rail] > 0 ? contacts(inlet, rail) / every[rail] : 0);
  const throughMain = (inlet: Inlet, moment: Moment) => {
    const left = { ...main[moment], '+12': main[moment]['+12'] - help(moment) };
    return onRails((rail) => left[rail] * contactShare(inlet, rail));
  };
  const throughCard = (inlet: Inlet, moment: Moment) => ({
    ...nothing,
    '+12': helping.includes(inlet) ? help(moment) / helping.length : 0,
  });
  return inlets.map((inlet) =>
    drawOf(
      inlet,
      eachMoment((moment) => (isMainInlet(inlet) ? throughMain : throughCard)(inlet, moment)),
    ),
  );
}

/**
 * What each inlet carries at each moment. A card's slot gives what it gives, the rest comes through its inlets by their
 * capacity; the processor's draw is shared over the board's processor inlets, of which an optional one takes no planned
 * load while another is there; a drive's inlet carries the drive; what is left, slots included, comes through the main
 * connector and a card inlet of the board.
 */
export function inletDraws(parts: readonly MachinePart[], { staggered = false } = {}): InletDraw[] {
  const devices = parts.filter((part) => groupOf(part) !== 'processor');
  const shared = [processorDraws(parts), ...devices.map((part) => deviceDraws(part, staggered))];
  const main = shared.map((one) => one.main).reduce(addMoments, noMoments);
  const draws = [...shared.flatMap((one) => one.draws), ...boardDraws(parts, main)];
  const of = new Map(draws.map((draw) => [draw.inletId, draw]));
  return parts.flatMap((part) => part.inlets).flatMap(({ id }) => of.get(id) ?? []);
}

/** What the start of a part's drives adds at spin-up where all start at once. */
function started(part: MachinePart, moment: Moment, staggered: boolean): RailWatts {
  return moment === 'spin-up' && !staggered ? times(startingWatts(part), part.quantity) : nothing;
}

/** What one inlet carries when cables are planned, in amps by voltage. */
export interface InletLoad {
  readonly inletId: string;
  readonly watts: number;
  readonly amps: Record<LoadRail, number>;
  /** Where drives start one after the other: amps that this one's start adds over what it draws turning. */
  readonly startAmps: Record<LoadRail, number>;
}

/**
 * What each inlet carries as cables are planned: lasting load; a processor's at the top of its range, since boards lift
 * its limits for long; a drive's at its start where that is more, on each voltage. Where drives start one after the
 * other, the start's extra stands apart and counts once for a cable.
 */
export function inletLoads(parts: readonly MachinePart[], { staggered = false } = {}): InletLoad[] {
  const lifted = parts.map((part) =>
    groupOf(part) === 'processor'
      ? {
          ...part,
          figures: { ...part.figures, likelyWatts: Math.max(part.figures.likelyWatts, part.figures.highWatts) },
        }
      : part,
  );
  return inletDraws(lifted).map(({ inletId, at, starts }): InletLoad => {
    const lasting = onRails((rail) => at.lasting[rail] / railVolts[rail]);
    const more = onRails((rail) => Math.max(0, starts[rail] / railVolts[rail] - lasting[rail]));
    const amps = staggered ? lasting : plus(lasting, more);
    return {
      inletId,
      amps,
      startAmps: staggered ? more : nothing,
      watts: amps['+12'] * 12 + amps['+5'] * 5 + amps['+3.3'] * 3.3,
    };
  });
}
