import { LRUCache } from 'lru-cache';
import { candidatesOf, questionOf, type CandidateRow, type Job, type Shop } from '@fairwatt/core';

/** Rankings by the shelf they are of, and there by the question. */
const rankings = new WeakMap<Shop['supplies'], LRUCache<string, readonly CandidateRow[]>>();
const mostKept = 30;

/**
 * What a station says of candidates needs none of the findings that do not decide: they would be most of what is kept.
 */
const thin = (row: CandidateRow): CandidateRow => ({
  ...row,
  marks: [],
  load: { ...row.load, findings: [], spread: null },
});

/**
 * The shop's supplies ranked for a job, for what its stations say: taken from before where neither the machine nor what
 * is asked of a supply has changed since, nor the shelf.
 */
export function rankedFor(job: Job, shop: Shop): readonly CandidateRow[] {
  const question = questionOf(job, shop);
  if (question === null) return [];
  const { draws: _follow, ...asked } = question;
  const { weights } = shop.settings.choosing;
  const key = JSON.stringify([{ ...asked, spares: [...asked.spares] }, weights, shop.settings.currency]);
  const ofShelf = rankings.get(shop.supplies) ?? new LRUCache<string, readonly CandidateRow[]>({ max: mostKept });
  rankings.set(shop.supplies, ofShelf);
  const ranked = ofShelf.get(key) ?? candidatesOf(job, shop).map(thin);
  ofShelf.set(key, ranked);
  return ranked;
}
