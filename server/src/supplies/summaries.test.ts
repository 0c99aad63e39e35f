import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { supplyFileSchema, supplyKitsSchema, supplySummarySchema } from '@fairwatt/contract';
import { partSupplies } from './summaries.ts';

const demo = new URL('../../../demo/supplies.json', import.meta.url);
const { supplies } = supplyFileSchema.parse(JSON.parse(readFileSync(demo, 'utf8')));

describe('supplies parted from their kits', () => {
  it('are as they were when put together again', () => {
    const { summaries, kits } = partSupplies(supplies);
    expect(summaries.map((summary) => ({ ...summary, kit: supplyKitsSchema.parse(kits)[summary.kit] }))).toEqual(
      supplies,
    );
    for (const summary of summaries) expect(supplySummarySchema.parse(summary)).toEqual(summary);
  });
  it('share a kit where theirs are alike, and no other', () => {
    const [first] = supplies;
    const twin = { ...first!, id: 'twin', kit: structuredClone(first!.kit) };
    const longer = structuredClone(twin);
    longer.id = 'longer';
    const plugs = longer.kit.cables[0]!.plugs.map((plug) => ({ ...plug, millimetres: plug.millimetres + 1 }));
    const other = {
      ...longer,
      kit: { ...longer.kit, cables: longer.kit.cables.map((cable, at) => (at === 0 ? { ...cable, plugs } : cable)) },
    };
    const { summaries, kits } = partSupplies([first!, twin, other]);
    expect(summaries[1]!.kit).toBe(summaries[0]!.kit);
    expect(summaries[2]!.kit).not.toBe(summaries[0]!.kit);
    expect(Object.keys(kits)).toHaveLength(2);
  });
  it('are parted once for a list', () => {
    expect(partSupplies(supplies)).toBe(partSupplies(supplies));
    expect(partSupplies([])).toEqual({ summaries: [], kits: {} });
  });
});
