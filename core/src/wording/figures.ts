import { figureText, plainFigure, wholePercent } from './manner.ts';

/** Volts as a bench writes them: two places, three for fine figures. */
export function voltsText(volts: number, places = 2): string {
  return figureText(volts, places);
}

/** Whole watts. */
export function wattsText(watts: number): string {
  return `${Math.round(watts)} W`;
}

/** A share as whole per cent; "under 1" and "over 99" instead of 0 and 100. */
export function percentText(share: number): string {
  if (share > 0 && share < 0.005) return `<${wholePercent(0.01)}`;
  if (share < 1 && share > 0.995) return `>${wholePercent(0.99)}`;
  return wholePercent(share);
}

/** A peak's length as people say it. */
export function durationText(milliseconds: number): string {
  return milliseconds >= 1000 ? `${plainFigure(milliseconds / 1000)} s` : `${plainFigure(milliseconds)} ms`;
}

/** How many there are: "one tie", "3 ties". */
export const counted = (count: number, one: string) => `${count === 1 ? 'one' : count} ${one}${count === 1 ? '' : 's'}`;
