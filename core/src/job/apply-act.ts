import type { Act, ActContext, ActKind, ActResult } from './act.ts';
import { cableActs } from './acts/cables.ts';
import { closingActs } from './acts/closing.ts';
import { Doing, refuse, type Doers } from './acts/doing.ts';
import { findingActs } from './acts/finding.ts';
import { intakeActs } from './acts/intake.ts';
import type { Job } from './job.ts';
import { jobLimits, overfull } from './limits.ts';

const doers: Doers<ActKind> = { ...intakeActs, ...findingActs, ...cableActs, ...closingActs };

/** Each act has its own doer, which the table's type says; that an act meets its own the compiler cannot follow. */
const doerOf = ({ kind }: Act) => doers[kind] as (act: Act, on: Doing) => ActResult;

/**
 * Applies an act to a job: the one place that says what an act does, for server, screen and import alike.
 * A job that is closed or put away takes only `reopen`. References to parts of the job or the shop must exist. Each act
 * that is done gives the job the next revision, which is the version of what it changed.
 */
export function applyAct(job: Job, act: Act, context: ActContext): ActResult {
  if (job.state !== 'open' && act.kind !== 'reopen') return refuse({ code: job.state });
  const result = doerOf(act)(act, new Doing(job, act, context));
  if (!result.ok) return result;
  const list = overfull(job, result.job);
  return list === null ? result : refuse({ code: 'limit', list, most: jobLimits[list] });
}
