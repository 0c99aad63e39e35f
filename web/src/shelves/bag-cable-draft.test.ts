import { describe, expect, it } from 'vitest';
import { bagCableSchema, type BagCable } from '@fairwatt/contract';
import { draftOfCable, typedCable } from './bag-cable-draft.ts';

const id = '0e0c9a4e-2b3e-4d53-9a0e-6c3d4f5a6b7c';
const cable: BagCable = {
  id,
  version: 3,
  label: 'BAG-09',
  place: 'Drawer 2',
  family: 'card-16',
  cameWith: 'nobody knows',
  note: 'found',
  gauge: 16,
  twoEnded: true,
  codedWatts: 450,
  plugs: [
    { kind: 'card-16', millimetres: null, ends: [1, 2, [3, 4], 'none', null] },
    { kind: 'sata', millimetres: 620.5, ends: [] },
  ],
};
const problems = (changes: Partial<ReturnType<typeof draftOfCable>>) =>
  bagCableSchema
    .safeParse(typedCable({ ...draftOfCable(cable), ...changes }, id, 3))
    .error?.issues.map(({ path, message }) => [path.join('.'), message]);

describe('a spare cable as it is typed', () => {
  it('is the same cable again when nothing was changed', () => {
    expect(bagCableSchema.parse(typedCable(draftOfCable(cable), id, 3))).toEqual(cable);
  });
  it('keeps neither a second end nor a code where its family has none', () => {
    const read = bagCableSchema.parse(typedCable({ ...draftOfCable(cable), family: 'drive' }, id, 3));
    expect([read.twoEnded, read.codedWatts]).toEqual([false, null]);
  });
  it('takes a comma for the point, and commas between wires', () => {
    const plugs = [{ kind: 'sata', millimetres: '612,5', ends: '1, 2,-' }] as const;
    const read = bagCableSchema.parse(typedCable({ ...draftOfCable(null), label: 'B', plugs }, id, 0));
    expect(read.plugs).toEqual([{ kind: 'sata', millimetres: 612.5, ends: [1, 2, 'none'] }]);
  });
  it('tells what is no wire and no length at their fields', () => {
    expect(problems({ plugs: [{ kind: 'sata', millimetres: '500', ends: '1 x 3' }] })).toEqual([
      ['plugs.0.ends.1', 'each is a pin of the supply end, two such as 13+14, - or ?'],
    ]);
    expect(problems({ plugs: [{ kind: 'sata', millimetres: 'long', ends: '' }] })?.[0]?.[0]).toBe(
      'plugs.0.millimetres',
    );
    expect(problems({ label: ' ' })?.[0]?.[0]).toBe('label');
  });
});
