import { railBand, type RailName } from '../standards/index.ts';

/** A figure that stood still long enough to be written down. */
export interface Held {
  readonly meanVolts: number;
  readonly spreadVolts: number;
  readonly count: number;
}

/** Values that have to stand still together. */
export const holdCount = 12;
/** How still: the deviation stays under this share of nominal (bench practice). */
const holdShare = 0.003;
/** A probe that hangs in the air shows less than this share of nominal. */
export const touchingShare = 0.2;
/** A creep smaller than this share of nominal from one half of the values to the other is of no account. */
const creepShare = 0.0002;
/** A creep counts once it exceeds this many standard errors of the difference of the two halves. */
const creepErrors = 3;

/** Another figure than the held one begins beyond this share of nominal ... */
const movedShare = 0.001;
/** ... and beyond this many standard errors of the difference of two held means. */
const movedErrors = 5;

const meanOf = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;
const squaresAbout = (values: readonly number[], mean: number) =>
  values.reduce((sum, value) => sum + (value - mean) ** 2, 0);

/**
 * Whether values still creep one way, as a meter does that is not done settling: the halves differ by more than their
 * noise.
 */
function stillCreeps(values: readonly number[], nominal: number): boolean {
  const half = Math.floor(values.length / 2);
  const [first, second] = [values.slice(0, half), values.slice(-half)];
  const [before, after] = [meanOf(first), meanOf(second)];
  const variance = (squaresAbout(first, before) + squaresAbout(second, after)) / (2 * half - 2);
  const creep = Math.abs(after - before);
  return creep > creepShare * nominal && creep > creepErrors * Math.sqrt((2 * variance) / half);
}

/**
 * The held figure once the last values stand still on the rail, else null. A probe in the air does not hold, nor does a
 * meter that is not done settling.
 * @param values the latest last
 */
export function autoHold(rail: RailName, values: readonly number[]): Held | null {
  const last = values.slice(-holdCount);
  if (last.length < holdCount) return null;
  const nominal = Math.abs(railBand(rail, '2.x').nominal);
  const meanVolts = meanOf(last);
  const spreadVolts = Math.sqrt(squaresAbout(last, meanVolts) / (last.length - 1));
  const touching = Math.abs(meanVolts) >= touchingShare * nominal;
  return touching && spreadVolts <= holdShare * nominal && !stillCreeps(last, nominal)
    ? { meanVolts, spreadVolts, count: last.length }
    : null;
}

/**
 * Whether the values have left a held figure: the probe was lifted, or they stand elsewhere by more than their noise. A
 * figure that only shakes is still the same one, though the last values alone would not be held.
 * @param values the latest last
 */
export function hasMoved(rail: RailName, held: Held, values: readonly number[]): boolean {
  const last = values.slice(-holdCount);
  const latest = last.at(-1);
  if (latest === undefined) return false;
  const nominal = Math.abs(railBand(rail, '2.x').nominal);
  if (Math.abs(latest) < touchingShare * nominal) return true;
  if (last.length < holdCount) return false;
  const mean = meanOf(last);
  const spread = Math.max(held.spreadVolts, Math.sqrt(squaresAbout(last, mean) / (last.length - 1)));
  const away = Math.abs(mean - held.meanVolts);
  return away > movedShare * nominal && away > movedErrors * spread * Math.sqrt(2 / holdCount);
}
