import { describe, expect, it } from 'vitest';
import { cablesLaid, scheduleOf, stepsOf } from './index.ts';
import { TestBench, testPart, uuid } from './fixture.test-help.ts';

const bench = () =>
  new TestBench().do(
    { kind: 'put-part', part: testPart('board', 'board'), basedOn: 0 },
    { kind: 'put-part', part: testPart('drive-35', 'd1'), basedOn: 0 },
    { kind: 'put-part', part: testPart('drive-35', 'd2'), basedOn: 0 },
    {
      kind: 'put-cable',
      basedOn: 0,
      cable: {
        id: uuid(500),
        label: 'A',
        socketLabel: '',
        plugs: [
          { kind: 'sata', inletId: 'd1-1' },
          { kind: 'sata', inletId: 'd2-1' },
        ],
        way: 'cage hook',
        tiesToCut: 0,
      },
    },
  );
const choose = (on: TestBench, modelId: string | null) =>
  on.do({
    kind: 'set-choice',
    choice: { kind: modelId === null ? 'keep' : 'replace', modelId, known: [], reason: 'fits' },
    basedOn: on.job.choice?.version ?? 0,
  });
const laid = (on: TestBench) => cablesLaid(on.job, on.view().cabling);
const waysOnPaper = (on: TestBench) =>
  scheduleOf(on.job, on.view().cabling, []).map(({ inletLabel, way }) => [inletLabel, way]);
/** The first cable to a drive. */
const chain = (on: TestBench) => laid(on).find(({ asItWas }) => asItWas === 'cage hook')!;

describe('the way a cable was laid', () => {
  it('is asked of each cable once, with the old way beside it, and printed only once it was said', () => {
    const on = choose(bench(), 'corvane-650-s');
    expect(laid(on).map(({ code, asItWas, laid: said }) => [code, asItWas, said])).toEqual([
      ['C01', '', null],
      ['C02', '', null],
      ['C03', 'cage hook', null],
      ['C04', 'cage hook', null],
    ]);
    // Another supply's cable did not take the old one's way until somebody says so.
    expect(waysOnPaper(on).every(([, way]) => way === '')).toBe(true);
    on.do({ kind: 'lay-cable', cable: chain(on).cable, way: 'hole 3, cage hook', basedOn: 0 });
    expect(waysOnPaper(on).flatMap(([, way]) => (way === '' ? [] : [way]))).toEqual(['hole 3, cage hook']);
    expect(stepsOf(on.job, on.view().cabling, 'refit').map(({ kind }) => kind)).toContain('note-ways');
  });
  it('belongs to the supply that was fitted, and comes back with it', () => {
    const on = choose(bench(), 'corvane-650-s');
    on.do({ kind: 'lay-cable', cable: chain(on).cable, way: 'hole 3', basedOn: 0 });
    choose(on, 'corvane-750-s');
    expect(laid(on).every(({ laid: said }) => said === null)).toBe(true);
    on.do({ kind: 'lay-cable', cable: chain(on).cable, way: 'hole 4', basedOn: 0 });
    choose(on, 'corvane-650-s');
    expect(chain(on).laid?.way).toBe('hole 3');
  });
  it('is corrected by whoever saw it as it stands', () => {
    const on = choose(bench(), 'corvane-650-s');
    const { cable } = chain(on);
    on.do({ kind: 'lay-cable', cable, way: 'hole 3', basedOn: 0 });
    expect(on.try({ kind: 'lay-cable', cable, way: 'hole 5', basedOn: 0 })).toMatchObject({ code: 'stale' });
    on.do({ kind: 'lay-cable', cable, way: '', basedOn: chain(on).laid!.version });
    expect(waysOnPaper(on).every(([, way]) => way === '')).toBe(true);
  });
  it('of a kept cable is the recorded one as long as nobody says otherwise', () => {
    const on = choose(bench(), null);
    expect(waysOnPaper(on).map(([, way]) => way)).toContain('cage hook');
    on.do({ kind: 'lay-cable', cable: chain(on).cable, way: 'hole 3', basedOn: 0 });
    expect(waysOnPaper(on).map(([, way]) => way)).not.toContain('cage hook');
  });
});
