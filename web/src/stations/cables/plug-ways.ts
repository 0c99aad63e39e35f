import {
  boundToBe,
  breachText,
  checkPlan,
  goesBetween,
  kitCableText,
  pinRefusalText,
  planCables,
  plugFits,
  spareId,
  type BagAdapter,
  type Cabling,
  type InletRow,
  type KitCable,
  type Pin,
  type PlanRules,
} from '@fairwatt/core';

/** What a plan with a pin breaks at its inlet, and which inlets it leaves open that are served now. */
export interface Consequence {
  readonly told: readonly string[];
  readonly opens: readonly string[];
}

/** Another plug for an inlet: what it is, where it is now, and what comes of it. */
export interface PlugWay extends Consequence {
  readonly key: string;
  readonly pin: Pin;
  readonly name: string;
  readonly now: string;
}

export interface PlugQuestion {
  readonly cabling: Cabling;
  /** Those that may be put in between. */
  readonly adapters: readonly BagAdapter[];
  readonly inletLabel: (inletId: string) => string;
  /** What a spare cable is called in the bags. */
  readonly bagLabel: (cableId: string) => string;
}

/** What comes of a pin: the plan is made anew around it. */
export function consequenceOf(pin: Pin, { cabling, adapters, inletLabel }: PlugQuestion): Consequence {
  const { kit, plan, inlets, rules } = cabling;
  if (kit === null || plan === null) return { told: [], opens: [] };
  const openNow = new Set(plan.open.map((item) => item.inletId));
  const wished = adapters.filter(({ id }) => id === pin.adapterId && !rules.adapters.some((one) => one.id === id));
  const withPin: PlanRules = {
    ...rules,
    adapters: [...rules.adapters, ...wished],
    pins: [...rules.pins.filter((item) => item.inletId !== pin.inletId), pin],
  };
  const then = planCables(kit, inlets, withPin);
  const refused = then.refused.filter((refusal) => refusal.inletId === pin.inletId);
  return {
    told: [
      ...refused.map((refusal) => pinRefusalText(refusal, inletLabel)),
      ...checkPlan(kit, inlets, then.assignments, withPin).map((breach) => breachText(breach, inletLabel)),
    ],
    opens: then.open.filter((item) => !openNow.has(item.inletId)).map((item) => inletLabel(item.inletId)),
  };
}

/** The copies of a cable that are planned, and one that nobody uses: those are alike. */
function copiesOf(cable: KitCable, plan: NonNullable<Cabling['plan']>): readonly number[] {
  const used = plan.cables.filter((item) => item.kitCableId === cable.id).map((item) => item.copy);
  const fresh = Array.from({ length: cable.count }, (_, copy) => copy).find((copy) => !used.includes(copy));
  return [...used, ...(fresh === undefined ? [] : [fresh])];
}

/** Every other plug for an inlet, what breaks least first. */
export function plugWays(row: InletRow, question: PlugQuestion): readonly PlugWay[] {
  const { kit, plan, inlets, rows } = question.cabling;
  const inlet = inlets.find((item) => item.id === row.inletId);
  if (kit === null || plan === null || inlet === undefined) return [];
  const nameOf = (cable: KitCable) => {
    const spare = spareId(cable.id);
    return spare === null ? kitCableText(cable) : `spare ${question.bagLabel(spare)}, ${kitCableText(cable)}`;
  };
  const wayOf = (cable: KitCable, copy: number, plugIndex: number): PlugWay[] => {
    const isOf = (one: InletRow) => one.kitCableId === cable.id && one.copy === copy && one.plugIndex === plugIndex;
    const here = isOf(row);
    const { kind } = boundToBe(cable.plugs[plugIndex], 'plug');
    // The plug that is planned now is a way only with something between.
    const goes = here ? question.adapters.some((one) => goesBetween(kind, one, inlet)) : plugFits(kind, cable, inlet);
    if (!goes) return [];
    const pin: Pin = { inletId: row.inletId, kitCableId: cable.id, copy, plugIndex, socketLabel: null };
    const there = rows.find(isOf);
    const code = plan.cables.find((item) => item.kitCableId === cable.id && item.copy === copy)?.code;
    const unused = code === undefined ? 'in the bag now' : 'free now';
    return [
      {
        key: `${cable.id} ${copy} ${plugIndex}`,
        pin,
        name:
          code === undefined ? `One more, ${nameOf(cable)}` : `${code}, plug ${plugIndex + 1} of ${cable.plugs.length}`,
        now: here ? 'as it is planned now' : there === undefined ? unused : `now at ${there.label}`,
        ...consequenceOf(pin, question),
      },
    ];
  };
  return kit.cables
    .flatMap((cable) =>
      copiesOf(cable, plan).flatMap((copy) => cable.plugs.flatMap((_plug, index) => wayOf(cable, copy, index))),
    )
    .sort((a, b) => a.told.length + a.opens.length - b.told.length - b.opens.length);
}
