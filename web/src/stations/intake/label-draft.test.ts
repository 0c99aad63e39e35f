import { describe, expect, it } from 'vitest';
import type { LabelRead, PresentSupply, ReadFigure } from '@fairwatt/core';
import { draftOf, isOpen, looked, openCount, supplyOf, typed, yearsOf } from './label-draft.ts';

const figure = (value: number, ...doubts: ReadFigure['doubts']): ReadFigure => ({
  value,
  box: { left: 0, top: 0, right: 10, bottom: 10 },
  doubts,
});
const box = { left: 0, top: 0, right: 10, bottom: 10 };
const read: LabelRead = {
  name: 'Ostrel V450',
  rating: figure(450),
  outputs: [
    { label: '12V', rail: '+12', box, amps: figure(36, 'unsure') },
    { label: '5V', rail: '+5', box, amps: null },
  ],
  limits: [{ labels: ['12V', '5V'], watts: figure(440) }],
  shape: null,
  guide: '3.x',
  grade: null,
  mains: null,
  date: '2021-11',
  has16Pin: false,
  problems: [],
};
const before: PresentSupply = {
  name: 'Old one',
  version: 3,
  label: {
    ratingWatts: 300,
    rails: [],
    combined: [],
    shape: 'TFX',
    guide: '2.x',
    grade: 'silver',
    modular: 'semi',
    has16Pin: true,
  },
};

describe('what was read of a label', () => {
  it('waits for a look at what is doubtful and at what was not found', () => {
    const draft = draftOf(read);
    expect(openCount(draft)).toBe(2);
    const [twelve, five] = draft.outputs;
    const settled = {
      ...draft,
      outputs: [
        { ...twelve!, amps: looked(twelve!.amps) },
        { ...five!, amps: typed(five!.amps, 20) },
      ],
    };
    expect(openCount(settled)).toBe(0);
    expect(isOpen(typed(five!.amps, null))).toBe(true);
  });
  it('is no supply while something is open', () => {
    expect(() => supplyOf(draftOf(read), read, null, 'tower')).toThrow('open');
  });
  it('leaves out what is not taken, and the limits over it', () => {
    const draft = draftOf(read);
    const kept = { ...draft, outputs: draft.outputs.map((one) => ({ ...one, taken: one.rail === '+12' })) };
    expect(openCount(kept)).toBe(1);
    expect(supplyOf(kept, read, null, 'small').label).toMatchObject({
      ratingWatts: 450,
      rails: [{ label: '12V', rail: '+12', amps: 36 }],
      combined: [],
      shape: 'SFX',
      guide: '3.x',
    });
  });
  it('goes over what was known, and leaves what the label does not tell', () => {
    const draft = { ...draftOf(read), name: ' ', outputs: [] };
    expect(supplyOf(draft, read, before, 'tower')).toMatchObject({
      name: 'Old one',
      label: { shape: 'TFX', guide: '3.x', grade: 'silver', modular: 'semi', has16Pin: true },
    });
  });
  it('tells the age by a plain date', () => {
    expect(yearsOf(read, '2026-11-27')).toBe(5);
    expect(yearsOf({ ...read, date: null }, '2026-11-27')).toBeNull();
  });
  it('takes of the rest what was read and is wanted', () => {
    const draft = { ...draftOf(read), outputs: [] };
    expect(draft.besides).toEqual(['guide', 'date']);
    expect(supplyOf({ ...draft, besides: [] }, read, before, 'tower').label.guide).toBe('2.x');
  });
});
