import type { Feature } from '@fairwatt/core';

/** What is asked of a feature. */
export const questionText: Readonly<Record<Feature, string>> = {
  look: 'What does it look like?',
  pins: 'How many places with a contact?',
  rows: 'In how many rows?',
  splits: 'Does it come apart?',
  twelve: 'Which row has the yellow wires?',
  gap: 'Where is a place without a pin?',
  key: 'What keeps it from going in the wrong way?',
  mains: 'How do its holes lie?',
};

export const features = Object.keys(questionText) as readonly Feature[];

const answerWords: Readonly<Record<string, string>> = {
  block: 'A block of square holes',
  supply: 'A socket at the back of a supply',
  flat: 'Flat, with a slot',
  round: 'Round contacts',
  pins: 'Thin pins, or their small plug',
  mains: 'A mains lead',
  whole: 'No, one piece',
  '20+4': 'Yes, 20 and 4',
  '4+4': 'Yes, 4 and 4',
  '6+2': 'Yes, 6 and 2',
  'latch-side': 'The row at the latch',
  'other-side': 'The other row',
  none: 'None is missing',
  corner: 'At a corner, in the row without pin 1',
  'beside-corner': 'At a corner, in the row of pin 1',
  middle: 'Second from the end',
  third: 'The third of four',
  ridge: 'A ridge beside the pins',
  arrow: 'An arrow, or volts in print',
  plain: 'Nothing',
  'three-flat': 'Three flat ones, small',
  notched: 'Three flat ones and a notch',
  large: 'Three flat ones lying across, large',
  clover: 'Three round ones, a clover',
  eight: 'Two, a figure of eight',
  other: 'Another number',
};

/** An answer in words. */
export function answerText(feature: Feature, answer: string | number): string {
  if (typeof answer === 'string') return answerWords[answer] ?? answer;
  if (feature === 'rows') return answer === 1 ? 'One' : 'Two';
  return String(answer);
}
