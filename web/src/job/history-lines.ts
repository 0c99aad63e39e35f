import { subjectOf, takesAway, type Act } from '@fairwatt/core';
import { differences, type Plain } from '../controls/differences.ts';
import { contentOf } from './conflict-fields.ts';

/** An act as it was written down. */
export interface PastAct {
  readonly id: string;
  readonly by: string;
  readonly at: string;
  readonly act: Act;
}

/** An act with each field that differs from what was written down before it; none where nothing was. */
export interface HistoryLine extends PastAct {
  readonly changes: readonly FieldChange[];
}

export interface FieldChange {
  /** Such as `label.ratingWatts`. */
  readonly path: string;
  /** Undefined where nobody wrote it down before. */
  readonly before: unknown;
  readonly after: unknown;
}

/**
 * The acts of a job, each with what stood there before: what was written down last of the same thing. Nothing is
 * told as a change that reads the same, nor what is written down for the first time.
 * @param acts in the order in which they were done
 */
export function historyOf(acts: readonly PastAct[]): HistoryLine[] {
  const standing = new Map<string, Plain>();
  return acts.map((past) => {
    const subject = subjectOf(past.act);
    if (takesAway(past.act)) {
      standing.delete(subject);
      return { ...past, changes: [] };
    }
    const sheet = past.act.kind === 'edit-sheet';
    const after = contentOf(past.act) ?? {};
    const before = standing.get(subject) ?? (sheet ? {} : after);
    // A sheet is written field by field; anything else as a whole.
    const known = sheet ? Object.fromEntries(Object.keys(after).map((key) => [key, before[key]])) : before;
    standing.set(subject, sheet ? { ...before, ...after } : after);
    const changes = differences(after, known).map(({ path, mine, theirs }) => ({ path, before: theirs, after: mine }));
    return { ...past, changes };
  });
}
