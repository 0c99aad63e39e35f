import {
  cableBagStates,
  measuredKinds,
  phases,
  logEventKinds,
  findingKinds,
  choiceKinds,
  cameAlongKinds,
  caseLayouts,
  oldSupplies,
  priorities,
  casePlaces,
  conditions,
  hindrances,
  inletKinds,
  partChanges,
  mainsSelectors,
  plugKinds,
  leadKinds,
  leadStates,
  proofItems,
  protectionNames,
  railNames,
  readingCodes,
  schools,
  jobStates,
  shapes,
  stepPhases,
  subjects,
  type CableProbe,
  type Choice,
  type ChoiceFacts,
  type Finding,
  type GroundProof,
  type Inlet,
  type Job,
  type JobPart,
  type KeptLog,
  type LaidAside,
  type LaidWay,
  type LogChannel,
  type LogEvent,
  type NotedOutcome,
  type PinnedPlug,
  type PresentSupply,
  type ProbedPin,
  type JobNote,
  type Lead,
  type Proof,
  type Reading,
  type ReadingValue,
  type FoundAdapter,
  type RecordedPlug,
  type RecordedCable,
  type Seat,
  type Sheet,
  type SignOff,
  type StepOrder,
  type StepTick,
} from '@fairwatt/core';
import { choiceFactsSchema, pinsSchema, seatsSchema, stepsSchema } from '@fairwatt/contract';
import * as read from '../database/read.ts';
import {
  boolean,
  describe,
  instant,
  json,
  list,
  named,
  number,
  oneOf,
  optional,
  orNull,
  text,
  within,
  type ChildTable,
  type Described,
  type Field,
  type Fields,
  type ListTable,
} from '../database/table.ts';
import { combinedFields, figures, labelHead, railFields, type LabelHead } from '../supplies/fields.ts';

// Every table that a job is kept in, each described once: what is read and what is written follow from it.

const signed = { by: text, at: instant };
const phase = oneOf(phases);

/** Rows of a job that are told apart by their id and stand in the order in which they were added. */
const byId = <T extends { readonly id: string }>(table: string, fields: Fields<T>): ListTable<T> => ({
  table,
  owner: 'job_id',
  key: 'id',
  keyOf: (item) => item.id,
  order: 'position',
  ...describe<T>(fields),
});

/** Rows that hang on a row of a job, in their order. */
const children = <T extends object>(table: string, parent: string, fields: Fields<T>): ChildTable<T> => ({
  table,
  parent,
  order: 'position',
  ...describe<T>(fields),
});

/** The one row of its kind that a job may have. */
const single = <T extends object>(table: string, fields: Fields<T>): ListTable<T> => ({
  table,
  owner: 'job_id',
  // There is no other to tell it from.
  key: "''",
  keyOf: () => '',
  order: 'job_id',
  ...describe<T>(fields),
});

type KeptSheet = Omit<Sheet, 'fieldRevisions'>;
const sheet: Fields<KeptSheet> = {
  version: named('sheet_version', number),
  title: text,
  client: text,
  words: text,
  button: orNull(text),
  alsoTold: list(text),
  course: orNull(text),
  surroundings: text,
  machineYears: orNull(number),
  supplyYears: orNull(number),
  upgrade: text,
  cableBag: orNull(oneOf(cableBagStates)),
  layout: oneOf(caseLayouts),
  shapes: list(oneOf(shapes)),
  depthMillimetres: orNull(number),
  school: oneOf(schools),
  schoolNote: text,
  cardAdviceWatts: orNull(number),
  staggeredStart: boolean,
  measuredLoad: orNull(within({ kind: oneOf(measuredKinds), figure: number, used: boolean }, 'measured')),
  day: orNull(within({ idleHours: number, typicalHours: number, fullHours: number, typicalShare: number }, 'day')),
  keepYears: orNull(number),
  wants: within({
    noisiestDecibels: orNull(number),
    leastWarrantyYears: orNull(number),
    protections: list(oneOf(protectionNames)),
    activeCorrection: boolean,
  }),
  ownHoles: boolean,
  ventClosed: boolean,
  hindrances: list(oneOf(hindrances)),
  reach: text,
  serial: text,
  fittedSerial: text,
  cameAlong: list(oneOf(cameAlongKinds)),
  cameAlongNote: text,
  inCharge: orNull(text),
  priority: oneOf(priorities),
  promisedOn: orNull(text),
  usualAs: text,
  oldSupply: orNull(oneOf(oldSupplies)),
  oldSupplyNote: text,
  oldSupplyDisposed: boolean,
  bareSupply: boolean,
  watch: text,
  leftInBag: text,
};

/** What stands in the job's own row. */
export type JobHead = Pick<
  Job,
  'code' | 'revision' | 'createdAt' | 'updatedAt' | 'updatedBy' | 'state' | 'stateVersion' | 'closed' | 'putAway'
> & {
  readonly sheet: KeptSheet;
};
export const jobHead: Described<JobHead> = describe<JobHead>({
  code: text,
  revision: number,
  createdAt: instant,
  updatedAt: instant,
  updatedBy: orNull(text),
  state: oneOf(jobStates),
  stateVersion: number,
  closed: orNull(within(signed, 'closed')),
  putAway: orNull(within({ ...signed, reason: text }, 'put_away')),
  sheet: within(sheet),
});

export const parts = byId<Omit<JobPart, 'inlets'>>('job_part', {
  id: text,
  version: number,
  classId: text,
  name: text,
  quantity: number,
  change: oneOf(partChanges),
  figures: within(figures),
});
export const inlets = children<Inlet>('job_inlet', 'part_id', {
  id: text,
  kind: oneOf(inletKinds),
  label: text,
  optional: boolean,
  place: optional(oneOf(casePlaces)),
  watts: optional(number),
  wayMillimetres: optional(number),
});

export const present = single<Omit<PresentSupply, 'label'> & { readonly label: LabelHead }>('job_supply', {
  version: number,
  name: text,
  label: within(labelHead),
  selector: optional(oneOf(mainsSelectors)),
});
/** Rows that are told apart by their place alone, and all written anew when one changes. */
const placed = <T extends object>(table: string, fields: Fields<T>): ListTable<T> => ({
  table,
  owner: 'job_id',
  key: 'position',
  keyOf: () => '',
  order: 'position',
  ...describe<T>(fields),
});
export const presentRails = placed('job_supply_rail', railFields);
export const presentCombined = placed('job_supply_combined', combinedFields);

export const outcomes = byId<NotedOutcome>('job_outcome', {
  id: text,
  checkId: text,
  outcomeId: text,
  instrumentId: orNull(text),
  takenBackAt: orNull(instant),
  ...signed,
});

/** A figure or a code, never both. */
const readingValue: Field<ReadingValue> = {
  names: () => ['figure', 'code'],
  values: (value) => (value.kind === 'figure' ? [value.figure, null] : [null, value.code]),
  read: (row) =>
    row['code'] === null
      ? { kind: 'figure', figure: read.number(row, 'figure') }
      : { kind: 'code', code: oneOf(readingCodes).read(row, 'code') },
};
export const readings = byId<Reading>('job_reading', {
  id: text,
  phase,
  subject: oneOf(subjects),
  condition: oneOf(conditions),
  value: readingValue,
  instrumentId: text,
  loadWatts: orNull(number),
  loadAmps: orNull(number),
  pin: orNull(within({ plug: oneOf(inletKinds), pin: named('pin_number', number) }, 'pin')),
  replaces: orNull(text),
  note: text,
  struckAt: orNull(instant),
  fitting: orNull(text),
  ...signed,
});

export const probes = byId<Omit<CableProbe, 'pins'>>('job_probe', {
  id: text,
  version: number,
  label: text,
  plug: oneOf(inletKinds),
  note: text,
  ...signed,
});
const groundProof: Field<GroundProof> = {
  names: () => ['ground_volts', 'ground_heard'],
  values: (ground) => (ground.kind === 'rail' ? [ground.volts, null] : [null, ground.heard]),
  read: (row) =>
    row['ground_volts'] === null
      ? { kind: 'continuity', heard: read.boolean(row, 'ground_heard') }
      : { kind: 'rail', volts: read.number(row, 'ground_volts') },
};
export const probedPins: ChildTable<ProbedPin> = {
  ...children<ProbedPin>('job_probe_pin', 'probe_id', {
    pin: number,
    value: readingValue,
    ground: optional(groundProof),
  }),
  order: 'pin',
};

export const logs = byId<Omit<KeptLog, 'channels' | 'events'>>('job_log', {
  id: text,
  version: number,
  name: text,
  phase,
  rows: number,
  skipped: number,
  lastsSeconds: number,
  eventsInAll: number,
  ...signed,
});
export const logChannels = children<LogChannel>('job_log_channel', 'log_id', {
  rail: oneOf(railNames),
  count: number,
  meanVolts: number,
  lowestVolts: number,
  highestVolts: number,
  deviationVolts: number,
  noiseVolts: number,
  driftVoltsPerHour: number,
  outsideSeconds: number,
  curve: within({ seconds: list(number), low: list(number), high: list(number) }, 'curve'),
});
export const logEvents = children<LogEvent>('job_log_event', 'log_id', {
  rail: oneOf(railNames),
  kind: oneOf(logEventKinds),
  atSeconds: number,
  lastsSeconds: number,
  volts: orNull(number),
  fromVolts: orNull(number),
});

export const finding = single<Finding>('job_finding', {
  version: number,
  kind: oneOf(findingKinds),
  faultId: orNull(text),
  alsoFaultId: orNull(text),
  confirmed: boolean,
  note: text,
  ...signed,
});
export const choice = single<Choice>('job_choice', {
  version: number,
  kind: oneOf(choiceKinds),
  modelId: orNull(text),
  reason: text,
  facts: optional(json<ChoiceFacts>((value) => choiceFactsSchema.parse(value))),
  known: list(text),
  ...signed,
});

export const cables = byId<Omit<RecordedCable, 'plugs'>>('job_cable', {
  id: text,
  version: number,
  label: text,
  socketLabel: text,
  way: text,
  tiesToCut: number,
  likely: optional(boolean),
});
export const cablePlugs = children<RecordedPlug>('job_cable_plug', 'cable_id', {
  kind: oneOf(plugKinds),
  inletId: orNull(text),
  through: optional(within<FoundAdapter>({ gives: oneOf(plugKinds), legs: number, moulded: boolean }, 'through')),
});

export const pins: ListTable<PinnedPlug> = {
  table: 'job_pin',
  owner: 'job_id',
  key: 'inlet_id',
  keyOf: (pin) => pin.inletId,
  order: 'position',
  ...describe<PinnedPlug>({
    inletId: text,
    version: number,
    kitCableId: text,
    copy: number,
    plugIndex: number,
    socketLabel: orNull(text),
    adapterId: optional(text),
    ...signed,
  }),
};
export const seats: ListTable<Seat> = {
  table: 'job_seat',
  owner: 'job_id',
  key: 'inlet_id',
  keyOf: (seat) => seat.inletId,
  order: 'version, at, inlet_id',
  ...describe<Seat>({
    inletId: text,
    version: number,
    cableCode: text,
    piece: text,
    inletKind: orNull(oneOf(inletKinds)),
    plugIndex: number,
    click: boolean,
    tug: boolean,
    gap: boolean,
    halves: boolean,
    bend: boolean,
    panel: boolean,
    rechecked: orNull(within(signed, 'rechecked')),
    ...signed,
  }),
};
export const steps: ListTable<StepTick> = {
  table: 'job_step',
  owner: 'job_id',
  key: 'step_id',
  keyOf: (step) => step.stepId,
  order: 'position',
  ...describe<StepTick>({ stepId: text, ...signed }),
};
export const stepOrders: ListTable<StepOrder> = {
  table: 'job_step_order',
  owner: 'job_id',
  key: 'phase',
  keyOf: (order) => order.phase,
  order: "array_position(array['take-out', 'refit'], phase)",
  ...describe<StepOrder>({ phase: oneOf(stepPhases), version: number, stepIds: list(text) }),
};
export const laidAside: ListTable<LaidAside> = {
  table: 'job_laid_aside',
  owner: 'job_id',
  key: 'fitting',
  keyOf: (work) => work.fitting,
  order: 'position',
  ...describe<LaidAside>({
    fitting: text,
    seats: json<readonly Seat[]>((value) => seatsSchema.parse(value)),
    pins: json<readonly PinnedPlug[]>((value) => pinsSchema.parse(value)),
    steps: json<readonly StepTick[]>((value) => stepsSchema.parse(value)),
  }),
};
export const leads = byId<Lead>('job_lead', {
  id: text,
  version: number,
  kind: oneOf(leadKinds),
  what: text,
  place: text,
  state: oneOf(leadStates),
  ...signed,
});
export const notes = byId<JobNote>('job_note', {
  id: text,
  version: number,
  text,
  photoId: orNull(text),
  inReport: boolean,
  ...signed,
});
export const laidWays: ListTable<LaidWay> = {
  table: 'job_laid_way',
  owner: 'job_id',
  key: "(fitting || ' ' || cable)",
  keyOf: ({ fitting, cable }) => `${fitting} ${cable}`,
  order: 'position',
  ...describe<LaidWay>({ fitting: text, cable: text, version: number, way: text, ...signed }),
};
export const proofs: ListTable<Proof> = {
  table: 'job_proof',
  owner: 'job_id',
  key: "(item || ' ' || subject)",
  keyOf: ({ item, subject }) => `${item} ${subject}`,
  order: 'position',
  ...describe<Proof>({
    item: oneOf(proofItems),
    subject: text,
    version: number,
    holds: boolean,
    note: text,
    ...signed,
  }),
};
export const signOffs = byId<SignOff>('job_sign_off', { id: text, point: text, reason: text, ...signed });
