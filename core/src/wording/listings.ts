import {
  type ListedDoubt,
  type ListedDrive,
  type ListingKind,
  type ListingProblem,
  mostListingLetters,
} from '../intake/index.ts';

/** What a listing is called. */
export const listingKindText: Readonly<Record<ListingKind, string>> = {
  lshw: 'lshw',
  lsblk: 'lsblk',
  lspci: 'lspci',
  dmidecode: 'dmidecode',
  smartctl: 'smartctl',
  sensors: 'sensors',
  powercap: 'power limits',
  windows: 'Windows table',
};

/** Why nothing of a text was taken. */
export const listingProblemText: Readonly<Record<ListingProblem, string>> = {
  empty: 'is empty',
  foreign: 'is no listing that is known here',
  'cut-off': 'ends before its end: print or copy it once more, whole',
  broken: 'has the marks of a listing and cannot be read as one: was the tool allowed to look?',
  'too-large': `is too much for one machine (at most ${mostListingLetters / 1e6} million letters, 256 parts of a kind)`,
};

/** What a listing leaves open of a part. */
export const listedDoubtText: Readonly<Record<ListedDoubt, string>> = {
  watts: 'its watts are not told: by its cores',
  plugs: 'its power inlets are not told: look',
  kind: 'its kind is not told: the one that draws more',
  count: 'the listings count differently',
};

/** What a drive tells of its life; null where it tells nothing. */
export function driveLifeText({ name, hours, starts, powerLosses }: ListedDrive): string | null {
  const told = [
    hours === null ? null : `${hours} hours`,
    starts === null ? null : `${starts} starts`,
    powerLosses === null ? null : `${powerLosses} times its power was gone without notice`,
  ].filter((text) => text !== null);
  return told.length === 0 ? null : `${name || 'Drive'}: ${told.join(', ')}`;
}
