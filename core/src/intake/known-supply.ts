import type { SupplyLabel } from '../machine/index.ts';
import type { Said, Span } from './said.ts';

/** A supply that the shop knows, by the name on its label. */
export interface KnownSupply {
  readonly name: string;
  readonly label: SupplyLabel;
}

/** A supply that a line names, and where. */
export interface NamedSupply extends Span {
  readonly supply: KnownSupply;
}

/** A letter of no language: where a name stood, the noun of a supply reads it. */
const letter = '\ue000';
const letters = /[\ue000-\uf8ff]/g;
/** Shorter names are words that mean something else. */
const leastLetters = 4;

/** Behind a name that ends in the watts of its rating. */
const watts = /^\s?w(?:atts?)?(?![\p{L}\p{N}])/u;

const byLength = new WeakMap<readonly KnownSupply[], readonly (readonly [name: string, supply: KnownSupply])[]>();

/** The names in small letters, the longest first: `corvane 850 s plus` is no `corvane 850 s`. */
function namesOf(supplies: readonly KnownSupply[]): readonly (readonly [name: string, supply: KnownSupply])[] {
  const known = byLength.get(supplies);
  if (known !== undefined) return known;
  const names = supplies
    .map((supply) => [supply.name.trim().toLowerCase(), supply] as const)
    .filter(([name]) => name.length >= leastLetters)
    .sort(([a], [b]) => b.length - a.length);
  byLength.set(supplies, names);
  return names;
}

const isWord = (letterBeside: string | undefined): boolean =>
  letterBeside !== undefined && /[\p{L}\p{N}]/u.test(letterBeside);

/** A line in which the names of known supplies are letters of no language, each in its place, and which they are. */
export function withSupplies(
  line: string,
  supplies: readonly KnownSupply[],
): { readonly read: string; readonly named: readonly NamedSupply[] } {
  let read = line.replace(letters, ' ');
  const small = read.toLowerCase();
  const named: NamedSupply[] = [];
  // Of a few letters the small one is longer than the large: places would no longer be the same.
  if (small.length !== read.length) return { read, named };
  for (const [name, supply] of namesOf(supplies)) {
    const from = small.indexOf(name);
    const to =
      from + name.length + (/\d$/.test(name) ? (watts.exec(small.slice(from + name.length))?.[0].length ?? 0) : 0);
    if (from < 0 || isWord(small[from - 1]) || isWord(small[to]) || read.slice(from, to).includes(letter)) continue;
    read = read.slice(0, from) + letter.repeat(to - from) + read.slice(to);
    named.push({ from, to, supply });
  }
  return { read, named };
}

/** A supply that was named with what the shop knows of it; watts that are not its own are asked about. */
export function withModel(said: Said, named: readonly NamedSupply[]): Said {
  if (said.kind !== 'supply') return said;
  const supply = named.find(({ from }) => from >= said.from && from < said.to)?.supply ?? null;
  if (supply === null) return said;
  const { ratingWatts, shape, grade, modular } = supply.label;
  if (said.ratingWatts > 0 && said.ratingWatts !== ratingWatts)
    return { from: said.from, to: said.to, kind: 'ask', ask: 'supply-watts' };
  return { ...said, model: supply, ratingWatts, shape, grade, modular };
}
