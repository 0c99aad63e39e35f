import { z } from 'zod';
import { boardSensorId } from '@fairwatt/core';
import { jobSchema } from './job.ts';
import { mostPhotos, photoFileSchema } from './photo.ts';
import { instant, uuid } from './primitives.ts';
import { instrumentSchema, namedPersonSchema } from './shop.ts';
import { supplyModelSchema } from './supply.ts';

export const jobFileFormat = 'fairwatt-job';
export const jobFileVersion = 2;
/** A log's file up to this size is kept as it came. */
export const mostOriginalBytes = 1_048_576;

const contentSchema = z.strictObject({
  format: z.literal(jobFileFormat),
  version: z.literal(jobFileVersion),
  exportedAt: instant,
  job: jobSchema,
  supplies: z.array(supplyModelSchema).max(100),
  instruments: z.array(instrumentSchema).max(100),
  technicians: z.array(namedPersonSchema).max(200),
  /** Files of logging meters that were kept, by the log they belong to. */
  photos: z.array(photoFileSchema).max(mostPhotos).default([]),
  originals: z
    .array(z.strictObject({ logId: uuid, text: z.string().max(mostOriginalBytes) }))
    .max(20)
    .default([]),
});
type Content = z.infer<typeof contentSchema>;
type Say = (path: (string | number)[], message: string) => void;

const idsOf = (list: readonly { readonly id: string }[]) => list.map((item) => item.id);

/** What bears an id of its own bears it once. */
function sayTwice(file: Content, say: Say): void {
  const { job } = file;
  const once = (path: string[], ids: readonly string[], what: string) => {
    ids.forEach((id, index) => {
      if (ids.indexOf(id) !== index) say([...path, index], `${what} ${id} is named twice`);
    });
  };
  const inlets = job.parts.flatMap((part) => idsOf(part.inlets));
  inlets.forEach((inlet, index) => {
    if (inlets.indexOf(inlet) !== index) say(['job', 'parts'], `two inlets are called ${inlet}`);
  });
  const ofJob: readonly (readonly [keyof Content['job'], readonly string[], string])[] = [
    ['parts', idsOf(job.parts), 'part'],
    ['outcomes', idsOf(job.outcomes), 'answer'],
    ['readings', idsOf(job.readings), 'reading'],
    ['probes', idsOf(job.probes), 'probe'],
    ['logs', idsOf(job.logs), 'log'],
    ['cables', idsOf(job.cables), 'cable'],
    ['signOffs', idsOf(job.signOffs), 'sign-off'],
    ['steps', job.steps.map((step) => step.stepId), 'step'],
    ['pins', job.pins.map((pin) => pin.inletId), 'inlet'],
    ['seats', job.seats.map((seat) => seat.inletId), 'inlet'],
    ['stepOrders', job.stepOrders.map((order) => order.phase), 'phase'],
    ['laidAside', job.laidAside.map((work) => work.fitting), 'choice'],
    ['laidWays', job.laidWays.map(({ fitting, cable }) => `${cable} of ${fitting}`), 'way'],
    ['leads', idsOf(job.leads), 'lead'],
    ['notes', idsOf(job.notes), 'note'],
    ['proofs', job.proofs.map(({ item, subject }) => `${item} of ${subject}`), 'proof'],
  ];
  for (const [field, ids, what] of ofJob) once(['job', field], ids, what);
  once(['supplies'], idsOf(file.supplies), 'supply');
  once(['instruments'], idsOf(file.instruments), 'instrument');
  once(['technicians'], idsOf(file.technicians), 'technician');
  const logs = file.originals.map((original) => original.logId);
  once(['originals'], logs, 'log');
  file.photos.forEach((photo, index) => {
    if (file.photos.findIndex((other) => other.id === photo.id) !== index)
      say(['photos', index, 'id'], 'is the id of another picture');
  });
}

/** Whoever signed something is among the technicians of the file. */
function sayUnsigned({ job, photos, technicians }: Content, say: Say): void {
  const people = new Set(idsOf(technicians));
  const signed = (path: (string | number)[], by: string) => {
    if (!people.has(by)) say(path, `${by} is not among the technicians of this file`);
  };
  const lists = {
    seats: job.seats,
    pins: job.pins,
    steps: job.steps,
    readings: job.readings,
    outcomes: job.outcomes,
    logs: job.logs,
    probes: job.probes,
    laidWays: job.laidWays,
    leads: job.leads,
    notes: job.notes,
    proofs: job.proofs,
    signOffs: job.signOffs,
  };
  for (const [field, list] of Object.entries(lists))
    list.forEach(({ by }, index) => signed(['job', field, index, 'by'], by));
  job.seats.forEach(({ rechecked }, index) => {
    if (rechecked !== null) signed(['job', 'seats', index, 'rechecked', 'by'], rechecked.by);
  });
  job.laidAside.forEach((work, index) => {
    for (const item of [...work.seats, ...work.pins, ...work.steps]) signed(['job', 'laidAside', index], item.by);
    for (const seat of work.seats) if (seat.rechecked !== null) signed(['job', 'laidAside', index], seat.rechecked.by);
  });
  photos.forEach((photo, index) => signed(['photos', index, 'by'], photo.by));
  if (job.updatedBy !== null) signed(['job', 'updatedBy'], job.updatedBy);
  if (job.finding) signed(['job', 'finding', 'by'], job.finding.by);
  if (job.closed) signed(['job', 'closed', 'by'], job.closed.by);
  if (job.putAway) signed(['job', 'putAway', 'by'], job.putAway.by);
  if (job.choice) signed(['job', 'choice', 'by'], job.choice.by);
}

/** What the job speaks of by its id is in the job, or in the file. */
function sayUnknown(file: Content, say: Say): void {
  const { job } = file;
  const inlets = new Set(job.parts.flatMap((part) => idsOf(part.inlets)));
  const meters = new Set([boardSensorId, ...idsOf(file.instruments)]);
  for (const field of ['seats', 'pins'] as const)
    job[field].forEach(({ inletId }, index) => {
      if (!inlets.has(inletId)) say(['job', field, index, 'inletId'], 'is not an inlet of this job');
    });
  job.cables.forEach((cable, index) =>
    cable.plugs.forEach((plug, position) => {
      if (plug.inletId !== null && !inlets.has(plug.inletId))
        say(['job', 'cables', index, 'plugs', position, 'inletId'], 'is not an inlet of this job');
    }),
  );
  for (const field of ['readings', 'outcomes'] as const)
    job[field].forEach(({ instrumentId }, index) => {
      if (instrumentId !== null && !meters.has(instrumentId))
        say(['job', field, index, 'instrumentId'], 'is not among the instruments of this file');
    });
  file.originals.forEach((original, index) => {
    if (!job.logs.some((log) => log.id === original.logId))
      say(['originals', index, 'logId'], 'is not a log of this job');
  });
  const { choice } = job;
  if (choice?.kind === 'replace' && !file.supplies.some((supply) => supply.id === choice.modelId))
    say(['job', 'choice', 'modelId'], 'is not among the supplies of this file');
}

/** A job's state goes with what is said of its end. */
function sayState({ job }: Content, say: Say): void {
  if ((job.state === 'away') !== (job.putAway !== null))
    say(['job', 'putAway'], 'a job that was put away names who did it, when and why; another does not');
  if ((job.state === 'closed') !== (job.closed !== null))
    say(['job', 'closed'], 'a closed job names who closed it and when, an open one does not');
}

/**
 * One job as one file, with the supplies, instruments and technicians that it names, so that it can be read elsewhere.
 */
export const jobFileSchema = contentSchema.superRefine((file, context) => {
  const say: Say = (path, message) => context.addIssue({ code: 'custom', path, message });
  sayTwice(file, say);
  sayUnsigned(file, say);
  sayUnknown(file, say);
  sayState(file, say);
});
export type JobFile = z.infer<typeof jobFileSchema>;

/**
 * What a file of version 1 lacks: its versions counted each thing by itself, so the job's revision is past them all.
 */
function fromVersion1(file: Record<string, unknown>): Record<string, unknown> {
  const job = file['job'];
  if (typeof job !== 'object' || job === null) return { ...file, version: 2 };
  const versions: number[] = [1];
  const gather = (value: unknown): void => {
    if (typeof value !== 'object' || value === null) return;
    for (const [key, inner] of Object.entries(value)) {
      if ((key === 'version' || key === 'stateVersion') && typeof inner === 'number') versions.push(inner);
      else gather(inner);
    }
  };
  gather(job);
  const sheet = 'sheet' in job && typeof job.sheet === 'object' ? job.sheet : {};
  return {
    ...file,
    version: 2,
    job: {
      ...job,
      revision: versions.reduce((most, value) => Math.max(most, value)),
      sheet: { ...sheet, fieldRevisions: {} },
    },
  };
}

/** A job file of any version that was ever written, as one of the present version; not yet looked at otherwise. */
export function presentJobFile(input: unknown): unknown {
  if (typeof input !== 'object' || input === null || Array.isArray(input)) return input;
  const file = input as Record<string, unknown>;
  return file['version'] === 1 ? fromVersion1(file) : file;
}
