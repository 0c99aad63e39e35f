import { sparesTicked } from './cabling.ts';
import type { Job } from './job.ts';

/** What of a job is looked through, in the order in which a hit is told. */
export const searchFieldIds = [
  'code',
  'title',
  'client',
  'reach',
  'words',
  'part',
  'supply',
  'fitted',
  'finding',
  'upgrade',
  'cable',
  'bag',
  'serial',
  'note',
  'technician',
] as const;
export type SearchFieldId = (typeof searchFieldIds)[number];

/** One text of a job, as it is shown when it is hit. */
export interface SearchField {
  readonly field: SearchFieldId;
  readonly text: string;
}

/** Names that a job knows by their ids only; null for an id that nobody knows any more. */
export interface SearchNames {
  readonly supply: (id: string) => string | null;
  readonly fault: (id: string) => string | null;
  readonly technician: (id: string) => string | null;
  /** The label of a spare cable in the shop's bags. */
  readonly spare: (id: string) => string | null;
}

/**
 * Everything of a job that somebody would look for; texts that are empty are left out, each text once for its field.
 */
export function searchFields(job: Job, names: SearchNames): SearchField[] {
  const { sheet } = job;
  const people = [
    ...[
      ...job.outcomes,
      ...job.readings,
      ...job.probes,
      ...job.logs,
      ...job.seats,
      ...job.steps,
      ...job.laidWays,
      ...job.leads,
      ...job.notes,
      ...job.proofs,
      ...job.signOffs,
    ],
    ...[job.finding, job.choice, job.closed].filter((item) => item !== null),
  ]
    .map((item) => item.by)
    .concat(sheet.inCharge ?? []);
  const all: readonly (readonly [SearchFieldId, string | null | undefined])[] = [
    ['code', job.code],
    ['title', sheet.title],
    ['client', sheet.client],
    ['reach', sheet.reach],
    ['words', sheet.words],
    ...job.parts.map((part) => ['part', part.name] as const),
    ['supply', job.supply?.name],
    ['fitted', job.choice?.modelId == null ? null : names.supply(job.choice.modelId)],
    ['finding', job.finding?.faultId == null ? null : names.fault(job.finding.faultId)],
    ['finding', job.finding?.alsoFaultId == null ? null : names.fault(job.finding.alsoFaultId)],
    ['finding', job.finding?.note],
    ['upgrade', sheet.upgrade],
    ...job.cables.map((cable) => ['cable', cable.label] as const),
    ...job.leads.map((lead) => ['cable', lead.what] as const),
    ['bag', sheet.leftInBag],
    ...sparesTicked(job).map((id) => ['bag', names.spare(id)] as const),
    ['serial', sheet.serial],
    ['serial', sheet.fittedSerial],
    ['note', sheet.cameAlongNote],
    ['note', sheet.surroundings],
    ...job.notes.map((note) => ['note', note.text] as const),
    ['note', sheet.watch],
    ['note', sheet.schoolNote],
    ...people.map((id) => ['technician', names.technician(id)] as const),
  ];
  const seen = new Set<string>();
  return all.flatMap(([field, text]) => {
    const key = `${field} ${text ?? ''}`;
    if (text == null || text.trim() === '' || seen.has(key)) return [];
    seen.add(key);
    return [{ field, text }];
  });
}

/** Letters without their case and accents, single spaces between words. */
export const foldText = (text: string): string =>
  text
    .normalize('NFKD')
    .replace(/\p{Mark}/gu, '')
    .toLowerCase()
    .replace(/\s+/g, ' ')
    .trim();

/** Numbers as people write them, with spaces, dashes, slashes or brackets between; six digits and more count as one. */
const spacedNumber = /\+?\d[\d ()/.-]{4,}\d/g;
const digitsOf = (text: string) => text.replace(/\D/g, '');

/** Other spellings under which a text is found: a job's code without its dash, a number without its gaps. */
function spellings({ field, text }: SearchField): string[] {
  if (field === 'code') return [text.replaceAll('-', '')];
  return [...text.matchAll(spacedNumber)].map(([number]) => digitsOf(number)).filter((digits) => digits.length >= 6);
}

/** The text that a search runs over: each field and its other spellings, folded, a space before each word. */
export const searchDocument = (fields: readonly SearchField[]): string =>
  fields.map((item) => ` ${foldText([item.text, ...spellings(item)].join(' '))}`).join(' ');

/** Whether a query is one number with gaps in it, such as that of a telephone. */
const isNumber = (folded: string) => /^\+?[\d ()/.-]+$/.test(folded) && digitsOf(folded).length >= 6;

/**
 * What has to be found, all of it and in any order. A word of one or two letters has to begin a word, since it stands
 * inside far too many; that is what the space before it says.
 */
export function searchWords(query: string): string[] {
  const folded = foldText(query);
  if (folded === '') return [];
  if (isNumber(folded)) return [digitsOf(folded)];
  return [...new Set(folded.split(' '))].map((word) => (word.length < 3 ? ` ${word}` : word));
}

/** Whether a job of this document is found. */
export const isFound = (document: string, words: readonly string[]): boolean =>
  words.every((word) => document.includes(word));

/** The field that shows why a job was found: the first that has most of the words; null for no words. */
export function hitOf(fields: readonly SearchField[], words: readonly string[]): SearchField | null {
  let best: { readonly item: SearchField; readonly count: number } | null = null;
  for (const item of fields) {
    const text = searchDocument([item]);
    const count = words.filter((word) => text.includes(word)).length;
    if (count > (best?.count ?? 0)) best = { item, count };
  }
  return best?.item ?? null;
}
