export {
  boardSensorId,
  gives,
  type Instrument,
  type InstrumentKind,
  instrumentKinds,
  type MeterRange,
} from './instrument.ts';
export {
  type Condition,
  conditions,
  mostOther,
  mostRailVolts,
  isPossible,
  isRail,
  isTime,
  type MeasuredValue,
  type ReadingCode,
  readingCodes,
  type ReadingValue,
  rippleRail,
  type RippleSubject,
  type Subject,
  subjects,
  type TimeSubject,
} from './reading.ts';
export { type Scatter } from './scatter.ts';
export {
  judgeReadings,
  settlingInstruments,
  settlingReadings,
  type Verdict,
  type VerdictReason,
  type VerdictWord,
  whileRunning,
} from './verdict.ts';
export { type Steadiness, steadinessOf, type SteadinessWord } from './steadiness.ts';
export {
  type Doubt,
  doubtOf,
  missingRails,
  parseFigure,
  parseQuickEntry,
  type QuickEntry,
  type QuickProblem,
  type QuickReading,
} from './quick-entry.ts';
export { combinedHalfWidth, studentCdf, studentQuantile } from './student.ts';
export {
  type Bend,
  type CrossLoad,
  crossLoadOf,
  fitLoadLine,
  type Forecast,
  forecastAt,
  type Interval,
  type LoadLine,
  type LoadPoint,
  voltsAt,
} from './load-line.ts';
export {
  type GroundProof,
  type JudgedPin,
  judgeProbe,
  probedCode,
  type ProbedCode,
  type PinExpectation,
  type PinFinding,
  type ProbedPin,
  type ProbeVerdict,
  walkOf,
  type WalkPin,
} from './probe.ts';
export {
  guessMapping,
  type LogColumn,
  logFigure,
  type LogMapping,
  logSeconds,
  type LogShapeProblem,
  type TimeFormat,
  timeFormats,
} from './log-columns.ts';
export {
  curvePieces,
  type LogChannel,
  type LogEvent,
  logEventKinds,
  type LogProblem,
  type LogSummary,
  mostEvents,
  mostLogColumns,
  mostLogRows,
} from './log-summary.ts';
export { type LogReader, type LogSink, readLog } from './log-analysis.ts';
export { autoHold, hasMoved, type Held, holdCount } from './auto-hold.ts';
export { hearFigure, type HandsFree, nextTouch, stillTouching, takesHeld, type Touch, touched } from './hands-free.ts';
export { atOnce, look, type StillFigures } from './still-figures.ts';
export { hasSettled, longestSettlingMilliseconds, type TimedLook } from './settling.ts';
export {
  calmSweep,
  mostSweepSteps,
  sweepLimits,
  type SweepLook,
  type SweepPlan,
  sweepSteps,
  type SweepStop,
  type SweepWatch,
  watchSweep,
} from './sweep-plan.ts';
