import { randomUUID } from 'node:crypto';
import type pg from 'pg';
import { boundToBe, newJob, partsAt, viewJob, type Job, type Shop } from '@fairwatt/core';
import type { JobFile, NewJobMessage } from '@fairwatt/contract';
import { many, maybeOne, one, transaction, type Queryable } from '../database/query.ts';
import { instant, number, text } from '../database/read.ts';
import { lessonOf, recordRevision, learnedModel, writeLesson } from '../record/store.ts';
import { readShelf, searchNamesOf, shelfStamp, type Shelf } from '../shop/shelf.ts';
import { addInstruments, readInstruments, readTechnicians } from '../shop/store.ts';
import { readAccessState } from '../access/index.ts';
import { addSupplies, readSupplies } from '../supplies/store.ts';
import { withAuthorsHere } from './authors.ts';
import { addEvent, contentHash, earlierEvent } from './events.ts';
import { keepPhoto, readPhotoFiles } from './photos.ts';
import { readJob } from './read.ts';
import { insertJob } from './write.ts';

/** What a shop computes with goes by these two: its shelf, and what its closed jobs taught. */
export interface ShopStamps {
  readonly shelf: string;
  readonly record: string;
}

export const readShopStamps = async (db: Queryable): Promise<ShopStamps> => ({
  shelf: await shelfStamp(db),
  record: await recordRevision(db),
});

/** The shop with who works there. */
export type ComputingShop = Shop & Shelf;

/** The shop as the computation needs it; from memory where its stamps are known. */
export async function readComputingShop(
  db: Queryable,
  shipped: Shop['model'],
  stamps?: ShopStamps,
): Promise<ComputingShop> {
  const { shelf, record } = stamps ?? (await readShopStamps(db));
  return { ...(await readShelf(db, shelf)), model: await learnedModel(db, shipped, record) };
}

/** The next code that no job has. */
async function freeCode(db: Queryable, prefix: string): Promise<string> {
  for (;;) {
    const next = await one(db, "select nextval('job_number') as number", [], (row) => number(row, 'number'));
    const code = `${prefix}-${String(next).padStart(4, '0')}`;
    if ((await maybeOne(db, 'select id from job where code = $1', [code], (row) => row)) === null) return code;
  }
}

/** Codes that came with files are passed over at once when the next one is looked for. */
const countFrom = (db: Queryable, code: string): Promise<unknown> =>
  db.query("select setval('job_number', greatest($1, (select last_value from job_number)))", [Number(code.slice(3))]);

export type Outcome<T> = { readonly kind: 'done'; readonly value: T };

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
    const hash = contentHash(message);
    // The same message twice at once: the second waits and finds it done.
    await db.query('select pg_advisory_xact_lock(hashtextextended($1, 0))', [message.id]);
    const earlier = await earlierEvent(db, message.id);
    if (earlier !== null) {
      if (earlier.contentHash !== hash) return { kind: 'id-taken' };
      const code = await one(db, 'select code from job where id = $1', [earlier.jobId], (row) => text(row, 'code'));
      return { kind: 'done', value: boundToBe(await readJob(db, code), `job ${code}`).job };
    }
    const shop = await readComputingShop(db, model);
    const { school, codePrefix } = shop.settings;
    const job = newJob(await freeCode(db, codePrefix), message.title, message.client, message.words, school, at);
    const jobId = await insertJob(db, job, searchNamesOf(shop));
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

export async function listEvents(
  db: Queryable,
  jobId: number,
): Promise<{ id: string; at: string; by: string; kind: string; detail: unknown }[]> {
  return many(
    db,
    'select id, at, by, kind, detail from job_event where job_id = $1 order by at desc, ' +
      'revision desc nulls last, id limit 500',
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
      ...job.laidWays,
      ...job.leads,
      ...job.notes,
      ...job.proofs,
      ...job.signOffs,
      ...job.laidAside.flatMap((work) => [...work.seats, ...work.pins, ...work.steps]),
      ...photos,
    ]
      .map((item) => item.by)
      .concat(
        [
          job.finding,
          job.choice,
          job.closed,
          job.putAway,
          ...[job, ...job.laidAside].flatMap((work) => work.seats.map((seat) => seat.rechecked)),
        ].flatMap((item) => (item === null ? [] : [item.by])),
      )
      .concat(job.updatedBy ?? []),
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
    technicians: (await readTechnicians(db))
      .filter(({ id }) => people.has(id))
      .map(({ id, name }) => ({ id, name, owner: false })),
    photos,
    originals: await many(
      db,
      'select log_id, text from job_log_original join job_log on job_log.job_id = ' +
        'job_log_original.job_id and job_log.id = log_id where job_log_original.job_id = $1 order ' +
        'by log_id',
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
  given: JobFile,
  by: string | null,
  as: 'same' | 'new',
  at: string,
): Promise<ImportOutcome> {
  return transaction(pool, async (db): Promise<ImportOutcome> => {
    const taken = await maybeOne(db, 'select id from job where code = $1', [given.job.code], (row) => row);
    if (taken !== null && as === 'same') return { kind: 'code-taken' };
    const file = await withAuthorsHere(db, given, (await readAccessState(db)).signing);
    await addInstruments(db, file.instruments);
    await addSupplies(db, file.supplies);
    const shop = await readComputingShop(db, model);
    const { codePrefix } = shop.settings;
    const job: Job = taken === null ? file.job : { ...file.job, code: await freeCode(db, codePrefix) };
    if (job.code.startsWith(`${codePrefix}-`)) await countFrom(db, job.code);
    const jobId = await insertJob(db, job, searchNamesOf(shop));
    if (job.state === 'closed') {
      const { observations } = viewJob(job, shop, { candidates: [] });
      await writeLesson(db, jobId, lessonOf(job, observations));
    }
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

const keepOriginal = (db: Queryable, jobId: number, logId: string, original: string) =>
  db.query(
    'insert into job_log_original (job_id, log_id, text) values ($1, $2, $3) on conflict ' +
      '(job_id, log_id) do update set text = $3',
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
