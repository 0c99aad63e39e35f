import { useCallback, useEffect, useMemo, useState } from 'react';
import { Button, Select, Upload } from 'antd';
import { proxy, wrap, type Remote } from 'comlink';
import {
  bareReading,
  conditions,
  conditionText,
  jobLimits,
  logEventText,
  logProblemText,
  logShapeText,
  mostLogColumns,
  railNames,
  roomFor,
  timeFormats,
  timeFormatText,
  voltsText,
  type Condition,
  type Guide,
  type KeptLog,
  type LogColumn,
  type LogMapping,
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
import type { Look, LogSession, Separator } from '../../workers/log-worker.ts';
import { LogChart, type Span } from './log-chart.tsx';
import { download } from '../../app/download.ts';
import { Sheet } from '../../controls/sheet.tsx';

/** Where the reading of a file stands. */
type State =
  | { readonly at: 'none'; readonly told: string | null }
  | {
      readonly at: 'looked';
      readonly file: File;
      readonly look: Extract<Look, { ok: true }>;
      readonly mapping: LogMapping;
      readonly told: string | null;
    }
  | { readonly at: 'reading'; readonly file: File; readonly share: number; readonly rows: number }
  | { readonly at: 'read'; readonly file: File; readonly summary: LogSummary };

const separators: readonly (readonly [Separator, string])[] = [
  [',', 'comma'],
  [';', 'semicolon'],
  ['\t', 'tab'],
  ['|', 'bar'],
  [' ', 'space'],
];
const largestOriginal = 1_048_576;
const unfit: Readonly<Record<Extract<Look, { ok: false }>['problem'], string>> = {
  empty: 'is empty.',
  binary: 'is no text file: export it from the logger as CSV.',
  'no-lines': 'has no line break in its first 64 kB: it is no log with a row for each instant.',
  'too-wide': `has more than ${mostLogColumns} columns: it is no log of a few rails over time, or its columns are divided by something else.`,
};
const rounded = (value: number) => Math.round(value * 1e5) / 1e5;

function useWorker(): Remote<LogSession> {
  const [worker] = useState(
    () => new Worker(new URL('../../workers/log-worker.ts', import.meta.url), { type: 'module' }),
  );
  useEffect(() => () => worker.terminate(), [worker]);
  return useMemo(() => wrap<LogSession>(worker), [worker]);
}

/** A logging meter's file: how it is read, what it says, what the job keeps of it. */
export function LogView({ phase, guide }: { readonly phase: Phase; readonly guide: Guide }) {
  const { job, act, locked, offerUndo } = useDesk();
  const session = useWorker();
  const [state, setState] = useState<State>({ at: 'none', told: null });

  async function look(file: File, separator: Separator): Promise<void> {
    const found = await session.look(file, separator);
    if (!found.ok) setState({ at: 'none', told: `${file.name} ${unfit[found.problem]}` });
    else
      setState({
        at: 'looked',
        file,
        look: found,
        mapping: found.mapping,
        told: found.problems.length === 0 ? null : found.problems.map(logShapeText).join(' '),
      });
  }
  async function read(file: File, separator: string, mapping: LogMapping, before: State): Promise<void> {
    setState({ at: 'reading', file, share: 0, rows: 0 });
    const result = await session
      .read(
        file,
        separator,
        mapping,
        guide,
        proxy((share: number, rows: number) =>
          setState((now) => (now.at === 'reading' ? { ...now, share, rows } : now)),
        ),
      )
      .catch((error: unknown) => ({ word: 'failed' as const, error: String(error) }));
    if (result.word === 'read') setState({ at: 'read', file, summary: result.summary });
    else if (before.at === 'looked')
      setState({
        ...before,
        told:
          result.word === 'cancelled'
            ? 'Stopped; nothing was kept.'
            : result.word === 'problem'
              ? logProblemText(result.problem)
              : 'The file could not be read to its end. Is it still there?',
      });
  }

  return (
    <>
      {state.at === 'none' && (
        <section
          className="block empty"
          aria-label="New log"
          onDragOver={(event) => event.preventDefault()}
          onDrop={(event) => {
            event.preventDefault();
            const file = event.dataTransfer.files[0];
            if (file !== undefined) void look(file, '');
          }}
        >
          <strong>A logging meter&apos;s file goes here</strong>
          CSV with a column of time and one for each rail, up to a million rows. It stays on this machine.
          <div style={{ marginTop: 12 }}>
            <Upload
              accept=".csv,.txt,.tsv,.log,text/csv,text/plain"
              aria-label="Log file"
              showUploadList={false}
              disabled={locked}
              beforeUpload={(file) => {
                void look(file, '');
                return false;
              }}
            >
              <Button data-primary disabled={locked}>
                Pick a file
              </Button>
            </Upload>
          </div>
          {state.told !== null && (
            <p className="error-text" role="alert" style={{ marginTop: 10 }}>
              {state.told}
            </p>
          )}
        </section>
      )}
      {state.at === 'looked' && (
        <MappingForm
          state={state}
          onSeparator={(separator) => void look(state.file, separator)}
          onMapping={(mapping) => setState({ ...state, mapping, told: null })}
          onRead={() => void read(state.file, state.look.separator, state.mapping, state)}
          onLeave={() => setState({ at: 'none', told: null })}
        />
      )}
      {state.at === 'reading' && (
        <section className="block" aria-label="Reading the log" data-reading>
          <p>
            Reading {state.file.name}: <span className="fig">{Math.round(state.share * 100)} %</span>,{' '}
            <span className="fig">{state.rows.toLocaleString('en')}</span> rows
          </p>
          <div
            className="bar-track"
            role="progressbar"
            aria-valuenow={Math.round(state.share * 100)}
            aria-valuemin={0}
            aria-valuemax={100}
            aria-label="Reading the log"
            style={{ height: 13, background: 'var(--track)', margin: '8px 0' }}
          >
            <div
              className="bar-fill"
              style={{ width: `${state.share * 100}%`, height: '100%', background: 'var(--action)' }}
            />
          </div>
          <Button onClick={() => void session.cancel()}>Stop</Button>
        </section>
      )}
      {state.at === 'read' && (
        <LogResult
          key={state.file.name}
          file={state.file}
          summary={state.summary}
          phase={phase}
          guide={guide}
          session={session}
          onLeave={() => setState({ at: 'none', told: null })}
        />
      )}
      {state.at !== 'read' && job.logs.length > 0 && (
        <section aria-label="Kept logs">
          <span className="label">Kept in this job</span>
          {job.logs.map((log) => (
            <KeptLogRow
              key={log.id}
              log={log}
              guide={guide}
              onDrop={() => {
                if (act({ kind: 'drop-log', logId: log.id, basedOn: log.version }) === null) {
                  const { by: _by, at: _at, version: _version, ...kept } = log;
                  offerUndo(`${log.name} is removed.`, () => act({ kind: 'put-log', log: kept, basedOn: 0 }));
                }
              }}
            />
          ))}
        </section>
      )}
    </>
  );
}

/** What a column may hold, as the list offers it. */
const columnOptions = [
  { value: 'nothing', label: 'nothing to use' },
  ...timeFormats.map((format) => ({ value: `time|${format}`, label: `time: ${timeFormatText[format]}` })),
  ...railNames.flatMap((rail) =>
    (['V', 'mV'] as const).map((unit) => ({
      value: `rail|${rail}|${unit}`,
      label: `${rail === '+5sb' ? '+5 standby' : rail} in ${unit}`,
    })),
  ),
  { value: 'load|A', label: 'current in A' },
  { value: 'load|mA', label: 'current in mA' },
];

function MappingForm({
  state,
  onSeparator,
  onMapping,
  onRead,
  onLeave,
}: {
  readonly state: Extract<State, { at: 'looked' }>;
  readonly onSeparator: (separator: Separator) => void;
  readonly onMapping: (mapping: LogMapping) => void;
  readonly onRead: () => void;
  readonly onLeave: () => void;
}) {
  const { look, mapping } = state;
  const column = (index: number, value: string) => {
    const [holds, a, b] = value.split('|');
    const next: LogColumn =
      holds === 'time'
        ? { holds: 'time', format: timeFormats.find((format) => format === a) ?? 'iso' }
        : holds === 'rail'
          ? { holds: 'rail', rail: railNames.find((rail) => rail === a) ?? '+12', unit: b === 'mV' ? 'mV' : 'V' }
          : holds === 'load'
            ? { holds: 'load', unit: a === 'mA' ? 'mA' : 'A' }
            : { holds: 'nothing' };
    onMapping({
      ...mapping,
      columns: mapping.columns.map((item, position) =>
        position === index ? next : next.holds === 'time' && item.holds === 'time' ? { holds: 'nothing' } : item,
      ),
    });
  };
  const valueOf = (item: LogColumn) =>
    item.holds === 'time'
      ? `time|${item.format}`
      : item.holds === 'rail'
        ? `rail|${item.rail}|${item.unit}`
        : item.holds === 'load'
          ? `load|${item.unit}`
          : 'nothing';
  const ready =
    mapping.columns.some((item) => item.holds === 'time') && mapping.columns.some((item) => item.holds === 'rail');
  return (
    <section className="block" aria-label="How the file is read">
      <div className="walk-head">
        <h2>{state.file.name}</h2>
        <span className="quiet">{(state.file.size / 1e6).toFixed(1)} MB</span>
        <Button type="link" onClick={onLeave}>
          another file
        </Button>
      </div>
      <div className="row-actions" style={{ alignItems: 'end', marginBottom: 10 }}>
        <label className="field">
          <span className="name">Columns divided by</span>
          <Select
            aria-label="Columns divided by"
            value={look.separator}
            onChange={(picked) => onSeparator(picked as Separator)}
            options={[...separators.map(([value, name]) => ({ value: value, label: name }))]}
          />
        </label>
        <label className="field">
          <span className="name">Decimal sign</span>
          <Select
            aria-label="Decimal sign"
            value={mapping.decimal}
            onChange={(picked) => onMapping({ ...mapping, decimal: picked === ',' ? ',' : '.' })}
            options={[
              { value: '.', label: 'point' },
              { value: ',', label: 'comma' },
            ]}
          />
        </label>
        <label className="field">
          <span className="name">Rows at the top that are no data</span>
          <Select
            aria-label="Rows at the top that are no data"
            value={mapping.headerRows}
            onChange={(picked) => onMapping({ ...mapping, headerRows: picked })}
            options={[...look.rows.map((_, index) => ({ value: index, label: index }))]}
          />
        </label>
        <Button data-primary disabled={!ready} onClick={onRead}>
          Read it <kbd aria-hidden="true">↵</kbd>
        </Button>
      </div>
      {state.told !== null && (
        <p className="error-text" role="alert" style={{ marginBottom: 8 }}>
          {state.told}
        </p>
      )}
      <Sheet<readonly string[]>
        className="log-head"
        rows={look.rows.slice(0, 7)}
        rowKey={(_, index) => index}
        rowProps={(_, index) => ({ className: index < mapping.headerRows ? 'gone' : '' })}
        columns={mapping.columns.map((item, position) => ({
          head: (
            <Select
              className="cell-input"
              aria-label={`Column ${position + 1} holds`}
              value={valueOf(item)}
              popupMatchSelectWidth={false}
              onChange={(picked) => column(position, picked)}
              options={columnOptions}
            />
          ),
          className: 'fig',
          cell: (row) => row[position] ?? '',
        }))}
      />
    </section>
  );
}

function LogResult({
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

function ChannelTable({
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

function EventList({
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

function KeptLogRow({
  log,
  guide,
  onDrop,
}: {
  readonly log: KeptLog;
  readonly guide: Guide;
  readonly onDrop: () => void;
}) {
  const { code, locked, personName } = useDesk();
  const [open, setOpen] = useState(false);
  const whole = useMemo<Span>(() => ({ from: 0, to: Math.max(log.lastsSeconds, 0.001) }), [log]);
  const [span, setSpan] = useState(whole);
  const [rail, setRail] = useState<RailName>(log.channels[0]!.rail);
  const fetchPieces = useCallback(
    (name: RailName) => Promise.resolve(log.channels.find((channel) => channel.rail === name)?.curve ?? null),
    [log],
  );
  return (
    <div className="kept-log" data-kept-log={log.name}>
      <div className="walk-head" style={{ marginBottom: 4 }}>
        <Button type="text" className="plain" aria-expanded={open} onClick={() => setOpen(!open)}>
          <strong>{log.name}</strong>
        </Button>
        <span className="quiet" style={{ flex: 1 }}>
          {log.rows.toLocaleString('en')} rows, {timeSpanText(log.lastsSeconds)}, {log.eventsInAll}{' '}
          {log.eventsInAll === 1 ? 'event' : 'events'}; {personName(log.by)}
        </span>
        <a className="link" href={`/api/jobs/${code}/logs/${log.id}/original`} download={log.name}>
          file
        </a>
        <Button type="link" disabled={locked} onClick={onDrop}>
          remove
        </Button>
      </div>
      {open && (
        <>
          <ChannelTable channels={log.channels} rail={rail} onRail={setRail} />
          <LogChart rail={rail} guide={guide} whole={whole} span={span} onSpan={setSpan} fetchPieces={fetchPieces} />
          <EventList events={log.events} inAll={log.eventsInAll} />
        </>
      )}
    </div>
  );
}
