import { z } from 'zod';
import { figure, id, instant, text, uuid } from './primitives.ts';

/** How many pictures one job keeps, and how large each may be as the browser sends it, scaled down. */
export const mostPhotos = 24;
export const mostPhotoBytes = 700_000;
/** A picture of more pixels than this is not opened: a phone's browser would end over it. Read from its head alone. */
export const mostPhotoPixels = 60_000_000;
/** The longer edge to which a browser scales a picture, in pixels. */
export const photoEdgePixels = 1600;

export const photoFormats = ['image/jpeg', 'image/png', 'image/webp'] as const;
const photoFields = {
  id: uuid,
  caption: text(120),
  cableId: uuid.nullable(),
  leadId: uuid.nullable().default(null),
  widthPixels: figure(1, 20_000),
  heightPixels: figure(1, 20_000),
  by: id,
  at: instant,
};

/** A picture of a job without its bytes. `cableId` and `leadId` name the recorded cable or the lead that it shows. */
export const photoSchema = z.strictObject({ ...photoFields, bytes: z.int().min(1) });
export type Photo = z.infer<typeof photoSchema>;
export const photosSchema = z.array(photoSchema);

/** What is said with a picture that is sent. */
export const photoQuerySchema = z.strictObject({
  by: id,
  id: uuid,
  caption: text(120).default(''),
  cableId: uuid.optional(),
  leadId: uuid.optional(),
});

/** A picture in a job file, its bytes in base 64. */
export const photoFileSchema = z.strictObject({
  ...photoFields,
  format: z.enum(photoFormats),
  data: z.base64().max(Math.ceil((mostPhotoBytes * 4) / 3) + 4),
});
