import { useState } from 'react';

const usual = { from: 2, to: 20, steps: 7, dwell: 1, hottest: 70 };
export type SweepFigure = keyof typeof usual;

/** The figures of a sweep that is to begin: amps, steps, seconds, degrees Celsius. */
export function useSweepPlan() {
  const [figures, setFigures] = useState(usual);
  const [unread, setUnread] = useState<ReadonlySet<SweepFigure>>(new Set());
  return {
    figures,
    /** A field that shows an error holds its last good figure; no sweep begins on that. */
    isReadable: unread.size === 0,
    /** What the field of a figure is given. */
    field: (name: SweepFigure) => ({
      value: figures[name],
      onChange: (value: number) => setFigures((now) => ({ ...now, [name]: value })),
      onProblem: (error: string | null) =>
        setUnread((now) => new Set([...now].filter((one) => one !== name).concat(error === null ? [] : name))),
    }),
  };
}

export type SweepPlan = ReturnType<typeof useSweepPlan>;
