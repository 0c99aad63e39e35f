import { Button } from 'antd';
import { figureText, countText, logEventText, voltsText, type LogSummary, type RailName } from '@fairwatt/core';
import { timeSpanText } from '../../controls/clock.ts';
import { Sheet } from '../../controls/sheet.tsx';
import { looks, verdictLook } from '../../looks/looks.ts';
import styles from './log-tables.module.css';

/** What each rail did in a log. */
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
    <div className={looks.above}>
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
          { head: 'lowest', className: looks.num, cell: (channel) => voltsText(channel.lowestVolts, 3) },
          { head: 'mean', className: looks.num, cell: (channel) => voltsText(channel.meanVolts, 3) },
          { head: 'highest', className: looks.num, cell: (channel) => voltsText(channel.highestVolts, 3) },
          {
            head: 'noise',
            className: looks.num,
            cell: (channel) => <>{figureText(channel.noiseVolts * 1000, 1)} mV</>,
          },
          {
            head: 'drift an hour',
            className: looks.num,
            cell: (channel) => <>{figureText(channel.driftVoltsPerHour * 1000)} mV</>,
          },
          {
            head: 'outside',
            className: looks.num,
            cell: (channel) =>
              channel.outsideSeconds === 0 ? (
                <span className={verdictLook('pass')}>never</span>
              ) : (
                <span className={verdictLook('fail')}>{timeSpanText(channel.outsideSeconds)}</span>
              ),
          },
        ]}
      />
    </div>
  );
}

/** What happened in a log, the gravest first. */
export function EventList({
  events,
  inAll,
  onShow,
}: {
  readonly events: LogSummary['events'];
  readonly inAll: number;
  readonly onShow?: (event: LogSummary['events'][number]) => void;
}) {
  if (events.length === 0) return <p className={looks.quiet}>Nothing happened: no dip, no spike, no step, no gap.</p>;
  return (
    <section aria-label="Events">
      <span className={looks.label}>
        What happened, the gravest first
        {inAll > events.length ? `: ${events.length} of ${countText(inAll)}` : ''}
      </span>
      <ul className={`${looks.trail} ${styles.logEvents}`}>
        {events.slice(0, 60).map((event, index) => (
          <li key={index}>
            <span className={`${looks.fig} ${looks.nowrap}`}>{timeSpanText(event.atSeconds)}</span>
            <span className={looks.what}>{logEventText(event)}</span>
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
