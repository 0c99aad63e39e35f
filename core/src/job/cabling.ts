import { comesApart, leftBeside, plugServes, type InletKind, type PlugKind } from '../standards/index.ts';
import { partsAt, type CasePlace, type Inlet } from '../machine/index.ts';
import {
  allowedAdapters,
  breachConcerns,
  checkPlan,
  foundHarm,
  planCables,
  socketsNamed,
  spareId,
  sparesFor,
  usualPlace,
  type Adapter,
  type CableBags,
  type Assignment,
  type CableKit,
  type FoundHarm,
  type InletToServe,
  type OpenReason,
  type CablePlan,
  type PlanBreach,
  type PlanRules,
  type Socket,
} from '../cable/index.ts';
import { inletsToServe, type SupplyModel } from '../supply/index.ts';
import { keptPlan, presentModel } from './kept-supply.ts';
import type { Job, JobPart, Seat } from './job.ts';
import type { ShopSettings } from './shop.ts';

/**
 * `wrong`: a hand put a plug there that does not belong. `stays`: the supply is kept, and nothing asks for this plug to
 * come out; it can still be ticked as looked at.
 */
export type SeatState = 'seated' | 'to-seat' | 'stays' | 'open' | 'wrong';

/** One end of a cable at an inlet. */
export interface CableEnd {
  readonly cableCode: string;
  readonly socketLabel: string | null;
  readonly plugKind: PlugKind;
  readonly plugIndex: number;
  readonly kitCableId: string | null;
  readonly copy: number | null;
}

/** One inlet of the machine as it will be, with the plug that goes to it and how far that is. */
export interface InletRow {
  readonly inletId: string;
  readonly partId: string;
  readonly kind: InletKind;
  readonly label: string;
  readonly partName: string;
  readonly optional: boolean;
  readonly place: CasePlace;
  readonly state: SeatState;
  readonly cableCode: string | null;
  readonly socketLabel: string | null;
  readonly plugKind: PlugKind | null;
  readonly plugIndex: number | null;
  readonly kitCableId: string | null;
  readonly copy: number | null;
  /** The adapter or extension between plug and inlet. */
  readonly adapterId: string | null;
  /** Its label in the shop's bags. */
  readonly adapterLabel: string | null;
  /** The further cables that feed an adapter. */
  readonly legs: readonly CableEnd[];
  readonly pinned: boolean;
  readonly slackMillimetres: number | null;
  readonly openReason: OpenReason | null;
  readonly breaches: readonly PlanBreach[];
  readonly seat: Seat | null;
}

/** The cables that come to an inlet: one, or one for each leg of an adapter; none where it is open. */
export function cableEnds(row: InletRow): readonly Pick<CableEnd, 'cableCode' | 'socketLabel'>[] {
  return row.cableCode === null ? [] : [{ cableCode: row.cableCode, socketLabel: row.socketLabel }, ...row.legs];
}

/** The ends of a cable at the supply, each by its socket: one, or two where its name is that of two sockets. */
export function endsNamed(
  kit: { readonly sockets: readonly Pick<Socket, 'label'>[] } | null,
  socketLabel: string,
): readonly string[] {
  const sockets = kit === null ? null : socketsNamed(kit, socketLabel);
  return sockets === null ? [socketLabel] : sockets.map(({ label }) => label);
}

/** A plug of the record that does not belong into the inlet that it is said to go to. */
export interface Misfit {
  readonly cableId: string;
  readonly inletId: string;
  readonly plugKind: PlugKind;
  /** What is wrong with the adapter that was found between them; null where there is none. */
  readonly harm: FoundHarm | null;
}

/** What goes where in this job. */
export interface Cabling {
  /** From the plan of the chosen supply, or from the record when the present one is kept. */
  readonly basis: 'plan' | 'record' | 'none';
  readonly rows: readonly InletRow[];
  readonly plan: CablePlan | null;
  /**
   * What the plan was made from: the supply's kit with the spare cables it may use; of a kept supply where it is known.
   */
  readonly kit: CableKit | null;
  readonly inlets: readonly InletToServe[];
  readonly rules: PlanRules;
  /** Plugs of the record that fit no inlet they are said to go to, also by an adapter that may not be. */
  readonly misfits: readonly Misfit[];
  /** What the moves by hand break. */
  readonly breaches: readonly PlanBreach[];
}

interface Place extends CableEnd {
  readonly slackMillimetres: number | null;
  readonly adapterId: string | null;
  readonly pinned: boolean;
  readonly legs: readonly CableEnd[];
  readonly wrong: boolean;
}

/**
 * What a plug of a plan is, with what is between it and its inlet, whatever code its cable has at the moment; empty for
 * a recorded cable.
 */
export function pieceOf(row: Pick<InletRow, 'kitCableId' | 'copy' | 'plugKind' | 'socketLabel' | 'adapterId'>): string {
  const { kitCableId, copy, plugKind, socketLabel, adapterId } = row;
  if (kitCableId === null) return '';
  const between = adapterId === null ? [] : [adapterId];
  return [kitCableId, copy, plugKind, socketLabel ?? 'fixed', ...between].join(' ');
}

/** The spare cables from the shop's bags that were ticked in this job, by their ids, as pieces name them. */
export const sparesTicked = (job: Pick<Job, 'seats'>): string[] => [
  ...new Set(job.seats.flatMap((seat) => spareId(seat.piece.split(' ')[0] ?? '') ?? [])),
];

/**
 * A tick counts only for the plug that still goes to this inlet, and for an inlet of the kind that was ticked: the same
 * piece in the same socket where there is a plan, the same cable of the record otherwise.
 */
function seatFor(job: Job, inlet: { readonly id: string; readonly kind: InletKind }, place: Place): Seat | null {
  const piece = pieceOf(place);
  return (
    job.seats.find(
      (seat) =>
        seat.inletId === inlet.id &&
        seat.plugIndex === place.plugIndex &&
        (seat.inletKind === null || seat.inletKind === inlet.kind) &&
        (piece !== '' && seat.piece !== '' ? seat.piece === piece : seat.cableCode === place.cableCode),
    ) ?? null
  );
}

export type SeatCheck = 'click' | 'tug' | 'gap' | 'halves' | 'bend' | 'panel';

/**
 * What a connector is looked at for: each for click, tug and gap, split plugs for both halves, a 16-pin one for bend
 * and panel.
 */
export function seatChecks(inletKind: InletKind, plugKind: PlugKind): readonly SeatCheck[] {
  const split = comesApart(plugKind) && leftBeside(plugKind, inletKind) === null;
  return [
    'click',
    'tug',
    'gap',
    ...(split ? ['halves' as const] : []),
    ...(inletKind === 'card-16' ? ['bend' as const, 'panel' as const] : []),
  ];
}

/** Is a connector seated, by everything its kind asks for? */
export function isSeated(seat: Seat | null, inletKind: InletKind, plugKind: PlugKind): boolean {
  return seat !== null && seatChecks(inletKind, plugKind).every((check) => seat[check]);
}

const noPlace = {
  cableCode: null,
  socketLabel: null,
  plugKind: null,
  plugIndex: null,
  kitCableId: null,
  copy: null,
  adapterId: null,
  legs: [],
  pinned: false,
  slackMillimetres: null,
} as const;

/** What a row says of its inlet, whatever goes to it. */
export const inletOfRow = (
  part: Pick<JobPart, 'id' | 'name'>,
  inlet: Inlet,
): Pick<InletRow, 'inletId' | 'partId' | 'kind' | 'label' | 'partName' | 'optional' | 'place'> => ({
  inletId: inlet.id,
  partId: part.id,
  kind: inlet.kind,
  label: inlet.label,
  partName: part.name,
  optional: inlet.optional,
  place: inlet.place ?? usualPlace(inlet.kind),
});

/** The adapters that a plan may use: all that are allowed, or by the shop's rule only those that somebody wished. */
function adaptersFor({ pins }: Pick<Job, 'pins'>, bags: CableBags, all: boolean): readonly Adapter[] {
  const allowed = allowedAdapters(bags);
  if (all) return allowed;
  return allowed.flatMap((adapter) => {
    const wished = pins.filter((pin) => pin.adapterId === adapter.id).length;
    return wished === 0 ? [] : [{ ...adapter, count: Math.min(adapter.count, wished) }];
  });
}

/** What a plan for this supply may be made of and must keep to. */
export function planGround(
  job: Pick<Job, 'pins'>,
  chosen: SupplyModel,
  bags: CableBags,
  settings: ShopSettings,
): { readonly kit: CableKit; readonly rules: PlanRules } {
  const { choosing } = settings;
  return {
    kit: choosing.spareCables
      ? { ...chosen.kit, cables: [...chosen.kit.cables, ...sparesFor(bags, chosen.id)] }
      : chosen.kit,
    rules: {
      allowShared: choosing.sharedCardCable,
      adapters: adaptersFor(job, bags, choosing.adapters),
      pins: job.pins,
    },
  };
}

/** Notes where each inlet's plug comes from; the further legs of an adapter stand beside its first. */
function placeAssignments(places: Map<string, Place>, assignments: readonly Assignment[]): void {
  for (const item of assignments) {
    const first = places.get(item.inletId);
    const end: CableEnd = {
      cableCode: item.cableCode,
      socketLabel: item.socketLabel,
      plugKind: item.plugKind,
      plugIndex: item.plugIndex,
      kitCableId: item.kitCableId,
      copy: item.copy,
    };
    places.set(
      item.inletId,
      first === undefined ? { ...item, legs: [], wrong: false } : { ...first, legs: [...first.legs, end] },
    );
  }
}

/** With a kept supply the plug of a part that stays is not touched, where somebody looked at its cable. */
const staysIn = (job: Job, part: Pick<JobPart, 'change'>, { kitCableId, cableCode }: Place): boolean =>
  job.choice?.kind === 'keep' &&
  part.change === 'stays' &&
  kitCableId === null &&
  job.cables.some(({ label, likely }) => label === cableCode && likely !== true);

/** What cabling needs of the shop. */
interface ShopForCabling {
  readonly bags: CableBags;
  readonly settings: ShopSettings;
  readonly supplies?: readonly SupplyModel[];
}

/** What plan or record say, before the ticks: where plugs go, and why they do not. */
interface Ground extends Omit<Cabling, 'rows' | 'inlets'> {
  readonly places: ReadonlyMap<string, Place>;
  readonly reasons: ReadonlyMap<string, OpenReason>;
}

const noGround = (settings: ShopSettings): Ground => ({
  basis: 'none',
  plan: null,
  kit: null,
  rules: { allowShared: settings.choosing.sharedCardCable, adapters: [], pins: [] },
  misfits: [],
  breaches: [],
  places: new Map(),
  reasons: new Map(),
});

/** A supply that is replaced: its kit is planned. */
function plannedGround(job: Job, chosen: SupplyModel, shop: ShopForCabling, inlets: readonly InletToServe[]): Ground {
  const { kit, rules } = planGround(job, chosen, shop.bags, shop.settings);
  const plan = planCables(kit, inlets, rules);
  const places = new Map<string, Place>();
  placeAssignments(places, plan.assignments);
  for (const item of plan.wrong) places.set(item.inletId, { ...noPlace, ...item, pinned: true, wrong: true });
  return {
    ...noGround(shop.settings),
    basis: 'plan',
    plan,
    kit,
    rules,
    breaches: checkPlan(kit, inlets, plan.assignments, rules),
    places,
    reasons: new Map(plan.open.map(({ inletId, reason }) => [inletId, reason])),
  };
}

/** What was recorded of the harness: plugs that fit their inlets, and those that do not. */
function recordedPlaces(
  job: Job,
  inlets: readonly InletToServe[],
): { readonly places: Map<string, Place>; readonly misfits: readonly Misfit[] } {
  const places = new Map<string, Place>();
  const misfits: Misfit[] = [];
  const plugs = job.cables.flatMap((cable) => cable.plugs.map((plug, plugIndex) => ({ cable, plug, plugIndex })));
  for (const { cable, plug, plugIndex } of plugs) {
    const inlet = inlets.find(({ id }) => id === plug.inletId);
    if (inlet === undefined) continue;
    const { kind: plugKind, through } = plug;
    const given = through?.gives ?? plugKind;
    const harm = through === undefined ? null : foundHarm(plugKind, through, inlet);
    if (harm !== null || !plugServes(given, inlet.kind))
      misfits.push({ cableId: cable.id, inletId: inlet.id, plugKind, harm });
    else {
      const socketLabel = cable.socketLabel === '' ? null : cable.socketLabel;
      places.set(inlet.id, {
        ...noPlace,
        cableCode: cable.label,
        socketLabel,
        plugKind: given,
        plugIndex,
        wrong: false,
      });
    }
  }
  return { places, misfits };
}

/** A supply that is kept: the recorded harness; what that leaves open is planned around it from the kit, if known. */
function recordedGround(job: Job, shop: ShopForCabling, inlets: readonly InletToServe[]): Ground {
  const { places, misfits } = recordedPlaces(job, inlets);
  const kept = job.choice?.kind === 'keep' ? presentModel(job, shop.supplies ?? []) : null;
  const recorded: Ground = {
    ...noGround(shop.settings),
    basis: 'record',
    kit: kept?.kit ?? null,
    misfits,
    places,
  };
  const open = new Set(inlets.map(({ id }) => id).filter((id) => !places.has(id)));
  if (kept === null || open.size === 0) return recorded;
  const { kit, rules } = planGround({ pins: [] }, kept, shop.bags, shop.settings);
  const { plan, added } = keptPlan(job.cables, kit, rules, inlets, open);
  placeAssignments(places, added);
  const stillOpen = plan.open.filter(({ inletId }) => open.has(inletId));
  return { ...recorded, kit, reasons: new Map(stillOpen.map(({ inletId, reason }) => [inletId, reason])) };
}

function stateOf(job: Job, part: JobPart, inlet: Inlet, place: Place | null, seat: Seat | null): SeatState {
  if (place === null) return 'open';
  if (place.wrong) return 'wrong';
  if (isSeated(seat, inlet.kind, place.plugKind)) return 'seated';
  return seat === null && staysIn(job, part, place) ? 'stays' : 'to-seat';
}

/** One inlet: what goes to it, and what has been ticked of that. */
function rowOf(job: Job, ground: Ground, adapters: CableBags['adapters'], part: JobPart, inlet: Inlet): InletRow {
  const place = ground.places.get(inlet.id) ?? null;
  const seat = place === null ? null : seatFor(job, inlet, place);
  const where = place ?? noPlace;
  return {
    ...inletOfRow(part, inlet),
    state: stateOf(job, part, inlet, place, seat),
    cableCode: where.cableCode,
    socketLabel: where.socketLabel,
    plugKind: where.plugKind,
    plugIndex: where.plugIndex,
    kitCableId: where.kitCableId,
    copy: where.copy,
    adapterId: where.adapterId,
    adapterLabel: adapters.find(({ id }) => id === where.adapterId)?.label ?? null,
    legs: where.legs,
    pinned: where.pinned,
    slackMillimetres: where.slackMillimetres,
    openReason: ground.reasons.get(inlet.id) ?? null,
    breaches: ground.breaches.filter((breach) => breachConcerns(breach, inlet.id, where.cableCode)),
    seat,
  };
}

/**
 * Joins plan or record with the ticks. Kit for `replace`, the recorded harness for `keep`; what the record of a kept
 * supply leaves open is planned from its kit around it, where the shop's list has that supply.
 */
export function cablingOf(
  job: Job,
  chosen: SupplyModel | null,
  shop: ShopForCabling,
  parts: readonly JobPart[] = job.parts,
): Cabling {
  const planned = partsAt(parts, 'planned');
  const inlets = inletsToServe(planned, job.sheet.layout, { staggered: job.sheet.staggeredStart });
  const ground =
    job.choice?.kind === 'replace' && chosen !== null
      ? plannedGround(job, chosen, shop, inlets)
      : job.cables.length > 0
        ? recordedGround(job, shop, inlets)
        : noGround(shop.settings);
  const rows = planned.flatMap((part) =>
    part.inlets.map((inlet) => rowOf(job, ground, shop.bags.adapters, part, inlet)),
  );
  const { basis, plan, kit, rules, misfits, breaches } = ground;
  return { basis, rows, plan, kit, inlets, rules, misfits, breaches };
}

/** What became of an inlet's cable between before and after. */
export interface HarnessChange {
  readonly inletId: string;
  readonly label: string;
  readonly before: { readonly cable: string; readonly socketLabel: string | null } | null;
  /** `through`: the label of the adapter or extension between plug and inlet. */
  readonly after: {
    readonly cable: string;
    readonly socketLabel: string | null;
    readonly through: string | null;
  } | null;
  /** `gone`: the part leaves the machine. `not-recorded`: nobody wrote down what was there. */
  readonly word: 'same' | 'replaced' | 'new' | 'gone' | 'open' | 'not-recorded';
}

/** Before against after, inlet by inlet: those of the machine as it will be first, then those that leave it. */
export function harnessChanges(job: Job, cabling: Cabling): HarnessChange[] {
  const present = new Set(partsAt(job.parts, 'present').flatMap((part) => part.inlets.map((inlet) => inlet.id)));
  const beforeOf = (inletId: string) => {
    const cable = job.cables.find((item) => item.plugs.some((plug) => plug.inletId === inletId));
    return cable === undefined
      ? null
      : { cable: cable.label, socketLabel: cable.socketLabel === '' ? null : cable.socketLabel };
  };
  const staying = cabling.rows.map((row): HarnessChange => {
    const before = beforeOf(row.inletId);
    const after =
      row.cableCode === null ? null : { cable: row.cableCode, socketLabel: row.socketLabel, through: row.adapterLabel };
    const word =
      after === null
        ? 'open'
        : before === null
          ? present.has(row.inletId)
            ? 'not-recorded'
            : 'new'
          : cabling.basis === 'record'
            ? 'same'
            : 'replaced';
    return { inletId: row.inletId, label: row.label, before, after, word };
  });
  const stays = new Set(cabling.rows.map((row) => row.inletId));
  const leaving = partsAt(job.parts, 'present')
    .flatMap((part) => part.inlets)
    .filter((inlet) => !stays.has(inlet.id))
    .map((inlet): HarnessChange => ({
      inletId: inlet.id,
      label: inlet.label,
      before: beforeOf(inlet.id),
      after: null,
      word: 'gone',
    }));
  return [...staying, ...leaving];
}
