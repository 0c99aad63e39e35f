import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { demandOf } from '../load/index.ts';
import { partClass, type Casing, type MachinePart } from '../machine/index.ts';
import { compareCandidates, fitQuestion, judgeSupply, rankSupplies, type SupplyModel } from './index.ts';

const { supplies } = JSON.parse(readFileSync(new URL('../../../demo/supplies.json', import.meta.url), 'utf8')) as { supplies: SupplyModel[] };
const casing: Casing = { layout: 'tower', shapes: ['ATX'], depthMillimetres: 210 };
const part = (classId: string, id: string): MachinePart => { const found = partClass(classId)!; return { id, classId, name: found.name, quantity: 1, change: 'stays', figures: found.figures, inlets: found.inlets.map((inlet, index) => ({ ...inlet, id: `${id}-${index}` })) }; };
const game = [part('board', 'b'), part('processor-65', 'p'), part('card-88', 'c'), part('drive-flat', 'd')];
const question = (parts = game, where = casing, school: 'peaks-covered' | 'half-load' = 'peaks-covered') => fitQuestion(parts, where, demandOf, 230, school, 450);
const model = (id: string) => supplies.find((item) => item.id === id)!;
const codes = (id: string, asked = question()) => judgeSupply(model(id), asked).reasons.map((reason) => reason.code);

describe('fit', () => {
  it('drops by shape, depth and mains', () => {
    expect(codes('ostrelle-mini-600')).toContain('shape');
    expect(codes('corvane-650-s', question(game, { ...casing, depthMillimetres: 180 }))).toEqual(['depth']);
    const abroad = { ...question(), mainsVolts: 120 };
    expect(codes('brackholm-500-plain', abroad)).toContain('mains');
    expect(codes('corvane-650-s', abroad)).not.toContain('mains');
  });
  it('does not ask for depth that nobody measured', () => {
    expect(codes('corvane-650-s', question(game, { ...casing, depthMillimetres: null }))).toEqual([]);
  });
  it('drops by load and by what its kit cannot serve', () => {
    expect(codes('corvane-450-b')).toEqual(['load']);
    expect(codes('brackholm-500-plain')).toContain('inlet');
  });
  it('drops what is far too large', () => {
    expect(codes('corvane-1200-s', question([part('board', 'b'), part('processor-35', 'p')]))).toEqual(['too-large']);
  });
  it('asks by the chosen school', () => {
    const light = [part('board', 'b'), part('processor-65', 'p'), part('card-8', 'c')];
    expect(codes('corvane-550-b', question(light))).toEqual([]);
    expect(codes('corvane-550-b', question(light, casing, 'half-load'))).toEqual(['school']);
  });
});

describe('ranking', () => {
  const ranked = rankSupplies(supplies, question());
  it('puts all that fit before all that fall', () => {
    const last = ranked.map((candidate) => candidate.fits).lastIndexOf(true);
    expect(last).toBeGreaterThan(0);
    expect(ranked.slice(0, last + 1).every((candidate) => candidate.fits)).toBe(true);
    for (const candidate of ranked.slice(last + 1)) expect(candidate.reasons.length).toBeGreaterThan(0);
  });
  it('is a total order: every pair agrees with its place', () => {
    for (let i = 0; i < ranked.length; i += 1) for (let j = i + 1; j < ranked.length; j += 1) expect(compareCandidates(ranked[i]!, ranked[j]!)).toBeLessThan(0);
  });
  it('does not depend on the order of the shelf', () => {
    expect(rankSupplies([...supplies].reverse(), question()).map((candidate) => candidate.model.id)).toEqual(ranked.map((candidate) => candidate.model.id));
  });
  it('ships at least 24 models over four shapes from 300 to 1200 W, single and multi rail', () => {
    expect(supplies.length).toBeGreaterThanOrEqual(24);
    expect(new Set(supplies.map((item) => item.label.shape))).toEqual(new Set(['ATX', 'SFX', 'SFX-L', 'TFX']));
    expect([Math.min(...supplies.map((item) => item.label.ratingWatts)), Math.max(...supplies.map((item) => item.label.ratingWatts))]).toEqual([300, 1200]);
    expect(supplies.some((item) => item.label.rails.filter((rail) => rail.rail === '+12').length > 1)).toBe(true);
  });
});
