import { Button, Select } from 'antd';
import { findingGrounds, findingSentence, type Finding } from '@fairwatt/core';
import { dayAndTime } from '../../controls/clock.ts';
import { useDesk } from '../../job/job-context.ts';
import { looks } from '../../looks/looks.ts';
import type { RepairResult } from './cure-card.tsx';
import type { SetFinding } from './use-fault-acts.ts';

/** The finding as it was set, and what can still be said of it. */
export function FindingCard({
  finding,
  onRepaired,
  setFinding,
}: {
  readonly finding: Finding;
  readonly setFinding: SetFinding;
  readonly onRepaired: (faultId: string, result: RepairResult) => void;
}) {
  const { job, knowledge, view, locked, act, personName } = useDesk();
  const fault = knowledge.faults.find((item) => item.id === finding.faultId);
  const grounds = findingGrounds(knowledge, finding, view.suspects, view.observations);
  return (
    <section className={looks.nextCheck} aria-label="Finding">
      <span className={looks.label}>Finding</span>
      <h2>{findingSentence(knowledge, finding)}</h2>
      {grounds !== '' && <p className={looks.justBelow}>{grounds}</p>}
      <p className={`${looks.quiet} ${looks.justBelow} ${looks.above}`}>
        {personName(finding.by)}, {dayAndTime(finding.at)}
        {finding.note === '' ? '' : `. ${finding.note}`}
      </p>
      <div className={looks.rowActions}>
        {finding.kind === 'fault' && !finding.confirmed && (
          <Button disabled={locked} onClick={() => onRepaired(fault?.id ?? '', 'cured')}>
            The repair cured it
          </Button>
        )}
        {finding.kind === 'fault' && !finding.confirmed && (
          <Button disabled={locked} onClick={() => onRepaired(fault?.id ?? '', 'same')}>
            It changed nothing: next round
          </Button>
        )}
        {finding.kind === 'fault' && finding.faultId !== null && (
          <Select<string | null>
            aria-label="Another fault was there too"
            placeholder="Another fault was there too"
            value={finding.alsoFaultId}
            allowClear
            disabled={locked}
            popupMatchSelectWidth={false}
            showSearch={{ optionFilterProp: 'label' }}
            onChange={(alsoFaultId: string | null | undefined) =>
              setFinding('fault', finding.faultId, finding.confirmed, alsoFaultId ?? null)
            }
            options={knowledge.faults
              .filter(({ id, healthy, outside }) => id !== finding.faultId && healthy !== true && outside !== true)
              .map(({ id, name }) => ({ value: id, label: name }))}
          />
        )}
        <Button
          disabled={locked}
          onClick={() => act({ kind: 'set-finding', finding: null, basedOn: job.finding?.version ?? 0 })}
        >
          Take the finding back, search on
        </Button>
      </div>
    </section>
  );
}
