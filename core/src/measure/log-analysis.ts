import type { Guide, RailName } from '../standards/index.ts';
import { Channel, gravity } from './log-channel.ts';
import { lastFigure, logFigure, logSeconds, plainFigure, type LogMapping } from './log-columns.ts';
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

/**
 * Reads a log in pieces of any size and sums it up in one pass, whatever its length.
 * @param mapping as `guessMapping` gives it, or as it was corrected
 * @param sink gets every row that could be read; its array is used again for the next row
 */
export function readLog(mapping: LogMapping, guide: Guide, sink?: LogSink): LogReader {
  const timeColumn = mapping.columns.findIndex((column) => column.holds === 'time');
  const time = mapping.columns[timeColumn];
  const format = time?.holds === 'time' ? time.format : 'seconds';
  const firstRail = mapping.columns.findIndex((column) => column.holds === 'rail');
  const channels = mapping.columns.flatMap((column, index) =>
    column.holds === 'rail'
      ? [new Channel(column.rail, index, column.unit === 'mV' ? 0.001 : 1, guide, index === firstRail)]
      : [],
  );
  const { decimal } = mapping;
  const width = mapping.columns.length;
  const values = new Float64Array(channels.length);
  const skipped = { columns: 0, figures: 0, time: 0, backwards: 0 };
  const first = { columns: 0, figures: 0, time: 0, backwards: 0 };
  const gaps: LogEvent[] = [];
  let seen = 0;
  let rows = 0;
  // Start, last time and usual step; in an array, since a figure in a closure's variable is an object anew at every
  // row.
  const clock = new Float64Array([Number.NaN, -Infinity, 0]);
  let midnights = 0;
  let emptyPieces = 0;
  const point = decimal === ',' ? 44 : 46;
  const skip = (why: keyof typeof skipped): void => {
    skipped[why] += 1;
    if (first[why] === 0) first[why] = seen;
  };
  function take(row: readonly string[]): void {
    if (row.length < width && !(row.length === width - 1)) {
      if (row.length <= 1 && (row[0] ?? '').trim() === '') return;
      skip('columns');
      return;
    }
    let seconds = logSeconds(trimmed(row[timeColumn] ?? ''), format, decimal);
    if (!Number.isFinite(seconds)) {
      skip('time');
      return;
    }
    if (format === 'clock') {
      // A time of day starts over at midnight.
      if (seconds + midnights * 86_400 < clock[1]! - 43_200) midnights += 1;
      seconds += midnights * 86_400;
    }
    for (let index = 0; index < channels.length; index += 1) {
      const channel = channels[index]!;
      const cell = row[channel.column] ?? '';
      const figure =
        (plainFigure(cell, 0, cell.length, point) ? lastFigure[0]! : logFigure(cell, decimal)) * channel.scale;
      if (!Number.isFinite(figure)) {
        skip('figures');
        return;
      }
      values[index] = figure;
    }
    if (seconds < clock[1]!) {
      skip('backwards');
      return;
    }
    if (rows === 0) clock[0] = seconds;
    const from = seconds - clock[0]!;
    const step = rows === 0 ? 0 : seconds - clock[1]!;
    if (rows > 20 && step > 20 * clock[2]! && step > 5)
      gaps.push({
        rail: channels[0]!.rail,
        kind: 'gap',
        atSeconds: clock[1]! - clock[0]!,
        lastsSeconds: step,
        volts: null,
        fromVolts: null,
      });
    clock[2] = rows === 1 ? step : clock[2]! + (step - clock[2]!) * 0.02;
    clock[1] = seconds;
    rows += 1;
    for (let index = 0; index < channels.length; index += 1) channels[index]!.add(from, values[index]!);
    sink?.(from, values);
  }
  function doubt(): LogProblem | null {
    const share = (count: number) => count / Math.max(1, seen - mapping.headerRows);
    if (share(skipped.columns) > toleratedShare)
      return { code: 'changing-columns', row: first.columns, share: share(skipped.columns) };
    if (share(skipped.backwards) > toleratedShare)
      return { code: 'time-backwards', row: first.backwards, share: share(skipped.backwards) };
    if (share(skipped.figures + skipped.time) > toleratedShare)
      return {
        code: 'unreadable',
        row: first.time === 0 ? first.figures : first.figures === 0 ? first.time : Math.min(first.time, first.figures),
        share: share(skipped.figures + skipped.time),
      };
    return null;
  }
  return {
    rails: channels.map((channel) => channel.rail),
    push(list) {
      if (timeColumn < 0) return { code: 'no-time-column' };
      if (channels.length === 0) return { code: 'no-rail-column' };
      emptyPieces = list.length === 0 ? emptyPieces + 1 : 0;
      if (emptyPieces > 1) return { code: 'endless-row', row: seen + 1 };
      for (const row of list) {
        seen += 1;
        if (seen <= mapping.headerRows) continue;
        take(row);
        if (rows > mostLogRows) return { code: 'too-many-rows', most: mostLogRows };
      }
      return seen > 5000 ? doubt() : null;
    },
    finish() {
      if (timeColumn < 0) return { ok: false, problem: { code: 'no-time-column' } };
      if (channels.length === 0) return { ok: false, problem: { code: 'no-rail-column' } };
      const problem = doubt() ?? (rows === 0 ? { code: 'no-rows' as const } : null);
      if (problem !== null) return { ok: false, problem };
      const summed = channels.map((channel) => channel.finish(clock[1]! - clock[0]!));
      const events = [...channels.flatMap((channel) => channel.events), ...gaps].sort(
        (a, b) => gravity(b) - gravity(a) || a.atSeconds - b.atSeconds,
      );
      return {
        ok: true,
        summary: {
          rows,
          skipped,
          lastsSeconds: clock[1]! - clock[0]!,
          channels: summed,
          events: events.slice(0, mostEvents),
          eventsInAll: channels.reduce((sum, channel) => sum + channel.found, gaps.length),
        },
      };
    },
  };
}
