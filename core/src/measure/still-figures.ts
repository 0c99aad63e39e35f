import type { RailName } from '../standards/index.ts';
import { autoHold, hasMoved, type Held } from './auto-hold.ts';
import { hasSettled, type TimedLook } from './settling.ts';

/** Values that are remembered; more than a hold needs. */
const remembered = 40;

/** What a meter's answers have come to since its probes were put on a rail. */
export interface StillFigures {
  /** The looks until its input has settled, null from then on. */
  readonly settling: readonly TimedLook[] | null;
  /** What came since it settled, the latest last. */
  readonly last: readonly number[];
  readonly held: Held | null;
}

/** The probes were put on a rail just now: a moved probe shows after some moments only. */
export const atOnce: StillFigures = { settling: [], last: [], held: null };

/**
 * One answer of the meter. @returns the state after it, and the figure that came to rest with it, once for each time
 *   that it does
 */
export function look(
  state: StillFigures,
  rail: RailName,
  answer: TimedLook,
): { readonly state: StillFigures; readonly rests: Held | null } {
  if (state.settling !== null) {
    const settling = [...state.settling, answer];
    return { state: { ...state, settling: hasSettled(rail, settling) ? null : settling }, rests: null };
  }
  const last = [...state.last, answer.volts].slice(-remembered);
  if (state.held !== null && !hasMoved(rail, state.held, last)) return { state: { ...state, last }, rests: null };
  const held = autoHold(rail, last);
  return { state: { ...state, last, held }, rests: held };
}
