/**
 * Distribution function of Student's t for a whole number of degrees of freedom; the normal law for Infinity.
 * Source: Abramowitz and Stegun 26.7.3 and 26.7.4 (finite series, exact); 7.1.26 for the normal law (error below
 * 1.5e-7).
 */
export function studentCdf(t: number, degrees: number): number {
  if (!Number.isFinite(degrees)) return normalCdf(t);
  const angle = Math.atan(Math.abs(t) / Math.sqrt(degrees));
  const cosine = Math.cos(angle);
  const sine = Math.sin(angle);
  let inside: number;
  if (degrees % 2 === 1) {
    let term = cosine;
    let sum = degrees === 1 ? 0 : cosine;
    for (let k = 3; k <= degrees - 2; k += 2) {
      term *= (cosine ** 2 * (k - 1)) / k;
      sum += term;
    }
    inside = (2 / Math.PI) * (angle + sine * sum);
  } else {
    let term = 1;
    let sum = 1;
    for (let k = 2; k <= degrees - 2; k += 2) {
      term *= (cosine ** 2 * (k - 1)) / k;
      sum += term;
    }
    inside = sine * sum;
  }
  return t >= 0 ? 0.5 + inside / 2 : 0.5 - inside / 2;
}

function normalCdf(z: number): number {
  const x = Math.abs(z) / Math.SQRT2;
  const s = 1 / (1 + 0.3275911 * x);
  const tail =
    s *
    (0.254829592 + s * (-0.284496736 + s * (1.421413741 + s * (-1.453152027 + s * 1.061405429)))) *
    Math.exp(-x * x);
  return z >= 0 ? 1 - tail / 2 : tail / 2;
}

/** Finds where a falling or rising function is zero between two ends, by halving. */
function halved(low: number, high: number, tooLow: (value: number) => boolean): number {
  let [from, to] = [low, high];
  for (let step = 0; step < 44; step += 1) {
    const middle = (from + to) / 2;
    if (tooLow(middle)) from = middle;
    else to = middle;
  }
  return (from + to) / 2;
}

/** The t that a share of the distribution lies below. @param share between 0.5 and 1 */
export function studentQuantile(share: number, degrees: number): number {
  return halved(0, 1e4, (t) => studentCdf(t, degrees) < share);
}

/** Points over which a uniform error is averaged; one half is enough, since both errors are symmetric. */
const uniformPoints = 24;

/**
 * Half width that holds 95 % of the sum of a scaled Student error and a uniform one: what repeats scatter, and what the
 * meter may be off all the time. Exact up to the averaging over the uniform part; the usual sum of squares would be far
 * too wide where the uniform part rules.
 * @param scale standard error of the scattering part; @param degrees its degrees of freedom
 * @param limit of the uniform part, at least 0
 */
export function combinedHalfWidth(scale: number, degrees: number, limit: number): number {
  if (limit <= 0) return scale * studentQuantile(0.975, degrees);
  if (scale <= 0) return 0.95 * limit;
  const inside = (half: number) => {
    let sum = 0;
    for (let point = 0; point < uniformPoints; point += 1) {
      const offset = (limit * (point + 0.5)) / uniformPoints;
      sum += studentCdf((half - offset) / scale, degrees) - studentCdf((-half - offset) / scale, degrees);
    }
    return sum / uniformPoints;
  };
  return halved(0, limit + scale * studentQuantile(0.9999, degrees), (half) => inside(half) < 0.95);
}
