import type { Said, Span } from './said.ts';

/** What the upgrade does with what a stretch names. */
export type Way = 'stays' | 'added' | 'removed' | 'replaced';

/** A clause, and where it begins in the line. */
export interface ClauseText {
  readonly from: number;
  readonly text: string;
}

/** A part of a clause. */
export interface Stretch {
  readonly from: number;
  readonly to: number;
  readonly way: Way;
  /** The part with the sign, the arrow or the words that say its way; none where it stays. */
  readonly signed: Span | null;
}

const arrow = /->|→|=>|(?<!\w)(?:becomes|replaced by)(?!\w)/i;

/** A stretch without the blanks around it. */
export const spanOf = (text: string, from: number): Span => ({
  from: from + text.length - text.trimStart().length,
  to: from + text.trimEnd().length,
});

/** `replace the card with ...`, `swap it for ...`: what leaves, then what comes; the other way round with `instead of`. */
const exchanges =
  /^\s*(?:replace|swap|exchange|change)\s+(?<gone>.+?)(?:\s+(?:with|by|for|to)(?:\s+(?<come>.+))?)?\s*$/di;
const insteadOf = /^\s*(?:(?<come>.+?)\s+)?instead of\s+(?<gone>.+)$/di;

/** The ways of an upgrade: `+ card` comes, `- card` goes, `card -> card` does both, in signs or in words. */
export function waysOf(text: string): Stretch[] {
  const { from: start, to: end } = spanOf(text, 0);
  const found = arrow.exec(text);
  if (found !== null) {
    const behind = found.index + found[0].length;
    return [
      { from: 0, to: found.index, way: 'replaced', signed: { from: start, to: behind } },
      { from: behind, to: text.length, way: 'added', signed: null },
    ];
  }
  const inWords = exchanges.exec(text) ?? insteadOf.exec(text);
  if (inWords !== null) {
    const at = (inWords.indices?.groups ?? {}) as Readonly<Record<string, readonly [number, number] | undefined>>;
    const { gone = [0, 0], come = [end, end] } = at;
    const all =
      gone[0] < come[0] ? { from: start, to: text.slice(0, come[0]).trimEnd().length } : { from: come[1] + 1, to: end };
    return [
      { from: gone[0], to: gone[1], way: 'replaced', signed: all },
      { from: come[0], to: come[1], way: 'added', signed: null },
    ];
  }
  const sign = /^\s*(?:(\+|add(?:ed)?(?!\w))|([-−–]|(?:remove|take out|without|minus)(?!\w)))\s*/i.exec(text);
  if (sign === null) return [{ from: 0, to: text.length, way: 'stays', signed: null }];
  const way = sign[1] === undefined ? 'removed' : 'added';
  return [{ from: sign[0].length, to: text.length, way, signed: { from: start, to: sign[0].length } }];
}

/**
 * With the sign or the words that it was said with: `- drive` that stays in the line, since it is not clear which one is
 * meant, must not be read as `drive` the next time. A sign belongs to the first thing behind it.
 */
export function withSign(said: Said, clause: ClauseText, { way, signed }: Stretch, first: boolean): Said {
  if (signed === null || (way !== 'replaced' && !first)) return said;
  return {
    ...said,
    from: Math.min(said.from, clause.from + signed.from),
    to: Math.max(said.to, clause.from + signed.to),
  };
}
