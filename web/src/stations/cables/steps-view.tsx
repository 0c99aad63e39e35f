import { useEffect, useRef, useState, type ReactNode } from 'react';
import { Button } from 'antd';
import {
  barring,
  pointOfStage,
  provingPower,
  stepCaution,
  stepPhaseText,
  stepsOf,
  stepText,
  type Step,
  type StepPhase,
} from '@fairwatt/core';
import { clockTime } from '../../controls/clock.ts';
import { Primary } from '../../controls/fields.tsx';
import { Spoken } from '../../controls/spoken.tsx';
import { useDesk } from '../../job/job-context.ts';
import { InterlockCard } from '../../job/interlock-card.tsx';
import type { OpenWay } from './cables.tsx';
import { BagOldCables } from './bag-leftovers.tsx';
import { LaidWays } from './laid-ways.tsx';
import { PassStage } from './pass-stage.tsx';

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
  const { job, view, act, locked, personName, goTo } = useDesk();
  const steps = stepsOf(job, view.cabling, phase);
  const [moving, setMoving] = useState(false);
  const next = steps.find((step) => step.done === null) ?? null;
  // The step that is next stays in sight, however long the list.
  const list = useRef<HTMLOListElement>(null);
  useEffect(() => {
    list.current?.querySelector('[aria-current]')?.scrollIntoView({ block: 'nearest' });
  }, [next?.id]);
  // What was found dangerous keeps the rocker off, whatever else is done.
  const bar = barring(view.interlocks, provingPower(job));
  const held = (step: Step) => bar !== null && step.kind === 'rocker-on' && step.done === null;
  const done = steps.filter((step) => step.done !== null).length;
  const passed = pointOfStage(phase, view.openPoints)?.signOff != null;
  const refits = job.choice?.kind === 'replace' || pointOfStage('refit', view.openPoints) !== null;
  const order = job.stepOrders.find((item) => item.phase === phase);
  function toggle(step: Step): void {
    if (held(step)) return;
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
  function shift(step: Step, by: number): void {
    const ids = steps.filter((item) => !item.fixed).map((item) => item.id);
    const at = ids.indexOf(step.id);
    const to = at + by;
    if (at < 0 || to < 0 || to >= ids.length) return;
    [ids[at], ids[to]] = [ids[to]!, ids[at]!];
    act({ kind: 'order-steps', phase, stepIds: ids, basedOn: order?.version ?? 0 });
  }
  return (
    <>
      <div className="work">
        {tabs}
        <ol
          ref={list}
          className="steps"
          aria-label={phase === 'take-out' ? 'Steps of taking out' : 'Steps of refitting'}
        >
          {steps.map((step, index) => (
            <li
              key={step.id}
              data-step={step.kind}
              data-done={step.done !== null}
              aria-current={step === next ? 'step' : undefined}
            >
              <Button
                type="text"
                className="step"
                aria-pressed={step.done !== null}
                disabled={locked || held(step)}
                onClick={() => toggle(step)}
              >
                <span className="box" aria-hidden="true">
                  {step.done !== null ? '✓' : index + 1}
                </span>
                <span className="what">
                  <strong>{stepText(step)}</strong>
                  {stepCaution(step) !== null && <span className="step-caution">▲ {stepCaution(step)}</span>}
                </span>
                <span className="quiet">
                  {step.done === null
                    ? step.derived && step.lead === null
                      ? 'at Plan and refit'
                      : ''
                    : `${personName(step.done.by)}, ${clockTime(step.done.at)}`}
                </span>
              </Button>
              {moving && !step.fixed && (
                <span className="shift">
                  <Button
                    type="link"
                    disabled={locked}
                    aria-label={`Earlier: ${stepText(step)}`}
                    onClick={() => shift(step, -1)}
                  >
                    ↑
                  </Button>
                  <Button
                    type="link"
                    disabled={locked}
                    aria-label={`Later: ${stepText(step)}`}
                    onClick={() => shift(step, 1)}
                  >
                    ↓
                  </Button>
                </span>
              )}
            </li>
          ))}
        </ol>
        <Button type="link" aria-pressed={moving} onClick={() => setMoving(!moving)}>
          {moving ? 'Keep this order' : 'Change the order'}
        </Button>
        {order !== undefined && <span className="quiet"> · in an order of this job's own</span>}
      </div>
      <aside className="side" aria-label="Next step">
        <Spoken>
          {next === null ? 'All done' : [stepText(next), stepCaution(next)].filter((text) => text !== null).join('. ')}
        </Spoken>
        <span className="label">
          {stepPhaseText[phase]}, {done} of {steps.length}
        </span>
        {next === null ? (
          <div className="decides">All done</div>
        ) : (
          <>
            <div className="decides">{stepText(next)}</div>
            {stepCaution(next) !== null && (
              <p className="caution">
                <span>{stepCaution(next)}</span>
              </p>
            )}
            {next.kind === 'note-ways' && <LaidWays />}
            {next.kind === 'bag-old' && <BagOldCables onDone={() => act({ kind: 'tick-step', stepId: next.id })} />}
            {held(next) && bar !== null && <InterlockCard interlock={bar} />}
            {next.way.length > 1 && (
              <ol className="way">
                {next.way.map((point) => (
                  <li key={point}>{point}</li>
                ))}
              </ol>
            )}
          </>
        )}
        {phase === 'take-out' && view.cabling.basis !== 'plan' && (
          <p className="quiet">
            {job.choice?.kind === 'keep' ? 'The supply stays' : 'No replacement is chosen'}: only what leaves the
            machine is unplugged here.
          </p>
        )}
        {next?.lead != null && next.kind === 'lead-out' && (
          <Button
            disabled={locked}
            onClick={() => act({ kind: 'mark-leads', leadIds: [next.lead!.id], state: 'untouched' })}
          >
            Not touched
          </Button>
        )}
        <PassStage stage={phase} />
        {next !== null && held(next) ? null : next !== null && !passed ? (
          <Primary disabled={locked} onClick={() => toggle(next)}>
            {next.derived && next.lead === null ? 'Go to the connectors' : 'Done, next'}
          </Primary>
        ) : phase === 'take-out' ? (
          <Primary
            onClick={() => {
              if (job.choice === null) goTo('replacement');
              else onWay(refits ? 'refit' : 'plan');
            }}
          >
            {job.choice === null ? 'Choose the supply' : refits ? 'Refit, step by step' : 'Plan and refit'}
          </Primary>
        ) : (
          <AfterRefit onWay={onWay} />
        )}
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
