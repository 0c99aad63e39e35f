import { allowedAdapters, sparesBySupply } from '../cable/index.ts';
import { ageShare, partsAt, type Casing, type MachineMoment, type SupplyLabel } from '../machine/index.ts';
import {
  assessLoad,
  calibratedParts,
  compareMeasured,
  demandOf,
  hungByInlet,
  plugProblems,
  schoolRatings,
  type Demand,
  type LoadAssessment,
  type MeasuredComparison,
  type PlugProblem,
  type SchoolRating,
} from '../load/index.ts';
import {
  assessSupply,
  candidateRow,
  fitQuestion,
  rankSupplies,
  runningCost,
  type CandidateRow,
  type FitQuestion,
  type RunningCost,
} from '../supply/index.ts';
import type { Job, JobPart } from './job.ts';
import { presentModel } from './kept-supply.ts';
import type { Shop } from './shop.ts';

/** Demand before and after the upgrade against the present supply, and what each school asks for. */
export interface LoadView {
  /** The parts as they are reckoned with: by a measured load where it is used. */
  readonly parts: readonly JobPart[];
  readonly present: Demand;
  readonly planned: Demand;
  readonly presentAssessment: LoadAssessment | null;
  readonly plannedAssessment: LoadAssessment | null;
  readonly measured: MeasuredComparison | null;
  /** What is left of the present supply's label by its age, 0 to 1. */
  readonly ageShare: number;
  readonly plugProblems: readonly PlugProblem[];
  readonly schools: readonly SchoolRating[];
}

/** The job's parts as they are reckoned with. */
export function reckonedParts(job: Job, mainsVolts: number): readonly JobPart[] {
  const { measuredLoad } = job.sheet;
  if (measuredLoad?.used !== true) return job.parts;
  const measured = compareMeasured(measuredLoad, job.parts, job.supply?.label ?? null, mainsVolts);
  return measured === null ? job.parts : calibratedParts(job.parts, measured.factor);
}

const againstPresent = (
  parts: readonly JobPart[],
  demand: Demand,
  label: SupplyLabel | null,
  { share, staggered }: { readonly share: number; readonly staggered: boolean },
): LoadAssessment | null =>
  label === null || parts.length === 0
    ? null
    : assessLoad(demand, label, { ageShare: share, hung: hungByInlet(parts, { staggered }) });

/**
 * The planned machine against the present supply: with its kit planned where the shop's list has that supply, as any
 * other is judged; by its label and the inlets otherwise.
 */
function plannedAgainst(
  job: Job,
  shop: Pick<Shop, 'settings' | 'supplies' | 'bags'>,
  at: {
    readonly share: number;
    readonly staggered: boolean;
    readonly parts: readonly JobPart[];
    readonly planned: Demand;
  },
): LoadAssessment | null {
  if (job.supply === null || job.parts.length === 0) return null;
  const { label } = job.supply;
  const model = presentModel(job, shop.supplies);
  const question = model === null ? null : questionOf(job, shop);
  if (model === null || question === null) return againstPresent(at.parts, at.planned, label, at);
  return assessSupply({ id: model.id, kit: model.kit, label }, question, { ageShare: at.share }).load;
}

export function loadView(
  job: Job,
  { settings, supplies, bags }: Pick<Shop, 'settings' | 'supplies' | 'bags'>,
): LoadView {
  const parts = reckonedParts(job, settings.mainsVolts);
  const staggered = job.sheet.staggeredStart;
  const at = (moment: MachineMoment) => partsAt(parts, moment);
  const present = demandOf(at('present'), { staggered });
  const planned = demandOf(at('planned'), { staggered });
  const label = job.supply?.label ?? null;
  const share = ageShare(job.sheet.supplyYears, settings.choosing.agePercentAYear);
  return {
    parts,
    present,
    planned,
    ageShare: share,
    presentAssessment:
      job.parts.length === 0 ? null : againstPresent(at('present'), present, label, { share, staggered }),
    plannedAssessment: plannedAgainst(
      job,
      { settings, supplies, bags },
      { share, staggered, parts: at('planned'), planned },
    ),
    measured: compareMeasured(job.sheet.measuredLoad, job.parts, label, settings.mainsVolts),
    plugProblems: plugProblems(at('planned'), { staggered }),
    schools: schoolRatings(planned, label?.ratingWatts ?? null, '3.x', job.sheet.cardAdviceWatts),
  };
}

export function casingOf({ sheet }: Pick<Job, 'sheet'>): Casing {
  return {
    layout: sheet.layout,
    shapes: sheet.shapes,
    depthMillimetres: sheet.depthMillimetres,
    ownHoles: sheet.ownHoles,
    ventClosed: sheet.ventClosed,
  };
}

/** What this job asks of a replacement; null without parts. */
export function questionOf(job: Job, { settings, bags }: Pick<Shop, 'settings' | 'bags'>): FitQuestion | null {
  const parts = reckonedParts(job, settings.mainsVolts);
  if (partsAt(parts, 'planned').length === 0) return null;
  const { choosing } = settings;
  return fitQuestion(parts, casingOf(job), {
    school: job.sheet.school,
    presentRatingWatts: job.supply?.label.ratingWatts ?? null,
    cardAdviceWatts: job.sheet.cardAdviceWatts,
    staggered: job.sheet.staggeredStart,
    wants: job.sheet.wants,
    sharedCardCable: choosing.sharedCardCable,
    dropTooLarge: choosing.dropTooLarge,
    spares: choosing.spareCables ? sparesBySupply(bags) : new Map(),
    adapters: choosing.adapters ? allowedAdapters(bags) : [],
    day: job.sheet.day ?? choosing.day,
    tariff: {
      mainsVolts: settings.mainsVolts,
      minorPerKilowattHour: choosing.minorPerKilowattHour,
      breakerAmps: choosing.breakerAmps,
    },
  });
}

/** The shop's supplies in the order to look at them, for the machine as it will be; empty without parts. */
export function candidatesOf(job: Job, shop: Pick<Shop, 'settings' | 'supplies' | 'bags'>): CandidateRow[] {
  const question = questionOf(job, shop);
  return question === null
    ? []
    : rankSupplies(shop.supplies, question, shop.settings.choosing.weights, shop.settings.currency).map(candidateRow);
}

/**
 * What the present supply costs to run with the planned machine; null without a supply or parts. Its correction is not
 * on the label: passive is reckoned with for 2.x without a grade, active otherwise.
 */
export function presentCost(job: Job, view: LoadView, { settings }: Pick<Shop, 'settings'>): RunningCost | null {
  if (job.supply === null || job.parts.length === 0) return null;
  const { label } = job.supply;
  const { choosing } = settings;
  return runningCost(
    {
      grade: label.grade,
      ratingWatts: label.ratingWatts,
      correction: label.grade === 'none' ? 'passive' : 'active',
      inlet: 'C14',
    },
    { idleWatts: view.planned.idleWatts, fullWatts: view.planned.sustainedWatts },
    job.sheet.day ?? choosing.day,
    {
      mainsVolts: settings.mainsVolts,
      minorPerKilowattHour: choosing.minorPerKilowattHour,
      breakerAmps: choosing.breakerAmps,
    },
  );
}
