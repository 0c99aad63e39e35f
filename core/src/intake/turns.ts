import { wattsPattern } from './figures.ts';
import { lentTo, matchesIn, type Match } from './matches.ts';
import type { Span } from './said.ts';
import { wish, type Stretch } from './ways.ts';

/** What says of a whole clause that it is not so, or not all of it: nothing can be made of it by its words alone. */
export const saysNot = new RegExp(
  '(?<!\\w)(?:(?:everything|anything|all|nothing)\\s+(?:but|except)|except|apart from|other than|never|no longer|' +
    "(?:won|can|mustn|shouldn|needn|isn|aren|wasn)['’]?t|" +
    "(?:do(?:es)?(?:n['’]t| not)|will not|must not)(?!\\s+(?:have|got)))(?!\\w)",
  'i',
);

const keepBefore = new RegExp(`^\\s*${wish}(?:keep(?:s|ing)?|leav(?:e|es|ing)(?: in)?)(?!\\w)\\s*`, 'i');
const keepBehind = /\s+(?:stays?(?: in)?|remains?|(?:(?:is|are)\s+)?kept)\s*$/i;

/** `keep the processor`, `the card stays`: what is kept, without the words that say so; null where nothing is. */
export function keptIn(text: string): Span | null {
  const [before, behind] = [keepBefore.exec(text), keepBehind.exec(text)];
  if (before === null && behind === null) return null;
  return { from: before?.[0].length ?? 0, to: behind?.index ?? text.length };
}

const newOne = new RegExp(
  '^\\s*(?:and\\s+)?(?:(?:the|an?|its)\\s+)?(?:new(?:er)?(?:\\s+ones?)?|replacement|next one)(?!\\w)' +
    '\\s*(?:is|has|will (?:be|have)|to be|with|:|=)?\\s*',
  'i',
);

/**
 * `the card goes, the new one has 16 pins and 300 W`: a clause without a noun that speaks of what takes the place of
 * what left before it. Null for any other clause.
 */
export function newOneIn(
  text: string,
  gone: readonly Match[],
): { readonly stretch: Stretch; readonly match: Match } | null {
  const from = newOne.exec(text)?.[0].length ?? 0;
  if (from === 0 || matchesIn(text).length > 0) return null;
  const match = lentTo(text.slice(from), gone.slice(-1));
  if (match === null) return null;
  const start = text.length - text.trimStart().length;
  return { match, stretch: { from, to: text.length, way: 'added', signed: { from: start, to: from } } };
}

const joint = /(?:\s|(?<=\w))(?:and|plus|with|[&+])(?=\s)/i;

/** `cpu 65 W -> 170 W and 2 ssds`: figures that come in place of what leaves end where another thing is named. */
export function withOwnFigures(text: string, ways: readonly Stretch[]): Stretch[] {
  const gone = ways.find(({ way }) => way === 'replaced');
  if (gone === undefined) return [...ways];
  const leaving = matchesIn(text.slice(gone.from, gone.to)).slice(-1);
  return ways.flatMap((one) => {
    const what = text.slice(one.from, one.to);
    const found = one.way === 'added' ? joint.exec(what) : null;
    if (found === null || matchesIn(what).length === 0) return [one];
    const figures = what.slice(0, found.index);
    if (matchesIn(figures).length > 0 || lentTo(figures, leaving) === null) return [one];
    const behind = one.from + found.index + found[0].length;
    return [
      { ...one, to: one.from + found.index },
      { ...one, from: behind, signed: null },
    ];
  });
}

const bareFigure = /(?<![\w.,+×-])\d{2,3}\s*$/;

/** `cpu 65 -> 170 W`: a bare figure on the side that leaves is watts where those on the other side are. */
export function withWatts(text: string, { way, from, to }: Stretch, ways: readonly Stretch[]): string {
  const said = text.slice(from, to);
  const watts = ways.some((one) => one.way === 'added' && wattsPattern.test(text.slice(one.from, one.to)));
  const last = matchesIn(said).at(-1)?.noun.id ?? '';
  const isMeant = way === 'replaced' && watts && bareFigure.test(said) && ['processor', 'card'].includes(last);
  return isMeant ? `${said.trimEnd()}W` : said;
}
