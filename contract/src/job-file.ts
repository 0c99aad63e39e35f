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

/**
 * One job as one file, with the supplies, instruments and technicians that it names, so that it can be read elsewhere.
 */
export const jobFileSchema = z
  .strictObject({
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
  })
  .superRefine((file, context) => {
    const say = (path: (string | number)[], message: string) => context.addIssue({ code: 'custom', path, message });
    const { job } = file;
    const inlets = job.parts.flatMap((part) => part.inlets.map((inlet) => inlet.id));
    inlets.forEach((inlet, index) => {
      if (inlets.indexOf(inlet) !== index) say(['job', 'parts'], `two inlets are called ${inlet}`);
    });
    const known = new Set(inlets);
    const once = (path: (string | number)[], ids: readonly string[], what: string) => {
      ids.forEach((id, index) => {
        if (ids.indexOf(id) !== index) say([...path, index], `${what} ${id} is named twice`);
      });
    };
    const idsOf = (list: readonly { readonly id: string }[]) => list.map((item) => item.id);
    once(['job', 'parts'], idsOf(job.parts), 'part');
    once(['job', 'outcomes'], idsOf(job.outcomes), 'answer');
    once(['job', 'readings'], idsOf(job.readings), 'reading');
    once(['job', 'probes'], idsOf(job.probes), 'probe');
    once(['job', 'logs'], idsOf(job.logs), 'log');
    once(['job', 'cables'], idsOf(job.cables), 'cable');
    once(['job', 'signOffs'], idsOf(job.signOffs), 'sign-off');
    once(
      ['job', 'steps'],
      job.steps.map((step) => step.stepId),
      'step',
    );
    once(
      ['job', 'pins'],
      job.pins.map((pin) => pin.inletId),
      'inlet',
    );
    once(
      ['job', 'seats'],
      job.seats.map((seat) => seat.inletId),
      'inlet',
    );
    once(
      ['job', 'stepOrders'],
      job.stepOrders.map((order) => order.phase),
      'phase',
    );
    once(['supplies'], idsOf(file.supplies), 'supply');
    once(['instruments'], idsOf(file.instruments), 'instrument');
    once(['technicians'], idsOf(file.technicians), 'technician');
    once(
      ['originals'],
      file.originals.map((original) => original.logId),
      'log',
    );
    const people = new Set(file.technicians.map((technician) => technician.id));
    const meters = new Set([boardSensorId, ...file.instruments.map((instrument) => instrument.id)]);
    const signed = (path: (string | number)[], by: string) => {
      if (!people.has(by)) say(path, `${by} is not among the technicians of this file`);
    };
    job.seats.forEach((seat, index) => {
      if (!known.has(seat.inletId)) say(['job', 'seats', index, 'inletId'], 'is not an inlet of this job');
      signed(['job', 'seats', index, 'by'], seat.by);
      if (seat.rechecked !== null) signed(['job', 'seats', index, 'rechecked', 'by'], seat.rechecked.by);
    });
    job.pins.forEach((pin, index) => {
      if (!known.has(pin.inletId)) say(['job', 'pins', index, 'inletId'], 'is not an inlet of this job');
      signed(['job', 'pins', index, 'by'], pin.by);
    });
    job.steps.forEach((step, index) => signed(['job', 'steps', index, 'by'], step.by));
    job.laidAside.forEach((work, index) => {
      for (const item of [...work.seats, ...work.pins, ...work.steps]) signed(['job', 'laidAside', index], item.by);
      for (const seat of work.seats)
        if (seat.rechecked !== null) signed(['job', 'laidAside', index], seat.rechecked.by);
    });
    once(
      ['job', 'laidAside'],
      job.laidAside.map((work) => work.fitting),
      'choice',
    );
    file.photos.forEach((photo, index) => {
      signed(['photos', index, 'by'], photo.by);
      if (file.photos.findIndex((other) => other.id === photo.id) !== index)
        say(['photos', index, 'id'], 'is the id of another picture');
    });
    job.cables.forEach((cable, index) =>
      cable.plugs.forEach((plug, position) => {
        if (plug.inletId !== null && !known.has(plug.inletId))
          say(['job', 'cables', index, 'plugs', position, 'inletId'], 'is not an inlet of this job');
      }),
    );
    job.readings.forEach((reading, index) => {
      if (!meters.has(reading.instrumentId))
        say(['job', 'readings', index, 'instrumentId'], 'is not among the instruments of this file');
      signed(['job', 'readings', index, 'by'], reading.by);
    });
    job.outcomes.forEach((outcome, index) => {
      if (outcome.instrumentId !== null && !meters.has(outcome.instrumentId))
        say(['job', 'outcomes', index, 'instrumentId'], 'is not among the instruments of this file');
      signed(['job', 'outcomes', index, 'by'], outcome.by);
    });
    job.logs.forEach((log, index) => signed(['job', 'logs', index, 'by'], log.by));
    file.originals.forEach((original, index) => {
      if (!job.logs.some((log) => log.id === original.logId))
        say(['originals', index, 'logId'], 'is not a log of this job');
    });
    job.probes.forEach((probe, index) => signed(['job', 'probes', index, 'by'], probe.by));
    job.laidWays.forEach((laid, index) => signed(['job', 'laidWays', index, 'by'], laid.by));
    once(
      ['job', 'laidWays'],
      job.laidWays.map(({ fitting, cable }) => `${cable} of ${fitting}`),
      'way',
    );
    job.leads.forEach((lead, index) => signed(['job', 'leads', index, 'by'], lead.by));
    once(['job', 'leads'], idsOf(job.leads), 'lead');
    if (job.updatedBy !== null) signed(['job', 'updatedBy'], job.updatedBy);
    job.notes.forEach((note, index) => signed(['job', 'notes', index, 'by'], note.by));
    once(['job', 'notes'], idsOf(job.notes), 'note');
    job.proofs.forEach((item, index) => signed(['job', 'proofs', index, 'by'], item.by));
    once(
      ['job', 'proofs'],
      job.proofs.map(({ item, subject }) => `${item} of ${subject}`),
      'proof',
    );
    job.signOffs.forEach((item, index) => signed(['job', 'signOffs', index, 'by'], item.by));
    if (job.finding) signed(['job', 'finding', 'by'], job.finding.by);
    if (job.closed) signed(['job', 'closed', 'by'], job.closed.by);
    if (job.putAway) signed(['job', 'putAway', 'by'], job.putAway.by);
    if ((job.state === 'away') !== (job.putAway !== null))
      say(['job', 'putAway'], 'a job that was put away names who did it, when and why; another does not');
    if ((job.state === 'closed') !== (job.closed !== null))
      say(['job', 'closed'], 'a closed job names who closed it and when, an open one does not');
    if (job.choice) {
      signed(['job', 'choice', 'by'], job.choice.by);
      if (job.choice.kind === 'replace' && !file.supplies.some((supply) => supply.id === job.choice!.modelId))
        say(['job', 'choice', 'modelId'], 'is not among the supplies of this file');
    }
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
