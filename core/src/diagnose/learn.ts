/* oxlint-disable typescript/no-non-null-assertion --
   checks, outcomes and faults of a model are told by their number, which its own tables give */
import { rowFor, type Fault, type Knowledge } from './knowledge.ts';

/** How often one outcome was seen on jobs that ended with one confirmed fault, by instrument. */
export interface OutcomeCount {
  readonly checkId: string;
  readonly outcomeId: string;
  readonly faultId: string;
  /** The instrument that gave it; null where none did. */
  readonly instrumentId: string | null;
  readonly count: number;
}

/** What the shop's closed jobs say, added up. */
export interface ShopRecord {
  /** Closed jobs with a confirmed fault that count. */
  readonly jobs: number;
  /** Those left out by the owner. */
  readonly leftOut: number;
  readonly faults: readonly { readonly faultId: string; readonly count: number }[];
  readonly outcomes: readonly OutcomeCount[];
}

export const emptyRecord: ShopRecord = { jobs: 0, leftOut: 0, faults: [], outcomes: [] };

/**
 * A shipped likelihood counts as much as this many jobs of the shop with that fault (Dirichlet prior weight; bench
 * judgement).
 */
export const shippedWeightJobs = 20;
/** The shipped frequencies of the faults count as much as this many jobs. */
export const shippedPriorJobs = 200;
/** For one instrument, what the shop knows of all others counts as much as this many jobs. */
export const othersWeightJobs = 8;

/**
 * Mean of a Dirichlet distribution: shares moved by counts.
 * @param shares summing to 1; @param weight in the unit of the counts
 */
export function movedShares(shares: readonly number[], weight: number, counts: readonly number[]): number[] {
  const total = counts.reduce((sum, count) => sum + count, weight);
  return shares.map((share, index) => (weight * share + counts[index]!) / total);
}

type Counts = ReadonlyMap<string, number>;
const key = (checkId: string, outcomeId: string, faultId: string, instrumentId: string) =>
  `${checkId}|${outcomeId}|${faultId}|${instrumentId}`;

function sums(record: ShopRecord): {
  readonly all: Counts;
  readonly own: Counts;
  readonly instruments: ReadonlyMap<string, ReadonlySet<string>>;
} {
  const all = new Map<string, number>();
  const own = new Map<string, number>();
  const instruments = new Map<string, Set<string>>();
  for (const item of record.outcomes) {
    const whole = key(item.checkId, item.outcomeId, item.faultId, '');
    all.set(whole, (all.get(whole) ?? 0) + item.count);
    if (item.instrumentId === null) continue;
    const single = key(item.checkId, item.outcomeId, item.faultId, item.instrumentId);
    own.set(single, (own.get(single) ?? 0) + item.count);
    const known = instruments.get(item.checkId) ?? new Set<string>();
    instruments.set(item.checkId, known.add(item.instrumentId));
  }
  return { all, own, instruments };
}

/** The shipped knowledge moved by the shop's record, and beside it what single instruments are worth. */
export interface Learned {
  readonly knowledge: Knowledge;
  /** Rows that hold for one instrument, by check and instrument. */
  readonly instruments: readonly {
    readonly checkId: string;
    readonly instrumentId: string;
    readonly byFault: ReadonlyMap<string, readonly number[]>;
  }[];
}

/**
 * Moves likelihoods and fault frequencies from the shipped values as the shop's closed jobs add counts: Dirichlet with
 * the shipped value as prior. An instrument starts from what the shop knows of the others and moves by its own counts.
 * Checks, outcomes and faults that this knowledge does not know are passed over.
 */
export function learn(knowledge: Knowledge, record: ShopRecord): Learned {
  if (record.outcomes.length === 0 && record.faults.length === 0) return { knowledge, instruments: [] };
  const { all, own, instruments } = sums(record);
  const total = knowledge.faults.reduce((sum, fault) => sum + fault.prior, 0);
  const faultCounts = new Map(record.faults.map((item) => [item.faultId, item.count]));
  const priors = movedShares(
    knowledge.faults.map((fault) => fault.prior / total),
    shippedPriorJobs,
    knowledge.faults.map((fault) => faultCounts.get(fault.id) ?? 0),
  );
  const single: { checkId: string; instrumentId: string; byFault: Map<string, readonly number[]> }[] = [];
  const checks = knowledge.checks.map((check) => {
    const shipped = (fault: Fault) => rowFor(check, fault.id)!.weights.map((weight) => weight / 100);
    const wholeOf = (fault: Fault) =>
      check.outcomes.map((outcome) => all.get(key(check.id, outcome.id, fault.id, '')) ?? 0);
    const moved = knowledge.faults.filter((fault) => wholeOf(fault).some((count) => count > 0));
    if (moved.length === 0) return check;
    for (const instrumentId of instruments.get(check.id) ?? []) {
      const byFault = new Map(
        moved.map((fault): [string, readonly number[]] => {
          const ownOf = check.outcomes.map(
            (outcome) => own.get(key(check.id, outcome.id, fault.id, instrumentId)) ?? 0,
          );
          const others = movedShares(
            shipped(fault),
            shippedWeightJobs,
            wholeOf(fault).map((count, index) => count - ownOf[index]!),
          );
          return [fault.id, movedShares(others, othersWeightJobs, ownOf)];
        }),
      );
      single.push({ checkId: check.id, instrumentId, byFault });
    }
    const ids = new Set(moved.map((fault) => fault.id));
    const left = knowledge.faults.filter((fault) => !ids.has(fault.id));
    const rows = check.rows.flatMap((row) =>
      row.faults === 'others'
        ? []
        : row.faults.some((id) => !ids.has(id))
          ? [{ ...row, faults: row.faults.filter((id) => !ids.has(id)) }]
          : [],
    );
    const named = new Set(rows.flatMap((row) => row.faults));
    const others = check.rows.filter((row) => row.faults === 'others' && left.some((fault) => !named.has(fault.id)));
    const ownRows = moved.map((fault) => ({
      faults: [fault.id],
      weights: movedShares(shipped(fault), shippedWeightJobs, wholeOf(fault)).map((share) => share * 100),
      why: rowFor(check, fault.id)!.why,
    }));
    return { ...check, rows: [...ownRows, ...rows, ...others] };
  });
  return {
    knowledge: {
      ...knowledge,
      faults: knowledge.faults.map((fault, index) => ({ ...fault, prior: priors[index]! * 100 })),
      checks,
    },
    instruments: single,
  };
}

/**
 * Interval for a share from k of n, at 95 %: Wilson's score interval (Wilson 1927).
 * @returns null when nothing was counted
 */
export function shareInterval(
  k: number,
  n: number,
): { readonly share: number; readonly low: number; readonly high: number } | null {
  if (n <= 0) return null;
  const z = 1.959964;
  const share = k / n;
  const centre = (share + (z * z) / (2 * n)) / (1 + (z * z) / n);
  const half = (z / (1 + (z * z) / n)) * Math.sqrt((share * (1 - share)) / n + (z * z) / (4 * n * n));
  return { share, low: Math.max(0, centre - half), high: Math.min(1, centre + half) };
}
