import type { Act } from './act.ts';
import type { Job, ProofItem } from './job.ts';
import { laidWayOf } from './laid-ways.ts';
import { standingProof } from './proofs.ts';

/** What an act is about: two acts on one subject by two people can conflict, acts on different subjects never do. */
export function subjectOf(act: Act): string {
  switch (act.kind) {
    case 'edit-sheet':
      return 'sheet';
    case 'put-part':
      return `part:${act.part.id}`;
    case 'drop-part':
      return `part:${act.partId}`;
    case 'put-supply':
    case 'drop-supply':
      return 'supply';
    case 'note-outcome':
      return `check:${act.checkId}`;
    case 'take-back-outcome':
      return `outcome:${act.id}`;
    case 'take-reading':
      return `reading:${act.reading.id}`;
    case 'correct-reading':
      return `reading:${act.reading.replaces ?? act.reading.id}`;
    case 'strike-reading':
    case 'restore-reading':
      return `reading:${act.id}`;
    case 'put-probe':
      return `probe:${act.probe.id}`;
    case 'drop-probe':
      return `probe:${act.probeId}`;
    case 'put-log':
      return `log:${act.log.id}`;
    case 'drop-log':
      return `log:${act.logId}`;
    case 'set-finding':
      return 'finding';
    case 'set-choice':
      return 'choice';
    case 'put-cable':
      return `cable:${act.cable.id}`;
    case 'drop-cable':
    case 'swap-inlets':
      return `cable:${act.cableId}`;
    case 'put-pin':
      return `pin:${act.pin.inletId}`;
    case 'drop-pin':
      return `pin:${act.inletId}`;
    case 'put-seat':
      return `seat:${act.seat.inletId}`;
    case 'recheck-seats':
      return 'recheck';
    case 'tick-step':
    case 'untick-step':
      return `step:${act.stepId}`;
    case 'lay-cable':
      return `way:${act.cable}`;
    case 'order-steps':
      return `steps:${act.phase}`;
    case 'put-lead':
      return `lead:${act.lead.id}`;
    case 'drop-lead':
      return `lead:${act.leadId}`;
    case 'put-note':
      return `note:${act.note.id}`;
    case 'drop-note':
      return `note:${act.noteId}`;
    case 'mark-leads':
      return 'leads';
    case 'note-proof':
    case 'drop-proof':
      return `proof:${act.item}`;
    case 'sign-off':
      return `sign-off:${act.point}`;
    case 'withdraw-sign-off':
      return `sign-off-id:${act.id}`;
    case 'close':
    case 'reopen':
    case 'put-away':
      return 'state';
  }
}

/** All that an act may give another version: what it is about, and what changes along with it. */
export function changedBy(act: Act): readonly string[] {
  const own = subjectOf(act);
  switch (act.kind) {
    case 'mark-leads':
      return [own, ...act.leadIds.map((id) => `lead:${id}`)];
    case 'swap-inlets':
      return act.otherCableId === null ? [own] : [own, `cable:${act.otherCableId}`];
    default:
      return [own];
  }
}

/** What stands in a job under a subject that carries a version; null when nothing does. */
export function standingAt(job: Job, subject: string): { readonly version: number } | null {
  const [kind = '', ...rest] = subject.split(':');
  const id = rest.join(':');
  switch (kind) {
    case 'sheet':
      return job.sheet;
    case 'supply':
      return job.supply;
    case 'finding':
      return job.finding;
    case 'choice':
      return job.choice;
    case 'state':
      return { version: job.stateVersion };
    case 'part':
      return job.parts.find((item) => item.id === id) ?? null;
    case 'probe':
      return job.probes.find((item) => item.id === id) ?? null;
    case 'log':
      return job.logs.find((item) => item.id === id) ?? null;
    case 'cable':
      return job.cables.find((item) => item.id === id) ?? null;
    case 'pin':
      return job.pins.find((item) => item.inletId === id) ?? null;
    case 'seat':
      return job.seats.find((item) => item.inletId === id) ?? null;
    case 'steps':
      return job.stepOrders.find((item) => item.phase === id) ?? null;
    case 'way':
      return laidWayOf(job, id);
    case 'lead':
      return job.leads.find((item) => item.id === id) ?? null;
    case 'note':
      return job.notes.find((item) => item.id === id) ?? null;
    case 'proof':
      return standingProof(job, id as ProofItem);
    default:
      return null;
  }
}

/** Whether an act takes away what it is about, so that nothing with a version stands there afterwards. */
export function takesAway(act: Act): boolean {
  switch (act.kind) {
    case 'drop-part':
    case 'drop-supply':
    case 'drop-probe':
    case 'drop-log':
    case 'drop-cable':
    case 'drop-pin':
    case 'drop-proof':
    case 'drop-lead':
    case 'drop-note':
      return true;
    case 'set-finding':
      return act.finding === null;
    case 'set-choice':
      return act.choice === null;
    default:
      return false;
  }
}

/** The version of what an act is about, as a job has it; 0 where nothing stands there. */
export const versionAt = (job: Job, subject: string): number => standingAt(job, subject)?.version ?? 0;

/** The standing answer to a check, which a new one takes the place of. */
export const standingOutcome = (job: Job, checkId: string): string | null =>
  job.outcomes.findLast((outcome) => outcome.checkId === checkId && outcome.takenBackAt === null)?.id ?? null;

/** The same act, based on this version. */
export function withBase(act: Act, basedOn: number): Act {
  return 'basedOn' in act ? { ...act, basedOn } : act;
}

/** The same act as somebody makes it who sees the job as it stands here. */
export function basedOnStanding(act: Act, job: Job): Act {
  if (act.kind === 'note-outcome') return { ...act, instead: standingOutcome(job, act.checkId) };
  return withBase(act, versionAt(job, subjectOf(act)));
}
