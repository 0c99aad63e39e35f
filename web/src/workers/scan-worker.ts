/* oxlint-disable typescript/no-non-null-assertion --
   points of a picture are typed arrays, gone through by number within its width and height;
   every browser that has such a canvas has its pen */
import { expose } from 'comlink';
import { prepareZXingModule, readBarcodes } from 'zxing-wasm/reader';
import readerFile from 'zxing-wasm/reader/zxing_reader.wasm?url';

prepareZXingModule({ overrides: { locateFile: (name: string) => (name.endsWith('.wasm') ? readerFile : name) } });

/** Larger pictures are brought to this many points, across or down: a phone's have many times what a code needs. */
const enoughAcross = 1600;
const mostCodes = 8;

const work = {
  /**
   * The texts of the codes on a picture, each once: QR and the usual bar codes, however they lie. The picture is given
   * away.
   */
  async read(picture: ImageBitmap): Promise<readonly string[]> {
    const share = Math.min(1, enoughAcross / Math.max(picture.width, picture.height));
    const width = Math.max(1, Math.round(picture.width * share));
    const height = Math.max(1, Math.round(picture.height * share));
    const pen = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true })!;
    pen.drawImage(picture, 0, 0, width, height);
    picture.close();
    const found = await readBarcodes(pen.getImageData(0, 0, width, height), {
      tryHarder: true,
      maxNumberOfSymbols: mostCodes,
    });
    return [...new Set(found.filter(({ isValid }) => isValid).map(({ text }) => text))];
  },
};
export type ScanWork = typeof work;
expose(work);
