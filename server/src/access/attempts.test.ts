import { describe, expect, it } from 'vitest';
import { afterFailure, mostFailures, pauseSeconds } from './attempts.ts';

const at = '2026-11-27T10:00:00.000Z';

describe('wrong secrets in a row', () => {
  it('cost nothing for a slip or two, then twice as long each time', () => {
    expect([1, 2, 3, 4, 5, 9].map(pauseSeconds)).toEqual([0, 0, 1, 2, 4, 64]);
    expect(afterFailure(0, at)).toEqual({ failures: 1, pausedUntil: null, locked: false });
    expect(afterFailure(3, at)).toEqual({ failures: 4, pausedUntil: '2026-11-27T10:00:02.000Z', locked: false });
  });
  it('lock the person after ten, so that of a million PINs ten can be tried', () => {
    expect(afterFailure(mostFailures - 2, at).locked).toBe(false);
    expect(afterFailure(mostFailures - 1, at).locked).toBe(true);
  });
});
