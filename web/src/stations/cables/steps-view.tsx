import { useEffect, useRef, useState, type ReactNode } from 'react';
import { Button } from 'antd';
import {
  barring,
  cablesLaid,
  pointOfStage,
  provingPower,
  stepCaution,
  stepPhaseText,
  stepsOf,
  stepText,
  type Job,
  type JobView,
  type Step,
  type StepPhase,
} from '@fairwatt/core';
import { clockTime } from '../../controls/clock.ts';
import { Primary } from '../../controls/fields.tsx';
import { Spoken } from '../../controls/spoken.tsx';
import { useDesk } from '../../job/job-context.ts';
import { InterlockCard } from '../../job/interlock-card.tsx';
import { looks } from '../../looks/looks.ts';
import type { OpenWay } from './cables.tsx';
import { BagOldCables } from './bag-leftovers.tsx';
import { LaidWays } from './laid-ways.tsx';
import { PassStage } from './pass-stage.tsx';
import { signs } from '../../controls/signs.tsx';
import styles from './steps-view.module.css';

interface StepWork {
  readonly phase: StepPhase;
  readonly steps: readonly Step[];
  readonly next: Step | null;
  /** What was found dangerous keeps the rocker off, whatever else is done. */
  readonly isHeld: (step: Step) => boolean;
  readonly onToggle: (step: Step) => void;
  readonly onWay: OpenWay;
}

/** The steps of this phase, which of them is next, and what ticking one does. */
function useStepWork(phase: StepPhase, onWay: OpenWay): StepWork {
  const { job, view, act } = useDesk();
  const steps = stepsOf(job, view.cabling, phase);
  const bar = barring(view.interlocks, provingPower(job));
  const isHeld = (step: Step) => bar !== null && step.kind === 'rocker-on' && step.done === null;
  function onToggle(step: Step): void {
    if (isHeld(step)) return;
    if (step.lead !== null) {
      const onto = step.kind === 'lead-back' ? (['out', 'back'] as const) : (['recorded', 'out'] as const);
      act({ kind: 'mark-leads', leadIds: [step.lead.id], state: onto[step.done === null ? 1 : 0] });
      return;
    }
    if (step.derived) {
      onWay('plan', step.inlet?.id);
      return;
    }
    act({ kind: step.done === null ? 'tick-step' : 'untick-step', stepId: step.id });
  }
  return { phase, steps, next: steps.find((step) => step.done === null) ?? null, isHeld, onToggle, onWay };
}

/** Moves a step among those that have no fixed place. */
function useShift({ steps, phase }: StepWork) {
  const { job, act } = useDesk();
  const order = job.stepOrders.find((item) => item.phase === phase);
  function shift(step: Step, by: number): void {
    const ids = steps.filter((item) => !item.fixed).map((item) => item.id);
    const at = ids.indexOf(step.id);
    const to = at + by;
    if (at < 0 || to < 0 || to >= ids.length) return;
    const stepIds = ids.filter((id) => id !== step.id);
    stepIds.splice(to, 0, step.id);
    act({ kind: 'order-steps', phase, stepIds, basedOn: order?.version ?? 0 });
  }
  return { shift, isOwnOrder: order !== undefined };
}

function StepLine({ step, number, work }: { readonly step: Step; readonly number: number; readonly work: StepWork }) {
  const { locked, personName } = useDesk();
  const whoOrWhere =
    step.done !== null
      ? `${personName(step.done.by)}, ${clockTime(step.done.at)}`
      : step.derived && step.lead === null
        ? 'at Plan and refit'
        : '';
  return (
    <Button
      type="text"
      className={styles.step ?? ''}
      aria-pressed={step.done !== null}
      disabled={locked || work.isHeld(step)}
      onClick={() => work.onToggle(step)}
    >
      <span className={styles.box} aria-hidden="true">
        {step.done !== null ? '✓' : number}
      </span>
      <span className={looks.what}>
        <strong>{stepText(step)}</strong>
        {stepCaution(step) !== null && <span className={styles.stepCaution}>▲ {stepCaution(step)}</span>}
      </span>
      <span className={looks.quiet}>{whoOrWhere}</span>
    </Button>
  );
}

const shifts = [
  [-1, 'Earlier', signs.up],
  [1, 'Later', signs.down],
] as const;

function StepList({ work }: { readonly work: StepWork }) {
  const { locked } = useDesk();
  const { steps, next, phase } = work;
  const { shift, isOwnOrder } = useShift(work);
  const [moving, setMoving] = useState(false);
  // The step that is next stays in sight, however long the list.
  const list = useRef<HTMLOListElement>(null);
  useEffect(() => {
    list.current?.querySelector('[aria-current]')?.scrollIntoView({ block: 'nearest' });
  }, [next?.id]);
  return (
    <>
      <ol
        ref={list}
        className={styles.steps}
        aria-label={phase === 'take-out' ? 'Steps of taking out' : 'Steps of refitting'}
      >
        {steps.map((step, index) => (
          <li
            key={step.id}
            data-step={step.kind}
            data-done={step.done !== null}
            aria-current={step === next ? 'step' : undefined}
          >
            <StepLine step={step} number={index + 1} work={work} />
            {moving && !step.fixed && (
              <span className={styles.shift}>
                {shifts.map(([by, word, sign]) => (
                  <Button
                    key={word}
                    icon={sign}
                    type="link"
                    disabled={locked}
                    aria-label={`${word}: ${stepText(step)}`}
                    onClick={() => shift(step, by)}
                  />
                ))}
              </span>
            )}
          </li>
        ))}
      </ol>
      <Button type="link" aria-pressed={moving} onClick={() => setMoving(!moving)}>
        {moving ? 'Keep this order' : 'Change the order'}
      </Button>
      {isOwnOrder && <span className={looks.quiet}> · in an order of this job's own</span>}
    </>
  );
}

/** The step that is next, large, with its caution and what is done at it. */
function NextStep({ step, isHeld }: { readonly step: Step; readonly isHeld: boolean }) {
  const { job, view, act } = useDesk();
  const bar = barring(view.interlocks, provingPower(job));
  return (
    <>
      <div className={looks.decides}>{stepText(step)}</div>
      {stepCaution(step) !== null && (
        <p className={looks.caution}>
          <span>{stepCaution(step)}</span>
        </p>
      )}
      {step.kind === 'note-ways' && <LaidWays />}
      {step.kind === 'bag-old' && <BagOldCables onDone={() => act({ kind: 'tick-step', stepId: step.id })} />}
      {isHeld && bar !== null && <InterlockCard interlock={bar} />}
      {step.way.length > 1 && (
        <ol className={styles.way}>
          {step.way.map((point) => (
            <li key={point}>{point}</li>
          ))}
        </ol>
      )}
    </>
  );
}

/** Of the ways that are to be written down, how many are; null where all are, or the step is another. */
function unwritten({ kind }: Step, job: Job, { cabling }: JobView): string | null {
  if (kind !== 'note-ways') return null;
  const cables = cablesLaid(job, cabling);
  const written = cables.filter(({ laid }) => (laid?.way ?? '').trim() !== '').length;
  return written === cables.length ? null : `${written === 0 ? 'none' : written} of ${cables.length} written`;
}

/** The one act that leads on: the next step, or what comes once all are done or passed. */
function MainStep({ work }: { readonly work: StepWork }) {
  const { job, view, locked, goTo } = useDesk();
  const { phase, next, onWay } = work;
  if (next !== null && work.isHeld(next)) return null;
  const isPassed = pointOfStage(phase, view.openPoints)?.signOff != null;
  if (next !== null && !isPassed)
    return (
      <Primary disabled={locked} onClick={() => work.onToggle(next)}>
        {next.derived && next.lead === null ? 'Go to the connectors' : `Done, ${unwritten(next, job, view) ?? 'next'}`}
      </Primary>
    );
  if (phase !== 'take-out') return <AfterRefit onWay={onWay} />;
  if (job.choice === null) return <Primary onClick={() => goTo('replacement')}>Choose the supply</Primary>;
  const refits = job.choice.kind === 'replace' || pointOfStage('refit', view.openPoints) !== null;
  return (
    <Primary onClick={() => onWay(refits ? 'refit' : 'plan')}>
      {refits ? 'Refit, step by step' : 'Plan and refit'}
    </Primary>
  );
}

/** Steps in their order, each with its caution, ticked with one hand; the next one is large beside them. */
export function StepsView({
  tabs,
  phase,
  onWay,
}: {
  readonly tabs: ReactNode;
  readonly phase: StepPhase;
  readonly onWay: OpenWay;
}) {
  const { job, view, act, locked } = useDesk();
  const work = useStepWork(phase, onWay);
  const { steps, next } = work;
  const lead = next?.kind === 'lead-out' ? next.lead : null;
  return (
    <>
      <div className={looks.work}>
        {tabs}
        <StepList work={work} />
      </div>
      <aside className={looks.side} aria-label="Next step">
        <Spoken>
          {next === null ? 'All done' : [stepText(next), stepCaution(next)].filter((text) => text !== null).join('. ')}
        </Spoken>
        <span className={looks.label}>
          {stepPhaseText[phase]}, {steps.filter((step) => step.done !== null).length} of {steps.length}
        </span>
        {next === null ? (
          <div className={looks.decides}>All done</div>
        ) : (
          <NextStep step={next} isHeld={work.isHeld(next)} />
        )}
        {phase === 'take-out' && view.cabling.basis !== 'plan' && (
          <p className={looks.quiet}>
            {job.choice?.kind === 'keep' ? 'The supply stays' : 'No replacement is chosen'}: only what leaves the
            machine is unplugged here.
          </p>
        )}
        {lead !== null && (
          <Button disabled={locked} onClick={() => act({ kind: 'mark-leads', leadIds: [lead.id], state: 'untouched' })}>
            Not touched
          </Button>
        )}
        <PassStage stage={phase} />
        <MainStep work={work} />
      </aside>
    </>
  );
}

/** What comes once the refit's steps are done or passed: connectors that are left, else the proof. */
function AfterRefit({ onWay }: { readonly onWay: OpenWay }) {
  const { job, view, goTo } = useDesk();
  if (view.cabling.rows.some((row) => row.state === 'to-seat'))
    return <Primary onClick={() => onWay('plan')}>Go to the connectors</Primary>;
  return job.choice?.kind === 'replace' ? (
    <Primary onClick={() => goTo('measure')}>Prove it: measure</Primary>
  ) : (
    <Primary onClick={() => goTo('hand-over')}>Hand over</Primary>
  );
}
