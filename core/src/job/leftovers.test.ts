import { describe, expect, it } from 'vitest';
import { leftoversOf, oldCablesOf, type Leftover, type RecordedCable } from './index.ts';
import { TestBench, testShop } from './fixture.test-help.ts';

const on = new TestBench().part('board', 'board').part('drive-35', 'd1').choose('corvane-650-s');
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

const kit = {
  sockets: [],
  cables: [
    {
      id: 'sata',
      family: 'drive',
      fixed: false,
      count: 2,
      gauge: 18,
      plugs: [
        { kind: 'sata', millimetres: 450 },
        { kind: 'sata', millimetres: 600 },
      ],
    },
  ],
} as const;
const recorded = (label: string, socketLabel: string, ...kinds: RecordedCable['plugs'][number]['kind'][]) => ({
  id: label,
  version: 1,
  label,
  socketLabel,
  plugs: kinds.map((kind) => ({ kind, inletId: null })),
  way: '',
  tiesToCut: 0,
});
const old = {
  ...on.job,
  supply: { name: 'Corvane 450 B' } as NonNullable<typeof on.job.supply>,
  cables: [
    recorded('A', '', 'main-20+4'),
    recorded('B', 'DRIVE 1', 'sata', 'sata'),
    recorded('C', 'DRIVE 2', 'sata', 'sata'),
    recorded('D', 'CPU 1', 'cpu-4+4'),
    recorded('E', 'MAIN', 'main-own'),
    { ...recorded('F', 'DRIVE 3', 'sata'), likely: true },
  ],
};

describe('the cables of the supply that is replaced', () => {
  const put = (pieces: readonly Leftover[]) => oldCablesOf(old, null, inBags(pieces));
  it("are its modular ones that somebody looked at; a length is the list's, or still to be measured", () => {
    const lengths = (pieces: readonly Leftover[]) =>
      pieces.map(({ family, plugs }) => [family, ...plugs.map(({ millimetres }) => millimetres)]);
    expect(lengths(put([]))).toEqual([
      ['drive', null, null],
      ['drive', null, null],
      ['cpu', null],
    ]);
    expect(lengths(oldCablesOf(old, { kit }, inBags([])))).toEqual([
      ['drive', 450, 600],
      ['drive', 450, 600],
      ['cpu', null],
    ]);
    for (const piece of put([]))
      expect(piece).toMatchObject({ cameWith: 'Corvane 450 B', note: 'Of the old supply of LQ-0001', place: '' });
    expect(oldCablesOf({ ...old, supply: null }, null, inBags([]))[0]!.cameWith).toBe('not known');
  });
  it('are put there once, also where one was measured since', () => {
    const pieces = put([]);
    expect(put(pieces)).toEqual([]);
    const measured = pieces.map((piece) => ({
      ...piece,
      plugs: piece.plugs.map((plug) => ({ ...plug, millimetres: 500 })),
    }));
    expect(put(measured)).toEqual([]);
    expect(put([pieces[0]!]).map(({ family }) => family)).toEqual(['drive', 'cpu']);
    // What stayed over of the new kit is another thing.
    expect(put(leftovers())).toHaveLength(3);
    expect(new Set([...leftovers(), ...put(leftovers())].map(({ label }) => label)).size).toBe(leftovers().length + 3);
  });
  it('stay where the supply stays', () => {
    expect(oldCablesOf({ ...old, choice: null }, null, inBags([]))).toEqual([]);
  });
});
