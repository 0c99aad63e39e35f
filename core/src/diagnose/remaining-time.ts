/* oxlint-disable typescript/no-non-null-assertion --
   checks, outcomes and faults of a model are told by their number, which its own tables give */
import { isEndedBy } from './knowledge.ts';
import type { Model } from './model.ts';

/**
 * What a part bought in vain costs besides its minutes, in minutes of work: the part, the second visit, the trust
 * (bench judgement).
 */
export const wrongPartMinutes = 60;
/**
 * What it costs when a machine that was handed on or handed back as well comes back: taking it in and starting over.
 */
export const comeBackMinutes = 30;
/** Minutes to see whether a cure held. */
export const proveMinutes = 3;

/** A cure with what it costs. */
export interface CureCost {
  readonly id: string;
  /** Its minutes and those to see whether it held. */
  readonly minutes: number;
  /** What it costs besides when it was in vain, in minutes. */
  readonly penalty: number;
  /** Indexes of the faults it ends, its own and those it ends too. */
  readonly ends: Int32Array;
}

/** Every cure of the model, each once. */
export function cureCosts(model: Model): CureCost[] {
  return [...new Set(model.faults.map((fault) => fault.cure.id))].map((id) => {
    const own = model.faults.filter((fault) => fault.cure.id === id);
    return {
      id,
      minutes: Math.max(...own.map((fault) => fault.cure.minutes)) + proveMinutes,
      penalty: own.some((fault) => fault.cure.part === true)
        ? wrongPartMinutes
        : own.some((fault) => fault.outside === true || fault.healthy === true)
          ? comeBackMinutes
          : 0,
      ends: Int32Array.from(model.faults.flatMap((fault, index) => (isEndedBy(fault, id) ? [index] : []))),
    };
  });
}

/** Cures with the faults they end, made once per model. */
interface CureTable {
  readonly ids: readonly string[];
  /** Fault indexes by cure, the cure's own faults and those it ends too. */
  readonly ends: readonly Int32Array[];
  readonly own: Int32Array;
  readonly minutes: Float64Array;
  readonly penalty: Float64Array;
  /** Working space, so that a ranking does not allocate thousands of times. */
  readonly score: Float64Array;
  readonly order: Int32Array;
  readonly left: Float64Array;
}
const tables = new WeakMap<Model, CureTable>();

function cureTable(model: Model): CureTable {
  const known = tables.get(model);
  if (known) return known;
  const costs = cureCosts(model);
  const ids = costs.map((cost) => cost.id);
  const table: CureTable = {
    ids,
    ends: costs.map((cost) => cost.ends),
    own: Int32Array.from(model.faults, (fault) => ids.indexOf(fault.cure.id)),
    minutes: Float64Array.from(costs, (cost) => cost.minutes),
    penalty: Float64Array.from(costs, (cost) => cost.penalty),
    score: new Float64Array(ids.length),
    order: new Int32Array(ids.length),
    left: new Float64Array(model.faults.length),
  };
  tables.set(model, table);
  return table;
}

/**
 * Cures by falling probability per cost, those that end nothing left out; `order` is filled and its length given back.
 */
function sortCures({ ends, minutes, penalty, score, order }: CureTable, weights: Float64Array): number {
  let count = 0;
  for (let cure = 0; cure < ends.length; cure += 1) {
    let mass = 0;
    const list = ends[cure]!;
    for (let index = 0; index < list.length; index += 1) mass += weights[list[index]!]!;
    if (mass <= 0) continue;
    const worth = mass / (minutes[cure]! + penalty[cure]!);
    score[cure] = worth;
    // Insertion: some twenty cures, mostly in order already, thousands of times for one ranking.
    let place = count;
    while (place > 0 && score[order[place - 1]!]! < worth) {
      order[place] = order[place - 1]!;
      place -= 1;
    }
    order[place] = cure;
    count += 1;
  }
  return count;
}

/**
 * The cure that is worth trying first when no check pays any more, named by its likeliest fault: most probability for
 * its cost among those not tried yet and allowed; null when none is left.
 */
export function firstCure(
  model: Model,
  weights: Float64Array,
  tried: ReadonlySet<string>,
  allowed: (faultId: string) => boolean,
): string | null {
  const table = cureTable(model);
  const count = sortCures(table, weights);
  for (const cure of [...table.order.subarray(0, count)]) {
    if (tried.has(table.ids[cure]!)) continue;
    let best = -1;
    for (let fault = 0; fault < weights.length; fault += 1)
      if (table.own[fault] === cure && (best < 0 || weights[fault]! > weights[best]!)) best = fault;
    const { id } = model.faults[best]!;
    if (allowed(id)) return id;
  }
  return null;
}

/**
 * Expected minutes to the end of the job when cures are tried in the order of probability per cost, with no more
 * checks: each cure costs its minutes while the fault is still there, and its penalty when it was in vain. A fault that
 * several cures end is gone with the first of them.
 * Source: expected cost of repair, Heckerman, Breese and Rommelse 1995.
 * @param weights by fault, non-negative, need not sum to one; the result is scaled by their sum
 */
export function expectedRepairMinutes(model: Model, weights: Float64Array): number {
  const table = cureTable(model);
  const { ends, minutes, penalty, order, left } = table;
  let remaining = 0;
  for (let fault = 0; fault < weights.length; fault += 1) {
    left[fault] = weights[fault]!;
    remaining += weights[fault]!;
  }
  const count = sortCures(table, weights);
  let expected = 0;
  for (let position = 0; position < count; position += 1) {
    const cure = order[position]!;
    let ended = 0;
    for (const fault of ends[cure]!) {
      ended += left[fault]!;
      left[fault] = 0;
    }
    if (ended === 0) continue;
    expected += remaining * minutes[cure]! + Math.max(0, remaining - ended) * penalty[cure]!;
    remaining -= ended;
    if (remaining < 1e-9) break;
  }
  return expected;
}
