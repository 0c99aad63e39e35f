import { useState } from 'react';
import type { Remote } from 'comlink';
import { bareReading, conditionText, roomFor, type Condition, type LogSummary, type Phase } from '@fairwatt/core';
import { download } from '../../app/download.ts';
import { useAppDispatch } from '../../app/store.ts';
import { useDesk } from '../../job/job-context.ts';
import { originalParcel } from '../../offline/kept-request.ts';
import { outbox } from '../../offline/outbox.ts';
import type { LogSession } from '../../workers/log-worker.ts';
import type { Span } from './log-chart.tsx';

/** The largest file that is kept beside what was read of it, in bytes. */
const largestOriginal = 1_048_576;
const rounded = (value: number) => Math.round(value * 1e5) / 1e5;

/** Rows that could not be read, of any kind. */
export const skippedOf = ({ skipped }: LogSummary): number =>
  skipped.columns + skipped.figures + skipped.time + skipped.backwards;

const roundedChannels = ({ channels }: LogSummary) =>
  channels.map((channel) => ({
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

/** Keeps of a log what is wanted: itself, means as readings, a part as a file. */
export function useLogKeeping(file: File, summary: LogSummary, phase: Phase, session: Remote<LogSession>) {
  const { job, act, technician } = useDesk();
  const dispatch = useAppDispatch();
  const [told, setTold] = useState<string | null>(null);

  async function keep(): Promise<void> {
    const id = crypto.randomUUID();
    const log = {
      id,
      name: file.name.slice(0, 120),
      phase,
      rows: summary.rows,
      skipped: skippedOf(summary),
      lastsSeconds: summary.lastsSeconds,
      channels: roundedChannels(summary),
      events: summary.events,
      eventsInAll: summary.eventsInAll,
    };
    if (act({ kind: 'put-log', log, basedOn: 0 }) !== null) return;
    setTold('Kept in the job.');
    if (file.size > largestOriginal) return;
    // Behind the log itself on the same road, so that the server knows what the file belongs to.
    const text = await file.text();
    dispatch(outbox.put(originalParcel(job.code, id, text, technician ?? '')));
    setTold('Kept in the job, with the file itself.');
  }

  /** The part in sight, which the technician knows to be idle or at work, becomes one reading for each rail. */
  async function keepReadings(span: Span, condition: Condition, instrumentId: string): Promise<void> {
    const means = await session.means(span.from, span.to);
    for (const { rail: subject, volts, count } of means) {
      const reading = {
        ...bareReading,
        id: crypto.randomUUID(),
        phase,
        subject,
        condition,
        value: { kind: 'figure', figure: rounded(volts) },
        instrumentId,
        note: `mean of ${count} in ${file.name}`.slice(0, 300),
      } as const;
      if (act({ kind: 'take-reading', reading }) !== null) return;
    }
    setTold(
      means.length === 0
        ? 'Nothing was logged in this part.'
        : `The means of this part are among the readings, ${conditionText[condition]}.`,
    );
  }

  async function save(span: Span): Promise<void> {
    const blob = await session.csv(span.from, span.to);
    if (blob !== null) download(blob, `${job.code}-log.csv`);
  }

  return { isFull: roomFor(job, 'logs') === 0, told, keep, keepReadings, save };
}
