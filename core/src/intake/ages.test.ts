import { describe, expect, it } from 'vitest';
import { understand } from './understand.ts';

/** Whose years a line tells, and what of it nobody knows. */
function agesIn(line: string) {
  const { said, unknown } = understand(line);
  return {
    ages: said.flatMap((one) => (one.kind === 'age' ? [`${one.of} ${one.years}`] : [])),
    unknown: unknown.map(({ from, to }) => line.slice(from, to)),
  };
}

describe('years', () => {
  it.each([
    ['of the supply, where it was spoken of last', '500 W supply, it is 7 years old', 'supply 7'],
    ['of the supply, in short', "500 W psu. It's 7 years old", 'supply 7'],
    ['of the supply, in one sentence', '650 W supply, which is 5 years old', 'supply 5'],
    ['of the machine, where something else was', "500 W supply, card 8 170 W, it's 7 years old", 'machine 7'],
    ['of the machine, where nothing was', 'it is 7 years old', 'machine 7'],
    ['of the machine, before its case', '7 year old tower, 450 W psu', 'machine 7'],
    ['of the machine, before its board', '8 yr old board, 2 ssd', 'machine 8'],
  ])('%s', (_whose, line, age) => {
    expect(agesIn(line)).toEqual({ ages: [age], unknown: [] });
  });
  it.each([
    ['3 year old card 8-pin 170 W', '3 year old'],
    ['tower, 2 years old ssd', '2 years old'],
    ['650 W supply, 6 y old hard drive', '6 y old'],
  ])('of one part are nobody else’s, and told: %s', (line, told) => {
    expect(agesIn(line)).toEqual({ ages: [], unknown: [told] });
  });
});
