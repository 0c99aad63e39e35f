import { describe, expect, it } from 'vitest';
import { keyMemory, stationWithin } from './key-memory.ts';

describe('a station by g and its digit', () => {
  it('goes with the digit after it, and once', () => {
    const memory = keyMemory();
    expect(memory.goes(0)).toBe(false);
    memory.go(1_000);
    expect(memory.goes(1_800)).toBe(true);
    expect(memory.goes(1_900)).toBe(false);
  });

  it('waits so long and no longer', () => {
    const memory = keyMemory();
    memory.go(1_000);
    expect(memory.goes(1_000 + stationWithin - 1)).toBe(true);
    memory.go(1_000);
    expect(memory.goes(1_000 + stationWithin)).toBe(false);
  });

  it('is forgotten with another key, and begins anew with another g', () => {
    const memory = keyMemory();
    memory.go(1_000);
    memory.forget();
    expect(memory.goes(1_100)).toBe(false);
    memory.go(1_000);
    memory.go(4_500);
    expect(memory.goes(5_500)).toBe(true);
  });
});

describe('Enter', () => {
  it('is not meant right after one that was', () => {
    const memory = keyMemory();
    expect([0, 399, 400, 700, 801].map(memory.meant)).toEqual([true, false, true, false, true]);
  });
});
