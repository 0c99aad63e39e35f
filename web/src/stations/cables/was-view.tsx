import type { ReactNode } from 'react';
import { Checkbox } from 'antd';
import { hindrances, hindranceText, nextStage, partsAt, pointOfStage } from '@fairwatt/core';
import { Empty } from '../../controls/empty.tsx';
import { Primary } from '../../controls/fields.tsx';
import { useDesk } from '../../job/job-context.ts';
import { looks } from '../../looks/looks.ts';
import type { OpenWay } from './cables.tsx';
import { HarnessRecord } from './harness-record.tsx';
import { PassStage } from './pass-stage.tsx';
import { Photos } from '../../pictures/photos.tsx';
import styles from './was-view.module.css';

/** How much of the harness is recorded; what is only likely is not. */
function recordedText(cables: number, likely: number): string {
  if (cables === 0) return 'Record each cable';
  if (likely > 0) return `${cables - likely} of ${cables} cables looked at`;
  return cables === 1 ? 'One cable recorded' : `${cables} cables recorded`;
}

/** Before anything is unplugged: each cable, what stands in the way, pictures. */
export function WasView({ tabs, onWay }: { readonly tabs: ReactNode; readonly onWay: OpenWay }) {
  const { job, view, act, locked, goTo } = useDesk();
  const has = job.sheet.hindrances;
  // The supply is chosen before the old one leaves, so that nobody waits with the machine in pieces.
  const choose = job.choice === null;
  const record = pointOfStage('record', view.openPoints);
  const likely = job.cables.filter((cable) => cable.likely === true).length;
  const unsaid = record !== null && record.signOff === null;
  const inlets = partsAt(job.parts, 'present').some((part) => part.inlets.length > 0);
  return (
    <>
      <div className={looks.work}>
        {tabs}
        {inlets || job.cables.length > 0 ? (
          <HarnessRecord />
        ) : (
          <Empty title="The machine's inlets are missing">
            Cables are recorded by the inlets of the parts, which are entered at Intake.
          </Empty>
        )}
        <Photos />
      </div>
      <aside className={looks.side} aria-label="Now at">
        <span className={looks.label}>Before anything is unplugged</span>
        <div className={looks.decides}>{recordedText(job.cables.length, likely)}</div>
        <p>Socket, plug, inlet and the way it runs, from the supply outwards: “hole 2, front clip, top hook”.</p>
        <section aria-label="What stands in the way">
          <span className={looks.label}>In the way in this case</span>
          <div className={styles.ticks}>
            {hindrances.map((name) => (
              <Checkbox
                key={name}
                className={looks.tick}
                disabled={locked}
                checked={has.includes(name)}
                onChange={(event) =>
                  act({
                    kind: 'edit-sheet',
                    basedOn: job.sheet.version,
                    changes: {
                      hindrances: event.target.checked ? [...has, name] : has.filter((other) => other !== name),
                    },
                  })
                }
              >
                {hindranceText[name]}
              </Checkbox>
            ))}
          </div>
        </section>
        <p className={looks.caution}>
          <span>Rocker off, lead out, press the button once to drain it, wait; wrist strap on. Then unplug.</span>
        </p>
        <PassStage stage="record" />
        <Primary
          onClick={() => {
            if (!inlets) goTo('intake');
            else if (unsaid) document.querySelector<HTMLElement>('[data-record-next]')?.focus();
            else if (choose) goTo('replacement');
            else onWay(nextStage(job, view.openPoints) === 'take-out' ? 'out' : 'refit');
          }}
        >
          {!inlets
            ? 'Enter the parts at Intake'
            : unsaid
              ? 'Record each cable, or say why not'
              : choose
                ? 'Choose the supply'
                : nextStage(job, view.openPoints) === 'take-out'
                  ? 'Take out, step by step'
                  : 'Refit, step by step'}
        </Primary>
      </aside>
    </>
  );
}
