import { grades } from '../standards/index.ts';
import { Clause } from './clause.ts';
import { mostWattsOfOthers, mostWattsOfProcessor, roughWords, wattsPattern } from './figures.ts';
import { groupOf, matchesIn, piecesOf, type Match } from './matches.ts';
import { counts, modularWords, shapeWords } from './nouns.ts';
import { cardPlugs } from './plugs.ts';
import { isSameAlone } from './same-as.ts';
import { doesNext, forAnother, type ClauseText } from './ways.ts';

/** Words that only go with figures, such as `two 8-pin plugs`. */
const figureWords = new RegExp(
  '(?<!\\w)(?:two|three|and|plus|slots?|only|processor|cpu|main|t[dg]p|each|at|max|up to|rated|draws?|power|' +
    `needs?|has|with|connectors?|inlets?|pcie|pci-e|${roughWords})(?!\\w)|~|pins?|plugs?|w(?:atts?)?`,
  'gi',
);
const figuresAlone = (text: string): boolean =>
  /\d/.test(text) && /^[\s\d.x×+-]*$/i.test(text.replace(figureWords, ''));

/** Commas that are no decimal ones, semicolons, line ends, a stroke between blanks, and what is done next. */
const ends = new RegExp(`,(?!\\d)|(?<!\\d),|[;\\n\\r]|(?<=\\s)[/|•](?=\\s)|${doesNext.source}`, 'gi');

/** What a card can draw through such plugs and its slot (75 W the slot and 6 pins, 150 W 8 pins, 600 W 16 pins). */
const throughPlugs: Readonly<Record<string, number>> = {
  'card-slot': 75,
  'card-6': 150,
  'card-8': 225,
  'card-66': 225,
  'card-86': 300,
  'card-88': 375,
  'card-888': 525,
  'card-16': 675,
};
/** Some cards draw a quarter more than their plugs are made for; a figure beyond that is something else's. */
const beyondPlugs = 1.25;

/** Can watts that stand by themselves be those of the thing before them? A supply's figure often ends a line. */
function canDraw(watts: number, { match, from, to }: ReturnType<typeof piecesOf>[number], text: string): boolean {
  const piece = text.slice(from, to);
  if (match === null || match.noun.id === 'supply') return true;
  if (wattsPattern.test(piece)) return false;
  if (match.noun.id === 'processor') return watts <= mostWattsOfProcessor;
  if (match.noun.id !== 'card') return watts <= mostWattsOfOthers;
  const most = throughPlugs[cardPlugs(new Clause(piece, 0)) ?? ''];
  return most === undefined || watts <= most * beyondPlugs;
}

/** `2 sticks` behind memory whose number was not said. */
const modulesAlone = new RegExp(`^\\s*(?:${counts})\\s+(?:sticks?|modules?|dimms?)\\s*$`, 'i');
const countsModules = (match: Match | undefined): boolean =>
  match?.noun.id !== 'memory' || ['count', 'modules', 'sticks'].some((name) => groupOf(match, name) !== undefined);

const detailsOfSupply = new RegExp(
  `^\\s*(?:(?:${shapeWords}|${grades.join('|')}|efficiency|grade|${modularWords}|fixed(?: cables?)?)(?:\\s+|$))+$`,
  'i',
);
/** `supply: 650 W, gold, 4 years`: what stands behind the colon is of the supply, its years among it. */
const supplyIsTold = /(?<!\w)(?:suppl(?:y|ies)|psus?)(?: units?)?(?:\s*[:=]|\s+is\s)/i;
const yearsAlone = new RegExp(`^\\s*(?:(?:${roughWords}|~)\\s*)?\\w+[ -]?(?:years?|yrs?|y)(?:[ -]old)?\\s*$`, 'i');
/** `..., replaces the old one`: of what comes, what it is for. */
const replacesAnother = new RegExp(`^\\s*(?:${forAnother})(?!\\w)(?!.*(?<!\\w)(?:with|by)(?!\\w))`, 'i');

/** Does a clause go on with what stands before it, as `card 2x8, 250 W`, `a second card, same as the first`? */
function goesOn(before: string, clause: string, comma: boolean): boolean {
  const isMore = figuresAlone(clause) || isSameAlone(clause) || modulesAlone.test(clause);
  if (!isMore && !(comma && [replacesAnother, detailsOfSupply, yearsAlone].some((one) => one.test(clause))))
    return false;
  const last = piecesOf(before).at(-1);
  if (last === undefined || last.match === null) return false;
  if (comma && replacesAnother.test(clause)) return true;
  if (comma && last.match.noun.id === 'supply' && detailsOfSupply.test(clause)) return true;
  if (comma && ['supply', 'age'].includes(last.match.noun.id) && yearsAlone.test(clause))
    return supplyIsTold.test(before);
  if (modulesAlone.test(clause)) return comma && !countsModules(last.match);
  if (matchesIn(clause).length > 0) return false;
  if (isSameAlone(clause)) return true;
  const watts = wattsPattern.exec(clause)?.[1];
  return figuresAlone(clause) && (watts === undefined || canDraw(Number(watts.replace(',', '.')), last, before));
}

/** The clauses of a line, each with what goes on with it. */
export function clausesOf(line: string): ClauseText[] {
  const clauses: ClauseText[] = [];
  let from = 0;
  for (const found of line.matchAll(ends)) {
    clauses.push({ from, text: line.slice(from, found.index) });
    from = found.index + found[0].length;
  }
  return [...clauses, { from, text: line.slice(from) }].reduce<ClauseText[]>((joined, clause) => {
    const before = joined.at(-1);
    if (before === undefined || !goesOn(before.text, clause.text, line[clause.from - 1] === ','))
      return [...joined, clause];
    const to = clause.from + clause.text.length;
    return [...joined.slice(0, -1), { from: before.from, text: line.slice(before.from, to) }];
  }, []);
}
