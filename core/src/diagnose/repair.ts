import { boundToBe } from '../bound-to-be.ts';
import { isEndedBy, type Check, type Fault } from './knowledge.ts';
import type { Model, Observation } from './model.ts';

/**
 * Per cent of right repairs that change nothing all the same: done badly, or with a part that was dead too. Bench
 * judgement.
 */
export const rightRepairFails = 2;
/** Per cent of wrong repairs after which the fault stays away long enough to be taken for cured. Bench judgement. */
export const wrongRepairCures = 1;

const prefix = 'repair.';
/** The check that a repair is, once it was tried. */
export const repairCheckId = (cureId: string): string => `${prefix}${cureId}`;
/** The cure that was tried; null for any other check. */
export const triedCureId = (checkId: string): string | null =>
  checkId.startsWith(prefix) ? checkId.slice(prefix.length) : null;

/** The cures that were tried in vain: as a repair, or in the course of a check that carried them out. */
export function triedCures(model: Model, observations: readonly Observation[]): ReadonlySet<string> {
  return new Set(
    observations.flatMap(({ checkId, outcomeId }) => {
      const repair = triedCureId(checkId);
      if (repair !== null) return [repair];
      const check = model.checks[model.checkIndex.get(checkId) ?? -1];
      return check?.outcomes.find(({ id }) => id === outcomeId)?.tries ?? [];
    }),
  );
}

/** Whether a check would only carry out cures again that were tried as repairs. */
export function wasDoneAsRepair(check: Check, observations: readonly Observation[]): boolean {
  const tries = check.outcomes.flatMap((outcome) => outcome.tries ?? []);
  return observations.some(({ checkId }) => {
    const repair = triedCureId(checkId);
    return repair !== null && tries.includes(repair);
  });
}

/**
 * A tried repair as a check with the outcomes `cured` and `same`, one for each cure: what it came to is evidence like
 * any other, so that a repair in vain opens the next round with what is known so far.
 */
export function repairChecks(faults: readonly Fault[]): Check[] {
  return [...new Set(faults.map((fault) => fault.cure.id))].map((cureId): Check => {
    const ended = faults.filter((fault) => isEndedBy(fault, cureId));
    const { text, minutes } = boundToBe(
      faults.find((fault) => fault.cure.id === cureId),
      `cure ${cureId}`,
    ).cure;
    return {
      id: repairCheckId(cureId),
      kind: 'repair',
      evidence: repairCheckId(cureId),
      title: text,
      minutes,
      needs: [],
      hazard: 'low',
      steps: [text],
      outcomes: [
        { id: 'cured', label: 'Cured', cures: ended.map((fault) => fault.id) },
        { id: 'same', label: 'Changed nothing' },
      ],
      rows: [
        {
          faults: ended.map((fault) => fault.id),
          weights: [100 - rightRepairFails, rightRepairFails],
          why: 'The right repair cures, unless it was done badly or the part was dead too.',
        },
        {
          faults: 'others',
          weights: [wrongRepairCures, 100 - wrongRepairCures],
          why: 'A repair of something else changes nothing, or the fault stays away for a while.',
        },
      ],
    };
  });
}
