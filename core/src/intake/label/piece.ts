/* oxlint-disable typescript/no-non-null-assertion --
   points of a picture are typed arrays, gone through by number within its width and height */
import { inkBelow, type Grey } from './grey.ts';
import type { Box } from './printed.ts';

const ground = 255;

/** The picture between its outermost print, with a little ground around. */
export function trimmed(print: Grey, margin: number): Grey {
  const { width, height, data } = print;
  let [left, top, right, bottom] = [width, height, 0, 0];
  for (let y = 0; y < height; y += 1)
    for (let x = 0; x < width; x += 1)
      if (data[y * width + x]! < inkBelow) {
        left = Math.min(left, x);
        right = Math.max(right, x);
        top = Math.min(top, y);
        bottom = Math.max(bottom, y);
      }
  if (right < left) return print;
  return piece(print, { left: left - margin, top: top - margin, right: right + margin, bottom: bottom + margin });
}

/** A piece of a picture; what lies outside of it is ground. */
export function piece({ width, height, data }: Grey, box: Box): Grey {
  const [left, top] = [Math.floor(box.left), Math.floor(box.top)];
  const wide = Math.max(1, Math.ceil(box.right) - left);
  const high = Math.max(1, Math.ceil(box.bottom) - top);
  const cut = new Uint8Array(wide * high).fill(ground);
  for (let y = Math.max(0, -top); y < high && top + y < height; y += 1)
    for (let x = Math.max(0, -left); x < wide && left + x < width; x += 1)
      cut[y * wide + x] = data[(top + y) * width + left + x]!;
  return { width: wide, height: high, data: cut };
}

/** Pieces of a picture below each other, each a line of its own, and where each begins and ends. */
export function stacked(pieces: readonly Grey[], gap: number): { readonly grey: Grey; readonly lines: readonly Box[] } {
  const width = Math.max(1, ...pieces.map((one) => one.width)) + 2 * gap;
  const height = pieces.reduce((sum, one) => sum + one.height + gap, gap);
  const data = new Uint8Array(width * height).fill(ground);
  const lines: Box[] = [];
  let top = gap;
  for (const one of pieces) {
    for (let y = 0; y < one.height; y += 1)
      data.set(one.data.subarray(y * one.width, (y + 1) * one.width), (top + y) * width + gap);
    lines.push({ left: gap, top, right: gap + one.width, bottom: top + one.height });
    top += one.height + gap;
  }
  return { grey: { width, height, data }, lines };
}
