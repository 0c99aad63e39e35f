import { grades, shapes } from '../standards/index.ts';
import { partClass } from '../machine/index.ts';
import type { Clause } from './clause.ts';
import { mostWattsOfOthers, wattsPattern } from './figures.ts';
import { countBefore, groupOf, wordsOf, type Match } from './matches.ts';
import { bareRating, counts, next, nouns, numberOf, shapeWords } from './nouns.ts';
import { boardPlugs, cardPlugs } from './plugs.ts';
import { classAt, processorClasses, processorsByCores } from './processor-class.ts';
import { sameAs } from './same-as.ts';
import type { Doubt, Said, SaidLeaving, SaidPart, SaidTooLittle } from './said.ts';
import type { Way } from './ways.ts';

/** More than this of one part with inlets, or of one that is only counted, is a slip. */
const mostWithInlets = 24;
const mostCounted = 64;
/** No board that is sold has more sockets for processors. */
const mostProcessors = 4;
function mostOf(classId: string): number {
  const found = partClass(classId);
  if (found?.group === 'processor') return mostProcessors;
  return found?.inlets.length === 0 ? mostCounted : mostWithInlets;
}

const timesBehind = /(?<!\w)[x×]\s*(\d{1,2})(?![\w.])|(?<![\w.])(\d{1,2})\s*[x×](?!\s*\w)/i;

/** `fans: 3`. */
const countBehindColon = new RegExp(`^\\s*[:=]\\s*(${counts})\\s*$`, 'i');
/** `hard drives 4`, with nothing behind it. */
const countBehind = /^\s*(\d{1,2})\s*$/;

/** `2x16` of memory. */
const modulesPattern = /(?<!\w)(\d{1,2})\s*[x×]\s*\d{1,3}(?:\s*gi?b)?(?!\w)/i;

/** How many, at the beginning of what is said of a thing. */
const countFirst = new RegExp(`^\\s*(?:the |my )?${countBefore.source}`, 'i');

/** The same with nothing more between it and the thing, as `2 identical cards` without the word. */
const countAlone = new RegExp(
  `(?<![\\w.,+×])(${counts}|${next})` + '(?:\\s*[x×]|\\s+(?:more|extra|additional))?\\s*$',
  'i',
);

/** Things of which a machine has one: what comes as an upgrade takes its place. */
const oneOfAKind: readonly string[] = ['board', 'processor', 'card'];

const newBefore = /(?<!\w)(?:brand )?new(?:er)?(?!\w)/i;

/** What an upgrade takes the place of, without a word of its own in the line; nothing where a machine has many. */
export function placeOf({ classId, from }: SaidPart): SaidLeaving[] {
  const noun = nouns.find((one) => oneOfAKind.includes(one.id) && one.classIds.includes(classId));
  if (noun === undefined) return [];
  const { id, classIds } = noun;
  return [{ from, to: from, kind: 'leaving', noun: id, classIds, quantity: null, replaced: true, ifThere: true }];
}

const coreWords: Readonly<Record<string, number>> = { dual: 2, quad: 4, hex: 6, hexa: 6, octa: 8, sixteen: 16 };
const coresOf = (word: string): number => coreWords[word.toLowerCase()] ?? numberOf(word);

const bareRatingPattern = new RegExp(`${bareRating}(?!\\s*(?:[x×]|[a-z]{1,3}\\b)|[\\w.,])`, 'i');
const figure = (text: string): number => Number(text.replace(',', '.'));

const modularOf = (words: string) =>
  /^(?:fixed|non|not)/.test(words) ? 'fixed' : words.startsWith('semi') ? 'semi' : 'full';

/** Reads one piece, whose noun is known. */
class Reader {
  private readonly clause: Clause;
  private readonly match: Match;
  private readonly way: Way;
  private readonly watts: number | null;
  /** Where the noun begins in the piece. */
  private readonly nounAt: number;
  private readonly nounEnd: number;
  private readonly doubts: Doubt[] = [];

  /** @param from where the piece begins in the text that the match is of */
  constructor(clause: Clause, match: Match, from: number, way: Way) {
    this.clause = clause;
    this.match = match;
    this.way = way;
    this.nounAt = Math.min(...match.nouns.map(({ index }) => index)) - from;
    this.nounEnd = Math.max(...match.nouns.map((found) => found.index + found[0].length)) - from;
    for (const found of match.nouns) clause.takeAt(found.index - from, found[0].length);
    const watts = this.group('each') ?? this.takeWatts();
    this.watts = watts === undefined ? null : figure(watts);
  }

  /** Watts that are said of it; what no such thing draws is something else's, and stays to be told. */
  private takeWatts(): string | undefined {
    const { id, classIds } = this.match.noun;
    const isLarge = ['supply', 'card', 'processor'].includes(id) || classIds.length === 0;
    return this.clause.takeIf(wattsPattern, ([, watts = '']) => isLarge || figure(watts) <= mostWattsOfOthers)?.[1];
  }

  private group(name: string): string | undefined {
    return groupOf(this.match, name);
  }

  /** How many, said before or behind the noun; null where it was not said. */
  private count(): number | null {
    const before = this.group('count') ?? this.group('behind');
    if (before !== undefined) return numberOf(before);
    const plural = /s$/i.test(wordsOf(this.match));
    const behind =
      this.clause.take(timesBehind) ??
      this.clause.takeBehind(this.nounEnd, countBehindColon) ??
      (plural ? this.clause.takeBehind(this.nounEnd, countBehind) : null);
    if (behind !== null) return numberOf(behind[1] ?? behind[2] ?? '');
    const further = this.clause.takeBefore(this.nounAt, countFirst)?.[1];
    return further === undefined ? null : numberOf(further);
  }

  private part(classId: string, quantity: number, watts: number | null = this.watts): SaidPart | SaidTooLittle {
    const most = mostOf(classId);
    if (quantity < 1 || quantity > most) return { ...this.clause.span, kind: 'ask', ask: 'quantity', most };
    return {
      ...this.clause.span,
      kind: 'part',
      classId,
      own: null,
      quantity,
      watts,
      change: this.change,
      doubts: [...this.doubts],
    };
  }

  read(): Said[] {
    if (this.way === 'removed' || this.way === 'replaced') return this.leaving();
    const isNew = this.isNewOrThere();
    const said = this.named();
    if (isNew && (said[0]?.kind === 'part' || said[0]?.kind === 'supply'))
      return [{ ...this.clause.span, kind: 'ask', ask: 'new-or-there' }];
    if (this.way !== 'upgraded' || said[0]?.kind !== 'part') return said;
    return [...placeOf(said[0]), ...said];
  }

  /** `new card`, of what a machine has one of: it may come, or be what was put in. */
  private isNewOrThere(): boolean {
    const { noun } = this.match;
    return (
      this.way === 'stays' &&
      [...oneOfAKind, 'supply'].includes(noun.id) &&
      this.clause.takeBefore(this.nounAt, newBefore) !== null
    );
  }

  /** One that is like one of its kind that the machine has; null where that is not said. */
  private like(): Said | null {
    const { id, classIds } = this.match.noun;
    if (classIds.length === 0 || this.clause.take(sameAs) === null) return null;
    const before = this.clause.takeBefore(this.nounAt, countAlone)?.[1];
    const quantity = before === undefined ? (this.count() ?? 1) : numberOf(before);
    const most = Math.min(...classIds.map(mostOf));
    if (quantity < 1 || quantity > most) return { ...this.clause.span, kind: 'ask', ask: 'quantity', most };
    const noun = wordsOf(this.match).replace(/^(?:more|extra|additional|further) /i, '') || id;
    return { ...this.clause.span, kind: 'like', noun, classIds, quantity, change: this.change };
  }

  private get change(): 'stays' | 'added' {
    return this.way === 'stays' ? 'stays' : 'added';
  }

  private named(): Said[] {
    const { noun } = this.match;
    const like = this.like();
    if (like !== null) return [like];
    switch (noun.id) {
      case 'tower':
      case 'small':
      case 'slim':
        return [{ ...this.clause.span, kind: 'case', layout: noun.id }];
      case 'age':
        return [{ ...this.clause.span, kind: 'age', of: 'machine', years: numberOf(this.group('years') ?? '') }];
      case 'supply':
        return [this.supply()];
      case 'board':
        return [this.board()];
      case 'processor':
        return [this.processor()];
      case 'memory':
        return [this.memory()];
      case 'card':
        return [this.card()];
      case 'aio':
        return this.aio();
      case 'drive':
        this.doubts.push('kind');
        return [this.part('drive-35', this.count() ?? 1)];
      case 'lighting-of-any-kind':
        this.doubts.push('kind');
        return [this.part('lighting', this.count() ?? 1)];
      case 'card-agp':
        // Not all of them have a drive plug.
        if (!/plug/i.test(wordsOf(this.match))) this.doubts.push('plugs');
        return [this.part('card-agp', this.counted())];
      case 'cooler':
        return [this.part('fan', (this.count() ?? 1) * numberOf(this.group('fans') ?? this.group('fanned') ?? '1'))];
      default:
        return [this.part(noun.id, this.counted())];
    }
  }

  /** One, where the noun stands in the singular or names what there is one of; several without a number are asked. */
  private counted(): number {
    const said = this.count();
    if (said === null && /s\b/i.test(wordsOf(this.match)) && this.match.noun.id !== 'usb') this.doubts.push('count');
    return said ?? (this.doubts.includes('count') ? 2 : 1);
  }

  private leaving(): Said[] {
    const { noun } = this.match;
    if (noun.id === 'supply') return [this.supply()];
    if (noun.classIds.length === 0) return [{ ...this.clause.span, kind: 'ask', ask: 'no-part' }];
    const plugs = noun.id === 'card' ? cardPlugs(this.clause) : null;
    const modules = this.group('modules') ?? (noun.id === 'memory' ? this.clause.take(modulesPattern)?.[1] : undefined);
    return [
      {
        ...this.clause.span,
        kind: 'leaving',
        noun: wordsOf(this.match),
        classIds: plugs === null ? noun.classIds : [plugs],
        quantity: modules === undefined ? this.count() : Number(modules),
        replaced: this.way === 'replaced',
      },
    ];
  }

  private supply(): Said {
    const shape = this.clause.take(new RegExp(`(?<!\\w)(${shapeWords})(?!\\w)`, 'i'));
    const grade =
      this.group('grade') ??
      this.clause.take(new RegExp(`(?<!\\w)(?:efficiency )?(?:grade )?(${grades.join('|')})(?!\\w)`, 'i'))?.[1];
    const modular = (
      this.group('modular') ??
      this.group('alone') ??
      this.clause.take(/(?<!\w)(?:(?:semi|fully|full|non|not)[- ]?)?(?:modular|fixed)(?: cables?)?(?!\w)/i)?.[0]
    )?.toLowerCase();
    // What leaves is fitted now, and told where it is told with its watts.
    const isKnown = this.group('known') !== undefined;
    if (this.change === 'added' && (this.way !== 'replaced' || (this.watts === null && !isKnown)))
      return { ...this.clause.span, kind: 'ask', ask: 'supply-comes' };
    const watts = this.watts ?? Number(this.clause.take(bareRatingPattern)?.[0] ?? 0);
    if (watts < 1 && !isKnown) return { ...this.clause.span, kind: 'ask', ask: 'supply-watts' };
    return {
      ...this.clause.span,
      kind: 'supply',
      model: null,
      ratingWatts: watts,
      shape: shapes.find((one) => one.toLowerCase() === shape?.[1]?.toLowerCase()) ?? null,
      grade: grades.find((one) => one.toLowerCase() === grade?.toLowerCase()) ?? null,
      modular: modular === undefined ? null : modularOf(modular),
    };
  }

  private board(): Said {
    const plugs = boardPlugs(this.clause, this.group('age') ?? '');
    if (plugs === 'unusual') return { ...this.clause.span, kind: 'ask', ask: 'board-plugs' };
    if (!plugs.said) this.doubts.push('plugs');
    return this.part(plugs.classId, 1);
  }

  private processor(): Said {
    const quantity = this.count() ?? 1;
    if (this.group('old') !== undefined) return this.part('processor-old', quantity);
    if (this.watts !== null) {
      const exact = processorClasses.some(([watts]) => watts === this.watts);
      const beyond = this.watts > 350;
      return this.part(classAt(processorClasses, this.watts), quantity, exact || !beyond ? null : this.watts);
    }
    this.doubts.push('watts');
    const cores = this.group('cores');
    return this.part(cores === undefined ? 'processor-105' : classAt(processorsByCores, coresOf(cores)), quantity);
  }

  private memory(): Said {
    const modules = this.group('modules') ?? this.clause.take(modulesPattern)?.[1];
    const age = (this.group('age') ?? this.clause.take(/(?<!\w)(?:newer|new|older|old|ddr[2-5])(?!\w)/i)?.[0] ?? '')
      .trim()
      .toLowerCase();
    if (age === '') this.doubts.push('kind');
    const sticks = this.group('sticks') ?? modules;
    const quantity = sticks === undefined ? this.count() : numberOf(sticks);
    if (quantity === null) this.doubts.push('count');
    // What draws more is taken where it was not said.
    const newer = age === '' || age.startsWith('new') || age === 'ddr5';
    return this.part(newer ? 'memory-new' : 'memory-old', quantity ?? 2);
  }

  private card(): Said {
    const classId = cardPlugs(this.clause);
    const quantity = this.count() ?? 1;
    if (classId === null)
      return this.watts !== null && this.watts <= 75
        ? this.part('card-slot', quantity)
        : { ...this.clause.span, kind: 'ask', ask: 'card-plugs' };
    if (classId === 'unusual') return { ...this.clause.span, kind: 'ask', ask: 'card-plugs' };
    if (this.watts === null && classId !== 'card-slot') this.doubts.push('watts');
    if (classId !== 'card-16' || this.watts === null) return this.part(classId, quantity);
    const nearest = classAt(
      [
        [300, 'card-16-300'],
        [450, 'card-16-450'],
        [600, 'card-16-600'],
      ],
      this.watts,
    );
    return this.part(nearest, quantity);
  }

  private aio(): Said[] {
    const radiator = Number(this.group('radiator') ?? this.group('before') ?? 0);
    const said = this.group('fans') ?? this.group('fanned');
    const byRadiator = { 120: 1, 140: 1, 240: 2, 280: 2, 360: 3, 420: 3 }[radiator];
    const fans = said === undefined ? (byRadiator ?? null) : numberOf(said);
    const pump = this.part('pump', 1);
    if (fans === 0) return [pump];
    if (fans === null) this.doubts.push('count');
    return [pump, this.part('fan', fans ?? 2, null)];
  }
}

/**
 * What a piece says, and what of it is left. What something else takes the place of is told by itself as well, where
 * the words say all of it but the watts, which a part that stays need not say either.
 */
export function readPiece(clause: () => Clause, match: Match, from: number, way: Way) {
  const rest = clause();
  const said = new Reader(rest, match, from, way).read();
  if (way !== 'replaced') return { said, rest };
  const restOfItself = clause();
  const [itself, more] = new Reader(restOfItself, match, from, 'stays').read();
  const enough = itself?.kind === 'part' && more === undefined && itself.doubts.every((doubt) => doubt === 'watts');
  if (!enough) return { said, rest };
  const { from: first, to } = itself;
  return {
    said: said.map((one) => (one.kind === 'leaving' ? { ...one, from: first, to, itself } : one)),
    rest: restOfItself,
  };
}
