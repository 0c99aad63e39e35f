import { imageSize } from 'image-size';
import { mostPhotoBytes, mostPhotoPixels, photoEdgePixels } from '@fairwatt/contract';

/** Why a file is not kept as a picture, in words for whoever chose it. */
export class NoPicture extends Error {}

/** A file that is larger is not even opened: a phone's browser may end over it. */
const mostFileBytes = 40 * 1024 * 1024;

/** The size a picture is drawn at, so that its longer edge is at most `edge`. */
export function scaledSize(
  widthPixels: number,
  heightPixels: number,
  edge: number,
): { readonly width: number; readonly height: number } {
  const factor = Math.min(1, edge / Math.max(widthPixels, heightPixels));
  return {
    width: Math.max(1, Math.round(widthPixels * factor)),
    height: Math.max(1, Math.round(heightPixels * factor)),
  };
}

/** What a picture says of its size stands in its first bytes. */
const headBytes = 256 * 1024;

/**
 * Looks at the head of a picture before it is opened. A head that says nothing is left to the browser. @throws
 * NoPicture
 */
async function refuseHuge(file: File): Promise<void> {
  const head = new Uint8Array(await file.slice(0, headBytes).arrayBuffer());
  const size = (() => {
    try {
      return imageSize(head);
    } catch {
      // Not a picture that the package knows, or its size stands further on.
      return null;
    }
  })();
  if (size !== null && size.width * size.height > mostPhotoPixels)
    throw new NoPicture(
      `${file.name} has ${Math.round((size.width * size.height) / 1e6)} million pixels; ` +
        `pictures up to ${mostPhotoPixels / 1e6} million are taken.`,
    );
}

/**
 * A file as JPEG that the server keeps: turned upright, scaled down, pressed harder until it is small enough. @throws
 * NoPicture
 */
export async function scaledPicture(file: File): Promise<Blob> {
  if (file.size > mostFileBytes)
    throw new NoPicture(
      `${file.name} has ${Math.round(file.size / 1024 / 1024)} MB; pictures up to ` +
        `${mostFileBytes / 1024 / 1024} MB are taken.`,
    );
  await refuseHuge(file);
  let bitmap: ImageBitmap;
  try {
    bitmap = await createImageBitmap(file, { imageOrientation: 'from-image' });
  } catch {
    throw new NoPicture(`${file.name} is no picture that this browser can read. JPEG, PNG and WebP are.`);
  }
  try {
    for (const [edge, quality] of [
      [photoEdgePixels, 0.82],
      [photoEdgePixels, 0.6],
      [1200, 0.6],
      [800, 0.5],
    ] as const) {
      const { width, height } = scaledSize(bitmap.width, bitmap.height, edge);
      const canvas = new OffscreenCanvas(width, height);
      canvas.getContext('2d')!.drawImage(bitmap, 0, 0, width, height);
      const blob = await canvas.convertToBlob({ type: 'image/jpeg', quality });
      if (blob.size <= mostPhotoBytes) return blob;
    }
  } finally {
    bitmap.close();
  }
  throw new NoPicture(`${file.name} stays too large however it is scaled.`);
}
