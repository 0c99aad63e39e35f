import type { Clause } from './clause.ts';
import { numberOf } from './nouns.ts';

const pin = '(?:[ -]?pins?)?';
const many = '(?:\\s*(?:\\+|&|and|,)\\s*)';

const classByPlugs: Readonly<Record<string, string>> = {
  '6': 'card-6',
  '8': 'card-8',
  '6,6': 'card-66',
  '8,6': 'card-86',
  '8,8': 'card-88',
  '8,8,8': 'card-888',
  '16': 'card-16',
};

const counted = new RegExp(
  '(?<![\\w.])(\\d|one|two|three|single|dual|twin|triple)\\s*(?:[x×]\\s*|(?<=[a-z])\\s+|\\s+(?=\\d+[ -]?pins?))' +
    `(6\\s*\\+\\s*2|4|6|8|16)${pin}(?![\\w.])`,
  'i',
);
const sixAndTwo = new RegExp(`(?<![\\w.])6\\s*\\+\\s*2${pin}(?!\\w)`, 'i');
const sixteen = new RegExp(`(?<![\\w.])(?:12v-?2x6|12\\s*\\+\\s*4|12vhpwr)${pin}(?!\\w)`, 'i');
const joined = new RegExp(`(?<![\\w.])(6|8)${pin}(?:${many}(6|8)${pin})(?:${many}(6|8)${pin})?(?![\\w.])`, 'i');
const single = new RegExp(`(?<![\\w.])(6|8|16)${pin}(?!\\s*[x×]|[\\w.])`, 'i');

const withoutPlugs = new RegExp(
  '(?<!\\w)(?:slot(?:[ -]?(?:only|powered))?|(?:no|without|w\\/o)' +
    '(?: (?:an?|any|extra|external|additional|own|power))* (?:plugs?|connectors?|inlets?|power))(?!\\w)',
  'i',
);

/**
 * The class of a card by the plugs that are said of it, such as `3x8`, `8+6`, `two 8-pin`, `16-pin` or `slot only`.
 * Null where nothing is said, `unusual` for plugs that no class has. A 6+2 plug is one for 8 pins.
 */
export function cardPlugs(clause: Clause): string | null {
  if (clause.take(withoutPlugs) !== null) return 'card-slot';
  // `two connectors, 8 and 6`: how many there are is told by the figures behind it.
  clause.take(/(?<!\w)(?:one|two|three|[1-3])\s+(?:(?:power|pcie|pci-e)\s+)*(?:plugs?|connectors?|inlets?)(?=\W*\d)/i);
  // First of all, since its name has a `2x6` in it.
  const plugs: number[] = clause.takeAll(sixteen).map(() => 16);
  for (const [, count = '', size = ''] of clause.takeAll(counted))
    for (let plug = 0; plug < numberOf(count); plug += 1)
      plugs.push(size.startsWith('6') && size !== '6' ? 8 : Number(size));
  plugs.push(...clause.takeAll(sixAndTwo).map(() => 8));
  for (const [, ...sizes] of clause.takeAll(joined))
    plugs.push(...sizes.filter((size) => (size as string | undefined) !== undefined).map(Number));
  for (const [, size] of clause.takeAll(single)) plugs.push(Number(size));
  clause.takeAll(/(?<!\w)(?:plugs?|pins?|pcie|pci-e|connectors?|needs)(?!\w)/i);
  if (plugs.length === 0) return null;
  return classByPlugs[plugs.sort((a, b) => b - a).join(',')] ?? 'unusual';
}

const boardByPlugs: Readonly<Record<string, string>> = {
  '24,8': 'board',
  '24,8,4': 'board-84',
  '24,8,8': 'board-88',
  '24,8,8,4': 'board-884',
  '24,4': 'board-4',
  '24,4,4': 'board-44',
  '24,8,6': 'board-8-card',
  '20,4': 'board-20',
  '20': 'board-20-only',
  '20,6': 'board-20-aux',
};

/**
 * The class of a board by its plugs, such as `board 24+8`, `board 8+8` or `old board 20`; the usual one of its kind
 * where nothing is said. `20+4` is the plug for 24 pins, but on an old board main and processor.
 */
export function boardPlugs(
  clause: Clause,
  kind: string,
): { readonly classId: string; readonly said: boolean } | 'unusual' {
  const old = kind.toLowerCase().startsWith('old');
  if (kind !== '' && !old) {
    clause.takeAll(/(?<![\w.])(?:main|processor|cpu|plugs?|4(?:[ -]?pins?)?)(?!\w)|\+/i);
    return { classId: 'board-own', said: true };
  }
  const plugs: number[] = [];
  if (!old && clause.take(/(?<![\w.])20\s*\+\s*4(?:[ -]?pins?)?(?!\w)/i) !== null) plugs.push(24);
  clause.takeAll(/(?<![\w.])(?:1\s*[x×]|one)\s*(?=2[04](?!\d))/i);
  for (const [, count = '', size = ''] of clause.takeAll(counted))
    for (let plug = 0; plug < numberOf(count); plug += 1) plugs.push(Number(size));
  for (const [, size] of clause.takeAll(/(?<![\w.])(24|20|8|6|4)(?:[ -]?pins?)?(?![\w.])/i)) plugs.push(Number(size));
  const auxiliary = clause.take(/(?<!\w)aux(?:iliary)?(?!\w)/i) !== null;
  if (auxiliary && !plugs.includes(6)) plugs.push(6);
  clause.takeAll(
    /(?<!\w)(?:main|processor|cpu|eps|(?:e-?|m-?|micro[ -]?)?atx|plugs?|pins?|alone|only|slots?)(?!\w)|\+/i,
  );
  if (plugs.length === 0) return { classId: old ? 'board-20' : 'board', said: false };
  if (plugs.length === 1 && (plugs[0] === 24 || plugs[0] === 20) && !old)
    return plugs[0] === 20 ? { classId: 'board-20-only', said: true } : { classId: 'board', said: false };
  if (!plugs.includes(24) && !plugs.includes(20)) plugs.push(old ? 20 : 24);
  const classId = boardByPlugs[plugs.sort((a, b) => b - a).join(',')];
  return classId === undefined ? 'unusual' : { classId, said: true };
}
