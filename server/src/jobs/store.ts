import { randomUUID } from 'node:crypto';
import type pg from 'pg';
import {
  applyAct,
  knowsOf,
  newJob,
  partsAt,
  unanswered,
  subjectOf,
  viewJob,
  type Act,
  type ActContext,
  type Job,
  type Refusal,
  type Shop,
} from '@fairwatt/core';
import type { ActMessage, JobFile, JobList, NewJobMessage } from '@fairwatt/contract';
import { many, maybeOne, one, transaction, type Queryable } from '../database/query.ts';
import { instant, member, number, text } from '../database/read.ts';
import { readCableBags } from '../cable-bags/store.ts';
import {
  addInstruments,
  addTechnicians,
  readInstruments,
  readSettings,
  readTechnicians,
  technicianExists,
} from '../shop/store.ts';
import { addSupplies, readSupplies } from '../supplies/store.ts';
import { readJob } from './read.ts';
import { learnedModel } from '../record/store.ts';
import { addEvent, contentHash, earlierEvent, lastChange } from './events.ts';
import { keepPhoto, readPhotoFiles } from './photos.ts';
import { writeJob, writeStations } from './write.ts';

const pageSize = 50;

/** The shop as the computation needs it, read inside the same transaction as what depends on it. */
export async function readComputingShop(db: Queryable, shipped: Shop['model']): Promise<Shop> {
  return {
    settings: await readSettings(db),
    model: await learnedModel(db, shipped),
    instruments: await readInstruments(db),
    supplies: await readSupplies(db),
    bags: await readCableBags(db),
  };
}

function actContext(shop: Shop, by: string, at: string): ActContext {
  return {
    by,
    at,
    knows: knowsOf(shop),
    unansweredPoints: (job) => unanswered(viewJob(job, shop).openPoints).length,
  };
}

export async function listJobs(
  db: Queryable,
  query: { readonly search: string; readonly state: 'open' | 'closed' | 'all'; readonly page: number },
): Promise<JobList> {
  const where = `($1 = '' or code ilike $2 or title ilike $2 or client ilike $2 or words ilike $2 or exists (select from job_part where job_part.job_id = job.id and job_part.name ilike $2)) and ($3 = 'all' or state = $3)`;
  const pattern = `%${query.search.replace(/[\\%_]/g, '\\$&')}%`;
  const total = await one(
    db,
    `select count(*) as total from job where ${where}`,
    [query.search, pattern, query.state],
    (row) => number(row, 'total'),
  );
  const heads = await many(
    db,
    `select id, code, title, client, words, state, updated_at from job where ${where} order by state desc, updated_at desc, id desc limit $4 offset $5`,
    [query.search, pattern, query.state, pageSize, (query.page - 1) * pageSize],
    (row) => ({
      id: number(row, 'id'),
      code: text(row, 'code'),
      title: text(row, 'title'),
      client: text(row, 'client'),
      words: text(row, 'words'),
      state: member<'open' | 'closed'>(row, 'state'),
      updatedAt: instant(row, 'updated_at'),
    }),
  );
  const stations = await many(
    db,
    'select job_id, station, state, line from job_station where job_id = any($1) order by job_id, position',
    [heads.map((head) => head.id)],
    (row) => ({
      jobId: number(row, 'job_id'),
      mark: {
        id: text(row, 'station'),
        state: member<JobList['jobs'][number]['stations'][number]['state']>(row, 'state'),
        line: text(row, 'line'),
      },
    }),
  );
  return {
    total,
    page: query.page,
    pageSize,
    jobs: heads.map(({ id, ...head }) => ({
      ...head,
      stations: stations.filter((item) => item.jobId === id).map((item) => item.mark),
    })),
  };
}

async function freeCode(db: Queryable): Promise<string> {
  for (;;) {
    const code = await one(
      db,
      "select nextval('job_number') as number",
      [],
      (row) => `LQ-${String(number(row, 'number')).padStart(4, '0')}`,
    );
    if ((await maybeOne(db, 'select id from job where code = $1', [code], (row) => row)) === null) return code;
  }
}

export type Unknown = { readonly kind: 'unknown-technician' };
export type Outcome<T> = { readonly kind: 'done'; readonly value: T } | Unknown;

/** The id of a message was used for another one: nothing is done, since the sender believes it is the same. */
export type IdTaken = { readonly kind: 'id-taken' };

/** Makes a job; the same message again gives the job it made. */
export function createJob(
  pool: pg.Pool,
  model: Shop['model'],
  message: NewJobMessage,
  at: string,
): Promise<Outcome<Job> | IdTaken> {
  return transaction(pool, async (db) => {
    if (!(await technicianExists(db, message.by))) return { kind: 'unknown-technician' };
    const hash = contentHash(message);
    // The same message twice at once: the second waits and finds it done.
    await db.query('select pg_advisory_xact_lock(hashtextextended($1, 0))', [message.id]);
    const earlier = await earlierEvent(db, message.id);
    if (earlier !== null) {
      if (earlier.contentHash !== hash) return { kind: 'id-taken' };
      const code = await one(db, 'select code from job where id = $1', [earlier.jobId], (row) => text(row, 'code'));
      return { kind: 'done', value: (await readJob(db, code))!.job }; // its row was just read
    }
    const shop = await readComputingShop(db, model);
    const job = newJob(await freeCode(db), message.title, message.client, message.words, shop.settings.school, at);
    const jobId = await writeJob(db, null, job, shop);
    await addEvent(db, {
      id: message.id,
      jobId,
      at,
      by: message.by,
      kind: 'new-job',
      detail: { title: message.title },
      revision: job.revision,
      contentHash: hash,
    });
    return { kind: 'done', value: job };
  });
}

/** Who changed something last, and when. */
export interface Changed {
  readonly by: string;
  readonly at: string;
}

export type ActOutcome =
  /** `revision` is what this act made of the job, which may have gone on since when it was sent again. */
  | { readonly kind: 'done'; readonly value: Job; readonly revision: number }
  | Unknown
  | IdTaken
  | { readonly kind: 'no-job' }
  | { readonly kind: 'refused'; readonly refusal: Refusal; readonly current: Job; readonly changed: Changed | null };

/** Does an act on a job, with its event, in one transaction; the same message again changes nothing and gives the job. */
export function actOnJob(
  pool: pg.Pool,
  model: Shop['model'],
  code: string,
  message: ActMessage,
  hash: string,
  at: string,
): Promise<ActOutcome> {
  return transaction(pool, async (db): Promise<ActOutcome> => {
    if (!(await technicianExists(db, message.by))) return { kind: 'unknown-technician' };
    const stored = await readJob(db, code, true);
    if (stored === null) return { kind: 'no-job' };
    const { id: jobId, job } = stored;
    const done = await earlierEvent(db, message.id);
    if (done !== null)
      return done.jobId === jobId && done.contentHash === hash
        ? { kind: 'done', value: job, revision: done.revision ?? job.revision }
        : { kind: 'id-taken' };
    const shop = await readComputingShop(db, model);
    const result = applyAct(job, message.act, actContext(shop, message.by, at));
    const subject = subjectOf(message.act);
    if (!result.ok) {
      const { refusal } = result;
      const changed = refusal.code === 'stale' ? await lastChange(db, jobId, subject, refusal.current) : null;
      return { kind: 'refused', refusal, current: job, changed };
    }
    await writeJob(db, stored, result.job, shop);
    await addEvent(db, {
      id: message.id,
      jobId,
      at,
      by: message.by,
      kind: message.act.kind satisfies Act['kind'],
      detail: message.act,
      revision: result.job.revision,
      subject,
      contentHash: hash,
    });
    return { kind: 'done', value: result.job, revision: result.job.revision };
  });
}

export async function listEvents(
  db: Queryable,
  jobId: number,
): Promise<{ id: string; at: string; by: string; kind: string; detail: unknown }[]> {
  return many(
    db,
    'select id, at, by, kind, detail from job_event where job_id = $1 order by at desc, revision desc nulls last, id limit 500',
    [jobId],
    (row) => ({
      id: text(row, 'id'),
      at: instant(row, 'at'),
      by: text(row, 'by'),
      kind: text(row, 'kind'),
      detail: row['detail'],
    }),
  );
}

/** The job as one file with the supplies, instruments and technicians it names. */
export async function exportJob(db: Queryable, code: string, at: string): Promise<JobFile | null> {
  const stored = await readJob(db, code);
  if (stored === null) return null;
  const { job } = stored;
  const photos = await readPhotoFiles(db, stored.id);
  const people = new Set(
    [
      ...job.outcomes,
      ...job.readings,
      ...job.probes,
      ...job.logs,
      ...job.pins,
      ...job.seats,
      ...job.steps,
      ...job.signOffs,
      ...photos,
    ]
      .map((item) => item.by)
      .concat(
        [job.finding, job.choice, job.closed, ...job.seats.map((seat) => seat.rechecked)].flatMap((item) =>
          item === null ? [] : [item.by],
        ),
      ),
  );
  const meters = new Set<string | null>([...job.readings, ...job.outcomes].map((item) => item.instrumentId));
  const file = {
    format: 'fairwatt-job' as const,
    version: 2 as const,
    exportedAt: at,
    job,
    supplies: (await readSupplies(db))
      .filter((model) => model.id === job.choice?.modelId)
      .map((model) => ({ ...model, onShelf: 0 })),
    instruments: (await readInstruments(db)).filter((instrument) => meters.has(instrument.id)),
    technicians: (await readTechnicians(db)).filter((technician) => people.has(technician.id)),
    photos,
    originals: await many(
      db,
      'select log_id, text from job_log_original join job_log on job_log.job_id = job_log_original.job_id and job_log.id = log_id where job_log_original.job_id = $1 order by log_id',
      [stored.id],
      (row) => ({ logId: text(row, 'log_id'), text: text(row, 'text') }),
    ),
  };
  return file as unknown as JobFile;
}

export type ImportOutcome = Outcome<Job> | { readonly kind: 'code-taken' };

/**
 * Reads a job file into the shop. Supplies, instruments and technicians that are not known here come with it.
 * @param as `same` keeps the job's code and is refused when it is taken; `new` gives it the next free code
 */
export function importJob(
  pool: pg.Pool,
  model: Shop['model'],
  file: JobFile,
  by: string | null,
  as: 'same' | 'new',
  at: string,
): Promise<ImportOutcome> {
  return transaction(pool, async (db): Promise<ImportOutcome> => {
    if (by !== null && !(await technicianExists(db, by))) return { kind: 'unknown-technician' };
    const taken = await maybeOne(db, 'select id from job where code = $1', [file.job.code], (row) => row);
    if (taken !== null && as === 'same') return { kind: 'code-taken' };
    await addTechnicians(db, file.technicians);
    await addInstruments(db, file.instruments);
    await addSupplies(db, file.supplies);
    const job: Job = taken === null ? file.job : { ...file.job, code: await freeCode(db) };
    const jobId = await writeJob(db, null, job, await readComputingShop(db, model));
    for (const photo of file.photos) await keepPhoto(db, jobId, photo);
    for (const original of file.originals) await keepOriginal(db, jobId, original.logId, original.text);
    const author = by ?? file.technicians[0]?.id;
    if (author !== undefined)
      await addEvent(db, {
        id: randomUUID(),
        jobId,
        at,
        by: author,
        kind: 'import',
        detail: { from: file.job.code, exportedAt: file.exportedAt, parts: partsAt(job.parts, 'planned').length },
      });
    return { kind: 'done', value: job };
  });
}

/** Says anew what the stations of open jobs say, after the knowledge or the program changed. */
export async function refreshStations(pool: pg.Pool, model: Shop['model']): Promise<number> {
  const codes = await many(pool, "select code from job where state = 'open' order by id", [], (row) =>
    text(row, 'code'),
  );
  const shop = await readComputingShop(pool, model);
  for (const code of codes) {
    await transaction(pool, async (db) => {
      const stored = await readJob(db, code, true);
      if (stored !== null) await writeStations(db, stored.id, viewJob(stored.job, shop), shop);
    });
  }
  return codes.length;
}

const keepOriginal = (db: Queryable, jobId: number, logId: string, original: string) =>
  db.query(
    'insert into job_log_original (job_id, log_id, text) values ($1, $2, $3) on conflict (job_id, log_id) do update set text = $3',
    [jobId, logId, original],
  );

/** Keeps a small log's own file beside what was made of it. False when the job has no such log. */
export function putOriginal(pool: pg.Pool, code: string, logId: string, original: string): Promise<boolean> {
  return transaction(pool, async (db) => {
    const jobId = await maybeOne(
      db,
      'select job.id from job join job_log on job_log.job_id = job.id where code = $1 and job_log.id = $2',
      [code, logId],
      (row) => number(row, 'id'),
    );
    if (jobId === null) return false;
    await keepOriginal(db, jobId, logId, original);
    return true;
  });
}

export const readOriginal = (db: Queryable, code: string, logId: string): Promise<string | null> =>
  maybeOne(
    db,
    'select text from job_log_original join job on job.id = job_id where code = $1 and log_id = $2',
    [code, logId],
    (row) => text(row, 'text'),
  );
