import type { RailName } from '../standards/index.ts';

export const logEventKinds = ['dip', 'spike', 'step', 'gap', 'off'] as const;
export type LogEventKind = (typeof logEventKinds)[number];

/** Something that happened on a rail, in seconds from the log's start. */
export interface LogEvent {
  readonly rail: RailName;
  /**
   * `dip` and `spike`: outside its band; `step`: the level moved and stayed; `gap`: nothing was logged; `off`: the
   * supply was switched off, or had not been started.
   */
  readonly kind: LogEventKind;
  readonly atSeconds: number;
  readonly lastsSeconds: number;
  /** The extreme of a dip or spike, the level after a step, in volts; null for a gap and while off. */
  readonly volts: number | null;
  /** The level before a step, in volts. */
  readonly fromVolts: number | null;
}

/** One rail over the whole log. */
export interface LogChannel {
  readonly rail: RailName;
  readonly count: number;
  readonly meanVolts: number;
  readonly lowestVolts: number;
  readonly highestVolts: number;
  /** Deviation about the mean. */
  readonly deviationVolts: number;
  /**
   * Noise from one value to the next, free of steps and drift: deviation of the differences over the square root of 2,
   * the logger's rounding to its last digit taken out.
   */
  readonly noiseVolts: number;
  /** Slope over time, volts per hour. */
  readonly driftVoltsPerHour: number;
  readonly outsideSeconds: number;
  /** Lowest and highest in equal pieces of the log, with the second at which each piece starts. */
  readonly curve: {
    readonly seconds: readonly number[];
    readonly low: readonly number[];
    readonly high: readonly number[];
  };
}

export interface LogSummary {
  readonly rows: number;
  /** Rows that could not be read, by what was wrong with them. */
  readonly skipped: {
    readonly columns: number;
    readonly figures: number;
    readonly time: number;
    readonly backwards: number;
  };
  readonly lastsSeconds: number;
  readonly channels: readonly LogChannel[];
  /** The gravest first; at most `mostEvents`. */
  readonly events: readonly LogEvent[];
  readonly eventsInAll: number;
}

/** Why a log is not taken. `row` counts from the file's top, 1 first. */
export type LogProblem =
  | { readonly code: 'no-rows' }
  | { readonly code: 'no-time-column' }
  | { readonly code: 'no-rail-column' }
  | { readonly code: 'too-many-rows'; readonly most: number }
  | { readonly code: 'changing-columns'; readonly row: number; readonly share: number }
  | { readonly code: 'endless-row'; readonly row: number }
  | { readonly code: 'unreadable'; readonly row: number; readonly share: number }
  | { readonly code: 'time-backwards'; readonly row: number; readonly share: number };

export const mostLogRows = 1_000_000;
/** No logger has so many channels; a file that has is something else. */
export const mostLogColumns = 64;
export const mostEvents = 200;
/** More rows than this share that cannot be read, and the whole is doubted. */
export const toleratedShare = 0.05;
/** Pieces of the reduced curve: between half of this and this. */
export const curvePieces = 600;
