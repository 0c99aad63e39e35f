import { withoutFrame, withoutRules } from './clear-print.ts';
import { asPrint, type Grey } from './grey.ts';
import { piece, stacked, trimmed } from './piece.ts';
import type { Box, PrintedWord } from './printed.ts';
import { figuresOf, type LabelRead, type ReadFigure } from './read-label.ts';
import { lieOf, straightened } from './straighten.ts';

/** Width to which a picture is brought, in points, so that the print of a label that fills it is well readable. */
const evenWidth = 1960;
/** Height of a large letter then. */
const letter = 42;

/**
 * The label of a picture as even, level, dark print on a light ground, without rules, grain and edge: what a reader of
 * print is given, and what is shown beside each figure.
 */
export function evenLabel(picture: Grey): Grey {
  const print = asPrint(picture);
  const scale = Math.min(3, Math.max(1, evenWidth / picture.width));
  const level = straightened(print, lieOf(print), scale);
  return trimmed(withoutFrame(withoutRules(level, letter), letter), letter / 2);
}

/** Ground around a figure, across and down, in points. */
const [besideFigure, aboveFigure] = [10, 6];

/** The piece of the picture that a figure stands in. */
export const pieceBox = ({ left, top, right, bottom }: Box): Box => ({
  left: left - besideFigure,
  top: top - aboveFigure,
  right: right + besideFigure,
  bottom: bottom + aboveFigure,
});

/** All figures of a label below each other, each on a line of its own, to be read once more with nothing around. */
export function figureStrip(print: Grey, read: LabelRead): { readonly grey: Grey; readonly lines: readonly Box[] } {
  return stacked(
    figuresOf(read).map(({ box }) => piece(print, pieceBox(box))),
    24,
  );
}

/** What was read on each line of the strip, by figure. */
export function readAgain(
  read: LabelRead,
  lines: readonly Box[],
  words: readonly PrintedWord[],
): Map<ReadFigure, PrintedWord> {
  const again = new Map<ReadFigure, PrintedWord>();
  figuresOf(read).forEach((figure, index) => {
    const line = lines[index];
    if (line === undefined) return;
    const on = words.filter(({ box }) => {
      const middle = (box.top + box.bottom) / 2;
      return middle > line.top && middle < line.bottom;
    });
    again.set(figure, {
      text: on.map(({ text }) => text).join(''),
      sure: Math.min(100, ...on.map(({ sure }) => sure)),
      box: line,
    });
  });
  return again;
}
