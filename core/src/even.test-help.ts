import fc from 'fast-check';

const steps = 1_000_000;

/**
 * Any figure from `least` to `most`, each as likely as the next, and the two ends. A double drawn by its bits is nearly
 * always next to nothing where the range holds nought: what two such figures come to tests little.
 */
export const anyFrom = (least: number, most: number): fc.Arbitrary<number> =>
  fc.oneof(
    { weight: 9, arbitrary: fc.integer({ min: 0, max: steps }).map((at) => least + ((most - least) * at) / steps) },
    { weight: 1, arbitrary: fc.constantFrom(least, most) },
  );
