import { imageSize } from 'image-size';
import { mostPhotoPixels } from '@fairwatt/contract';

/** Why a file is not taken as a picture, in words for whoever chose it. */
export class NoPicture extends Error {}

/** A file that is larger is not even opened: a phone's browser may end over it. */
const mostFileBytes = 40 * 1024 * 1024;

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

/** A picture, turned upright; what is too large is refused before it is opened. @throws NoPicture */
export async function openPicture(file: File): Promise<ImageBitmap> {
  if (file.size > mostFileBytes)
    throw new NoPicture(
      `${file.name} has ${Math.round(file.size / 1024 / 1024)} MB; pictures up to ` +
        `${mostFileBytes / 1024 / 1024} MB are taken.`,
    );
  await refuseHuge(file);
  try {
    return await createImageBitmap(file, { imageOrientation: 'from-image' });
  } catch {
    throw new NoPicture(`${file.name} is no picture that this browser can read. JPEG, PNG and WebP are.`);
  }
}
