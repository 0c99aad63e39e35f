import { describe, expect, it } from 'vitest';
import { candidateFacts } from './choice-facts.ts';
import { testPart, testShop, TestBench } from './fixture.test-help.ts';
import { candidatesOf } from './sizing.ts';

const classes = ['board', 'processor-125', 'memory-new', 'card-88', 'drive-flat'];

/** The shop's supplies for a machine with a large card, one of which has an output that gives nothing. */
function candidates() {
  const bench = new TestBench();
  for (const classId of classes) bench.do({ kind: 'put-part', part: testPart(classId, classId), basedOn: 0 });
  const [first, ...others] = testShop.supplies;
  const dead = {
    ...first!,
    id: 'dead',
    label: { ...first!.label, rails: first!.label.rails.map((rail) => ({ ...rail, amps: 0 })) },
  };
  return candidatesOf(bench.job, { ...testShop, supplies: [dead, ...others] });
}

const numbersIn = (value: unknown): number[] =>
  typeof value === 'number'
    ? [value]
    : typeof value === 'object' && value !== null
      ? Object.values(value).flatMap(numbersIn)
      : [];

describe('what is known of a candidate', () => {
  it('is what stands there of it, of every supply of the shop, those that fall among them', () => {
    const rows = candidates();
    expect(rows.length).toBe(testShop.supplies.length);
    expect(new Set(rows.map((row) => row.fits))).toEqual(new Set([true, false]));
    for (const row of rows) {
      const facts = candidateFacts(row, 'EUR');
      expect(facts).toMatchObject({
        of: 'candidate',
        class: row.class,
        ratingWatts: row.model.label.ratingWatts,
        shape: row.model.label.shape,
        price: row.model.price,
        onShelf: row.model.onShelf,
        loadShare: row.load.loadShare,
        cables: row.cables,
        openOptional: row.openOptional.length,
      });
      expect(Math.abs(facts.runningAYear.minor - row.cost.minorAYear)).toBeLessThanOrEqual(0.5);
      expect(facts.fullest?.figure).toBe(row.load.deciding?.figure);
    }
  });

  it('is plain data: what is kept of it is read back as it was, also where a supply gives nothing', () => {
    for (const row of candidates()) {
      const facts = candidateFacts(row, 'EUR');
      expect(JSON.parse(JSON.stringify(facts))).toEqual(facts);
      expect(numbersIn(facts).every(Number.isFinite)).toBe(true);
    }
  });
});
