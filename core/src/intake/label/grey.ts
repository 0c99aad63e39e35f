/* oxlint-disable typescript/no-non-null-assertion --
   points of a picture are typed arrays, gone through by number within its width and height */
/** A picture in grey, row by row from the top: 0 is black. */
export interface Grey {
  readonly width: number;
  readonly height: number;
  readonly data: Uint8Array;
}

/** Grey of a picture in red, green, blue and opacity, by how bright each looks (ITU-R BT.601). */
export function greyOf(width: number, height: number, rgba: Uint8ClampedArray): Grey {
  const data = new Uint8Array(width * height);
  for (let at = 0; at < data.length; at += 1)
    data[at] = 0.299 * rgba[at * 4]! + 0.587 * rgba[at * 4 + 1]! + 0.114 * rgba[at * 4 + 2]!;
  return { width, height, data };
}

/** Sums of the values, or of their squares, over all points above and left; one row and column larger. */
function sums({ width, height, data }: Grey, squared: boolean): Float64Array {
  const table = new Float64Array((width + 1) * (height + 1));
  for (let y = 0; y < height; y += 1) {
    let row = 0;
    let at = (y + 1) * (width + 1) + 1;
    for (let x = 0; x < width; x += 1, at += 1) {
      const value = data[y * width + x]!;
      row += squared ? value * value : value;
      table[at] = table[at - width - 1]! + row;
    }
  }
  return table;
}

/** The picture at half its width and height. */
export function halved({ width, height, data }: Grey): Grey {
  const [wide, high] = [width >> 1, height >> 1];
  const half = new Uint8Array(wide * high);
  for (let y = 0; y < high; y += 1)
    for (let x = 0; x < wide; x += 1) {
      const at = 2 * y * width + 2 * x;
      half[y * wide + x] = (data[at]! + data[at + 1]! + data[at + width]! + data[at + width + 1]!) >> 2;
    }
  return { width: wide, height: high, data: half };
}

/** Mean and spread of the square around each point. */
function surroundings(grey: Grey, reach: number): { readonly mean: Float32Array; readonly spread: Float32Array } {
  const { width, height } = grey;
  const plain = sums(grey, false);
  const squared = sums(grey, true);
  const mean = new Float32Array(width * height);
  const spread = new Float32Array(width * height);
  for (let y = 0; y < height; y += 1) {
    const [first, last] = [Math.max(0, y - reach), Math.min(height, y + reach + 1)];
    const [top, bottom] = [first * (width + 1), last * (width + 1)];
    for (let x = 0; x < width; x += 1) {
      const left = Math.max(0, x - reach);
      const right = Math.min(width, x + reach + 1);
      const count = (last - first) * (right - left);
      const [a, b, c, d] = [bottom + right, top + right, bottom + left, top + left];
      const middle = (plain[a]! - plain[b]! - plain[c]! + plain[d]!) / count;
      mean[y * width + x] = middle;
      spread[y * width + x] = Math.sqrt(
        Math.max(0, (squared[a]! - squared[b]! - squared[c]! + squared[d]!) / count - middle * middle),
      );
    }
  }
  return { mean, spread };
}

/** Darker than this is print, in a picture made by `asPrint`. */
export const inkBelow = 128;

/** Spread that print has at least, of 255, and how many times it has that of the ground's own grain. */
const leastSpread = 12;
const overGrain = 4;
/** Spreads below the surroundings from which a point is black, and up to which it is white. */
const darkest = -1.6;
const lightest = -0.4;

/** The picture with each point the mean of nine, the middle one counting most: grain goes, print stays. */
function softened({ width, height, data }: Grey): Grey {
  const across = new Float32Array(data.length);
  for (let at = 0; at < data.length; at += 1) {
    const x = at % width;
    across[at] = data[at - (x > 0 ? 1 : 0)]! + 2 * data[at]! + data[at + (x < width - 1 ? 1 : 0)]!;
  }
  const soft = new Uint8Array(data.length);
  for (let at = 0; at < data.length; at += 1) {
    const above = at >= width ? at - width : at;
    const below = at + width < data.length ? at + width : at;
    soft[at] = (across[above]! + 2 * across[at]! + across[below]!) / 16;
  }
  return { width, height, data: soft };
}

/** The value below which a share of some values lies. */
function quantile(values: Float32Array, share: number): number {
  const sorted = Float32Array.from(values.filter((_, index) => index % 37 === 0)).sort();
  return sorted[Math.floor(sorted.length * share)] ?? 0;
}

/**
 * The same picture as dark print on an even, light ground: each point is told by how far it stands from what is around
 * it, so neither shade nor a lamp in it matters, and light print on a dark ground is turned round. Print stands further
 * from its surroundings than ground does, for there is less of it.
 */
export function asPrint(picture: Grey): Grey {
  const grey = softened(picture);
  const { width, height } = grey;
  // What is around a point changes slowly: every other one tells it.
  const half = halved(grey);
  const { mean, spread } = surroundings(half, Math.max(4, Math.round(half.width / 40)));
  const least = Math.max(leastSpread, overGrain * quantile(spread, 0.25));
  const away = new Float32Array(grey.data.length);
  let lean = 0;
  for (let y = 0; y < height; y += 1)
    for (let x = 0; x < width; x += 1) {
      const around = Math.min(half.height - 1, y >> 1) * half.width + Math.min(half.width - 1, x >> 1);
      const far = (grey.data[y * width + x]! - mean[around]!) / Math.max(least, spread[around]!);
      away[y * width + x] = far;
      lean += far * far * far;
    }
  const ink = lean > 0 ? -1 : 1;
  const data = new Uint8Array(away.length);
  for (let at = 0; at < data.length; at += 1)
    data[at] = Math.min(255, Math.max(0, (255 * (ink * away[at]! - darkest)) / (lightest - darkest)));
  return { width, height, data };
}

/** The grey between points; outside of the picture it is `outside`. */
export function greyAt({ width, height, data }: Grey, x: number, y: number, outside: number): number {
  const left = Math.floor(x);
  const top = Math.floor(y);
  if (left < 0 || top < 0 || left + 1 >= width || top + 1 >= height) return outside;
  const right = x - left;
  const down = y - top;
  const at = top * width + left;
  const upper = data[at]! * (1 - right) + data[at + 1]! * right;
  const lower = data[at + width]! * (1 - right) + data[at + width + 1]! * right;
  return upper * (1 - down) + lower * down;
}
