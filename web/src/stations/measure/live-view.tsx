import { useState } from 'react';
import { Button } from 'antd';
import { Link } from 'react-router';
import {
  conditions,
  conditionText,
  railNames,
  subjectText,
  voltsText,
  type Condition,
  type Phase,
  type RailName,
} from '@fairwatt/core';
import type { NetworkInstrument } from '@fairwatt/contract';
import { useNetworkInstrumentsQuery } from '../../app/api.ts';
import { useAppSelector } from '../../app/store.ts';
import { TrailChart } from '../../charts/trail-chart.tsx';
import { Choice } from '../../controls/choice.tsx';
import { Empty } from '../../controls/empty.tsx';
import { SelectField } from '../../controls/fields.tsx';
import { signs } from '../../controls/signs.tsx';
import { Waiting } from '../../controls/waiting.tsx';
import { useDesk } from '../../job/job-context.ts';
import { looks } from '../../looks/looks.ts';
import { HandsFreeSet } from './hands-free-set.tsx';
import { heldReading } from './held-reading.ts';
import { MeterTrouble } from './meter-trouble.tsx';
import { PowerGoodPanel } from './power-good-panel.tsx';
import { SweepPanel } from './sweep-panel.tsx';
import { drawn, liveAddress, useLive, type Live } from './use-live.ts';
import styles from './live-view.module.css';

/** What is read, from which meter: where its probes are, and in which condition. */
interface LiveSet {
  readonly meter: NetworkInstrument;
  readonly rail: RailName;
  readonly phase: Phase;
  readonly condition: Condition;
}

/** The figure as it comes, and what stands still of it kept. */
function RunningLive({ live, set: { meter, rail, phase, condition } }: { readonly live: Live; readonly set: LiveSet }) {
  const { view, act, locked, shop } = useDesk();
  const [kept, setKept] = useState<string | null>(null);
  const { held } = live;
  const isKept = held !== null && kept === held.at;
  const keep = () => {
    if (held === null || isKept || meter.instrumentId === null) return;
    const reading = heldReading(held, { rail, phase, condition, instrumentId: meter.instrumentId }, shop.instruments);
    if (act({ kind: 'take-reading', reading }) === null) setKept(held.at);
  };
  return (
    <>
      <div className={`${styles.liveFigure}${held !== null && !isKept ? ` ${styles.still}` : ''}`} aria-live="off">
        {live.volts === null ? '–.–––' : voltsText(live.volts, 3)}
        <span className={styles.unit}> V</span>
      </div>
      <MeterTrouble trouble={live.trouble} />
      <TrailChart rail={rail} values={live.trail} most={drawn} guide={view[phase].guide} />
      <p className={looks.quiet}>{live.identity}</p>
      <div className={`${looks.rowActions} ${looks.midLine}`}>
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
        <span className={looks.quiet}>Move the probe: the next figure that stands still is held.</span>
      </div>
    </>
  );
}

/** Which meter, on which rail, in which condition. */
function LiveFields({
  meters,
  set,
  onMeter,
  onRail,
  onCondition,
}: {
  readonly meters: readonly NetworkInstrument[];
  readonly set: LiveSet;
  readonly onMeter: (id: string) => void;
  readonly onRail: (rail: RailName) => void;
  readonly onCondition: (condition: Condition) => void;
}) {
  return (
    <>
      <SelectField
        label="Meter"
        value={set.meter.id}
        options={meters.map((item) => ({ value: item.id, label: item.name }))}
        onChange={onMeter}
      />
      <SelectField
        label="Rail"
        value={set.rail}
        options={railNames.map((name) => ({ value: name, label: subjectText[name] }))}
        onChange={onRail}
      />
      <Choice
        label="Load condition"
        value={set.condition}
        options={conditions.map((value) => ({ value, label: conditionText[value] }))}
        onPick={onCondition}
      />
    </>
  );
}

/** A meter over the network, live, and a load that sweeps. */
export function LiveView({ phase }: { readonly phase: Phase }) {
  const { job, locked } = useDesk();
  const instruments = useNetworkInstrumentsQuery();
  const [rail, setRail] = useState<RailName>('+12');
  const [condition, setCondition] = useState<Condition>('idle');
  const [reads, setReads] = useState<'nothing' | 'one' | 'all-rails'>('nothing');
  const [meterId, setMeter] = useState<string | null>(null);
  // A meter answers one at a time.
  const taken = useAppSelector((state) =>
    state.sweep !== null && state.sweep.end === null ? state.sweep.meterId : null,
  );
  const meters = (instruments.data ?? []).filter((item) => item.role === 'meter');
  const meter = meters.find((item) => item.id === meterId) ?? meters[0];
  const isRunning = reads === 'one';
  const live = useLive(isRunning && meter !== undefined ? liveAddress(meter.id, rail, job.code) : null);
  if (instruments.data === undefined) return <Waiting>Fetching the instruments …</Waiting>;
  if (meter === undefined)
    return (
      <Empty title="No meter over the network yet">
        An owner enters its address at <Link to="/instruments">Instruments</Link>. Any that speaks SCPI on TCP will do.
      </Empty>
    );
  const set: LiveSet = { meter, rail, phase, condition };
  const isTaken = taken === meter.id;
  return (
    <div className={styles.live}>
      <section aria-label="Live reading" data-live={isRunning ? (live.trouble ?? 'running') : 'off'}>
        <div className={`${looks.rowActions} ${looks.onFoot} ${looks.above}`}>
          <LiveFields meters={meters} set={set} onMeter={setMeter} onRail={setRail} onCondition={setCondition} />
          {reads !== 'all-rails' && (
            <Button
              icon={isRunning ? signs.stop : signs.start}
              data-primary={isRunning ? undefined : true}
              disabled={isTaken}
              onClick={() => setReads(isRunning ? 'nothing' : 'one')}
            >
              {isTaken ? 'The sweep has this meter' : isRunning ? 'Stop reading' : 'Start reading'}
            </Button>
          )}
          {reads === 'nothing' && (
            <Button
              icon={signs.start}
              disabled={isTaken || locked || meter.instrumentId === null}
              onClick={() => setReads('all-rails')}
            >
              All rails, hands free
            </Button>
          )}
        </div>
        {reads === 'all-rails' && meter.instrumentId !== null && (
          <HandsFreeSet
            meter={meter}
            instrumentId={meter.instrumentId}
            phase={phase}
            condition={condition}
            onStop={() => setReads('nothing')}
          />
        )}
        {isRunning && <RunningLive live={live} set={set} />}
      </section>
      <PowerGoodPanel meter={meter} phase={phase} />
      <SweepPanel
        meter={meter}
        loads={instruments.data.filter((item) => item.role === 'load')}
        rail={rail}
        phase={phase}
        onBegin={() => setReads('nothing')}
      />
    </div>
  );
}
