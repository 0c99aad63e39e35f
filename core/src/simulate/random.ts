/* oxlint-disable typescript/no-non-null-assertion -- an index below the length of its list */
/** Evenly spread figures from 0 up to 1. */
export type Random = () => number;

/** A small generator with a fixed seed (mulberry32), so that a simulation can be run again as it was. */
export function seeded(seed: number): Random {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4_294_967_296;
  };
}

/** One figure of the normal distribution with mean 0 and deviation 1 (Box and Muller). */
export function normal(random: Random): number {
  return Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
}

/** An index drawn by weight. @param weights non-negative, at least one above 0 */
export function pick(random: Random, weights: Iterable<number>): number {
  const list = [...weights];
  let left = random() * list.reduce((sum, weight) => sum + weight, 0);
  for (let index = 0; index < list.length; index += 1) {
    left -= list[index]!;
    if (left < 0) return index;
  }
  return list.findLastIndex((weight) => weight > 0);
}
