import { placeText, stateWordText, type InletRow } from '@fairwatt/core';

/** How an inlet is drawn: by its state, or with its old plug out. */
export const marks = { seated: '✓', 'to-seat': '', stays: '', open: '!', wrong: '✕', unplugged: '○' } as const;
export type DrawnState = keyof typeof marks;

/** What the states are called where they are not those of seating. */
export type DrawnWords = Readonly<Record<'seated' | 'to-seat' | 'open' | 'wrong', string>>;

export const drawnState = (row: InletRow, unplugged: ReadonlySet<string>): DrawnState =>
  row.state === 'to-seat' && unplugged.has(row.inletId) ? 'unplugged' : row.state;

const wordOf = (row: InletRow, state: DrawnState, words: Partial<DrawnWords>) => {
  if (state === 'unplugged') return 'unplugged, to seat';
  return (state === 'stays' ? undefined : words[state]) ?? stateWordText[row.state];
};

/** What stands beside an inlet, and first in its name: what is in between, that a hand put it there, its state. */
export const atInlet = (row: InletRow, state: DrawnState, words: Partial<DrawnWords>): string =>
  [row.adapterLabel, row.pinned ? 'by hand' : null, wordOf(row, state, words)]
    .filter((piece) => piece !== null)
    .join(', ');

/** All that the drawing says of an inlet: its state, its cable with socket and plug, an adapter, its place. */
export const nameOf = (row: InletRow, state: DrawnState, words: Partial<DrawnWords>): string =>
  [
    `${row.label} ${atInlet(row, state, words)}`,
    row.cableCode === null ? '' : `cable ${row.cableCode}`,
    row.socketLabel === null ? '' : `socket ${row.socketLabel}`,
    row.adapterId === null ? '' : `through ${row.adapterLabel ?? 'an adapter'}`,
    placeText[row.place],
  ]
    .filter((piece) => piece !== '')
    .join(', ');
