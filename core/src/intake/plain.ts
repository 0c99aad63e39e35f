import { counts } from './nouns.ts';

/** Abbreviations whose point ends no sentence. */
const abbreviation = /(?<!\w)(?:(?:approx|ca|incl|inc|max|min|nr|w)\.(?=\s)|yrs?\.(?=\s+old))/gi;
/** A point ends a sentence where a blank or nothing stands behind it; `m.2` and `2.5` go on. */
const sentenceEnd = /\.(?=\s|$)/g;
/** Pictures come out of the board or the processor: no card is meant. */
const withoutCard = new RegExp(
  '(?<!\\w)(?:igpus?|(?:on-?board|integrated|built-?in|internal|embedded)[ -](?:graphics?|video|gpu|vga)' +
    '(?: (?:card|chip|adapter))?)(?: only)?(?!\\w)',
  'gi',
);
/** `w/ 2 fans`, `cpu @ 65 W`; `w/o` is another word. */
const inShort = /(?<!\w)(?:w\/(?!o(?!\w))|c\/w(?!\w)|@)/gi;
/** `eight pin`, `24p`: as figures, with or without the pin. */
const pinWords: Readonly<Record<string, string>> = { four: '4', six: '6', eight: '8', twelve: '12', sixteen: '16' };
const pinsInWords = /(?<!\w)(?:four|six|eight|twelve|sixteen)(?=[ -]?pins?(?!\w))/gi;
const pinsInShort = /(?<=(?<![\w.])(?:4|6|8|12|16|20|24))p(?!\w)/gi;
const nothingPlanned = new RegExp(
  '(?<!\\w)(?:(?:nothing|none|no upgrade)(?: is)? planned|no upgrades?|' +
    '(?:planned(?: upgrade)?|upgrade|plan)\\s*[:=]?\\s*(?:none|nothing|no))(?!\\w)',
  'gi',
);
const determiner = '(?:the|its|my|our|his|her|their|these|those)';
const unit = '(?:[tgm]i?b|w(?:atts?)?|pins?|cores?|x|inch|mm)(?!\\w)';
/** `two of the three drives`: how many there are says nothing of how many are meant. */
const ofSoMany = new RegExp(
  `(?<=(?<![\\w.,])(?:(?:${counts})(?: more)?|all|each))\\s+of\\s+` +
    `(?:${determiner}\\s+(?:(?:${counts})\\s+(?!${unit}))?|(?:${counts})\\s+(?!${unit}))(?=\\w)`,
  'gi',
);

const blanks = (text: string): string => ' '.repeat(text.length);

/** What nobody takes out of a machine: its case, its board, its processor, its supply. */
const staysAnyway = /(?<!\w)(?:tower|case|board|cpu|processor|\d+[ -]?core|supply|psu)(?!\w)/i;
/** A list on lines: each begins with the same sign. A list of `-` is what leaves, unless it names what stays anyway. */
function withoutBullets(text: string): string {
  const lines = text.split('\n').filter((line) => line.trim() !== '');
  const all = (sign: RegExp) => lines.length > 1 && lines.every((line) => sign.test(line));
  if (all(/^\s*[*•]\s/)) return text.replace(/^(\s*)[*•]/gm, '$1 ');
  const isList = all(/^\s*[-–−]\s/) && lines.some((line) => staysAnyway.test(line));
  return isList ? text.replace(/^(\s*)[-–−]/gm, '$1 ') : text;
}

/** `1. tower 2. board`, `1) tower 2) board`: figures that only number what stands behind them end what was before. */
function withoutNumbers(text: string): string {
  const sign = /(?<=^\s*|[\s;,])(\d{1,2})[.)](?=\s)/g;
  const said = [...text.matchAll(sign)].map(([, number]) => Number(number));
  const inOrder = said.length > 1 && said.every((number, index) => number === index + 1);
  return inOrder ? text.replace(sign, (found) => `;${blanks(found.slice(1))}`) : text;
}

/**
 * A line without what only stands around its words: brackets, the points of sentences, and what names nothing. Each
 * letter that stays keeps its place.
 */
export const plainOf = (line: string): string =>
  withoutNumbers(withoutBullets(line))
    .replace(/[()[\]{}]/g, ' ')
    .replace(abbreviation, (found) => `${found.slice(0, -1)} `)
    .replace(sentenceEnd, ';')
    .replace(/(?<=\d\s?)\*(?=\s?\w)/g, 'x')
    .replace(pinsInWords, (word) => (pinWords[word.toLowerCase()] ?? word).padStart(word.length))
    .replace(pinsInShort, ' ')
    .replace(/(?<!\w)no[- ]?name(?!\w)/gi, blanks)
    .replace(inShort, blanks)
    .replace(nothingPlanned, blanks)
    .replace(withoutCard, blanks)
    .replace(ofSoMany, blanks);
