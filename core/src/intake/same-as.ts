import { matchesIn } from './matches.ts';

const the = '(?:(?:the|my|our|its)\\s+)?';
/** The one that is meant, without its name: `the first`, `my present one`, `the other that is there`. */
const which =
  `${the}(?:first|present|current|existing|old|other|same|ones?|that)(?!\\w)` +
  '(?:\\s+(?:first|present|current|existing|old|other|same|ones?|that)(?!\\w))*' +
  '(?:\\s+(?:(?:is|already)\\s+)*(?:there|fitted|inside|in\\s+(?:it|there))(?!\\w))?';
const likeWhich = `(?:like|${the}(?:same|identical)(?:\\s+(?:kind|type|model))?\\s+(?:as|like|to|with))\\s+${which}`;

/** `same as the first`, `identical`, `the same again`, `like my present one`. */
export const sameAs = new RegExp(
  `(?<!\\w)(?:(?:exactly|just)\\s+)?(?:${likeWhich}|${the}(?:same|identical)(?:\\s+(?:again|kind|type|model))?(?!\\w))`,
  'i',
);

/** Says a stretch nothing but that what stands before it is like another one? */
export const isSameAlone = (text: string): boolean => sameAs.test(text) && text.replace(sameAs, '').trim() === '';

/** `a second gpu like the first card`: what it is like is named once more, and is no other thing; it is blanked out. */
export function namedOnce(line: string): string {
  let read = line;
  for (const found of line.matchAll(new RegExp(`(?<!\\w)${likeWhich}`, 'gi'))) {
    const behind = found.index + found[0].length;
    const [next] = matchesIn(line.slice(behind));
    if (next === undefined || line.slice(behind, behind + next.index).trim() !== '') continue;
    const [from, to] = [behind + next.index, behind + next.end];
    read = read.slice(0, from) + ' '.repeat(to - from) + read.slice(to);
  }
  return read;
}
