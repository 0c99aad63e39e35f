import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { applyAct, type Act, type ActContext, type Job, type Refusal } from '@fairwatt/core';

/** A change that the server has not confirmed yet. It is kept in the browser's storage until it has. */
export interface OutboxItem {
  readonly id: string;
  readonly code: string;
  readonly by: string;
  readonly at: string;
  readonly act: Act;
  /** For an edit of the sheet: what the fields held before, to tell a true conflict from a harmless one. */
  readonly was: Readonly<Record<string, unknown>>;
  readonly state: 'waiting' | 'sending' | 'refused';
  readonly refusal: {
    readonly title: string;
    readonly stale: boolean;
    readonly current: number | null;
    readonly theirs: Readonly<Record<string, unknown>> | null;
  } | null;
}

export interface OutboxState {
  readonly items: readonly OutboxItem[];
  readonly lastSaved: string | null;
}

const storageKey = 'fairwatt.outbox';

/** What was kept from before a reload. Something that was on its way is sent again: the server does each id once. */
export function keptItems(): OutboxItem[] {
  const raw = localStorage.getItem(storageKey);
  if (raw === null) return [];
  try {
    return (JSON.parse(raw) as OutboxItem[]).map((item) =>
      item.state === 'sending' ? { ...item, state: 'waiting' as const } : item,
    );
  } catch {
    // Storage that somebody else spoiled must not keep the application from starting; it is put aside, not deleted.
    localStorage.setItem(`${storageKey}.unreadable`, raw);
    return [];
  }
}

export function keepItems(items: readonly OutboxItem[]): void {
  if (items.length === 0) localStorage.removeItem(storageKey);
  else localStorage.setItem(storageKey, JSON.stringify(items));
}

function withBase(act: Act, basedOn: number): Act {
  return 'basedOn' in act ? { ...act, basedOn } : act;
}

/** What a replacing act writes as a whole, so that a later one makes an earlier one needless; null for acts that add. */
function subjectOf(act: Act): string | null {
  switch (act.kind) {
    case 'put-part':
      return `part:${act.part.id}`;
    case 'put-supply':
      return 'supply';
    case 'put-cable':
      return `cable:${act.cable.id}`;
    case 'put-seat':
      return `seat:${act.seat.inletId}`;
    case 'put-pin':
      return `pin:${act.pin.inletId}`;
    case 'order-steps':
      return `steps:${act.phase}`;
    default:
      return null;
  }
}

const slice = createSlice({
  name: 'outbox',
  initialState: (): OutboxState => ({ items: keptItems(), lastSaved: null }),
  reducers: {
    add(state, { payload }: PayloadAction<OutboxItem>) {
      // While a question about a field is open, typing on changes the answer and does not slip past the question.
      const asked = state.items.find(
        (item) =>
          item.code === payload.code &&
          isOpenQuestion(item) &&
          item.act.kind === 'edit-sheet' &&
          payload.act.kind === 'edit-sheet' &&
          Object.keys(payload.act.changes).every(
            (field) => item.refusal?.theirs != null && field in item.refusal.theirs,
          ),
      );
      if (asked?.act.kind === 'edit-sheet' && payload.act.kind === 'edit-sheet') {
        const act: Act = { ...asked.act, changes: { ...asked.act.changes, ...payload.act.changes } };
        return { ...state, items: state.items.map((item) => (item.id === asked.id ? { ...item, act } : item)) };
      }
      const last = state.items.at(-1);
      // Typing makes one change, not one for each letter.
      if (
        last?.state === 'waiting' &&
        last.code === payload.code &&
        last.by === payload.by &&
        last.act.kind === 'edit-sheet' &&
        payload.act.kind === 'edit-sheet'
      ) {
        return {
          ...state,
          items: [
            ...state.items.slice(0, -1),
            {
              ...last,
              at: payload.at,
              act: { ...last.act, changes: { ...last.act.changes, ...payload.act.changes } },
              was: { ...payload.was, ...last.was },
            },
          ],
        };
      }
      if (
        last?.state === 'waiting' &&
        last.code === payload.code &&
        last.by === payload.by &&
        subjectOf(last.act) !== null &&
        subjectOf(last.act) === subjectOf(payload.act) &&
        'basedOn' in last.act &&
        'basedOn' in payload.act &&
        payload.act.basedOn === last.act.basedOn + 1
      ) {
        return {
          ...state,
          items: [
            ...state.items.slice(0, -1),
            { ...last, at: payload.at, act: withBase(payload.act, last.act.basedOn) },
          ],
        };
      }
      return { ...state, items: [...state.items, payload] };
    },
    sending: (state, { payload: id }: PayloadAction<string>) => ({
      ...state,
      items: state.items.map((item) => (item.id === id ? { ...item, state: 'sending' as const } : item)),
    }),
    waitAgain: (state, { payload }: PayloadAction<{ id: string; basedOn?: number; refused?: false }>) => ({
      ...state,
      items: state.items.map((item) =>
        item.id === payload.id
          ? {
              ...item,
              state: 'waiting' as const,
              refusal: null,
              act: payload.basedOn === undefined ? item.act : withBase(item.act, payload.basedOn),
            }
          : item,
      ),
    }),
    refused: (state, { payload }: PayloadAction<{ id: string; refusal: NonNullable<OutboxItem['refusal']> }>) => ({
      ...state,
      items: state.items.map((item) =>
        item.id === payload.id ? { ...item, state: 'refused' as const, refusal: payload.refusal } : item,
      ),
    }),
    sent: (state, { payload }: PayloadAction<{ id: string; at: string }>) => ({
      lastSaved: payload.at,
      items: state.items.filter((item) => item.id !== payload.id),
    }),
    discard: (state, { payload: id }: PayloadAction<string>) => ({
      ...state,
      items: state.items.filter((item) => item.id !== id),
    }),
  },
});
export const outbox = slice.actions;
export const outboxReducer = slice.reducer;

/** The version a refusal says is current. */
export function currentVersion(refusal: Refusal): number | null {
  return refusal.code === 'stale' ? refusal.current : null;
}

/** Refused because somebody else changed the same field, and not decided yet. */
function isOpenQuestion(item: OutboxItem): boolean {
  return item.state === 'refused' && item.refusal?.stale === true && item.refusal.theirs !== null;
}

/**
 * The job as it will be when everything waiting has been sent. While a question about a field is open the field shows what
 * was typed here; anything else that was refused is not in it and is shown beside.
 */
export function overlay(job: Job, items: readonly OutboxItem[], knows: ActContext['knows']): Job {
  let shown = job;
  for (const item of items) {
    if (item.code !== job.code || (item.state === 'refused' && !isOpenQuestion(item))) continue;
    if (isOpenQuestion(item) && item.act.kind === 'edit-sheet') {
      const typed = Object.fromEntries(
        Object.entries(item.act.changes).filter(([, value]) => value !== undefined),
      ) as Partial<Job['sheet']>;
      shown = { ...shown, sheet: { ...shown.sheet, ...typed } };
      continue;
    }
    const context: ActContext = { by: item.by, at: item.at, knows, unansweredPoints: () => 0 };
    const result = applyAct(shown, item.act, context);
    if (result.ok) {
      shown = result.job;
      continue;
    }
    const base = currentVersion(result.refusal);
    const again = base === null ? null : applyAct(shown, withBase(item.act, base), context);
    if (again?.ok === true) shown = again.job;
  }
  return shown;
}
