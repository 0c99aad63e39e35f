import { boundToBe } from '@fairwatt/core';
import { mostPhotoBytes, photoEdgePixels } from '@fairwatt/contract';
import { NoPicture, openPicture } from './open-picture.ts';

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

/**
 * A file as JPEG that the server keeps: turned upright, scaled down, pressed harder until it is small enough. @throws
 * NoPicture
 */
export async function scaledPicture(file: File): Promise<Blob> {
  const bitmap = await openPicture(file);
  try {
    for (const [edge, quality] of [
      [photoEdgePixels, 0.82],
      [photoEdgePixels, 0.6],
      [1200, 0.6],
      [800, 0.5],
    ] as const) {
      const { width, height } = scaledSize(bitmap.width, bitmap.height, edge);
      const canvas = new OffscreenCanvas(width, height);
      boundToBe(canvas.getContext('2d'), 'pen for a picture').drawImage(bitmap, 0, 0, width, height);
      const blob = await canvas.convertToBlob({ type: 'image/jpeg', quality });
      if (blob.size <= mostPhotoBytes) return blob;
    }
  } finally {
    bitmap.close();
  }
  throw new NoPicture(`${file.name} stays too large however it is scaled.`);
}
