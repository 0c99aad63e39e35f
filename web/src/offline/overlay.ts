import { applyAct, subjectOf, versionAt, withBase, type ActContext, type Job } from '@fairwatt/core';
import type { Parcel } from './parcel.ts';

/**
 * The job as it will be when everything unsent has been sent. While a conflict is open the screen shows what was typed
 * here; anything else that was refused is not in it and is shown beside.
 */
export function overlay(job: Job, parcels: readonly Parcel[], knows: ActContext['knows']): Job {
  let shown = job;
  for (const parcel of parcels) {
    if (parcel.kind !== 'act' || parcel.code !== job.code || parcel.refused?.kind === 'other') continue;
    const context: ActContext = { by: parcel.by, at: parcel.at, knows, unansweredPoints: () => 0 };
    const act = withBase(parcel.act, versionAt(shown, subjectOf(parcel.act)));
    const { instead: _, ...free } = act.kind === 'note-outcome' ? act : { instead: undefined, ...act };
    const result = applyAct(shown, free, context);
    if (result.ok) shown = result.job;
  }
  return shown;
}
