import { boundToBe } from '../bound-to-be.ts';
import { newBudget, rememberingPlanner } from '../cable/index.ts';
import type { SchoolRating } from '../load/index.ts';
import { judgeSupply, type Candidate } from './fit.ts';
import type { SupplyModel } from './model.ts';
import type { FitQuestion } from './question.ts';

/** What a shop weighs a supply by. */
export type Criterion = 'price' | 'headroom' | 'running' | 'noise' | 'warranty' | 'shelf';
export const criteria = [
  'price',
  'headroom',
  'running',
  'noise',
  'warranty',
  'shelf',
] as const satisfies readonly Criterion[];
export type Weights = Readonly<Record<Criterion, number>>;

/** Steps for the cable plans of a whole ranking, and at most and at least for one of them. */
const stepsOfRanking = 120_000;
const stepsOfPlan = 10_000;
const leastStepsOfPlan = 60;

/** Headroom beyond this share of the rating left over is worth nothing more (bench practice: half load). */
const enoughHeadroom = 0.5;

/**
 * One criterion of one candidate: its figure, how good it is among those compared (0 to 1), and the points it brings.
 */
export interface Mark {
  readonly criterion: Criterion;
  /**
   * Minor units, share of the rating left, minor units a year, decibels, years, units; null when unknown or not
   * comparable.
   */
  readonly figure: number | null;
  readonly good: number;
  readonly points: number;
}

/** A candidate in its place. */
export interface RankedSupply extends Candidate {
  readonly marks: readonly Mark[];
  /** Sum of the points, 0 to 100. */
  readonly points: number;
  /**
   * A candidate that is at least as good in every criterion and better in one; null when there is none, or it does not
   * fit.
   */
  readonly beatenBy: string | null;
}

/**
 * A candidate in its place without its plan, which is made again where it is looked at: light enough to be handed about
 * by the thousand.
 */
export type CandidateRow = Omit<RankedSupply, 'plan'> & {
  readonly cables: number;
  readonly openOptional: readonly string[];
  /** That no cable plan is better; false where the search for one was given up. */
  readonly planProved: boolean;
};

export function candidateRow({ plan, ...rest }: RankedSupply): CandidateRow {
  return {
    ...rest,
    cables: plan.cables.length,
    planProved: plan.proved,
    openOptional: plan.open.filter((open) => open.optional).map((open) => open.inletId),
  };
}

const lessIsBetter: Record<Criterion, boolean> = {
  price: true,
  headroom: false,
  running: true,
  noise: true,
  warranty: false,
  shelf: false,
};

/** The figure of a criterion; prices of another currency than the shop's are not compared. */
export function criterionFigure(
  candidate: Omit<Candidate, 'plan'>,
  criterion: Criterion,
  currency: string,
): number | null {
  const { model } = candidate;
  switch (criterion) {
    case 'price':
      return model.price.currency === currency ? model.price.minor : null;
    case 'headroom':
      return Math.min(enoughHeadroom, 1 - (candidate.load.loadShare ?? 1));
    case 'running':
      return candidate.cost.minorAYear;
    case 'noise':
      return model.noiseDecibels;
    case 'warranty':
      return model.warrantyYears;
    case 'shelf':
      return Math.min(1, model.onShelf);
  }
}

/** Is `a` at least as good as `b` in every criterion and better in one? What is unknown is as good as nothing. */
export function beats(a: readonly Mark[], b: readonly Mark[]): boolean {
  let better = false;
  for (let index = 0; index < a.length; index += 1) {
    const mine = boundToBe(a[index], 'mark');
    const theirs = boundToBe(b[index], 'mark of the other');
    if (mine.figure === null && theirs.figure === null) continue;
    if (mine.figure === null) return false;
    if (theirs.figure === null) {
      better = true;
      continue;
    }
    const difference = lessIsBetter[mine.criterion] ? theirs.figure - mine.figure : mine.figure - theirs.figure;
    if (difference < 0) return false;
    if (difference > 0) better = true;
  }
  return better;
}

/** A ranking under way: supplies are judged a few at a time, so that whoever asked may stop it in between. */
export interface RankingUnderWay {
  /** The share that is judged, 0 to 1. */
  readonly share: () => number;
  /** Judges so many more of them. */
  readonly judge: (count: number) => void;
  /** All of them in their order; throws a RangeError while some are not judged. */
  readonly ranked: () => RankedSupply[];
}

/** Begins what `rankSupplies` does at one go; in how many portions it is judged changes nothing. */
export function startRanking(
  models: readonly SupplyModel[],
  question: FitQuestion,
  weights: Weights,
  currency: string,
): RankingUnderWay {
  const solve = rememberingPlanner();
  const judged: Candidate[] = [];
  let left = stepsOfRanking;
  const judgeNext = (model: SupplyModel) => {
    // Some plans are hard, most are not: each may take thrice its even part of what is left.
    const part = (3 * left) / (models.length - judged.length);
    const given = Math.round(Math.min(stepsOfPlan, Math.max(leastStepsOfPlan, part)));
    const budget = newBudget(given);
    judged.push(judgeSupply(model, question, solve, budget));
    left = Math.max(0, left - (given - budget.left));
  };
  return {
    share: () => (models.length === 0 ? 1 : judged.length / models.length),
    judge: (count) => models.slice(judged.length, judged.length + count).forEach(judgeNext),
    ranked: () => {
      if (judged.length < models.length) throw new RangeError('supplies are left to judge');
      return rankCandidates(judged, weights, currency);
    },
  };
}

/**
 * All supplies in the order to look at them: those that fit by their points, then those that almost do, then the rest
 * by how few reasons speak against them. Points: each criterion is set between the worst (0) and the best (1) of those
 * that fit, multiplied by its weight, and the sum scaled to 100.
 */
export function rankSupplies(
  models: readonly SupplyModel[],
  question: FitQuestion,
  weights: Weights,
  currency: string,
): RankedSupply[] {
  const ranking = startRanking(models, question, weights, currency);
  ranking.judge(models.length);
  return ranking.ranked();
}

/** The order of `rankSupplies` for candidates that are judged already. */
export function rankCandidates(judged: readonly Candidate[], weights: Weights, currency: string): RankedSupply[] {
  const compared = judged.some((candidate) => candidate.fits) ? judged.filter((candidate) => candidate.fits) : judged;
  const span = criteria.map((criterion) => {
    let low = Infinity;
    let high = -Infinity;
    for (const candidate of compared) {
      const figure = criterionFigure(candidate, criterion, currency);
      if (figure !== null) {
        low = Math.min(low, figure);
        high = Math.max(high, figure);
      }
    }
    return { low, high };
  });
  const total = criteria.reduce((sum, criterion) => sum + weights[criterion], 0);
  const ranked = judged.map((candidate): RankedSupply => {
    const marks = criteria.map((criterion, index): Mark => {
      const figure = criterionFigure(candidate, criterion, currency);
      const { low, high } = boundToBe(span[index], `span of ${criterion}`);
      const up = figure === null ? 0 : high > low ? Math.min(1, Math.max(0, (figure - low) / (high - low))) : 1;
      const good = figure === null ? 0 : high > low && lessIsBetter[criterion] ? 1 - up : up;
      return { criterion, figure, good, points: total > 0 ? (100 * weights[criterion] * good) / total : 0 };
    });
    return { ...candidate, marks, points: marks.reduce((sum, mark) => sum + mark.points, 0), beatenBy: null };
  });
  ranked.sort(compareRanked);
  const fitting = ranked.filter((candidate) => candidate.fits);
  const beaten = beatenAmong(fitting);
  return ranked.map((candidate) => {
    const beatenBy = beaten.get(candidate);
    return beatenBy === undefined ? candidate : { ...candidate, beatenBy };
  });
}

/**
 * Who is beaten by whom. Only those that nobody beats need to be asked, since beating passes on: whoever is beaten is
 * beaten by one of them.
 */
function beatenAmong(fitting: readonly RankedSupply[]): Map<RankedSupply, string> {
  const beaten = new Map<RankedSupply, string>();
  let unbeaten: readonly RankedSupply[] = [];
  for (const candidate of fitting) {
    const by = unbeaten.find((other) => beats(other.marks, candidate.marks));
    if (by !== undefined) {
      beaten.set(candidate, by.model.id);
      continue;
    }
    for (const other of unbeaten) if (beats(candidate.marks, other.marks)) beaten.set(other, candidate.model.id);
    unbeaten = [...unbeaten.filter((other) => !beaten.has(other)), candidate];
  }
  // Whoever was beaten by one that was beaten later is told the one that stands.
  for (const [candidate] of beaten) {
    const by = unbeaten.find((other) => beats(other.marks, candidate.marks));
    beaten.set(candidate, boundToBe(by, `supply that beats ${candidate.model.id}`).model.id);
  }
  return beaten;
}

const classOrder = { fits: 0, almost: 1, falls: 2 } as const;

/** The order of `rankSupplies`: a total one, so that it never depends on the order of the shelf. */
export function compareRanked(a: Omit<RankedSupply, 'plan'>, b: Omit<RankedSupply, 'plan'>): number {
  return (
    classOrder[a.class] - classOrder[b.class] ||
    (a.fits ? 0 : a.remedies.length - b.remedies.length || a.reasons.length - b.reasons.length) ||
    b.points - a.points ||
    (a.model.price.currency === b.model.price.currency
      ? a.model.price.minor - b.model.price.minor
      : a.model.price.currency.localeCompare(b.model.price.currency)) ||
    a.model.label.ratingWatts - b.model.label.ratingWatts ||
    a.model.name.localeCompare(b.model.name) ||
    a.model.id.localeCompare(b.model.id)
  );
}

/**
 * What to do where nothing fits: the nearest misses, and how many watts less a card would have to draw for one to fit.
 */
export interface NothingFits {
  readonly nearest: readonly CandidateRow[];
  readonly smallerCard: { readonly watts: number; readonly modelId: string } | null;
}

export function nothingFits(ranked: readonly CandidateRow[]): NothingFits | null {
  if (ranked.length === 0 || ranked.some((candidate) => candidate.fits)) return null;
  const [smaller] = ranked
    .flatMap((candidate) => (candidate.cardReduction === null ? [] : [{ candidate, watts: candidate.cardReduction }]))
    .sort((a, b) => a.watts - b.watts || compareRanked(a.candidate, b.candidate));
  return {
    nearest: ranked.slice(0, 3),
    smallerCard:
      smaller === undefined ? null : { watts: Math.ceil(smaller.watts), modelId: smaller.candidate.model.id },
  };
}

/**
 * Would a school allow this candidate, whatever school it was judged by? Its case, mains, cables and wishes are the
 * same for all.
 */
export function allowedBySchool(
  candidate: Pick<CandidateRow, 'reasons' | 'load' | 'model'>,
  school: SchoolRating,
): boolean {
  const { load, model } = candidate;
  const otherwise = candidate.reasons.filter((reason) => reason.code !== 'school' && reason.code !== 'load');
  if (otherwise.length > 0 || load.word === 'too-small' || load.word === 'cannot-tell') return false;
  return school.school === 'peaks-covered'
    ? load.word === 'enough'
    : school.ratingWatts === null || model.label.ratingWatts >= school.ratingWatts;
}
