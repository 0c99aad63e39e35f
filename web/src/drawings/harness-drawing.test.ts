import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { scaledSize } from '../pictures/scaled-picture.ts';
import { socketPlaces } from './harness-drawing.tsx';

describe('sockets on the panel', () => {
  it('stand in the middle of their inlets where there is room', () => {
    expect(socketPlaces([[60], [120, 180], [300]], 400)).toEqual([60, 150, 300]);
  });
  it('keep their order and their distance whatever hangs on them', () => {
    fc.assert(
      fc.property(
        fc.array(fc.array(fc.integer({ min: 40, max: 900 }), { maxLength: 5 }), { minLength: 1, maxLength: 24 }),
        (inlets) => {
          const height = 30 + Math.max(600, inlets.length * 25 + 44);
          const ys = socketPlaces(inlets, height);
          ys.forEach((y, index) => {
            expect(y).toBeGreaterThanOrEqual(46 - 1e-9);
            expect(y).toBeLessThanOrEqual(height - 22 + 1e-9);
            if (index > 0) expect(y - ys[index - 1]!).toBeGreaterThanOrEqual(25 - 1e-9);
          });
        },
      ),
      { seed: 3 },
    );
  });
});

describe('a picture', () => {
  it('is scaled to its longer edge and never enlarged', () => {
    expect(scaledSize(3200, 2000, 1600)).toEqual({ width: 1600, height: 1000 });
    expect(scaledSize(1000, 4000, 1600)).toEqual({ width: 400, height: 1600 });
    expect(scaledSize(640, 480, 1600)).toEqual({ width: 640, height: 480 });
    expect(scaledSize(20_000, 1, 1600)).toEqual({ width: 1600, height: 1 });
  });
});
