import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { supplyFileSchema, supplyModelSchema } from '@fairwatt/contract';
import { stepsOf } from '../controls/told-fields.ts';
import { fieldOfSupply, modelFrom, wholeOf } from './supply-draft.ts';

const demo = new URL('../../../demo/supplies.json', import.meta.url);
const { supplies } = supplyFileSchema.parse(JSON.parse(readFileSync(demo, 'utf8')));
const wrongAt = (typed: unknown) => {
  const read = supplyModelSchema.safeParse(typed);
  return read.success ? [] : read.error.issues.map((issue) => issue.path.join('.'));
};

describe('a supply that is typed', () => {
  it.each(supplies.map((model) => [model.id, model] as const))('keeps %s as it was, untouched', (_id, model) => {
    expect(modelFrom(wholeOf(model, false), model.onShelf)).toEqual(model);
  });
  it('begins empty with nothing guessed: what is not said is told, field by field', () => {
    const wrong = wrongAt(modelFrom(wholeOf(null, true), 0));
    expect(wrong).toContain('name');
    expect(wrong).toContain('label.ratingWatts');
  });
  it('takes another for a pattern, under a name and an id of its own', () => {
    const pattern = wholeOf(supplies[0]!, true);
    expect(pattern.fields.id).toBe('');
    const named = { ...pattern, fields: { ...pattern.fields, name: 'Ärmel & Söhne 650' } };
    expect(modelFrom(named, 0)).toMatchObject({ id: 'a-rmel-so-hne-650', name: 'Ärmel & Söhne 650', onShelf: 0 });
  });
  it('takes figures with a comma, and hands on what is none as it was typed', () => {
    const whole = wholeOf(supplies[0]!, false);
    const typed = (ratingWatts: string) => modelFrom({ ...whole, fields: { ...whole.fields, ratingWatts } }, 0);
    expect(typed('649,5')).toMatchObject({ label: { ratingWatts: 649.5 } });
    expect(typed('much')).toMatchObject({ label: { ratingWatts: 'much' } });
    expect(wrongAt(typed('much'))).toContain('label.ratingWatts');
  });
  it('turns a price into hundredths, and leaves what nobody knows empty', () => {
    const whole = wholeOf(supplies[0]!, false);
    const fields = { ...whole.fields, price: '89,90', noiseDecibels: ' ', designYear: '', asOf: '' };
    expect(modelFrom({ ...whole, fields }, 0)).toMatchObject({
      price: { minor: 8990, asOf: null },
      noiseDecibels: null,
      designYear: null,
    });
  });
  it('says of a cable that it goes into one socket only', () => {
    const whole = wholeOf(
      supplies.find(({ id }) => id === 'brackholm-700-dual')!,
      false,
    );
    expect(whole.cables.map(({ fixed }) => fixed)).toContain('only in CARD 2');
    const cables = whole.cables.map((cable) =>
      cable.fixed === 'only in CARD 2' ? { ...cable, fixed: 'only in CARD 9' } : cable,
    );
    expect(wrongAt(modelFrom({ ...whole, cables }, 0))).toEqual(['kit.cables.3.onlySocket']);
  });
  it('reads plugs in the order in which they are written, with or without a sign between', () => {
    const whole = wholeOf(supplies[0]!, false);
    const [cable] = whole.cables;
    const cables = [{ ...cable!, plugs: 'sata 450, sata@600 ,, peripheral-4 750' }];
    expect(modelFrom({ ...whole, cables }, 0)).toMatchObject({
      kit: {
        cables: [
          {
            plugs: [
              { kind: 'sata', millimetres: 450 },
              { kind: 'sata', millimetres: 600 },
              { kind: 'peripheral-4', millimetres: 750 },
            ],
          },
        ],
      },
    });
  });
  it('keeps the coded watts of a 16-pin cable, and of no other', () => {
    const whole = wholeOf(supplies[0]!, false);
    const [cable] = whole.cables;
    const coded = (family: string) =>
      (
        modelFrom({ ...whole, cables: [{ ...cable!, family, coded: '450' }] }, 0) as {
          kit: { cables: { codedWatts?: number }[] };
        }
      ).kit.cables[0]!.codedWatts;
    expect(coded('card-16')).toBe(450);
    expect(coded('card')).toBeUndefined();
  });
  it('never loses or throws over anything that may be typed', () => {
    const any = fc.string({ maxLength: 30 });
    fc.assert(
      fc.property(any, any, any, (amps, plugs, labels) => {
        const whole = wholeOf(supplies[0]!, false);
        const typed = modelFrom(
          {
            ...whole,
            rails: whole.rails.map((rail) => ({ ...rail, amps })),
            cables: whole.cables.map((cable) => ({ ...cable, plugs })),
            combined: [{ labels, watts: amps }],
          },
          0,
        );
        const paths = wrongAt(typed);
        if (/[a-z]/i.test(amps)) expect(paths.length).toBeGreaterThan(0);
      }),
      { numRuns: 200 },
    );
  });
});

describe('what is wrong with a supply', () => {
  const whole = wholeOf(null, true);
  const at = (path: string) => fieldOfSupply(stepsOf(path), whole).join('.');

  it.each([
    ['id', 'fields.name'],
    ['name', 'fields.name'],
    ['label.ratingWatts', 'fields.ratingWatts'],
    ['price.minor', 'fields.price'],
    ['price.currency', 'fields.currency'],
    ['depthMillimetres', 'fields.depthMillimetres'],
    ['label.combined.1.labels.0', 'combined.1.labels.0'],
    ['kit.sockets.2.label', 'sockets.2.label'],
    ['kit.cables', 'cables'],
    ['kit.cables.3.plugs.1.millimetres', 'cables.3.plugs'],
    ['kit.cables.3.onlySocket', 'cables.3.fixed'],
    ['kit.cables.3.codedWatts', 'cables.3.coded'],
    ['label.rails', 'rails'],
  ])('of %s stands at %s', (path, field) => {
    expect(at(path)).toBe(field);
  });

  it('stands at the output that it is of, though outputs with no amps are left out before it', () => {
    const rails = whole.rails.map((rail) => (rail.rail === '-12' ? { ...rail, amps: 'many' } : rail));
    const typed = modelFrom({ ...whole, rails }, 0);
    const wrong = wrongAt(typed).filter((path) => path.startsWith('label.rails.'));
    expect(wrong).toEqual(['label.rails.0.amps', 'label.rails.1.amps']);
    expect(wrong.map((path) => fieldOfSupply(stepsOf(path), { rails }))).toEqual([
      ['rails', 0, 'amps'],
      ['rails', 3, 'amps'],
    ]);
  });
});
