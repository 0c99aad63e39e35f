import { useState } from 'react';
import { useDesk } from './job-context.ts';
import type { Undoable } from './undo-list.ts';

interface Kept {
  readonly done: Undoable;
  readonly text: string;
  readonly rest: string;
  readonly told: string;
}

/** The line that was taken in last, so that a slip is taken back where it was made. */
export interface KeptLine {
  /** Right after the acts of a line: what it was, what is left of it in the field, and how it is told. */
  readonly keep: (text: string, rest?: string, told?: string) => void;
  /** How it is told, while nothing else was done since and the field stands as it was left; else null. */
  readonly told: (line: string) => string | null;
  /** Takes it back. @returns the line as it was typed; null where there is nothing to take back */
  readonly takeBack: (line: string) => string | null;
}

export function useKeptLine(): KeptLine {
  const { last, latest, undo } = useDesk();
  const [kept, setKept] = useState<Kept | null>(null);
  const standing = (line: string) => (kept !== null && kept.done.id === last?.id && kept.rest === line ? kept : null);
  return {
    keep: (text, rest = '', told = '') => {
      const done = latest();
      setKept(done === null ? null : { done, text, rest, told });
    },
    told: (line) => standing(line)?.told ?? null,
    takeBack: (line) => {
      const found = standing(line);
      if (found === null) return null;
      undo(found.done);
      setKept(null);
      return found.text;
    },
  };
}
