import { partClasses } from '../machine/index.ts';
import { grades } from '../standards/index.ts';

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
  'one|single|dual|twin|two|three|four|five|six|seven|eight|nine|ten|eleven|twelve';
// `2 1 TB` of something: a size stands between how many and what.
const size = '(?:\\d{1,4}(?:[.,]\\d)?[ -]?(?:tb|gb|mm)[ -])?';
// `a second` of something is one more of it.
const next = '(?:a )?(?:second|third|fourth)';
const isNext = new RegExp(`^${next}$`);
const more = '(?:more |extra |additional |further )?';
const timesOf = (behind: string) =>
  `(?:(?<!\\d\\s*\\+\\s*|[/.,-])(?<count>${counts}|${next})(?:\\s*[x×]\\s*|\\s+${more})${size}${behind})?`;
const times = timesOf('');
const inches = (figure: string) => `${figure}(?:\\s*"|[ -]?in(?:ch(?:es)?)?)?`;

const numbers: Readonly<Record<string, number>> = {
  one: 1,
  single: 1,
  dual: 2,
  twin: 2,
  two: 2,
  three: 3,
  triple: 3,
  four: 4,
  five: 5,
  six: 6,
  seven: 7,
  eight: 8,
  nine: 9,
  ten: 10,
  eleven: 11,
  twelve: 12,
};

/** A number in figures or in words. */
export function numberOf(text: string): number {
  const word = text.toLowerCase();
  if (isNext.test(word)) return 1;
  if (word.endsWith('dozen')) return word.startsWith('half') ? 6 : 12;
  return /couple|pair/.test(word) ? 2 : (numbers[word] ?? Number(text));
}

// `two 125 W processors`: what each of them draws.
const each = '(?:(?<each>\\d{2,3}(?:[.,]\\d)?)\\s*w(?:atts?)?\\s+)?';
const modularWords = '(?:(?:semi|fully?)[- ]?)?modular';
const gigabytes = '(?:gi?bs?|gigs?|gigabytes?)';
const generation = 'ddr[2-5]';

// What holds a thing or leads to it is not the thing.
const holders = '[ -](?:bays?|cages?|cadd(?:y|ies)|trays?|brackets?|cables?|adapters?)(?!\\w)';
const noun = (id: string, words: string, classIds: readonly string[] = [id]): Noun => ({
  id,
  // Not in the middle of a word or of a figure.
  words: new RegExp(`(?<![\\w.,])(?:${words})(?![\\w]|${holders})`, 'gi'),
  classIds,
});
const classesOf = (start: string): string[] => partClasses.filter(({ id }) => id.startsWith(start)).map(({ id }) => id);

/** Everything that the line knows a word for. */
export const nouns: readonly Noun[] = [
  noun('tower', '(?:old )?(?:(?:mid|midi|big|full|mini|micro)[ -]?)?tower(?: case)?', []),
  noun('small', '(?:small|little|compact)[ -](?:case|machine|box)|cube(?: case)?|(?:mini[ -])?itx(?: case)?', []),
  noun('slim', 'slim(?:line)?(?: case)?|thin case', []),
  noun(
    'board',
    "(?<age>old |maker(?:'s|-built)?(?: own)? )?(?:(?:(?:e-?|m-?|micro-?)?atx|server|workstation|gaming) )?" +
      '(?:(?:main ?|mother ?)?board|mobo)',
    classesOf('board'),
  ),
  noun(
    'processor',
    `${timesOf(each)}(?<old>old )?(?:` +
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
  // By itself in its clause: less than any drive has that is sold.
  noun('memory', `(?<=^\\s*)(?:[1-9]|[1-8]\\d|9[0-6]) ?${gigabytes}(?=\\s*$)`, classesOf('memory')),
  noun(
    'card',
    // Not the plugs of `8 150 W card`.
    `(?!\\d+\\s+\\d)${timesOf(each)}(?:(?:\\d|single|dual|twin|two|triple|three)[ -]fan )?` +
      '(?:graphics |video |display )?(?:cards?|gpus?)',
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
      '(?:drive |raid |sata |storage )?controller) cards?|tv tuners?|hbas?)',
  ),
  noun('network', `${times}(?:\\d{1,3} ?g(?:be|bit)? )?(?:(?:network|lan|wireless|wi-?fi|modem) cards?|nics?|modems?)`),
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
  noun('drive-35', `${times}(?:${inches('3\\.5')} )?(?:sata )?(?:hard (?:drives?|disks?)|hdds?|spinning drives?)`, [
    'drive-35',
    'drive-35-board',
    'drive-25',
    'drive-old',
  ]),
  noun('drive-35', `${times}${inches('3\\.5')} (?:drives?|disks?)`),
  noun('drive-25', `${times}(?:${inches('2\\.5')}|laptop) (?:hard )?(?:drives?|disks?|hdds?)`),
  noun('drive-old', `${times}(?:old (?:hard )?(?:drives?|disks?)|(?:ide|pata) (?:hard )?(?:drives?|disks?))`),
  noun('drive', `${times}(?:sata )?(?:drives?|disks?)`, ['drive-35', 'drive-25', 'drive-flat', 'drive-35-board']),
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
    '(?:(?<before>120|140|240|280|360|420)(?:\\s*mm)?\\s+)?(?:(?:aio|all-in-one)(?: (?:cooler|liquid cooler))?|' +
      '(?:liquid|water)[ -](?:cool(?:er|ing|ed))(?: loop)?)(?:\\s+(?<radiator>120|140|240|280|360|420)(?:\\s*mm)?)?' +
      '(?:\\s+(?:with )?(?<fans>\\d) fans?)?',
    ['pump'],
  ),
  noun('fan', `${times}(?:(?:80|92|120|140|180|200) )?(?:a?rgb )?(?:case |board |top |front |rear )?fans?`, [
    'fan',
    'fan-plug',
  ]),
  noun('fan-hub', `${times}fan (?:hubs?|controllers?)`),
  noun('fan-plug', `${times}fans? on (?:a )?drive plugs?`),
  noun(
    'cooler',
    `${times}(?:air |tower |processor |cpu )?(?:coolers?|heatsinks?)(?:\\s+(?:with )?(?<fans>\\d|one|two) fans?)?`,
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
  noun('usb', '(?:\\d{1,2} )?usb(?: (?:devices?|hubs?|sticks?))?'),
  noun('front-panel', '(?:card )?readers?|front panel'),
  // `750 W gold` by itself is a supply: of nothing else is it said.
  noun(
    'supply',
    `(?<=\\d\\s?w(?:atts?)? )` +
      `(?:(?<grade>${grades.join('|')})(?: (?<modular>${modularWords}))?|(?<alone>${modularWords}))` +
      '(?!.*(?:suppl|psu))',
    [],
  ),
  noun('supply', '(?:power )?suppl(?:y|ies)(?: units?)?|psus?', []),
  noun('age', '(?:machine )?(?<years>[1-5]?\\d|60) years?(?: old)?', []),
];
