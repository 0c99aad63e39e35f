import { takeBack, type Act, type Job } from '@fairwatt/core';

/** Something that was done at this screen, with what takes it back. */
export interface Undoable {
  readonly id: string;
  readonly text: string;
  /** How many acts it was, of one key or one click. */
  readonly count: number;
  readonly at: number;
  /** The job as it was left. */
  readonly left: Job;
  readonly back: readonly Act[];
  /** The fields that were typed in, where it was nothing else. */
  readonly fields: string | null;
}

export interface Done {
  readonly id: string;
  readonly text: string;
  readonly at: number;
  readonly before: Job;
  readonly after: Job;
  readonly act: Act;
}

/** So many can be taken back, one after the other. */
export const mostUndoable = 30;
/** Typing that goes on in the same fields within this is one thing. */
const typingMilliseconds = 60_000;

const fieldsOf = (act: Act): string | null =>
  act.kind === 'edit-sheet' ? Object.keys(act.changes).sort().join(' ') : null;

/** Two things as one, of which the earlier is taken back last. */
const joined = (earlier: Undoable, later: Undoable): Undoable => ({
  ...earlier,
  at: later.at,
  left: later.left,
  count: earlier.count + later.count,
  back: [...later.back, ...earlier.back],
  fields: null,
});

/**
 * The list with what was done now behind the rest; what changed nothing is left out.
 * @param together whether it came of the same key as the last one
 */
export function remembered(
  list: readonly Undoable[],
  { act, before, after, ...done }: Done,
  together: boolean,
  newId: () => string,
): readonly Undoable[] {
  const back = takeBack(before, after, act, newId);
  if (back.length === 0) return list;
  const now: Undoable = { ...done, count: 1, left: after, back, fields: fieldsOf(act) };
  const last = list.at(-1);
  const goesOn = last?.fields != null && last.fields === now.fields && now.at - last.at < typingMilliseconds;
  if (last !== undefined && goesOn) return [...list.slice(0, -1), { ...last, at: now.at, left: after }];
  if (last !== undefined && together) return [...list.slice(0, -1), joined(last, now)];
  return [...list, now].slice(-mostUndoable);
}

export const undoText = ({ text, count }: Undoable): string => (count === 1 ? text : `${text} and ${count - 1} more`);
