import { understand, type OwnName } from './understand.ts';

/** What somebody looks for when a part is to be added: `4x hard drive`, `+ card`. */
export interface SoughtPart {
  /** Words that are to stand in what is found, in any order, in small letters. */
  readonly words: readonly string[];
  /** So many are to be added; null where that is none, or more than a machine has. */
  readonly quantity: number | null;
  /** The upgrade brings it. */
  readonly change: 'stays' | 'added';
  /** The class or the shop's own part that the words name, whatever it is called there; null where they name none. */
  readonly named: { readonly classId: string; readonly own: string | null } | null;
}

/** More of one part than this is a slip; a machine's own limit of parts is checked where they are added. */
const mostSought = 64;
/** Nobody looks for anything by more letters than this. */
const mostTyped = 200;
const before = /^\s*(\+)?\s*(?:(\d{1,3})\s*[x×](?!\d)\s*)?(.*?)(?:\s+[x×]\s*(\d{1,3}))?\s*$/is;

/** Reads what was typed into the field that finds parts. Never throws. */
export function soughtPart(typed: string, own: readonly OwnName[] = []): SoughtPart {
  const [, added, first, rest = '', last] = before.exec(typed.slice(0, mostTyped)) ?? [];
  const count = Number(first ?? last ?? 1);
  const { said } = understand(rest, own);
  const [only] = said;
  return {
    words: rest.toLowerCase().split(/\s+/).filter(Boolean),
    quantity: count >= 1 && count <= mostSought ? count : null,
    change: added === undefined ? 'stays' : 'added',
    named: said.length === 1 && only?.kind === 'part' ? { classId: only.classId, own: only.own } : null,
  };
}

/** Whether all words stand in a name, in any order. */
export const isSought = ({ words }: SoughtPart, name: string): boolean => {
  const text = name.toLowerCase();
  return words.every((word) => text.includes(word));
};
