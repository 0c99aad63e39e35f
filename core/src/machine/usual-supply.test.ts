import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { emptyLabel, labelProblems, nominalVolts, twelveVoltWatts } from './supply-label.ts';
import { hasUsualOutputs, shapesOfLayout, shapesWithSupply, usualOutputs, withRating } from './usual-supply.ts';

const rating = fc.integer({ min: 1, max: 5000 });

describe('what a supply of a rating usually has', () => {
  it.each([
    [250, 14, 12],
    [300, 18, 14],
    [450, 30, 15],
    [550, 40, 20],
    [850, 67, 20],
  ])('%d W: %d A on +12, %d A on +5', (ratingWatts, twelve, five) => {
    const { rails } = usualOutputs(ratingWatts);
    expect(rails.map(({ label, amps }) => [label, amps]).slice(0, 2)).toEqual([
      ['12V', twelve],
      ['5V', five],
    ]);
  });
  it('is never nothing, never more than the rating on an output, and more for a larger rating', () => {
    fc.assert(
      fc.property(rating, rating, (a, b) => {
        const label = { ratingWatts: a, ...usualOutputs(a) };
        for (const { rail, amps, usual } of label.rails) {
          expect(amps).toBeGreaterThan(0);
          expect(usual).toBe(true);
          if (a >= 12 && rail !== '+5sb') expect(amps * nominalVolts[rail]).toBeLessThanOrEqual(a);
        }
        expect(twelveVoltWatts(label)).toBeLessThanOrEqual(a);
        if (a <= b)
          expect(twelveVoltWatts({ ratingWatts: b, ...usualOutputs(b) })).toBeGreaterThanOrEqual(
            twelveVoltWatts(label),
          );
      }),
      { seed: 5 },
    );
  });
  it('adds up to its rating where supplies of these kinds are sold, and says that nobody read it', () => {
    for (let watts = 150; watts <= 1600; watts += 10)
      expect(labelProblems({ ratingWatts: watts, ...usualOutputs(watts) })).toEqual([
        { code: 'usual-outputs', ratingWatts: watts },
      ]);
  });
  it('follows the rating until somebody enters an output', () => {
    const usual = withRating({ ...emptyLabel, ratingWatts: 0 }, 450);
    expect(hasUsualOutputs(usual)).toBe(true);
    expect(withRating(usual, 650).rails[0]?.amps).toBe(51);
    const [twelve, ...others] = usual.rails;
    const read = { ...usual, rails: [{ ...twelve!, amps: 33, usual: undefined }, ...others] };
    expect(withRating(read, 650).rails).toBe(read.rails);
  });
});

describe('the shapes that a bay takes', () => {
  it('follow the case where nobody said otherwise', () => {
    expect(shapesOfLayout({ layout: 'tower', shapes: ['ATX'] }, 'slim', null)).toEqual(['TFX']);
    expect(shapesOfLayout({ layout: 'tower', shapes: ['ATX'] }, 'slim', 'Flex')).toEqual(['Flex']);
    expect(shapesOfLayout({ layout: 'tower', shapes: ['ATX', 'SFX'] }, 'slim', null)).toEqual(['ATX', 'SFX']);
    expect(shapesOfLayout({ layout: 'small', shapes: ['ATX'] }, 'tower', null)).toEqual(['ATX']);
  });
  it('hold the one that came in it', () => {
    expect(shapesWithSupply({ layout: 'slim', shapes: ['TFX'] }, 'Flex')).toEqual(['Flex']);
    expect(shapesWithSupply({ layout: 'small', shapes: ['ATX', 'SFX'] }, 'TFX')).toEqual(['ATX', 'SFX', 'TFX']);
    expect(shapesWithSupply({ layout: 'small', shapes: ['ATX', 'SFX'] }, 'SFX')).toEqual(['ATX', 'SFX']);
  });
});
