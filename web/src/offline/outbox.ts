import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { changedBy, subjectOf, versionAt, type Act, type Job, type SheetField } from '@fairwatt/core';
import { comesAlone } from '@fairwatt/contract';
import type { Together } from './delivery.ts';
import { mayGrow, type ActParcel, type Base, type Parcel, type Refused } from './parcel.ts';

/** A parcel that the server has done, and the version of what it was about. */
export interface DoneParcel {
  readonly id: string;
  readonly version: number;
}

export interface OutboxState {
  /** In the order of sending. */
  readonly parcels: readonly Parcel[];
  /** The one that is on its way now. */
  readonly sending: string | null;
  /** Whether what is unsent survives a reload. */
  readonly storage: 'kept' | 'memory';
  /** What the server has done of late, for parcels that were typed over it and are heard of only now. */
  readonly done: readonly DoneParcel[];
}

/** An outbox in which nothing is. */
export const emptyOutbox: OutboxState = { parcels: [], sending: null, storage: 'kept', done: [] };

/** So many of the parcels that were done last are remembered. */
const rememberedDone = 50;

const fieldsOf = (act: Act): readonly SheetField[] =>
  act.kind === 'edit-sheet' ? (Object.keys(act.changes) as SheetField[]) : [];

/** Whether two acts on one job write the same thing, be it along with another. */
function overlaps(one: Act, other: Act): boolean {
  const theirs = changedBy(other);
  if (!changedBy(one).some((subject) => theirs.includes(subject))) return false;
  if (one.kind !== 'edit-sheet' || other.kind !== 'edit-sheet') return true;
  const fields = new Set(fieldsOf(other));
  return fieldsOf(one).some((field) => fields.has(field));
}

/** Whether an act writes no field that the other one does not write already. */
const sameFields = (one: Act, other: Act): boolean => fieldsOf(other).every((field) => fieldsOf(one).includes(field));

/** What a new act is typed over: the last unsent parcel on the same thing, else what the server had. */
export function baseOf(act: Act, seen: Job, unsent: readonly ActParcel[]): Base {
  const before = unsent.findLast((parcel) => overlaps(parcel.act, act));
  return before === undefined
    ? { at: 'seen', version: versionAt(seen, subjectOf(act)) }
    : { at: 'after', parcel: before.id };
}

/** The same act with what was typed later in it. */
function merged(before: Act, later: Act): Act {
  if (before.kind === 'edit-sheet' && later.kind === 'edit-sheet')
    return { ...before, changes: { ...before.changes, ...later.changes } };
  return later;
}

/**
 * A sheet's edit is divided where only some of its fields are unsent already, since they are typed over different
 * things.
 */
function divided(act: Act, unsent: readonly ActParcel[]): Act[] {
  if (act.kind !== 'edit-sheet') return [act];
  const pending = new Set(unsent.flatMap((parcel) => fieldsOf(parcel.act)));
  const entries = Object.entries(act.changes);
  const parts = [
    entries.filter(([field]) => pending.has(field as SheetField)),
    entries.filter(([field]) => !pending.has(field as SheetField)),
  ];
  return parts.filter((part) => part.length > 0).map((part) => ({ ...act, changes: Object.fromEntries(part) }));
}

/**
 * Whether what is done now was typed over the same state as a parcel that still grows. A field that is new in it may
 * have been confirmed meanwhile, and would then be sent as typed over what stood before.
 */
const asOld = (growing: ActParcel, what: Done): boolean =>
  growing.base.at === 'seen' && versionAt(what.seen, subjectOf(what.act)) <= growing.base.version;

/** What somebody did: an act on a job as he saw it. */
export interface Done {
  readonly ids: readonly [string, string];
  readonly code: string;
  readonly by: string;
  readonly at: string;
  readonly tab: string;
  readonly order: number;
  readonly act: Act;
  /** The job as the server had it. */
  readonly seen: Job;
}

const openQuestion = (parcel: Parcel): parcel is ActParcel & { readonly refused: { readonly kind: 'conflict' } } =>
  parcel.kind === 'act' && parcel.state === 'refused' && parcel.refused?.kind === 'conflict';

const actsOf = (parcels: readonly Parcel[], code: string): ActParcel[] =>
  parcels.filter((parcel): parcel is ActParcel => parcel.kind === 'act' && parcel.code === code);

const inOrder = (parcels: readonly Parcel[]) => [...parcels].sort((a, b) => a.order - b.order);
const replaced = (parcels: readonly Parcel[], parcel: Parcel) =>
  parcels.map((item) => (item.id === parcel.id ? parcel : item));

function done(parcels: readonly Parcel[], what: Done): readonly Parcel[] {
  const unsent = actsOf(parcels, what.code);
  // While a question about the same thing is open, typing on changes the answer and does not slip past the question.
  const asked = unsent.find(
    (parcel) =>
      openQuestion(parcel) &&
      parcel.by === what.by &&
      subjectOf(parcel.act) === subjectOf(what.act) &&
      overlaps(parcel.act, what.act) &&
      fieldsOf(what.act).every((field) => fieldsOf(parcel.act).includes(field)),
  );
  if (asked !== undefined) return replaced(parcels, { ...asked, act: merged(asked.act, what.act) });
  // Typing makes one parcel, not one for each letter, for as long as it is not sealed.
  const growing = unsent.at(-1);
  const elsewhere = unsent.slice(0, -1).some((parcel) => overlaps(parcel.act, what.act));
  if (
    growing?.state === 'draft' &&
    (sameFields(growing.act, what.act)
      ? !elsewhere || growing.base.at === 'after'
      : !elsewhere && asOld(growing, what)) &&
    growing.by === what.by &&
    growing.tab === what.tab &&
    mayGrow(what.act) &&
    growing.act.kind === what.act.kind &&
    subjectOf(growing.act) === subjectOf(what.act)
  )
    return replaced(parcels, { ...growing, at: what.at, act: merged(growing.act, what.act) });
  const made = divided(what.act, unsent).map((act, index): ActParcel => ({
    kind: 'act',
    id: what.ids[index] ?? what.ids[0],
    code: what.code,
    by: what.by,
    at: what.at,
    tab: what.tab,
    order: what.order + index / 10,
    act,
    base: baseOf(act, what.seen, unsent),
    state: mayGrow(act) ? 'draft' : 'waiting',
    refused: null,
    failures: 0,
  }));
  // What was typed before is final, so that the order in which things were done is the order of sending.
  const before = parcels.map((parcel) =>
    parcel.state === 'draft' && parcel.tab === what.tab && parcel.code === what.code
      ? { ...parcel, state: 'waiting' as const }
      : parcel,
  );
  return [...before, ...made];
}

/** Those that were typed over a parcel, now over something else. */
const rebased = (parcels: readonly Parcel[], from: string, to: Base): readonly Parcel[] =>
  parcels.map((parcel) =>
    parcel.kind === 'act' && parcel.base.at === 'after' && parcel.base.parcel === from
      ? { ...parcel, base: to }
      : parcel,
  );

/** A parcel that was typed over one which is done by now stands on the version that it made. */
function onWhatIsDone(parcel: Parcel, done: OutboxState['done']): Parcel {
  if (parcel.kind !== 'act' || parcel.base.at !== 'after') return parcel;
  const { base } = parcel;
  const before = done.find(({ id }) => id === base.parcel);
  return before === undefined ? parcel : { ...parcel, base: { at: 'seen', version: before.version } };
}

/**
 * A question about something that was typed on while its answer was on the way is asked about what was typed last: what
 * stands behind it on the same thing, by the same person, is part of it, and is not left to slip past the question.
 */
function asked(parcels: readonly Parcel[], id: string, refused: Refused): readonly Parcel[] {
  let question = parcels.find((parcel) => parcel.id === id);
  if (question === undefined) return parcels;
  const taken = new Set<string>();
  if (refused.kind === 'conflict' && question.kind === 'act')
    for (const parcel of actsOf(parcels, question.code)) {
      const behind = parcel.base.at === 'after' && (parcel.base.parcel === id || taken.has(parcel.base.parcel));
      const same = subjectOf(parcel.act) === subjectOf(question.act) && sameFields(question.act, parcel.act);
      if (!behind || !same || parcel.by !== question.by || parcel.state === 'refused') continue;
      question = { ...question, at: parcel.at, act: merged(question.act, parcel.act) };
      taken.add(parcel.id);
    }
  const left = replaced(parcels, { ...question, state: 'refused', refused }).filter((parcel) => !taken.has(parcel.id));
  // What was typed over something that is part of the question now stands on the question.
  return [...taken].reduce<readonly Parcel[]>((rest, gone) => rebased(rest, gone, { at: 'after', parcel: id }), left);
}

const slice = createSlice({
  name: 'outbox',
  initialState: () => emptyOutbox,
  reducers: {
    /** Something was done to a job. */
    did: (state, { payload }: PayloadAction<Done>) => ({ ...state, parcels: done(state.parcels, payload) }),
    /** A parcel came from another tab, from storage or from a file, or changed there. */
    put: (state, { payload }: PayloadAction<Parcel>) => ({
      ...state,
      parcels: inOrder([
        ...state.parcels.filter((parcel) => parcel.id !== payload.id),
        onWhatIsDone(payload, state.done),
      ]),
    }),
    /** What is typed in this parcel is final from now on. */
    seal: (state, { payload: id }: PayloadAction<string>) => ({
      ...state,
      parcels: state.parcels.map((parcel) =>
        parcel.id === id && parcel.state === 'draft' ? { ...parcel, state: 'waiting' as const } : parcel,
      ),
    }),
    sending: (state, { payload: id }: PayloadAction<string | null>) => ({ ...state, sending: id }),
    /** The server has done them; what was typed over one of them stands on the version that it made. */
    confirmed: (state, { payload }: PayloadAction<readonly DoneParcel[]>) => ({
      ...state,
      done: [...state.done, ...payload].slice(-rememberedDone),
      parcels: payload.reduce<readonly Parcel[]>(
        (parcels, { id, version }) =>
          rebased(
            parcels.filter((parcel) => parcel.id !== id),
            id,
            { at: 'seen', version },
          ),
        state.parcels,
      ),
    }),
    failed: (state, { payload: id }: PayloadAction<string>) => ({
      ...state,
      parcels: state.parcels.map((parcel) =>
        parcel.id === id ? { ...parcel, failures: parcel.failures + 1 } : parcel,
      ),
    }),
    refused: (state, { payload }: PayloadAction<{ id: string; refused: Refused }>) => ({
      ...state,
      parcels: asked(state.parcels, payload.id, payload.refused),
    }),
    /**
     * Sends a refused one after all, under a new id since it is another message now: mine, or what was picked field by
     * field.
     */
    insist: (state, { payload }: PayloadAction<{ id: string; newId: string; act?: Act; basedOn?: number }>) => {
      const parcel = state.parcels.find((item) => item.id === payload.id);
      if (parcel === undefined) return state;
      const again: Parcel =
        parcel.kind === 'act'
          ? {
              ...parcel,
              id: payload.newId,
              act: payload.act ?? parcel.act,
              base: payload.basedOn === undefined ? parcel.base : { at: 'seen', version: payload.basedOn },
              state: 'waiting',
              refused: null,
              failures: 0,
            }
          : { ...parcel, state: 'waiting', refused: null, failures: 0 };
      const others = state.parcels.filter((item) => item.id !== payload.id);
      return {
        ...state,
        parcels: inOrder([...rebased(others, payload.id, { at: 'after', parcel: again.id }), again]),
      };
    },
    /** Lets go of a parcel; what was typed over it stands on what it stood on, so that the server asks again. */
    discard: (state, { payload: id }: PayloadAction<string>) => {
      const parcel = state.parcels.find((item) => item.id === id);
      const others = state.parcels.filter((item) => item.id !== id);
      return { ...state, parcels: parcel?.kind === 'act' ? rebased(others, id, parcel.base) : others };
    },
    /** Another tab has it done, decided or dropped. */
    gone: (state, { payload: id }: PayloadAction<string>) => ({
      ...state,
      parcels: state.parcels.filter((parcel) => parcel.id !== id),
    }),
    storage: (state, { payload }: PayloadAction<OutboxState['storage']>) => ({ ...state, storage: payload }),
  },
});
export const outbox = slice.actions;
export const outboxReducer = slice.reducer;

const nothingHeld: ReadonlySet<string> = new Set();

/**
 * What can be sent next: the first parcel that is sealed, not held back, and not typed over one that is still unsent;
 * with it the acts of the same person on the same job that stand behind it, as long as nothing else stands between.
 * @param most so many at once
 */
export function nextTogether({ parcels }: OutboxState, held = nothingHeld, most = 1): Together | null {
  const unsent = new Set(parcels.map((parcel) => parcel.id));
  const ready = (parcel: Parcel): boolean => parcel.state === 'waiting' && !held.has(parcel.id);
  const beneath = (parcel: Parcel): string | null =>
    parcel.kind === 'act' && parcel.base.at === 'after' && unsent.has(parcel.base.parcel) ? parcel.base.parcel : null;
  const start = parcels.findIndex((parcel) => ready(parcel) && beneath(parcel) === null);
  const first = parcels[start];
  if (first === undefined) return null;
  const together: [Parcel, ...Parcel[]] = [first];
  const taken = new Set([first.id]);
  for (const parcel of parcels.slice(start + 1)) {
    if (together.length >= most || !goWith(first, parcel)) break;
    const over = beneath(parcel);
    // What is typed over one of these goes next; nothing overtakes it.
    if (over !== null && taken.has(over)) break;
    if (!ready(parcel) || over !== null) continue;
    together.push(parcel);
    taken.add(parcel.id);
  }
  return together;
}

/** Whether two parcels may go in one message. */
const goWith = (first: Parcel, other: Parcel): boolean =>
  first.kind === 'act' &&
  other.kind === 'act' &&
  first.code === other.code &&
  first.by === other.by &&
  !comesAlone(first.act) &&
  !comesAlone(other.act);
