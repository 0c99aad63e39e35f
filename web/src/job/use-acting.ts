import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { useStore } from 'react-redux';
import {
  actText,
  applyAct,
  basedOnStanding,
  refusalText,
  standsAsLeft,
  type Act,
  type ActContext,
  type HistoryNames,
  type Job,
  type Refusal,
} from '@fairwatt/core';
import { actPermissions, permissions, roleMay } from '@fairwatt/contract';
import { useRole } from '../access/use-may.ts';
import { api, useAccessQuery } from '../app/api.ts';
import { useAppDispatch, type AppState } from '../app/store.ts';
import { fieldLabel } from '../controls/field-words.ts';
import { outbox } from '../offline/outbox.ts';
import { overlay } from '../offline/overlay.ts';
import { nextOrder, thisTab } from '../offline/parcel.ts';
import { remembered, undoText, type Undoable } from './undo-list.ts';

/** So long is an undo offered, and so long is told what there is nothing more to do about. */
const offeredMilliseconds = 9000;
const toldMilliseconds = 4000;

/** What is told at the foot of the screen, with what it can undo. */
export interface Told {
  readonly text: string;
  readonly undoes: Undoable | null;
}

/** What every station does to the job with. */
export interface Acts {
  /** Does an act at once on the screen and sends it. Returns why not, when it cannot be done. */
  readonly act: (act: Act) => Refusal | null;
  /** The same, where what it belongs to goes for good, and there is nothing to come back to. */
  readonly actForGood: (act: Act) => Refusal | null;
  /** What was done here last and can be taken back, as the screen shows it. */
  readonly last: Undoable | null;
  /** The same at this moment, right after an act. */
  readonly latest: () => Undoable | null;
  readonly undo: (what: Undoable) => void;
  /** What took back the last thing that was taken back. */
  readonly undone: readonly Act[] | null;
  /** Tells of what was done last, with a way to undo it. */
  readonly offerUndo: (text: string) => void;
}

export interface Acting {
  readonly acts: Acts;
  readonly told: Told | null;
  readonly refusal: string | null;
  readonly setRefusal: (text: string | null) => void;
  /** An act that needs a second person. */
  readonly second: Act | null;
  readonly setSecond: (act: Act | null) => void;
}

interface Asked {
  readonly code: string;
  readonly by: string | null;
  readonly knows: ActContext['knows'];
  readonly unansweredPoints: () => number;
  readonly names: HistoryNames;
}

const newId = () => crypto.randomUUID();
const doneText = (act: Act, names: HistoryNames): string =>
  act.kind === 'edit-sheet' ? Object.keys(act.changes).map(fieldLabel).join(', ') : actText(act, names);

/** What is told at the foot of the screen, for as long as it is of use. */
function useTold() {
  const [told, setTold] = useState<Told | null>(null);
  useEffect(() => {
    if (told === null) return undefined;
    const timer = setTimeout(() => setTold(null), told.undoes === null ? toldMilliseconds : offeredMilliseconds);
    return () => clearTimeout(timer);
  }, [told]);
  return [told, setTold] as const;
}

/** What was done here and can be taken back: as the screen shows it, and as it is at this moment. */
function useUndoable(names: HistoryNames) {
  const [list, setList] = useState<readonly Undoable[]>([]);
  const kept = useRef<readonly Undoable[]>([]);
  const underWay = useRef(false);
  const keep = useCallback((next: readonly Undoable[]) => {
    kept.current = next;
    setList(next);
  }, []);
  const remember = useCallback(
    (before: Job, after: Job, act: Act, at: string) => {
      const done = { id: newId(), text: doneText(act, names), at: Date.parse(at), before, after, act };
      keep(remembered(kept.current, done, underWay.current, newId));
      // What follows before the screen is drawn again came of the same key.
      if (!underWay.current) setTimeout(() => (underWay.current = false));
      underWay.current = true;
    },
    [keep, names],
  );
  const forget = useCallback((what: Undoable) => keep(kept.current.filter(({ id }) => id !== what.id)), [keep]);
  const latest = useCallback(() => kept.current.at(-1) ?? null, []);
  return { last: list.at(-1) ?? null, latest, remember, forget };
}

/** Why whoever works here may not do an act: in words; null where a second person is asked, who signs at once. */
type Bar = { readonly why: string | null };

/** What bars whoever works here from an act; null where nothing does. */
function useBarred(by: string | null): (act: Act) => Bar | null {
  const role = useRole();
  const signsIn = useAccessQuery().data?.signing === 'secret';
  return useCallback(
    (act) => {
      if (by === null) return { why: 'Pick your name at the top right first; every change is signed with it.' };
      const needs = actPermissions[act.kind];
      if (role !== null && roleMay(role, needs)) return null;
      // Where people sign in, a second person signs at once; without any right here nothing is asked of anybody.
      const asksSecond = role !== null && signsIn && roleMay(role, 'record');
      return { why: asksSecond ? null : `Your role may not ${permissions[needs].what}.` };
    },
    [by, role, signsIn],
  );
}

/** The job at this moment: several acts may come out of one key, and an undo is older than the screen. */
function useSeenNow({ code, knows }: Pick<Asked, 'code' | 'knows'>) {
  const store = useStore<AppState>();
  return useCallback(() => {
    const state = store.getState();
    const seen = api.endpoints.job.select(code)(state).data;
    if (seen === undefined) throw new Error(`${code} is on the desk, and is not here`);
    return { seen, now: overlay(seen, state.outbox.parcels, knows) };
  }, [code, knows, store]);
}

/** What people do to a job on this screen: checked, shown at once, sent, and kept for a while to be taken back. */
export function useActing({ code, by, knows, unansweredPoints, names }: Asked): Acting {
  const dispatch = useAppDispatch();
  const barred = useBarred(by);
  const seenNow = useSeenNow({ code, knows });
  const { last, latest, remember, forget } = useUndoable(names);
  const [told, setTold] = useTold();
  const [second, setSecond] = useState<Act | null>(null);
  const [refusal, setRefusal] = useState<string | null>(null);
  const [undone, setUndone] = useState<readonly Act[] | null>(null);

  const run = useCallback(
    (wanted: Act, forGood: boolean): Refusal | null => {
      const bar = barred(wanted);
      if (bar?.why === null) setSecond(wanted);
      else if (bar !== null) setRefusal(bar.why);
      if (bar !== null || by === null) return { code: 'closed' };
      const at = new Date().toISOString();
      const { seen, now } = seenNow();
      const act = basedOnStanding(wanted, now);
      const result = applyAct(now, act, { by, at, knows, unansweredPoints });
      if (!result.ok) {
        setRefusal(refusalText(result.refusal));
        return result.refusal;
      }
      setRefusal(null);
      const order = nextOrder(Date.parse(at));
      dispatch(outbox.did({ ids: [newId(), newId()], code, by, at, tab: thisTab, order, act, seen }));
      if (!forGood) remember(now, result.job, act, at);
      return null;
    },
    [code, by, barred, knows, unansweredPoints, dispatch, seenNow, remember],
  );

  const undo = useCallback(
    (what: Undoable) => {
      forget(what);
      const text = undoText(what);
      if (!standsAsLeft(what.left, seenNow().now, what.back)) {
        setTold({ text: `${text}: changed since, so it stays.`, undoes: null });
        return;
      }
      const done = what.back.every((act) => run(act, true) === null);
      if (done) setUndone(what.back);
      setTold(done ? { text: `Taken back: ${text}`, undoes: null } : null);
    },
    [forget, run, seenNow, setTold],
  );

  const act = useCallback((wanted: Act) => run(wanted, false), [run]);
  const actForGood = useCallback((wanted: Act) => run(wanted, true), [run]);
  const offerUndo = useCallback((text: string) => setTold({ text, undoes: latest() }), [latest, setTold]);
  const acts = useMemo(
    () => ({ act, actForGood, last, latest, undo, undone, offerUndo }),
    [act, actForGood, last, latest, undo, undone, offerUndo],
  );
  return { acts, told, refusal, setRefusal, second, setSecond };
}
