import type { FigureDoubt, LabelReadProblem } from '../intake/index.ts';
import { wattsText } from './figures.ts';
import { plainFigure } from './manner.ts';

/** Why a figure that was read from a picture is to be looked at. */
export const figureDoubtText: Readonly<Record<FigureDoubt, string>> = {
  unsure: 'hard to read',
  differs: 'read twice, it was two different figures',
  mended: 'a digit or its point was taken for what it looks like',
  unusual: 'no usual figure for it',
  'adds-up-not': 'it does not add up with the others',
};

/** What a picture of a label leaves open, or where it speaks against itself. */
export function labelReadProblemText(problem: LabelReadProblem): string {
  switch (problem.code) {
    case 'nothing':
      return 'No output and no rating was found. Is it the label, whole, near enough and without a lamp in it?';
    case 'no-rating':
      return 'The rating was not found.';
    case 'no-output':
      return `No output of ${problem.rail} V was found.`;
    case 'no-amps':
      return `${problem.label}: its amps were not found.`;
    case 'loose-amps':
      return `${plainFigure(problem.amps)} A stands there, and no output by it was found.`;
    case 'no-shared-limit':
      return 'A limit that several outputs share was not found.';
    case 'outputs-below-rating':
      return (
        `All outputs together are ${wattsText(problem.outputsWatts)}, ` +
        `less than the rating of ${wattsText(problem.ratingWatts)}.`
      );
    case 'limit-above-amps':
      return (
        `${problem.labels.join(' + ')} share ${wattsText(problem.watts)}, ` +
        `and their amps make only ${wattsText(problem.most)}.`
      );
  }
}
