import { boundToBe } from '../bound-to-be.ts';
import { excursionMultiple, type ExcursionMilliseconds } from '../standards/index.ts';
import {
  newBudget,
  planCables,
  plugFits,
  usualRules,
  type CableKit,
  type CablePlan,
  type planFamily,
} from '../cable/index.ts';
import {
  inputWatts,
  lastingShare,
  loadRails,
  routesOf,
  sharesOf,
  type LoadFinding,
  type LoadRail,
} from '../load/index.ts';
import { partClass, type MachinePart, type SupplyLabel } from '../machine/index.ts';
import { assessSupply, type Assessed } from './assess-supply.ts';
import type { SupplyModel } from './model.ts';
import { staggeredQuestion, type FitQuestion } from './question.ts';
import type { FitReason } from './reasons.ts';

/** A card's own power limit is hardly ever lowered by more than this share (bench practice). */
export const mostCardReduction = 0.25;
/** The longest extension that is planned, in millimetres (bench practice). */
export const longestExtensionMillimetres = 300;
/** More than so many things to change, and another supply is the better way (bench practice). */
const mostRemedies = 2;

/** What would let a supply fit after all. */
export type Remedy =
  | { readonly code: 'bracket'; readonly shape: string; readonly into: string }
  /** So many more cables of a kind that the kit has, for the inlets named. */
  | {
      readonly code: 'cable';
      readonly kitCableId: string;
      readonly count: number;
      readonly inletIds: readonly string[];
    }
  | { readonly code: 'extension'; readonly inletId: string; readonly millimetres: number }
  | { readonly code: 'staggered' }
  | { readonly code: 'card-limit'; readonly partId: string; readonly watts: number };

/** Steps that may be taken to find out which cables more would do. */
const mostStepsForCables = 3_000;

type Solve = typeof planFamily;

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

/** Which share of a card's watts counts in a finding; 0 where it has no part in it. */
function cardShare(card: MachinePart, finding: LoadFinding, label: SupplyLabel): number {
  const shares = sharesOf(card);
  switch (finding.code) {
    case 'lasting':
    case 'peak':
      return 1;
    case 'twelve-total':
      return shares['+12'];
    case 'rail':
      return shares[finding.subject as LoadRail];
    case 'combined': {
      const names = finding.subject.split(' + ');
      const outputs = label.rails.filter((output) => names.includes(output.label));
      // A limit over a part of the +12 outputs depends on what hangs where.
      const partly = label.rails.some((output) => output.rail === '+12' && !names.includes(output.label));
      if (partly && outputs.some((output) => output.rail === '+12')) return 0;
      return loadRails.reduce(
        (sum, rail) => sum + (outputs.some((output) => output.rail === rail) ? shares[rail] : 0),
        0,
      );
    }
    case 'twelve-output':
    case 'spin-up':
    case 'standby':
    case 'conductor':
      return 0;
  }
}

/**
 * Watts by which a card's lasting limit must fall so that a finding is covered; null when the card has no part in it.
 */
function reductionFor(
  card: MachinePart,
  finding: LoadFinding,
  label: SupplyLabel,
  plan: CablePlan,
  machine: readonly MachinePart[],
): number | null {
  const over = finding.figure - finding.limit * (finding.word === 'tight' ? lastingShare : 1);
  if (finding.code === 'conductor') return conductorReduction(card, finding, over, plan, machine);
  const share = cardShare(card, finding, label);
  if (share <= 0 || finding.moment === 'spin-up') return null;
  // A rail's finding may be in amps.
  const watts = (finding.unit === 'A' ? over * (finding.subject === '+5' ? 5 : 3.3) : over) / share;
  if (finding.moment === 'lasting' || finding.moment === '1000') return watts;
  const likely = inputWatts(card, card.figures.likelyWatts);
  const short = inputWatts(card, card.figures.shortWatts);
  const multiple = excursionMultiple[card.figures.excursion][Number(finding.moment) as ExcursionMilliseconds];
  const target = Math.max(likely * multiple, short) - watts;
  return target <= 0 ? null : Math.max(0, (likely * multiple - target) / multiple, short - target);
}

/**
 * What a card takes through its plugs must fall so far that this cable's part of it is covered; what the slot gives
 * follows.
 */
function conductorReduction(
  card: MachinePart,
  finding: LoadFinding,
  over: number,
  plan: CablePlan,
  machine: readonly MachinePart[],
): number | null {
  const cable = plan.cables.find((item) => item.code === finding.subject);
  const own = new Set(card.inlets.map((inlet) => inlet.id));
  if (cable === undefined || !cable.inletIds.every((id) => own.has(id))) return null;
  const plugWatts = (likelyWatts: number) =>
    routesOf({ ...card, figures: { ...card.figures, likelyWatts } }, machine)['card-plug'] ?? 0;
  const all = plugWatts(card.figures.likelyWatts);
  const target = all - (over * all) / cable.amps12;
  const likely = inputWatts(card, card.figures.likelyWatts);
  let [low, high] = [0, likely];
  while (high - low > 0.01) {
    const middle = (low + high) / 2;
    if (plugWatts(middle) > target) high = middle;
    else low = middle;
  }
  return likely - low;
}

/**
 * Watts by which the strongest card would have to draw less, where nothing but the load is against a supply; else null.
 */
function cardReductionFor(
  { label }: SupplyModel,
  { parts }: FitQuestion,
  reasons: readonly FitReason[],
  { against, plan }: Assessed,
): number | null {
  const card = strongestCard(parts);
  if (card === null || against.length === 0 || reasons.some((reason) => reason.code !== 'load')) return null;
  let most = 0;
  for (const finding of against) {
    const watts = reductionFor(card, finding, label, plan, parts);
    if (watts === null) return null;
    most = Math.max(most, watts);
  }
  return most;
}

/**
 * What would let a supply fit, one thing for each reason; `remedies` null when a reason has none or it takes more than
 * two things.
 */
export function remediesFor(
  model: SupplyModel,
  question: FitQuestion,
  reasons: readonly FitReason[],
  assessed: Assessed,
  solve: Solve,
): { readonly remedies: readonly Remedy[] | null; readonly cardReduction: number | null } {
  const cardReduction = cardReductionFor(model, question, reasons, assessed);
  const remedies: Remedy[] = [];
  const open = reasons.filter((reason) => reason.code === 'inlet');
  const none = { remedies: null, cardReduction };
  for (const reason of reasons) {
    switch (reason.code) {
      case 'shape':
        if (!(reason.shape === 'SFX' || reason.shape === 'SFX-L') || !question.casing.shapes.includes('ATX'))
          return none;
        remedies.push({ code: 'bracket', shape: reason.shape, into: 'ATX' });
        break;
      case 'inlet': {
        if (reason.reason !== 'too-short') break;
        const extension = extensionFor(model.kit, question, reason.inletId);
        if (extension === null) return none;
        remedies.push(extension);
        break;
      }
      case 'load': {
        const remedy = loadRemedy(model, question, assessed, cardReduction);
        if (remedy === null) return none;
        remedies.push(remedy);
        break;
      }
      default:
        return none;
    }
  }
  const missing = open.filter((reason) => reason.reason !== 'too-short').map((reason) => reason.inletId);
  if (remedies.length > mostRemedies) return none;
  if (missing.length > 0) {
    const cables = moreCables(assessed.kit, question, missing, solve);
    if (cables === null) return none;
    remedies.push(cables);
  }
  return { remedies: remedies.length <= mostRemedies ? remedies : null, cardReduction };
}

function extensionFor(kit: CableKit, question: FitQuestion, inletId: string): Remedy | null {
  const inlet = boundToBe(
    question.inlets.find((item) => item.id === inletId),
    `inlet ${inletId}`,
  );
  const longest = Math.max(
    ...kit.cables.flatMap((cable) =>
      cable.plugs.filter((plug) => plugFits(plug.kind, cable, inlet)).map((plug) => plug.millimetres),
    ),
    0,
  );
  const missing = inlet.reachMillimetres - longest;
  if (longest === 0 || missing > longestExtensionMillimetres) return null;
  return { code: 'extension', inletId, millimetres: missing };
}

/**
 * The fewest more cables of one kind of the supply's own kit that serve every inlet named, found by planning with them:
 * a plug of the kind must exist, a socket be free and the load allow it. Null where no kind does.
 */
function moreCables(kit: CableKit, question: FitQuestion, inletIds: readonly string[], solve: Solve): Remedy | null {
  const rules = { ...usualRules, allowShared: question.sharedCardCable };
  const missing = inletIds.map((id) =>
    boundToBe(
      question.inlets.find((item) => item.id === id),
      `inlet ${id}`,
    ),
  );
  const helpful = kit.cables.filter(
    (cable) =>
      !cable.fixed &&
      cable.spare !== true &&
      // Another piece of one that goes into one socket only would go nowhere.
      cable.onlySocket === undefined &&
      cable.plugs.some((plug) => missing.some((inlet) => plugFits(plug.kind, cable, inlet))),
  );
  const budget = newBudget(mostStepsForCables);
  for (let count = 1; count <= inletIds.length; count += 1)
    for (const cable of helpful) {
      if (budget.left <= 0) return null;
      const more = kit.cables.map((item) => (item === cable ? { ...item, count: item.count + count } : item));
      const plan = planCables({ ...kit, cables: more }, question.inlets, rules, solve, budget);
      if (!plan.open.some((open) => inletIds.includes(open.inletId)))
        return { code: 'cable', kitCableId: cable.id, count, inletIds };
    }
  return null;
}

function loadRemedy(
  model: SupplyModel,
  question: FitQuestion,
  { against }: Assessed,
  cardReduction: number | null,
): Remedy | null {
  if (!question.staggered && against.every((finding) => finding.moment === 'spin-up')) {
    const { against: left, plan } = assessSupply(model, staggeredQuestion(question));
    if (left.length === 0 && plan.open.every((open) => open.optional)) return { code: 'staggered' };
  }
  const card = strongestCard(question.parts);
  return card !== null &&
    cardReduction !== null &&
    cardReduction <= mostCardReduction * inputWatts(card, card.figures.likelyWatts)
    ? { code: 'card-limit', partId: card.id, watts: Math.ceil(cardReduction) }
    : null;
}
