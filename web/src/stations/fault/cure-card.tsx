import type { Fault } from '@fairwatt/core';
import { Keys } from '../../controls/fields.tsx';
import { useDesk } from '../../job/job-context.ts';
import { looks } from '../../looks/looks.ts';

/** What came of a repair: cured, nothing changed, or it is still to come. */
export type RepairResult = 'cured' | 'same' | 'later';

/** The cure as the next step, where it is quicker than any check, or none is worth its minutes any more. */
export function CureCard({
  fault,
  sure,
  onDone,
}: {
  readonly fault: Fault;
  readonly sure: boolean;
  readonly onDone: (result: RepairResult) => void;
}) {
  const { locked } = useDesk();
  const away = fault.outside === true || fault.healthy === true;
  return (
    <section className={looks.nextCheck} aria-label="Next step" data-cure={fault.id}>
      <span className={looks.label}>Next step</span>
      <div className={looks.top}>
        <div>
          <h2>{fault.cure.text}</h2>
          <p className={looks.justBelow}>
            {away
              ? `${fault.name} is what is left to think of.`
              : sure
                ? `${fault.name} is likely enough, and only the repair proves it.`
                : `Quicker done than found out: ${fault.name.toLowerCase()}.`}
          </p>
          {!away && (
            <p className={`${looks.caution} ${looks.below}`}>
              Rocker off, lead out, press the button once, before any part or plug is moved.
            </p>
          )}
        </div>
        <dl className={looks.factsList}>
          <div>
            <dt>takes</dt>
            <dd>{fault.cure.minutes} min</dd>
          </div>
          <div>
            <dt>buys a part</dt>
            <dd>{fault.cure.part === true ? 'yes' : 'no'}</dd>
          </div>
        </dl>
      </div>
      <Keys
        label="What came of it"
        disabled={locked}
        options={
          away
            ? [
                {
                  value: 'later',
                  label: fault.outside === true ? 'Hand on: not this job' : 'No fault found',
                  hint: 'ends the search',
                },
                { value: 'same', label: 'It is not so', hint: 'search on' },
              ]
            : [
                { value: 'cured', label: 'Done, and cured', hint: 'proves the finding' },
                { value: 'same', label: 'Done, changed nothing', hint: 'next round' },
                { value: 'later', label: 'Set as the finding', hint: 'the repair comes later' },
              ]
        }
        onPick={onDone}
      />
    </section>
  );
}
