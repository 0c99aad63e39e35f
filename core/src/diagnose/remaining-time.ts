import type { Model } from './model.ts';

/** What a part bought in vain costs besides the minutes, in minutes of work (bench judgement). */
export const wrongPartMinutes = 60;
/** Minutes to see whether a cure held. */
export const proveMinutes = 3;

/** Cures with the faults they end, made once per model. */
interface CureTable {
  readonly ofFault: Int32Array;
  readonly minutes: Float64Array;
  readonly penalty: Float64Array;
}
const tables = new WeakMap<Model, CureTable>();

function cureTable(model: Model): CureTable {
  const known = tables.get(model);
  if (known) return known;
  const ids = [...new Set(model.faults.map((fault) => fault.cure.id))];
  const table: CureTable = {
    ofFault: Int32Array.from(model.faults, (fault) => ids.indexOf(fault.cure.id)),
    minutes: Float64Array.from(ids, (id) => Math.max(...model.faults.filter((fault) => fault.cure.id === id).map((fault) => fault.cure.minutes)) + proveMinutes),
    penalty: Float64Array.from(ids, (id) => (model.faults.some((fault) => fault.cure.id === id && fault.cure.part === true) ? wrongPartMinutes : 0)),
  };
  tables.set(model, table);
  return table;
}

/**
 * Expected minutes to the end of the job when cures are tried in the order of probability per minute, with no more
 * checks: each cure costs its minutes while the fault is still there, and its penalty when it was in vain.
 * Source: expected cost of repair, Heckerman, Breese and Rommelse 1995.
 * @param weights non-negative, need not sum to one; the result is scaled by their sum
 */
export function expectedRepairMinutes(model: Model, weights: Float64Array): number {
  const { ofFault, minutes, penalty } = cureTable(model);
  const byCure = new Float64Array(minutes.length);
  let remaining = 0;
  for (let fault = 0; fault < weights.length; fault += 1) {
    byCure[ofFault[fault]!]! += weights[fault]!;
    remaining += weights[fault]!;
  }
  const order = Array.from(byCure.keys()).sort((a, b) => byCure[b]! / (minutes[b]! + penalty[b]!) - byCure[a]! / (minutes[a]! + penalty[a]!) || a - b);
  let expected = 0;
  for (const cure of order) {
    expected += remaining * minutes[cure]! + Math.max(0, remaining - byCure[cure]!) * penalty[cure]!;
    remaining -= byCure[cure]!;
    if (remaining < 1e-9) break;
  }
  return expected;
}
