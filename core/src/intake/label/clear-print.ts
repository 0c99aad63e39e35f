/* oxlint-disable typescript/no-non-null-assertion --
   points of a picture are typed arrays, gone through by number within its width and height */
import { inkBelow, type Grey } from './grey.ts';

/** Rules are at least this long, in heights of a large letter, and this high at most, in points. */
const ruleFrom = 2.2;
const ruleHigh = 6;
/** Lighter than this is ground beside a rule. */
const groundFrom = 150;

/**
 * The same without the rules of its table: a run of print that is longer than any letter, with ground on both sides of
 * it, becomes ground.
 * @param letter height of a large letter, in points
 */
export function withoutRules({ width, height, data }: Grey, letter: number): Grey {
  const least = Math.round(letter * ruleFrom);
  const clear = new Uint8Array(data);
  const isInk = (point: number) => point >= 0 && point < data.length && data[point]! < groundFrom;
  const wipe = (lines: number, long: number, at: (line: number, along: number) => number, across: number) => {
    /** Whether most of what lies so far beside a run is ground. */
    const isFree = (line: number, from: number, to: number, beside: number) => {
      let ink = 0;
      for (let along = from; along < to; along += 1) if (isInk(at(line, along) + beside * across)) ink += 1;
      return ink < (to - from) * 0.3;
    };
    for (let line = 0; line < lines; line += 1) {
      let begun = 0;
      for (let along = 0; along <= long; along += 1) {
        if (along < long && isInk(at(line, along))) continue;
        if (along - begun >= least && isFree(line, begun, along, ruleHigh) && isFree(line, begun, along, -ruleHigh))
          for (let wiped = begun; wiped < along; wiped += 1)
            for (let beside = -2; beside <= 2; beside += 1) {
              const point = at(line, wiped) + beside * across;
              if (point >= 0 && point < clear.length) clear[point] = 255;
            }
        begun = along + 1;
      }
    }
  };
  wipe(height, width, (line, along) => line * width + along, width);
  wipe(width, height, (line, along) => along * width + line, 1);
  return { width, height, data: clear };
}

/** Smaller than this, in points, is grain; a decimal point is larger. */
const grainBelow = 9;
/** Joined print that is this many letters wide, or this many high, is an edge or a frame. */
const frameWide = 9;
const frameHigh = 3.5;

/**
 * The same without grain and without what is far larger than a letter: the edge of the label, and what shade there is
 * along it.
 * @param letter height of a large letter, in points
 */
export function withoutFrame({ width, height, data }: Grey, letter: number): Grey {
  const clear = new Uint8Array(data);
  const seen = new Uint8Array(data.length);
  const joined: number[] = [];
  for (let start = 0; start < data.length; start += 1) {
    if (seen[start] === 1 || data[start]! >= inkBelow) continue;
    joined.length = 0;
    joined.push(start);
    seen[start] = 1;
    let [left, right, bottom] = [width, 0, 0];
    for (let next = 0; next < joined.length; next += 1) {
      const at = joined[next]!;
      const x = at % width;
      left = Math.min(left, x);
      right = Math.max(right, x);
      bottom = Math.max(bottom, at);
      for (const beside of [at - 1, at + 1, at - width, at + width])
        if (beside >= 0 && beside < data.length && seen[beside] === 0 && data[beside]! < inkBelow) {
          seen[beside] = 1;
          joined.push(beside);
        }
    }
    const high = Math.floor(bottom / width) - Math.floor(start / width);
    if (joined.length >= grainBelow && right - left < frameWide * letter && high < frameHigh * letter) continue;
    for (const at of joined) clear[at] = 255;
  }
  return { width, height, data: clear };
}
