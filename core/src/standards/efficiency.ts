/** Efficiency grades by their plain names. */
export type Grade = 'none' | 'basic' | 'bronze' | 'silver' | 'gold' | 'platinum' | 'titanium';
export const grades = [
  'none',
  'basic',
  'bronze',
  'silver',
  'gold',
  'platinum',
  'titanium',
] as const satisfies readonly Grade[];

type Points = readonly [number, number, number];
/** Percent at 20, 50 and 100 % of the rating, for 115 V and 230 V mains. Source: published grade thresholds. */
const thresholds: Record<Exclude<Grade, 'none'>, { readonly v115: Points; readonly v230: Points }> = {
  basic: { v115: [80, 80, 80], v230: [82, 85, 82] },
  bronze: { v115: [82, 85, 82], v230: [85, 88, 85] },
  silver: { v115: [85, 88, 85], v230: [87, 90, 87] },
  gold: { v115: [87, 90, 87], v230: [90, 92, 89] },
  platinum: { v115: [90, 92, 89], v230: [92, 94, 90] },
  titanium: { v115: [92, 94, 90], v230: [94, 96, 94] },
};
/** Planning figures for a supply without a grade (bench practice). */
const ungraded: Points = [70, 75, 70];

/** The lowest load that every grade asks something of, as a share of the rating. */
const lowestPoint = 0.2;
/** Titanium asks 90 % at a tenth of the rating as well, on both mains (published grade thresholds). */
const titaniumAtTenth = 0.9;

/** The line from the loss at a tenth of the rating to that at a fifth. */
function lightLine(ratingWatts: number, lossAtFifth: number): LossModel['light'] {
  const lossAtTenth = ratingWatts * 0.1 * (1 / titaniumAtTenth - 1);
  const linearWatts = (lossAtFifth - lossAtTenth) / (lowestPoint - 0.1);
  return { fixedWatts: lossAtTenth - linearWatts * 0.1, linearWatts };
}

/** Loss in watts as a + b P + c P² with P the output share of the rating (0 to 1), for a rating in watts. */
export interface LossModel {
  readonly fixedWatts: number;
  readonly linearWatts: number;
  readonly squareWatts: number;
  /** Below a fifth of the rating, where a grade asks for more there: a straight line of its own; null otherwise. */
  readonly light: { readonly fixedWatts: number; readonly linearWatts: number } | null;
}

/**
 * The loss curve through the grade's three points: a fixed part, a part with load, a part with its square.
 * @param mainsVolts nominal mains; below 160 V the 115 V thresholds count
 */
export function lossModel(grade: Grade, ratingWatts: number, mainsVolts: number): LossModel {
  const points = grade === 'none' ? ungraded : thresholds[grade][mainsVolts < 160 ? 'v115' : 'v230'];
  const shares = [0.2, 0.5, 1] as const;
  const loss = (i: 0 | 1 | 2) => ratingWatts * shares[i] * (100 / points[i] - 1);
  const [x0, x1, x2] = shares;
  const [y0, y1, y2] = [loss(0), loss(1), loss(2)];
  const d01 = (y1 - y0) / (x1 - x0);
  const d12 = (y2 - y1) / (x2 - x1);
  const square = (d12 - d01) / (x2 - x0);
  const linear = d01 - square * (x0 + x1);
  return {
    fixedWatts: y0 - linear * x0 - square * x0 * x0,
    linearWatts: linear,
    squareWatts: square,
    light: grade === 'titanium' ? lightLine(ratingWatts, y0) : null,
  };
}

/** Loss in watts at an output in watts. */
export function lossWatts(model: LossModel, outputWatts: number, ratingWatts: number): number {
  const share = outputWatts / ratingWatts;
  if (model.light !== null && share < lowestPoint) return model.light.fixedWatts + model.light.linearWatts * share;
  return model.fixedWatts + model.linearWatts * share + model.squareWatts * share * share;
}
