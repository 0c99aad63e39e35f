import { useState } from 'react';
import { Button } from 'antd';
import { Link } from 'react-router';
import {
  bareReading,
  conditions,
  conditionText,
  railNames,
  subjectText,
  troubleText,
  voltsText,
  type Condition,
  type Phase,
  type RailName,
} from '@fairwatt/core';
import type { NetworkInstrument } from '@fairwatt/contract';
import { problemOf, useNetworkInstrumentsQuery, useTimePowerGoodMutation } from '../../app/api.ts';
import { useAppSelector } from '../../app/store.ts';
import { TrailChart } from '../../charts/trail-chart.tsx';
import { Empty } from '../../controls/empty.tsx';
import { SelectField } from '../../controls/fields.tsx';
import { Waiting } from '../../controls/waiting.tsx';
import { useDesk } from '../../job/job-context.ts';
import { SweepPanel } from './sweep-panel.tsx';
import { Choice } from '../../controls/choice.tsx';
import { HandsFreeSet } from './hands-free-set.tsx';
import { heldReading } from './held-reading.ts';
import { MeterTrouble } from './meter-trouble.tsx';
import { drawn, liveAddress, useLive } from './use-live.ts';

/** A meter over the network, live, and a load that sweeps. */
export function LiveView({ phase }: { readonly phase: Phase }) {
  const { job, view, act, locked, shop } = useDesk();
  const instruments = useNetworkInstrumentsQuery();
  const [rail, setRail] = useState<RailName>('+12');
  const [condition, setCondition] = useState<Condition>('idle');
  const [running, setRunning] = useState(false);
  const [free, setFree] = useState(false);
  const [meterId, setMeter] = useState<string | null>(null);
  const [kept, setKept] = useState<string | null>(null);
  // A meter answers one at a time.
  const taken = useAppSelector((state) =>
    state.sweep !== null && state.sweep.end === null ? state.sweep.meterId : null,
  );
  const meters = (instruments.data ?? []).filter((item) => item.role === 'meter');
  const meter = meters.find((item) => item.id === meterId) ?? meters[0];
  const live = useLive(running && meter !== undefined ? liveAddress(meter.id, rail, job.code) : null);
  if (instruments.data === undefined) return <Waiting>Fetching the instruments …</Waiting>;
  if (meter === undefined)
    return (
      <Empty title="No meter over the network yet">
        An owner enters its address at <Link to="/instruments">Instruments</Link>. Any that speaks SCPI on TCP will do.
      </Empty>
    );
  const { held } = live;
  const isKept = held !== null && kept === held.at;
  const keep = () => {
    if (held === null || isKept || meter.instrumentId === null) return;
    const reading = heldReading(held, { rail, phase, condition, instrumentId: meter.instrumentId }, shop.instruments);
    if (act({ kind: 'take-reading', reading }) === null) setKept(held.at);
  };
  return (
    <div className="live">
      <section aria-label="Live reading" data-live={running ? (live.trouble ?? 'running') : 'off'}>
        <div className="row-actions" style={{ alignItems: 'end', marginBottom: 10 }}>
          <SelectField
            label="Meter"
            value={meter.id}
            options={meters.map((item) => ({ value: item.id, label: item.name }))}
            onChange={setMeter}
          />
          <SelectField
            label="Rail"
            value={rail}
            options={railNames.map((name) => ({ value: name, label: subjectText[name] }))}
            onChange={setRail}
          />
          <Choice
            label="Load condition"
            value={condition}
            options={conditions.map((value) => ({ value: value, label: conditionText[value] }))}
            onPick={(value) => setCondition(value)}
          />
          {!free && (
            <Button
              data-primary={running ? undefined : true}
              disabled={taken === meter.id}
              onClick={() => setRunning(!running)}
            >
              {taken === meter.id ? 'The sweep has this meter' : running ? 'Stop reading' : 'Start reading'}
            </Button>
          )}
          {!running && !free && (
            <Button
              disabled={taken === meter.id || locked || meter.instrumentId === null}
              onClick={() => setFree(true)}
            >
              All rails, hands free
            </Button>
          )}
        </div>
        {free && meter.instrumentId !== null && (
          <HandsFreeSet
            meter={meter}
            instrumentId={meter.instrumentId}
            phase={phase}
            condition={condition}
            onStop={() => setFree(false)}
          />
        )}
        {running && (
          <>
            <div className={`live-figure${held !== null && !isKept ? ' still' : ''}`} aria-live="off">
              {live.volts === null ? '–.–––' : voltsText(live.volts, 3)}
              <span style={{ fontSize: 24 }}> V</span>
            </div>
            <MeterTrouble trouble={live.trouble} />
            <TrailChart rail={rail} values={live.trail} most={drawn} guide={view[phase].guide} />
            <p className="quiet">{live.identity}</p>
            <div className="row-actions" style={{ alignItems: 'center' }}>
              <Button
                data-primary={held !== null && !isKept ? true : undefined}
                disabled={locked || held === null || isKept}
                onClick={keep}
              >
                {held === null
                  ? 'Waits until it stands still'
                  : isKept
                    ? `Kept ${voltsText(held.volts, 3)} V`
                    : `Keep ${voltsText(held.volts, 3)} V, ${conditionText[condition]}`}
              </Button>
              <span className="quiet">Move the probe: the next figure that stands still is held.</span>
            </div>
          </>
        )}
      </section>
      <PowerGoodPanel meter={meter} phase={phase} />
      <SweepPanel
        meter={meter}
        loads={(instruments.data ?? []).filter((item) => item.role === 'load')}
        rail={rail}
        phase={phase}
        onBegin={() => {
          setRunning(false);
          setFree(false);
        }}
      />
    </div>
  );
}

/** Power-good timed by a meter that can: from the rails being good to the signal, at the next start of the supply. */
function PowerGoodPanel({ meter, phase }: { readonly meter: NetworkInstrument; readonly phase: Phase }) {
  const { job, act, locked, shop } = useDesk();
  const [time, timing] = useTimePowerGoodMutation();
  const [kept, setKept] = useState(false);
  const instrument = shop.instruments.find((item) => item.id === meter.instrumentId);
  if (instrument === undefined || instrument.powerGoodErrorMilliseconds === null) return null;
  const { data } = timing;
  const keep = () => {
    if (data?.milliseconds == null) return;
    if (
      act({
        kind: 'take-reading',
        reading: {
          ...bareReading,
          id: crypto.randomUUID(),
          phase,
          subject: 'power-good',
          condition: 'off-load',
          value: { kind: 'figure', figure: Math.round(data.milliseconds) },
          instrumentId: instrument.id,
          note: 'timed by the meter',
        },
      }) === null
    )
      setKept(true);
  };
  return (
    <section aria-label="Power-good" style={{ marginTop: 16 }}>
      <span className="label">Power-good</span>
      <p className="quiet">First input on +5 V, second on power-good (pin 8); then the supply is started.</p>
      <div className="row-actions" style={{ alignItems: 'center' }}>
        <Button
          disabled={timing.isLoading}
          onClick={() => {
            setKept(false);
            void time({ id: meter.id, job: job.code });
          }}
        >
          {timing.isLoading ? 'Waiting for the start …' : 'Time power-good'}
        </Button>
        {data?.milliseconds != null && (
          <>
            <span className="fig" style={{ fontSize: 20 }} data-power-good>
              {Math.round(data.milliseconds)} ms
            </span>
            <Button disabled={locked || kept} onClick={keep}>
              {kept ? 'Kept' : 'Keep it'}
            </Button>
          </>
        )}
        {data?.trouble != null && (
          <span className="error-text" role="alert">
            {data.trouble === 'out-of-range' ? 'No power-good came.' : (troubleText[data.trouble] ?? data.trouble)}
          </span>
        )}
        {timing.isError && (
          <span className="error-text" role="alert">
            {problemOf(timing.error).title}
          </span>
        )}
      </div>
    </section>
  );
}
