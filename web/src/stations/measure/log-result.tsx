import { useCallback, useMemo, useState } from 'react';
import { Button, Select } from 'antd';
import { type Remote } from 'comlink';
import {
  bareReading,
  conditions,
  conditionText,
  jobLimits,
  logEventText,
  roomFor,
  voltsText,
  type Condition,
  type Guide,
  type LogSummary,
  type Phase,
  type RailName,
} from '@fairwatt/core';
import { SelectField } from '../../controls/fields.tsx';
import { timeSpanText } from '../../controls/clock.ts';
import { useAppDispatch } from '../../app/store.ts';
import { useDesk } from '../../job/job-context.ts';
import { originalParcel } from '../../offline/kept-request.ts';
import { outbox } from '../../offline/outbox.ts';
import type { LogSession } from '../../workers/log-worker.ts';
import { LogChart, type Span } from './log-chart.tsx';
import { download } from '../../app/download.ts';
import { Sheet } from '../../controls/sheet.tsx';

const largestOriginal = 1_048_576;
const rounded = (value: number) => Math.round(value * 1e5) / 1e5;

/** What a file says once it is read, and what of it is kept. */
export function LogResult({
  file,
  summary,
  phase,
  guide,
  session,
  onLeave,
}: {
  readonly file: File;
  readonly summary: LogSummary;
  readonly phase: Phase;
  readonly guide: Guide;
  readonly session: Remote<LogSession>;
  readonly onLeave: () => void;
}) {
  const { job, shop, act, locked, technician } = useDesk();
  const dispatch = useAppDispatch();
  const whole = useMemo<Span>(() => ({ from: 0, to: Math.max(summary.lastsSeconds, 0.001) }), [summary]);
  const [span, setSpan] = useState(whole);
  const [rail, setRail] = useState<RailName>(summary.channels[0]!.rail);
  const [told, setTold] = useState<string | null>(null);
  const [condition, setCondition] = useState<Condition>('work');
  const [instrumentId, setInstrument] = useState(
    () => shop.instruments.find((item) => item.kind === 'multimeter')?.id ?? '',
  );
  const fetchPieces = useCallback(
    async (name: RailName, wanted: Span) => session.window(name, wanted.from, wanted.to, 900),
    [session],
  );
  const skipped = summary.skipped.columns + summary.skipped.figures + summary.skipped.time + summary.skipped.backwards;
  const full = roomFor(job, 'logs') === 0;
  async function keep(): Promise<void> {
    const id = crypto.randomUUID();
    const channels = summary.channels.map((channel) => ({
      ...channel,
      meanVolts: rounded(channel.meanVolts),
      deviationVolts: rounded(channel.deviationVolts),
      noiseVolts: rounded(channel.noiseVolts),
      driftVoltsPerHour: rounded(channel.driftVoltsPerHour),
      outsideSeconds: rounded(channel.outsideSeconds),
      curve: {
        seconds: channel.curve.seconds.map(rounded),
        low: channel.curve.low.map(rounded),
        high: channel.curve.high.map(rounded),
      },
    }));
    const refusal = act({
      kind: 'put-log',
      log: {
        id,
        name: file.name.slice(0, 120),
        phase,
        rows: summary.rows,
        skipped,
        lastsSeconds: summary.lastsSeconds,
        channels,
        events: summary.events,
        eventsInAll: summary.eventsInAll,
      },
      basedOn: 0,
    });
    if (refusal !== null) return;
    setTold('Kept in the job.');
    if (file.size > largestOriginal) return;
    // Behind the log itself on the same road, so that the server knows what the file belongs to.
    const text = await file.text();
    dispatch(outbox.put(originalParcel(job.code, id, text, technician ?? '')));
    setTold('Kept in the job, with the file itself.');
  }
  /** The part in sight, which the technician knows to be idle or at work, becomes one reading for each rail. */
  async function keepReadings(): Promise<void> {
    const means = await session.means(span.from, span.to);
    for (const { rail: subject, volts, count } of means) {
      if (
        act({
          kind: 'take-reading',
          reading: {
            ...bareReading,
            id: crypto.randomUUID(),
            phase,
            subject,
            condition,
            value: { kind: 'figure', figure: rounded(volts) },
            instrumentId,
            note: `mean of ${count} in ${file.name}`.slice(0, 300),
          },
        }) !== null
      )
        return;
    }
    setTold(
      means.length === 0
        ? 'Nothing was logged in this part.'
        : `The means of this part are among the readings, ${conditionText[condition]}.`,
    );
  }
  async function save(): Promise<void> {
    const blob = await session.csv(span.from, span.to);
    if (blob === null) return;
    download(blob, `${job.code}-log.csv`);
  }
  return (
    <section aria-label="The log" data-log-read>
      {full && (
        <p className="error-text" role="status">
          This job keeps {jobLimits.logs} logs, which is the most: remove one first.
        </p>
      )}
      <div className="walk-head">
        <h2>{file.name}</h2>
        <span className="quiet">
          <span className="fig">{summary.rows.toLocaleString('en')}</span> rows, {timeSpanText(summary.lastsSeconds)}
          {skipped === 0 ? '' : `, ${skipped.toLocaleString('en')} rows not readable and passed over`}
        </span>
        <Button type="link" onClick={onLeave}>
          another file
        </Button>
      </div>
      <ChannelTable channels={summary.channels} rail={rail} onRail={setRail} />
      <LogChart rail={rail} guide={guide} whole={whole} span={span} onSpan={setSpan} fetchPieces={fetchPieces} />
      <div className="row-actions" style={{ margin: '12px 0', alignItems: 'end' }}>
        <Button data-primary disabled={locked || full} onClick={() => void keep()}>
          Keep in the job <kbd aria-hidden="true">↵</kbd>
        </Button>
        <label className="field">
          <span className="name">Logged with</span>
          <Select
            aria-label="Logged with"
            value={instrumentId}
            onChange={(picked) => setInstrument(picked)}
            options={[...shop.instruments.map((item) => ({ value: item.id, label: item.name }))]}
          />
        </label>
        <SelectField
          label="This part is"
          value={condition}
          options={conditions.map((value) => ({ value, label: conditionText[value] }))}
          onChange={setCondition}
        />
        <Button disabled={locked || instrumentId === ''} onClick={() => void keepReadings()}>
          Means of this part as readings
        </Button>
        <Button onClick={() => void save()}>Export what is shown as CSV</Button>
        {told !== null && (
          <span className="quiet" role="status">
            {told}
          </span>
        )}
      </div>
      <EventList
        events={summary.events}
        inAll={summary.eventsInAll}
        onShow={(event) => {
          setRail(event.rail);
          const around = Math.max(2, event.lastsSeconds * 4, (whole.to - whole.from) / 400);
          setSpan({
            from: Math.max(0, event.atSeconds - around),
            to: Math.min(whole.to, event.atSeconds + event.lastsSeconds + around),
          });
        }}
      />
    </section>
  );
}

export function ChannelTable({
  channels,
  rail,
  onRail,
}: {
  readonly channels: LogSummary['channels'];
  readonly rail?: RailName;
  readonly onRail?: (rail: RailName) => void;
}) {
  return (
    <div style={{ marginBottom: 10 }}>
      <Sheet
        rows={channels}
        rowKey={(channel) => channel.rail}
        columns={[
          {
            head: 'Rail',
            cell: (channel) =>
              onRail === undefined ? (
                <strong>{channel.rail} V</strong>
              ) : (
                <Button aria-pressed={rail === channel.rail} onClick={() => onRail(channel.rail)}>
                  {channel.rail === '+5sb' ? '+5 standby' : `${channel.rail} V`}
                </Button>
              ),
          },
          { head: 'lowest', className: 'num', cell: (channel) => voltsText(channel.lowestVolts, 3) },
          { head: 'mean', className: 'num', cell: (channel) => voltsText(channel.meanVolts, 3) },
          { head: 'highest', className: 'num', cell: (channel) => voltsText(channel.highestVolts, 3) },
          { head: 'noise', className: 'num', cell: (channel) => <>{(channel.noiseVolts * 1000).toFixed(1)} mV</> },
          {
            head: 'drift an hour',
            className: 'num',
            cell: (channel) => <>{(channel.driftVoltsPerHour * 1000).toFixed(0)} mV</>,
          },
          {
            head: 'outside',
            className: 'num',
            cell: (channel) =>
              channel.outsideSeconds === 0 ? (
                <span className="verdict pass">never</span>
              ) : (
                <span className="verdict fail">{timeSpanText(channel.outsideSeconds)}</span>
              ),
          },
        ]}
      />
    </div>
  );
}

export function EventList({
  events,
  inAll,
  onShow,
}: {
  readonly events: LogSummary['events'];
  readonly inAll: number;
  readonly onShow?: (event: LogSummary['events'][number]) => void;
}) {
  if (events.length === 0) return <p className="quiet">Nothing happened: no dip, no spike, no step, no gap.</p>;
  return (
    <section aria-label="Events">
      <span className="label">
        What happened, the gravest first
        {inAll > events.length ? `: ${events.length} of ${inAll.toLocaleString('en')}` : ''}
      </span>
      <ul className="trail log-events">
        {events.slice(0, 60).map((event, index) => (
          <li key={index}>
            <span className="fig nowrap">{timeSpanText(event.atSeconds)}</span>
            <span className="what">{logEventText(event)}</span>
            {onShow !== undefined && (
              <Button type="link" onClick={() => onShow(event)}>
                show
              </Button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
