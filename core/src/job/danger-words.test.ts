import { describe, expect, it } from 'vitest';
import { dangersInWords } from './danger-words.ts';

type Asked = Parameters<typeof dangersInWords>[0];
const jobSaying = (words: string, more: Partial<Record<'bareSupply' | 'state' | 'finding', unknown>> = {}) =>
  ({
    sheet: { words, bareSupply: more.bareSupply ?? false },
    state: more.state ?? 'open',
    finding: more.finding ?? null,
  }) as unknown as Asked;
const asked = (words: string) =>
  dangersInWords(jobSaying(words), []).map(({ checkId, words }) => `${checkId} ${words.join(' ')}`);

describe('words that speak of something dangerous', () => {
  it.each([
    ['It smelled burnt and then nothing.', ['told-smell smelled burnt']],
    ['There was a bang, and now it is dead', ['told-smell bang']],
    ['Smoke came out of the back', ['told-smell smoke']],
    ['sparks when I plug it in', ['told-smell sparks']],
    ['A plug has melted', ['told-smell melted']],
    ['I spilled coffee over it', ['look-wet spilled coffee']],
    ['The cellar was flooded; it smells of burnt plastic', ['told-smell smells burnt', 'look-wet flooded']],
    ['The cooler leaks', ['look-wet leaks']],
    ['I get a tingle from the case', ['told-shock tingle']],
    ['It gave my son an electric shock', ['told-shock electric shock']],
    ['It trips the breaker when I switch it on', ['told-shock trips the breaker']],
    ['The fuse blew twice', ['told-shock fuse blew']],
  ])('%s', (words, expected) => {
    expect(asked(words)).toEqual(expected);
  });
  it.each([
    'It goes off when I play',
    'No smoke, and it does not smell burnt',
    'Never a smell of anything, without any smoke',
    "It doesn't smell and I didn't spill anything on it",
    'It stops when I burn a DVD, or burning two old discs',
    'Passed a burn-in of two hours; water-cooled, with a water block',
    'A memory leak, they say; a window popped up',
    'I was shocked to hear the price; a shock-proof case',
    'No shock and no tingle',
    'Seldom. The teacher fired it up; steady since',
  ])('but not: %s', (words) => {
    expect(asked(words)).toEqual([]);
  });
  it('are asked about where only the first of them was denied', () => {
    expect(asked('No smoke, but it smells burnt')).toEqual(['told-smell smells burnt']);
  });
  it('are named once each, three at most', () => {
    expect(asked('A bang, a bang, smoke, sparks, then flames')).toEqual(['told-smell bang smoke sparks']);
  });
  it('are answered by the check, whatever the answer', () => {
    const job = jobSaying('It smells burnt; coffee was spilled');
    expect(dangersInWords(job, [{ checkId: 'told-smell' }]).map(({ checkId }) => checkId)).toEqual(['look-wet']);
    expect(dangersInWords(job, [{ checkId: 'told-smell' }, { checkId: 'look-wet' }])).toEqual([]);
    expect(dangersInWords(job, [{ checkId: 'told-when' }])).toHaveLength(2);
  });
  it('are not asked about in a job that is closed, whose fault is found, or that is a supply by itself', () => {
    for (const more of [{ bareSupply: true }, { state: 'closed' }, { finding: { kind: 'no-fault' } }])
      expect(dangersInWords(jobSaying('It smells burnt', more), [])).toEqual([]);
  });
});
