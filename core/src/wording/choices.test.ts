import { describe, expect, it } from 'vitest';
import type { CandidateFacts } from '../job/index.ts';
import { choiceLines, choiceReason, factsReason } from './choices.ts';

const facts: CandidateFacts = {
  of: 'candidate',
  class: 'fits',
  ratingWatts: 650,
  shape: 'ATX',
  guide: '3.x',
  grade: 'gold',
  price: { minor: 8990, currency: 'EUR', asOf: '2026-11-20' },
  onShelf: 2,
  runningAYear: { minor: 3120, currency: 'EUR' },
  loadShare: 0.56,
  cables: 5,
  openOptional: 0,
  fullest: { code: 'rail', subject: '+12', moment: 'lasting', unit: 'A', figure: 28, limit: 54, word: 'covered' },
};

describe('what was known at a choice', () => {
  it('is told line by line', () => {
    expect(choiceLines({ facts, known: [] })).toEqual([
      '650 W ATX, guide 3.x, grade gold',
      'lasting load 56% of the rating',
      '€89.90 on 20 Nov 2026, 2 on the shelf',
      'runs for €31.20 a year',
      '5 cables, every inlet served',
      'fullest: +12 V 28.0 A of 54.0 A',
    ]);
  });
  it('says nothing of what nobody knew, and counts one as one', () => {
    const little = { ...facts, loadShare: null, fullest: null, cables: 1, openOptional: 1, onShelf: 0 };
    const priced = { ...little, price: { ...facts.price, asOf: null } };
    expect(choiceLines({ facts: priced, known: [] }).slice(1)).toEqual([
      '€89.90, to order',
      'runs for €31.20 a year',
      'one cable, one optional inlet open',
    ]);
  });
  it('never claims that what does not fit serves every inlet', () => {
    const falling = { ...facts, class: 'falls' } as const;
    expect(choiceLines({ facts: falling, known: [] })[4]).toBe('5 cables, though it does not fit');
    expect(factsReason({ ...facts, class: 'almost' })).toBe(
      'On the shelf, lasting load 56% of its rating, though not everything fitted yet.',
    );
    expect(factsReason(falling)).toBe('On the shelf, lasting load 56% of its rating, though it does not fit.');
  });
  it('is as it was written down where no figures were kept', () => {
    expect(choiceLines({ known: ['650 W, on the shelf'] })).toEqual(['650 W, on the shelf']);
    expect(choiceLines({ facts: { of: 'present', measuredWell: true }, known: [] })).toEqual([]);
  });
});

describe('why a supply was chosen', () => {
  it('is what somebody wrote, else what speaks for it', () => {
    expect(choiceReason({ reason: 'She wants it quiet', facts })).toBe('She wants it quiet');
    expect(choiceReason({ reason: '', facts })).toBe(
      'On the shelf, lasting load 56% of its rating, every needed inlet served.',
    );
    expect(choiceReason({ reason: '', facts: { ...facts, onShelf: 0, loadShare: null } })).toBe(
      'To order, every needed inlet served.',
    );
    expect(choiceReason({ reason: '' })).toBe('');
  });
  it('is said of what is kept by what was read of it', () => {
    const kept = (measuredWell: boolean) => choiceReason({ reason: '', facts: { of: 'present', measuredWell } });
    expect([kept(true), kept(false)]).toEqual(['It carries the plan and measures well.', 'It carries the plan.']);
  });
});
