import type { Act } from './act.ts';
import { inletKindOf } from './fitting.ts';
import type { Job, Reading, RecordedCable, Seat, SheetField } from './job.ts';
import { laidWayOf } from './laid-ways.ts';
import { standingProof } from './proofs.ts';
import { changedBy, standingAt, standingOutcome } from './subject.ts';

/** What is written of something by the act that puts it, and never said by it. */
const unsaid: ReadonlySet<string> = new Set(['version', 'by', 'at']);

/** What an act carries of something: all of it but its version and who wrote it when. */
function contentOf<T extends object>(item: T): Omit<T, 'version' | 'by' | 'at'> {
  const rest = Object.entries(item).filter(([key]) => !unsaid.has(key));
  return Object.fromEntries(rest) as Omit<T, 'version' | 'by' | 'at'>;
}

/** `basedOn` of an act that is based on what stands when it is done. */
const anew = { basedOn: 0 } as const;

const putCable = (cable: RecordedCable): Act => ({ kind: 'put-cable', cable: contentOf(cable), ...anew });

/**
 * A tick as it stood. One that was given to an inlet of another kind counted for nothing, and is not given to the inlet
 * as it is now.
 */
function putSeat(job: Job, { rechecked, inletKind, ...seat }: Seat): Act[] {
  if (inletKind !== null && inletKind !== inletKindOf(job, seat.inletId)) return [];
  const put: Act = { kind: 'put-seat', seat: contentOf(seat), ...anew };
  return rechecked === null ? [put] : [put, { kind: 'recheck-seats', inletIds: [seat.inletId] }];
}

/** A plug that nobody has looked at: every tick of it open. */
const openSeat = ({ inletId, cableCode, piece, plugIndex }: Seat): Act => ({
  kind: 'put-seat',
  seat: {
    ...{ inletId, cableCode, piece, plugIndex },
    ...{ click: false, tug: false, gap: false, halves: false, bend: false, panel: false },
  },
  ...anew,
});

/** What stood with the parts as they were, and went or changed with an inlet that went. */
function lostWithInlets(before: Job, after: Job): Act[] {
  const plugsOf = (job: Job, id: string) => JSON.stringify(job.cables.find((cable) => cable.id === id)?.plugs);
  return [
    ...before.cables.filter(({ id }) => plugsOf(before, id) !== plugsOf(after, id)).map(putCable),
    ...before.pins
      .filter(({ inletId }) => after.pins.every((pin) => pin.inletId !== inletId))
      .map((pin): Act => ({ kind: 'put-pin', pin: contentOf(pin), ...anew })),
    ...before.seats
      .filter(({ inletId }) => after.seats.every((seat) => seat.inletId !== inletId))
      .flatMap((seat) => putSeat(before, seat)),
  ];
}

/** What puts something back as it stood, or takes it away where nothing stood. */
const backTo = <T extends object>(
  item: T | null | undefined,
  put: (content: Omit<T, 'version' | 'by' | 'at'>) => Act,
  drop: Act,
): Act[] => [item == null ? drop : put(contentOf(item))];
const itsId = <T extends { readonly id: string }>(list: readonly T[], id: string): T | undefined =>
  list.find((item) => item.id === id);

function notedAgain(before: Job, outcomeId: string | null, newId: () => string): Act[] {
  const noted = before.outcomes.find(({ id }) => id === outcomeId);
  if (noted === undefined) return [];
  const { checkId, outcomeId: answer, instrumentId } = noted;
  return [{ kind: 'note-outcome', id: newId(), checkId, outcomeId: answer, instrumentId }];
}

const isStruck = (job: Job, id: string) =>
  job.readings.some((reading) => reading.id === id && reading.struckAt !== null);
const strike = (id: Reading['id']): Act => ({ kind: 'strike-reading', id });
const restore = (id: Reading['id']): Act => ({ kind: 'restore-reading', id });

/** A job before and after an act, and ids for what is written anew. */
interface Turn {
  readonly before: Job;
  readonly after: Job;
  readonly newId: () => string;
}

type ActOf<K extends Act['kind']> = Extract<Act, { readonly kind: K }>;
type Back<K extends Act['kind']> = (act: ActOf<K>, turn: Turn) => Act[];

const backPart = (act: ActOf<'put-part' | 'drop-part'>, { before, after }: Turn): Act[] => {
  const id = act.kind === 'put-part' ? act.part.id : act.partId;
  const part = before.parts.find((one) => one.id === id);
  if (part === undefined) return [{ kind: 'drop-part', partId: id, ...anew }];
  return [{ kind: 'put-part', part: contentOf(part), ...anew }, ...lostWithInlets(before, after)];
};

const backSupply = (_act: ActOf<'put-supply' | 'drop-supply'>, { before }: Turn): Act[] =>
  backTo(before.supply, (supply) => ({ kind: 'put-supply', supply, ...anew }), {
    kind: 'drop-supply',
    ...anew,
  });

const backProbe = (act: ActOf<'put-probe' | 'drop-probe'>, { before }: Turn): Act[] => {
  const probeId = act.kind === 'put-probe' ? act.probe.id : act.probeId;
  const drop: Act = { kind: 'drop-probe', probeId, ...anew };
  return backTo(itsId(before.probes, probeId), (probe) => ({ kind: 'put-probe', probe, ...anew }), drop);
};

const backLog = (act: ActOf<'put-log' | 'drop-log'>, { before }: Turn): Act[] => {
  const logId = act.kind === 'put-log' ? act.log.id : act.logId;
  const drop: Act = { kind: 'drop-log', logId, ...anew };
  return backTo(itsId(before.logs, logId), (log) => ({ kind: 'put-log', log, ...anew }), drop);
};

const backCable = (act: ActOf<'put-cable' | 'drop-cable'>, { before }: Turn): Act[] => {
  const cableId = act.kind === 'put-cable' ? act.cable.id : act.cableId;
  const drop: Act = { kind: 'drop-cable', cableId, ...anew };
  return backTo(itsId(before.cables, cableId), (cable) => ({ kind: 'put-cable', cable, ...anew }), drop);
};

const backPin = (act: ActOf<'put-pin' | 'drop-pin'>, { before }: Turn): Act[] => {
  const inletId = act.kind === 'put-pin' ? act.pin.inletId : act.inletId;
  const pin = before.pins.find((one) => one.inletId === inletId);
  return backTo(pin, (put) => ({ kind: 'put-pin', pin: put, ...anew }), { kind: 'drop-pin', inletId, ...anew });
};

const backLead = (act: ActOf<'put-lead' | 'drop-lead'>, { before }: Turn): Act[] => {
  const leadId = act.kind === 'put-lead' ? act.lead.id : act.leadId;
  const drop: Act = { kind: 'drop-lead', leadId, ...anew };
  return backTo(itsId(before.leads, leadId), (lead) => ({ kind: 'put-lead', lead, ...anew }), drop);
};

const backNote = (act: ActOf<'put-note' | 'drop-note'>, { before }: Turn): Act[] => {
  const noteId = act.kind === 'put-note' ? act.note.id : act.noteId;
  const drop: Act = { kind: 'drop-note', noteId, ...anew };
  return backTo(itsId(before.notes, noteId), (note) => ({ kind: 'put-note', note, ...anew }), drop);
};

const backProof = (act: ActOf<'note-proof' | 'drop-proof'>, { before }: Turn): Act[] => {
  const { item } = act;
  const proof = standingProof(before, item);
  if (proof === null) return [{ kind: 'drop-proof', item, ...anew }];
  const { holds, note } = proof;
  return [{ kind: 'note-proof', item, holds, note, ...anew }];
};

const backClose = (): Act[] => [{ kind: 'reopen', ...anew }];

const backOf: { readonly [K in Act['kind']]: Back<K> } = {
  'edit-sheet': (act, { before, after }) => {
    const fields = Object.keys(act.changes) as SheetField[];
    const changed = fields.filter(
      (field) => JSON.stringify(before.sheet[field]) !== JSON.stringify(after.sheet[field]),
    );
    if (changed.length === 0) return [];
    const changes = Object.fromEntries(changed.map((field) => [field, before.sheet[field]]));
    return [{ kind: 'edit-sheet', changes, ...anew }];
  },
  'put-part': backPart,
  'drop-part': backPart,
  'put-supply': backSupply,
  'drop-supply': backSupply,
  'note-outcome': (act, { before, newId }) => [
    { kind: 'take-back-outcome', id: act.id },
    ...notedAgain(before, standingOutcome(before, act.checkId), newId),
  ],
  'take-back-outcome': (act, { before, newId }) =>
    notedAgain(before, before.outcomes.find((one) => one.id === act.id && one.takenBackAt === null)?.id ?? null, newId),
  'take-reading': (act) => [strike(act.reading.id)],
  'correct-reading': (act) => [
    strike(act.reading.id),
    ...(act.reading.replaces === null ? [] : [restore(act.reading.replaces)]),
  ],
  'strike-reading': (act, { before }) => (isStruck(before, act.id) ? [] : [restore(act.id)]),
  'restore-reading': (act, { before }) => (isStruck(before, act.id) ? [strike(act.id)] : []),
  'put-probe': backProbe,
  'drop-probe': backProbe,
  'put-log': backLog,
  'drop-log': backLog,
  'set-finding': (_act, { before, after }) =>
    before.finding === null && after.finding === null
      ? []
      : [{ kind: 'set-finding', finding: before.finding === null ? null : contentOf(before.finding), ...anew }],
  'set-choice': (_act, { before, after }) =>
    before.choice === null && after.choice === null
      ? []
      : [{ kind: 'set-choice', choice: before.choice === null ? null : contentOf(before.choice), ...anew }],
  'put-cable': backCable,
  'drop-cable': backCable,
  'swap-inlets': (act, { before }) => {
    const { inletId, otherInletId, cableId, otherCableId } = act;
    const back: Act = { ...act, inletId: otherInletId, otherInletId: inletId };
    const likely = before.cables.filter(
      (cable) => cable.likely === true && (cable.id === cableId || cable.id === otherCableId),
    );
    return [back, ...likely.map(putCable)];
  },
  'put-pin': backPin,
  'drop-pin': backPin,
  'put-seat': (act, { before, after }) => {
    const of = ({ inletId }: Seat) => inletId === act.seat.inletId;
    const stood = before.seats.filter(of).flatMap((seat) => putSeat(before, seat));
    return stood.length > 0 ? stood : after.seats.filter(of).map(openSeat);
  },
  'recheck-seats': (act, { before }) =>
    before.seats
      .filter(({ inletId, rechecked }) => rechecked === null && act.inletIds.includes(inletId))
      .flatMap((seat) => putSeat(before, seat)),
  'tick-step': (act, { before }) =>
    before.steps.some(({ stepId }) => stepId === act.stepId) ? [] : [{ kind: 'untick-step', stepId: act.stepId }],
  'untick-step': (act, { before }) =>
    before.steps.some(({ stepId }) => stepId === act.stepId) ? [{ kind: 'tick-step', stepId: act.stepId }] : [],
  'order-steps': (act, { before }) => {
    const stepIds = before.stepOrders.find(({ phase }) => phase === act.phase)?.stepIds ?? [];
    return [{ kind: 'order-steps', phase: act.phase, stepIds, ...anew }];
  },
  'lay-cable': (act, { before }) => [
    { kind: 'lay-cable', cable: act.cable, way: laidWayOf(before, act.cable)?.way ?? '', ...anew },
  ],
  'put-lead': backLead,
  'drop-lead': backLead,
  'put-note': backNote,
  'drop-note': backNote,
  'mark-leads': (act, { before }) => {
    const marked = before.leads.filter(({ id, state }) => act.leadIds.includes(id) && state !== act.state);
    return [...new Set(marked.map(({ state }) => state))].map((state) => ({
      kind: 'mark-leads',
      leadIds: marked.filter((lead) => lead.state === state).map(({ id }) => id),
      state,
    }));
  },
  'note-proof': backProof,
  'drop-proof': backProof,
  'sign-off': (act) => [{ kind: 'withdraw-sign-off', id: act.id }],
  'withdraw-sign-off': (act, { before, newId }) =>
    before.signOffs
      .filter(({ id }) => id === act.id)
      .map(({ point, reason }) => ({ kind: 'sign-off', id: newId(), point, reason })),
  close: backClose,
  'put-away': backClose,
  reopen: (_act, { before }) => {
    if (before.state === 'closed') return [{ kind: 'close', ...anew }];
    return before.putAway === null ? [] : [{ kind: 'put-away', reason: before.putAway.reason, ...anew }];
  },
};

/**
 * The acts that take back what an act did, in the order in which they are done; none where it changed nothing. A
 * reading that was taken stays on the record, struck; an answer that had been replaced is given once more.
 * @param before the job before the act
 * @param after the job as the act left it
 * @param newId ids for what is written anew
 */
export const takeBack = (before: Job, after: Job, act: Act, newId: () => string): Act[] =>
  (backOf[act.kind] as Back<Act['kind']>)(act, { before, after, newId });

/**
 * Something as text to compare, in one order of its fields: without who wrote it when, and what is empty as if it were
 * not there.
 */
function comparable(value: unknown): string {
  return JSON.stringify(value, (key, item: unknown) => {
    if (unsaid.has(key) || item === false || item === '' || item === null) return undefined;
    if (typeof item !== 'object' || Array.isArray(item)) return item;
    return Object.fromEntries(Object.entries(item).sort(([a], [b]) => (a < b ? -1 : 1)));
  });
}

/** What stands in a job under a subject, whoever wrote it and whenever. */
function saidOf(job: Job, subject: string): string {
  const [kind = '', ...rest] = subject.split(':');
  const id = rest.join(':');
  switch (kind) {
    case 'check':
      return comparable({ standing: standingOutcome(job, id) });
    case 'outcome':
      return comparable({ stands: job.outcomes.some((one) => one.id === id && one.takenBackAt === null) });
    case 'reading':
      return comparable({ stands: job.readings.some((one) => one.id === id && one.struckAt === null) });
    case 'step':
      return comparable({ ticked: job.steps.some(({ stepId }) => stepId === id) });
    case 'sign-off':
      return comparable({ id: job.signOffs.find(({ point }) => point === id)?.id });
    case 'sign-off-id':
      return comparable({ stands: job.signOffs.some((one) => one.id === id) });
    case 'state':
      return comparable({ state: job.state });
    default:
      return comparable(standingAt(job, subject) ?? {});
  }
}

/**
 * Whether everything that these acts would take back stands yet as it was left: what somebody else, or a later act,
 * made of it is not to be undone unseen.
 * @param left the job as the act to be taken back left it
 */
export function standsAsLeft(left: Job, now: Job, back: readonly Act[]): boolean {
  return back.every((act) =>
    act.kind === 'edit-sheet'
      ? (Object.keys(act.changes) as SheetField[]).every(
          (field) => comparable({ is: left.sheet[field] }) === comparable({ is: now.sheet[field] }),
        )
      : changedBy(act).every((subject) => saidOf(left, subject) === saidOf(now, subject)),
  );
}
