import { barring, type DangerSign, type Interlock, type Powering } from '../diagnose/index.ts';
import { judgeProbe, type Verdict } from '../measure/index.ts';
import type { Cabling } from './cabling.ts';
import type { Job, Phase } from './job.ts';
import type { MeasureResult } from './observations.ts';

/** Is this rail too high, by more than the error, or by a tester's code? The negative rail is too high below its band. */
function tooHigh({ subject, reason }: Verdict): boolean {
  if (subject === 'power-good') return false;
  return reason === 'too-high' || reason === (subject === '-12' ? 'outside-low' : 'outside-high');
}

function lastRead(job: Pick<Job, 'readings'>, phase: Phase, verdict: Verdict): string | null {
  return job.readings
    .filter(
      (reading) =>
        reading.phase === phase &&
        reading.struckAt === null &&
        reading.subject === verdict.subject &&
        reading.condition === verdict.condition,
    )
    .reduce<string | null>((last, reading) => (last === null || reading.at > last ? reading.at : last), null);
}

function railSigns(job: Pick<Job, 'readings'>, { phase, verdicts }: MeasureResult): DangerSign[] {
  return verdicts.filter(tooHigh).flatMap((verdict): DangerSign[] =>
    verdict.subject === 'power-good'
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

/** Dangers that no answer told: rails that are too high, and cables whose probe walk found harm. */
export function measuredSigns(job: Pick<Job, 'readings' | 'probes'>, results: readonly MeasureResult[]): DangerSign[] {
  return [
    ...results.flatMap((result) => railSigns(job, result)),
    ...job.probes
      .filter((probe) => judgeProbe(probe.plug, probe.pins).word === 'wrong')
      .map((probe): DangerSign => ({
        dangerId: 'harmful-cable',
        cause: { kind: 'probe', cable: probe.label },
        at: probe.at,
      })),
  ];
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
