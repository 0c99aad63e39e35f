import { describe, expect, it } from 'vitest';
import { noBags, sparesFor, spareVerdict, type BagCable, type Pinout } from '../cable/index.ts';
import type { SupplyModel } from '../supply/index.ts';
import { stepText } from '../wording/index.ts';
import { socketAccepts, socketsToRecord, stepsOf, tagsOf, leftoversOf, oldCablesOf, viewJob } from './index.ts';
import { TestBench, testShop, uuid } from './fixture.test-help.ts';

// Its main cable goes into two sockets, and its 16-pin cable into two of those for processor and card cables.
const quiet = testShop.supplies.find(({ id }) => id === 'tarnwick-quiet-850')!;
const machine = () => new TestBench().part('board-88', 'board').part('processor-125', 'cpu').part('card-16', 'card');
const record = (on: TestBench, kind: 'main-20+4' | 'cpu-4+4' | 'card-16', inletId: string, socketLabel: string) =>
  on.do({
    kind: 'put-cable',
    basedOn: 0,
    cable: {
      id: uuid(700 + on.job.cables.length),
      label: String.fromCharCode(65 + on.job.cables.length),
      socketLabel,
      plugs: [{ kind, inletId }],
      way: '',
      tiesToCut: 0,
    },
  });
const endsOf = (on: TestBench) =>
  stepsOf(on.job, on.view().cabling, 'refit').filter(({ kind }) => kind === 'supply-end');
const replace = (on: TestBench) =>
  on.do({ kind: 'set-choice', choice: { kind: 'replace', modelId: quiet.id, known: [], reason: 'fits' }, basedOn: 0 });
const keep = (on: TestBench) =>
  on.do(
    { kind: 'put-supply', supply: { name: quiet.name, label: quiet.label }, basedOn: 0 },
    { kind: 'set-choice', choice: { kind: 'keep', modelId: null, known: [], reason: 'carries it' }, basedOn: 0 },
  );

describe('a cable with two ends at the supply', () => {
  it('has a step and a tag for each of them, and each is ticked for itself', () => {
    const on = machine();
    replace(on);
    const named = endsOf(on).map(({ cable, socket }) => `${cable} ${socket}`);
    expect(named).toEqual([
      'C01 MAIN 18',
      'C01 MAIN 10',
      'C02 CPU/CARD 1',
      'C03 CPU/CARD 2',
      'C04 CPU/CARD 3',
      'C04 CPU/CARD 4',
    ]);
    expect(new Set(endsOf(on).map(({ id }) => id)).size).toBe(6);
    on.do({ kind: 'tick-step', stepId: endsOf(on)[4]!.id });
    expect(endsOf(on).map(({ done }) => done !== null)).toEqual([false, false, false, false, true, false]);
    expect(stepText(endsOf(on)[5]!)).toBe("Cable C04 into the supply's socket CPU/CARD 4, until it clicks");
    const tags = tagsOf(on.view().cabling).filter(({ cable }) => cable === 'C04');
    const { label } = on.view().cabling.rows.at(-1)!;
    expect(tags.map(({ end, here, there }) => [end, here, there])).toEqual([
      ['supply', 'CPU/CARD 3', label],
      ['supply', 'CPU/CARD 4', label],
      ['device', label, 'CPU/CARD 3 + CPU/CARD 4'],
    ]);
  });
  it('is found again in the kit of a supply that is kept, in the sockets that were recorded', () => {
    const on = machine();
    record(on, 'main-20+4', 'board-1', 'MAIN 18 + MAIN 10');
    record(on, 'card-16', 'card-1', 'CPU/CARD 6 + CPU/CARD 5');
    keep(on);
    const { rows } = on.view().cabling;
    expect(rows.find(({ inletId }) => inletId === 'card-1')?.socketLabel).toBe('CPU/CARD 6 + CPU/CARD 5');
    // What is new goes around both of its sockets.
    expect(endsOf(on).map(({ socket }) => socket)).toEqual(['CPU/CARD 1', 'CPU/CARD 2']);
    expect(tagsOf(on.view().cabling).filter(({ end }) => end === 'supply')).toHaveLength(6);
  });
  it('is planned anew where only one of its sockets was recorded', () => {
    const on = machine();
    record(on, 'main-20+4', 'board-1', 'MAIN 18');
    keep(on);
    const card = on.view().cabling.rows.find(({ inletId }) => inletId === 'card-1')!;
    expect(card.socketLabel).toBe('CPU/CARD 3 + CPU/CARD 4');
    expect(endsOf(on).filter(({ cable }) => cable === card.cableCode)).toHaveLength(2);
  });
  it('is recorded in two sockets that take it, and only such a cable is', () => {
    const takes = (name: string, kind: 'main-24' | 'card-16' | 'card-8' | 'sata') =>
      socketAccepts(quiet.kit, name, kind);
    expect(takes('MAIN 18 + MAIN 10', 'main-24')).toBe(true);
    expect(takes('CPU/CARD 1 + CPU/CARD 6', 'card-16')).toBe(true);
    expect(takes('CPU/CARD 1', 'card-16')).toBe(false);
    expect(takes('CPU/CARD 1 + CPU/CARD 6', 'card-8')).toBe(false);
    expect(takes('DRIVE 1 + DRIVE 2', 'sata')).toBe(false);
    expect(takes('CPU/CARD 1 + LEFT', 'card-16')).toBeNull();
    expect(socketsToRecord(quiet.kit, ['main-24'])).toEqual(['MAIN 18', 'MAIN 10', 'MAIN 18 + MAIN 10']);
    expect(socketsToRecord(quiet.kit, ['card-16'])).toHaveLength(15);
    expect(socketsToRecord(quiet.kit, ['sata', 'sata'])).toEqual(['DRIVE 1', 'DRIVE 2', 'DRIVE 3']);
  });
  it('goes into the bags as what it is, from the kit and from the record', () => {
    const on = new TestBench().part('board-88', 'board').part('processor-125', 'cpu');
    replace(on);
    const left = leftoversOf(on.job, on.view().cabling, quiet, noBags);
    expect(left.filter(({ twoEnded }) => twoEnded).map(({ family }) => family)).toEqual(['card-16']);
    const old = machine();
    record(old, 'main-20+4', 'board-1', 'M1 + M2');
    record(old, 'cpu-4+4', 'board-2', 'CPU + CARD');
    record(old, 'card-16', 'card-1', '12V-2x6');
    replace(old);
    expect(oldCablesOf(old.job, null, noBags).map(({ family, twoEnded }) => [family, twoEnded])).toEqual([
      ['main', true],
      ['cpu', false],
      ['card-16', false],
    ]);
  });
});

describe('a spare 16-pin cable with two ends', () => {
  const card = ['12', '12', '12', 'G', 'G', 'G', 'G', 'G'] as const;
  const pinout: Pinout = {
    id: uuid(1),
    version: 1,
    name: 'panel',
    supplies: [quiet.id],
    sockets: [{ family: 'card', pins: card }],
  };
  const spare = (ends: BagCable['plugs'][number]['ends']): BagCable => ({
    id: uuid(2),
    version: 1,
    label: 'BAG-20',
    place: '',
    family: 'card-16',
    cameWith: '',
    note: '',
    gauge: 16,
    twoEnded: true,
    codedWatts: 600,
    plugs: [{ kind: 'card-16', millimetres: 650, ends }],
  });
  // Six at +12, six at ground, and the four sense contacts on grounds of the second plug.
  const right = [1, 2, 3, 9, 10, 11, 4, 5, 6, 12, 13, 14, 15, 15, 16, 16];
  const bagsWith = (cable: BagCable) => ({ ...noBags, pinouts: [pinout], cables: [cable] });
  const verdict = (ends: BagCable['plugs'][number]['ends']) =>
    spareVerdict(bagsWith(spare(ends)), spare(ends), quiet.id);

  it('is judged through both plugs, the second counted on from the first', () => {
    expect(verdict(right).word).toBe('safe');
    expect(verdict(right.map((pin) => (pin === 9 ? 12 : pin))).word).toBe('harmful');
    expect(verdict(right.map((pin, at) => (at === 3 ? 'none' : pin))).word).toBe('incomplete');
    expect(verdict(right.map((pin, at) => (at === 3 ? null : pin))).word).toBe('unknown');
    expect(verdict(right.map((pin) => (pin === 9 ? 17 : pin))).word).toBe('unknown');
  });
  it('takes two sockets where a plan uses it', () => {
    const lame: SupplyModel = {
      ...quiet,
      kit: { ...quiet.kit, cables: quiet.kit.cables.filter(({ family }) => family !== 'card-16') },
    };
    const spares = sparesFor(bagsWith(spare(right)), quiet.id);
    expect(spares).toMatchObject([{ family: 'card-16', twoEnded: true, spare: true }]);
    const on = machine();
    replace(on);
    const { cabling } = viewJob(on.job, { ...testShop, bags: bagsWith(spare(right)), supplies: [lame] });
    expect(cabling.rows.at(-1)).toMatchObject({ socketLabel: 'CPU/CARD 3 + CPU/CARD 4', state: 'to-seat' });
  });
});
