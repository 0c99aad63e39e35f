import type { Span } from './said.ts';

/**
 * A stretch of the line that is read piece by piece: what was read is blanked out, so that what is left at the end is
 * what nobody knows.
 */
export class Clause {
  private readonly from: number;
  private rest: string;
  private first = Infinity;
  private last = -Infinity;

  /** @param from where the stretch begins in the line */
  constructor(text: string, from: number) {
    this.rest = text;
    this.from = from;
  }

  /**
   * Takes the first match out of what is left; null when there is none.
   * @param counts whether it is part of what the stretch says; a filler is not
   */
  take(pattern: RegExp, counts = true): RegExpExecArray | null {
    const found = pattern.exec(this.rest);
    if (found === null || found[0].trim() === '') return null;
    this.takeAt(found.index, found[0].length, counts);
    return found;
  }

  /** Takes the first match out of what is left, where it is such a one. */
  takeIf(pattern: RegExp, is: (found: RegExpExecArray) => boolean): RegExpExecArray | null {
    const found = pattern.exec(this.rest);
    return found !== null && is(found) ? this.take(pattern) : null;
  }

  /** Takes the first match out of what is left before a place; null when there is none. */
  takeBefore(index: number, pattern: RegExp): RegExpExecArray | null {
    const found = pattern.exec(this.rest.slice(0, index));
    if (found === null || found[0].trim() === '') return null;
    this.takeAt(found.index, found[0].length);
    return found;
  }

  /** Takes the first match out of what is left behind a place; null when there is none. */
  takeBehind(index: number, pattern: RegExp): RegExpExecArray | null {
    const found = pattern.exec(this.rest.slice(index));
    if (found === null || found[0].trim() === '') return null;
    this.takeAt(index + found.index, found[0].length);
    return found;
  }

  /** Takes so many letters out of what is left, from a place on. */
  takeAt(index: number, length: number, counts = true): void {
    const text = this.rest.slice(index, index + length);
    this.rest = this.rest.slice(0, index) + ' '.repeat(length) + this.rest.slice(index + length);
    if (!counts) return;
    this.first = Math.min(this.first, index + length - text.trimStart().length);
    this.last = Math.max(this.last, index + text.trimEnd().length);
  }

  /** Takes every match out of what is left. */
  takeAll(pattern: RegExp, counts = true): RegExpExecArray[] {
    const all: RegExpExecArray[] = [];
    for (let found = this.take(pattern, counts); found !== null; found = this.take(pattern, counts)) all.push(found);
    return all;
  }

  /** From the first to the last of what was taken; all of it where nothing was. */
  get span(): Span {
    if (this.first > this.last) {
      const begin = this.from + this.rest.length - this.rest.trimStart().length;
      return { from: begin, to: Math.max(begin, this.from + this.rest.trimEnd().length) };
    }
    return { from: this.from + this.first, to: this.from + this.last };
  }

  /** The words that were not taken. */
  unknown(): Span[] {
    return [...this.rest.matchAll(/[^\s,;]+/g)]
      .filter(([word]) => /[\p{L}\p{N}]/u.test(word))
      .map((found) => ({ from: this.from + found.index, to: this.from + found.index + found[0].length }));
  }
}
