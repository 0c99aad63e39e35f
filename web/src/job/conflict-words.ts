import { proofText, type Act, type Job } from '@fairwatt/core';
import { fieldLabel } from '../controls/field-words.ts';

const partOf = (id: string, job: Job, theirs: Job) =>
  job.parts.find((part) => part.id === id)?.name ?? theirs.parts.find((part) => part.id === id)?.name ?? id;
const inletOf = (id: string, job: Job) =>
  job.parts.flatMap((part) => part.inlets).find((inlet) => inlet.id === id)?.label ?? id;

/** What an act is about, in words. */
export function subjectLabel(act: Act, job: Job, theirs: Job): string {
  switch (act.kind) {
    case 'edit-sheet':
      return Object.keys(act.changes).map(fieldLabel).join(', ');
    case 'put-part':
      return act.part.name;
    case 'drop-part':
      return partOf(act.partId, job, theirs);
    case 'put-supply':
    case 'drop-supply':
      return 'The present supply';
    case 'set-finding':
      return 'The finding';
    case 'set-choice':
      return 'The choice';
    case 'put-cable':
      return `Cable ${act.cable.label}`;
    case 'drop-cable':
    case 'swap-inlets':
      return `Cable ${theirs.cables.find((cable) => cable.id === act.cableId)?.label ?? ''}`;
    case 'put-seat':
      return `The plug at ${inletOf(act.seat.inletId, job)}`;
    case 'put-pin':
      return `The plug at ${inletOf(act.pin.inletId, job)}`;
    case 'drop-pin':
      return `The plug at ${inletOf(act.inletId, job)}`;
    case 'lay-cable':
      return 'The way a cable was laid';
    case 'order-steps':
      return 'The order of the steps';
    case 'note-outcome':
      return 'The answer to a check';
    case 'put-lead':
      return `The lead ${act.lead.what}`;
    case 'drop-lead':
      return `The lead ${theirs.leads.find(({ id }) => id === act.leadId)?.what ?? ''}`;
    case 'put-note':
    case 'drop-note':
      return 'A note';
    case 'mark-leads':
      return 'What became of leads';
    case 'note-proof':
    case 'drop-proof':
      return `Whether ${proofText[act.item]}`;
    case 'close':
    case 'reopen':
    case 'put-away':
      return 'Whether the job is closed';
    case 'put-probe':
    case 'drop-probe':
      return 'A probed cable';
    case 'put-log':
    case 'drop-log':
      return 'A log';
    default:
      return 'This change';
  }
}
