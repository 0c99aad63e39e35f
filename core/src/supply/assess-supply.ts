import { boundToBe } from '../bound-to-be.ts';
import {
  cableAmps12,
  newBudget,
  planCables,
  planFamily,
  socketsNamed,
  usualRules,
  type Budget,
  type CableKit,
  type CablePlan,
  type KitCable,
  type PlanRules,
} from '../cable/index.ts';
import {
  assessLoad,
  moments,
  type HungLoad,
  type LoadAssessment,
  type LoadFinding,
  type School,
} from '../load/index.ts';
import type { SupplyModel } from './model.ts';
import type { FitQuestion } from './question.ts';

/** The +12 outputs that a cable's ends hang on, each once; null where nobody knows one. */
function outputsOf(
  kit: CableKit,
  socketLabel: string | null,
  piece: Pick<KitCable, 'output'> | undefined,
): readonly (string | null)[] {
  const sockets = socketLabel === null ? null : socketsNamed(kit, socketLabel);
  if (sockets === null) return [piece?.output ?? null];
  return [...new Set(sockets.map((socket) => socket.output ?? piece?.output ?? null))];
}

/**
 * What hangs on which +12 output by a plan: a modular cable by its socket, one with two ends by halves where these hang
 * on different outputs, a fixed one by itself.
 */
export function hungByPlan(
  model: Pick<SupplyModel, 'kit'>,
  plan: CablePlan,
  { draws, staggered }: Pick<FitQuestion, 'draws' | 'staggered'>,
): HungLoad[] {
  const legs = new Map<string, number>();
  for (const { inletId } of plan.assignments) legs.set(inletId, (legs.get(inletId) ?? 0) + 1);
  return plan.cables.flatMap((cable): HungLoad[] => {
    const piece = model.kit.cables.find((item) => item.id === cable.kitCableId);
    const own = plan.assignments
      .filter((item) => item.cableCode === cable.code)
      .flatMap(({ inletId }) => {
        const draw = draws.get(inletId);
        return draw === undefined ? [] : [{ draw, share: 1 / boundToBe(legs.get(inletId), `inlet ${inletId}`) }];
      });
    const start = staggered ? Math.max(0, ...own.map(({ draw, share }) => (share * draw.starts['+12']) / 12)) : 0;
    const outputs = outputsOf(model.kit, cable.socketLabel, piece);
    return outputs.map((output) => ({
      name: cable.code,
      family: cable.family,
      output,
      startAmps: start / outputs.length,
      amps: Object.fromEntries(
        moments.map((moment) => [
          moment,
          own.reduce((sum, { draw, share }) => sum + (share * draw.at[moment]['+12']) / 12, 0) / outputs.length,
        ]),
      ) as HungLoad['amps'],
    }));
  });
}

/**
 * The findings that speak against a supply under a school: only "peaks covered" minds a rating that is merely tight.
 */
function loadAgainst(load: LoadAssessment, school: School): LoadFinding[] {
  return load.findings.filter(
    (finding) => finding.word === 'beyond' || (finding.word === 'tight' && school === 'peaks-covered'),
  );
}

/** How a supply's cables are laid for this machine and what it then carries. */
export interface Assessed {
  /** What the plan was made of. */
  readonly kit: CableKit;
  readonly plan: CablePlan;
  readonly load: LoadAssessment;
  /** What speaks against it under the school. */
  readonly against: readonly LoadFinding[];
}

/** What a plan for this supply may be made of: its own kit with the shop's safe spares. */
function kitAtHand(model: Pick<SupplyModel, 'kit'> & { readonly id?: string }, { spares }: FitQuestion): CableKit {
  const own = model.id === undefined ? undefined : spares.get(model.id);
  return own === undefined ? model.kit : { ...model.kit, cables: [...model.kit.cables, ...own] };
}

/**
 * Plans a supply's cables for a question: from its kit with the shop's spares, and with its adapters where the kit
 * alone leaves an inlet open, lets some share a cable, or overloads one.
 */
export function planFor(
  model: Pick<SupplyModel, 'kit'> & { readonly id?: string },
  question: FitQuestion,
  solve: typeof planFamily = planFamily,
  budget: Budget = newBudget(),
): { readonly kit: CableKit; readonly plan: CablePlan } {
  const kit = kitAtHand(model, question);
  const rules: PlanRules = { ...usualRules, allowShared: question.sharedCardCable };
  const plan = planCables(kit, question.inlets, rules, solve, budget);
  const { score } = plan;
  const wanting = score.openRequired + score.openOptional + score.overloaded + score.sharing > 0;
  if (!wanting || question.adapters.length === 0) return { kit, plan };
  return { kit, plan: planCables(kit, question.inlets, { ...rules, adapters: question.adapters }, undefined, budget) };
}

/** The one way in which a supply is held against a machine: its cables planned, then every limit at every moment. */
export function assessSupply(
  model: Pick<SupplyModel, 'kit' | 'label'> & { readonly id?: string },
  question: FitQuestion,
  {
    solve = planFamily,
    ageShare = 1,
    budget = newBudget(),
  }: { readonly solve?: typeof planFamily; readonly ageShare?: number; readonly budget?: Budget } = {},
): Assessed {
  const { kit, plan } = planFor(model, question, solve, budget);
  const cables = plan.cables.flatMap((cable) => {
    const piece = boundToBe(
      kit.cables.find((item) => item.id === cable.kitCableId),
      `cable ${cable.kitCableId}`,
    );
    return cable.family === 'drive'
      ? []
      : [{ code: cable.code, amps12: cable.amps12, carriesAmps: cableAmps12(piece) }];
  });
  // What hangs where matters only where +12 comes from several outputs.
  const several = model.label.rails.filter(({ rail }) => rail === '+12').length > 1;
  const hung = several ? hungByPlan({ kit }, plan, question) : [];
  const load = assessLoad(question.demand, model.label, { ageShare, hung, cables });
  return { kit, plan, load, against: loadAgainst(load, question.school) };
}
