import type { Observation } from '../diagnose/index.ts';
import type { Job } from './job.ts';

/** Something dangerous that the client's words speak of and nobody has asked about yet. */
export interface DangerInWords {
  /** The check that asks, whose own outcome says whether it is so. */
  readonly checkId: 'told-smell' | 'told-shock' | 'look-wet';
  /** The first words that speak of it, in small letters: one at least, three at most. */
  readonly words: readonly string[];
}

/** Whole words of everyday by which people tell of it; what only looks like one is taken out first. */
const speaks: readonly { readonly checkId: DangerInWords['checkId']; readonly words: RegExp }[] = [
  {
    checkId: 'told-smell',
    words: new RegExp(
      '\\b(?:smok(?:e|ed|es|ing|y)|smell(?:s|ed|y|ing)?|smelt|st[aiu]nk(?:s|ing)?|reek(?:s|ed)?|odou?rs?|fumes?|' +
        'burn(?:s|t|ed|ing)?|scorch(?:ed|ing)?|singed|charred|melt(?:s|ed|ing)?|flames?|on fire|caught fire|' +
        'spark(?:s|ed|ing)?|bangs?|banged|popped|explo(?:ded|sion))\\b',
      'gi',
    ),
  },
  {
    checkId: 'told-shock',
    words: new RegExp(
      '\\b(?:(?:electric )?shocks?|shocked|tingl(?:e|es|ed|ing|y)|zap(?:s|ped|ping)?|electrocut\\w+|' +
        'trip(?:s|ped|ping)? (?:the |our |my |its )?(?:breaker|fuse|mains|electrics|rcd|earth)\\w*|' +
        'breakers?|(?:blows?|blew|blown) (?:the |a |our |my )?fuses?|fuse (?:blows?|blew|goes|went)|' +
        'earth[- ]leakage|rcd)\\b',
      'gi',
    ),
  },
  {
    checkId: 'look-wet',
    words: new RegExp(
      '\\b(?:spill(?:s|ed|ing)?|spilt|water|wet|soaked|flood(?:s|ed)?|coffee|tea|beer|wine|juice|lemonade|liquid|' +
        'leak(?:s|ed|ing|y)?|dripp(?:ed|ing)|rained)\\b',
      'gi',
    ),
  },
];

/** What has such a word in it and tells of nothing: discs that are burnt, coolers by water, memory that leaks. */
const harmless = new RegExp(
  '\\bburn(?:s|t|ed|ing)?(?: \\w+){0,2} (?:cds?|dvds?|discs?|disks?)\\b|\\b(?:cd|dvd|disc) burn(?:er|ing)\\b|' +
    '\\bburn-?in\\b|\\bwater[- ]?(?:cool\\w*|block|proof|mark)|\\bmemory leaks?\\b|' +
    '\\bshocked (?:to|at|by|when|how|that)\\b|\\bshock[- ]?(?:proof|mount\\w*)|' +
    '\\bsmoke detector|\\bpopped (?:up|out|open)|\\bnon-?smok\\w+',
  'gi',
);
/** A word that denies what follows within the same clause, a few words on. */
const denied = /\b(?:no|not|never|without|nor|neither|\w+n['’]t|cannot)\b(?:\s+[\w'’]+){0,4}\s*$/i;

const mostWords = 3;

/** The words of a kind that are not denied, each once. */
function wordsIn(text: string, words: RegExp): string[] {
  const said = [...text.matchAll(words)].filter(
    ({ index }) => !denied.test(/[^.,;:!?\n]*$/.exec(text.slice(0, index))?.[0] ?? ''),
  );
  return [...new Set(said.map(([word]) => word.toLowerCase()))].slice(0, mostWords);
}

/**
 * What the client's words tell of smoke, smell, sparks, shocks or liquid, where the check that asks for it was not
 * answered: words are no answer, and a machine that smelled burnt is not started to see. Some that mean nothing are
 * asked about as well; an answer ends it.
 */
export function dangersInWords(
  { sheet, state, finding }: Pick<Job, 'sheet' | 'state' | 'finding'>,
  observations: readonly Pick<Observation, 'checkId'>[],
): DangerInWords[] {
  if (sheet.bareSupply || state !== 'open' || finding !== null) return [];
  const text = sheet.words.replace(harmless, (words) => '#'.repeat(words.length));
  return speaks.flatMap(({ checkId, words }) => {
    const said = observations.some((one) => one.checkId === checkId) ? [] : wordsIn(text, words);
    return said.length === 0 ? [] : [{ checkId, words: said }];
  });
}
