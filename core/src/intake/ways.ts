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
  const found = arrow.exec(text);
  if (found !== null)
    return [
      { from: 0, to: found.index, way: 'replaced' },
      { from: found.index + found[0].length, to: text.length, way: 'added' },
    ];
  const inWords = exchanges.exec(text) ?? insteadOf.exec(text);
  if (inWords !== null) {
    const at = (inWords.indices?.groups ?? {}) as Readonly<Record<string, readonly [number, number] | undefined>>;
    const { gone = [0, 0], come = [text.length, text.length] } = at;
    return [
      { from: gone[0], to: gone[1], way: 'replaced' },
      { from: come[0], to: come[1], way: 'added' },
    ];
  }
  const sign = /^\s*(?:(\+|add(?:ed)?(?!\w))|([-−–]|(?:remove|take out|without|minus)(?!\w)))\s*/i.exec(text);
  if (sign === null) return [{ from: 0, to: text.length, way: 'stays' }];
  return [{ from: sign[0].length, to: text.length, way: sign[1] === undefined ? 'removed' : 'added' }];
}

/**
 * With the sign or the arrow that it was said with: `- drive` that stays in the line, since it is not clear which one
 * is meant, must not be read as `drive` the next time.
 */
export function withSign(said: Said, clause: ClauseText, way: Way, first: boolean): Said {
  const found = arrow.exec(clause.text);
  if (found !== null)
    return way === 'replaced' ? { ...said, to: Math.max(said.to, clause.from + found.index + found[0].length) } : said;
  if (way === 'replaced') {
    // In words: all of the clause but what comes.
    const { from, to } = spanOf(clause.text, clause.from);
    const come = waysOf(clause.text).find((one) => one.way === 'added');
    if (come === undefined) return said;
    const before = said.from < clause.from + come.from;
    const edge = clause.text.slice(0, before ? come.from : come.to);
    return before
      ? { ...said, from, to: clause.from + edge.trimEnd().length }
      : { ...said, from: clause.from + edge.length + 1, to };
  }
  if (insteadOf.test(clause.text) || exchanges.test(clause.text)) return said;
  return way === 'stays' || !first ? said : { ...said, from: spanOf(clause.text, clause.from).from };
}
