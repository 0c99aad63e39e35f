import { useState } from 'react';
import { Button } from 'antd';
import type { Phase, RailName } from '@fairwatt/core';
import type { NetworkInstrument } from '@fairwatt/contract';
import { problemOf, useStartSweepMutation } from '../../app/api.ts';
import { useAppDispatch, useAppSelector } from '../../app/store.ts';
import { sweepActions } from '../../app/sweep.ts';
import { SetFigureField } from '../../controls/set-figure-field.tsx';
import { signs } from '../../controls/signs.tsx';
import { useDesk } from '../../job/job-context.ts';
import { looks } from '../../looks/looks.ts';
import { SweepResult } from './sweep-result.tsx';
import { useSweepPlan, type SweepPlan } from './use-sweep-plan.ts';
import styles from './sweep-panel.module.css';

interface Props {
  readonly meter: NetworkInstrument;
  readonly loads: readonly NetworkInstrument[];
  readonly rail: RailName;
  readonly phase: Phase;
  readonly onBegin: () => void;
}

/**
 * A load that steps through its currents while the meter reads. Once begun it is watched, and stopped, from the foot of
 * every screen.
 */
export function SweepPanel({ meter, loads, rail, phase, onBegin }: Props) {
  const { job } = useDesk();
  const watched = useAppSelector((state) => state.sweep);
  const load = loads[0];
  if (load === undefined)
    return (
      <section aria-label="Load sweep">
        <span className={looks.label}>Load sweep</span>
        <p className={looks.quiet}>No electronic load is entered.</p>
      </section>
    );
  const running = watched !== null && watched.end === null;
  const own = watched?.job === job.code ? watched : null;
  return (
    <section aria-label="Sweep" data-sweep={own === null ? 'ready' : own.end === null ? 'running' : 'ended'}>
      <span className={looks.label}>
        Load sweep on {own !== null && running ? own.rail : rail} V with {load.name}
      </span>
      <SweepStart running={running} meter={meter} load={load} rail={rail} phase={phase} onBegin={onBegin} />
      {running && own === null && (
        <p className={looks.quiet}>
          A sweep runs for {watched.job}; it is shown, and stopped, at the foot of the screen.
        </p>
      )}
      {own !== null && <SweepResult sweep={own} meter={meter} phase={phase} />}
    </section>
  );
}

/** What a sweep begins with; nothing of it shows while one runs, and it is there again afterwards. */
function SweepStart({
  running,
  meter,
  load,
  rail,
  phase,
  onBegin,
}: Omit<Props, 'loads'> & { readonly running: boolean; readonly load: NetworkInstrument }) {
  const { job, technician, locked } = useDesk();
  const dispatch = useAppDispatch();
  const [start, starting] = useStartSweepMutation();
  const [problem, setProblem] = useState<string | null>(null);
  const plan = useSweepPlan();
  async function begin(): Promise<void> {
    onBegin();
    const { from, to, steps, dwell, hottest } = plan.figures;
    const places = { job: job.code, meterId: meter.id, loadId: load.id, rail, steps };
    const answer = await start({
      ...places,
      by: technician ?? '',
      fromAmps: from,
      toAmps: to,
      dwellSeconds: dwell,
      hottestCelsius: hottest,
    });
    if (answer.error === undefined) {
      setProblem(null);
      dispatch(sweepActions.left());
      dispatch(sweepActions.watched({ sweep: { ...places, id: answer.data.id, loadName: load.name }, phase }));
      return;
    }
    const { title, errors = [] } = problemOf(answer.error);
    setProblem([title, ...errors.map((error) => `${error.path} ${error.message}`)].join('. '));
  }
  if (running) return null;
  return (
    <>
      <SweepFields plan={plan} locked={locked} />
      <p className={`${looks.caution} ${looks.below} ${looks.above}`}>
        Only on a supply out of the machine. Stay with it, within reach of the load&apos;s own switch: it ends by itself
        on a rail far out, on heat and on a silent instrument.
      </p>
      <Button
        icon={signs.start}
        disabled={locked || starting.isLoading || !plan.isReadable}
        onClick={() => void begin()}
      >
        Start the sweep
      </Button>
      {problem !== null && (
        <p className={looks.errorText} role="alert">
          {problem}
        </p>
      )}
    </>
  );
}

function SweepFields({ plan: { field }, locked }: { readonly plan: SweepPlan; readonly locked: boolean }) {
  return (
    <div className={`${looks.fields} ${styles.fields}`}>
      <SetFigureField label="From" unit="A" most={200} disabled={locked} {...field('from')} />
      <SetFigureField label="To" unit="A" most={200} disabled={locked} {...field('to')} />
      <SetFigureField label="Steps" whole least={2} most={40} disabled={locked} {...field('steps')} />
      <SetFigureField label="Dwell" unit="s" least={0.2} most={60} disabled={locked} {...field('dwell')} />
      <SetFigureField label="Ends at" unit="°C" least={30} most={120} disabled={locked} {...field('hottest')} />
    </div>
  );
}
