import { useState } from 'react';
import { Button } from 'antd';
import { bareReading, sweepEndText, voltsText, type Phase, type RailName } from '@fairwatt/core';
import type { NetworkInstrument } from '@fairwatt/contract';
import { problemOf, useStartSweepMutation } from '../../app/api.ts';
import { useAppDispatch, useAppSelector } from '../../app/store.ts';
import { sweepActions, type WatchedSweep } from '../../app/sweep.ts';
import { FigureField } from '../../controls/fields.tsx';
import { useDesk } from '../../job/job-context.ts';
import { Sheet } from '../../controls/sheet.tsx';

/**
 * A load that steps through its currents while the meter reads. Once begun it is watched, and stopped, from the foot of
 * every screen.
 */
export function SweepPanel({
  meter,
  loads,
  rail,
  phase,
  onBegin,
}: {
  readonly meter: NetworkInstrument;
  readonly loads: readonly NetworkInstrument[];
  readonly rail: RailName;
  readonly phase: Phase;
  readonly onBegin: () => void;
}) {
  const { job, technician, act, locked } = useDesk();
  const dispatch = useAppDispatch();
  const [start, starting] = useStartSweepMutation();
  const watched = useAppSelector((state) => state.sweep);
  const [problem, setProblem] = useState<string | null>(null);
  const [from, setFrom] = useState(2);
  const [to, setTo] = useState(20);
  const [steps, setSteps] = useState(7);
  const [dwell, setDwell] = useState(1);
  const [hottest, setHottest] = useState(70);
  const [unread, setUnread] = useState<ReadonlySet<string>>(new Set());
  const load = loads[0];
  if (load === undefined)
    return (
      <section aria-label="Load sweep">
        <span className="label">Load sweep</span>
        <p className="quiet">No electronic load is entered.</p>
      </section>
    );
  const running = watched !== null && watched.end === null;
  const own = watched?.job === job.code ? watched : null;
  /** A field that shows an error holds its last good figure; no sweep begins on that. */
  const readable = (name: string) => (error: string | null) =>
    setUnread((now) => {
      const next = new Set(now);
      if (error === null) next.delete(name);
      else next.add(name);
      return next;
    });
  async function begin(): Promise<void> {
    onBegin();
    const answer = await start({
      by: technician ?? '',
      job: job.code,
      meterId: meter.id,
      loadId: load!.id,
      rail,
      fromAmps: from,
      toAmps: to,
      steps,
      dwellSeconds: dwell,
      hottestCelsius: hottest,
    });
    if (answer.error === undefined) {
      setProblem(null);
      dispatch(sweepActions.left());
      dispatch(
        sweepActions.watched({
          sweep: {
            id: answer.data.id,
            job: job.code,
            rail,
            meterId: meter.id,
            loadId: load!.id,
            loadName: load!.name,
            steps,
          },
          phase,
        }),
      );
    } else {
      const found = problemOf(answer.error);
      setProblem([found.title, ...(found.errors ?? []).map((error) => `${error.path} ${error.message}`)].join('. '));
    }
  }
  function keep(sweep: WatchedSweep): void {
    const least = Math.min(...sweep.steps.map((step) => step.amps));
    for (const step of sweep.steps) {
      if (
        act({
          kind: 'take-reading',
          reading: {
            ...bareReading,
            id: crypto.randomUUID(),
            phase: sweep.phase ?? phase,
            subject: sweep.rail,
            condition: step.amps === least ? 'idle' : 'work',
            value: { kind: 'figure', figure: Number(step.volts.toFixed(4)) },
            instrumentId: meter.instrumentId ?? '',
            loadAmps: step.amps,
            note: 'load sweep',
          },
        }) !== null
      )
        return;
    }
    dispatch(sweepActions.kept());
  }
  return (
    <section aria-label="Sweep" data-sweep={own === null ? 'ready' : own.end === null ? 'running' : 'ended'}>
      <span className="label">
        Load sweep on {own !== null && running ? own.rail : rail} V with {load.name}
      </span>
      {!running && (
        <>
          <div className="fields" style={{ gap: '8px 10px', margin: '8px 0' }}>
            <FigureField
              label="From"
              unit="A"
              most={200}
              value={from}
              disabled={locked}
              onChange={(value) => {
                if (value !== null) setFrom(value);
              }}
              onProblem={readable('from')}
            />
            <FigureField
              label="To"
              unit="A"
              most={200}
              value={to}
              disabled={locked}
              onChange={(value) => {
                if (value !== null) setTo(value);
              }}
              onProblem={readable('to')}
            />
            <FigureField
              label="Steps"
              whole
              least={2}
              most={40}
              value={steps}
              disabled={locked}
              onChange={(value) => {
                if (value !== null) setSteps(value);
              }}
              onProblem={readable('steps')}
            />
            <FigureField
              label="Dwell"
              unit="s"
              least={0.2}
              most={60}
              value={dwell}
              disabled={locked}
              onChange={(value) => {
                if (value !== null) setDwell(value);
              }}
              onProblem={readable('dwell')}
            />
            <FigureField
              label="Ends at"
              unit="°C"
              least={30}
              most={120}
              value={hottest}
              disabled={locked}
              onChange={(value) => {
                if (value !== null) setHottest(value);
              }}
              onProblem={readable('hottest')}
            />
          </div>
          <p className="caution" style={{ margin: '10px 0' }}>
            Only on a supply out of the machine. Stay with it, within reach of the load&apos;s own switch: it ends by
            itself on a rail far out, on heat and on a silent instrument.
          </p>
          <Button disabled={locked || starting.isLoading || unread.size > 0} onClick={() => void begin()}>
            Start the sweep
          </Button>
        </>
      )}
      {running && own === null && (
        <p className="quiet">A sweep runs for {watched.job}; it is shown, and stopped, at the foot of the screen.</p>
      )}
      {!running && problem !== null && (
        <p className="error-text" role="alert">
          {problem}
        </p>
      )}
      {own !== null && own.steps.length > 0 && (
        <Sheet
          rows={own.steps}
          rowKey={(step) => step.at}
          columns={[
            { head: 'A', className: 'num', cell: (step) => step.amps.toFixed(1) },
            { head: 'V', className: 'num', cell: (step) => voltsText(step.volts, 3) },
            { head: '°C', className: 'num', cell: (step) => (step.celsius === null ? '' : step.celsius.toFixed(0)) },
          ]}
        />
      )}
      {own !== null && own.end !== null && (
        <div style={{ marginTop: 8 }}>
          <p role="status">
            {sweepEndText[own.end.word] ?? own.end.word} {own.end.loadOff ? 'The load is off.' : ''}
          </p>
          {!own.end.loadOff && (
            <p className="error-text" role="alert">
              <strong>Nobody knows whether the load still draws: switch it off by hand, now.</strong>
            </p>
          )}
          {own.steps.length > 0 && (
            <Button disabled={locked || own.kept || meter.instrumentId === null} onClick={() => keep(own)}>
              {own.kept ? 'Kept; see the load line' : `Keep ${own.steps.length} readings`}
            </Button>
          )}
        </div>
      )}
    </section>
  );
}
