import { readingsOf } from './fitting.ts';
import { repairCheckId, type Observation } from '../diagnose/index.ts';
import type { LoadAssessment } from '../load/index.ts';
import {
  boardSensorId,
  isRail,
  judgeReadings,
  rippleRail,
  steadinessOf,
  whileRunning,
  type Condition,
  type Instrument,
  type Steadiness,
  type Verdict,
} from '../measure/index.ts';
import type { Guide } from '../standards/index.ts';
import type { Job, KeptLog, Phase } from './job.ts';
import { standingProof } from './proofs.ts';
import type { LoadLines } from './load-lines.ts';

/** Where an outcome came from; those not from the bench change by themselves with their cause. */
export type ObservationSource = 'bench' | 'intake' | 'measure' | 'load' | 'hand-over';

export interface SourcedObservation extends Observation {
  readonly source: ObservationSource;
  /** The noted outcome behind it; null when it was derived. */
  readonly notedId: string | null;
  /** Seen at another time than what the check says now; counts beside it. */
  readonly also?: true | undefined;
  /** An answer noted by hand that the derived one stands before. */
  readonly insteadOf?: { readonly notedId: string; readonly outcomeId: string } | undefined;
}

/**
 * What of a job the search for the fault is made from, and nothing else: who keeps its result computes it anew when one
 * of these changed.
 */
export interface FaultSource extends Pick<
  Job,
  'outcomes' | 'readings' | 'logs' | 'probes' | 'parts' | 'supply' | 'choice'
> {
  readonly button: string | null;
  readonly alsoTold: readonly string[];
  readonly course: string | null;
  readonly machineYears: number | null;
  readonly supplyYears: number | null;
  /** Another supply was fitted, and the complaint was tried and is still there. */
  readonly complaintStays: boolean;
}

export function faultSourceOf(job: Job): FaultSource {
  const { sheet, outcomes, readings, logs, probes, parts, supply, choice } = job;
  const { button, alsoTold, course, machineYears, supplyYears } = sheet;
  return {
    button,
    alsoTold,
    course,
    machineYears,
    supplyYears,
    complaintStays: choice?.kind === 'replace' && standingProof(job, 'complaint')?.holds === false,
    outcomes,
    readings,
    logs,
    probes,
    parts,
    supply,
    choice,
  };
}

/** Verdicts and steadiness of one phase. */
export interface MeasureResult {
  readonly phase: Phase;
  readonly guide: Guide;
  readonly verdicts: readonly Verdict[];
  readonly steadiness: readonly Steadiness[];
}

/** Judges the readings of a phase that were not struck, by the guide of the supply that was in the machine then. */
export function measureResult(
  job: Pick<Job, 'readings' | 'outcomes' | 'choice'>,
  phase: Phase,
  guide: Guide,
  instruments: readonly Instrument[],
): MeasureResult {
  const readings = readingsOf(job, phase);
  const started = phase === 'before' && wasToldToStart(job);
  const running = whileRunning(readings, guide, started);
  return {
    phase,
    guide,
    verdicts: judgeReadings(readings, instruments, guide, started),
    steadiness: (['+12', '+5', '+3.3'] as const).map((rail) => steadinessOf(rail, running, instruments, guide)),
  };
}

/** Its start line was tied and nothing came: rails that show nothing then speak for themselves. */
const wasToldToStart = ({ outcomes }: Pick<Job, 'outcomes'>) =>
  outcomes.some(
    ({ checkId, outcomeId, takenBackAt }) => checkId === 'm-offload' && outcomeId === 'nothing' && takenBackAt === null,
  );

function railsOutcome(verdicts: readonly Verdict[], conditions: readonly Condition[]): string | null {
  const found = verdicts.filter(
    (verdict) =>
      conditions.includes(verdict.condition) &&
      isRail(verdict.subject) &&
      verdict.subject !== '+5sb' &&
      verdict.reason !== 'not-started',
  );
  if (found.length === 0) return null;
  if (found.some((verdict) => verdict.word === 'fail')) return 'out';
  return found.some((verdict) => verdict.word === 'cannot-tell' || verdict.word === 'marginal') ? 'marginal' : 'in';
}

/** A supply is taken to be as old as its machine where nobody said otherwise. */
function ageOutcome(years: number | null): string | null {
  if (years === null) return null;
  if (years < 2) return 'under-2';
  if (years < 5) return '2-to-5';
  return years < 9 ? '5-to-9' : 'over-9';
}

function standbyOutcome(verdicts: readonly Verdict[]): string | null {
  const found = verdicts.filter((verdict) => verdict.subject === '+5sb');
  if (found.length === 0) return null;
  if (found.some((verdict) => verdict.reason === 'absent' || (verdict.mean !== null && verdict.mean < 1)))
    return 'absent';
  if (found.some((verdict) => verdict.reason === 'outside-high' || verdict.reason === 'too-high')) return 'high';
  return found.some((verdict) => verdict.reason === 'outside-low' || verdict.reason === 'too-low')
    ? 'low'
    : found.some((verdict) => verdict.word === 'pass')
      ? 'in'
      : null;
}

/** Ripple of any rail: one beyond its limit speaks, and only what passes at work speaks for the supply. */
function rippleOutcome(verdicts: readonly Verdict[]): string | null {
  const found = verdicts.filter(({ subject }) => rippleRail(subject) !== null);
  if (found.some(({ word }) => word === 'fail')) return 'high';
  const atWork = found.filter(({ condition }) => condition === 'work');
  return atWork.length > 0 && atWork.every(({ word }) => word === 'pass') ? 'in' : null;
}

function holdUpOutcome(verdicts: readonly Verdict[]): string | null {
  const found = verdicts.filter(({ subject }) => subject === 'hold-up');
  if (found.some(({ word }) => word === 'fail')) return 'short';
  return found.some(({ word, condition }) => word === 'pass' && condition === 'work') ? 'in' : null;
}

function powerGoodOutcome(verdicts: readonly Verdict[]): string | null {
  const found = verdicts.find((verdict) => verdict.subject === 'power-good');
  switch (found?.reason) {
    case 'inside':
    case 'slower-than-guide':
      return 'in';
    case 'outside-low':
    case 'sometimes-early':
    case 'too-low':
      return 'early';
    case 'outside-high':
    case 'sometimes-late':
    case 'too-high':
      return 'late';
    case 'absent':
      return 'absent';
    default:
      return null;
  }
}

/**
 * Steadiness from readings, from the load line and from logs: it sags where a reading at work or the line at the
 * machine's own load leaves the band, it wanders where repeats do or a log shows a positive rail outside its band.
 */
function steadinessOutcome(
  steadiness: readonly Steadiness[],
  lines: LoadLines,
  logs: readonly KeptLog[],
): string | null {
  const words = steadiness.map((item) => item.word);
  if (words.includes('sags') || lines.forecasts.some(({ present }) => present.word === 'will-fail')) return 'sags';
  const channels = logs.flatMap((log) => log.channels).filter((channel) => channel.rail !== '-12');
  if (words.includes('wanders') || channels.some((channel) => channel.outsideSeconds > 0)) return 'wanders';
  return words.includes('steady') ? 'steady' : null;
}

function loadOutcome(assessment: LoadAssessment | null): string | null {
  if (assessment === null || assessment.loadShare === null || assessment.word === 'cannot-tell') return null;
  const beyond = assessment.findings.filter((finding) => finding.word === 'beyond');
  if (beyond.some(({ moment }) => moment === 'lasting' || moment === 'spin-up')) return 'over-100';
  if (beyond.length > 0) return 'peaks';
  return assessment.loadShare > 0.8 ? 'to-100' : 'under-80';
}

/** What the readings say, check by check, each with the one instrument that was used for it; null where several were. */
function measuredOutcomes(
  job: FaultSource,
  measured: MeasureResult,
  lines: LoadLines,
): readonly (readonly [checkId: string, outcomeId: string | null, instrumentId: string | null])[] {
  const used = (conditions: readonly Condition[], subject: (name: Verdict['subject']) => boolean) => {
    const ids = new Set(
      job.readings
        .filter(
          (reading) =>
            reading.phase === measured.phase &&
            reading.struckAt === null &&
            reading.instrumentId !== boardSensorId &&
            conditions.includes(reading.condition) &&
            subject(reading.subject),
        )
        .map((reading) => reading.instrumentId),
    );
    const [only, ...more] = ids;
    return more.length > 0 ? null : (only ?? null);
  };
  const any: readonly Condition[] = ['off-load', 'idle', 'work'];
  const rail = (name: Verdict['subject']) => isRail(name) && name !== '+5sb';
  return [
    ['m-standby', standbyOutcome(measured.verdicts), used(any, (name) => name === '+5sb')],
    ['m-rails-off', railsOutcome(measured.verdicts, ['off-load', 'idle']), used(['off-load', 'idle'], rail)],
    ['m-rails-work', railsOutcome(measured.verdicts, ['work']), used(['work'], rail)],
    [
      'm-steady',
      steadinessOutcome(
        measured.steadiness,
        lines,
        job.logs.filter((log) => log.phase === measured.phase),
      ),
      used(any, rail),
    ],
    ['m-pg', powerGoodOutcome(measured.verdicts), used(any, (name) => name === 'power-good')],
    ['m-ripple', rippleOutcome(measured.verdicts), used(any, (name) => rippleRail(name) !== null)],
    ['m-hold-up', holdUpOutcome(measured.verdicts), used(any, (name) => name === 'hold-up')],
  ];
}

/**
 * All outcomes that count for the search: told at intake, derived from Measure (before) and Load (as it came), and
 * noted at the bench. A derived outcome stands in the place of a noted one of the same check.
 */
export function observationsOf(
  job: FaultSource,
  measured: MeasureResult,
  lines: LoadLines,
  load: LoadAssessment | null,
): SourcedObservation[] {
  const found: SourcedObservation[] = [];
  const noted = job.outcomes.filter((outcome) => outcome.takenBackAt === null);
  const add = (
    source: ObservationSource,
    checkId: string,
    outcomeId: string | null,
    instrumentId: string | null = null,
  ) => {
    if (outcomeId === null) return;
    const own = noted.find((outcome) => outcome.checkId === checkId);
    found.push({
      source,
      checkId,
      outcomeId,
      instrumentId,
      notedId: null,
      insteadOf: own === undefined ? undefined : { notedId: own.id, outcomeId: own.outcomeId },
    });
  };
  const addAlso = (checkId: string, outcomeId: string) =>
    found.push({ source: 'intake', checkId, outcomeId, notedId: null, also: true });
  add('intake', 'told-button', job.button);
  for (const outcomeId of job.alsoTold)
    if (job.button !== null && outcomeId !== job.button) addAlso('told-button', outcomeId);
  add('intake', 'told-course', job.course);
  add('intake', 'told-age', ageOutcome(job.supplyYears ?? job.machineYears));
  for (const [checkId, outcomeId, instrumentId] of measuredOutcomes(job, measured, lines))
    add('measure', checkId, outcomeId, instrumentId);
  // The supply that was fitted changed nothing: the search knows it without being told again.
  if (job.complaintStays) add('hand-over', repairCheckId('replace-supply'), 'same');
  add('load', 'c-load', loadOutcome(load));
  for (const own of noted) {
    if (!found.some((other) => other.checkId === own.checkId))
      found.push({
        source: 'bench',
        checkId: own.checkId,
        outcomeId: own.outcomeId,
        instrumentId: own.instrumentId,
        notedId: own.id,
        at: own.at,
      });
  }
  return found;
}
