import { modularBendMillimetres } from '../standards/index.ts';
import { planCables, reachMillimetres, type CablePlan, type InletToServe } from '../cable/index.ts';
import { assessLoad, inletLoads, schoolRatings, type Demand, type LoadAssessment, type School } from '../load/index.ts';
import { partsAt, type CaseLayout, type Casing, type MachinePart } from '../machine/index.ts';
import type { SupplyModel } from './model.ts';

/** Above this multiple of the lasting load a supply is too large: cost, size, poor efficiency at idle (bench practice). */
export const tooLargeMultiple = 4;
/** A supply up to this rating is never called too large, since hardly any smaller are sold. */
export const smallestUsefulWatts = 450;

/** Why a supply is dropped. Figures in the unit of the rule. */
export type FitReason =
  | { readonly code: 'shape'; readonly shape: string; readonly allowed: readonly string[] }
  | { readonly code: 'depth'; readonly needsMillimetres: number; readonly roomMillimetres: number }
  | { readonly code: 'mains'; readonly mainsVolts: number; readonly lowVolts: number; readonly highVolts: number }
  | { readonly code: 'load'; readonly finding: NonNullable<LoadAssessment['deciding']> }
  | { readonly code: 'school'; readonly school: School; readonly asksWatts: number; readonly ratingWatts: number }
  | { readonly code: 'inlet'; readonly inletId: string; readonly reason: CablePlan['open'][number]['reason'] }
  | { readonly code: 'too-large'; readonly ratingWatts: number; readonly sustainedWatts: number };

/** What the machine asks of a replacement. */
export interface FitQuestion {
  readonly casing: Casing;
  readonly parts: readonly MachinePart[];
  readonly demand: Demand;
  readonly inlets: readonly InletToServe[];
  readonly mainsVolts: number;
  readonly school: School;
  readonly presentRatingWatts: number | null;
}

/** How one supply answers. */
export interface Candidate {
  readonly model: SupplyModel;
  readonly fits: boolean;
  readonly reasons: readonly FitReason[];
  readonly load: LoadAssessment;
  readonly plan: CablePlan;
}

/** The inlets of the parts with their ways and loads, in the order of the parts. */
export function inletsToServe(parts: readonly MachinePart[], layout: CaseLayout): InletToServe[] {
  const loads = new Map(inletLoads(parts).map((load) => [load.inletId, load]));
  return parts.flatMap((part) => part.inlets.map((inlet): InletToServe => {
    const amps = loads.get(inlet.id)?.amps;
    return { id: inlet.id, kind: inlet.kind, optional: inlet.optional, reachMillimetres: reachMillimetres(layout, inlet.kind), amps12: amps?.['+12'] ?? 0, amps5: amps?.['+5'] ?? 0, amps33: amps?.['+3.3'] ?? 0 };
  }));
}

/** A question about the machine as it will be after the planned upgrade. */
export function fitQuestion(parts: readonly MachinePart[], casing: Casing, demandOfParts: (parts: readonly MachinePart[]) => Demand, mainsVolts: number, school: School, presentRatingWatts: number | null): FitQuestion {
  const planned = partsAt(parts, 'planned');
  return { casing, parts: planned, demand: demandOfParts(planned), inlets: inletsToServe(planned, casing.layout), mainsVolts, school, presentRatingWatts };
}

/** Judges one supply by every rule, in the order: fits, mains, carries, reaches, not too large. */
export function judgeSupply(model: SupplyModel, question: FitQuestion): Candidate {
  const reasons: FitReason[] = [];
  const { label } = model;
  const { casing, demand } = question;
  if (!casing.shapes.includes(label.shape)) reasons.push({ code: 'shape', shape: label.shape, allowed: casing.shapes });
  const needsMillimetres = model.depthMillimetres + (label.modular === 'fixed' ? 0 : modularBendMillimetres);
  if (casing.depthMillimetres !== null && needsMillimetres > casing.depthMillimetres) reasons.push({ code: 'depth', needsMillimetres, roomMillimetres: casing.depthMillimetres });
  if (question.mainsVolts < model.mainsLowVolts || question.mainsVolts > model.mainsHighVolts) reasons.push({ code: 'mains', mainsVolts: question.mainsVolts, lowVolts: model.mainsLowVolts, highVolts: model.mainsHighVolts });
  const load = assessLoad(demand, label);
  if (question.school === 'peaks-covered') {
    if (load.deciding !== null && (load.word === 'too-small' || load.word === 'tight')) reasons.push({ code: 'load', finding: load.deciding });
  } else {
    if (load.deciding !== null && load.word === 'too-small') reasons.push({ code: 'load', finding: load.deciding });
    const asks = schoolRatings(demand, question.presentRatingWatts, label.guide).find((rating) => rating.school === question.school)?.ratingWatts ?? null;
    if (asks !== null && label.ratingWatts < asks) reasons.push({ code: 'school', school: question.school, asksWatts: asks, ratingWatts: label.ratingWatts });
  }
  const plan = planCables(model.kit, question.inlets);
  for (const open of plan.open) if (!open.optional) reasons.push({ code: 'inlet', inletId: open.inletId, reason: open.reason });
  if (demand.sustainedWatts > 0 && label.ratingWatts > Math.max(smallestUsefulWatts, tooLargeMultiple * demand.sustainedWatts)) reasons.push({ code: 'too-large', ratingWatts: label.ratingWatts, sustainedWatts: demand.sustainedWatts });
  return { model, fits: reasons.length === 0, reasons, load, plan };
}

