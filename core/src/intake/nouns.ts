import { partClasses } from '../machine/index.ts';
import { grades, shapes } from '../standards/index.ts';

/** A kind of thing that can be named, by the words for it. */
export interface Noun {
  readonly id: string;
  /** How many comes in the group `count`, in figures or in words. */
  readonly words: RegExp;
  /** The classes that the word can stand for when something of it leaves the machine. */
  readonly classIds: readonly string[];
}

// Not the last of a row of figures, such as the 8 of 24+8.
export const counts =
  '\\d{1,2}|(?:half )?(?:a )?dozen|(?:a )?(?:couple|pair)(?: of)?|' +
  'one|single|both|dual|twin|two|three|triple|quad|four(?:teen)?|five|fifteen|six(?:teen)?|seven|eight|nine|ten|' +
  'eleven|twelve|twenty';
// `2 1 TB` of something: a size stands between how many and what.
const size = '(?:\\d{1,4}(?:[.,]\\d)?[ -]?(?:tb|gb|mm)[ -])?';
// `a second` of something is one more of it.
export const next = '(?:a )?(?:second|third|fourth)';
const isNext = new RegExp(`^${next}$`);
const more = '(?:(?:more|extra|additional|further|new|used|spare) ){0,2}?';
/** `1x`, `one` before what a machine has one of says nothing. */
const once = '(?:(?:1(?:\\s*[x×])?|one) )?';
const timesOf = (behind: string) =>
  `(?:(?<!(?<![\\w.])(?:2[04]|16|12|8|6|4)\\s*\\+\\s*|[/.,-])(?<count>${counts}|${next})` +
  `(?:\\s*[x×]\\s*|\\s+${more})${size}${behind})?`;
const times = timesOf('');
const fanSize = '(?:80|92|120|140|180|200)';
/** At the beginning of a clause, or behind `fans:`. */
const besideFans = '(?<=^\\s*(?:(?:case |chassis )?fans?\\s*[:=]\\s*)?)';
/** How fast a network is, such as `2.5 GbE`. */
const speed = '\\d{1,3}(?:\\.\\d)? ?g(?:be|bit)';
const fanSide = '(?:top|bottom|side|front|rear|back|intake|exhaust)';
/** Shapes of supplies, the longer ones first: `SFX-L` is no `SFX`. */
export const shapeWords = [...shapes].sort((a, b) => b.length - a.length).join('|');
/** Where a fan sits. */
const fanPlace = 'case|chassis|board|top|bottom|side|front|rear|back|intake|inlet|exhaust|outlet|radiator';
const inches = (figure: string) => `${figure}(?:\\s*"|[ -]?in(?:ch(?:es)?)?)?`;

const numbers: Readonly<Record<string, number>> = {
  one: 1,
  single: 1,
  both: 2,
  dual: 2,
  twin: 2,
  two: 2,
  three: 3,
  triple: 3,
  quad: 4,
  four: 4,
  five: 5,
  six: 6,
  seven: 7,
  eight: 8,
  nine: 9,
  ten: 10,
  eleven: 11,
  twelve: 12,
  fourteen: 14,
  fifteen: 15,
  sixteen: 16,
  twenty: 20,
};

const countWords = Object.keys(numbers).join('|');

/** What a supply is rated at, without its watts: `750 gold`, `psu 650`. */
export const bareRating = '(?<![\\w.,+×])(?:[2-9]\\d[05]|1\\d\\d0|2000)';

/** A number in figures or in words. */
export function numberOf(text: string): number {
  const word = text.toLowerCase();
  if (isNext.test(word)) return 1;
  if (word.endsWith('dozen')) return word.startsWith('half') ? 6 : 12;
  return /couple|pair/.test(word) ? 2 : (numbers[word] ?? Number(text));
}

// `two 125 W processors`: what each of them draws.
const each = '(?:(?<each>\\d{2,3}(?:[.,]\\d)?)\\s*w(?:atts?)?\\s+)?';
/** How a supply's cables are told. */
export const modularWords = '(?:(?:semi|fully?|non|not)[- ]?)?modular';
const gigabytes = '(?:gi?bs?|gigs?|gigabytes?)';
const generation = 'ddr[2-5]';

// What holds a thing or leads to it is not the thing.
const holders = '[ -](?:bays?|cages?|cadd(?:y|ies)|trays?|brackets?|cables?|adapters?)(?!\\w)';
const plugsOf = '[ -](?:plugs?|connectors?|inlets?|headers?|sockets?|leads?)(?!\\w)';
/** `7 year old tower`: what ends an age says nothing of the thing behind it. */
const notOfAge = (words: string): string =>
  words.replaceAll(/\bold(?=(?:\(\?:er\)\?)? )/g, '(?<!(?:years?|yrs?|\\dy)[ -])old');

const noun = (id: string, words: string, classIds: readonly string[] = [id]): Noun => ({
  id,
  // Not in the middle of a word or of a figure; of a card or a board the plugs may be said right behind it.
  words: new RegExp(
    `(?<![\\w.,])(?:${notOfAge(words)})(?![\\w]|${holders}${/^(?:drive|fan|processor)/.test(id) ? `|${plugsOf}` : ''})`,
    'gi',
  ),
  classIds,
});
const classesOf = (start: string): string[] => partClasses.filter(({ id }) => id.startsWith(start)).map(({ id }) => id);

/** Everything that the line knows a word for. */
export const nouns: readonly Noun[] = [
  noun('tower', `${once}(?:case:? )?(?:old )?(?:(?:mid|midi|big|full|mini|micro)[ -]?)?tower(?: case)?`, []),
  noun('small', '(?:small|little|compact)[ -](?:case|machine|box)|cube(?: case)?|(?:mini[ -])?itx(?: case)?', []),
  noun('slim', 'slim(?:line)?(?: case)?|thin case', []),
  noun(
    'board',
    `${once}(?<age>old |maker(?:'s|-built)?(?: own)? |oem |proprietary )?` +
      '(?:(?:dual|twin|two|2|quad)[ -](?:cpu|processor|socket) )?' +
      '(?:(?:(?:e-?|m-?|micro-?)?atx|server|workstation|gaming) )?' +
      '(?:(?:main ?|mother ?)?board|mobo)',
    classesOf('board'),
  ),
  noun(
    'processor',
    `${timesOf(each)}(?<old>old )?(?<!\\d[ -]?pins?[ -])(?:` +
      '(?<cores>\\d{1,3}|dual|quad|hexa?|six|octa|eight|twelve|sixteen)(?:[ -]?cores?|c(?=\\/\\d))' +
      '(?: (?:processors?|[ac]pus?))?|(?:processors?|[ac]pus?))',
    classesOf('processor'),
  ),
  noun(
    'memory',
    `(?:(?<modules>\\d{1,2})\\s*[x×]\\s*\\d{1,3}(?:\\s*${gigabytes})?\\s*|` +
      `${times}(?:\\d{1,3}\\s*${gigabytes} (?:of )?)?)` +
      `(?<age>new(?:er)? |old(?:er)? |${generation} )?(?:memory(?: (?:modules?|sticks?))?|ram(?: sticks?)?|dimms?)` +
      `(?: (?<sticks>${counts}) (?:modules?|sticks?))?`,
    classesOf('memory'),
  ),
  noun(
    'memory',
    `(?<modules>\\d{1,2})\\s*[x×]\\s*\\d{1,3}\\s*${gigabytes}(?: (?:modules?|sticks?))?`,
    classesOf('memory'),
  ),
  noun(
    'memory',
    `${times}(?:\\d{1,3}\\s*${gigabytes} )?(?:sticks?|modules?)(?: of)?(?: \\d{1,3}\\s*${gigabytes})?` +
      `(?: (?<age>${generation}))?(?: (?:ecc|registered))*`,
    classesOf('memory'),
  ),
  // `64 GB (2x32)`: of nothing else is its size told by modules.
  noun(
    'memory',
    `\\d{1,3}\\s*${gigabytes}\\s+(?<modules>\\d{1,2})\\s*[x×]\\s*\\d{1,3}(?:\\s*${gigabytes})?`,
    classesOf('memory'),
  ),
  // By itself in its clause: less than any drive has that is sold.
  noun('memory', `(?<=^\\s*)(?:[1-9]|[1-8]\\d|9[0-6]) ?${gigabytes}(?=\\s*$)`, classesOf('memory')),
  noun(
    'card',
    // Not the plugs of `8 150 W card`.
    `(?!\\d+\\s+\\d)${timesOf(each)}(?:(?:\\d|single|dual|twin|two|triple|three)[ -]fan )?` +
      '(?:(?:graphics|video|display|gfx|vga) )?(?:cards?|gpus?)' +
      // Its own fans, where its plugs follow.
      '(?: (?:with )?(?:[1-3]|two|three) fans?(?=,? (?:with )?(?:\\d ?[x×] ?|two |three )?(?:6|8|16)[ -]?pins?))?|' +
      '(?:graphics|gfx|vga)(?=\\s*(?::|with|\\d))',
    classesOf('card'),
  ),
  noun(
    'memory',
    `(?<sticks>${counts}) (?:modules?|sticks?)(?: of)? (?<age>new(?:er)? |old(?:er)? )?(?:memory|ram)`,
    classesOf('memory'),
  ),
  noun(
    'memory',
    `${times}(?:\\d{1,3}\\s*${gigabytes}\\s*)?` +
      `(?:\\(?(?<modules>\\d{1,2})\\s*[x×]\\s*\\d{1,3}(?:\\s*${gigabytes})?\\)?\\s*)?(?<age>${generation})`,
    classesOf('memory'),
  ),
  noun('card-agp', `${times}(?:old )?(?:graphics )?cards? (?:with |on )?(?:a )?drive plugs?`),
  noun('card-agp', `${times}(?:old )?agp (?:graphics )?cards?`),
  noun(
    'capture',
    `${times}(?:(?:capture|sound|audio|tv(?: tuner)?|raid|hba|sata|storage|` +
      '(?:drive |raid |sata |storage )?controller) cards?|(?:raid|sata|sas|storage) controllers?|tv tuners?|hbas?)',
  ),
  noun(
    'network',
    `${times}(?:(?:${speed}|\\d{1,3}(?:\\.\\d)? ?g) )?(?:(?:(?:network|lan|wireless|wi-?fi|bluetooth|modem)` +
      `(?: (?:and|&|\\+|\\/) (?:wi-?fi|bluetooth))?|${speed}) cards?|nics?|modems?)`,
  ),
  noun(
    'network',
    `${times}(?:usb(?: ?[1-4](?:\\.\\d)?)?|serial|parallel|printer|i\\/o|fire ?wire|thunderbolt)(?: ports?)? cards?`,
  ),
  noun('encoder-6', `${times}encoder cards?`),
  noun('drive-card', `${times}(?:m\\.?2|nvme|card[ -]type)(?: (?:ssds?|drives?|sticks?|solid[ -]state drives?))?`),
  noun('drive-flat', `${times}(?:${inches('2\\.5')} )?(?:sata |flat )?(?:ssds?|solid[ -]state(?: drives?)?)`, [
    'drive-flat',
    'drive-card',
  ]),
  noun(
    'drive-35',
    `${times}(?:${inches('3\\.5')} )?(?:sata )?` +
      '(?:hard[ -]?(?:drives?|disks?)|hdds?|(?:spinning|mechanical|platter) (?:drives?|disks?)|spinners?)',
    ['drive-35', 'drive-35-board', 'drive-25', 'drive-old'],
  ),
  noun('drive-35', `${times}${inches('3\\.5')} (?:drives?|disks?)`),
  noun('drive-25', `${times}(?:${inches('2\\.5')}|laptop) (?:hard )?(?:drives?|disks?|hdds?)`),
  noun('drive-old', `${times}(?:old (?:hard )?(?:drives?|disks?)|(?:ide|pata) (?:hard )?(?:drives?|disks?))`),
  noun('drive', `${times}(?:(?:sata|sas) (?:drives?|disks?|devices?)|drives?|disks?)`, [
    'drive-35',
    'drive-25',
    'drive-flat',
    'drive-35-board',
  ]),
  noun(
    'optical',
    `${times}(?:optical(?: drives?)?|(?:dvd|blu-?ray)(?:[ -](?:drives?|writers?|burners?|roms?|rams?|rws?))?|` +
      'cd[ -](?:drives?|writers?|burners?|roms?|rws?))',
    ['optical', 'optical-old'],
  ),
  noun('optical-old', `${times}old optical drives?`),
  noun('floppy', `${times}floppy(?: drives?)?`),
  noun(
    'aio',
    '(?:(?<fanned>\\d|single|one|dual|twin|two|triple|three)[ -]fan )?' +
      '(?:(?<before>120|140|240|280|360|420)(?:\\s*mm)?\\s+)?(?:(?:aio|all-in-one)(?: (?:cooler|liquid cooler))?|' +
      '(?:custom |open )?(?:liquid|water)[ -](?:cool(?:er|ing|ed))(?: loop)?|' +
      '(?:custom|open|water|liquid)(?: (?:water|liquid))? loop|(?<=cooling\\s*[:=]\\s*)(?:water|liquid))' +
      '(?:[:\\s]+(?<radiator>120|140|240|280|360|420)(?:\\s*mm)?(?: rad(?:iator)?)?)?' +
      '(?:\\s+(?:with )?(?:(?:an? |one |1 )?(?:large )?pump (?:and|with|plus) )?' +
      `(?<fans>\\d|${countWords}) (?:(?:radiator|${fanPlace}) )?fans?)?`,
    ['pump'],
  ),
  noun('fan', `${times}(?:${fanSize} )?(?:[34][ -]?pin )?(?:pwm )?(?:a?rgb )?(?:(?:${fanPlace}) )?fans?`, [
    'fan',
    'fan-plug',
  ]),
  noun('fan', `${besideFans}(?<count>${counts})\\s*[x×]\\s*${fanSize}(?:\\s*mm)?(?: (?:${fanPlace}))?(?=\\s*$)`),
  // By themselves in a clause, or `3 intake and 1 exhaust fans`: the first are fans as well.
  noun(
    'fan',
    `${besideFans}(?:(?<count>${counts})\\s+(?:(?:in|at|on)\\s+)?(?:the\\s+)?${fanSide}|` +
      `${fanSide}\\s+(?<behind>\\d))(?=\\s*$)`,
  ),
  noun(
    'fan',
    `${times}(?:${fanPlace})(?=\\s*(?:and|plus|&|\\+)\\s*(?:${counts})\\s+(?:(?:${fanPlace}) )?fans?(?!\\w))`,
  ),
  noun('fan-hub', `${times}fan (?:hubs?|controllers?)`),
  noun('fan-plug', `${times}fans? on (?:a )?drive plugs?`),
  noun(
    'cooler',
    `${times}(?:(?<fanned>\\d|single|one|dual|twin|two|triple|three)[ -]fan )?(?:air |tower |processor |cpu )?` +
      '(?:coolers?|heatsinks?|(?<=cooling\\s*[:=]\\s*)air)' +
      '(?:\\s+(?:with )?(?:a )?(?<fans>\\d|single|one|dual|two) fans?)?',
    ['fan'],
  ),
  noun('pump', `${times}pumps?`, ['pump', 'pump-large', 'pump-sata']),
  noun('pump-large', `${times}large pumps?`),
  noun('pump-sata', `${times}(?:pumps?|coolers?) on (?:a )?sata(?: plugs?)?`),
  noun(
    'lighting',
    `${times}(?:(?:addressable|argb) (?:lighting|(?:light |led )?strips?|leds?)(?: hubs?)?|lighting hubs?)`,
  ),
  noun('lighting-of-any-kind', `${times}(?:(?:rgb )?lighting|(?:led |light |rgb )+strips?|(?:rgb )?leds?)`, [
    'lighting',
    'lighting-plain',
    'lighting-header',
  ]),
  noun('lighting-plain', `${times}plain (?:lighting|light strips?|leds?)`),
  noun('lighting-header', `${times}(?:lighting|light strips?|leds?) on (?:a |the )?(?:board )?headers?`),
  noun(
    'usb',
    `${times}(?:external (?:usb )?(?:hard )?|usb (?:hard )?)(?:drives?|disks?|hdds?|ssds?)|` +
      '(?:\\d{1,2} )?usb(?:[ -]?c)?(?: (?:devices?|hubs?|sticks?))?',
  ),
  noun('front-panel', `${once}(?:(?:memory )?card )?readers?|${once}front panel`),
  // `750 W gold` by itself is a supply: of nothing else is it said.
  noun(
    'supply',
    `(?<=\\d\\s?w(?:atts?)? |${bareRating} )` +
      `(?:(?<grade>${grades.join('|')})(?: (?<modular>${modularWords}))?|(?<alone>${modularWords}))` +
      '(?!.*(?:suppl|psu))',
    [],
  ),
  // A supply that the shop knows by its name.
  noun('supply', '(?<known>\ue000+)', []),
  noun('supply', `${once}(?:(?:power )?suppl(?:y|ies)(?: units?)?|psus?)`, []),
  noun('age', `(?:machine )?(?<years>[1-5]?\\d|60|${countWords})[ -]?(?:years?|yrs?|y(?:\\/?o)?)(?:[ -]old)?`, []),
];
