import { boundToBe } from '../bound-to-be.ts';
import { railBand, type RailName } from '../standards/index.ts';

/** A meter's answer and when it came, in milliseconds of any clock that only runs forward. */
export interface TimedLook {
  readonly milliseconds: number;
  readonly volts: number;
}

/**
 * Looks that have to agree, and how long they have to reach back (bench practice: a few time constants of an input).
 */
export const settlingLooks = 4;
export const settlingSpanMilliseconds = 60;
/** How well they have to agree, as a share of nominal. */
const settlingShare = 0.005;
/** A meter has settled after this time whatever it shows: what still moves then is the rail. */
export const longestSettlingMilliseconds = 1500;

/**
 * Whether a meter shows what its probes touch, after they were moved to another rail or the load was changed.
 * @param looks since then, the latest last
 */
export function hasSettled(rail: RailName, looks: readonly TimedLook[]): boolean {
  const last = looks.at(-1);
  const first = looks[0];
  if (last === undefined || first === undefined) return false;
  if (last.milliseconds - first.milliseconds >= longestSettlingMilliseconds) return true;
  const recent = looks.filter(
    (look, index) =>
      index >= looks.length - settlingLooks || last.milliseconds - look.milliseconds <= settlingSpanMilliseconds,
  );
  const span = last.milliseconds - boundToBe(recent[0], 'recent look').milliseconds;
  if (recent.length < settlingLooks || span < settlingSpanMilliseconds) return false;
  const volts = recent.map((look) => look.volts);
  return Math.max(...volts) - Math.min(...volts) <= settlingShare * Math.abs(railBand(rail, '2.x').nominal);
}
