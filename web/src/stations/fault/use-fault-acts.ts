import { repairCheckId, type Finding } from '@fairwatt/core';
import { useDesk } from '../../job/job-context.ts';
import type { RepairResult } from './cure-card.tsx';

export type SetFinding = (
  kind: Finding['kind'],
  faultId: string | null,
  confirmed: boolean,
  alsoFaultId?: string | null,
) => unknown;

export interface FaultActs {
  /** Notes what a check told. */
  readonly answer: (checkId: string, outcomeId: string, instrumentId?: string | null) => void;
  readonly setFinding: SetFinding;
  /** A repair that changed nothing is evidence, and the search goes on in the next round. */
  readonly repaired: (faultId: string, result: RepairResult) => void;
}

/** What is signed at this station. */
export function useFaultActs(): FaultActs {
  const { job, knowledge, act } = useDesk();
  const { sheet, finding } = job;
  const note = (checkId: string, outcomeId: string, instrumentId: string | null) =>
    act({ kind: 'note-outcome', id: crypto.randomUUID(), checkId, outcomeId, instrumentId });
  const answer: FaultActs['answer'] = (checkId, outcomeId, instrumentId = null) => {
    if (checkId === 'told-button' && outcomeId !== 'unknown')
      act({ kind: 'edit-sheet', changes: { button: outcomeId }, basedOn: sheet.version });
    else if (checkId === 'told-course' && outcomeId !== 'unknown')
      act({ kind: 'edit-sheet', changes: { course: outcomeId }, basedOn: sheet.version });
    else note(checkId, outcomeId, instrumentId);
  };
  const setFinding: SetFinding = (kind, faultId, confirmed, alsoFaultId = finding?.alsoFaultId ?? null) =>
    act({
      kind: 'set-finding',
      finding: {
        kind,
        faultId,
        confirmed,
        note: finding?.note ?? '',
        alsoFaultId: kind === 'fault' && alsoFaultId !== faultId ? alsoFaultId : null,
      },
      basedOn: finding?.version ?? 0,
    });
  const repaired: FaultActs['repaired'] = (faultId, result) => {
    const named = knowledge.faults.find((item) => item.id === faultId);
    if (result !== 'same' && named?.outside === true) setFinding('hand-on', faultId, false);
    else if (result !== 'same' && named?.healthy === true) setFinding('no-fault', null, false);
    else if (result === 'later') setFinding('fault', faultId, false);
    else if (result === 'cured') setFinding('fault', faultId, true);
    else if (named !== undefined && note(repairCheckId(named.cure.id), 'same', null) === null && finding !== null)
      act({ kind: 'set-finding', finding: null, basedOn: finding.version });
  };
  return { answer, setFinding, repaired };
}
