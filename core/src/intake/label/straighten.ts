/* oxlint-disable typescript/no-non-null-assertion --
   points of a picture are typed arrays, gone through by number within its width and height */
import { greyAt, inkBelow, type Grey } from './grey.ts';

/**
 * How lines of print lie in a picture: how much they fall for each point to the right, in the middle, and how much more
 * for each point further down, since lines that are seen at an angle run together.
 */
export interface Lie {
  readonly fall: number;
  readonly fan: number;
}

/** So near the edge of a picture, as a share of it, is no label. */
const edge = 0.03;
/** Points that the search looks at, at most. */
const mostPoints = 24_000;

interface Points {
  readonly x: Float32Array;
  readonly y: Float32Array;
  readonly height: number;
}

/** Points of print about the middle of the picture. */
function inkPoints({ width, height, data }: Grey): Points {
  const found: number[] = [];
  const [besideX, besideY] = [width * edge, height * edge];
  for (let y = Math.ceil(besideY); y < height - besideY; y += 1)
    for (let x = Math.ceil(besideX); x < width - besideX; x += 1)
      if (data[y * width + x]! < inkBelow) found.push(y * width + x);
  const step = Math.max(1, Math.ceil(found.length / mostPoints));
  const kept = found.filter((_, index) => index % step === 0);
  return {
    x: Float32Array.from(kept, (at) => (at % width) - width / 2),
    y: Float32Array.from(kept, (at) => Math.floor(at / width) - height / 2),
    height,
  };
}

/** How sharply print and gaps follow each other, row by row, if the lines lie so. */
function sharpness({ x, y, height }: Points, { fall, fan }: Lie): number {
  const rows = new Float32Array(height * 2);
  for (let at = 0; at < x.length; at += 1) {
    const row = (y[at]! - fall * x[at]!) / (1 + fan * x[at]!) + height;
    if (row >= 0 && row < rows.length) rows[Math.floor(row)]! += 1;
  }
  let sharp = 0;
  for (let row = 1; row < rows.length; row += 1) sharp += (rows[row]! - rows[row - 1]!) ** 2;
  return sharp;
}

/** The best of some values, by score. */
function best(from: number, to: number, step: number, score: (value: number) => number): number {
  let found = from;
  let most = -Infinity;
  for (let value = from; value <= to + step / 2; value += step) {
    const now = score(value);
    if (now > most) [found, most] = [value, now];
  }
  return found;
}

/** Steepest fall that is looked for: 12 degrees. */
const steepest = Math.tan((12 * Math.PI) / 180);

/** How the lines of a label lie. @param print made by `asPrint` */
export function lieOf(print: Grey): Lie {
  const points = inkPoints(print);
  // So much that lines of the upper and of the lower end differ by the widest slant that is looked for.
  const widest = 0.25 / print.height;
  const coarse = [-1, -0.75, -0.5, -0.25, 0, 0.25, 0.5, 0.75, 1].map((share) => {
    const fan = share * widest;
    const fall = best(-steepest, steepest, 0.008, (value) => sharpness(points, { fall: value, fan }));
    return { fall, fan, sharp: sharpness(points, { fall, fan }) };
  });
  let lie: Lie = coarse.reduce((most, other) => (other.sharp > most.sharp ? other : most));
  for (const [slant, spread] of [
    [0.004, widest / 8],
    [0.002, widest / 16],
    [0.001, widest / 40],
  ] as const) {
    const around = lie;
    const fan = best(around.fan - 3 * spread, around.fan + 3 * spread, spread, (value) =>
      sharpness(points, { fall: around.fall, fan: value }),
    );
    const fall = best(around.fall - 3 * slant, around.fall + 3 * slant, slant, (value) =>
      sharpness(points, { fall: value, fan }),
    );
    lie = { fall, fan };
  }
  return lie;
}

/**
 * The picture with its lines level: turned by the fall of the middle one, and fanned in.
 * @param scale how much larger it shall be
 */
export function straightened(grey: Grey, { fall, fan }: Lie, scale: number): Grey {
  const width = Math.round(grey.width * scale);
  const height = Math.round(grey.height * scale);
  const data = new Uint8Array(width * height);
  const turn = Math.atan(fall);
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
  for (let y = 0; y < height; y += 1)
    for (let x = 0; x < width; x += 1) {
      const right = x / scale - grey.width / 2;
      const down = (y / scale - grey.height / 2) * (1 + fan * right);
      const sourceX = right * cos - down * sin + grey.width / 2;
      const sourceY = right * sin + down * cos + grey.height / 2;
      data[y * width + x] = greyAt(grey, sourceX, sourceY, 255);
    }
  return { width, height, data };
}
