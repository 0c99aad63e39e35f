import { deratedLabel, hasUsualOutputs, nominalVolts, twelveVoltWatts, type SupplyLabel } from '../machine/index.ts';
import { outputMoments, spreadOverOutputs, type HungLoad, type OutputSpread } from './outputs.ts';
import type { Demand } from './demand.ts';
import { loadRails, moments, owedAt, type LoadRail, type Moment } from './moments.ts';

/** The lasting load may be at most this share of the rating and of +12 (bench practice, the "peaks covered" school). */
export const lastingShare = 0.8;

/** One comparison of a figure with what the supply gives. */
export interface LoadFinding {
  readonly code: LoadFindingCode;
  /** The rail, the output, the combined labels, the cable, or the milliseconds of the peak. */
  readonly subject: string;
  readonly moment: Moment;
  readonly unit: 'W' | 'A';
  readonly figure: number;
  /**
   * What the figure is held against: what is promised for this moment, or, where it is beyond, what is surely too much.
   */
  readonly limit: number;
  /** figure / limit. */
  readonly ratio: number;
  /**
   * `covered` inside; `tight` inside the supply's own figure but not the school's; `not-promised` more than its guide
   * promises for so short a time, a doubt that never decides; `beyond` over.
   */
  readonly word: LoadFindingWord;
}

/** What is compared with what the supply gives. */
export const loadFindingCodes = [
  'lasting',
  'rail',
  'twelve-total',
  'twelve-output',
  'combined',
  'peak',
  'spin-up',
  'standby',
  'conductor',
] as const;
export type LoadFindingCode = (typeof loadFindingCodes)[number];
export const loadFindingWords = ['covered', 'tight', 'not-promised', 'beyond'] as const;
export type LoadFindingWord = (typeof loadFindingWords)[number];

export type LoadWord = 'enough' | 'tight' | 'too-small' | 'cannot-tell';

/** How a supply stands against a demand. */
export interface LoadAssessment {
  readonly word: LoadWord;
  /**
   * The finding that decides: of those beyond, else tight, the longest lasting and there the worst; else the fullest.
   */
  readonly deciding: LoadFinding | null;
  readonly findings: readonly LoadFinding[];
  /** What nobody promises, which decides nothing: the worst for each moment. */
  readonly doubts: readonly LoadFinding[];
  /** Lasting load over rating. */
  readonly loadShare: number | null;
  /** How +12 is shared over several outputs; null for one output, or when nothing is known to hang. */
  readonly spread: OutputSpread | null;
}

/** A figure beside the limit that it has for any length of time. */
interface Compared {
  readonly code: LoadFinding['code'];
  readonly subject: string;
  readonly moment: Moment;
  readonly unit: 'W' | 'A';
  readonly figure: number;
  readonly promised: number;
  readonly least: number;
  /** Up to this share of the limit it is covered, above it tight. */
  readonly tightShare?: number;
}

/** Sums of parts may come out a hair above a limit that they meet exactly. */
const rounding = 1e-9;

function found(compared: Compared): LoadFinding {
  const { code, subject, moment, unit, figure, promised, least, tightShare = 1 } = compared;
  const word =
    figure > least + rounding
      ? 'beyond'
      : figure > promised + rounding
        ? 'not-promised'
        : figure > promised * tightShare + rounding
          ? 'tight'
          : 'covered';
  const limit = word === 'beyond' ? least : promised;
  const ratio = limit > 0 ? figure / limit : figure > 0 ? Infinity : 0;
  return { code, subject, moment, unit, figure, limit, ratio, word };
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
 * Compares a demand with a supply, at every moment from lasting to 0.1 ms: in all, on each rail, each +12 output and
 * each combined limit; standby and conductors beside them. Without rails on the label nothing can be said of them, and
 * the verdict is "cannot tell" unless it is already too small; so it is where several +12 outputs share the load in a
 * way that nobody knows, or that no search could settle, and that decides. Outputs that nobody read off the label yet
 * decide nothing either way: only the rating does.
 */
export function assessLoad(
  demand: Demand,
  printed: SupplyLabel,
  { ageShare: share = 1, hung = [], cables = [] }: LoadContext = {},
): LoadAssessment {
  const label = deratedLabel(printed, share);
  const spread = spreadOverOutputs(label, demand, hung);
  const inAll = overAll(demand, label);
  const findings = [
    ...inAll,
    ...overLabel(demand, label),
    ...standbyFinding(demand, label),
    ...(spread === null || !spread.proved ? [] : spread.figures.map(found)),
    ...cables.map((cable) =>
      found({
        code: 'conductor',
        subject: cable.code,
        moment: 'lasting',
        unit: 'A',
        figure: cable.amps12,
        promised: cable.carriesAmps,
        least: cable.carriesAmps,
      }),
    ),
  ];
  const unread = hasUsualOutputs(printed);
  const telling = unread ? inAll : findings;
  const beyond = foremost(telling, 'beyond');
  const tight = foremost(telling, 'tight');
  // Where nobody knows what hangs where, the kindest way is reckoned with; that it could be worse is said, unless even
  // the worst way is covered.
  const open =
    (spread !== null && !(spread.known && spread.proved) && spread.worstRatio > 1 + rounding) ||
    looseDecides(demand, label, hung, spread);
  const known = label.rails.length > 0 && !unread && demand.sustainedWatts > 0 && !open;
  const word: LoadWord = beyond ? 'too-small' : !known ? 'cannot-tell' : tight ? 'tight' : 'enough';
  return {
    word,
    deciding: beyond ?? tight ?? fullest(telling),
    findings,
    doubts: worstDoubts(findings),
    loadShare: label.ratingWatts > 0 ? demand.sustainedWatts / label.ratingWatts : null,
    spread,
  };
}

/**
 * Whether what hangs on +12 without an inlet that says where could fill one of several outputs beyond its limit, on top
 * of what is known to hang there.
 */
function looseDecides(
  demand: Demand,
  label: SupplyLabel,
  hung: readonly HungLoad[],
  spread: OutputSpread | null,
): boolean {
  const outputs = label.rails.filter((rail) => rail.rail === '+12');
  if (outputs.length < 2) return false;
  return outputMoments.some((moment) => {
    const loose = demand.at[moment]['+12'] / 12 - hung.reduce((sum, load) => sum + load.amps[moment], 0);
    if (loose < 0.05) return false;
    return outputs.some((output) => {
      const there = spread?.figures.find((figure) => figure.subject === output.label && figure.moment === moment);
      return (there?.figure ?? 0) + loose > output.amps * owedAt(label, moment).least + rounding;
    });
  });
}

/** One figure of a label that limits a sum of rails, whatever hangs where. */
interface LabelLimit {
  readonly code: 'rail' | 'twelve-total' | 'combined';
  readonly subject: string;
  readonly unit: 'W' | 'A';
  readonly limit: number;
  /** Rails that count, and volts by which their watts are divided where the limit is in amps. */
  readonly rails: readonly LoadRail[];
  readonly volts: number;
}

/** What a label limits, made once for each label: the same supplies are judged at every change of a machine. */
interface LabelLimits {
  readonly limits: readonly LabelLimit[];
  readonly owed: Readonly<Record<Moment, ReturnType<typeof owedAt>>>;
}
const limitsOfLabel = new WeakMap<SupplyLabel, LabelLimits>();

function labelLimits(label: SupplyLabel): LabelLimits {
  let known = limitsOfLabel.get(label);
  if (known === undefined) {
    const owed = Object.fromEntries(moments.map((moment) => [moment, owedAt(label, moment)])) as LabelLimits['owed'];
    known = { owed, limits: [...loadRails.flatMap((rail) => railLimit(label, rail)), ...combinedLimits(label)] };
    limitsOfLabel.set(label, known);
  }
  return known;
}

function railLimit(label: SupplyLabel, rail: LoadRail): LabelLimit[] {
  const outputs = label.rails.filter((output) => output.rail === rail);
  if (outputs.length === 0) return [];
  if (rail === '+12')
    return [{ code: 'twelve-total', subject: rail, unit: 'W', limit: twelveVoltWatts(label), rails: [rail], volts: 1 }];
  const limit = outputs.reduce((sum, output) => sum + output.amps, 0);
  return [{ code: 'rail', subject: rail, unit: 'A', limit, rails: [rail], volts: nominalVolts[rail] }];
}

/** Limits over whole rails; one over a part of the +12 outputs depends on what hangs where. */
function combinedLimits(label: SupplyLabel): LabelLimit[] {
  return label.combined.flatMap((limit): LabelLimit[] => {
    const named = new Set(
      label.rails.filter((output) => limit.labels.includes(output.label)).map((output) => output.rail),
    );
    const partTwelve =
      named.has('+12') && label.rails.some((output) => output.rail === '+12' && !limit.labels.includes(output.label));
    const rails = loadRails.filter((rail) => named.has(rail));
    return partTwelve
      ? []
      : [{ code: 'combined', subject: limit.labels.join(' + '), unit: 'W', limit: limit.watts, rails, volts: 1 }];
  });
}

function overLabel(demand: Demand, label: SupplyLabel): LoadFinding[] {
  const { limits, owed } = labelLimits(label);
  return limits.flatMap(({ code, subject, unit, limit, rails, volts }) =>
    moments.map((moment) => {
      let watts = 0;
      for (const rail of rails) watts += demand.at[moment][rail];
      const { promised, least } = owed[moment];
      return found({
        code,
        subject,
        moment,
        unit,
        figure: watts / volts,
        promised: limit * promised,
        least: limit * least,
        tightShare: code === 'twelve-total' && moment === 'lasting' ? lastingShare : 1,
      });
    }),
  );
}

/** Lasting load, start of the drives and peaks against the rating. */
function overAll(demand: Demand, label: SupplyLabel): LoadFinding[] {
  const { owed } = labelLimits(label);
  const against = (code: 'lasting' | 'spin-up' | 'peak', subject: string, moment: Moment, figure: number) =>
    found({
      code,
      subject,
      moment,
      unit: 'W',
      figure,
      promised: label.ratingWatts * owed[moment].promised,
      least: label.ratingWatts * owed[moment].least,
      tightShare: moment === 'lasting' ? lastingShare : 1,
    });
  return [
    against('lasting', 'total', 'lasting', demand.sustainedWatts),
    against('spin-up', 'total', 'spin-up', demand.spinUpWatts),
    ...demand.peaks.map(({ milliseconds, watts }) => {
      const moment = String(milliseconds) as Moment;
      return against('peak', moment, moment, watts);
    }),
  ];
}

function standbyFinding(demand: Demand, label: SupplyLabel): LoadFinding[] {
  const standby = label.rails.filter((output) => output.rail === '+5sb');
  if (standby.length === 0 || demand.standbyWatts <= 0) return [];
  const amps = standby.reduce((sum, output) => sum + output.amps, 0);
  return [
    found({
      code: 'standby',
      subject: '+5sb',
      moment: 'lasting',
      unit: 'A',
      figure: demand.standbyWatts / 5,
      promised: amps,
      least: amps,
    }),
  ];
}

const momentOrder: Readonly<Record<Moment, number>> = Object.fromEntries(
  moments.map((moment, index) => [moment, index]),
) as Record<Moment, number>;

/** Of the findings with this word the one to name: the longest lasting, there the worst. */
function foremost(findings: readonly LoadFinding[], word: LoadFinding['word']): LoadFinding | null {
  let best: LoadFinding | null = null;
  for (const item of findings) {
    if (item.word !== word) continue;
    const longer = best === null ? -1 : momentOrder[item.moment] - momentOrder[best.moment];
    if (best === null || longer < 0 || (longer === 0 && item.ratio > best.ratio)) best = item;
  }
  return best;
}

/** The fullest of what lasts a second or longer, which a technician can check. */
function fullest(findings: readonly LoadFinding[]): LoadFinding | null {
  let best: LoadFinding | null = null;
  for (const item of findings)
    if (
      item.word === 'covered' &&
      momentOrder[item.moment] <= momentOrder['1000'] &&
      (best === null || item.ratio > best.ratio)
    )
      best = item;
  return best;
}

/** What nobody promises: the worst for each moment, the longest first. */
function worstDoubts(findings: readonly LoadFinding[]): LoadFinding[] {
  const worst = new Map<Moment, LoadFinding>();
  for (const item of findings)
    if (item.word === 'not-promised' && item.ratio > (worst.get(item.moment)?.ratio ?? 0)) worst.set(item.moment, item);
  return [...worst.values()].sort((a, b) => momentOrder[a.moment] - momentOrder[b.moment]);
}

const wordOrder = { beyond: 0, tight: 1, 'not-promised': 2, covered: 3 } as const;

/** For a table: of each limit the moment at which it stands worst, in the order of the findings. */
export function worstOfEach(findings: readonly LoadFinding[]): LoadFinding[] {
  const worst = new Map<string, LoadFinding>();
  for (const finding of findings) {
    const key = `${finding.code} ${finding.subject}`;
    const known = worst.get(key);
    const worse =
      known === undefined ||
      wordOrder[finding.word] < wordOrder[known.word] ||
      (finding.word === known.word && finding.ratio > known.ratio);
    if (worse) worst.set(key, finding);
  }
  return [...worst.values()];
}
