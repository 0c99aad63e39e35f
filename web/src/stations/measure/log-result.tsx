import { useCallback, useMemo, useState } from 'react';
import { Button, Select } from 'antd';
import { type Remote } from 'comlink';
import {
  countText,
  boundToBe,
  conditions,
  conditionText,
  jobLimits,
  type Condition,
  type Guide,
  type LogSummary,
  type Phase,
  type RailName,
} from '@fairwatt/core';
import { SelectField } from '../../controls/fields.tsx';
import { timeSpanText } from '../../controls/clock.ts';
import { useDesk } from '../../job/job-context.ts';
import type { LogSession } from '../../workers/log-worker.ts';
import { looks } from '../../looks/looks.ts';
import { LogChart, type Span } from './log-chart.tsx';
import { ChannelTable, EventList } from './log-tables.tsx';
import { skippedOf, useLogKeeping } from './use-log-keeping.ts';
import { signs } from '../../controls/signs.tsx';
import styles from './walk-head.module.css';

const conditionOptions = conditions.map((value) => ({ value, label: conditionText[value] }));

/** The stretch around an event, wide enough to see it in its place. */
function spanAround(event: LogSummary['events'][number], whole: Span): Span {
  const around = Math.max(2, event.lastsSeconds * 4, (whole.to - whole.from) / 400);
  return {
    from: Math.max(0, event.atSeconds - around),
    to: Math.min(whole.to, event.atSeconds + event.lastsSeconds + around),
  };
}

/** What is kept of the log: itself, the means of the part in sight, that part as a file. */
function KeepLog({ keeping, span }: { readonly keeping: ReturnType<typeof useLogKeeping>; readonly span: Span }) {
  const { shop, locked } = useDesk();
  const [condition, setCondition] = useState<Condition>('work');
  const [instrumentId, setInstrument] = useState(
    () => shop.instruments.find((item) => item.kind === 'multimeter')?.id ?? '',
  );
  return (
    <div className={`${looks.rowActions} ${looks.below} ${looks.above} ${looks.onFoot}`}>
      <Button data-primary disabled={locked || keeping.isFull} onClick={() => void keeping.keep()}>
        Keep in the job <kbd aria-hidden="true">↵</kbd>
      </Button>
      <label className={looks.field}>
        <span className={looks.name}>Logged with</span>
        <Select
          aria-label="Logged with"
          value={instrumentId}
          onChange={(picked) => setInstrument(picked)}
          options={shop.instruments.map(({ id, name }) => ({ value: id, label: name }))}
        />
      </label>
      <SelectField label="This part is" value={condition} options={conditionOptions} onChange={setCondition} />
      <Button
        disabled={locked || instrumentId === ''}
        onClick={() => void keeping.keepReadings(span, condition, instrumentId)}
      >
        Means of this part as readings
      </Button>
      <Button icon={signs.save} onClick={() => void keeping.save(span)}>
        Export what is shown as CSV
      </Button>
      {keeping.told !== null && (
        <span className={looks.quiet} role="status">
          {keeping.told}
        </span>
      )}
    </div>
  );
}

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
  const whole = useMemo<Span>(() => ({ from: 0, to: Math.max(summary.lastsSeconds, 0.001) }), [summary]);
  const [span, setSpan] = useState(whole);
  const [rail, setRail] = useState<RailName>(boundToBe(summary.channels[0], 'channel').rail);
  const keeping = useLogKeeping(file, summary, phase, session);
  const fetchPieces = useCallback(
    async (name: RailName, wanted: Span) => session.window(name, wanted.from, wanted.to, 900),
    [session],
  );
  const skipped = skippedOf(summary);
  return (
    <section aria-label="The log" data-log-read>
      {keeping.isFull && (
        <p className={looks.errorText} role="status">
          This job keeps {jobLimits.logs} logs, which is the most: remove one first.
        </p>
      )}
      <div className={styles.walkHead}>
        <h2>{file.name}</h2>
        <span className={looks.quiet}>
          <span className={looks.fig}>{countText(summary.rows)}</span> rows, {timeSpanText(summary.lastsSeconds)}
          {skipped === 0 ? '' : `, ${countText(skipped)} rows not readable and passed over`}
        </span>
        <Button icon={signs.file} type="link" onClick={onLeave}>
          another file
        </Button>
      </div>
      <ChannelTable channels={summary.channels} rail={rail} onRail={setRail} />
      <LogChart rail={rail} guide={guide} whole={whole} span={span} onSpan={setSpan} fetchPieces={fetchPieces} />
      <KeepLog keeping={keeping} span={span} />
      <EventList
        events={summary.events}
        inAll={summary.eventsInAll}
        onShow={(event) => {
          setRail(event.rail);
          setSpan(spanAround(event, whole));
        }}
      />
    </section>
  );
}
