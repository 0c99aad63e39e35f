import { describe, expect, it } from 'vitest';
import { scaledSize } from './scaled-picture.ts';

describe('a picture', () => {
  it('is scaled to its longer edge and never enlarged', () => {
    expect(scaledSize(3200, 2000, 1600)).toEqual({ width: 1600, height: 1000 });
    expect(scaledSize(1000, 4000, 1600)).toEqual({ width: 400, height: 1600 });
    expect(scaledSize(640, 480, 1600)).toEqual({ width: 640, height: 480 });
    expect(scaledSize(20_000, 1, 1600)).toEqual({ width: 1600, height: 1 });
  });
});
