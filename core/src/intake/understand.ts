import { partClass } from '../machine/index.ts';
import { Clause } from './clause.ts';
import { clausesOf } from './clauses.ts';
import { detailPattern, roughWords } from './figures.ts';
import {
  lentTo,
  matchesIn,
  ofWhatIsThere,
  ofWhatLeaves,
  piecesOf,
  sameAsComes,
  type Match,
  type Piece,
} from './matches.ts';
import { withModel, withSupplies, type KnownSupply } from './known-supply.ts';
import { plainOf } from './plain.ts';
import { placeOf, readPiece } from './reader.ts';
import { namedOnce } from './same-as.ts';
import { keptIn, newOneIn, saysNot, withOwnFigures, withWatts } from './turns.ts';
import { headingOf, saysOut, spanOf, waysOf, withSign, type ClauseText, type Stretch, type Way } from './ways.ts';
import type { Said, SaidPart, Span, Understood } from './said.ts';

/** A part of the shop's own, by its name. */
export interface OwnName {
  readonly id: string;
  readonly name: string;
  readonly classId: string;
}

/** Nobody types more than this into one line; what stands behind it is unknown. */
export const mostLetters = 1000;

/** Words that hold a sentence together, or say of a machine what everybody knows. */
const smallWords = [
  "(?:it|that|there)['’]s its it which there an? the with and then also of in on at is are has have had having got",
  'from each plus another',
  'inlets? connectors? extra additional new more further (?:bigg|larg|strong|bett|fast)er',
  'pc computer machine rig build system gaming fitted installed inside total included? including stock unit',
  'maybe perhaps possibly probably yes hi please thanks',
].flatMap((words) => words.split(' '));
/** Before the small words, since one of those begins it. */
const inTheCase = 'in (?:the|its) (?:case|chassis|machine)';
const labels = '(?:storage|cooling|case|chassis|specs?)(?=\\s*[:=])';
const fillers = new RegExp(`(?<!\\w)(?:${[inTheCase, ...smallWords, roughWords, labels].join('|')})(?!\\w)|[&·~]`, 'i');

/** What stands for the noun of the other side. */
const standsForNoun = /(?<!\w)ones?(?!\w)/i;

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

/** `..., it is 7 years old`: of what was spoken of last. */
const ofIt = /^\s*(?:(?:and|but)\s+)?(?:it|this|that|which)(?:['’]s|\s+(?:is|was))(?!\w)/i;

const isSupply = (one: Said | undefined): boolean =>
  one?.kind === 'supply' || (one?.kind === 'ask' && one.ask === 'supply-watts');

/**
 * Years that a clause says behind a supply, or of it, are the supply's, whose watts need not be said then.
 * @param spokenOf what stands before the clause, where that goes on about it
 */
function withAges(said: readonly Said[], spokenOf: Said | undefined): Said[] {
  const ages = said.map((one, index) => one.kind === 'age' && isSupply(index === 0 ? spokenOf : said[index - 1]));
  return said.flatMap((one, index): Said[] => {
    if (one.kind === 'age' && ages[index] === true) return [{ ...one, of: 'supply' }];
    return one.kind === 'ask' && ages[index + 1] === true ? [] : [one];
  });
}

/** `3 year old card`: years right before a part that is neither the machine nor its board are of that part alone. */
function isOfPart(one: Said, next: Said | undefined): boolean {
  return (
    one.kind === 'age' && next?.kind === 'part' && next.from - one.to <= 1 && partClass(next.classId)?.group !== 'board'
  );
}

/** Something is to leave for what has no name: nobody knows what is meant, and the machine has it still. */
function namesOnlyWhatLeaves(text: string, ways: readonly Stretch[], own: readonly OwnName[]): boolean {
  const [gone, come] = (['replaced', 'added'] as const).map((way) => ways.find((one) => one.way === way));
  if (gone === undefined || come === undefined || text.slice(gone.from, gone.to).trim() === '') return false;
  const what = text.slice(come.from, come.to);
  // The supply that comes is chosen elsewhere.
  if (what.trim() === '' && matchesIn(text.slice(gone.from, gone.to)).at(-1)?.noun.id === 'supply') return false;
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

/** As they say themselves, else as the heading does that they stand under. */
const waysUnder = (heading: Way, ways: readonly Stretch[], text: string): Stretch[] =>
  withOwnFigures(text, ways).map((one) =>
    one.way === 'stays' && one.signed === null ? { ...one, way: heading } : one,
  );

const wordsIn = ({ from, text }: ClauseText): Span[] => new Clause(text, from).unknown();

/** What is kept is there already: nothing is made of it, and only words that nobody knows are told. */
function besideNouns({ from, text }: ClauseText): Span[] {
  const rest = new Clause(text, from);
  for (const { index, end } of matchesIn(text)) rest.takeAt(index, end - index, false);
  for (const pattern of [fillers, ofWhatIsThere, ofWhatLeaves]) rest.takeAll(pattern, false);
  return rest.unknown();
}

const ownLabel = /^\s*[a-z][a-z ]{1,20}[:=]/i;

/** A line while its clauses are read one after the other. */
class Line {
  readonly said: Said[] = [];
  readonly unknown: Span[] = [];
  private readonly own: readonly OwnName[];
  private readonly inComes: boolean;
  private underHeading: Way = 'stays';
  /** Something stood behind the heading on its own line. */
  private headingSaid = false;
  /** What left last. */
  private gone: readonly Match[] = [];

  constructor(own: readonly OwnName[], inComes: boolean) {
    this.own = own;
    this.inComes = inComes;
  }

  /** Reads a clause behind those before it. */
  take(whole: ClauseText, onNewLine: boolean): void {
    // A line with a label of its own stands under no heading that said something itself.
    if (onNewLine && this.headingSaid && ownLabel.test(whole.text)) this.underHeading = 'stays';
    const kept = keptIn(whole.text);
    const clause = kept === null ? whole : { from: whole.from + kept.from, text: whole.text.slice(kept.from, kept.to) };
    if (saysNot.test(whole.text)) this.unknown.push(...wordsIn(whole));
    else if (kept !== null && !/\d/.test(clause.text)) {
      this.said.push({ ...spanOf(whole.text, whole.from), kind: 'aside', why: 'kept' });
      this.unknown.push(...besideNouns(clause));
    } else {
      const before = this.said.length;
      this.read(clause);
      const told = this.said.splice(before).sort((a, b) => a.from - b.from);
      const ofParts = told.filter((one, index) => isOfPart(one, told[index + 1]));
      this.unknown.push(...ofParts.map(({ from, to }) => ({ from, to })));
      const spokenOf = ofIt.test(whole.text) ? this.said.at(-1) : undefined;
      this.said.push(
        ...withAges(
          told.filter((one) => !ofParts.includes(one)),
          spokenOf,
        ),
      );
    }
  }

  private read(clause: ClauseText): void {
    const newOne = newOneIn(clause.text, this.gone);
    const heading = newOne === null ? headingOf(clause.text) : null;
    if (heading !== null) {
      this.underHeading = heading.way;
      this.headingSaid = clause.text.slice(heading.length).trim() !== '';
    }
    const ways =
      newOne === null ? waysUnder(this.underHeading, waysOf(clause.text, this.inComes), clause.text) : [newOne.stretch];
    const leaving = ways.filter(({ way }) => way === 'removed' || way === 'replaced').at(-1);
    if (leaving !== undefined) this.gone = matchesIn(clause.text.slice(leaving.from, leaving.to));
    if (namesOnlyWhatLeaves(clause.text, ways, this.own)) {
      this.said.push({ ...spanOf(clause.text, clause.from), kind: 'ask', ask: 'instead' });
      return;
    }
    const before = this.said.length + this.unknown.length;
    for (const stretch of ways) {
      const lent = newOne?.match ?? lentFromOther(clause.text, ways, stretch);
      this.readStretch(clause, stretch, withWatts(clause.text, stretch, ways), lent);
    }
    // `wants to add` with nothing behind it.
    if (
      heading === null &&
      this.said.length + this.unknown.length === before &&
      ways.some(({ signed }) => signed !== null)
    )
      this.unknown.push(...wordsIn(clause));
  }

  /** @param text what the stretch says; @param lent what it is about where it has no noun of its own */
  private readStretch(clause: ClauseText, stretch: Stretch, text: string, lent: Match | null): void {
    const { way } = stretch;
    const start = clause.from + stretch.from;
    const ownPart = ownIn(text, start, way, this.own);
    if (ownPart !== null) {
      const all = way === 'upgraded' ? [...placeOf(ownPart), ownPart] : [ownPart];
      this.said.push(...all.map((one) => (one.kind === 'leaving' ? withSign(one, clause, stretch, true) : one)));
      return;
    }
    for (const [index, piece] of piecesOf(text).entries()) {
      const { said, unknown } = readPieceOf(text, piece, start, way, lent);
      this.said.push(...said.map((one) => withSign(one, clause, stretch, index === 0)));
      this.unknown.push(...unknown);
    }
  }
}

const absentIn = (denied: Piece['denied'], start: number): Said[] =>
  denied === null ? [] : [{ from: start + denied.from, to: start + denied.to, kind: 'aside', why: 'absent' }];

/** What a piece of a text says, and the words of it that nothing was made of. */
function readPieceOf(
  text: string,
  { match: named, denied, from, to }: Piece,
  start: number,
  way: Way,
  lent: Match | null,
) {
  const match = named ?? (denied === null ? lent : null);
  const whole = () => {
    const fresh = new Clause(text.slice(from, to), start + from);
    // What is said not to be there is understood, and nothing is made of it.
    if (denied !== null) fresh.takeAt(denied.from - from, denied.to - denied.from, false);
    if (named === null && match !== null) fresh.takeAll(standsForNoun, false);
    return fresh;
  };
  const { said, rest } =
    match === null ? { said: absentIn(denied, start), rest: whole() } : readPiece(whole, match, from, way);
  if (match !== null) rest.takeAll(detailPattern, false);
  rest.takeAll(fillers, false);
  if (match !== null) rest.takeAll(ofWhatIsThere, false);
  if (match !== null && (way === 'removed' || way === 'replaced')) rest.takeAll(ofWhatLeaves, false);
  return { said, unknown: rest.unknown() };
}

/**
 * A machine as people say it: `tower, 8-core 125 W, 2x16 new memory, card 3x8 320 W, 2 m.2, 4 hard drives`. The order
 * is free. What an upgrade brings begins with `+`, what it takes out with `-`, and `drive -> 2 drives` does both.
 * Nothing is understood that has no word in the line, and every word that nothing was made of is told; see
 * `docs/machine-line.md` for the grammar. Never throws.
 * @param own parts of the shop's own, by their names
 * @param supplies those that the shop knows, by their names
 */
export function understand(
  line: string,
  own: readonly OwnName[] = [],
  supplies: readonly KnownSupply[] = [],
): Understood {
  const { read: words, named } = withSupplies(line.slice(0, mostLetters), supplies);
  const read = namedOnce(plainOf(words));
  const all = new Line(own, saysOut(read));
  for (const clause of clausesOf(read)) all.take(clause, read[clause.from - 1] === '\n');
  const beyond = line.length > mostLetters ? [{ from: mostLetters, to: line.length }] : [];
  return {
    said: all.said.map((one) => withModel(one, named)).sort((a, b) => a.from - b.from),
    unknown: [...all.unknown, ...beyond].sort((a, b) => a.from - b.from),
  };
}
