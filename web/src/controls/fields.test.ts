import { describe, expect, it } from 'vitest';
import { figureProblem } from './fields.tsx';

describe('a figure as people type it', () => {
  it.each(['11,9', '11.9', '11.9V', '11.9 v', '0', '.5', ',5', '12.'])('takes %s', (text) => {
    expect(figureProblem(text, 0, 100, 'refused')).toBeNull();
  });
  it.each([
    ['lots', /not a figure/],
    ['1.2.3', /not a figure/],
    ['1e3', /not a figure/],
    ['-1', /from 0 to 100/],
    ['101', /from 0 to 100/],
    ['', /a figure from 0 to 100/],
  ])('says what is wrong with “%s”', (text, told) => {
    expect(figureProblem(text, 0, 100, 'refused')).toMatch(told);
  });
  it('lets an optional field be empty and a count be whole only', () => {
    expect(figureProblem('  ', 0, 100, 'allowed')).toBeNull();
    expect(figureProblem('2.5', 1, 64, 'refused', true)).toBe('a whole number');
    expect(figureProblem('3', 1, 64, 'refused', true)).toBeNull();
  });
});
