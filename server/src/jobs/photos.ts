import { randomUUID } from 'node:crypto';
import type pg from 'pg';
import { imageSize } from 'image-size';
import { type photoFormats, mostPhotoPixels, mostPhotos, type JobFile, type Photo } from '@fairwatt/contract';
import { insertRows, many, maybeOne, one, transaction, type Queryable } from '../database/query.ts';
import { instant, member, number, orNull, text } from '../database/read.ts';
import { addEvent } from './events.ts';

type PhotoFile = JobFile['photos'][number];
type Format = (typeof photoFormats)[number];
const formatOf: Readonly<Record<string, Format>> = { jpg: 'image/jpeg', png: 'image/png', webp: 'image/webp' };
const columns = [
  'id',
  'job_id',
  'caption',
  'cable_id',
  'lead_id',
  'width_pixels',
  'height_pixels',
  'format',
  'data',
  'by',
  'at',
] as const;

/** What kind of picture these bytes are and how large; null when they are none that is kept. */
export function pictureOf(
  bytes: Uint8Array,
): { readonly format: Format; readonly widthPixels: number; readonly heightPixels: number } | null {
  try {
    const { type, width, height } = imageSize(bytes);
    const format = formatOf[type ?? ''];
    const fits = width >= 1 && height >= 1 && width * height <= mostPhotoPixels;
    return format === undefined || !fits ? null : { format, widthPixels: width, heightPixels: height };
  } catch {
    // The package says by throwing that it knows no such picture.
    return null;
  }
}

const photoOf = (row: Record<string, unknown>) => ({
  id: text(row, 'id'),
  caption: text(row, 'caption'),
  cableId: orNull(text)(row, 'cable_id'),
  leadId: orNull(text)(row, 'lead_id'),
  widthPixels: number(row, 'width_pixels'),
  heightPixels: number(row, 'height_pixels'),
  by: text(row, 'by'),
  at: instant(row, 'at'),
});

export const readPhotos = (db: Queryable, jobId: number): Promise<Photo[]> =>
  many(
    db,
    'select id, caption, cable_id, lead_id, width_pixels, height_pixels, by, at, length(data) as bytes ' +
      'from job_photo where job_id = $1 order by at, id',
    [jobId],
    (row) => ({ ...photoOf(row), bytes: number(row, 'bytes') }),
  );

export const readPhotoFiles = (db: Queryable, jobId: number): Promise<PhotoFile[]> =>
  many(
    db,
    "select *, replace(encode(data, 'base64'), E'\\n', '') as encoded from job_photo where job_id = $1 order by at, id",
    [jobId],
    (row) => ({ ...photoOf(row), format: member<Format>(row, 'format'), data: text(row, 'encoded') }),
  );

export const readPhotoData = (
  db: Queryable,
  jobId: number,
  id: string,
): Promise<{ format: Format; data: Buffer } | null> =>
  maybeOne(db, 'select format, data from job_photo where job_id = $1 and id = $2', [jobId, id], (row) => ({
    format: member<Format>(row, 'format'),
    data: row['data'] as Buffer,
  }));

const insertPhoto = (db: Queryable, jobId: number, photo: Omit<PhotoFile, 'data'>, bytes: Buffer): Promise<void> =>
  insertRows(db, 'job_photo', columns, [
    [
      photo.id,
      jobId,
      photo.caption,
      photo.cableId,
      photo.leadId,
      photo.widthPixels,
      photo.heightPixels,
      photo.format,
      bytes,
      photo.by,
      photo.at,
    ],
  ]);

export const keepPhoto = (db: Queryable, jobId: number, photo: PhotoFile): Promise<void> =>
  insertPhoto(db, jobId, photo, Buffer.from(photo.data, 'base64'));

export type PhotoChange = { readonly kind: 'done' | 'closed' | 'too-many' | 'not-found' };

/** Keeps a picture; the same id again keeps the first. */
export function addPhoto(
  pool: pg.Pool,
  jobId: number,
  photo: Omit<PhotoFile, 'data'>,
  bytes: Buffer,
): Promise<PhotoChange> {
  return transaction(pool, async (db): Promise<PhotoChange> => {
    const state = await one(db, 'select state from job where id = $1 for update', [jobId], (row) => text(row, 'state'));
    if (state !== 'open') return { kind: 'closed' };
    const there = await many(db, 'select id from job_photo where job_id = $1', [jobId], (row) => text(row, 'id'));
    if (there.includes(photo.id)) return { kind: 'done' };
    if (there.length >= mostPhotos) return { kind: 'too-many' };
    await insertPhoto(db, jobId, photo, bytes);
    await addEvent(db, {
      id: randomUUID(),
      jobId,
      at: photo.at,
      by: photo.by,
      kind: 'add-photo',
      detail: { id: photo.id, caption: photo.caption },
    });
    return { kind: 'done' };
  });
}

export function removePhoto(pool: pg.Pool, jobId: number, by: string, id: string, at: string): Promise<PhotoChange> {
  return transaction(pool, async (db): Promise<PhotoChange> => {
    if (
      (await one(db, 'select state from job where id = $1 for update', [jobId], (row) => text(row, 'state'))) !== 'open'
    )
      return { kind: 'closed' };
    if ((await db.query('delete from job_photo where job_id = $1 and id = $2', [jobId, id])).rowCount !== 1)
      return { kind: 'not-found' };
    await addEvent(db, { id: randomUUID(), jobId, at, by, kind: 'drop-photo', detail: { id } });
    return { kind: 'done' };
  });
}
