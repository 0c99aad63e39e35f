import type { Act, Job } from '@fairwatt/core';

const fieldNames: Readonly<Record<string, string>> = {
  title: 'Machine',
  client: 'Client',
  words: "In the client's words",
  button: 'Pressing the button',
  course: 'How it has gone',
  surroundings: 'Surroundings',
  upgrade: 'Planned upgrade',
  watch: 'What to watch',
  leftInBag: 'Left in the bag',
  depthMillimetres: 'Room for the supply',
  machineYears: 'Age of the machine',
  supplyYears: 'Age of the supply',
  outcomeId: 'Answer',
  faultId: 'Fault',
  stepIds: 'Order',
};

/** A field as people read it: by its name on the screen, else its own name in words. */
export function fieldLabel(path: string): string {
  const named = fieldNames[path];
  if (named !== undefined) return named;
  const words = (path.split('.').at(-1) ?? path).replace(/([A-Z])/g, ' $1').toLowerCase();
  return words.charAt(0).toUpperCase() + words.slice(1);
}

export function valueText(value: unknown): string {
  if (value === null || value === undefined || value === '') return 'nothing';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (typeof value === 'string' || typeof value === 'number') return String(value);
  if (Array.isArray(value)) return value.length === 0 ? 'nothing' : value.map(valueText).join(', ');
  return Object.values(value as Record<string, unknown>)
    .map(valueText)
    .join(' ');
}

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
      return `Cable ${theirs.cables.find((cable) => cable.id === act.cableId)?.label ?? ''}`;
    case 'put-seat':
      return `The plug at ${inletOf(act.seat.inletId, job)}`;
    case 'put-pin':
      return `The plug at ${inletOf(act.pin.inletId, job)}`;
    case 'drop-pin':
      return `The plug at ${inletOf(act.inletId, job)}`;
    case 'order-steps':
      return 'The order of the steps';
    case 'note-outcome':
      return 'The answer to a check';
    case 'close':
    case 'reopen':
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
