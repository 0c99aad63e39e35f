import type { LoadFinding } from '../load/index.ts';
import { hasUsualOutputs } from '../machine/index.ts';
import type { Forecast, Instrument, Verdict } from '../measure/index.ts';
import type { Job } from './job.ts';
import type { JobView } from './view.ts';

/** What settles a "cannot tell". */
export type Settling =
  | 'enter-supply'
  | 'enter-rails'
  | 'read-label'
  | 'enter-parts'
  | 'measure-at-work'
  | 'measure-again'
  | 'confirm-fail'
  | 'say-what-hangs-where';

/** How the present supply stands, load and readings together. */
export type Standing =
  | {
      readonly word: 'failing';
      readonly verdict: Verdict | null;
      readonly faultId: string | null;
      readonly alsoTooSmall: LoadFinding | null;
    }
  /** `now`: already too small for the machine as it came. */
  | {
      readonly word: 'too-small';
      readonly now: boolean;
      readonly finding: LoadFinding | null;
      readonly forecast: Forecast | null;
    }
  | { readonly word: 'enough'; readonly tight: boolean; readonly finding: LoadFinding | null }
  | { readonly word: 'cannot-tell'; readonly settle: readonly Settling[] };

const mainRails: readonly string[] = ['+12', '+5', '+3.3'];

/**
 * The failing verdict that convicts: a figure read at least twice, or one beside a second failing figure. One fail
 * alone may be a slip of the probe, and a hand-held tester's code is its word only.
 */
export function convicting(verdicts: readonly Verdict[], instruments: readonly Instrument[]): Verdict | null {
  const kindOf = (id: string) => instruments.find((instrument) => instrument.id === id)?.kind;
  const byFigure = verdicts.filter(
    ({ word, expanded, instrumentId }) => word === 'fail' && expanded !== null && kindOf(instrumentId) !== 'tester',
  );
  return byFigure.find(({ count }) => count > 1) ?? (byFigure.length > 1 ? (byFigure[0] ?? null) : null);
}

/**
 * The verdict on the present supply: failing goes before too small, too small before "cannot tell". A supply is enough
 * only where load and readings at work both say so.
 * @param supplyFaultId the fault that was found whose cure is another supply; null where there is none
 */
export function standingOf(
  job: Job,
  view: Pick<JobView, 'before' | 'lines' | 'load'>,
  supplyFaultId: string | null,
  instruments: readonly Instrument[],
): Standing {
  const { presentAssessment, plannedAssessment } = view.load;
  const unread = job.supply !== null && hasUsualOutputs(job.supply.label);
  const beyond = plannedAssessment?.word === 'too-small' ? plannedAssessment.deciding : null;
  const failed = convicting(view.before.verdicts, instruments);
  if (failed !== null || supplyFaultId !== null)
    return {
      word: 'failing',
      verdict: failed,
      faultId: supplyFaultId,
      alsoTooSmall: beyond,
    };
  if (beyond !== null)
    return presentAssessment?.word === 'too-small'
      ? { word: 'too-small', now: true, finding: presentAssessment.deciding, forecast: null }
      : { word: 'too-small', now: false, finding: beyond, forecast: null };
  const willFail = view.lines.before.forecasts.find(({ planned }) => planned.word === 'will-fail');
  if (willFail !== undefined)
    return { word: 'too-small', now: willFail.present.word === 'will-fail', finding: null, forecast: willFail.planned };
  const settle: Settling[] = [];
  if (view.before.verdicts.some((verdict) => verdict.word === 'fail')) settle.push('confirm-fail');
  if (job.parts.length === 0) settle.push('enter-parts');
  if (job.supply === null) settle.push('enter-supply');
  else if (job.supply.label.rails.length === 0) settle.push('enter-rails');
  else if (unread) settle.push('read-label');
  else if (plannedAssessment?.word === 'cannot-tell' && job.parts.length > 0) settle.push('say-what-hangs-where');
  const atWork = view.before.verdicts.filter(
    (verdict) => verdict.condition === 'work' && mainRails.includes(verdict.subject),
  );
  if (!mainRails.every((rail) => atWork.some((verdict) => verdict.subject === rail))) settle.push('measure-at-work');
  else if (atWork.some((verdict) => verdict.word === 'cannot-tell')) settle.push('measure-again');
  if (settle.length > 0 || plannedAssessment === null) return { word: 'cannot-tell', settle };
  return { word: 'enough', tight: plannedAssessment.word === 'tight', finding: plannedAssessment.deciding };
}
