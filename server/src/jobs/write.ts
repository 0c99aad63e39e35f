import { stationLineText, viewJob, type Job, type JobView, type SheetField, type Shop } from '@fairwatt/core';
import { insertRows, one, type Queryable } from '../database/query.ts';
import { number } from '../database/read.ts';
import { writeLesson } from '../record/store.ts';

type FieldRevisions = Job['sheet']['fieldRevisions'];

const headColumns = [
  'code',
  'revision',
  'created_at',
  'updated_at',
  'state',
  'state_version',
  'closed_by',
  'closed_at',
  'sheet_version',
  'title',
  'client',
  'words',
  'button',
  'course',
  'surroundings',
  'machine_years',
  'supply_years',
  'upgrade',
  'cable_bag',
  'layout',
  'shapes',
  'depth_millimetres',
  'school',
  'watch',
  'left_in_bag',
  'school_note',
  'card_advice_watts',
  'staggered_start',
  'measured_kind',
  'measured_figure',
  'measured_used',
  'day_idle_hours',
  'day_typical_hours',
  'day_full_hours',
  'day_typical_share',
  'keep_years',
  'noisiest_decibels',
  'least_warranty_years',
  'protections',
  'active_correction',
  'own_holes',
  'vent_closed',
  'hindrances',
] as const;

function headValues({ sheet, ...job }: Job): unknown[] {
  return [
    job.code,
    job.revision,
    job.createdAt,
    job.updatedAt,
    job.state,
    job.stateVersion,
    job.closed?.by ?? null,
    job.closed?.at ?? null,
    sheet.version,
    sheet.title,
    sheet.client,
    sheet.words,
    sheet.button,
    sheet.course,
    sheet.surroundings,
    sheet.machineYears,
    sheet.supplyYears,
    sheet.upgrade,
    sheet.cableBag,
    sheet.layout,
    sheet.shapes,
    sheet.depthMillimetres,
    sheet.school,
    sheet.watch,
    sheet.leftInBag,
    sheet.schoolNote,
    sheet.cardAdviceWatts,
    sheet.staggeredStart,
    sheet.measuredLoad?.kind ?? null,
    sheet.measuredLoad?.figure ?? null,
    sheet.measuredLoad?.used ?? null,
    sheet.day?.idleHours ?? null,
    sheet.day?.typicalHours ?? null,
    sheet.day?.fullHours ?? null,
    sheet.day?.typicalShare ?? null,
    sheet.keepYears,
    sheet.wants.noisiestDecibels,
    sheet.wants.leastWarrantyYears,
    sheet.wants.protections,
    sheet.wants.activeCorrection,
    sheet.ownHoles,
    sheet.ventClosed,
    sheet.hindrances,
  ];
}

/** A list of the job as a table: what is new or changed is written, what is gone is deleted, the rest is left alone. */
async function sync<T>(
  db: Queryable,
  table: string,
  key: string,
  before: readonly T[],
  after: readonly T[],
  keyOf: (item: T) => string,
  columns: readonly string[],
  valuesOf: (item: T, position: number) => readonly unknown[],
  jobId: number,
): Promise<T[]> {
  if (before === after) return [];
  const old = new Map(before.map((item, position) => [keyOf(item), { item, position }]));
  const changed: { item: T; position: number }[] = [];
  after.forEach((item, position) => {
    const was = old.get(keyOf(item));
    if (was === undefined || was.item !== item || was.position !== position) changed.push({ item, position });
    else old.delete(keyOf(item));
  });
  const stale = [...old.keys()];
  if (stale.length > 0)
    await db.query(`delete from ${table} where job_id = $1 and ${key}::text = any($2)`, [jobId, stale]);
  await insertRows(
    db,
    table,
    ['job_id', ...columns],
    changed.map(({ item, position }) => [jobId, ...valuesOf(item, position)]),
  );
  return changed.map(({ item }) => item);
}

async function writeFieldRevisions(db: Queryable, jobId: number, before: FieldRevisions, after: FieldRevisions) {
  const changed = Object.entries(after).filter(([field, revision]) => before[field as SheetField] !== revision);
  for (const [field, revision] of changed)
    await db.query(
      'insert into job_field_revision (job_id, field, revision) values ($1, $2, $3) on conflict (job_id, field) do update set revision = $3',
      [jobId, field, revision],
    );
}

async function writeSupply(db: Queryable, jobId: number, supply: Job['supply']): Promise<void> {
  await db.query('delete from job_supply where job_id = $1', [jobId]);
  if (supply === null) return;
  const { label } = supply;
  await insertRows(
    db,
    'job_supply',
    ['job_id', 'version', 'name', 'rating_watts', 'shape', 'guide', 'grade', 'modular', 'has_16_pin'],
    [
      [
        jobId,
        supply.version,
        supply.name,
        label.ratingWatts,
        label.shape,
        label.guide,
        label.grade,
        label.modular,
        label.has16Pin,
      ],
    ],
  );
  await insertRows(
    db,
    'job_supply_rail',
    ['job_id', 'position', 'label', 'rail', 'amps', 'feeds'],
    label.rails.map((rail, position) => [jobId, position, rail.label, rail.rail, rail.amps, rail.feeds ?? null]),
  );
  await insertRows(
    db,
    'job_supply_combined',
    ['job_id', 'position', 'labels', 'watts'],
    label.combined.map((limit, position) => [jobId, position, limit.labels, limit.watts]),
  );
}

const nothing: Pick<
  Job,
  | 'parts'
  | 'supply'
  | 'outcomes'
  | 'readings'
  | 'probes'
  | 'logs'
  | 'finding'
  | 'choice'
  | 'cables'
  | 'pins'
  | 'seats'
  | 'steps'
  | 'stepOrders'
  | 'signOffs'
> = {
  parts: [],
  supply: null,
  outcomes: [],
  readings: [],
  probes: [],
  logs: [],
  finding: null,
  choice: null,
  cables: [],
  pins: [],
  seats: [],
  steps: [],
  stepOrders: [],
  signOffs: [],
};

/**
 * Writes what differs between two states of a job, the row itself included, and what its stations say.
 * @param before null for a job that is not in the database yet
 * @returns the job's row id
 */
export async function writeJob(
  db: Queryable,
  stored: { readonly id: number; readonly job: Job } | null,
  after: Job,
  shop: Shop,
): Promise<number> {
  const before = stored?.job ?? nothing;
  let jobId: number;
  if (stored === null) {
    const marks = headColumns.map((_, index) => `$${index + 1}`).join(', ');
    jobId = await one(
      db,
      `insert into job (${headColumns.join(', ')}) values (${marks}) returning id`,
      headValues(after),
      (row) => number(row, 'id'),
    );
  } else {
    jobId = stored.id;
    await db.query(
      `update job set ${headColumns.map((column, index) => `${column} = $${index + 2}`).join(', ')} where id = $1`,
      [jobId, ...headValues(after)],
    );
  }
  await writeFieldRevisions(db, jobId, stored?.job.sheet.fieldRevisions ?? {}, after.sheet.fieldRevisions);
  const parts = await sync(
    db,
    'job_part',
    'id',
    before.parts,
    after.parts,
    (part) => part.id,
    [
      'id',
      'position',
      'version',
      'class_id',
      'name',
      'quantity',
      'change',
      'low_watts',
      'likely_watts',
      'high_watts',
      'idle_watts',
      'short_watts',
      'spin_up_amps',
      'share_12',
      'share_5',
      'share_33',
      'excursion',
      'standby_watts',
      'source',
    ],
    ({ figures, ...part }, position) => [
      part.id,
      position,
      part.version,
      part.classId,
      part.name,
      part.quantity,
      part.change,
      figures.lowWatts,
      figures.likelyWatts,
      figures.highWatts,
      figures.idleWatts,
      figures.shortWatts,
      figures.spinUpAmps,
      figures.share12,
      figures.share5,
      figures.share33,
      figures.excursion,
      figures.standbyWatts,
      figures.source,
    ],
    jobId,
  );
  await insertRows(
    db,
    'job_inlet',
    ['job_id', 'id', 'part_id', 'position', 'kind', 'label', 'optional', 'place', 'way_millimetres'],
    parts.flatMap((part) =>
      part.inlets.map((inlet, position) => [
        jobId,
        inlet.id,
        part.id,
        position,
        inlet.kind,
        inlet.label,
        inlet.optional,
        inlet.place ?? null,
        inlet.wayMillimetres ?? null,
      ]),
    ),
  );
  if (before.supply !== after.supply) await writeSupply(db, jobId, after.supply);
  await sync(
    db,
    'job_outcome',
    'id',
    before.outcomes,
    after.outcomes,
    (item) => item.id,
    ['id', 'position', 'check_id', 'outcome_id', 'instrument_id', 'taken_back_at', 'by', 'at'],
    (item, position) => [
      item.id,
      position,
      item.checkId,
      item.outcomeId,
      item.instrumentId,
      item.takenBackAt,
      item.by,
      item.at,
    ],
    jobId,
  );
  await sync(
    db,
    'job_reading',
    'id',
    before.readings,
    after.readings,
    (item) => item.id,
    [
      'id',
      'position',
      'phase',
      'subject',
      'condition',
      'figure',
      'code',
      'instrument_id',
      'load_watts',
      'load_amps',
      'pin_plug',
      'pin_number',
      'replaces',
      'note',
      'struck_at',
      'by',
      'at',
    ],
    (item, position) => [
      item.id,
      position,
      item.phase,
      item.subject,
      item.condition,
      item.value.kind === 'figure' ? item.value.figure : null,
      item.value.kind === 'code' ? item.value.code : null,
      item.instrumentId,
      item.loadWatts,
      item.loadAmps,
      item.pin?.plug ?? null,
      item.pin?.pin ?? null,
      item.replaces,
      item.note,
      item.struckAt,
      item.by,
      item.at,
    ],
    jobId,
  );
  const probes = await sync(
    db,
    'job_probe',
    'id',
    before.probes,
    after.probes,
    (item) => item.id,
    ['id', 'position', 'version', 'label', 'plug', 'note', 'by', 'at'],
    (item, position) => [item.id, position, item.version, item.label, item.plug, item.note, item.by, item.at],
    jobId,
  );
  await insertRows(
    db,
    'job_probe_pin',
    ['job_id', 'probe_id', 'pin', 'figure', 'code', 'ground_volts', 'ground_heard'],
    probes.flatMap((probe) =>
      probe.pins.map((pin) => [
        jobId,
        probe.id,
        pin.pin,
        pin.value.kind === 'figure' ? pin.value.figure : null,
        pin.value.kind === 'code' ? pin.value.code : null,
        pin.ground?.kind === 'rail' ? pin.ground.volts : null,
        pin.ground?.kind === 'continuity' ? pin.ground.heard : null,
      ]),
    ),
  );
  const logs = await sync(
    db,
    'job_log',
    'id',
    before.logs,
    after.logs,
    (item) => item.id,
    ['id', 'position', 'version', 'name', 'phase', 'rows', 'skipped', 'lasts_seconds', 'events_in_all', 'by', 'at'],
    (item, position) => [
      item.id,
      position,
      item.version,
      item.name,
      item.phase,
      item.rows,
      item.skipped,
      item.lastsSeconds,
      item.eventsInAll,
      item.by,
      item.at,
    ],
    jobId,
  );
  await insertRows(
    db,
    'job_log_channel',
    [
      'job_id',
      'log_id',
      'position',
      'rail',
      'count',
      'mean_volts',
      'lowest_volts',
      'highest_volts',
      'deviation_volts',
      'noise_volts',
      'drift_volts_per_hour',
      'outside_seconds',
      'curve_seconds',
      'curve_low',
      'curve_high',
    ],
    logs.flatMap((log) =>
      log.channels.map((channel, position) => [
        jobId,
        log.id,
        position,
        channel.rail,
        channel.count,
        channel.meanVolts,
        channel.lowestVolts,
        channel.highestVolts,
        channel.deviationVolts,
        channel.noiseVolts,
        channel.driftVoltsPerHour,
        channel.outsideSeconds,
        channel.curve.seconds,
        channel.curve.low,
        channel.curve.high,
      ]),
    ),
  );
  await insertRows(
    db,
    'job_log_event',
    ['job_id', 'log_id', 'position', 'rail', 'kind', 'at_seconds', 'lasts_seconds', 'volts', 'from_volts'],
    logs.flatMap((log) =>
      log.events.map((event, position) => [
        jobId,
        log.id,
        position,
        event.rail,
        event.kind,
        event.atSeconds,
        event.lastsSeconds,
        event.volts,
        event.fromVolts,
      ]),
    ),
  );
  const single = <T>(value: T | null): readonly T[] => (value === null ? [] : [value]);
  if (before.finding !== after.finding)
    await sync(
      db,
      'job_finding',
      'job_id',
      single(before.finding),
      single(after.finding),
      () => String(jobId),
      ['version', 'kind', 'fault_id', 'confirmed', 'note', 'by', 'at'],
      (item) => [item.version, item.kind, item.faultId, item.confirmed, item.note, item.by, item.at],
      jobId,
    );
  if (before.choice !== after.choice)
    await sync(
      db,
      'job_choice',
      'job_id',
      single(before.choice),
      single(after.choice),
      () => String(jobId),
      ['version', 'kind', 'model_id', 'reason', 'known', 'by', 'at'],
      (item) => [item.version, item.kind, item.modelId, item.reason, item.known, item.by, item.at],
      jobId,
    );
  const cables = await sync(
    db,
    'job_cable',
    'id',
    before.cables,
    after.cables,
    (item) => item.id,
    ['id', 'position', 'version', 'label', 'socket_label', 'way', 'ties_to_cut'],
    (item, position) => [item.id, position, item.version, item.label, item.socketLabel, item.way, item.tiesToCut],
    jobId,
  );
  await insertRows(
    db,
    'job_cable_plug',
    ['job_id', 'cable_id', 'position', 'kind', 'inlet_id'],
    cables.flatMap((cable) =>
      cable.plugs.map((plug, position) => [jobId, cable.id, position, plug.kind, plug.inletId]),
    ),
  );
  await sync(
    db,
    'job_pin',
    'inlet_id',
    before.pins,
    after.pins,
    (item) => item.inletId,
    ['inlet_id', 'position', 'version', 'kit_cable_id', 'copy', 'plug_index', 'socket_label', 'by', 'at'],
    (item, position) => [
      item.inletId,
      position,
      item.version,
      item.kitCableId,
      item.copy,
      item.plugIndex,
      item.socketLabel,
      item.by,
      item.at,
    ],
    jobId,
  );
  await sync(
    db,
    'job_seat',
    'inlet_id',
    before.seats,
    after.seats,
    (item) => item.inletId,
    [
      'inlet_id',
      'version',
      'cable_code',
      'plug_index',
      'click',
      'tug',
      'gap',
      'halves',
      'bend',
      'panel',
      'rechecked_by',
      'rechecked_at',
      'by',
      'at',
    ],
    (item) => [
      item.inletId,
      item.version,
      item.cableCode,
      item.plugIndex,
      item.click,
      item.tug,
      item.gap,
      item.halves,
      item.bend,
      item.panel,
      item.rechecked?.by ?? null,
      item.rechecked?.at ?? null,
      item.by,
      item.at,
    ],
    jobId,
  );
  await sync(
    db,
    'job_step',
    'step_id',
    before.steps,
    after.steps,
    (item) => item.stepId,
    ['step_id', 'position', 'by', 'at'],
    (item, position) => [item.stepId, position, item.by, item.at],
    jobId,
  );
  await sync(
    db,
    'job_step_order',
    'phase',
    before.stepOrders,
    after.stepOrders,
    (item) => item.phase,
    ['phase', 'version', 'step_ids'],
    (item) => [item.phase, item.version, item.stepIds],
    jobId,
  );
  await sync(
    db,
    'job_sign_off',
    'id',
    before.signOffs,
    after.signOffs,
    (item) => item.id,
    ['id', 'position', 'point', 'reason', 'by', 'at'],
    (item, position) => [item.id, position, item.point, item.reason, item.by, item.at],
    jobId,
  );
  const view = viewJob(after, shop);
  await writeStations(db, jobId, view, shop);
  if (stored?.job.state !== after.state) await writeLesson(db, jobId, after, view);
  return jobId;
}

/** Keeps what the stations say beside the job. */
export async function writeStations(db: Queryable, jobId: number, view: JobView, shop: Shop): Promise<void> {
  await db.query('delete from job_station where job_id = $1', [jobId]);
  const nameOf = (id: string) => shop.supplies.find((model) => model.id === id)?.name ?? id;
  await insertRows(
    db,
    'job_station',
    ['job_id', 'position', 'station', 'state', 'line'],
    view.stations.map((station, position) => [
      jobId,
      position,
      station.id,
      station.state,
      stationLineText(station.line, shop.model.knowledge, nameOf),
    ]),
  );
}
