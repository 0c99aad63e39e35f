import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { schoolRatings } from '../load/index.ts';
import {
  allowedBySchool,
  beats,
  candidateRow,
  compareRanked,
  criteria,
  nothingFits,
  rankSupplies,
  startRanking,
  type Mark,
} from './index.ts';
import { asking, part, supplies, tower, weights } from './machines.test-help.ts';

const game = [part('board', 'b'), part('processor-65', 'p'), part('card-88', 'c'), part('drive-flat', 'd')];

describe('ranking', () => {
  const ranked = rankSupplies(supplies, asking(game), weights, 'EUR');
  it('puts what fits first, then what almost does, then the rest with a reason each', () => {
    expect(ranked[0]!.fits).toBe(true);
    expect(ranked.map((candidate) => ({ fits: 0, almost: 1, falls: 2 })[candidate.class])).toEqual(
      [...ranked].map((candidate) => ({ fits: 0, almost: 1, falls: 2 })[candidate.class]).sort(),
    );
    for (const candidate of ranked) expect(candidate.reasons.length > 0).toBe(!candidate.fits);
    for (const candidate of ranked) expect(candidate.remedies.length > 0).toBe(candidate.class === 'almost');
  });
  it('is a total order that does not depend on the order of the shelf', () => {
    for (let i = 0; i < ranked.length; i += 1)
      for (let j = i + 1; j < ranked.length; j += 1) expect(compareRanked(ranked[i]!, ranked[j]!)).toBeLessThan(0);
    expect(
      rankSupplies([...supplies].reverse(), asking(game), weights, 'EUR').map((candidate) => candidate.model.id),
    ).toEqual(ranked.map((candidate) => candidate.model.id));
  });
  it('is the same in whatever portions it is judged, and not to be had before all are', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 12 }), { minLength: 1, maxLength: 60 }), (portions) => {
        const ranking = startRanking(supplies, asking(game), weights, 'EUR');
        for (const portion of portions) {
          if (ranking.share() < 1) expect(() => ranking.ranked()).toThrow(RangeError);
          ranking.judge(portion);
        }
        ranking.judge(supplies.length);
        expect(ranking.share()).toBe(1);
        expect(ranking.ranked()).toEqual(ranked);
      }),
      { numRuns: 6 },
    );
    const none = startRanking([], asking(game), weights, 'EUR');
    expect([none.share(), none.ranked()]).toEqual([1, []]);
  });
  it('knows what another school would allow without judging anew', () => {
    const light = [part('board', 'b'), part('processor-65', 'p'), part('card-8', 'c')];
    for (const school of ['like-for-like', 'fixed-margin', 'half-load', 'card-advice', 'peaks-covered'] as const) {
      const judged = rankSupplies(supplies, asking(light, tower, { school, cardAdviceWatts: 600 }), weights, 'EUR');
      for (const candidate of rankSupplies(supplies, asking(light, tower, { cardAdviceWatts: 600 }), weights, 'EUR')) {
        const asks = schoolRatings(asking(light).demand, 450, candidate.model.label.guide, 600).find(
          (rating) => rating.school === school,
        )!;
        expect(allowedBySchool(candidate, asks), `${school} ${candidate.model.id}`).toBe(
          judged.find((other) => other.model.id === candidate.model.id)!.fits,
        );
      }
    }
  });
  it('gives 100 points to what is best in everything, and follows the weights', () => {
    for (const candidate of ranked) {
      expect(candidate.points).toBeGreaterThanOrEqual(0);
      expect(candidate.points).toBeLessThanOrEqual(100 + 1e-9);
    }
    const alone = (criterion: string) =>
      rankSupplies(
        supplies,
        asking(game),
        { price: 0, headroom: 0, running: 0, noise: 0, warranty: 0, shelf: 0, [criterion]: 1 },
        'EUR',
      ).filter((candidate) => candidate.fits);
    const cheapest = Math.min(...alone('price').map((candidate) => candidate.model.price.minor));
    expect(alone('price')[0]!.model.price.minor).toBe(cheapest);
    expect(alone('shelf')[0]!.model.onShelf).toBeGreaterThan(0);
    expect(alone('running')[0]!.cost.minorAYear).toBe(
      Math.min(...alone('running').map((candidate) => candidate.cost.minorAYear)),
    );
  });
  it('marks as beaten exactly what another beats in every respect', () => {
    const fitting = ranked.filter((candidate) => candidate.fits);
    for (const candidate of fitting) {
      const bruteForce = fitting.filter((other) => other !== candidate && beats(other.marks, candidate.marks));
      expect(candidate.beatenBy !== null, candidate.model.id).toBe(bruteForce.length > 0);
      if (candidate.beatenBy !== null) expect(bruteForce.map((other) => other.model.id)).toContain(candidate.beatenBy);
    }
  });
  it('beating is a strict order', () => {
    const mark = fc
      .array(fc.option(fc.integer({ min: 0, max: 3 })), { minLength: 6, maxLength: 6 })
      .map((figures): Mark[] =>
        figures.map((figure, index) => ({ criterion: criteria[index]!, figure, good: 0, points: 0 })),
      );
    fc.assert(
      fc.property(mark, mark, mark, (a, b, c) => {
        expect(beats(a, a)).toBe(false);
        if (beats(a, b)) expect(beats(b, a)).toBe(false);
        if (beats(a, b) && beats(b, c)) expect(beats(a, c)).toBe(true);
      }),
      { numRuns: 500 },
    );
  });
  it('does not compare prices of different currencies', () => {
    const mixed = supplies.map((model, index) =>
      index % 2 === 0 ? { ...model, price: { ...model.price, currency: 'NOK' } } : model,
    );
    for (const candidate of rankSupplies(mixed, asking(game), weights, 'EUR'))
      expect(candidate.marks.find((mark) => mark.criterion === 'price')!.figure === null).toBe(
        candidate.model.price.currency === 'NOK',
      );
  });
  it('names the smallest cut to the card where nothing fits', () => {
    const few = supplies.filter((model) => ['corvane-550-s', 'corvane-550-b'].includes(model.id));
    const heavy = asking([
      part('board', 'b'),
      part('processor-105', 'p'),
      part('card-88', 'c', { figures: { likelyWatts: 330, highWatts: 400, shortWatts: 350 } }),
    ]);
    const miss = nothingFits(rankSupplies(few, heavy, weights, 'EUR').map(candidateRow))!;
    expect(miss.smallerCard).not.toBeNull();
    expect(nothingFits(rankSupplies(supplies, asking(game), weights, 'EUR').map(candidateRow))).toBeNull();
  });
  it('ships at least 24 models over four shapes from 300 to 1200 W, single and multi rail', () => {
    expect(supplies.length).toBeGreaterThanOrEqual(24);
    expect(new Set(supplies.map((item) => item.label.shape))).toEqual(new Set(['ATX', 'SFX', 'SFX-L', 'TFX']));
    expect([
      Math.min(...supplies.map((item) => item.label.ratingWatts)),
      Math.max(...supplies.map((item) => item.label.ratingWatts)),
    ]).toEqual([300, 1200]);
    expect(supplies.some((item) => item.label.rails.filter((rail) => rail.rail === '+12').length > 1)).toBe(true);
  });
});
