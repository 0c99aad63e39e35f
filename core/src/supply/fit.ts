import { boundToBe } from '../bound-to-be.ts';
import { modularBendMillimetres } from '../standards/index.ts';
import { newBudget, planFamily, type Budget, type CablePlan } from '../cable/index.ts';
import { schoolRatings, type LoadAssessment } from '../load/index.ts';
import { assessSupply } from './assess-supply.ts';
import type { SupplyModel } from './model.ts';
import type { FitQuestion, Wants } from './question.ts';
import type { FitReason, TooLarge } from './reasons.ts';
import { remediesFor, type Remedy } from './remedies.ts';
import { runningCost, type RunningCost } from './running-cost.ts';

/**
 * Above this multiple of the lasting load a supply is too large: cost, size, poor efficiency at idle (bench practice).
 */
export const tooLargeMultiple = 4;
/** A supply up to this rating is never called too large, since hardly any smaller are sold. */
export const smallestUsefulWatts = 450;

export const candidateClasses = ['fits', 'almost', 'falls'] as const;
export type CandidateClass = (typeof candidateClasses)[number];

/** How one supply answers. */
export interface Candidate {
  readonly model: SupplyModel;
  readonly class: CandidateClass;
  readonly fits: boolean;
  readonly reasons: readonly FitReason[];
  /** What speaks against it without dropping it. */
  readonly warnings: readonly TooLarge[];
  /** For `almost`: what would have to change, all of it. */
  readonly remedies: readonly Remedy[];
  /** Watts by which the strongest card would have to draw less, where nothing but the load is against it; else null. */
  readonly cardReduction: number | null;
  readonly load: LoadAssessment;
  readonly plan: CablePlan;
  readonly cost: RunningCost;
}

function caseReasons(model: SupplyModel, { casing }: FitQuestion): FitReason[] {
  const reasons: FitReason[] = [];
  const { label } = model;
  if (!casing.shapes.includes(label.shape)) reasons.push({ code: 'shape', shape: label.shape, allowed: casing.shapes });
  const needsMillimetres = model.depthMillimetres + (label.modular === 'fixed' ? 0 : modularBendMillimetres);
  if (casing.depthMillimetres !== null && needsMillimetres > casing.depthMillimetres)
    reasons.push({ code: 'depth', needsMillimetres, roomMillimetres: casing.depthMillimetres });
  if (model.ownHoles !== casing.ownHoles) reasons.push({ code: 'holes', caseOwn: casing.ownHoles });
  if (casing.ventClosed && model.fan === 'large-face') reasons.push({ code: 'vent' });
  return reasons;
}

function wishReasons(model: SupplyModel, wants: Wants): FitReason[] {
  const reasons: FitReason[] = wants.protections
    .filter((name) => !model.protections.includes(name))
    .map((missing) => ({ code: 'protection', missing }));
  if (wants.activeCorrection && model.correction !== 'active') reasons.push({ code: 'correction' });
  if (wants.noisiestDecibels !== null && (model.noiseDecibels === null || model.noiseDecibels > wants.noisiestDecibels))
    reasons.push({ code: 'noise', decibels: model.noiseDecibels, mostDecibels: wants.noisiestDecibels });
  if (wants.leastWarrantyYears !== null && model.warrantyYears < wants.leastWarrantyYears)
    reasons.push({ code: 'warranty', years: model.warrantyYears, leastYears: wants.leastWarrantyYears });
  return reasons;
}

function schoolReasons({ label }: SupplyModel, question: FitQuestion): FitReason[] {
  const { school, demand } = question;
  if (school === 'peaks-covered') return [];
  const asks =
    schoolRatings(demand, question.presentRatingWatts, label.guide, question.cardAdviceWatts).find(
      (rating) => rating.school === school,
    )?.ratingWatts ?? null;
  return asks !== null && label.ratingWatts < asks
    ? [{ code: 'school', school, asksWatts: asks, ratingWatts: label.ratingWatts }]
    : [];
}

function tooLarge({ label }: SupplyModel, { demand }: FitQuestion, cost: RunningCost): TooLarge[] {
  const { ratingWatts } = label;
  const { sustainedWatts } = demand;
  if (sustainedWatts <= 0 || ratingWatts <= Math.max(smallestUsefulWatts, tooLargeMultiple * sustainedWatts)) return [];
  const idleEfficiency = boundToBe(
    cost.points.find(({ point }) => point === 'idle'),
    'point idle',
  ).efficiency;
  return [{ code: 'too-large', ratingWatts, sustainedWatts, idleEfficiency, minorAYear: cost.minorAYear }];
}

/**
 * Judges one supply by every rule, in the order: fits, mains, carries, reaches, is as wished, not too large.
 * @param budget steps that its cable plan may take; where they end, the plan is the best seen and says so
 */
export function judgeSupply(
  model: SupplyModel,
  question: FitQuestion,
  solve: typeof planFamily = planFamily,
  budget: Budget = newBudget(),
): Candidate {
  const { label } = model;
  const { demand } = question;
  const reasons = caseReasons(model, question);
  const { mainsVolts } = question.tariff;
  if (mainsVolts < model.mainsLowVolts || mainsVolts > model.mainsHighVolts)
    reasons.push({ code: 'mains', mainsVolts, lowVolts: model.mainsLowVolts, highVolts: model.mainsHighVolts });
  const cost = runningCost(
    { grade: label.grade, ratingWatts: label.ratingWatts, correction: model.correction, inlet: model.inlet },
    { idleWatts: demand.idleWatts, fullWatts: demand.sustainedWatts },
    question.day,
    question.tariff,
  );
  if (cost.inputAmps > cost.leadAmps) reasons.push({ code: 'lead', amps: cost.inputAmps, limitAmps: cost.leadAmps });
  const assessed = assessSupply(model, question, { solve, budget });
  const { plan, load, against } = assessed;
  const firstAgainst = load.deciding !== null && against.includes(load.deciding) ? load.deciding : against[0];
  if (firstAgainst !== undefined) reasons.push({ code: 'load', finding: firstAgainst });
  else if (load.word === 'cannot-tell' && label.rails.length > 0 && demand.sustainedWatts > 0)
    reasons.push({ code: 'outputs-unknown' });
  reasons.push(...schoolReasons(model, question));
  for (const open of plan.open)
    if (!open.optional) reasons.push({ code: 'inlet', inletId: open.inletId, reason: open.reason });
  reasons.push(...wishReasons(model, question.wants));
  const large = tooLarge(model, question, cost);
  if (question.dropTooLarge) reasons.push(...large);

  const { remedies, cardReduction } =
    reasons.length === 0
      ? { remedies: null, cardReduction: null }
      : remediesFor(model, question, reasons, assessed, solve);
  return {
    model,
    class: reasons.length === 0 ? 'fits' : remedies === null ? 'falls' : 'almost',
    fits: reasons.length === 0,
    reasons,
    warnings: question.dropTooLarge ? [] : large,
    remedies: remedies ?? [],
    cardReduction,
    load,
    plan,
    cost,
  };
}
