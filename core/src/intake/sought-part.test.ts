import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { isSought, soughtPart } from './sought-part.ts';

const shown = (typed: string) => {
  const { words, quantity, change, named } = soughtPart(typed, [
    { id: 'own-1', name: 'Quay card 7', classId: 'card-16-450' },
  ]);
  return [words.join(' '), quantity, change, named?.own ?? named?.classId ?? null];
};

describe('a part that is looked for', () => {
  it.each([
    ['4x hard drive', ['hard drive', 4, 'stays', 'drive-35']],
    ['4 × HDD', ['hdd', 4, 'stays', 'drive-35']],
    ['hard drive x4', ['hard drive', 4, 'stays', 'drive-35']],
    ['+ nvme ssd', ['nvme ssd', 1, 'added', 'drive-card']],
    ['+2x fan', ['fan', 2, 'added', 'fan']],
    ['2x quay card 7', ['quay card 7', 2, 'stays', 'own-1']],
    ['fl', ['fl', 1, 'stays', null]],
    ['3x8 card', ['3x8 card', 1, 'stays', 'card-888']],
    ['0x fan', ['fan', null, 'stays', 'fan']],
    ['65x fan', ['fan', null, 'stays', 'fan']],
    ['hard drive, fan', ['hard drive, fan', 1, 'stays', null]],
    ['', ['', 1, 'stays', null]],
    ['4x', ['', 4, 'stays', null]],
  ])('%s', (typed, expected) => {
    expect(shown(typed)).toEqual(expected);
  });

  it('is found by all its words in any order, and nothing else is', () => {
    const names = ['Solid-state drive, flat', 'Solid-state drive, card type', '3.5" drive'];
    const found = (typed: string) => names.filter((name) => isSought(soughtPart(typed), name));
    expect(found('flat drive')).toEqual(['Solid-state drive, flat']);
    expect(found('DRIVE')).toEqual(names);
    expect(found('')).toEqual(names);
    expect(found('drive barge')).toEqual([]);
  });

  it('is read without throwing, whatever is typed; a count is whole and within bounds, or none', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary', maxLength: 80 }), (typed) => {
        const { quantity, words } = soughtPart(typed);
        expect(quantity === null || (Number.isInteger(quantity) && quantity >= 1 && quantity <= 64)).toBe(true);
        expect(words.every((word) => word.trim() !== '')).toBe(true);
      }),
    );
  });
});
