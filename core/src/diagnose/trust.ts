import type { Fault, Knowledge } from './knowledge.ts';
import type { ShopRecord } from './learn.ts';

/** How often out of how many. */
export interface Tally {
  readonly count: number;
  readonly of: number;
}

/** What the record says of a check that passes judgement on the supply, or of one instrument used for it. */
export interface Trust {
  readonly checkId: string;
  /** Null: whoever gave it. */
  readonly instrumentId: string | null;
  /** Supplies called well that were the fault. */
  readonly passedBad: Tally;
  /** Supplies called out that were not the fault. */
  readonly failedGood: Tally;
}

const isBadSupply = (fault: Fault) => fault.group === 'supply' && fault.cure.id === 'replace-supply';
/** Neither the supply nor what feeds it. */
const isGoodSupply = (fault: Fault) => fault.group !== 'supply' && fault.group !== 'mains';

/**
 * The shop's own record of each check that judges the supply and of each instrument it was done with, those used most
 * first; checks that were never counted are left out.
 */
export function trustIn(knowledge: Knowledge, record: ShopRecord): Trust[] {
  const found: Trust[] = [];
  for (const check of knowledge.checks) {
    const sound = check.outcomes.find((outcome) => outcome.sound === true);
    if (sound === undefined) continue;
    const counts = record.outcomes.filter(
      (item) => item.checkId === check.id && check.outcomes.some((outcome) => outcome.id === item.outcomeId),
    );
    const tally = (
      items: typeof counts,
      of: (fault: Fault) => boolean,
      wanted: (outcomeId: string) => boolean,
    ): Tally => {
      const kept = items.filter((item) => knowledge.faults.some((fault) => fault.id === item.faultId && of(fault)));
      const sum = (list: typeof counts) => list.reduce((total, item) => total + item.count, 0);
      return { count: sum(kept.filter((item) => wanted(item.outcomeId))), of: sum(kept) };
    };
    const trust = (instrumentId: string | null, items: typeof counts): Trust => ({
      checkId: check.id,
      instrumentId,
      passedBad: tally(items, isBadSupply, (id) => id === sound.id),
      failedGood: tally(items, isGoodSupply, (id) => id !== sound.id),
    });
    if (counts.length > 0) found.push(trust(null, counts));
    for (const instrumentId of new Set(counts.flatMap((item) => item.instrumentId ?? [])))
      found.push(
        trust(
          instrumentId,
          counts.filter((item) => item.instrumentId === instrumentId),
        ),
      );
  }
  const times = (trust: Trust) => trust.passedBad.of + trust.failedGood.of;
  return found.filter((trust) => times(trust) > 0).sort((a, b) => times(b) - times(a));
}

/** A likelihood that the record moved. */
export interface Moved {
  readonly checkId: string;
  readonly outcomeId: string;
  readonly faultId: string;
  readonly shipped: number;
  readonly now: number;
  readonly seen: Tally;
}

/** The likelihoods that the record moved most, the largest step first. */
export function movedMost(shipped: Knowledge, learned: Knowledge, record: ShopRecord, most = 12): Moved[] {
  const share = (knowledge: Knowledge, checkId: string, faultId: string, outcome: number) => {
    const check = knowledge.checks.find((candidate) => candidate.id === checkId);
    const row =
      check?.rows.find((candidate) => candidate.faults !== 'others' && candidate.faults.includes(faultId)) ??
      check?.rows.find((candidate) => candidate.faults === 'others');
    return (row?.weights[outcome] ?? 0) / 100;
  };
  const done = new Set<string>();
  const moved = record.outcomes.flatMap((item): Moved[] => {
    const check = shipped.checks.find((candidate) => candidate.id === item.checkId);
    const outcome = check?.outcomes.findIndex((candidate) => candidate.id === item.outcomeId) ?? -1;
    const key = `${item.checkId}|${item.outcomeId}|${item.faultId}`;
    if (
      check === undefined ||
      outcome < 0 ||
      done.has(key) ||
      !shipped.faults.some((fault) => fault.id === item.faultId)
    )
      return [];
    done.add(key);
    const same = record.outcomes.filter((other) => other.checkId === item.checkId && other.faultId === item.faultId);
    const sum = (list: typeof same) => list.reduce((total, other) => total + other.count, 0);
    return [
      {
        checkId: item.checkId,
        outcomeId: item.outcomeId,
        faultId: item.faultId,
        shipped: share(shipped, item.checkId, item.faultId, outcome),
        now: share(learned, item.checkId, item.faultId, outcome),
        seen: { count: sum(same.filter((other) => other.outcomeId === item.outcomeId)), of: sum(same) },
      },
    ];
  });
  return moved.sort((a, b) => Math.abs(b.now - b.shipped) - Math.abs(a.now - a.shipped)).slice(0, most);
}
