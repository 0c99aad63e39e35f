import { ZxcvbnFactory } from '@zxcvbn-ts/core';
import { adjacencyGraphs, dictionary } from '@zxcvbn-ts/language-common';
import { isPin } from './access.ts';

/** What would find a secret: a list of what people choose, a person who tries for months, or nobody. */
export type SecretStrength = 'guessed' | 'holds' | 'holds-well';

/** So many letters are looked at; what is longer is not weaker for it, and a look at all 200 takes a fifth of a second. */
const mostLooked = 64;
/** A PIN that a list of common ones brings within so many tries; whoever guesses has ten, and a lost backup more. */
const fewTriesOfPin = 10_000;
/** Scores of the package: 3 is 10^8 guesses and more, 4 is 10^10. */
const scoreThatHolds = 3;
const scoreThatHoldsWell = 4;

let made: ZxcvbnFactory | null = null;
/** Read once: some 150 ms, for 40,000 secrets that leaked elsewhere and the ways in which they are varied. */
const guesser = (): ZxcvbnFactory => (made ??= new ZxcvbnFactory({ dictionary, graphs: adjacencyGraphs }));

/**
 * How long a chosen secret would last against somebody who knows what people choose. A PIN is as good as any other of
 * its length, unless it stands early in such a list or follows a pattern.
 * @param about names that whoever guesses would try, such as the person's and the shop's
 */
export function strengthOf(secret: string, about: readonly string[]): SecretStrength {
  const words = about.flatMap((name) => [name, name.replace(/\s+/g, ''), ...name.split(/\s+/)]);
  const { score, guesses, sequence } = guesser().check(secret.slice(0, mostLooked), words);
  if (isPin(secret)) {
    const [first] = sequence;
    const known = first?.token === secret && ['dictionary', 'repeat', 'sequence', 'spatial'].includes(first.pattern);
    return known && guesses < fewTriesOfPin ? 'guessed' : 'holds';
  }
  if (score < scoreThatHolds) return 'guessed';
  return score < scoreThatHoldsWell ? 'holds' : 'holds-well';
}
