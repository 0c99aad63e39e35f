import { useState } from 'react';
import { Button } from 'antd';
import {
  breachText,
  endsNamed,
  fittingText,
  pinRefusalText,
  presentModel,
  stepsOf,
  unpluggedInlets,
  type Job,
  type JobView,
  type SupplyModel,
} from '@fairwatt/core';
import { HarnessDrawing } from '../../drawings/harness-drawing.tsx';
import type { DrawnSocket } from '../../drawings/harness-layout.ts';
import { useDesk } from '../../job/job-context.ts';
import { looks } from '../../looks/looks.ts';
import { BagLeftovers } from './bag-leftovers.tsx';
import { recordedSockets } from './recorded-sockets.ts';
import type { Seating } from './use-seating.ts';
import styles from './refit-drawing.module.css';

const zooms = [1, 1.35, 1.8] as const;

/** The sockets of the drawing, those of the plan or of the record, and which of them hold their plug already. */
function drawnSockets(job: Job, { cabling, chosen }: JobView, supplies: readonly SupplyModel[]): DrawnSocket[] {
  const { plan, kit, rows } = cabling;
  const ends = stepsOf(job, cabling, 'refit').filter(({ kind }) => kind === 'supply-end');
  const isIn = (label: string) => ends.some(({ socket, done }) => socket === label && done !== null);
  if (cabling.basis !== 'plan' || chosen === null)
    return recordedSockets(job, rows, presentModel(job, supplies)?.kit ?? null).map(({ label, used }) => ({
      ...{ key: label, label, used },
      plugged: isIn(label),
    }));
  const cables = plan?.cables ?? [];
  const taken = new Set(cables.flatMap((cable) => endsNamed(kit, cable.socketLabel ?? '')));
  return [
    ...cables
      .filter(({ socketLabel }) => socketLabel === null)
      .map(({ code, family }) => ({ key: `fixed ${code}`, label: `fixed, ${family}`, used: true, plugged: false })),
    ...chosen.kit.sockets.map(({ label }) => ({ key: label, label, used: taken.has(label), plugged: isIn(label) })),
  ];
}

/** The whole harness in one picture, with what is to be known of it beneath. */
export function RefitDrawing({
  seating,
  litCable,
}: {
  readonly seating: Seating;
  /** The cable that the address asks for. */
  readonly litCable: string | null;
}) {
  const { job, view, locked, shop } = useDesk();
  const { cabling, chosen } = view;
  const [zoom, setZoom] = useState<number>(1);
  const planned = cabling.basis === 'plan';
  return (
    <div>
      <HarnessDrawing
        title={planned ? `${chosen?.name ?? ''}: sockets` : `${job.supply?.name || 'Present supply'}: sockets`}
        rows={cabling.rows}
        sockets={drawnSockets(job, view, shop.supplies)}
        current={seating.current.inletId}
        litCable={seating.picked ? null : litCable}
        unplugged={unpluggedInlets(job)}
        zoom={zoom}
        onPick={seating.pick}
        onMove={planned && !locked ? seating.movePlug : undefined}
      />
      <div className={`${styles.harnessLegend} ${looks.quiet}`}>
        <span>✓ solid: seated</span>
        {cabling.rows.some((row) => row.state === 'stays') && <span>solid, no mark: stays in</span>}
        <span>dashed: to seat</span>
        <span>○ old plug out</span>
        <span className={styles.amiss}>! dotted: no cable</span>
        <span className={styles.amiss}>✕ wrong plug</span>
        {planned && <span>drag a plug, or press m</span>}
        <span className={styles.zoom} role="group" aria-label="Size of the drawing">
          {zooms.map((value) => (
            <Button type="link" key={value} aria-pressed={zoom === value} onClick={() => setZoom(value)}>
              {Math.round(value * 100)} %
            </Button>
          ))}
        </span>
      </div>
      <LaidAsideNote />
      <BagLeftovers />
      <PlanNotes />
    </div>
  );
}

/** What was ticked for another supply is not taken over; that it is kept is said where the ticks are missed. */
function LaidAsideNote() {
  const { job, shop } = useDesk();
  return job.laidAside.map((work) => (
    <p key={work.fitting} className={looks.quiet} data-laid-aside={work.fitting}>
      {work.seats.length} plugs and {work.steps.length} steps were done for {fittingText(work.fitting, shop.supplies)};
      they stand again when that is chosen again.
    </p>
  ));
}

/** What the plan shares, could not keep or breaks. */
function PlanNotes() {
  const { job, view, act, locked, inletLabel } = useDesk();
  const { plan, breaches } = view.cabling;
  function leaveToPlan(inletId: string): void {
    const pin = job.pins.find((item) => item.inletId === inletId);
    if (pin !== undefined) act({ kind: 'drop-pin', inletId: pin.inletId, basedOn: pin.version });
  }
  return (
    <>
      {plan !== null && plan.sharedCables > 0 && (
        <p className={looks.quiet}>{plan.sharedCables} card cable shared, within its load.</p>
      )}
      {plan?.proved === false && (
        <p className={looks.quiet}>
          So many different inlets that a better plan may exist; this is the best that was seen.
        </p>
      )}
      {plan?.refused.map((refusal) => (
        <p key={`${refusal.code}${refusal.inletId}`} className={looks.errorText} role="status">
          {pinRefusalText(refusal, inletLabel)}{' '}
          <Button type="link" disabled={locked} onClick={() => leaveToPlan(refusal.inletId)}>
            leave it to the plan
          </Button>
        </p>
      ))}
      {breaches.map((breach) => (
        <p key={JSON.stringify(breach)} className={looks.errorText} role="status" data-breach={breach.code}>
          {breachText(breach, inletLabel)}
        </p>
      ))}
    </>
  );
}
