import { boundToBe } from '../bound-to-be.ts';
import { lentTo, matchesIn, piecesOf } from './matches.ts';
import { counts } from './nouns.ts';
import type { Said, Span } from './said.ts';

/** What the upgrade does with what a stretch names; `upgraded`: it comes, and what is there of its kind goes. */
export type Way = 'stays' | 'added' | 'upgraded' | 'removed' | 'replaced';

/** A clause, and where it begins in the line. */
export interface ClauseText {
  readonly from: number;
  readonly text: string;
}

/** A part of a clause. */
export interface Stretch {
  readonly from: number;
  readonly to: number;
  readonly way: Way;
  /** The part with the sign, the arrow or the words that say its way; none where it stays. */
  readonly signed: Span | null;
}

const arrow = /->|→|=>|(?<!\w)(?:becomes|(?:replaced|swapped|exchanged) (?:by|with|for))(?!\w)/i;

/** A stretch without the blanks around it. */
export const spanOf = (text: string, from: number): Span => ({
  from: from + text.length - text.trimStart().length,
  to: from + text.trimEnd().length,
});

const somebody = '(?:(?:the |my )?(?:client|customer|owner|user)|he|she|they|we|i)';
const subject = `(?:(?:${somebody}|it)\\s+)?`;
/** `the client wants to`, `planning to`, `she is thinking of`. */
export const wish =
  `${subject}(?:(?:(?:is|are|am|will be)\\s+)?` +
  '(?:wants?|wish(?:es)?|would like|will|plan(?:s|ned|ning)?|intend(?:s|ing)?|going|' +
  'think(?:s|ing) (?:of|about)|hop(?:es|ing))' +
  '(?:\\s+(?:to|on))?\\s+)?(?:to\\s+)?';

/** `replace the card with ...`, `swap it for ...`: what leaves, then what comes. */
const exchanges = new RegExp(
  `^\\s*${wish}(?:replac(?:e|es|ing)|swap(?:s|ping)?(?: out)?|exchang(?:e|es|ing)|chang(?:e|es|ing)|` +
    'trad(?:e|es|ing)(?: in)?)' +
    '\\s+(?<gone>.+?)(?:\\s+(?:with|by|for|to)(?:\\s+(?<come>.+))?)?\\s*$',
  'di',
);
/** Words between what comes and what it comes for. */
export const forAnother = '(?:instead|in (?:the )?place) of|(?:(?:which|that|it|to)\\s+)?replac(?:es|ing)|to replace';
/** Words without which nothing is said to come for something else; looking for these first costs little. */
const isForAnother = /(?:instead|place) of|replac/i;
/** `... instead of the old one`, `..., replaces the old one`: what comes, then what leaves. */
const insteadOf = new RegExp(`^\\s*(?:(?<come>.+?)[\\s,]+)?(?:${forAnother})\\s+(?<gone>.+)$`, 'di');

/** `upgrade to a card`, `moving to 170 W`: what comes takes the place of what is there of its kind. */
const upgradeTo = new RegExp(
  `^\\s*${wish}` +
    '(?:(?:upgrad(?:e|es|ed|ing)|mov(?:e|es|ed|ing)|switch(?:es|ed|ing)?|chang(?:e|es|ed|ing)|go(?:es|ing)?(?: up)?)' +
    '\\s*:?\\s+to|(?:swap|switch|chang|drop)(?:s|p?ing|e|es)? in)(?!\\w)\\s*:?\\s*',
  'i',
);
/** `8-pin card upgraded to 16-pin`: the same behind what is there. */
const upgradedTo = new RegExp(
  '^(?<gone>.+?)\\s+(?:(?:is|to be|gets?)\\s+)?' +
    '(?:upgrad(?:e|es|ed|ing)|mov(?:es|ed|ing)|switch(?:es|ed|ing)|chang(?:es|ed|ing))\\s+to\\s+(?<come>.+)$',
  'di',
);
/** `upgrade the card to 16-pin`, `processor to 170 W`. */
const upgradeOf = new RegExp(
  `^\\s*${wish}(?:(?:upgrad(?:e|es|ing)|mov(?:e|es|ing))\\s*:?\\s+(?:from\\s+)?|` +
    '(?:go(?:es|ing)?|switch(?:es|ing)?)(?: up)?\\s+from\\s+)(?<gone>.+?)\\s+to\\s+(?<come>.+)$',
  'di',
);
const fromTo = /^(?:\s*from\s+)?(?<gone>.+?)\s+to\s+(?<come>.+)$/di;

const comingWords =
  'add(?:s|ed|ing)?|get(?:s|ting)?(?! rid)|buy(?:s|ing)?|put(?:s|ting)? in|fit(?:s|ting)?(?: in)?|' +
  'install(?:s|ing)?|plug in';
const comes = new RegExp(
  `^\\s*(?:\\+|${subject}(?:` +
    [
      `(?:${comingWords})`,
      '(?:wants?|wish(?:es)?|would like|plan(?:s|ned|ning)?|intend(?:s|ing)?|hop(?:es|ing)|going)' +
        `(?: to (?:${comingWords}|have))?`,
      `${somebody}\\s+(?:needs?|requires?)`,
      `(?:will |to |is to )(?:${comingWords}|have|take)`,
      '(?:is |are )?thinking (?:of|about)(?: (?:adding|getting|buying))?',
      'upgrad(?:e|es|ed|ing)(?: with| by)?',
      '(?:in (?:the )?)?future',
      'later(?: on)?',
      'next',
      '(?:to be added|to come|coming)',
      'new(?=\\s*:)',
    ].join('|') +
    ')(?!\\w))\\s*:?\\s*',
  'i',
);
/** `2 more drives`: the count stays with what is counted. */
const more = new RegExp(`^\\s*(?:(?:${counts})\\s+)?more(?!\\w)`, 'i');
const goingWords =
  'remov(?:e|es|ed|ing)|(?:tak|pull|throw)(?:e|es|s|ing)? out|get(?:s|ting)? rid of|without|minus|sell(?:s|ing)?|' +
  'scrap(?:s|ping)?|discard(?:s|ing)?|ditch(?:es|ing)?|bin(?:s|ning)?|drop(?:s|ping)?|los(?:e|es|ing)';
const goes = new RegExp(`^\\s*(?:[-−–]|${wish}(?:${goingWords})(?!\\w))\\s*:?\\s*`, 'i');
const goesBehind = new RegExp(
  '\\s+(?:out|(?:go|move)(?:es|s)?(?: out)?|to go|leaves?|comes? out|' +
    '(?:(?:is|are|gets?)\\s+)?(?:(?:taken|pulled|thrown) out|removed|sold|scrapped))\\s*$',
  'i',
);
const comesBehind = new RegExp(
  '\\s+(?:later(?: on)?|soon|next|comes?(?: in)?|to come|(?:(?:is|are)\\s+)?(?:coming|planned|added)|' +
    'to be added|goes in|as (?:an? |the )?upgrade)\\s*$',
  'i',
);
const inBehind = /\s+in\s*$/i;

const stays = (text: string, to = text.length): Stretch => ({ from: 0, to, way: 'stays', signed: null });

/** What leaves and what comes, by where they stand; whatever stands before, behind and between them says so. */
function exchange(text: string, gone: Span, come: Span): Stretch[] {
  const { from: start, to: end } = spanOf(text, 0);
  const signed =
    gone.from < come.from
      ? { from: start, to: text.slice(0, come.from).trimEnd().length }
      : { from: come.to + 1, to: end };
  return [
    { ...gone, way: 'replaced', signed },
    { ...come, way: 'added', signed: null },
  ];
}

/** The two sides that a pattern names `gone` and `come`; one that was left out is empty, at the end. */
function sidesOf(found: RegExpExecArray, end: number): readonly [Span, Span] {
  const at = (found.indices?.groups ?? {}) as Readonly<Record<string, readonly [number, number] | undefined>>;
  const { gone = [0, 0], come = [end, end] } = at;
  return [
    { from: gone[0], to: gone[1] },
    { from: come[0], to: come[1] },
  ];
}

/** Do both sides speak of one kind of thing: by the same noun, or by figures on one side alone? */
function sameKind(gone: string, come: string): boolean {
  const [before, behind] = [matchesIn(gone), matchesIn(come)];
  if (behind.length === 0) return lentTo(come, before.slice(-1)) !== null;
  return before.at(-1)?.noun.id === behind[0]?.noun.id;
}

/** `8-core card 8 upgraded to 16-pin`: of what stands before it only the last thing leaves. */
function upgradedBehind(text: string, found: RegExpExecArray): Stretch[] {
  const [gone, come] = sidesOf(found, text.length);
  const last = piecesOf(text.slice(gone.from, gone.to)).at(-1)?.from ?? 0;
  const before = last === 0 ? [] : [stays(text, gone.from + last)];
  if (sameKind(text.slice(gone.from + last, gone.to), text.slice(come.from, come.to)))
    return [...before, ...exchange(text, { from: gone.from + last, to: gone.to }, come)];
  return [stays(text, gone.to), { ...come, way: 'upgraded', signed: { from: gone.to + 1, to: come.from } }];
}

/** Two things are spoken of together. */
const joined = /(?:(?<!\w)(?:and|plus|with)|[&+])\s*$/i;

/**
 * Where what leaves begins in `board, 8-core card 8 -> card 16-pin`: with the last thing before the arrow, with what is
 * joined to that (`board and card -> ...`), or with the first that comes again behind the arrow.
 */
function goneFrom(before: string, behind: string): number {
  const pieces = piecesOf(before);
  const coming = new Set(matchesIn(behind).map(({ noun }) => noun.id));
  let first = pieces.length - 1;
  while (first > 0 && joined.test(before.slice(0, boundToBe(pieces[first], 'piece').from))) first -= 1;
  const again = pieces.findIndex(({ match }) => match !== null && coming.has(match.noun.id));
  const from = again < 0 ? first : Math.min(first, again);
  return from <= 0 ? 0 : boundToBe(pieces[from], 'piece').from;
}

/** `upgrade cpu 65 W -> 170 W`: the arrow says it already. */
const saidTwice = new RegExp(
  `^\\s*${wish}(?:upgrad(?:e|es|ing)|replac(?:e|ing)|swap(?:ping)?|chang(?:e|ing))(?!\\w)\\s*:?\\s*`,
  'i',
);

/** What leaves before an arrow, and what comes behind it. */
function aroundArrow(text: string, arrowFound: RegExpExecArray): Stretch[] {
  const { from: start } = spanOf(text, 0);
  const behind = arrowFound.index + arrowFound[0].length;
  const before = text.slice(0, arrowFound.index);
  const verb = saidTwice.exec(before)?.[0].length ?? 0;
  const gone = Math.max(verb, goneFrom(before, text.slice(behind)));
  return [
    ...(gone === verb ? [] : [stays(text, gone)]),
    { from: gone, to: arrowFound.index, way: 'replaced', signed: { from: gone === verb ? start : gone, to: behind } },
    { from: behind, to: text.length, way: 'added', signed: null },
  ];
}

/** `take the drive out`: the same around what leaves. */
const takesOut = new RegExp(
  `^\\s*${wish}(?:tak(?:e|es|ing)|pull(?:s|ing)?|throw(?:s|ing)?|get(?:s|ting)?)\\s+(?<gone>.+?)\\s+out\\s*$`,
  'di',
);

/** A word at the end says it of the last thing alone. */
function saidBehind(text: string, behind: RegExpExecArray, way: Way): Stretch[] {
  const last = piecesOf(text.slice(0, behind.index)).at(-1)?.from ?? 0;
  const own: Stretch = { from: last, to: behind.index, way, signed: { from: last, to: text.trimEnd().length } };
  return last === 0 ? [own] : [stays(text, last), own];
}

/** What stands behind a heading in the same clause: as it says itself, else as the heading does. */
function underHeading(text: string, { way, length }: Heading, inComes: boolean): Stretch[] {
  const signed = way === 'stays' ? null : { from: spanOf(text, 0).from, to: length };
  return waysOf(text.slice(length), inComes).map((one) => ({
    from: one.from + length,
    to: one.to + length,
    way: one.way === 'stays' ? way : one.way,
    signed:
      one.signed === null ? signed : { from: signed?.from ?? one.signed.from + length, to: one.signed.to + length },
  }));
}

/**
 * The ways of an upgrade: `+ card` comes, `- card` goes, `card -> card` does both, in signs or in words.
 * @param inComes `old card out, new card in`: where something goes out, `in` at the end is what comes
 */
export function waysOf(text: string, inComes = false): Stretch[] {
  const { from: start, to: end } = spanOf(text, 0);
  const heading = headingOf(text);
  if (heading !== null) return underHeading(text, heading, inComes);
  const found = arrow.exec(text);
  if (found !== null) return aroundArrow(text, found);
  const instead = isForAnother.test(text) ? insteadOf.exec(text) : null;
  const inWords = upgradeOf.exec(text) ?? exchanges.exec(text) ?? instead;
  if (inWords !== null && !upgradeTo.test(text)) return exchange(text, ...sidesOf(inWords, end)).map(withoutSign(text));
  const up = upgradeTo.exec(text);
  if (up !== null)
    return [{ from: up[0].length, to: text.length, way: 'upgraded', signed: { from: start, to: up[0].length } }];
  const upgraded = upgradedTo.exec(text);
  if (upgraded !== null) return upgradedBehind(text, upgraded);
  const both = fromTo.exec(text);
  if (both?.groups !== undefined && sameKind(both.groups['gone'] ?? '', both.groups['come'] ?? ''))
    return upgradedBehind(text, both);
  const out = takesOut.exec(text);
  if (out !== null) {
    const [gone] = sidesOf(out, end);
    return [{ ...gone, way: 'removed', signed: { from: start, to: end } }];
  }
  const going = goesBehind.exec(text);
  if (going !== null) return saidBehind(text, going, 'removed');
  const coming = comesBehind.exec(text) ?? (inComes ? inBehind.exec(text) : null);
  if (coming !== null) return saidBehind(text, coming, 'added');
  const counted = more.exec(text);
  if (counted !== null)
    return [{ from: 0, to: text.length, way: 'added', signed: { from: start, to: counted[0].length } }];
  const [added, removed] = [comes.exec(text), goes.exec(text)];
  const sign = added ?? removed;
  if (sign === null) return [stays(text)];
  const way = added === null ? 'removed' : 'added';
  return [{ from: sign[0].length, to: text.length, way, signed: { from: start, to: sign[0].length } }];
}

/** `plan a card instead of the old one`: what comes without the words that say that it comes. */
const withoutSign =
  (text: string) =>
  (one: Stretch): Stretch => {
    const sign = one.way === 'added' ? comes.exec(text.slice(one.from, one.to)) : null;
    if (sign === null) return one;
    const from = one.from + sign[0].length;
    return { ...one, from, signed: { from: spanOf(text.slice(one.from), one.from).from, to: from } };
  };

interface Heading {
  readonly way: Way;
  readonly length: number;
}

const headings: readonly (readonly [RegExp, Way])[] = [
  [
    /^\s*(?:(?:planned )?upgrades?|plan(?:ned)?|later|next|future|new|to come|to be added|to add|adds?|wants?)\s*:/i,
    'added',
  ],
  [/^\s*(?:now|present|today|current(?:ly)?|existing|has|as (?:it is|it came|found))\s*:\s*/i, 'stays'],
];

/** `upgrade: card, 2 drives`, `now: 2 fans`: what holds for what follows in the line; null where there is none. */
export function headingOf(text: string): Heading | null {
  for (const [words, way] of headings) {
    const found = words.exec(text);
    if (found !== null) return { way, length: found[0].length };
  }
  return null;
}

const wishBefore = new RegExp(`^\\s*(?:${somebody}\\s+(?:needs?|requires?)\\s+|${wish})`, 'i');

/** `she wants to add 2 fans`: what is to be done, without who wishes it. */
export const withoutWish = (words: string): string => words.replace(wishBefore, '');

/** Does something of this line go out, so that `in` says what comes? */
export const saysOut = (line: string): boolean => /(?<!\w)(?:out|goes|leaves)\s*(?:[,;\n]|$)/i.test(line);

/** `... and add two fans`, `... then remove the card`: what is done next is a clause of its own. */
export const doesNext = new RegExp(
  '\\s(?:(?:and|then|but|also|&)\\s+)+(?=(?:' +
    `(?:${comingWords}|${goingWords}|replac(?:e|ing)|swap(?:ping)?|exchang(?:e|ing)|upgrad(?:e|ing)|` +
    'mov(?:e|ing) to|keep(?:s|ing)?)(?!\\w)|' +
    // `cpu to 170 W and card to 16-pin`: each to its own.
    '(?:the )?(?:cpu|processor|gpu|(?:graphics )?card|board|memory|ram|psu|supply)\\s+(?:[^\\s,;]+\\s+){0,3}to\\s))',
  'gi',
);

/**
 * With the sign or the words that it was said with: `- drive` that stays in the line, since it is not clear which one
 * is meant, must not be read as `drive` the next time. A sign belongs to the first thing behind it.
 */
export function withSign(said: Said, clause: ClauseText, { way, signed }: Stretch, first: boolean): Said {
  // What was not named has no words of its own that could stay in the line.
  if (said.kind === 'leaving' && said.ifThere === true && signed !== null)
    return { ...said, from: clause.from + signed.from, to: clause.from + signed.from };
  if (signed === null || (way !== 'replaced' && !first)) return said;
  return {
    ...said,
    from: Math.min(said.from, clause.from + signed.from),
    to: Math.max(said.to, clause.from + signed.to),
  };
}
