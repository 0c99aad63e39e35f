export type { ListedDrive, ListedVolts, ListingKind, ListingProblem } from './listed.ts';
export type { ListedMachine } from './merge.ts';
export { type ListedDoubt, type ListedPart, partsListed } from './parts-listed.ts';
export { type ListingsRead, type ListingText, readListings } from './read-listings.ts';
export { mostListingLetters, type ReadCsv } from './recognise.ts';
export { isThereAlready, type PickedPart, takeListed } from './take-listed.ts';
