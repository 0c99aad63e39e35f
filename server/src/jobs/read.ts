import type {
  ProbedPin,
  CableProbe,
  CasePlace,
  Job,
  JobPart,
  KeptLog,
  PresentSupply,
  RailName,
  Reading,
  ReadingValue,
  RecordedCable,
  SheetField,
} from '@fairwatt/core';
import { many, maybeOne, type Queryable } from '../database/query.ts';
import { feedsOf } from '../supplies/store.ts';
import { boolean, instant, member, number, orNull, text, texts } from '../database/read.ts';

type Row = Record<string, unknown>;
const signed = (row: Row) => ({ by: text(row, 'by'), at: instant(row, 'at') });

async function readParts(db: Queryable, jobId: number): Promise<JobPart[]> {
  const inlets = await many(
    db,
    'select * from job_inlet where job_id = $1 order by part_id, position',
    [jobId],
    (row) => ({
      partId: text(row, 'part_id'),
      inlet: {
        id: text(row, 'id'),
        kind: member<JobPart['inlets'][number]['kind']>(row, 'kind'),
        label: text(row, 'label'),
        optional: boolean(row, 'optional'),
        ...(row['place'] === null ? {} : { place: member<CasePlace>(row, 'place') }),
        ...(row['way_millimetres'] === null ? {} : { wayMillimetres: number(row, 'way_millimetres') }),
      },
    }),
  );
  return many(db, 'select * from job_part where job_id = $1 order by position', [jobId], (row): JobPart => ({
    id: text(row, 'id'),
    version: number(row, 'version'),
    classId: text(row, 'class_id'),
    name: text(row, 'name'),
    quantity: number(row, 'quantity'),
    change: member(row, 'change'),
    figures: {
      lowWatts: number(row, 'low_watts'),
      likelyWatts: number(row, 'likely_watts'),
      highWatts: number(row, 'high_watts'),
      idleWatts: number(row, 'idle_watts'),
      shortWatts: number(row, 'short_watts'),
      spinUpAmps: number(row, 'spin_up_amps'),
      share12: number(row, 'share_12'),
      share5: number(row, 'share_5'),
      share33: number(row, 'share_33'),
      excursion: member(row, 'excursion'),
      standbyWatts: number(row, 'standby_watts'),
      source: member(row, 'source'),
    },
    inlets: inlets.filter((item) => item.partId === row['id']).map((item) => item.inlet),
  }));
}

async function readSupply(db: Queryable, jobId: number): Promise<PresentSupply | null> {
  const rails = await many(db, 'select * from job_supply_rail where job_id = $1 order by position', [jobId], (row) => ({
    label: text(row, 'label'),
    rail: member<PresentSupply['label']['rails'][number]['rail']>(row, 'rail'),
    amps: number(row, 'amps'),
    ...feedsOf(row),
  }));
  const combined = await many(
    db,
    'select * from job_supply_combined where job_id = $1 order by position',
    [jobId],
    (row) => ({ labels: texts(row, 'labels'), watts: number(row, 'watts') }),
  );
  return maybeOne(db, 'select * from job_supply where job_id = $1', [jobId], (row): PresentSupply => ({
    version: number(row, 'version'),
    name: text(row, 'name'),
    label: {
      ratingWatts: number(row, 'rating_watts'),
      rails,
      combined,
      shape: member(row, 'shape'),
      guide: member(row, 'guide'),
      grade: member(row, 'grade'),
      modular: member(row, 'modular'),
      has16Pin: boolean(row, 'has_16_pin'),
    },
  }));
}

async function readCables(db: Queryable, jobId: number): Promise<RecordedCable[]> {
  const plugs = await many(
    db,
    'select * from job_cable_plug where job_id = $1 order by cable_id, position',
    [jobId],
    (row) => ({
      cableId: text(row, 'cable_id'),
      plug: {
        kind: member<RecordedCable['plugs'][number]['kind']>(row, 'kind'),
        inletId: orNull(text)(row, 'inlet_id'),
      },
    }),
  );
  return many(db, 'select * from job_cable where job_id = $1 order by position', [jobId], (row): RecordedCable => ({
    id: text(row, 'id'),
    version: number(row, 'version'),
    label: text(row, 'label'),
    socketLabel: text(row, 'socket_label'),
    way: text(row, 'way'),
    tiesToCut: number(row, 'ties_to_cut'),
    plugs: plugs.filter((item) => item.cableId === row['id']).map((item) => item.plug),
  }));
}

function readValue(row: Record<string, unknown>): ReadingValue {
  return row['code'] === null
    ? { kind: 'figure', figure: number(row, 'figure') }
    : { kind: 'code', code: member(row, 'code') };
}

function readReadings(db: Queryable, jobId: number): Promise<Reading[]> {
  return many(db, 'select * from job_reading where job_id = $1 order by position', [jobId], (row): Reading => {
    return {
      id: text(row, 'id'),
      phase: member(row, 'phase'),
      subject: member(row, 'subject'),
      condition: member(row, 'condition'),
      value: readValue(row),
      instrumentId: text(row, 'instrument_id'),
      loadWatts: orNull(number)(row, 'load_watts'),
      loadAmps: orNull(number)(row, 'load_amps'),
      pin: row['pin_plug'] === null ? null : { plug: member(row, 'pin_plug'), pin: number(row, 'pin_number') },
      replaces: orNull(text)(row, 'replaces'),
      note: text(row, 'note'),
      struckAt: orNull(instant)(row, 'struck_at'),
      ...signed(row),
    };
  });
}

function groundProof(row: Row): Pick<ProbedPin, 'ground'> {
  const volts = orNull(number)(row, 'ground_volts');
  const heard = orNull(boolean)(row, 'ground_heard');
  if (volts !== null) return { ground: { kind: 'rail', volts } };
  return heard === null ? {} : { ground: { kind: 'continuity', heard } };
}

async function readProbes(db: Queryable, jobId: number): Promise<CableProbe[]> {
  const pins = await many(
    db,
    'select * from job_probe_pin where job_id = $1 order by probe_id, pin',
    [jobId],
    (row) => ({
      probeId: text(row, 'probe_id'),
      pin: { pin: number(row, 'pin'), value: readValue(row), ...groundProof(row) },
    }),
  );
  return many(db, 'select * from job_probe where job_id = $1 order by position', [jobId], (row): CableProbe => ({
    id: text(row, 'id'),
    version: number(row, 'version'),
    label: text(row, 'label'),
    plug: member(row, 'plug'),
    note: text(row, 'note'),
    ...signed(row),
    pins: pins.filter((item) => item.probeId === row['id']).map((item) => item.pin),
  }));
}

async function readLogs(db: Queryable, jobId: number): Promise<KeptLog[]> {
  const numbers = (row: Row, column: string) => (Array.isArray(row[column]) ? (row[column] as number[]) : []);
  const channels = await many(
    db,
    'select * from job_log_channel where job_id = $1 order by log_id, position',
    [jobId],
    (row) => ({
      logId: text(row, 'log_id'),
      channel: {
        rail: member<RailName>(row, 'rail'),
        count: number(row, 'count'),
        meanVolts: number(row, 'mean_volts'),
        lowestVolts: number(row, 'lowest_volts'),
        highestVolts: number(row, 'highest_volts'),
        deviationVolts: number(row, 'deviation_volts'),
        noiseVolts: number(row, 'noise_volts'),
        driftVoltsPerHour: number(row, 'drift_volts_per_hour'),
        outsideSeconds: number(row, 'outside_seconds'),
        curve: {
          seconds: numbers(row, 'curve_seconds'),
          low: numbers(row, 'curve_low'),
          high: numbers(row, 'curve_high'),
        },
      },
    }),
  );
  const events = await many(
    db,
    'select * from job_log_event where job_id = $1 order by log_id, position',
    [jobId],
    (row) => ({
      logId: text(row, 'log_id'),
      event: {
        rail: member<RailName>(row, 'rail'),
        kind: member<KeptLog['events'][number]['kind']>(row, 'kind'),
        atSeconds: number(row, 'at_seconds'),
        lastsSeconds: number(row, 'lasts_seconds'),
        volts: orNull(number)(row, 'volts'),
        fromVolts: orNull(number)(row, 'from_volts'),
      },
    }),
  );
  return many(db, 'select * from job_log where job_id = $1 order by position', [jobId], (row): KeptLog => ({
    id: text(row, 'id'),
    version: number(row, 'version'),
    name: text(row, 'name'),
    phase: member(row, 'phase'),
    rows: number(row, 'rows'),
    skipped: number(row, 'skipped'),
    lastsSeconds: number(row, 'lasts_seconds'),
    eventsInAll: number(row, 'events_in_all'),
    ...signed(row),
    channels: channels.filter((item) => item.logId === row['id']).map((item) => item.channel),
    events: events.filter((item) => item.logId === row['id']).map((item) => item.event),
  }));
}

export const jobIdOf = (db: Queryable, code: string): Promise<number | null> =>
  maybeOne(db, 'select id from job where code = $1', [code], (row) => number(row, 'id'));

async function readFieldRevisions(db: Queryable, jobId: number): Promise<Job['sheet']['fieldRevisions']> {
  const rows = await many(
    db,
    'select field, revision from job_field_revision where job_id = $1 order by field',
    [jobId],
    (row): [SheetField, number] => [member<SheetField>(row, 'field'), number(row, 'revision')],
  );
  return Object.fromEntries(rows);
}

/** A job with its row id; null when no job has this code. With `lock` the job's row is held until the transaction ends. */
export async function readJob(db: Queryable, code: string, lock = false): Promise<{ id: number; job: Job } | null> {
  const head = await maybeOne(
    db,
    `select * from job where code = $1${lock ? ' for update' : ''}`,
    [code],
    (row) => row,
  );
  if (head === null) return null;
  const id = number(head, 'id');
  const closedBy = orNull(text)(head, 'closed_by');
  const job: Job = {
    code,
    revision: number(head, 'revision'),
    createdAt: instant(head, 'created_at'),
    updatedAt: instant(head, 'updated_at'),
    state: member(head, 'state'),
    stateVersion: number(head, 'state_version'),
    closed: closedBy === null ? null : { by: closedBy, at: instant(head, 'closed_at') },
    sheet: {
      version: number(head, 'sheet_version'),
      fieldRevisions: await readFieldRevisions(db, id),
      title: text(head, 'title'),
      client: text(head, 'client'),
      words: text(head, 'words'),
      button: orNull(text)(head, 'button'),
      course: orNull(text)(head, 'course'),
      surroundings: text(head, 'surroundings'),
      machineYears: orNull(number)(head, 'machine_years'),
      supplyYears: orNull(number)(head, 'supply_years'),
      upgrade: text(head, 'upgrade'),
      cableBag: orNull<NonNullable<Job['sheet']['cableBag']>>(member)(head, 'cable_bag'),
      layout: member(head, 'layout'),
      shapes: texts(head, 'shapes') as Job['sheet']['shapes'],
      depthMillimetres: orNull(number)(head, 'depth_millimetres'),
      school: member(head, 'school'),
      watch: text(head, 'watch'),
      leftInBag: text(head, 'left_in_bag'),
      schoolNote: text(head, 'school_note'),
      cardAdviceWatts: orNull(number)(head, 'card_advice_watts'),
      staggeredStart: boolean(head, 'staggered_start'),
      measuredLoad:
        head['measured_kind'] === null
          ? null
          : {
              kind: member(head, 'measured_kind'),
              figure: number(head, 'measured_figure'),
              used: boolean(head, 'measured_used'),
            },
      day:
        head['day_idle_hours'] === null
          ? null
          : {
              idleHours: number(head, 'day_idle_hours'),
              typicalHours: number(head, 'day_typical_hours'),
              fullHours: number(head, 'day_full_hours'),
              typicalShare: number(head, 'day_typical_share'),
            },
      keepYears: orNull(number)(head, 'keep_years'),
      ownHoles: boolean(head, 'own_holes'),
      ventClosed: boolean(head, 'vent_closed'),
      hindrances: texts(head, 'hindrances') as Job['sheet']['hindrances'],
      wants: {
        noisiestDecibels: orNull(number)(head, 'noisiest_decibels'),
        leastWarrantyYears: orNull(number)(head, 'least_warranty_years'),
        protections: texts(head, 'protections') as Job['sheet']['wants']['protections'],
        activeCorrection: boolean(head, 'active_correction'),
      },
    },
    parts: await readParts(db, id),
    supply: await readSupply(db, id),
    outcomes: await many(db, 'select * from job_outcome where job_id = $1 order by position', [id], (row) => ({
      id: text(row, 'id'),
      checkId: text(row, 'check_id'),
      outcomeId: text(row, 'outcome_id'),
      instrumentId: orNull(text)(row, 'instrument_id'),
      takenBackAt: orNull(instant)(row, 'taken_back_at'),
      ...signed(row),
    })),
    readings: await readReadings(db, id),
    probes: await readProbes(db, id),
    logs: await readLogs(db, id),
    finding: await maybeOne(db, 'select * from job_finding where job_id = $1', [id], (row) => ({
      version: number(row, 'version'),
      kind: member<NonNullable<Job['finding']>['kind']>(row, 'kind'),
      faultId: orNull(text)(row, 'fault_id'),
      confirmed: boolean(row, 'confirmed'),
      note: text(row, 'note'),
      ...signed(row),
    })),
    choice: await maybeOne(db, 'select * from job_choice where job_id = $1', [id], (row) => ({
      version: number(row, 'version'),
      kind: member<NonNullable<Job['choice']>['kind']>(row, 'kind'),
      modelId: orNull(text)(row, 'model_id'),
      reason: text(row, 'reason'),
      known: texts(row, 'known'),
      ...signed(row),
    })),
    cables: await readCables(db, id),
    pins: await many(db, 'select * from job_pin where job_id = $1 order by position', [id], (row) => ({
      version: number(row, 'version'),
      inletId: text(row, 'inlet_id'),
      kitCableId: text(row, 'kit_cable_id'),
      copy: number(row, 'copy'),
      plugIndex: number(row, 'plug_index'),
      socketLabel: orNull(text)(row, 'socket_label'),
      ...signed(row),
    })),
    seats: await many(db, 'select * from job_seat where job_id = $1 order by at, inlet_id', [id], (row) => ({
      version: number(row, 'version'),
      inletId: text(row, 'inlet_id'),
      cableCode: text(row, 'cable_code'),
      plugIndex: number(row, 'plug_index'),
      click: boolean(row, 'click'),
      tug: boolean(row, 'tug'),
      gap: boolean(row, 'gap'),
      halves: boolean(row, 'halves'),
      bend: boolean(row, 'bend'),
      panel: boolean(row, 'panel'),
      rechecked:
        row['rechecked_by'] === null ? null : { by: text(row, 'rechecked_by'), at: instant(row, 'rechecked_at') },
      ...signed(row),
    })),
    steps: await many(db, 'select * from job_step where job_id = $1 order by position', [id], (row) => ({
      stepId: text(row, 'step_id'),
      ...signed(row),
    })),
    stepOrders: await many(
      db,
      "select * from job_step_order where job_id = $1 order by array_position(array['take-out', 'refit'], phase)",
      [id],
      (row) => ({
        phase: member<Job['stepOrders'][number]['phase']>(row, 'phase'),
        version: number(row, 'version'),
        stepIds: texts(row, 'step_ids'),
      }),
    ),
    signOffs: await many(db, 'select * from job_sign_off where job_id = $1 order by position', [id], (row) => ({
      id: text(row, 'id'),
      point: text(row, 'point'),
      reason: text(row, 'reason'),
      ...signed(row),
    })),
  };
  return { id, job };
}
