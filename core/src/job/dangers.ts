import { barring, type DangerSign, type Interlock, type Powering } from '../diagnose/index.ts';
import { boardSensorId, isRail, judgeProbe, type Verdict } from '../measure/index.ts';
import { railBand, selectorIsWrong, type RailName } from '../standards/index.ts';
import type { Cabling } from './cabling.ts';
import type { Job, KeptLog, Phase } from './job.ts';
import type { MeasureResult } from './observations.ts';

/**
 * Is this rail too high, by more than the error, or by a tester's code? The negative rail is too high below its band.
 */
export function tooHigh({ subject, reason }: Verdict): boolean {
  if (!isRail(subject)) return false;
  return reason === 'too-high' || reason === (subject === '-12' ? 'outside-low' : 'outside-high');
}

function lastRead(job: Pick<Job, 'readings'>, phase: Phase, verdict: Verdict): string | null {
  return job.readings
    .filter(
      (reading) =>
        reading.phase === phase &&
        reading.struckAt === null &&
        reading.instrumentId !== boardSensorId &&
        reading.subject === verdict.subject &&
        reading.condition === verdict.condition,
    )
    .reduce<string | null>((last, reading) => (last === null || reading.at > last ? reading.at : last), null);
}

function railSigns(job: Pick<Job, 'readings'>, { phase, verdicts }: MeasureResult): DangerSign[] {
  return verdicts.filter(tooHigh).flatMap((verdict): DangerSign[] =>
    !isRail(verdict.subject)
      ? []
      : [
          {
            dangerId: phase === 'before' ? 'rail-high' : 'fitted-rail-high',
            cause: {
              kind: 'rail',
              rail: verdict.subject,
              volts: verdict.mean,
              limit: verdict.subject === '-12' ? verdict.lower : verdict.upper,
            },
            at: lastRead(job, phase, verdict),
          },
        ],
  );
}

/** What a logging meter is taken to err, as a share of the nominal voltage, since a log does not say (practice). */
const loggerErrorShare = 0.01;
/** So long a rail has to stay up to be too high and not a spike, in seconds (practice). */
const highForSeconds = 1;

/** How far beyond its limit a rail was over a whole log, or for a while in it; null where it was not. */
function highestLevel(log: KeptLog, rail: RailName, limit: number, sign: 1 | -1): number | null {
  const levels = [
    ...log.channels.filter((channel) => channel.rail === rail).map((channel) => channel.meanVolts),
    ...log.events.flatMap(({ rail: of, kind, volts, lastsSeconds }) =>
      of === rail && volts !== null && (kind === 'step' || lastsSeconds >= highForSeconds) ? [volts] : [],
    ),
  ];
  const highest = sign * Math.max(...levels.map((volts) => sign * volts));
  return levels.length > 0 && sign * (highest - limit) > 0 ? highest : null;
}

/** Rails that a log shows too high, for longer than a spike and by more than its meter may err. */
function logSigns(log: KeptLog, results: readonly MeasureResult[]): DangerSign[] {
  const guide = results.find((result) => result.phase === log.phase)?.guide ?? '2.x';
  return log.channels.flatMap(({ rail }): DangerSign[] => {
    const { lower, upper, nominal } = railBand(rail, guide);
    const [limit, sign] = rail === '-12' ? ([lower, -1] as const) : ([upper, 1] as const);
    const volts = highestLevel(log, rail, limit + sign * loggerErrorShare * Math.abs(nominal), sign);
    if (volts === null) return [];
    const dangerId = log.phase === 'before' ? 'rail-high' : 'fitted-rail-high';
    return [{ dangerId, cause: { kind: 'rail', rail, volts, limit }, at: log.at }];
  });
}

/** Dangers that no answer told: rails that are too high, read or logged, and cables whose probe walk found harm. */
export function measuredSigns(
  job: Pick<Job, 'readings' | 'probes' | 'logs'>,
  results: readonly MeasureResult[],
): DangerSign[] {
  return [
    ...results.flatMap((result) => railSigns(job, result)),
    ...job.logs.flatMap((log) => logSigns(log, results)),
    ...job.probes
      // A wrong wire is one by either guide.
      .filter((probe) => judgeProbe(probe.plug, probe.pins, '2.x').word === 'wrong')
      .map((probe): DangerSign => ({
        dangerId: 'harmful-cable',
        cause: { kind: 'probe', cable: probe.label },
        at: probe.at,
      })),
  ];
}

/** A voltage selector that came standing wrong for the shop's mains: set right before the lead goes in. */
export function selectorSigns({ supply }: Pick<Job, 'supply'>, mainsVolts: number): DangerSign[] {
  const stands = supply?.selector;
  if (stands === undefined || stands === 'none' || !selectorIsWrong(stands, mainsVolts)) return [];
  return [{ dangerId: 'selector', cause: { kind: 'selector', stands, mainsVolts }, at: null }];
}

/** Plugs that were seated where the check of cables says harm. */
export function cablingSigns(cabling: Cabling): DangerSign[] {
  return cabling.rows
    .filter((row) => row.state === 'wrong')
    .map((row) => ({ dangerId: 'wrong-plug', cause: { kind: 'plug', inlet: row.label }, at: null }));
}

/** What runs the machine when it is proved: the supply that was chosen, or the one that came. */
export const provingPower = (job: Job): Powering => (job.choice?.kind === 'replace' ? 'fitted' : 'machine');

/** The interlock that keeps a phase's readings from being taken; null when some of them may be. */
export function measuringBar(interlocks: readonly Interlock[], phase: Phase): Interlock | null {
  if (phase === 'after') return barring(interlocks, 'fitted');
  return barring(interlocks, 'supply') === null ? null : barring(interlocks, 'machine');
}
