import { describe, expect, it } from 'vitest';
import { boundToBe } from './bound-to-be.ts';

describe('what is bound to be there', () => {
  it('is given, be it nothing much', () => {
    expect(boundToBe(0, 'figure')).toBe(0);
    expect(boundToBe('', 'text')).toBe('');
    expect(boundToBe(false, 'answer')).toBe(false);
  });

  it('is an error by its name where it is not there', () => {
    expect(() => boundToBe(undefined, 'inlet cpu-1')).toThrow('there is no inlet cpu-1');
    expect(() => boundToBe(null, 'cable')).toThrow(RangeError);
  });
});
