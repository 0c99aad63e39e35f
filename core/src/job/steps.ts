import { inletFamily, type CableFamily, type InletKind } from '../standards/index.ts';
import { partClass, partsAt, type PartClass } from '../machine/index.ts';
import type { FoundHarm } from '../cable/index.ts';
import { endsNamed, type Cabling, type InletRow } from './cabling.ts';
import { foundHarms } from './found-harms.ts';
import { freeEndsOf, type FreeEnd } from './free-ends.ts';
import type { Hindrance, Job, JobPart, Lead, StepPhase, StepTick } from './job.ts';

export type StepKind =
  | 'power-off'
  | 'strap'
  | 'two-people'
  | 'panel-off'
  | 'cut-ties'
  | 'radiator-off'
  | 'unplug'
  | 'lead-out'
  | 'part-out'
  | 'free-way'
  | 'old-end'
  | 'tray-out'
  | 'latch'
  | 'screws-out'
  | 'last-look'
  | 'bag-old'
  | 'mark-old'
  | 'still-out'
  | 'bag-rest'
  | 'fan-side'
  | 'supply-end'
  | 'screws-in'
  | 'tray-in'
  | 'part-in'
  | 'lay-way'
  | 'plug'
  | 'lead-back'
  | 'radiator-on'
  | 'tie-free'
  | 'tie'
  | 'note-ways'
  | 'recheck'
  | 'panel-on'
  | 'rocker-on';

/** A part that leaves the machine or comes into it with the upgrade. */
export interface StepPart {
  readonly id: string;
  readonly classId: string;
  readonly name: string;
  readonly quantity: number;
  readonly group: PartClass['group'];
  /** It hangs on a riser, whose both ends count. */
  readonly riser: boolean;
}

/** One thing to do, with what is said at it. */
export interface Step {
  /** Stable while the thing to do is the same. */
  readonly id: string;
  readonly phase: StepPhase;
  readonly kind: StepKind;
  /** The inlet that is unplugged or plugged. */
  readonly inlet: { readonly id: string; readonly kind: InletKind; readonly label: string } | null;
  /** What is wrong with the adapter that was found at the inlet; null where nothing is. */
  readonly harm: FoundHarm | null;
  /** What leaves the machine or comes into it. */
  readonly part: StepPart | null;
  /** A lead without supply power that comes off or goes back. */
  readonly lead: Lead | null;
  /** The cable by its label or code. */
  readonly cable: string | null;
  /** The label of the adapter or extension that goes between plug and inlet. */
  readonly through: string | null;
  /** The supply's socket that a cable goes into. */
  readonly socket: string | null;
  /** Clips, holes and hooks, in the order in which they come. */
  readonly way: readonly string[];
  /** Ties to cut, or pieces that stay in the bag. */
  readonly count: number;
  readonly done: { readonly by: string; readonly at: string } | null;
  /** What hangs free once all is plugged. */
  readonly free: readonly FreeEnd[];
  /** Kept elsewhere: a connector by its seat, the recheck by all seats, a lead by its state. */
  readonly derived: boolean;
  /** It stays where it is in the order, since it protects whoever does the rest. */
  readonly fixed: boolean;
}

const familyOrder: readonly CableFamily[] = ['main', 'cpu', 'card-16', 'card', 'drive'];
const byFamily = <T extends { readonly kind: InletKind }>(items: readonly T[]): T[] =>
  familyOrder.flatMap((family) => items.filter((item) => inletFamily(item.kind) === family));

/** Clips and holes as written, one after the other: "front clip, hole 2, top hook". */
export function wayPoints(way: string): string[] {
  return way
    .split(/[,;>→]/)
    .map((point) => point.trim())
    .filter((point) => point !== '');
}

/** What a step's id begins with that takes the old plug out of an inlet; the inlet's id follows. */
const unpluggedStep = 'take-out:unplug:';

/** The inlets whose old plug somebody pulled. */
export const unpluggedInlets = ({ steps }: Pick<Job, 'steps'>): ReadonlySet<string> =>
  new Set(
    steps.flatMap(({ stepId }) => (stepId.startsWith(unpluggedStep) ? [stepId.slice(unpluggedStep.length)] : [])),
  );

/** What hangs loose in an open job: inlets whose plug was pulled and whose new one is not seated yet, and leads. */
export function outNow(job: Job, { rows }: Pick<Cabling, 'rows'>): { readonly plugs: number; readonly leads: number } {
  if (job.state !== 'open') return { plugs: 0, leads: 0 };
  const pulled = unpluggedInlets(job);
  return {
    plugs: rows.filter(({ inletId, state }) => pulled.has(inletId) && state !== 'seated').length,
    leads: job.leads.filter(({ state }) => state === 'out').length,
  };
}

type Draft = Partial<
  Pick<
    Step,
    'inlet' | 'harm' | 'part' | 'lead' | 'cable' | 'through' | 'socket' | 'way' | 'count' | 'free' | 'derived' | 'fixed'
  >
> & {
  readonly done?: Step['done'];
  /** So that a tick stands for nothing else; the inlet or the cable where it is not said. */
  readonly doneTo?: string;
};

/**
 * The steps of taking the old supply out, or of refitting, out of the record, the plan and what stands in the way in
 * this case, in the order of the work unless somebody wanted another. Steps that keep a person safe stay first. The
 * order follows bench practice: main connector, processor, cards, drives; screws with the supply held; supply ends
 * first where there is no room later; cable ways in reverse.
 */
export function stepsOf(job: Job, cabling: Cabling, phase: StepPhase): Step[] {
  const has = (name: Hindrance) => job.sheet.hindrances.includes(name);
  const ticks = new Map(job.steps.map((tick): [string, StepTick] => [tick.stepId, tick]));
  const steps: Step[] = [];
  const add = (kind: StepKind, draft: Draft = {}) => {
    const id = [phase, kind, draft.doneTo ?? draft.inlet?.id ?? draft.cable].filter((piece) => piece != null).join(':');
    const tick = ticks.get(id);
    steps.push({
      id,
      phase,
      kind,
      inlet: draft.inlet ?? null,
      harm: draft.harm ?? null,
      part: draft.part ?? null,
      lead: draft.lead ?? null,
      cable: draft.cable ?? null,
      through: draft.through ?? null,
      socket: draft.socket ?? null,
      way: draft.way ?? [],
      count: draft.count ?? 0,
      free: draft.free ?? [],
      derived: draft.derived ?? false,
      fixed: draft.fixed ?? false,
      done: draft.done !== undefined ? draft.done : tick === undefined ? null : { by: tick.by, at: tick.at },
    });
  };
  if (phase === 'take-out') takeOut(job, cabling, has, add);
  else refit(job, cabling, has, add);
  return ordered(steps, job.stepOrders.find((order) => order.phase === phase)?.stepIds ?? []);
}

const signed = ({ by, at }: Lead): Step['done'] => ({ by, at });

function takeOut(
  job: Job,
  cabling: Cabling,
  has: (name: Hindrance) => boolean,
  add: (kind: StepKind, draft?: Draft) => void,
): void {
  const present = partsAt(job.parts, 'present').flatMap((part) => part.inlets);
  add('power-off', { fixed: true });
  add('strap', { fixed: true });
  if (has('heavy')) add('two-people', { fixed: true });
  add('panel-off');
  const ties = job.cables.reduce((sum, cable) => sum + cable.tiesToCut, 0);
  if (ties > 0) add('cut-ties', { count: ties, doneTo: String(ties) });
  const replacing = cabling.basis === 'plan';
  const harms = foundHarms(job);
  // With a kept supply only what leaves comes out, and whatever hangs on an adapter that must not stay.
  const leaving = replacing
    ? present
    : present.filter((inlet) => harms.has(inlet.id) || !cabling.rows.some((row) => row.inletId === inlet.id));
  const cableOf = (inletId: string) => job.cables.find((cable) => cable.plugs.some((plug) => plug.inletId === inletId));
  let radiator = has('radiator');
  for (const inlet of byFamily(leaving)) {
    if (radiator && inletFamily(inlet.kind) === 'cpu') {
      add('radiator-off');
      radiator = false;
    }
    add('unplug', {
      inlet: { id: inlet.id, kind: inlet.kind, label: inlet.label },
      cable: cableOf(inlet.id)?.label ?? null,
      harm: harms.get(inlet.id) ?? null,
    });
  }
  for (const lead of job.leads.filter(({ state }) => state !== 'untouched'))
    add('lead-out', { lead, doneTo: lead.id, derived: true, done: lead.state === 'recorded' ? null : signed(lead) });
  for (const part of leavingParts(job)) add('part-out', { part, doneTo: `${part.id} ${part.classId}` });
  if (!replacing) return;
  for (const cable of job.cables)
    if (wayPoints(cable.way).length > 0)
      add('free-way', { cable: cable.label, way: [...wayPoints(cable.way)].reverse() });
  const modular = job.cables.filter(({ socketLabel }) => socketLabel !== '');
  const oldEnds = () => {
    for (const { label, socketLabel } of modular)
      add('old-end', { cable: label, socket: socketLabel, doneTo: `${label} ${socketLabel}` });
  };
  if (!has('tight')) oldEnds();
  if (has('tray')) add('tray-out');
  if (has('latch')) add('latch');
  add('screws-out');
  add('last-look');
  if (has('tight')) oldEnds();
  if (modular.length > 0) add('bag-old', { count: modular.length, doneTo: String(modular.length) });
  add('mark-old');
}

const groupOrder: readonly PartClass['group'][] = ['board', 'processor', 'memory', 'cooling', 'drive', 'other', 'card'];

/** Cards last, since what they stand over has to be reached first; the other way round when they come out. */
function stepParts(job: Pick<Job, 'parts' | 'leads'>, changes: readonly JobPart['change'][]): StepPart[] {
  const riser = job.leads.some(({ kind }) => kind === 'riser');
  return job.parts
    .filter(({ change }) => changes.includes(change))
    .map(({ id, classId, name, quantity }): StepPart => {
      const { group, name: className } = partClass(classId) ?? { group: 'other', name: '' };
      return {
        id,
        classId,
        name: name.trim() === '' ? className : name,
        quantity,
        group,
        riser: riser && group === 'card',
      };
    })
    .sort((a, b) => groupOrder.indexOf(a.group) - groupOrder.indexOf(b.group));
}

const leavingParts = (job: Pick<Job, 'parts' | 'leads'>) => stepParts(job, ['removed', 'replaced']).reverse();
const comingParts = (job: Pick<Job, 'parts' | 'leads'>) => stepParts(job, ['added']);

type SupplyEnd = Pick<Draft, 'doneTo'> & { readonly cable: string; readonly socket: string };

/**
 * Each end of a cable that goes into a socket of the supply; of a kept one, those that come new. What is ticked is the
 * piece in its socket, since the code of a cable changes with the plan.
 */
function supplyEndsOf(job: Pick<Job, 'cables'>, { basis, rows, kit }: Cabling): SupplyEnd[] {
  const there = new Set(basis === 'plan' ? [] : job.cables.map(({ label }) => label));
  const ends = rows
    .flatMap((row) => [row, ...row.legs])
    .flatMap(({ cableCode, socketLabel, kitCableId, copy }): SupplyEnd[] =>
      cableCode === null || socketLabel === null || kitCableId === null || there.has(cableCode)
        ? []
        : endsNamed(kit, socketLabel).map((socket) => ({
            cable: cableCode,
            socket,
            doneTo: [kitCableId, copy, socket].join(' '),
          })),
    );
  const once = [...new Map(ends.map((end) => [`${end.cable} ${end.socket}`, end])).values()];
  return once.sort((a, b) => a.cable.localeCompare(b.cable, 'en', { numeric: true }));
}

function refit(
  job: Job,
  cabling: Cabling,
  has: (name: Hindrance) => boolean,
  add: (kind: StepKind, draft?: Draft) => void,
): void {
  add('still-out', { fixed: true });
  const replacing = cabling.basis === 'plan';
  // Each cable of a modular supply has an end here as well, some have two, and each goes in by its socket's name.
  const supplyEnds = () => supplyEndsOf(job, cabling).forEach((end) => add('supply-end', end));
  if (replacing) {
    const bagged = cabling.plan?.bagged.reduce((sum, piece) => sum + piece.count, 0) ?? 0;
    if (bagged > 0) add('bag-rest', { count: bagged, doneTo: String(bagged) });
    if (has('tight')) supplyEnds();
    add('fan-side');
    add('screws-in');
    if (has('tray')) add('tray-in');
    if (!has('tight')) supplyEnds();
  } else supplyEnds();
  for (const part of comingParts(job)) add('part-in', { part, doneTo: `${part.id} ${part.classId}` });
  if (has('clips'))
    for (const cable of job.cables)
      if (wayPoints(cable.way).length > 0) add('lay-way', { cable: cable.label, way: wayPoints(cable.way) });
  const rows = byFamily(
    cabling.rows.filter(({ cableCode, state }) => cableCode !== null && state !== 'wrong' && state !== 'stays'),
  );
  for (const row of rows)
    add('plug', {
      inlet: { id: row.inletId, kind: row.kind, label: row.label },
      cable: row.cableCode,
      through: row.adapterLabel,
      derived: true,
      done: row.state === 'seated' && row.seat !== null ? { by: row.seat.by, at: row.seat.at } : null,
    });
  for (const lead of job.leads.filter(({ state }) => state === 'out' || state === 'back'))
    add('lead-back', { lead, doneTo: lead.id, derived: true, done: lead.state === 'back' ? signed(lead) : null });
  if (has('radiator')) add('radiator-on');
  const free = freeEndsOf(cabling);
  if (free.length > 0) add('tie-free', { free, doneTo: String(free.length) });
  add('tie');
  if (rows.length > 0) add('note-ways');
  if (rows.length > 0) addRecheck(rows, add);
  add('panel-on');
  add('rocker-on');
}

/** Tying up undoes what was seated: it is looked at once more. */
function addRecheck(rows: readonly InletRow[], add: (kind: StepKind, draft?: Draft) => void): void {
  const rechecked = rows.every((row) => row.seat?.rechecked != null && row.state === 'seated');
  const last = rows.flatMap((row) => row.seat?.rechecked ?? []).sort((a, b) => b.at.localeCompare(a.at))[0];
  add('recheck', { derived: true, done: rechecked && last !== undefined ? { by: last.by, at: last.at } : null });
}

/** Steps in the wanted order; those that nobody placed stay behind the step they naturally follow. */
function ordered(steps: readonly Step[], wanted: readonly string[]): Step[] {
  if (wanted.length === 0) return [...steps];
  const rank = new Map(wanted.map((id, index) => [id, index]));
  const rankOf = ({ id }: Step) => rank.get(id) ?? wanted.length;
  const fixed = steps.filter((step) => step.fixed);
  const placed = steps.filter((step) => !step.fixed && rank.has(step.id)).sort((a, b) => rankOf(a) - rankOf(b));
  const rest = steps.filter((step) => !step.fixed && !rank.has(step.id));
  for (const step of rest) {
    const natural = steps.indexOf(step);
    const before = [...steps.slice(0, natural)].reverse().find((other) => placed.includes(other));
    placed.splice(before === undefined ? 0 : placed.indexOf(before) + 1, 0, step);
  }
  return [...fixed, ...placed];
}
