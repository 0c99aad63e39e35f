import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { plugKinds } from '../standards/index.ts';
import {
  connectorOf,
  connectors,
  lookAlikes,
  matching,
  nextQuestion,
  type Connector,
  type Feature,
  type Seen,
} from './index.ts';

/** Answers truthfully until nothing more is asked; features that nobody could see are passed. */
function asked(connector: Connector, unseen: readonly Feature[] = []) {
  let seen: Seen = {};
  const passed: Feature[] = [];
  let answers = 0;
  for (;;) {
    const question = nextQuestion(connectors, seen, passed);
    if (question === null) return { left: matching(connectors, seen), answers };
    const value = connector.looks[question.feature];
    if (value == null || unseen.includes(question.feature)) passed.push(question.feature);
    else {
      seen = { ...seen, [question.feature]: value };
      answers += 1;
    }
  }
}

describe('the questions of the guide', () => {
  it.each(connectors.map(({ id }) => id))('lead to %s in at most four answers', (id) => {
    const { left, answers } = asked(connectorOf(id)!);
    expect(left.map((one) => one.id)).toEqual([id]);
    expect(answers).toBeLessThanOrEqual(4);
  });
  it('never rule out what lies there, whatever could not be seen', () => {
    const features = fc.subarray<Feature>(['look', 'pins', 'rows', 'splits', 'twelve', 'gap', 'key', 'mains']);
    fc.assert(
      fc.property(fc.constantFrom(...connectors), features, (connector, unseen) => {
        expect(asked(connector, unseen).left).toContain(connector);
      }),
      { seed: 9 },
    );
  });
  it('begin with what is seen at a glance', () => {
    expect(nextQuestion(connectors, {})?.feature).toBe('look');
  });
});

describe('the guide', () => {
  it('knows every plug that a cable can be recorded with, once', () => {
    expect(
      connectors
        .map(({ recordAs }) => recordAs)
        .filter((kind) => kind !== null)
        .sort(),
    ).toEqual([...plugKinds].sort());
    expect(new Set(connectors.map(({ id }) => id)).size).toBe(connectors.length);
    expect(new Set(connectors.map(({ name }) => name)).size).toBe(connectors.length);
  });
  it('says of each what it carries, where it goes, and how it comes out and in', () => {
    for (const one of connectors)
      for (const text of [one.carries, one.goesInto, one.out, one.in, one.printed])
        expect(text.length).toBeGreaterThan(3);
  });
  it('names only connectors that it has', () => {
    for (const { never } of connectors)
      for (const { id } of never) if (id !== null) expect(connectorOf(id)).toBeDefined();
  });
  it('sets at least twenty pairs side by side, each of two that it has, once', () => {
    expect(lookAlikes.length).toBeGreaterThanOrEqual(20);
    for (const { a, b } of lookAlikes) expect([connectorOf(a)?.id, connectorOf(b)?.id]).toEqual([a, b]);
    expect(new Set(lookAlikes.map(({ a, b }) => [a, b].sort().join())).size).toBe(lookAlikes.length);
  });
  it('draws as many contacts as it counts', () => {
    for (const { drawing, looks, id } of connectors)
      if (drawing.as === 'grid' && typeof looks.pins === 'number' && id !== 'speaker')
        expect([id, drawing.rows.join('').replaceAll('0', '').length + (drawing.small ?? 0)]).toEqual([id, looks.pins]);
  });
});
