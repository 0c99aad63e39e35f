import { z } from 'zod';
import {
  excursionKinds,
  cableBagStates,
  measuredKinds,
  phases,
  logEventKinds,
  findingKinds,
  caseLayouts,
  casePlaces,
  conditions,
  figureSources,
  cameAlongKinds,
  hindrances,
  oldSupplies,
  priorities,
  inletKinds,
  noWants,
  mostEvents,
  mostFoundLegs,
  mostLogRows,
  partChanges,
  mainsSelectors,
  plugKinds,
  leadKinds,
  leadStates,
  proofItems,
  railNames,
  readingCodes,
  schools,
  standardInletKinds,
  jobStates,
  shapes,
  jobLimits,
  stepPhases,
  subjects,
  isRail,
  type Job,
  type JobPart,
  type PowerFigures,
  type ReadingValue,
  type SheetField,
  type Subject,
  mostOther,
  mostRailVolts,
} from '@fairwatt/core';
import { choiceFields, isOfItsKind, notOfItsKind } from './choice.ts';
import { figure, id, instant, jobCode, line, text, uuid, version } from './primitives.ts';
import { dayProfileSchema, supplyLabelSchema, wantsSchema } from './supply.ts';

const watts = figure(0, 5000);
export const figuresSchema = z
  .strictObject({
    lowWatts: watts,
    likelyWatts: watts,
    highWatts: watts,
    idleWatts: watts,
    shortWatts: watts,
    spinUpAmps: figure(0, 20),
    spinUpAmps5: figure(0, 20).default(0),
    slotWatts: figure(0, 66).nullable().default(null),
    share12: figure(0, 1),
    share5: figure(0, 1),
    share33: figure(0, 1),
    excursion: z.enum(excursionKinds),
    standbyWatts: figure(0, 60).default(0),
    source: z.enum(figureSources).default('class'),
  })
  .superRefine((value, context) => {
    const say = (path: string, message: string) => context.addIssue({ code: 'custom', path: [path], message });
    if (Math.abs(value.share12 + value.share5 + value.share33 - 1) > 0.005)
      say('share12', 'the shares on +12, +5 and +3.3 add up to 1');
    if (value.lowWatts > value.likelyWatts) say('lowWatts', 'low is not above likely');
    if (value.highWatts < value.likelyWatts) say('highWatts', 'high is not below likely');
    if (value.shortWatts < value.likelyWatts) say('shortWatts', 'for seconds is not below lasting');
  }) satisfies z.ZodType<PowerFigures>;

const inlet = z.strictObject({
  id,
  kind: z.enum(inletKinds),
  label: line(40),
  optional: z.boolean(),
  place: z.enum(casePlaces).optional(),
  wayMillimetres: figure(0, 3000).optional(),
  watts: figure(1, 700).optional(),
});
const partFields = {
  id,
  classId: id,
  name: line(80),
  quantity: z.int('a whole number').min(1, 'at least 1').max(64, 'at most 64'),
  change: z.enum(partChanges),
  figures: figuresSchema,
  inlets: z.array(inlet).max(8),
};
const oneWithInlets = (part: { quantity: number; inlets: readonly unknown[] }, context: z.RefinementCtx) => {
  if (part.quantity > 1 && part.inlets.length > 0)
    context.addIssue({ code: 'custom', path: ['quantity'], message: 'a part with inlets is entered one by one' });
};
export const partSchema = z
  .strictObject({ ...partFields, version })
  .superRefine(oneWithInlets) satisfies z.ZodType<JobPart>;
export const newPartSchema = z.strictObject(partFields).superRefine(oneWithInlets);

export const readingValueSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('figure'), figure: figure(-mostOther, mostOther) }),
  z.strictObject({ kind: z.literal('code'), code: z.enum(readingCodes) }),
]) satisfies z.ZodType<ReadingValue>;

const voltsInReach = (reading: { subject: Subject; value: ReadingValue }, context: z.RefinementCtx) => {
  if (isRail(reading.subject) && reading.value.kind === 'figure' && Math.abs(reading.value.figure) > mostRailVolts) {
    context.addIssue({
      code: 'custom',
      path: ['value', 'figure'],
      message: "a supply's output is never above 60 V: check meter and pin",
    });
  }
};
/** What is read now; what was kept before there was a limit stays. */
const canBeRead = (reading: { subject: Subject; value: ReadingValue }, context: z.RefinementCtx) => {
  voltsInReach(reading, context);
  const { subject, value } = reading;
  if (!isRail(subject) && value.kind === 'figure' && value.figure < 0)
    context.addIssue({ code: 'custom', path: ['value', 'figure'], message: 'not below 0' });
};

/** Why a job was put away; somebody will ask. */
export const putAwayReason = line(200);

export const sheetFields = {
  title: line(80),
  client: text(80),
  words: text(1000),
  button: id.nullable(),
  alsoTold: z
    .array(id)
    .max(9)
    .refine((told) => new Set(told).size === told.length, 'each once'),
  course: id.nullable(),
  surroundings: text(500),
  machineYears: figure(0, 60).nullable(),
  supplyYears: figure(0, 60).nullable(),
  upgrade: text(500),
  cableBag: z.enum(cableBagStates).nullable(),
  layout: z.enum(caseLayouts),
  shapes: z.array(z.enum(shapes)).min(1, 'at least one shape').max(7),
  depthMillimetres: figure(50, 600).nullable(),
  school: z.enum(schools),
  watch: text(1000),
  leftInBag: text(1000),
  schoolNote: text(300),
  cardAdviceWatts: figure(1, 5000).nullable(),
  staggeredStart: z.boolean(),
  measuredLoad: z.strictObject({ kind: z.enum(measuredKinds), figure: figure(0, 5000), used: z.boolean() }).nullable(),
  day: dayProfileSchema.nullable(),
  keepYears: figure(0.5, 30).nullable(),
  wants: wantsSchema,
  ownHoles: z.boolean(),
  ventClosed: z.boolean(),
  hindrances: z.array(z.enum(hindrances)).max(hindrances.length),
  reach: text(200),
  serial: text(60),
  fittedSerial: text(60),
  cameAlong: z.array(z.enum(cameAlongKinds)).max(cameAlongKinds.length),
  cameAlongNote: text(200),
  inCharge: id.nullable(),
  priority: z.enum(priorities),
  promisedOn: z.iso
    .date()
    .refine((value) => value >= '1970' && value < '2500', 'is not a day of these days')
    .nullable(),
  usualAs: text(60),
  oldSupply: z.enum(oldSupplies).nullable(),
  oldSupplyNote: text(200),
  oldSupplyDisposed: z.boolean(),
  bareSupply: z.boolean(),
};
/** What a sheet from before these fields says in their place: nothing. */
const laterFields = {
  schoolNote: sheetFields.schoolNote.default(''),
  cardAdviceWatts: sheetFields.cardAdviceWatts.default(null),
  staggeredStart: sheetFields.staggeredStart.default(false),
  measuredLoad: sheetFields.measuredLoad.default(null),
  day: sheetFields.day.default(null),
  keepYears: sheetFields.keepYears.default(null),
  wants: sheetFields.wants.default({ ...noWants, protections: [] }),
  ownHoles: sheetFields.ownHoles.default(false),
  ventClosed: sheetFields.ventClosed.default(false),
  hindrances: sheetFields.hindrances.default([]),
  reach: sheetFields.reach.default(''),
  serial: sheetFields.serial.default(''),
  fittedSerial: sheetFields.fittedSerial.default(''),
  cameAlong: sheetFields.cameAlong.default([]),
  cameAlongNote: sheetFields.cameAlongNote.default(''),
  inCharge: sheetFields.inCharge.default(null),
  priority: sheetFields.priority.default('usual'),
  promisedOn: sheetFields.promisedOn.default(null),
  usualAs: sheetFields.usualAs.default(''),
  oldSupply: sheetFields.oldSupply.default(null),
  oldSupplyNote: sheetFields.oldSupplyNote.default(''),
  oldSupplyDisposed: sheetFields.oldSupplyDisposed.default(false),
  bareSupply: sheetFields.bareSupply.default(false),
  alsoTold: sheetFields.alsoTold.default([]),
};
const fieldRevisionsSchema = z.partialRecord(
  z.enum(Object.keys(sheetFields) as [SheetField, ...SheetField[]]),
  version,
);
const signed = { by: id, at: instant };

export const presentSupplyFields = {
  name: text(80),
  label: supplyLabelSchema,
  selector: z.enum(mainsSelectors).optional(),
};
export const readingFields = {
  id: uuid,
  phase: z.enum(phases),
  subject: z.enum(subjects),
  condition: z.enum(conditions),
  value: readingValueSchema,
  instrumentId: id,
  loadWatts: figure(0, 5000).nullable(),
  loadAmps: figure(0, 400).nullable().default(null),
  pin: z
    .strictObject({ plug: z.enum(standardInletKinds), pin: z.int().min(1).max(24) })
    .nullable()
    .default(null),
  replaces: uuid.nullable().default(null),
  note: text(300),
};
export const newReadingSchema = z.strictObject(readingFields).superRefine(canBeRead);
export const probeFields = {
  id: uuid,
  label: line(40),
  plug: z.enum(standardInletKinds),
  note: text(300),
  pins: z
    .array(
      z.strictObject({
        pin: z.int().min(1).max(24),
        value: readingValueSchema,
        ground: z
          .discriminatedUnion('kind', [
            z.strictObject({ kind: z.literal('rail'), volts: figure(-60, 60) }),
            z.strictObject({ kind: z.literal('continuity'), heard: z.boolean() }),
          ])
          .optional(),
      }),
    )
    .max(24)
    .refine((pins) => new Set(pins.map((item) => item.pin)).size === pins.length, 'a pin is named twice'),
};
const logVolts = figure(-10_000, 10_000);
const curve = z.array(z.number()).max(1200);
export const logFields = {
  id: uuid,
  name: line(120),
  phase: z.enum(phases),
  rows: z.int().min(1).max(mostLogRows),
  skipped: z.int().min(0),
  lastsSeconds: figure(0, 1e9),
  eventsInAll: z.int().min(0),
  channels: z
    .array(
      z.strictObject({
        rail: z.enum(railNames),
        count: z.int().min(1),
        meanVolts: logVolts,
        lowestVolts: logVolts,
        highestVolts: logVolts,
        deviationVolts: figure(0, 10_000),
        noiseVolts: figure(0, 10_000),
        driftVoltsPerHour: z.number(),
        outsideSeconds: figure(0, 1e9),
        curve: z
          .strictObject({ seconds: curve, low: curve, high: curve })
          .refine(
            (value) => value.seconds.length === value.low.length && value.low.length === value.high.length,
            'seconds, low and high are of one length',
          ),
      }),
    )
    .min(1)
    .max(5),
  events: z
    .array(
      z.strictObject({
        rail: z.enum(railNames),
        kind: z.enum(logEventKinds),
        atSeconds: z.number(),
        lastsSeconds: figure(0, 1e9),
        volts: logVolts.nullable(),
        fromVolts: logVolts.nullable(),
      }),
    )
    .max(mostEvents),
};
export const findingFields = {
  kind: z.enum(findingKinds),
  faultId: id.nullable(),
  alsoFaultId: id.nullable().default(null),
  confirmed: z.boolean(),
  note: text(1000),
};
const foundAdapterFields = z.strictObject({
  gives: z.enum(plugKinds),
  legs: z.int().min(1).max(mostFoundLegs),
  moulded: z.boolean(),
});
export const cableFields = {
  id: uuid,
  label: line(20),
  socketLabel: text(60),
  plugs: z
    .array(z.strictObject({ kind: z.enum(plugKinds), inletId: id.nullable(), through: foundAdapterFields.optional() }))
    .min(1, 'a cable has at least one plug')
    .max(8),
  way: text(300),
  tiesToCut: z.int().min(0).max(99),
  likely: z.boolean().optional(),
};
const kitCableId = line(80);
export const pinFields = {
  inletId: id,
  kitCableId,
  copy: z.int().min(0).max(63),
  plugIndex: z.int().min(0).max(7),
  socketLabel: line(60).nullable(),
  adapterId: id.optional(),
};
const laterCheck = z.boolean().default(false);
export const seatFields = {
  inletId: id,
  cableCode: line(20),
  piece: text(200).default(''),
  plugIndex: z.int().min(0).max(7),
  click: z.boolean(),
  tug: z.boolean(),
  gap: z.boolean(),
  halves: laterCheck,
  bend: laterCheck,
  panel: laterCheck,
};
export const stepId = line(120);
export const stepOrderFields = {
  phase: z.enum(stepPhases),
  stepIds: z
    .array(stepId)
    .max(200)
    .refine((ids) => new Set(ids).size === ids.length, 'a step is named twice'),
};
export const leadFields = {
  id: uuid,
  kind: z.enum(leadKinds),
  what: line(60),
  place: text(80),
  state: z.enum(leadStates),
};
export const noteFields = { id: uuid, text: text(1000), photoId: uuid.nullable(), inReport: z.boolean() };
export const proofFields = { item: z.enum(proofItems), holds: z.boolean(), note: text(500) };
export const signOffFields = {
  id: uuid,
  point: line(160),
  reason: text(500).refine((value) => value.trim().length >= 3, 'say why, in a few words'),
};

/** Ticked plugs, plugs put elsewhere by hand, and ticked steps, as a job keeps them. */
export const seatsSchema = z
  .array(
    z.strictObject({
      version,
      ...seatFields,
      inletKind: z.enum(inletKinds).nullable().default(null),
      rechecked: z.strictObject(signed).nullable().default(null),
      ...signed,
    }),
  )
  .max(jobLimits.seats);
export const pinsSchema = z
  .array(z.strictObject({ version, ...pinFields, ...signed }))
  .max(jobLimits.pins)
  .default([]);
export const stepsSchema = z
  .array(z.strictObject({ stepId, ...signed }))
  .max(jobLimits.steps)
  .default([]);

export const laidWayFields = { fitting: line(120), cable: line(120), way: text(300) };
export const jobSchema = z.strictObject({
  code: jobCode,
  revision: version,
  createdAt: instant,
  updatedAt: instant,
  updatedBy: id.nullable().default(null),
  state: z.enum(jobStates),
  stateVersion: version,
  closed: z.strictObject(signed).nullable(),
  putAway: z
    .strictObject({ ...signed, reason: putAwayReason })
    .nullable()
    .default(null),
  sheet: z.strictObject({ version, fieldRevisions: fieldRevisionsSchema, ...sheetFields, ...laterFields }),
  parts: z.array(partSchema).max(jobLimits.parts),
  supply: z.strictObject({ version, ...presentSupplyFields }).nullable(),
  outcomes: z
    .array(
      z.strictObject({
        id: uuid,
        checkId: id,
        outcomeId: id,
        instrumentId: id.nullable().default(null),
        takenBackAt: instant.nullable(),
        ...signed,
      }),
    )
    .max(jobLimits.outcomes),
  readings: z
    .array(
      z
        .strictObject({
          ...readingFields,
          struckAt: instant.nullable(),
          fitting: line(120).nullable().default(null),
          ...signed,
        })
        .superRefine(voltsInReach),
    )
    .max(jobLimits.readings),
  probes: z
    .array(z.strictObject({ version, ...probeFields, ...signed }))
    .max(jobLimits.probes)
    .default([]),
  logs: z
    .array(z.strictObject({ version, ...logFields, ...signed }))
    .max(jobLimits.logs)
    .default([]),
  finding: z.strictObject({ version, ...findingFields, ...signed }).nullable(),
  choice: z
    .strictObject({ version, ...choiceFields, ...signed })
    .refine(isOfItsKind, notOfItsKind)
    .nullable(),
  cables: z.array(z.strictObject({ version, ...cableFields })).max(jobLimits.cables),
  pins: pinsSchema,
  seats: seatsSchema,
  steps: stepsSchema,
  laidAside: z
    .array(z.strictObject({ fitting: line(120), seats: seatsSchema, pins: pinsSchema, steps: stepsSchema }))
    .max(jobLimits.laidAside)
    .default([]),
  stepOrders: z
    .array(z.strictObject({ version, ...stepOrderFields }))
    .max(stepPhases.length)
    .default([]),
  laidWays: z
    .array(z.strictObject({ version, ...laidWayFields, ...signed }))
    .max(jobLimits.laidWays)
    .default([]),
  leads: z
    .array(z.strictObject({ version, ...leadFields, ...signed }))
    .max(jobLimits.leads)
    .default([]),
  notes: z
    .array(z.strictObject({ version, ...noteFields, ...signed }))
    .max(jobLimits.notes)
    .default([]),
  proofs: z
    .array(z.strictObject({ version, subject: line(2000), ...proofFields, ...signed }))
    .max(jobLimits.proofs)
    .default([]),
  signOffs: z.array(z.strictObject({ ...signOffFields, ...signed })).max(jobLimits.signOffs),
}) satisfies z.ZodType<Job>;
