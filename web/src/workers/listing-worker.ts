import { expose } from 'comlink';
import Papa from 'papaparse';
import { mostListingLetters, readListings, type ListingsRead, type ListingText } from '@fairwatt/core';

/** A file, or what was pasted. */
export type Dropped = File | ListingText;

/** Two bytes a letter, as the older of Windows' commands writes. */
const mostBytes = 2 * mostListingLetters + 2;

/** A file's text. One that is too large is not read at all: its length alone says so. */
async function textOf(file: File): Promise<ListingText> {
  if (file.size > mostBytes) return { name: file.name, text: ' '.repeat(mostListingLetters + 1) };
  const bytes = new Uint8Array(await file.arrayBuffer());
  const encoding =
    bytes[0] === 0xff && bytes[1] === 0xfe ? 'utf-16le' : bytes[0] === 0xfe && bytes[1] === 0xff ? 'utf-16be' : 'utf-8';
  return { name: file.name, text: new TextDecoder(encoding).decode(bytes) };
}

const readCsv = (text: string) => Papa.parse<string[]>(text, { skipEmptyLines: true }).data;

const work = {
  /** Reads all of them together; a file that cannot be opened any more rejects. */
  async read(dropped: readonly Dropped[]): Promise<ListingsRead> {
    const texts = await Promise.all(dropped.map(async (one) => (one instanceof File ? textOf(one) : one)));
    return readListings(texts, readCsv);
  },
};
export type ListingWork = typeof work;

expose(work);
