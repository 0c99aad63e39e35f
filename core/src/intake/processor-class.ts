import { boundToBe } from '../bound-to-be.ts';
/** A second inlet for processors of 170 W and more (bench practice). */
export const asksSecondInlet = (classId: string): boolean =>
  ['processor-170', 'processor-250', 'processor-350'].includes(classId);

/** The smallest of the classes that was not exceeded; the largest for what exceeds all. */
export function classAt(classes: readonly (readonly [number, string])[], figure: number): string {
  return (classes.find(([most]) => figure <= most) ?? boundToBe(classes.at(-1), 'class'))[1];
}

export const processorClasses = [
  [35, 'processor-35'],
  [65, 'processor-65'],
  [105, 'processor-105'],
  [125, 'processor-125'],
  [170, 'processor-170'],
  [250, 'processor-250'],
  [350, 'processor-350'],
] as const;

/** What processors of so many cores usually are (bench practice), where the watts are not said. */
export const processorsByCores = [
  [6, 'processor-65'],
  [8, 'processor-105'],
  [12, 'processor-125'],
  [16, 'processor-170'],
  [24, 'processor-250'],
  [Infinity, 'processor-350'],
] as const;
