import { grades, shapes } from '../standards/index.ts';
import { partClass } from '../machine/index.ts';
import { cardPlugs, boardPlugs } from './plugs.ts';
import { Clause } from './clause.ts';
import { detailPattern, wattsPattern } from './figures.ts';
import {
  countBefore,
  groupOf,
  lentTo,
  matchesIn,
  ofWhatIsThere,
  ofWhatLeaves,
  piecesOf,
  sameAsComes,
  wordsOf,
  type Match,
} from './matches.ts';
import { counts, nouns, numberOf } from './nouns.ts';
import { classAt, processorClasses, processorsByCores } from './processor-class.ts';
import { isSameAlone, namedOnce, sameAs } from './same-as.ts';
import { headingOf, saysOut, spanOf, waysOf, withSign, type ClauseText, type Stretch, type Way } from './ways.ts';
import type { Doubt, Said, SaidLeaving, SaidPart, SaidTooLittle, Span, Understood } from './said.ts';

/** A part of the shop's own, by its name. */
export interface OwnName {
  readonly id: string;
  readonly name: string;
  readonly classId: string;
}

/** Nobody types more than this into one line; what stands behind it is unknown. */
export const mostLetters = 1000;

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

const fillers = new RegExp(
  '(?<!\\w)(?:an?|the|with|and|then|also|of|in|on|its|each|plus|another|inlets?|connectors?|extra|additional|' +
    'new|more|further|(?:bigg|larg|strong|bett|fast)er|' +
    'igpu|(?:onboard|integrated|built-in) graphics)(?!\\w)|[&·]',
  'i',
);
/** What stands for the noun of the other side. */
const standsForNoun = /(?<!\w)ones?(?!\w)/i;
const timesBehind = /(?<!\w)[x×]\s*(\d{1,2})(?![\w.])|(?<![\w.])(\d{1,2})\s*[x×](?!\s*\w)/i;

/** How many, at the beginning of what is said of a thing. */
const countFirst = new RegExp(`^\\s*(?:the |my )?${countBefore.source}`, 'i');

/** The same with nothing more between it and the thing, as `2 identical cards` without the word. */
const countAlone = new RegExp(`(?<![\\w.,+×])(${counts})(?:\\s*[x×])?\\s*$`, 'i');

/** Things of which a machine has one: what comes as an upgrade takes its place. */
const oneOfAKind: readonly string[] = ['board', 'processor', 'card'];

/** What an upgrade takes the place of, without a word of its own in the line; nothing where a machine has many. */
function placeOf({ classId, from }: SaidPart): SaidLeaving[] {
  const noun = nouns.find((one) => oneOfAKind.includes(one.id) && one.classIds.includes(classId));
  if (noun === undefined) return [];
  const { id, classIds } = noun;
  return [{ from, to: from, kind: 'leaving', noun: id, classIds, quantity: null, replaced: true, ifThere: true }];
}

const coreWords: Readonly<Record<string, number>> = { dual: 2, quad: 4, hex: 6, hexa: 6, octa: 8, sixteen: 16 };
const coresOf = (word: string): number => coreWords[word.toLowerCase()] ?? numberOf(word);

const figure = (text: string): number => Number(text.replace(',', '.'));

const modularOf = (words: string) => (words.startsWith('fixed') ? 'fixed' : words.startsWith('semi') ? 'semi' : 'full');

/** Reads one piece, whose noun is known. */
class Reader {
  private readonly clause: Clause;
  private readonly match: Match;
  private readonly way: Way;
  private readonly watts: number | null;
  /** Where the noun begins in the piece. */
  private readonly nounAt: number;
  private readonly doubts: Doubt[] = [];

  /** @param from where the piece begins in the text that the match is of */
  constructor(clause: Clause, match: Match, from: number, way: Way) {
    this.clause = clause;
    this.match = match;
    this.way = way;
    this.nounAt = Math.min(...match.nouns.map(({ index }) => index)) - from;
    for (const found of match.nouns) clause.takeAt(found.index - from, found[0].length);
    const watts = this.group('each') ?? clause.take(wattsPattern)?.[1];
    this.watts = watts === undefined ? null : figure(watts);
  }

  private group(name: string): string | undefined {
    return groupOf(this.match, name);
  }

  /** How many, said before or behind the noun; null where it was not said. */
  private count(): number | null {
    const before = this.group('count');
    if (before !== undefined) return numberOf(before);
    const behind = this.clause.take(timesBehind);
    if (behind !== null) return Number(behind[1] ?? behind[2]);
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
    const said = this.named();
    if (this.way !== 'upgraded' || said[0]?.kind !== 'part') return said;
    return [...placeOf(said[0]), ...said];
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
        return [{ ...this.clause.span, kind: 'age', of: 'machine', years: Number(this.group('years')) }];
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
        return [this.part('fan', (this.count() ?? 1) * numberOf(this.group('fans') ?? '1'))];
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
    if (noun.classIds.length === 0) return [{ ...this.clause.span, kind: 'ask', ask: 'no-part' }];
    const plugs = noun.id === 'card' ? cardPlugs(this.clause) : null;
    const modules = this.group('modules');
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
    const shape = this.clause.take(
      new RegExp(`(?<!\\w)(${[...shapes].sort((a, b) => b.length - a.length).join('|')})(?!\\w)`, 'i'),
    );
    const grade =
      this.group('grade') ??
      this.clause.take(new RegExp(`(?<!\\w)(?:efficiency )?(?:grade )?(${grades.join('|')})(?!\\w)`, 'i'))?.[1];
    const modular = (
      this.group('modular') ??
      this.group('alone') ??
      this.clause.take(/(?<!\w)(?:(?:semi|fully|full)[- ]?)?(?:modular|fixed)(?: cables?)?(?!\w)/i)?.[0]
    )?.toLowerCase();
    if (this.watts === null || this.watts < 1) return { ...this.clause.span, kind: 'ask', ask: 'supply-watts' };
    return {
      ...this.clause.span,
      kind: 'supply',
      ratingWatts: this.watts,
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
    const modules =
      this.group('modules') ?? this.clause.take(/(?<!\w)(\d{1,2})\s*[x×]\s*\d{1,3}(?:\s*gi?b)?(?!\w)/i)?.[1];
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
    const said = this.group('fans');
    const byRadiator = { 120: 1, 140: 1, 240: 2, 280: 2, 360: 3, 420: 3 }[radiator];
    const fans = said === undefined ? (byRadiator ?? null) : Number(said);
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
function readPiece(clause: () => Clause, match: Match, from: number, way: Way) {
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

/** A part of the shop's own, where a clause is its name, with how many and whether the upgrade brings it. */
function ownIn(text: string, from: number, way: Way, own: readonly OwnName[]): SaidPart | null {
  if (way === 'removed' || way === 'replaced') return null;
  const found = /^\s*(?:(\d{1,2})\s*[x×]\s*)?(.*?)\s*$/i.exec(text);
  const name = found?.[2]?.toLowerCase() ?? '';
  const part = name === '' ? undefined : own.find((one) => one.name.trim().toLowerCase() === name);
  if (part === undefined) return null;
  return {
    ...spanOf(text, from),
    kind: 'part',
    classId: part.classId,
    own: part.id,
    quantity: Number(found?.[1] ?? 1),
    watts: null,
    change: way === 'stays' ? 'stays' : 'added',
    doubts: [],
  };
}

/** Words that only go with figures, such as `two 8-pin plugs`. */
const figureWords = /(?<!\w)(?:two|three|and|plus|slots?|only|processor|cpu|main|tdp)(?!\w)|pins?|plugs?|w(?:atts?)?/gi;
const figuresAlone = (text: string): boolean =>
  /\d/.test(text) && /^[\s\d.x×+-]*$/i.test(text.replace(figureWords, ''));

/** Clauses end at commas that are no decimal ones, at semicolons and at line ends. */
function clausesOf(line: string): { readonly from: number; readonly text: string }[] {
  const clauses: { from: number; text: string }[] = [];
  let from = 0;
  for (const found of line.matchAll(/,(?!\d)|(?<!\d),|[;\n\r]/g)) {
    clauses.push({ from, text: line.slice(from, found.index) });
    from = found.index + found[0].length;
  }
  const all = [...clauses, { from, text: line.slice(from) }];
  // `card 2x8, 250 W`, `a second card, same as the first`: this goes on with what stands before it.
  return all.reduce<{ readonly from: number; readonly text: string }[]>((joined, clause) => {
    const before = joined.at(-1);
    if (
      before === undefined ||
      !(figuresAlone(clause.text) || isSameAlone(clause.text)) ||
      matchesIn(clause.text).length > 0 ||
      matchesIn(before.text).length === 0
    )
      return [...joined, clause];
    return [
      ...joined.slice(0, -1),
      { from: before.from, text: line.slice(before.from, clause.from + clause.text.length) },
    ];
  }, []);
}

/** Years that stand right behind a supply are the supply's, whose watts need not be said then. */
function withAges(said: readonly Said[], line: string): Said[] {
  const ages = said.map((one, index) => {
    const before = said[index - 1];
    const supply = before?.kind === 'supply' || (before?.kind === 'ask' && before.ask === 'supply-watts');
    return one.kind === 'age' && supply && !/[,;\n]/.test(line.slice(before.to, one.from));
  });
  return said.flatMap((one, index): Said[] => {
    if (one.kind === 'age' && ages[index] === true) return [{ ...one, of: 'supply' }];
    return one.kind === 'ask' && ages[index + 1] === true ? [] : [one];
  });
}

/** Something is to leave for what has no name: nobody knows what is meant, and the machine has it still. */
function namesOnlyWhatLeaves(text: string, ways: readonly Stretch[], own: readonly OwnName[]): boolean {
  const [gone, come] = (['replaced', 'added'] as const).map((way) => ways.find((one) => one.way === way));
  if (gone === undefined || come === undefined || text.slice(gone.from, gone.to).trim() === '') return false;
  const what = text.slice(come.from, come.to);
  if (matchesIn(what).length > 0 || ownIn(what, 0, 'added', own) !== null) return false;
  return lentFromOther(text, ways, come) === null;
}

/** The noun that a side of an exchange has from the other one; null where there is none to lend, or no exchange. */
function lentFromOther(text: string, ways: readonly Stretch[], { way, from, to }: Stretch): Match | null {
  const other = ways.find((one) => one.way !== way && (one.way === 'replaced' || way === 'replaced'));
  if (other === undefined || way === 'stays' || other.way === 'stays') return null;
  const own = text.slice(from, to);
  if (matchesIn(own).length > 0) return null;
  const others = matchesIn(text.slice(other.from, other.to));
  return lentTo(own, others) ?? (way === 'replaced' ? sameAsComes(own, others) : null);
}

/**
 * A machine as people say it: `tower, 8-core 125 W, 2x16 new memory, card 3x8 320 W, 2 m.2, 4 hard drives`. The order
 * is free. What an upgrade brings begins with `+`, what it takes out with `-`, and `drive -> 2 drives` does both.
 * Nothing is understood that has no word in the line, and every word that nothing was made of is told; see
 * `docs/machine-line.md` for the grammar. Never throws.
 */
export function understand(line: string, own: readonly OwnName[] = []): Understood {
  const said: Said[] = [];
  const unknown: Span[] = [];
  const read = namedOnce(line.slice(0, mostLetters));
  if (line.length > mostLetters) unknown.push({ from: mostLetters, to: line.length });
  const inComes = saysOut(read);
  let underHeading: Way = 'stays';
  const take = (clause: ClauseText): void => {
    underHeading = headingOf(clause.text)?.way ?? underHeading;
    const ways = waysOf(clause.text, inComes).map((one) =>
      one.way === 'stays' && one.signed === null ? { ...one, way: underHeading } : one,
    );
    if (namesOnlyWhatLeaves(clause.text, ways, own)) {
      said.push({ ...spanOf(clause.text, clause.from), kind: 'ask', ask: 'instead' });
      return;
    }
    for (const stretch of ways) {
      const { from, to, way } = stretch;
      const text = clause.text.slice(from, to);
      const start = clause.from + from;
      const ownPart = ownIn(text, start, way, own);
      if (ownPart !== null) {
        const all = way === 'upgraded' ? [...placeOf(ownPart), ownPart] : [ownPart];
        said.push(...all.map((one) => (one.kind === 'leaving' ? withSign(one, clause, stretch, true) : one)));
        continue;
      }
      for (const [index, { match: named, denied, ...piece }] of piecesOf(text).entries()) {
        const match = named ?? (denied === null ? lentFromOther(clause.text, ways, stretch) : null);
        const whole = () => {
          const fresh = new Clause(text.slice(piece.from, piece.to), start + piece.from);
          // What is said not to be there is understood, and nothing is made of it.
          if (denied !== null) fresh.takeAt(denied.from - piece.from, denied.to - denied.from, false);
          if (named === null && match !== null) fresh.takeAll(standsForNoun, false);
          return fresh;
        };
        const { said: read, rest } =
          match === null ? { said: [], rest: whole() } : readPiece(whole, match, piece.from, way);
        said.push(...read.map((one) => withSign(one, clause, stretch, index === 0)));
        if (match !== null) rest.takeAll(detailPattern, false);
        rest.takeAll(fillers, false);
        if (match !== null) rest.takeAll(ofWhatIsThere, false);
        if (match !== null && (way === 'removed' || way === 'replaced')) rest.takeAll(ofWhatLeaves, false);
        unknown.push(...rest.unknown());
      }
    }
  };
  clausesOf(read).forEach(take);
  return {
    said: withAges(
      said.sort((a, b) => a.from - b.from),
      line,
    ),
    unknown: unknown.sort((a, b) => a.from - b.from),
  };
}
