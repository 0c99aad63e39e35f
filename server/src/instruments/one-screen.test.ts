import { describe, expect, it } from 'vitest';
import { OneScreen } from './one-screen.ts';

describe('a meter that takes figures by itself', () => {
  it('does so for the latest screen alone, each meter by itself', () => {
    const screens = new OneScreen();
    const first = screens.take('meter-1', new AbortController().signal);
    const other = screens.take('meter-2', new AbortController().signal);
    expect(first.aborted).toBe(false);
    const second = screens.take('meter-1', new AbortController().signal);
    expect([first.aborted, second.aborted, other.aborted]).toEqual([true, false, false]);
  });

  it('is nobody’s once its screen has left, also when that one leaves late', () => {
    const screens = new OneScreen();
    const [early, late] = [new AbortController(), new AbortController()];
    const first = screens.take('meter-1', early.signal);
    const second = screens.take('meter-1', late.signal);
    early.abort();
    const third = screens.take('meter-1', new AbortController().signal);
    expect([first.aborted, second.aborted, third.aborted]).toEqual([true, true, false]);
    late.abort();
    expect(third.aborted).toBe(false);
  });
});
