import type { ListingKind, ListingProblem } from './listed.ts';
import { mergeListings, type ListedMachine, type Source } from './merge.ts';
import { mostListingLetters, recognise, sectionsOf, type ReadCsv } from './recognise.ts';

/** A text that somebody dropped or pasted, with the name that it came under. */
export interface ListingText {
  readonly name: string;
  readonly text: string;
}

export interface ListingsRead {
  /** What was read, in the order in which it was given. */
  readonly read: readonly { readonly name: string; readonly kind: ListingKind }[];
  /** What was not; nothing of these is in `machine`. */
  readonly refused: readonly { readonly name: string; readonly problem: ListingProblem }[];
  readonly machine: ListedMachine;
}

/**
 * Reads the listings of a machine that ordinary system tools print, several together: `lshw -json`, `lsblk -J -O`,
 * `lspci -mm -nn`, `dmidecode`, `smartctl --json -a`, `sensors -j`, Windows' own tables as CSV, and the file in which
 * the script collects them. Each is taken whole or not at all. Never throws; see `docs/listings.md`.
 */
export function readListings(texts: readonly ListingText[], readCsv: ReadCsv): ListingsRead {
  const read: { name: string; kind: ListingKind }[] = [];
  const refused: { name: string; problem: ListingProblem }[] = [];
  const sources: Source[] = [];
  function take(name: string, text: string): void {
    const found = recognise(text, readCsv);
    if ('problem' in found) {
      refused.push({ name, problem: found.problem });
      return;
    }
    read.push({ name, kind: found.kind });
    sources.push(found);
  }
  for (const { name, text } of texts) {
    if (text.length > mostListingLetters) {
      refused.push({ name, problem: 'too-large' });
      continue;
    }
    const sections = sectionsOf(text);
    if (sections === null) take(name, text);
    else if (sections === 'cut-off') refused.push({ name, problem: 'cut-off' });
    else for (const section of sections) take(`${name}: ${section.name}`, section.text);
  }
  return { read, refused, machine: mergeListings(sources) };
}
