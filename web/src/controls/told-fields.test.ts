import { describe, expect, it } from 'vitest';
import { stepsOf, toldAtFields, valueAt } from './told-fields.ts';

const fields = [
  ['label', 'ratingWatts'],
  ['plugs', 0, 'ends'],
  ['plugs', 1, 'ends'],
  ['plugs', 10, 'ends'],
] as const;

describe('what is wrong', () => {
  it('is told at the nearest field that holds it, each thing once', () => {
    const told = toldAtFields(
      [
        { path: ['plugs', 0, 'ends', 1], message: 'is no pin' },
        { path: ['plugs', 0, 'ends', 2], message: 'is no pin' },
        { path: ['label', 'ratingWatts'], message: 'must be a figure' },
      ],
      fields,
    );
    expect(told).toEqual({
      fields: [
        { name: ['plugs', 0, 'ends'], errors: ['Is no pin'] },
        { name: ['label', 'ratingWatts'], errors: ['Must be a figure'] },
      ],
      rest: [],
    });
  });

  it('is not told at a field whose path only begins alike, nor at what the field is part of', () => {
    expect(toldAtFields([{ path: ['plugs', 10, 'ends'], message: 'x' }], fields).fields[0]?.name[1]).toBe(10);
    expect(toldAtFields([{ path: ['plugs', 1], message: 'is missing' }], fields)).toEqual({
      fields: [],
      rest: ['plugs.1: is missing'],
    });
  });

  it('is told as it is where it belongs to nothing', () => {
    expect(toldAtFields([{ path: [], message: 'two of a name' }], fields).rest).toEqual(['Two of a name']);
  });
});

describe('paths', () => {
  it('are read as problem documents write them', () => {
    expect(stepsOf('plugs.10.ends')).toEqual(['plugs', 10, 'ends']);
    expect(stepsOf('')).toEqual([]);
  });

  it('find what stands there', () => {
    const draft = { plugs: [{ ends: '1 2' }] };
    expect(valueAt(draft, ['plugs', 0, 'ends'])).toBe('1 2');
    expect(valueAt(draft, ['plugs', 1, 'ends'])).toBeUndefined();
    expect(valueAt(draft, ['name', 'first'])).toBeUndefined();
  });
});
