import { describe, expect, it } from 'vitest';
import { leftoversOf, type Leftover } from './index.ts';
import { TestBench, testPart, testShop } from './fixture.test-help.ts';

const on = new TestBench().do(
  { kind: 'put-part', part: testPart('board', 'board'), basedOn: 0 },
  { kind: 'put-part', part: testPart('drive-35', 'd1'), basedOn: 0 },
  {
    kind: 'set-choice',
    choice: { kind: 'replace', modelId: 'corvane-650-s', known: [], reason: 'fits' },
    basedOn: 0,
  },
);
const { cabling, chosen } = on.view();
const inBags = (pieces: readonly Leftover[]) => ({
  cables: pieces.map((piece, index) => ({ ...piece, id: String(index), version: 1 })),
});
const leftovers = (pieces: readonly Leftover[] = [], name = chosen!.name) =>
  leftoversOf(on.job, cabling, { name }, inBags(pieces));

describe('what stays over of a kit', () => {
  it('is each piece that the plan puts into the bag, with its plugs and supply, and nothing said of its wires', () => {
    const count = cabling.plan!.bagged.reduce((sum, piece) => sum + piece.count, 0);
    expect(count).toBeGreaterThan(0);
    expect(leftovers()).toHaveLength(count);
    for (const piece of leftovers()) {
      expect(piece).toMatchObject({ cameWith: chosen!.name, note: 'Left over from LQ-0001' });
      expect(piece.plugs.every(({ ends }) => ends.length === 0)).toBe(true);
    }
    expect(new Set(leftovers().map(({ label }) => label)).size).toBe(count);
  });
  it('is put there once; each label is its own, also beside those of another supply', () => {
    const [first, ...others] = leftovers();
    expect(leftovers([first!]).map(({ plugs }) => plugs)).toEqual(others.map(({ plugs }) => plugs));
    expect(leftovers(leftovers())).toEqual([]);
    const before = leftovers([], 'Another supply');
    const now = leftovers(before);
    expect(now).toHaveLength(before.length);
    expect(new Set([...before, ...now].map(({ label }) => label)).size).toBe(2 * before.length);
  });
  it('is nothing without a plan', () => {
    expect(leftoversOf(on.job, { plan: null, kit: null }, chosen!, testShop.bags)).toEqual([]);
  });
});
