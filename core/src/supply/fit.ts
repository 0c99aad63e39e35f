import {
  excursionMultiple,
  inletFamily,
  modularBendMillimetres,
  plugServes,
  socketTakes,
  type Protection,
} from '../standards/index.ts';
import {
  cableAmps12,
  planCables,
  planFamily,
  reachMillimetres,
  usualPlace,
  usualRules,
  type CablePlan,
  type InletToServe,
} from '../cable/index.ts';
import {
  assessLoad,
  demandOf,
  inletLoads,
  inputWatts,
  lastingShare,
  routesOf,
  schoolRatings,
  type Demand,
  type HungLoad,
  type LoadAssessment,
  type LoadFinding,
  type School,
} from '../load/index.ts';
import { partClass, partsAt, type CaseLayout, type Casing, type MachinePart } from '../machine/index.ts';
import type { SupplyModel } from './model.ts';
import { runningCost, type DayProfile, type RunningCost, type Tariff } from './running-cost.ts';

/** Above this multiple of the lasting load a supply is too large: cost, size, poor efficiency at idle (bench practice). */
export const tooLargeMultiple = 4;
/** A supply up to this rating is never called too large, since hardly any smaller are sold. */
export const smallestUsefulWatts = 450;
/** A card's own power limit is hardly ever lowered by more than this share (bench practice). */
export const mostCardReduction = 0.25;
/** The longest extension that is planned, in millimetres (bench practice). */
export const longestExtensionMillimetres = 300;

/** What the client or the shop asks of a supply beside its power. */
export interface Wants {
  readonly noisiestDecibels: number | null;
  readonly leastWarrantyYears: number | null;
  readonly protections: readonly Protection[];
  readonly activeCorrection: boolean;
}
export const noWants: Wants = {
  noisiestDecibels: null,
  leastWarrantyYears: null,
  protections: [],
  activeCorrection: false,
};

/** Why a supply is dropped. Figures in the unit of the rule. */
export type FitReason =
  | { readonly code: 'shape'; readonly shape: string; readonly allowed: readonly string[] }
  | { readonly code: 'depth'; readonly needsMillimetres: number; readonly roomMillimetres: number }
  | { readonly code: 'holes'; readonly caseOwn: boolean }
  | { readonly code: 'vent' }
  | { readonly code: 'mains'; readonly mainsVolts: number; readonly lowVolts: number; readonly highVolts: number }
  | { readonly code: 'lead'; readonly amps: number; readonly limitAmps: number }
  | { readonly code: 'load'; readonly finding: LoadFinding }
  | { readonly code: 'outputs-unknown' }
  | { readonly code: 'school'; readonly school: School; readonly asksWatts: number; readonly ratingWatts: number }
  | { readonly code: 'inlet'; readonly inletId: string; readonly reason: CablePlan['open'][number]['reason'] }
  | { readonly code: 'protection'; readonly missing: Protection }
  | { readonly code: 'correction' }
  | { readonly code: 'noise'; readonly decibels: number | null; readonly mostDecibels: number }
  | { readonly code: 'warranty'; readonly years: number; readonly leastYears: number }
  | { readonly code: 'too-large'; readonly ratingWatts: number; readonly sustainedWatts: number };

/** What would let a supply fit after all. */
export type Remedy =
  | { readonly code: 'bracket'; readonly shape: string; readonly into: string }
  | { readonly code: 'cable'; readonly inletId: string }
  | { readonly code: 'extension'; readonly inletId: string; readonly millimetres: number }
  | { readonly code: 'staggered' }
  | { readonly code: 'card-limit'; readonly partId: string; readonly watts: number };

/** What the machine asks of a replacement. */
export interface FitQuestion {
  readonly casing: Casing;
  readonly parts: readonly MachinePart[];
  readonly demand: Demand;
  readonly inlets: readonly InletToServe[];
  readonly school: School;
  readonly presentRatingWatts: number | null;
  readonly cardAdviceWatts: number | null;
  readonly staggered: boolean;
  readonly wants: Wants;
  /** Whether the shop lets two graphics inlets share a cable where the load allows it. */
  readonly sharedCardCable: boolean;
  readonly day: DayProfile;
  readonly tariff: Tariff;
}

export type CandidateClass = 'fits' | 'almost' | 'falls';

/** How one supply answers. */
export interface Candidate {
  readonly model: SupplyModel;
  readonly class: CandidateClass;
  readonly fits: boolean;
  readonly reasons: readonly FitReason[];
  /** For `almost`: what would have to change, all of it. */
  readonly remedies: readonly Remedy[];
  /** Watts by which the strongest card would have to draw less, where nothing but the load is against it; else null. */
  readonly cardReduction: number | null;
  readonly load: LoadAssessment;
  readonly plan: CablePlan;
  readonly cost: RunningCost;
}

/** The inlets of the parts with their ways and loads, in the order of the parts. */
export function inletsToServe(parts: readonly MachinePart[], layout: CaseLayout): InletToServe[] {
  const loads = new Map(inletLoads(parts).map((load) => [load.inletId, load]));
  return parts.flatMap((part) =>
    part.inlets.map((inlet): InletToServe => {
      const amps = loads.get(inlet.id)?.amps;
      const place = inlet.place ?? usualPlace(inlet.kind);
      return {
        id: inlet.id,
        kind: inlet.kind,
        optional: inlet.optional,
        place,
        reachMillimetres: inlet.wayMillimetres ?? reachMillimetres(layout, inlet.kind, place),
        amps12: amps?.['+12'] ?? 0,
        amps5: amps?.['+5'] ?? 0,
        amps33: amps?.['+3.3'] ?? 0,
        ...(partClass(part.classId)?.group === 'cooling' ? { cools: true } : {}),
      };
    }),
  );
}

/** A question about the machine as it will be after the planned upgrade; what is left out asks for nothing special. */
export function fitQuestion(
  parts: readonly MachinePart[],
  casing: Casing,
  asks: Omit<FitQuestion, 'casing' | 'parts' | 'demand' | 'inlets'>,
): FitQuestion {
  const planned = partsAt(parts, 'planned');
  return {
    ...asks,
    casing,
    parts: planned,
    demand: demandOf(planned, { staggered: asks.staggered }),
    inlets: inletsToServe(planned, casing.layout),
  };
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

/** What hangs on which +12 output by a plan: a modular cable by its socket, a fixed one by itself. Lasting amps. */
export function hungByPlan(model: SupplyModel, plan: CablePlan): HungLoad[] {
  return plan.cables
    .filter((cable) => cable.amps12 > 0)
    .map((cable): HungLoad => {
      const socket = model.kit.sockets.find((item) => item.label === cable.socketLabel);
      const piece = model.kit.cables.find((item) => item.id === cable.kitCableId);
      return {
        name: cable.code,
        family: cable.family,
        amps12: cable.amps12,
        output: socket?.output ?? piece?.output ?? null,
      };
    });
}

/** The findings that speak against a supply under a school: only "peaks covered" minds a rating that is merely tight. */
function loadAgainst(load: LoadAssessment, school: School): LoadFinding[] {
  return load.findings.filter(
    (finding) => finding.word === 'beyond' || (finding.word === 'tight' && school === 'peaks-covered'),
  );
}

/** Watts by which a card's lasting limit must fall so that a finding is covered; null when the card has no part in it. */
function reductionFor(card: MachinePart, finding: LoadFinding, tightShare: number, plan: CablePlan): number | null {
  if (finding.limit === null) return null;
  const over = finding.figure - finding.limit * (finding.word === 'tight' ? tightShare : 1);
  const likely = inputWatts(card, card.figures.likelyWatts);
  const short = inputWatts(card, card.figures.shortWatts);
  switch (finding.code) {
    case 'lasting':
      return over;
    case 'twelve-total':
      return over / card.figures.share12;
    case 'peak': {
      if (finding.subject === '1000') return over;
      const multiple = excursionMultiple[card.figures.excursion][Number(finding.subject) as 100 | 10 | 1 | 0.1];
      const target = Math.max(likely * multiple, short) - over;
      return target <= 0 ? null : Math.max(0, (likely * multiple - target) / multiple, short - target);
    }
    case 'conductor': {
      const cable = plan.cables.find((item) => item.code === finding.subject);
      const own = new Set(card.inlets.map((inlet) => inlet.id));
      if (cable === undefined || !cable.inletIds.every((id) => own.has(id))) return null;
      // What the card takes through its plugs must fall so far that this cable's part of it is covered; what the slot gives follows.
      const plugWatts = routesOf(card)['card-plug'] ?? 0;
      const target = plugWatts - (over * plugWatts) / cable.amps12;
      let [low, high] = [0, likely];
      while (high - low > 0.01) {
        const middle = (low + high) / 2;
        if ((routesOf({ ...card, figures: { ...card.figures, likelyWatts: middle } })['card-plug'] ?? 0) > target)
          high = middle;
        else low = middle;
      }
      return likely - low;
    }
    case 'rail':
    case 'twelve-output':
    case 'combined':
    case 'spin-up':
    case 'standby':
      return null;
  }
}

/** Judges one supply by every rule, in the order: fits, mains, carries, reaches, is as wished, not too large. */
export function judgeSupply(
  model: SupplyModel,
  question: FitQuestion,
  solve: typeof planFamily = planFamily,
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
  const plan = planCables(model.kit, question.inlets, { ...usualRules, allowShared: question.sharedCardCable }, solve);
  const cables = plan.cables.flatMap((cable) => {
    const piece = model.kit.cables.find((item) => item.id === cable.kitCableId)!;
    const carriesAmps = cable.family === 'drive' ? null : cableAmps12(piece);
    return carriesAmps === null ? [] : [{ code: cable.code, amps12: cable.amps12, carriesAmps }];
  });
  const load = assessLoad(demand, label, { hung: hungByPlan(model, plan), cables });
  const against = loadAgainst(load, question.school);
  const firstAgainst = against.includes(load.deciding!) ? load.deciding : against[0];
  if (firstAgainst != null) reasons.push({ code: 'load', finding: firstAgainst });
  else if (load.spread !== null && !load.spread.known && load.spread.worstRatio > 1)
    reasons.push({ code: 'outputs-unknown' });
  if (question.school !== 'peaks-covered') {
    const asks =
      schoolRatings(demand, question.presentRatingWatts, label.guide, question.cardAdviceWatts).find(
        (rating) => rating.school === question.school,
      )?.ratingWatts ?? null;
    if (asks !== null && label.ratingWatts < asks)
      reasons.push({ code: 'school', school: question.school, asksWatts: asks, ratingWatts: label.ratingWatts });
  }
  for (const open of plan.open)
    if (!open.optional) reasons.push({ code: 'inlet', inletId: open.inletId, reason: open.reason });
  reasons.push(...wishReasons(model, question.wants));
  if (
    demand.sustainedWatts > 0 &&
    label.ratingWatts > Math.max(smallestUsefulWatts, tooLargeMultiple * demand.sustainedWatts)
  )
    reasons.push({ code: 'too-large', ratingWatts: label.ratingWatts, sustainedWatts: demand.sustainedWatts });

  const card = strongestCard(question.parts);
  const reductions = card === null ? [] : against.map((finding) => reductionFor(card, finding, lastingShare, plan));
  const cardReduction =
    card !== null &&
    reductions.length > 0 &&
    reasons.every((reason) => reason.code === 'load') &&
    reductions.every((watts) => watts !== null)
      ? Math.max(...reductions)
      : null;
  const remedies =
    reasons.length === 0 ? [] : remediesFor(model, question, reasons, against, plan, card, cardReduction);
  return {
    model,
    class: reasons.length === 0 ? 'fits' : remedies === null ? 'falls' : 'almost',
    fits: reasons.length === 0,
    reasons,
    remedies: remedies ?? [],
    cardReduction,
    load,
    plan,
    cost,
  };
}

/** The graphics card that draws most; null in a machine without. */
export function strongestCard(parts: readonly MachinePart[]): MachinePart | null {
  return (
    parts
      .filter(
        (part) =>
          partClass(part.classId)?.group === 'card' && part.inlets.some((inlet) => inlet.kind.startsWith('card-')),
      )
      .sort((a, b) => b.figures.likelyWatts - a.figures.likelyWatts)[0] ?? null
  );
}

/** What would let a supply fit, one thing for each reason; null when a reason has no remedy or it takes more than two. */
function remediesFor(
  model: SupplyModel,
  question: FitQuestion,
  reasons: readonly FitReason[],
  against: readonly LoadFinding[],
  plan: CablePlan,
  card: MachinePart | null,
  cardReduction: number | null,
): Remedy[] | null {
  const remedies: Remedy[] = [];
  for (const reason of reasons) {
    switch (reason.code) {
      case 'shape':
        if (!(reason.shape === 'SFX' || reason.shape === 'SFX-L') || !question.casing.shapes.includes('ATX'))
          return null;
        remedies.push({ code: 'bracket', shape: reason.shape, into: 'ATX' });
        break;
      case 'inlet': {
        const inlet = question.inlets.find((item) => item.id === reason.inletId)!;
        if (reason.reason === 'too-short') {
          const longest = Math.max(
            ...model.kit.cables.flatMap((cable) =>
              cable.plugs.filter((plug) => plugServes(plug.kind, inlet.kind)).map((plug) => plug.millimetres),
            ),
            0,
          );
          const missing = inlet.reachMillimetres - longest;
          if (longest === 0 || missing > longestExtensionMillimetres) return null;
          remedies.push({ code: 'extension', inletId: reason.inletId, millimetres: missing });
        } else {
          // One more cable of the supply's own kind helps only where a socket is left for it.
          const used = new Set(plan.cables.flatMap((cable) => cable.socketLabel ?? []));
          const free = model.kit.sockets.some(
            (socket) => !used.has(socket.label) && socketTakes(socket.kind, inletFamily(inlet.kind)),
          );
          if (!free || reason.reason === 'no-socket') return null;
          remedies.push({ code: 'cable', inletId: reason.inletId });
        }
        break;
      }
      case 'load':
        if (
          !question.staggered &&
          against.every((finding) => finding.code === 'spin-up') &&
          demandOf(question.parts, { staggered: true }).spinUpWatts <= model.label.ratingWatts
        )
          remedies.push({ code: 'staggered' });
        else if (
          card !== null &&
          cardReduction !== null &&
          cardReduction <= mostCardReduction * inputWatts(card, card.figures.likelyWatts)
        )
          remedies.push({ code: 'card-limit', partId: card.id, watts: Math.ceil(cardReduction) });
        else return null;
        break;
      case 'depth':
      case 'holes':
      case 'vent':
      case 'mains':
      case 'lead':
      case 'outputs-unknown':
      case 'school':
      case 'protection':
      case 'correction':
      case 'noise':
      case 'warranty':
      case 'too-large':
        return null;
    }
  }
  return remedies.length <= 2 ? remedies : null;
}
