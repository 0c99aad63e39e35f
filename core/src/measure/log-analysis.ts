/* oxlint-disable typescript/no-non-null-assertion --
   values and channels stand in rows of one length, gone through by their number: each index is below it */
import { boundToBe } from '../bound-to-be.ts';
import type { Guide, RailName } from '../standards/index.ts';
import { Channel, gravity } from './log-channel.ts';
import { lastFigure, logFigure, logSeconds, plainFigure, type LogMapping, type TimeFormat } from './log-columns.ts';
import {
  mostEvents,
  mostLogRows,
  toleratedShare,
  type LogEvent,
  type LogProblem,
  type LogSummary,
} from './log-summary.ts';

/** Takes every value that was read, so that it can be shown in full; times in seconds from the start. */
export type LogSink = (seconds: number, volts: Float64Array) => void;

/**
 * A log read piece by piece; `push` tells when it must stop. Two pieces running without a whole row are a row that does
 * not end.
 */
export interface LogReader {
  readonly rails: readonly RailName[];
  readonly push: (rows: readonly (readonly string[])[]) => LogProblem | null;
  readonly finish: () =>
    { readonly ok: true; readonly summary: LogSummary } | { readonly ok: false; readonly problem: LogProblem };
}

/** Trimming costs more than looking whether it is needed. */
const trimmed = (text: string) =>
  text.charCodeAt(0) <= 32 || text.charCodeAt(text.length - 1) <= 32 ? text.trim() : text;

type Skipped = LogSummary['skipped'];

/** The voltage columns of a mapping, each as a channel. */
function channelsOf({ columns }: LogMapping, guide: Guide): readonly Channel[] {
  const firstRail = columns.findIndex((column) => column.holds === 'rail');
  return columns.flatMap((column, index) =>
    column.holds === 'rail'
      ? [new Channel(column.rail, index, column.unit === 'mV' ? 0.001 : 1, guide, index === firstRail)]
      : [],
  );
}

const secondsADay = 86_400;

/** The time of the rows as it goes on, in seconds: past midnight, and what is a gap between two of them. */
class LogClock {
  /** Of the last row, from the first. */
  lasts = 0;
  /** Between the last row and the one before. */
  step = 0;
  // Start, last time, usual step and the time of this row; in an array, since a figure that is given back or kept in a
  // field can be an object anew at every row.
  private readonly at = new Float64Array([Number.NaN, -Infinity, 0, 0]);
  private midnights = 0;

  /** The time of this row; one of day starts over at midnight. */
  hear(seconds: number, isOfDay: boolean): void {
    if (isOfDay && seconds + this.midnights * secondsADay < this.at[1]! - secondsADay / 2) this.midnights += 1;
    this.at[3] = seconds + this.midnights * secondsADay;
  }

  get isBackwards(): boolean {
    return this.at[3]! < this.at[1]!;
  }

  /** This row counts. @returns whether the line was silent before it for far longer than usual */
  goOn(rows: number): boolean {
    const seconds = this.at[3]!;
    if (rows === 0) this.at[0] = seconds;
    this.step = rows === 0 ? 0 : seconds - this.at[1]!;
    const isGap = rows > 20 && this.step > 20 * this.at[2]! && this.step > 5;
    this.at[2] = rows === 1 ? this.step : this.at[2]! + (this.step - this.at[2]!) * 0.02;
    this.at[1] = seconds;
    this.lasts = seconds - this.at[0]!;
    return isGap;
  }
}

/** Rows that could not be read: how many of each kind, and the first. */
class Doubts {
  readonly skipped: Record<keyof Skipped, number> = { columns: 0, figures: 0, time: 0, backwards: 0 };
  private readonly first: Record<keyof Skipped, number> = { columns: 0, figures: 0, time: 0, backwards: 0 };

  skip(why: keyof Skipped, row: number): void {
    this.skipped[why] += 1;
    if (this.first[why] === 0) this.first[why] = row;
  }

  /** @param rows how many were seen in all, heads left out */
  told(rows: number): LogProblem | null {
    const { skipped, first } = this;
    const share = (count: number) => count / Math.max(1, rows);
    if (share(skipped.columns) > toleratedShare)
      return { code: 'changing-columns', row: first.columns, share: share(skipped.columns) };
    if (share(skipped.backwards) > toleratedShare)
      return { code: 'time-backwards', row: first.backwards, share: share(skipped.backwards) };
    const unreadable = share(skipped.figures + skipped.time);
    const row = Math.min(...[first.time, first.figures].filter((one) => one > 0));
    return unreadable > toleratedShare ? { code: 'unreadable', row, share: unreadable } : null;
  }
}

/** One log as it is read: where it stands, what was skipped, and its channels. */
class Reading implements LogReader {
  readonly rails: readonly RailName[];
  private readonly mapping: LogMapping;
  private readonly sink: LogSink | undefined;
  private readonly channels: readonly Channel[];
  private readonly timeColumn: number;
  private readonly format: TimeFormat;
  private readonly point: number;
  private readonly values: Float64Array;
  private readonly clock = new LogClock();
  private readonly doubts = new Doubts();
  private readonly gaps: LogEvent[] = [];
  private seen = 0;
  private rows = 0;
  private emptyPieces = 0;

  constructor(mapping: LogMapping, guide: Guide, sink: LogSink | undefined) {
    this.mapping = mapping;
    this.sink = sink;
    this.channels = channelsOf(mapping, guide);
    this.rails = this.channels.map(({ rail }) => rail);
    this.timeColumn = mapping.columns.findIndex((column) => column.holds === 'time');
    const time = mapping.columns[this.timeColumn];
    this.format = time?.holds === 'time' ? time.format : 'seconds';
    this.point = mapping.decimal === ',' ? 44 : 46;
    this.values = new Float64Array(this.channels.length);
  }

  push(list: readonly (readonly string[])[]): LogProblem | null {
    const missing = this.missingColumn();
    if (missing !== null) return missing;
    this.emptyPieces = list.length === 0 ? this.emptyPieces + 1 : 0;
    if (this.emptyPieces > 1) return { code: 'endless-row', row: this.seen + 1 };
    for (const row of list) {
      this.seen += 1;
      if (this.seen <= this.mapping.headerRows) continue;
      this.take(row);
      if (this.rows > mostLogRows) return { code: 'too-many-rows', most: mostLogRows };
    }
    return this.seen > 5000 ? this.doubt() : null;
  }

  finish(): ReturnType<LogReader['finish']> {
    const problem = this.missingColumn() ?? this.doubt() ?? (this.rows === 0 ? { code: 'no-rows' as const } : null);
    if (problem !== null) return { ok: false, problem };
    const { channels, gaps, rows } = this;
    const { skipped } = this.doubts;
    const lastsSeconds = this.clock.lasts;
    const summed = channels.map((channel) => channel.finish(lastsSeconds));
    const events = [...channels.flatMap((channel) => channel.events), ...gaps].sort(
      (a, b) => gravity(b) - gravity(a) || a.atSeconds - b.atSeconds,
    );
    const eventsInAll = channels.reduce((sum, channel) => sum + channel.found, gaps.length);
    return {
      ok: true,
      summary: { rows, skipped, lastsSeconds, channels: summed, events: events.slice(0, mostEvents), eventsInAll },
    };
  }

  private missingColumn(): LogProblem | null {
    if (this.timeColumn < 0) return { code: 'no-time-column' };
    return this.channels.length === 0 ? { code: 'no-rail-column' } : null;
  }

  private doubt(): LogProblem | null {
    return this.doubts.told(this.seen - this.mapping.headerRows);
  }

  private take(row: readonly string[]): void {
    const { clock, sink, values, channels } = this;
    const why = this.read(row);
    if (why !== null) {
      if (why !== 'empty') this.doubts.skip(why, this.seen);
      return;
    }
    const before = clock.lasts;
    if (clock.goOn(this.rows)) this.gaps.push(gapOf(this.rails, before, clock.step));
    this.rows += 1;
    for (let index = 0; index < channels.length; index += 1) channels[index]!.add(clock.lasts, values[index]!);
    sink?.(clock.lasts, values);
  }

  /** Reads a row into `clock` and `values`. @returns why it cannot be read, else null */
  private read(row: readonly string[]): keyof Skipped | 'empty' | null {
    const { mapping, channels, values, clock, format } = this;
    if (row.length < mapping.columns.length - 1)
      return row.length <= 1 && (row[0] ?? '').trim() === '' ? 'empty' : 'columns';
    const said = logSeconds(trimmed(row[this.timeColumn] ?? ''), format, mapping.decimal);
    if (!Number.isFinite(said)) return 'time';
    clock.hear(said, format === 'clock');
    for (let index = 0; index < channels.length; index += 1) {
      const channel = channels[index]!;
      const figure = this.figure(row[channel.column] ?? '') * channel.scale;
      if (!Number.isFinite(figure)) return 'figures';
      values[index] = figure;
    }
    return clock.isBackwards ? 'backwards' : null;
  }

  private figure(cell: string): number {
    return plainFigure(cell, 0, cell.length, this.point) ? lastFigure[0]! : logFigure(cell, this.mapping.decimal);
  }
}

/** A silence, told under the first channel, which stands for the line. */
function gapOf([rail]: readonly RailName[], atSeconds: number, lastsSeconds: number): LogEvent {
  return { rail: boundToBe(rail, 'channel'), kind: 'gap', atSeconds, lastsSeconds, volts: null, fromVolts: null };
}

/**
 * Reads a log in pieces of any size and sums it up in one pass, whatever its length.
 * @param mapping as `guessMapping` gives it, or as it was corrected
 * @param sink gets every row that could be read; its array is used again for the next row
 */
export function readLog(mapping: LogMapping, guide: Guide, sink?: LogSink): LogReader {
  return new Reading(mapping, guide, sink);
}
