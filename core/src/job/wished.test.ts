import { describe, expect, it } from 'vitest';
import { noBags, type BagAdapter, type CableBags } from '../cable/index.ts';
import { stepText } from '../wording/index.ts';
import { harnessChanges, pieceOf, scheduleOf, stepsOf, tagsOf, viewJob } from './index.ts';
import { allTicks, TestBench, testShop, uuid } from './fixture.test-help.ts';

const longer: BagAdapter = {
  id: uuid(40),
  version: 1,
  label: 'AD-40',
  place: '',
  takes: 'cpu-8',
  gives: 'cpu-4+4',
  legs: 1,
  moulded: false,
  addsMillimetres: 200,
  watts: null,
  count: 2,
};
const bags: CableBags = { ...noBags, adapters: [longer] };
const bench = () => new TestBench().part('board', 'board').choose('corvane-650-s');
const wish = (on: TestBench) =>
  on.do({
    kind: 'put-pin',
    basedOn: 0,
    pin: { inletId: 'board-2', kitCableId: 'cpu', copy: 0, plugIndex: 0, socketLabel: null, adapterId: longer.id },
  });
const wished = () => wish(bench());
const cablingOf = (on: TestBench, given = bags, adapters = true) => {
  const settings = { ...testShop.settings, choosing: { ...testShop.settings.choosing, adapters } };
  return viewJob(on.job, { ...testShop, bags: given, settings }).cabling;
};
const rowIn = (cabling: ReturnType<typeof cablingOf>) => cabling.rows.find(({ inletId }) => inletId === 'board-2')!;

describe('an extension that somebody wishes for a job', () => {
  it('is named wherever the cable is: row, schedule, tag, step and what changed', () => {
    const on = wished();
    const cabling = cablingOf(on);
    expect(rowIn(cabling)).toMatchObject({
      adapterId: longer.id,
      adapterLabel: 'AD-40',
      pinned: true,
      state: 'to-seat',
    });
    const { label } = rowIn(cabling);
    const line = scheduleOf(on.job, cabling, []).find(({ inletLabel }) => inletLabel === label);
    expect(line?.through).toBe('AD-40');
    expect(tagsOf(cabling).filter(({ through }) => through !== null)).toMatchObject([{ end: 'device', here: label }]);
    const step = stepsOf(on.job, cabling, 'refit').find(({ inlet }) => inlet?.id === 'board-2')!;
    expect(stepText(step)).toBe(`${label}, cable C02, through AD-40`);
    expect(harnessChanges(on.job, cabling).find(({ inletId }) => inletId === 'board-2')?.after?.through).toBe('AD-40');
  });
  it('is one more thing to seat: what was ticked without it no longer counts', () => {
    const on = bench();
    const row = rowIn(cablingOf(on));
    const { cableCode, plugIndex } = row;
    const seat = { inletId: 'board-2', cableCode: cableCode!, plugIndex: plugIndex!, piece: pieceOf(row), ...allTicks };
    on.do({ kind: 'put-seat', seat, basedOn: 0 });
    expect(rowIn(cablingOf(on)).state).toBe('seated');
    wish(on);
    expect(rowIn(cablingOf(on)).state).toBe('to-seat');
  });
  it('is planned although the shop plans with no adapters; no other one comes with it', () => {
    const cabling = cablingOf(wished(), bags, false);
    expect(rowIn(cabling).adapterId).toBe(longer.id);
    expect(cabling.rules.adapters.map(({ id, count }) => [id, count])).toEqual([[longer.id, 1]]);
    expect(cablingOf(bench(), bags, false).rules.adapters).toEqual([]);
  });
  it('is told where it left the bags, and its inlet is planned anew', () => {
    const cabling = cablingOf(wished(), noBags);
    expect(cabling.plan?.refused).toMatchObject([{ inletId: 'board-2', code: 'no-adapter' }]);
    expect(rowIn(cabling)).toMatchObject({ adapterId: null, adapterLabel: null, state: 'to-seat' });
  });
});
