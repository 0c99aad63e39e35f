import { z } from 'zod';
import type { Parcel } from './parcel.ts';

const formatName = 'fairwatt-unsent';
const fileSchema = z.object({
  format: z.literal(formatName),
  version: z.literal(1),
  parcels: z.array(z.looseObject({ id: z.uuid(), kind: z.enum(['act', 'request']) })).max(5000),
});

const toBase64 = async (blob: Blob): Promise<string> => {
  const bytes = new Uint8Array(await blob.arrayBuffer());
  let text = '';
  for (let start = 0; start < bytes.length; start += 0x8000)
    text += String.fromCharCode(...bytes.subarray(start, start + 0x8000));
  return btoa(text);
};

/** What is unsent as one file, for a browser that keeps nothing. */
export async function unsentFile(parcels: readonly Parcel[]): Promise<Blob> {
  const packed = await Promise.all(
    parcels.map(async (parcel) =>
      parcel.kind === 'request' && parcel.body instanceof Blob
        ? { ...parcel, body: { type: parcel.body.type, base64: await toBase64(parcel.body) } }
        : parcel,
    ),
  );
  const file = { format: formatName, version: 1, parcels: packed };
  return new Blob([`${JSON.stringify(file, null, 1)}\n`], { type: 'application/json' });
}

/**
 * Reads such a file back in. Parcels keep their ids, so that one that was sent after all is done once.
 * @throws Error in words when it is none
 */
export function readUnsentFile(text: string): Parcel[] {
  const input = ((): unknown => {
    try {
      return JSON.parse(text);
    } catch {
      return null;
    }
  })();
  const parsed = fileSchema.safeParse(input);
  if (!parsed.success) throw new Error('This is no file of unsent changes, or it is cut off.');
  return parsed.data.parcels.map((item) => {
    const parcel = item as unknown as Parcel;
    const body = (item as { body?: unknown }).body;
    if (typeof body !== 'object' || body === null || !('base64' in body)) return { ...parcel, state: 'waiting' };
    const packed = body as { readonly base64: string; readonly type: string };
    const bytes = Uint8Array.from(atob(packed.base64), (letter) => letter.charCodeAt(0));
    return { ...parcel, body: new Blob([bytes], { type: packed.type }), state: 'waiting' } as Parcel;
  });
}
