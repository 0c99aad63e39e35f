import { useEffect, useState } from 'react';
import { bareReading, sweepEndText, voltsText, type Phase, type RailName } from '@fairwatt/core';
import type { NetworkInstrument, SweepEvent, SweepStep } from '@fairwatt/contract';
import { problemOf, useStartSweepMutation, useStopSweepMutation } from '../../app/api.ts';
import { FigureField } from '../../controls/fields.tsx';
import { useDesk } from '../../job/job-context.ts';

type State =
  | { readonly at: 'ready'; readonly problem: string | null }
  | { readonly at: 'running'; readonly id: string; readonly setting: number | null; readonly steps: readonly SweepStep[]; readonly lost: boolean }
  | { readonly at: 'ended'; readonly steps: readonly SweepStep[]; readonly end: string; readonly loadOff: boolean; readonly kept: boolean };

/** A load that steps through its currents while the meter reads; Stop is always in sight, and Escape presses it. */
export function SweepPanel({ meter, loads, rail, phase }: { readonly meter: NetworkInstrument; readonly loads: readonly NetworkInstrument[]; readonly rail: RailName; readonly phase: Phase }) {
  const { job, technician, act, locked } = useDesk();
  const [start, starting] = useStartSweepMutation();
  const [stop] = useStopSweepMutation();
  const [state, setState] = useState<State>({ at: 'ready', problem: null });
  const [from, setFrom] = useState(2);
  const [to, setTo] = useState(20);
  const [steps, setSteps] = useState(7);
  const [dwell, setDwell] = useState(1);
  const [hottest, setHottest] = useState(70);
  const load = loads[0];
  const runningId = state.at === 'running' ? state.id : null;
  useEffect(() => {
    if (runningId === null) return undefined;
    const source = new EventSource(`/api/instruments/sweeps/${runningId}/events`);
    let steps: readonly SweepStep[] = [];
    source.onopen = () => { steps = []; setState((now) => (now.at === 'running' ? { ...now, lost: false } : now)); };
    source.onmessage = (message: MessageEvent<string>) => {
      const event = JSON.parse(message.data) as SweepEvent;
      if (event.kind === 'setting') setState((now) => (now.at === 'running' ? { ...now, setting: event.amps } : now));
      if (event.kind === 'step') { steps = [...steps, event.step]; setState((now) => (now.at === 'running' ? { ...now, steps } : now)); }
      if (event.kind === 'ended') { source.close(); setState({ at: 'ended', steps, end: event.end, loadOff: event.loadOff, kept: false }); }
    };
    source.onerror = () => setState((now) => (now.at === 'running' ? { ...now, lost: true } : now));
    const onKey = (event: KeyboardEvent) => { if (event.key === 'Escape') void stop(runningId); };
    document.addEventListener('keydown', onKey);
    return () => { source.close(); document.removeEventListener('keydown', onKey); };
  }, [runningId, stop]);
  if (load === undefined) return <section aria-label="Load sweep"><span className="label">Load sweep</span><p className="quiet">No electronic load is entered.</p></section>;
  async function begin(): Promise<void> {
    const answer = await start({ by: technician ?? '', job: job.code, meterId: meter.id, loadId: load!.id, rail, fromAmps: from, toAmps: to, steps, dwellSeconds: dwell, hottestCelsius: hottest });
    if (answer.error === undefined) setState({ at: 'running', id: answer.data.id, setting: null, steps: [], lost: false });
    else { const problem = problemOf(answer.error); setState({ at: 'ready', problem: [problem.title, ...(problem.errors ?? []).map((error) => `${error.path} ${error.message}`)].join('. ') }); }
  }
  function keep(list: readonly SweepStep[]): void {
    const least = Math.min(...list.map((step) => step.amps));
    for (const step of list) {
      if (act({ kind: 'take-reading', reading: { ...bareReading, id: crypto.randomUUID(), phase, subject: rail, condition: step.amps === least ? 'idle' : 'work', value: { kind: 'figure', figure: Number(step.volts.toFixed(4)) }, instrumentId: meter.instrumentId ?? '', loadAmps: step.amps, note: 'load sweep' } }) !== null) return;
    }
    setState((now) => (now.at === 'ended' ? { ...now, kept: true } : now));
  }
  const shown = state.at === 'ready' ? [] : state.steps;
  return (
    <section aria-label="Load sweep" data-sweep={state.at}>
      <span className="label">Load sweep on {rail} V with {load.name}</span>
      {state.at !== 'running' && (
        <>
          <div className="fields" style={{ gap: '8px 10px', margin: '8px 0' }}>
            <FigureField label="From" unit="A" most={200} value={from} disabled={locked} onChange={(value) => setFrom(value ?? 0)} />
            <FigureField label="To" unit="A" most={200} value={to} disabled={locked} onChange={(value) => setTo(value ?? 0)} />
            <FigureField label="Steps" whole least={2} most={40} value={steps} disabled={locked} onChange={(value) => setSteps(value ?? 2)} />
            <FigureField label="Dwell" unit="s" least={0.2} most={60} value={dwell} disabled={locked} onChange={(value) => setDwell(value ?? 1)} />
            <FigureField label="Ends at" unit="°C" least={30} most={120} value={hottest} disabled={locked} onChange={(value) => setHottest(value ?? 70)} />
          </div>
          <button type="button" className="secondary" disabled={locked || starting.isLoading} onClick={() => void begin()}>Start the sweep</button>
          <p className="caution" style={{ marginTop: 10 }}>Only on a supply out of the machine. Stay with it: it ends by itself on a rail far out, on heat and on a silent instrument.</p>
        </>)}
      {state.at === 'ready' && state.problem !== null && <p className="error-text" role="alert">{state.problem}</p>}
      {shown.length > 0 && <table className="grid"><thead><tr><th className="num">A</th><th className="num">V</th><th className="num">°C</th></tr></thead><tbody>{shown.map((step) => <tr key={step.at}><td className="num">{step.amps.toFixed(1)}</td><td className="num">{voltsText(step.volts, 3)}</td><td className="num">{step.celsius === null ? '' : step.celsius.toFixed(0)}</td></tr>)}</tbody></table>}
      {state.at === 'running' && (
        <div className="sweep-bar" role="status">
          <button type="button" className="stop-button" onClick={() => void stop(state.id)}>Stop</button>
          <span>{state.lost ? 'The screen lost the server; the sweep goes on there and ends by itself.' : state.setting === null ? 'Setting up …' : `${state.setting} A, ${state.steps.length} of ${steps} read`}</span>
        </div>)}
      {state.at === 'ended' && (
        <div style={{ marginTop: 8 }}>
          <p role="status">{sweepEndText[state.end] ?? state.end} {state.loadOff ? 'The load is off.' : ''}</p>
          {!state.loadOff && <p className="error-text" role="alert"><strong>Nobody knows whether the load still draws: switch it off by hand, now.</strong></p>}
          {state.steps.length > 0 && <button type="button" className="secondary" disabled={locked || state.kept || meter.instrumentId === null} onClick={() => keep(state.steps)}>{state.kept ? 'Kept; see the load line' : `Keep ${state.steps.length} readings`}</button>}
        </div>)}
    </section>
  );
}
