import fc from 'fast-check';
import { expect, it } from 'vitest';
import { shortOf } from './intake.test-help.ts';
import { isSameAlone, namedOnce } from './same-as.ts';
import { understand } from './understand.ts';

it.each([
  ['planning a second gpu same as the first', '+1 like gpu'],
  ['plan a second gpu, same as the first', '+1 like gpu'],
  ['wants another card, the same as the one that is there', '+1 like card'],
  ['card 8+6 220 W, + 2 identical cards', 'card-86 220W, +2 like cards'],
  ['+ 30 cards same as the first', 'ask quantity'],
  ['upgrade to a second gpu like the first card', '+1 like gpu'],
  ['two more sticks like the present', '+2 like sticks'],
  ['same tower as before', 'tower, !same, !as, !before'],
])('%s', (line, understood) => {
  expect(shortOf(understand(line), line)).toBe(understood);
});

it('blanks out only what is named once more, and moves nothing', () => {
  const words = [
    'same',
    'as',
    'the',
    'first',
    'like',
    'identical',
    'to',
    'card',
    '2',
    'fans',
    'ssd',
    ',',
    'old',
    'one',
  ];
  fc.assert(
    fc.property(fc.array(fc.constantFrom(...words), { maxLength: 20 }), (some) => {
      const line = some.join(' ');
      const read = namedOnce(line);
      expect(read).toHaveLength(line.length);
      Array.from(read).forEach((letter, index) => expect([line[index], ' ']).toContain(letter));
    }),
  );
  expect(namedOnce('a gpu like the first card')).toBe('a gpu like the first     ');
  expect(namedOnce('same card, 2 fans')).toBe('same card, 2 fans');
});

it('goes on with what stands before it where it says nothing else', () => {
  for (const text of ['same as the first', ' the same again ', 'identical']) expect(isSameAlone(text)).toBe(true);
  for (const text of ['', 'same card', 'the first', '2 the same']) expect(isSameAlone(text)).toBe(false);
});
