import { carriedShare, type Guide } from '../standards/index.ts';
import { deratedLabel, nominalVolts, twelveVoltWatts, type SupplyLabel } from '../machine/index.ts';
import { spreadOverOutputs, type HungLoad, type OutputSpread } from './outputs.ts';
import { loadRails, type Demand, type LoadRail } from './demand.ts';

/** The lasting load may be at most this share of the rating (bench practice, the "peaks covered" school). */
export const lastingShare = 0.8;

/** One comparison of a figure with what the supply gives. `limit` null: its guide promises nothing. */
export interface LoadFinding {
  readonly code:
    'lasting' | 'rail' | 'twelve-total' | 'twelve-output' | 'combined' | 'peak' | 'spin-up' | 'standby' | 'conductor';
  /** The rail, the output, the combined labels, the cable, or the milliseconds of the peak. */
  readonly subject: string;
  readonly unit: 'W' | 'A';
  readonly figure: number;
  readonly limit: number | null;
  /** figure / limit; null without a limit. */
  readonly ratio: number | null;
  /** `covered` inside, `tight` inside the supply's own figure but not the school's, `beyond` over, `not-promised`. */
  readonly word: 'covered' | 'tight' | 'beyond' | 'not-promised';
}

export type LoadWord = 'enough' | 'tight' | 'too-small' | 'cannot-tell';

/** How a supply stands against a demand. */
export interface LoadAssessment {
  readonly word: LoadWord;
  /** The finding that decides: the worst of those beyond, else of those tight, else the fullest. */
  readonly deciding: LoadFinding | null;
  readonly findings: readonly LoadFinding[];
  /** Lasting load over rating. */
  readonly loadShare: number | null;
  /** How +12 is shared over several outputs; null for one output, or when nothing is known to hang. */
  readonly spread: OutputSpread | null;
}

/** The share of the rating that counts for a verdict: a 2.x supply promises its rating and no more, and what is shorter than 100 ms is not judged. */
export function verdictShare(
  guide: Guide,
  has16Pin: boolean,
  ratingWatts: number,
  milliseconds: Demand['peaks'][number]['milliseconds'],
): number | null {
  if (milliseconds === 1000) return 1;
  const promised = carriedShare(guide, has16Pin, ratingWatts, milliseconds);
  return promised ?? (milliseconds === 100 ? 1 : null);
}

function finding(
  code: LoadFinding['code'],
  subject: string,
  unit: 'W' | 'A',
  figure: number,
  limit: number | null,
  tightLimit: number | null,
): LoadFinding {
  const word =
    limit === null
      ? 'not-promised'
      : figure > limit
        ? 'beyond'
        : tightLimit !== null && figure > tightLimit
          ? 'tight'
          : 'covered';
  return {
    code,
    subject,
    unit,
    figure,
    limit,
    ratio: limit === null ? null : limit > 0 ? figure / limit : Infinity,
    word,
  };
}

/** What else is known when a supply is judged. */
export interface LoadContext {
  /** Share of the label that age leaves, 0 to 1. */
  readonly ageShare?: number;
  /** What hangs on +12, cable by cable or inlet by inlet, for a supply with several +12 outputs. */
  readonly hung?: readonly HungLoad[];
  /** Amps on +12 of each cable against what its conductors carry. */
  readonly cables?: readonly { readonly code: string; readonly amps12: number; readonly carriesAmps: number }[];
}

/**
 * Compares a demand with a supply: lasting load, each rail, each +12 output, combined limits, peaks by duration, spin-up,
 * standby, conductors. Without rails on the label nothing can be said of them, and the verdict is "cannot tell" unless it
 * is already too small; so it is where several +12 outputs share the load in a way that nobody knows and that decides.
 */
export function assessLoad(
  demand: Demand,
  printed: SupplyLabel,
  { ageShare: share = 1, hung = [], cables = [] }: LoadContext = {},
): LoadAssessment {
  const label = deratedLabel(printed, share);
  const findings: LoadFinding[] = [];
  const { ratingWatts } = label;
  findings.push(finding('lasting', 'total', 'W', demand.sustainedWatts, ratingWatts, ratingWatts * lastingShare));
  for (const peak of demand.peaks) {
    const share = verdictShare(label.guide, label.has16Pin, ratingWatts, peak.milliseconds);
    findings.push(
      finding('peak', String(peak.milliseconds), 'W', peak.watts, share === null ? null : share * ratingWatts, null),
    );
  }
  findings.push(finding('spin-up', 'total', 'W', demand.spinUpWatts, ratingWatts, null));
  for (const rail of loadRails) {
    const outputs = label.rails.filter((output) => output.rail === rail);
    if (outputs.length === 0) continue;
    if (rail === '+12')
      findings.push(finding('twelve-total', rail, 'W', demand.rails[rail].watts, twelveVoltWatts(label), null));
    else
      findings.push(
        finding(
          'rail',
          rail,
          'A',
          demand.rails[rail].amps,
          outputs.reduce((sum, output) => sum + output.amps, 0),
          null,
        ),
      );
  }
  const standby = label.rails.filter((output) => output.rail === '+5sb');
  if (standby.length > 0 && demand.standbyWatts > 0)
    findings.push(
      finding(
        'standby',
        '+5sb',
        'A',
        demand.standbyWatts / 5,
        standby.reduce((sum, output) => sum + output.amps, 0),
        null,
      ),
    );
  const spread = spreadOverOutputs(label, hung);
  if (spread !== null)
    for (const output of spread.outputs)
      findings.push(finding('twelve-output', output.label, 'A', output.amps, output.limitAmps, null));
  for (const cable of cables)
    findings.push(finding('conductor', cable.code, 'A', cable.amps12, cable.carriesAmps, null));
  for (const limit of label.combined) {
    const named = new Set(
      label.rails.filter((output) => limit.labels.includes(output.label)).map((output) => output.rail),
    );
    const watts = loadRails
      .filter((rail): rail is LoadRail => named.has(rail))
      .reduce((sum, rail) => sum + demand.rails[rail].watts, 0);
    const partTwelve =
      named.has('+12') && label.rails.some((output) => output.rail === '+12' && !limit.labels.includes(output.label));
    if (!partTwelve) findings.push(finding('combined', limit.labels.join(' + '), 'W', watts, limit.watts, null));
  }
  const worst = (word: LoadFinding['word']) =>
    findings.filter((item) => item.word === word).sort((a, b) => (b.ratio ?? 0) - (a.ratio ?? 0))[0];
  const beyond = worst('beyond');
  const tight = worst('tight');
  const deciding = beyond ?? tight ?? worst('covered') ?? null;
  // Where nobody knows what hangs where, the kindest way is reckoned with; that it could be worse is said, unless even the worst way is covered.
  const open = spread !== null && !spread.known && spread.worstRatio > 1;
  const known = label.rails.length > 0 && demand.sustainedWatts > 0 && !open;
  const word: LoadWord = beyond ? 'too-small' : !known ? 'cannot-tell' : tight ? 'tight' : 'enough';
  return { word, deciding, findings, loadShare: ratingWatts > 0 ? demand.sustainedWatts / ratingWatts : null, spread };
}

/** Amps a rail can give in all, by the label; null when the label does not name it. */
export function railAmps(label: SupplyLabel, rail: LoadRail): number | null {
  const outputs = label.rails.filter((output) => output.rail === rail);
  if (outputs.length === 0) return null;
  return rail === '+12'
    ? twelveVoltWatts(label) / nominalVolts['+12']
    : outputs.reduce((sum, output) => sum + output.amps, 0);
}
