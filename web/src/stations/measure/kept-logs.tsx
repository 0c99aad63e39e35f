import { countText, boundToBe, type Guide, type KeptLog, type RailName } from '@fairwatt/core';
import { useCallback, useMemo, useState } from 'react';
import { Button } from 'antd';
import { timeSpanText } from '../../controls/clock.ts';
import { useDesk } from '../../job/job-context.ts';
import { looks } from '../../looks/looks.ts';
import { LogChart, type Span } from './log-chart.tsx';
import { ChannelTable, EventList } from './log-tables.tsx';
import { signs } from '../../controls/signs.tsx';
import styles from './kept-logs.module.css';
import walkHead from './walk-head.module.css';

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
  const [rail, setRail] = useState<RailName>(boundToBe(log.channels[0], 'channel').rail);
  const fetchPieces = useCallback(
    (name: RailName) => Promise.resolve(log.channels.find((channel) => channel.rail === name)?.curve ?? null),
    [log],
  );
  return (
    <div className={styles.keptLog} data-kept-log={log.name}>
      <div className={walkHead.walkHead}>
        <Button type="text" className={looks.plain} aria-expanded={open} onClick={() => setOpen(!open)}>
          <strong>{log.name}</strong>
        </Button>
        <span className={`${looks.quiet} ${looks.fills}`}>
          {countText(log.rows)} rows, {timeSpanText(log.lastsSeconds)}, {log.eventsInAll}{' '}
          {log.eventsInAll === 1 ? 'event' : 'events'}; {personName(log.by)}
        </span>
        <a href={`/api/jobs/${code}/logs/${log.id}/original`} download={log.name}>
          file
        </a>
        <Button icon={signs.remove} type="link" disabled={locked} onClick={onDrop}>
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

/** The logs that this job keeps, each opened where it stands. */
export function KeptLogs({ guide }: { readonly guide: Guide }) {
  const { job, act, offerUndo } = useDesk();
  function drop(log: KeptLog): void {
    if (act({ kind: 'drop-log', logId: log.id, basedOn: log.version }) === null) offerUndo(`${log.name} is removed.`);
  }
  return (
    <section aria-label="Kept logs">
      <span className={looks.label}>Kept in this job</span>
      {job.logs.map((log) => (
        <KeptLogRow key={log.id} log={log} guide={guide} onDrop={() => drop(log)} />
      ))}
    </section>
  );
}
