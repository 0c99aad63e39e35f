import { describe, expect, it } from 'vitest';
import { seeded } from '../../simulate/index.ts';
import { evenLabel } from './even-label.ts';
import { asPrint, greyOf, type Grey } from './grey.ts';
import { piece, stacked, trimmed } from './piece.ts';
import { withoutFrame, withoutRules } from './clear-print.ts';
import { lieOf } from './straighten.ts';

const blank = (width: number, height: number, grey: number): Grey => ({
  width,
  height,
  data: new Uint8Array(width * height).fill(grey),
});

/**
 * Lines of letter-like dashes, turned by some degrees, under a light that fades to one side, with grain.
 * @param dark light print on dark ground
 */
function dashes(degrees: number, { dark = false, fan = 0 } = {}): Grey {
  const random = seeded(3);
  const [width, height] = [700, 420];
  const picture = blank(width, height, 0);
  const turn = Math.tan((degrees * Math.PI) / 180);
  for (let y = 0; y < height; y += 1)
    for (let x = 0; x < width; x += 1) {
      const right = x - width / 2;
      const level = (y - height / 2 - turn * right) / (1 + fan * right) + height / 2;
      const row = ((level % 32) + 32) % 32;
      const isInk =
        level > 90 && level < 330 && x > 120 && x < 580 && row < 10 && (x + 7 * Math.floor(level / 32)) % 9 < 5;
      const light = 1 - 0.4 * (x / width);
      const grey = (isInk !== dark ? 60 : 190) * light + (random() - 0.5) * 12;
      picture.data[y * width + x] = grey;
    }
  return picture;
}

const degreesOf = (fall: number) => (Math.atan(fall) * 180) / Math.PI;

describe('a picture in grey', () => {
  it('is as bright as it looks', () => {
    const rgba = Uint8ClampedArray.from([255, 255, 255, 255, 0, 0, 0, 255, 0, 255, 0, 255]);
    expect([...greyOf(3, 1, rgba).data]).toEqual([255, 0, 149]);
  });
  it.each([false, true])(
    'becomes dark print on light ground (light on dark: %s), from the bright end to the dim one',
    (dark) => {
      const { width, data } = asPrint(dashes(0, { dark }));
      const inkShare = (from: number, to: number) => {
        let ink = 0;
        for (let y = 100; y < 320; y += 1) for (let x = from; x < to; x += 1) if (data[y * width + x]! < 128) ink += 1;
        return ink / (220 * (to - from));
      };
      for (const share of [inkShare(150, 250), inkShare(450, 550)]) {
        expect(share).toBeGreaterThan(0.08);
        expect(share).toBeLessThan(0.25);
      }
    },
  );
});

describe('how the lines of a label lie', () => {
  it.each([-8, -3.5, 0, 2, 6, 8])('turned by %s degrees', (degrees) => {
    expect(degreesOf(lieOf(asPrint(dashes(degrees))).fall)).toBeCloseTo(degrees, 0);
  });
  it.each([-2e-4, 2e-4])('fanned by %s', (fan) => {
    expect(Math.sign(lieOf(asPrint(dashes(2, { fan }))).fan)).toBe(Math.sign(fan));
  });
  it('is level afterwards', () => {
    expect(Math.abs(degreesOf(lieOf(evenLabel(dashes(7))).fall))).toBeLessThan(0.5);
  });
  it('does not matter for a picture of nothing', () => {
    expect(() => evenLabel(blank(60, 40, 200))).not.toThrow();
    expect(() => evenLabel(blank(1, 1, 0))).not.toThrow();
  });
});

describe('what is no print', () => {
  const box = (grey: Grey, x0: number, y0: number, wide: number, high: number) => {
    for (let y = y0; y < y0 + high; y += 1) grey.data.fill(0, y * grey.width + x0, y * grey.width + x0 + wide);
  };
  const isInk = ({ width, data }: Grey, x: number, y: number) => data[y * width + x]! < 128;

  it('a rule goes, letters stay, and so does a thick bar of them', () => {
    const picture = blank(300, 120, 255);
    box(picture, 20, 20, 200, 2);
    box(picture, 40, 50, 12, 20);
    box(picture, 100, 80, 120, 14);
    const clear = withoutRules(picture, 20);
    expect(isInk(clear, 100, 20)).toBe(false);
    expect(isInk(clear, 45, 60)).toBe(true);
    expect(isInk(clear, 150, 87)).toBe(true);
  });
  it('grain and frame go, a decimal point stays', () => {
    const picture = blank(300, 200, 255);
    box(picture, 5, 5, 280, 3);
    box(picture, 5, 5, 3, 180);
    box(picture, 50, 50, 2, 2);
    box(picture, 80, 80, 4, 4);
    const clear = withoutFrame(picture, 20);
    expect(isInk(clear, 100, 6)).toBe(false);
    expect(isInk(clear, 6, 100)).toBe(false);
    expect(isInk(clear, 50, 50)).toBe(false);
    expect(isInk(clear, 81, 81)).toBe(true);
  });
  it('is cut off around, and a piece keeps its place even at the edge', () => {
    const picture = blank(100, 100, 255);
    box(picture, 40, 50, 10, 6);
    expect(trimmed(picture, 5)).toMatchObject({ width: 19, height: 15 });
    expect(trimmed(blank(10, 10, 255), 5)).toMatchObject({ width: 10, height: 10 });
    const edge = piece(picture, { left: 45, top: 52, right: 110, bottom: 120 });
    expect(edge).toMatchObject({ width: 65, height: 68 });
    expect([isInk(edge, 4, 3), isInk(edge, 5, 3)]).toEqual([true, false]);
    expect(piece(picture, { left: -20, top: -20, right: -5, bottom: -5 }).data.every((grey) => grey === 255)).toBe(
      true,
    );
  });
  it('pieces below each other keep what they show, each on its own line', () => {
    const dark = blank(10, 6, 0);
    const { grey, lines } = stacked([dark, blank(20, 8, 0)], 5);
    expect(grey).toMatchObject({ width: 30, height: 29 });
    expect(lines).toEqual([
      { left: 5, top: 5, right: 15, bottom: 11 },
      { left: 5, top: 16, right: 25, bottom: 24 },
    ]);
    expect(lines.map(({ left, top }) => isInk(grey, left, top))).toEqual([true, true]);
    expect(isInk(grey, 16, 6)).toBe(false);
  });
});
