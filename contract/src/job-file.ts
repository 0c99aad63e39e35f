import { z } from 'zod';
import { jobSchema } from './job.ts';
import { mostPhotos, photoFileSchema } from './photo.ts';
import { uuid } from './primitives.ts';
import { instrumentSchema, technicianSchema } from './shop.ts';
import { supplyModelSchema } from './supply.ts';

export const jobFileFormat = 'fairwatt-job';
export const jobFileVersion = 1;
/** A log's file up to this size is kept as it came. */
export const mostOriginalBytes = 1_048_576;

/** One job as one file, with the supplies, instruments and technicians that it names, so that it can be read elsewhere. */
export const jobFileSchema = z
  .strictObject({
    format: z.literal(jobFileFormat),
    version: z.literal(jobFileVersion),
    exportedAt: z.iso.datetime({ precision: 3 }),
    job: jobSchema,
    supplies: z.array(supplyModelSchema).max(100),
    instruments: z.array(instrumentSchema).max(100),
    technicians: z.array(technicianSchema).max(200),
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
    const people = new Set(file.technicians.map((technician) => technician.id));
    const meters = new Set(file.instruments.map((instrument) => instrument.id));
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
    job.signOffs.forEach((item, index) => signed(['job', 'signOffs', index, 'by'], item.by));
    if (job.finding) signed(['job', 'finding', 'by'], job.finding.by);
    if (job.closed) signed(['job', 'closed', 'by'], job.closed.by);
    if ((job.state === 'closed') !== (job.closed !== null))
      say(['job', 'closed'], 'a closed job names who closed it and when, an open one does not');
    if (job.choice) {
      signed(['job', 'choice', 'by'], job.choice.by);
      if (job.choice.kind === 'replace' && !file.supplies.some((supply) => supply.id === job.choice!.modelId))
        say(['job', 'choice', 'modelId'], 'is not among the supplies of this file');
    }
  });
export type JobFile = z.infer<typeof jobFileSchema>;
