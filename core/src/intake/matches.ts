import { boundToBe } from '../bound-to-be.ts';
import { grades } from '../standards/index.ts';
import { detailPattern, wattsBehind, wattsPattern } from './figures.ts';
import { bareRating, counts, nouns, numberOf, shapeWords, type Noun } from './nouns.ts';

/** One thing as it is named: by one noun, or by two that mean the same, such as `nvme ssd`. */
export interface Match {
  readonly noun: Noun;
  /** Where its first noun begins and its last one ends. */
  readonly index: number;
  readonly end: number;
  readonly nouns: readonly RegExpExecArray[];
  /** Of one that has no noun of its own, the words of the thing that lent it. */
  readonly lent?: string;
}

/** What a noun says beside its kind, such as `count` or `cores`; of two nouns either can. */
export const groupOf = ({ nouns: all }: Match, name: string): string | undefined =>
  all.map(({ groups }) => groups?.[name]).find((said) => said !== undefined);

/** The nouns as they were written, without the count before them. */
export const wordsOf = ({ nouns: all, lent }: Match): string =>
  lent ??
  all
    .map((found) => found[0].slice(found.groups?.['count']?.length ?? 0).replace(/^\s*[x×]?\s+/, ''))
    .join(' ')
    .trim();

/**
 * Things of which `a 16-pin one`, `to 170 W` say enough where the noun stands on the other side of an exchange, and the
 * figures that say it.
 */
const lendable: Readonly<Record<string, RegExp>> = {
  board: /(?<![\w.])(?:\d\s*[x×]\s*|2[04]\s*\+\s*)?(?:24|20|8|4)(?:[ -]?pins?)?(?![\w.])/i,
  processor: wattsPattern,
  memory: /(?<![\w.])\d{1,2}\s*[x×]\s*\d{1,3}(?!\w)/i,
  supply: wattsPattern,
  card: /(?<![\w.])(?:\d\s*[x×]\s*)?(?:(?:6|8|16)(?:[ -]?pins?)?|12v-?2x6|12vhpwr)(?![\w.])/i,
};

/**
 * What a text without a noun is about, where it stands against one: figures alone are of the thing on the other side.
 * Null where that is none of those which figures tell, or there are several.
 */
export function lentTo(text: string, others: readonly Match[]): Match | null {
  const [only, ...more] = others;
  if (only === undefined || more.length > 0 || lendable[only.noun.id]?.test(text) !== true) return null;
  return lent(only);
}

const lent = (of: Match): Match => {
  const words = wordsOf(of);
  return { noun: of.noun, index: 0, end: 0, nouns: [], lent: /\d/.test(words) ? of.noun.id : words };
};

/** What is said of a thing that the machine has: it adds nothing to that. */
export const ofWhatIsThere = /(?<!\w)(?:my|our|present|existing|current)(?!\w)/i;
/** The same of what leaves. */
export const ofWhatLeaves = /(?<!\w)(?:all|old|dead|broken|failed|failing|faulty|worn(?:[ -]out)?|noisy|loud)(?!\w)/i;
const theOneThere = new RegExp(
  `^\\s*(?:(?:the|its)\\s+)?(?:(?:${ofWhatIsThere.source}|${ofWhatLeaves.source})\\s+)*ones?\\s*$`,
  'i',
);

/** `card 16-pin instead of the old one`: what leaves is of the kind that comes. Null where several come. */
export function sameAsComes(text: string, coming: readonly Match[]): Match | null {
  const [only, ...more] = coming;
  return only !== undefined && more.length === 0 && theOneThere.test(text) ? lent(only) : null;
}

/** The nouns by which a thing may be named once more, beside its own. */
const alsoNamed: Readonly<Record<string, readonly string[]>> = {
  'drive-card': ['drive-flat', 'drive'],
  'drive-flat': ['drive'],
  'drive-35': ['drive'],
  'drive-25': ['drive'],
  'drive-old': ['drive'],
  optical: ['drive'],
  'optical-old': ['drive'],
  floppy: ['drive'],
  aio: ['pump', 'cooler'],
  lighting: ['lighting-of-any-kind'],
  'lighting-plain': ['lighting-of-any-kind'],
  'lighting-header': ['lighting-of-any-kind'],
};
/** Of these, more than the bare word is another thing: a `sata ssd` is none of card type. */
const bareWords = new RegExp(
  '^(?:drives?|disks?|ssds?|solid[ -]state(?: drives?)?|pumps?|' +
    '(?:processor |cpu )?coolers?(?: (?:with )?\\w+ fans?)?|(?:(?:light|led) )?strips?|lighting|leds?)$',
  'i',
);

const saidBy = (found: RegExpExecArray): string[] =>
  Object.entries(found.groups ?? {}).flatMap(([name, said]) =>
    (said as string | undefined) === undefined ? [] : [name],
  );
const betweenWords = /(?<!\w)(?:an?|the|of|in|as|is|are|same|tdp)(?!\w)|[():=/\-\s]/gi;
/** A card's plugs, such as `3x8` or `two 8-pin`. */
const plugPattern = new RegExp(
  '(?<![\\w.,])(?:(?:\\d\\s*[x×]|one|two|three)\\s*)?(?:(?:\\d|12)\\s*\\+\\s*)?(?:2|4|6|8|16)(?:[ -]?pins?)?' +
    '(?![\\w.,]|\\s*(?:[x×]|w|watts?|[tgm]b|mm)(?!\\w))',
  'i',
);
const plugsBehind = new RegExp(`^\\s*(?:with\\s+)?${plugPattern.source}`, 'i');
/** What stands between two names beside figures and small words. */
const blankOf = (text: string): string =>
  text
    .replace(new RegExp(wattsPattern, 'gi'), '')
    .replace(new RegExp(detailPattern, 'gi'), '')
    .replace(betweenWords, '');
const singular = (word: string): string => word.trim().toLowerCase().replace(/s$/, '');

/** `16 GB memory, 2 sticks`: its size, and by how many modules; said twice it is the same number. */
function sameModules(before: Match, next: Match): boolean {
  if (before.noun.id !== 'memory' || next.noun.id !== 'memory') return false;
  const [a, b] = [before, next].map((one) => ['count', 'modules', 'sticks'].map((name) => groupOf(one, name)));
  const [first, second] = [a, b].map((all) => all?.find((said) => said !== undefined));
  return second !== undefined && (first === undefined || numberOf(first) === numberOf(second));
}

/** Which of two nouns tells more of the one thing that both name; null where they name two things. */
function telling(before: Match, next: Match): Noun | null {
  const [a, b] = [boundToBe(before.nouns.at(-1), 'noun'), boundToBe(next.nouns[0], 'noun')];
  if (sameModules(before, next)) return before.noun;
  // What is counted anew, or said twice in the same words, is another one.
  if (b.groups?.['count'] !== undefined || singular(wordsOf(before)) === singular(wordsOf(next))) return null;
  if (before.noun.id === next.noun.id) return saidBy(a).some((name) => saidBy(b).includes(name)) ? null : before.noun;
  if (alsoNamed[before.noun.id]?.includes(next.noun.id) === true && bareWords.test(wordsOf(next))) return before.noun;
  // `drive` before its own name says no more than the name; a count before it is the thing's.
  if (alsoNamed[next.noun.id]?.includes(before.noun.id) === true && bareWords.test(wordsOf(before))) return next.noun;
  return null;
}

/** `drives: 2 hard drives`, `fans: 3 case fans`: a word before a colon is the short name of the thing behind it. */
function isLabelOf(before: Match, next: Match, between: string): boolean {
  if (!/^\s*[:=]\s*$/.test(between) || groupOf(before, 'count') !== undefined) return false;
  const { id } = before.noun;
  return id === next.noun.id || alsoNamed[next.noun.id]?.includes(id) === true || (id === 'drive' && isDrive(next));
}
const isDrive = ({ noun }: Match): boolean => /^(?:drive|optical|floppy)/.test(noun.id);

/** Joins nouns that stand side by side, or with nothing but figures between them, where they mean one thing. */
function onePerThing(text: string, matches: readonly Match[]): Match[] {
  return matches.reduce<Match[]>((all, match) => {
    const before = all.at(-1);
    const between = text.slice(before?.end, match.index);
    if (before !== undefined && isLabelOf(before, match, between))
      return [...all.slice(0, -1), { ...match, index: before.index, nouns: [...match.nouns, ...before.nouns] }];
    const noun = before === undefined ? null : telling(before, match);
    if (before === undefined || noun === null) return [...all, match];
    const behind = text.slice(match.end);
    const plugs = noun.id === 'card' && plugPattern.test(between);
    // With watts or plugs of its own it is another one.
    const twice = (wattsPattern.test(between) && wattsBehind.test(behind)) || (plugs && plugsBehind.test(behind));
    if (
      twice ||
      blankOf(plugs ? between.replace(plugPattern, '') : noun.id === 'memory' ? between.replace(',', '') : between) !==
        ''
    )
      return [...all, match];
    const joined = { noun, index: before.index, end: match.end, nouns: [...before.nouns, ...match.nouns] };
    return [...all.slice(0, -1), joined];
  }, []);
}

/** Boards have one socket for a processor, two or four. */
const socketCounts: readonly string[] = ['1', '2', '4'];

/** `series 9 16-core`, `series 5 processor`: no board takes so many, so the number is the word's before it. */
function withoutNumberOfName(text: string, noun: Noun, found: RegExpExecArray): RegExpExecArray {
  const count = found.groups?.['count'] ?? '';
  const [, digits, blanks] = /^(\d+)(\s+)(?![x×])/.exec(found[0]) ?? [];
  if (noun.id !== 'processor' || digits !== count || blanks === undefined || socketCounts.includes(count)) return found;
  if (!wordBefore.test(text.slice(0, found.index))) return found;
  const further = new RegExp(noun.words.source, 'iy');
  further.lastIndex = found.index + count.length + blanks.length;
  return further.exec(text) ?? found;
}

/** What was found in the last texts: each is asked for several times, and typing changes only the last. */
const lastFound = new Map<string, readonly Match[]>();
const mostFound = 200;

/** The things that a clause names, from left to right; of nouns that overlap the first, then the longer one. */
export function matchesIn(text: string): readonly Match[] {
  const known = lastFound.get(text);
  if (known !== undefined) return known;
  if (lastFound.size >= mostFound) lastFound.clear();
  const matches = /[\p{L}\p{N}\ue000]/u.test(text) ? findIn(text) : [];
  lastFound.set(text, matches);
  return matches;
}

function findIn(text: string): Match[] {
  const all = nouns.flatMap((noun) =>
    [...text.matchAll(noun.words)]
      .map((found) => withoutNumberOfName(text, noun, found))
      .map((found): Match => ({
        noun,
        index: found.index,
        end: found.index + found[0].length,
        nouns: [found],
      })),
  );
  all.sort((a, b) => a.index - b.index || b.end - a.end);
  const kept: Match[] = [];
  for (const match of all) if (match.index >= (kept.at(-1)?.end ?? 0)) kept.push(match);
  return onePerThing(text, kept);
}

export interface Piece {
  readonly match: Match | null;
  /** Where it says that something is not there, such as `no card`. */
  readonly denied: { readonly from: number; readonly to: number } | null;
  readonly from: number;
  readonly to: number;
}

/**
 * Cuts a clause so that each piece names one thing. What stands between two is said of the first one, but for a second
 * figure of watts right before the other, or the only one before a supply that has none behind it.
 */
export function piecesOf(text: string): Piece[] {
  const matches = matchesIn(text);
  if (matches.length === 0) return [{ match: null, denied: null, from: 0, to: text.length }];
  const starts = matches.map((match, index) => {
    const before = matches[index - 1];
    return { match, from: before === undefined ? 0 : startOf(text, before, match) };
  });
  return starts.map(({ match, from }, index) => {
    const to = starts[index + 1]?.from ?? text.length;
    const denied = deniedIn(text, match, to);
    return { match: denied === null ? match : null, denied, from, to };
  });
}

/** What says that a thing is not there, with its name; null where nothing does. */
function deniedIn(text: string, match: Match, to: number): Piece['denied'] {
  const before = denialBefore(text, match);
  if (before !== null) return { from: before, to: match.end };
  const behind = groupOf(match, 'count') === undefined ? denialBehind.exec(text.slice(match.end, to)) : null;
  return behind === null ? null : { from: match.index, to: match.end + behind[0].length };
}

/** Words that say that something is not there, with nothing but figures before its name: `no card`, `no 8-pin card`. */
const denial = new RegExp(
  "(?<![\\w-])(?:no|(?:(?:does|do|has|have) )?not|(?:does|do|has|have)n['’]t|without|w\\/o|lacks|lacking)" +
    '(?:\\s+(?:an?|any|have|got|\\d[\\w.,+×-]*|pins?|w|dedicated|discrete|separate|external|extra|additional|' +
    'proper|real|other))*' +
    '\\s*$',
  'i',
);
/** `card: none`, `optical drive none`: the same behind its name, at the end. */
const denialBehind = /^\s*[:=–-]?\s*(?:none|nil|n\/a|no|not (?:fitted|there|present|installed))\s*$/i;

/** Where the `no` of `no card` stands, which names nothing that is there; null where there is none. */
const denialBefore = (text: string, { index }: Match): number | null =>
  denial.exec(text.slice(0, index))?.index ?? null;

/** Words that are counted themselves, are a figure's, or say of a supply what it is. */
const countedWords =
  `(?:${grades.join('|')}|plus|modular|` +
  'slots?|cores?|threads?|pins?|fans?|bays?|ports?|ways?|channels?|bits?|years?|months?|inch(?:es)?|' +
  'tb|gb|mb|gig|mm|cm|' +
  'watts?|volts?|amps?|mhz|ghz|rpm|pieces?|of|and|or|with|for|to|in|by|x)(?![a-z])';
/** A word before a figure that may be its own, as the number of a series is. */
const wordBefore = new RegExp(`(?<![\\w-])(?!${countedWords})[a-z][\\w-]*\\s+$`, 'i');
const wordOfNobody = `\\s+(?!${countedWords})[a-z][a-z-]+`;
/** `4 noisy fans`: up to two words that nobody knows stand between how many and what. */
export const countBefore = new RegExp(
  `(?<![\\w.,+×])(${counts})(?:\\s*[x×])?(?=${wordOfNobody}(?:${wordOfNobody})?\\s*$)`,
  'i',
);
/** Behind a board or a card these are its plugs: `card 8`. */
const plugCounts: readonly string[] = ['4', '6', '8', '12', '16', '20', '24'];

/** What is said of a supply before its name, to the end: `SFX 750`, `650 W SFX`. */
const ratingBefore = new RegExp(
  `(?:(?<![\\w-])(?:${shapeWords})\\s+)?(?:${wattsPattern.source}|${bareRating})(?:\\s+(?:${shapeWords}))?\\s*$`,
  'i',
);

function startOf(text: string, before: Match, match: Match): number {
  const denied = denialBefore(text, match);
  if (denied !== null && denied >= before.end) return denied;
  const between = text.slice(before.end, match.index);
  // Where it is counted itself, a figure further before is of the other one.
  const counted = groupOf(match, 'count') === undefined ? countBefore.exec(between) : null;
  const isPlugs = ['board', 'card'].includes(before.noun.id) && plugCounts.includes(counted?.[1] ?? '');
  if (counted !== null && !isPlugs) return before.end + counted.index;
  const figures = [...between.matchAll(new RegExp(wattsPattern, 'gi'))];
  const last = figures.at(-1);
  const isRated = groupOf(match, 'known') !== undefined || wattsBehind.test(text.slice(match.end));
  const own = match.noun.id === 'supply' && !isRated;
  const rating = own ? ratingBefore.exec(between) : null;
  if (rating !== null) return before.end + rating.index;
  if (figures.length < (own ? 1 : 2) || last === undefined || between.slice(last.index + last[0].length).trim() !== '')
    return match.index;
  return before.end + last.index;
}
