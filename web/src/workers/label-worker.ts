/* oxlint-disable typescript/no-non-null-assertion --
   points of a picture are typed arrays, gone through by number within its width and height;
   every browser that has such a canvas has its pen */
import { expose } from 'comlink';
import { createWorker, OEM, PSM, type Page, type Worker as Reader } from 'tesseract.js';
import corePath from 'tesseract.js-core/tesseract-core-simd-lstm.wasm.js?url';
import workerPath from 'tesseract.js/dist/worker.min.js?url';
import dataPath from '@tesseract.js-data/eng/4.0.0_best_int/eng.traineddata.gz?url';
import {
  evenLabel,
  figureStrip,
  greyOf,
  readAgain,
  readLabel,
  withSecondReading,
  type Grey,
  type LabelRead,
  type PrintedWord,
} from '@fairwatt/core';
import { NoPicture, openPicture } from '../pictures/open-picture.ts';
import { scaledSize } from '../pictures/scaled-picture.ts';

/** What a picture of a label says, with the evened picture that its boxes are in. */
export interface LabelPicture {
  readonly read: LabelRead;
  readonly picture: Blob;
  readonly width: number;
  readonly height: number;
}

/** Why a picture was not read, in words for whoever gave it; nothing of it is taken. */
export interface NotRead {
  readonly refused: string;
}

/** Larger pictures are brought to this many points, across or down, before anything is looked at. */
const enoughAcross = 1600;

/** The picture in grey, not larger than is of use. @throws NoPicture */
async function greyPicture(file: File): Promise<Grey> {
  const bitmap = await openPicture(file);
  try {
    const { width, height } = scaledSize(bitmap.width, bitmap.height, enoughAcross);
    const pen = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true })!;
    pen.drawImage(bitmap, 0, 0, width, height);
    return greyOf(width, height, pen.getImageData(0, 0, width, height).data);
  } finally {
    bitmap.close();
  }
}

/** A grey picture in the plainest format that the reader takes (PGM). */
const asFile = ({ width, height, data }: Grey): Blob => new Blob([`P5\n${width} ${height}\n255\n`, data.slice()]);

async function asPng({ width, height, data }: Grey): Promise<Blob> {
  const canvas = new OffscreenCanvas(width, height);
  const pen = canvas.getContext('2d')!;
  const image = pen.createImageData(width, height);
  for (let at = 0; at < data.length; at += 1) image.data.set([data[at]!, data[at]!, data[at]!, 255], at * 4);
  pen.putImageData(image, 0, 0);
  return canvas.convertToBlob({ type: 'image/png' });
}

const wordsOf = ({ blocks }: Page): PrintedWord[] =>
  (blocks ?? [])
    .flatMap(({ paragraphs }) => paragraphs)
    .flatMap(({ lines }) => lines)
    .flatMap(({ words }) => words)
    .map(({ text, confidence, bbox }) => ({
      text,
      sure: confidence,
      box: { left: bbox.x0, top: bbox.y0, right: bbox.x1, bottom: bbox.y1 },
    }));

let onShare: ((share: number) => void) | null = null;

/** Whether the reader's data can be had: from this device, or from the server. */
async function isThere(): Promise<boolean> {
  try {
    return (await fetch(dataPath)).ok;
  } catch (error) {
    if (error instanceof TypeError) return false;
    throw error;
  }
}

const absolute = (path: string): string => new URL(path, self.location.href).href;

async function startReader(): Promise<Reader | null> {
  if (!(await isThere())) return null;
  return createWorker('eng', OEM.LSTM_ONLY, {
    workerPath: absolute(workerPath),
    corePath: absolute(corePath),
    langPath: absolute(dataPath).replace(/\/[^/]*$/, ''),
    workerBlobURL: false,
    cacheMethod: 'none',
    logger: ({ status, progress }) => {
      if (status === 'recognizing text') onShare?.(progress);
    },
  });
}

let reader: Promise<Reader | null> | null = null;

async function wordsIn(engine: Reader, grey: Grey, mode: PSM, letters: string): Promise<PrintedWord[]> {
  await engine.setParameters({
    tessedit_pageseg_mode: mode,
    tessedit_char_whitelist: letters,
    user_defined_dpi: '150',
  });
  const { data } = await engine.recognize(asFile(grey), {}, { blocks: true, text: false });
  return wordsOf(data);
}

const work = {
  /** Starts the reader, so that it is there by the time that a picture is. */
  async prepare(): Promise<void> {
    reader ??= startReader();
    await reader;
  },
  /**
   * Reads the label on a picture: evened, as a whole, then each figure once more alone.
   * @param today ISO date
   * @param told is called with the share that is done, 0 to 1
   */
  async read(file: File, today: string, told: (share: number) => void): Promise<LabelPicture | NotRead> {
    reader ??= startReader();
    let grey: Grey;
    try {
      grey = await greyPicture(file);
    } catch (error) {
      if (!(error instanceof NoPicture)) throw error;
      return { refused: error.message };
    }
    told(0.05);
    const print = evenLabel(grey);
    told(0.2);
    const engine = await reader;
    if (engine === null) {
      reader = null;
      return {
        refused: 'What reads print is not on this device yet. It is fetched once, when the server is there.',
      };
    }
    onShare = (share) => told(0.3 + 0.5 * share);
    const first = readLabel(await wordsIn(engine, print, PSM.SPARSE_TEXT, ''), today);
    const { grey: strip, lines } = figureStrip(print, first);
    onShare = (share) => told(0.8 + 0.2 * share);
    const again = lines.length === 0 ? [] : await wordsIn(engine, strip, PSM.SINGLE_BLOCK, '0123456789.AW');
    onShare = null;
    return {
      read: withSecondReading(first, readAgain(first, lines, again)),
      picture: await asPng(print),
      width: print.width,
      height: print.height,
    };
  },
};
export type LabelWork = typeof work;

expose(work);
