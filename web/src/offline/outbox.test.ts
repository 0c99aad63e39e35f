import { describe, expect, it } from 'vitest';
import type { Act } from '@fairwatt/core';
import { edit, FakeTab, knows, startingJob } from './offline.test-help.ts';
import { nextTogether, outbox } from './outbox.ts';
import { overlay } from './overlay.ts';
import type { Refused } from './parcel.ts';

const seat = (inletId: string, click: boolean): Act => ({
  kind: 'put-seat',
  seat: {
    inletId,
    cableCode: 'C1',
    piece: '',
    plugIndex: 0,
    click,
    tug: false,
    gap: false,
    halves: false,
    bend: false,
    panel: false,
  },
  basedOn: 0,
});
const note = (id: string): Act => ({ kind: 'note-outcome', id, checkId: 'look-dust', outcomeId: 'clean' });
const conflict = (words: string): Refused => {
  const job = startingJob();
  const theirs = { ...job, revision: 4, sheet: { ...job.sheet, words, version: 4 } };
  return { kind: 'conflict', title: 'changed', current: 4, theirs, changed: { by: 'joss', at: job.createdAt } };
};

describe('gathering', () => {
  it('makes one parcel of what is typed letter by letter', () => {
    const tab = new FakeTab()
      .do(edit({ words: 'G' }))
      .do(edit({ words: 'Go' }))
      .do(edit({ client: 'X' }));
    expect(tab.acts.map((parcel) => parcel.act)).toEqual([edit({ words: 'Go', client: 'X' })]);
    expect(tab.acts[0]!.state).toBe('draft');
  });
  it(
    'takes no further field in once the sheet was confirmed anew, so that nothing is sent as ' +
      'typed over an older state',
    () => {
      const tab = new FakeTab().do(edit({ words: 'A' }));
      const { seen } = tab;
      tab.seen = { ...seen, revision: 9, sheet: { ...seen.sheet, version: 9 } };
      tab.do(edit({ words: 'Ab' })).do(edit({ client: 'X' }));
      expect(tab.acts.map((parcel) => [parcel.act, parcel.base])).toEqual([
        [edit({ words: 'Ab' }), { at: 'seen', version: seen.sheet.version }],
        [edit({ client: 'X' }), { at: 'seen', version: 9 }],
      ]);
    },
  );
  it('never adds to what is sealed', () => {
    const tab = new FakeTab().do(edit({ words: 'A' }));
    tab.dispatch(outbox.seal(tab.acts[0]!.id));
    tab.do(edit({ words: 'B' }));
    expect(tab.acts.map((parcel) => [parcel.state, parcel.act])).toEqual([
      ['waiting', edit({ words: 'A' })],
      ['draft', edit({ words: 'B' })],
    ]);
    expect(tab.acts[1]!.base).toEqual({ at: 'after', parcel: tab.acts[0]!.id });
  });
  it("does not add to another person's, nor to another thing's, nor to what another tab is typing", () => {
    expect(new FakeTab().do(edit({ words: 'A' })).do(edit({ words: 'B' }), 'joss').acts).toHaveLength(2);
    expect(new FakeTab().do(seat('a', true)).do(seat('b', true)).acts).toHaveLength(2);
    const tab = new FakeTab().do(edit({ words: 'A' }));
    tab.dispatch(outbox.put({ ...tab.acts[0]!, tab: 'another' }));
    expect(tab.do(edit({ words: 'B' })).acts).toHaveLength(2);
  });
  it('bases an act on another one that changes the same thing along with its own', () => {
    const cable = (id: string): Act => ({
      kind: 'put-cable',
      cable: { id, label: id, socketLabel: '', plugs: [], way: '', tiesToCut: 0 },
      basedOn: 0,
    });
    const lead: Act = {
      kind: 'put-lead',
      lead: { id: 'l2', kind: 'fan', what: 'Fan', place: '', state: 'out' },
      basedOn: 0,
    };
    const tab = new FakeTab()
      .do({ kind: 'swap-inlets', cableId: 'c1', otherCableId: 'c2', inletId: 'a', otherInletId: 'b', basedOn: 0 })
      .do(cable('c2'))
      .do(cable('c3'))
      .do({ kind: 'mark-leads', leadIds: ['l1', 'l2'], state: 'out' })
      .do(lead);
    const [swap, second, third, mark, put] = tab.acts;
    expect(second!.base).toEqual({ at: 'after', parcel: swap!.id });
    expect(third!.base).toEqual({ at: 'seen', version: 0 });
    expect(put!.base).toEqual({ at: 'after', parcel: mark!.id });
  });
  it('replaces a tick by the next one on the same inlet', () => {
    expect(
      new FakeTab()
        .do(seat('a', false))
        .do(seat('a', true))
        .acts.map((one) => one.act),
    ).toEqual([seat('a', true)]);
  });
  it('is final once something else is done, so that the order of the work is the order of sending', () => {
    const tab = new FakeTab()
      .do(seat('a', true))
      .do({ kind: 'recheck-seats', inletIds: ['a'] })
      .do(edit({ words: 'A' }));
    expect(tab.acts.map((parcel) => [parcel.act.kind, parcel.state])).toEqual([
      ['put-seat', 'waiting'],
      ['recheck-seats', 'waiting'],
      ['edit-sheet', 'draft'],
    ]);
  });
  it('seals what only adds at once', () => {
    const tab = new FakeTab().do(note('1')).do(note('2'));
    expect(tab.acts.map((parcel) => parcel.state)).toEqual(['waiting', 'waiting']);
  });
  it('divides an edit of which only some fields are on their way', () => {
    const tab = new FakeTab().do(edit({ words: 'A' }));
    tab.dispatch(outbox.seal(tab.acts[0]!.id));
    tab.do(edit({ words: 'B', client: 'C' }));
    expect(tab.acts.map((parcel) => [parcel.act, parcel.base.at])).toEqual([
      [edit({ words: 'A' }), 'seen'],
      [edit({ words: 'B' }), 'after'],
      [edit({ client: 'C' }), 'seen'],
    ]);
  });
});

describe('what may be sent', () => {
  it('is sealed, and not typed over what is still unsent', () => {
    const tab = new FakeTab().do(edit({ words: 'A' }));
    expect(nextTogether(tab.state)).toBeNull();
    tab.dispatch(outbox.seal(tab.acts[0]!.id));
    tab.do(edit({ words: 'B' }));
    tab.dispatch(outbox.seal(tab.acts[1]!.id));
    expect(nextTogether(tab.state)?.[0].id).toBe(tab.acts[0]!.id);
    tab.dispatch(outbox.refused({ id: tab.acts[0]!.id, refused: { kind: 'other', title: 'no' } }));
    expect(nextTogether(tab.state)).toBeNull();
    tab.dispatch(outbox.confirmed([{ id: tab.acts[0]!.id, version: 7 }]));
    expect(nextTogether(tab.state)).toMatchObject([{ base: { at: 'seen', version: 7 } }]);
  });
});

describe('a conflict', () => {
  const asked = () => {
    const tab = new FakeTab().do(edit({ words: 'Mine' }));
    tab.dispatch(outbox.refused({ id: tab.acts[0]!.id, refused: conflict('Theirs') }));
    return tab;
  };
  it('stays until somebody decides; typing on changes the answer', () => {
    const tab = asked().do(edit({ words: 'Mine too' }));
    expect(tab.acts).toMatchObject([{ state: 'refused', act: edit({ words: 'Mine too' }) }]);
    expect(asked().do(edit({ client: 'X' })).acts).toHaveLength(2);
  });
  it('asks about what was typed on while the answer was on the way, all of it', () => {
    const tab = new FakeTab().do(edit({ words: 'Mi' }));
    const { id } = tab.acts[0]!;
    tab.dispatch(outbox.seal(id));
    tab.do(edit({ words: 'Min' }));
    tab.dispatch(outbox.seal(tab.acts[1]!.id));
    tab.do(edit({ words: 'Mine' }));
    tab.dispatch(outbox.refused({ id, refused: conflict('Theirs') }));
    expect(tab.acts).toMatchObject([{ id, state: 'refused', act: edit({ words: 'Mine' }) }]);
    tab.dispatch(outbox.discard(id));
    expect(tab.acts).toEqual([]);
  });
  it('leaves alone what was done to something else meanwhile, or behind a refusal that is no question', () => {
    const tab = new FakeTab().do(edit({ words: 'Mi' }));
    const { id } = tab.acts[0]!;
    tab.dispatch(outbox.seal(id));
    tab.do(edit({ words: 'Mine', client: 'X' }));
    const before = tab.acts.length;
    tab.dispatch(outbox.refused({ id, refused: { kind: 'other', title: 'no' } }));
    expect(tab.acts).toHaveLength(before);
    tab.dispatch(outbox.refused({ id, refused: conflict('Theirs') }));
    expect(tab.acts).toMatchObject([{ act: edit({ words: 'Mine' }) }, { act: edit({ client: 'X' }) }]);
  });
  it('mine is sent under a new id, based on what was seen side by side', () => {
    const tab = asked();
    const { id } = tab.acts[0]!;
    tab.dispatch(outbox.insist({ id, newId: 'new', basedOn: 4 }));
    expect(tab.acts).toMatchObject([{ id: 'new', state: 'waiting', base: { at: 'seen', version: 4 } }]);
  });
  it('theirs lets it go, and what was typed over it is asked about again', () => {
    const tab = new FakeTab().do(edit({ words: 'One' }));
    const [first] = tab.acts;
    tab.dispatch(outbox.seal(first!.id));
    tab.do(edit({ words: 'Two' }));
    tab.dispatch(outbox.discard(first!.id));
    expect(tab.acts).toMatchObject([{ act: edit({ words: 'Two' }), base: first!.base }]);
  });
  it('is shown as it was typed', () => {
    const theirs = conflict('Theirs');
    const job = theirs.kind === 'conflict' ? theirs.theirs : startingJob();
    expect(overlay(job, asked().acts, knows).sheet.words).toBe('Mine');
  });
});

describe('the job as it will be', () => {
  it('shows everything unsent, in order, over whatever the server has', () => {
    const tab = new FakeTab().do(edit({ words: 'A' }));
    tab.dispatch(outbox.seal(tab.acts[0]!.id));
    tab.do(edit({ client: 'B' }));
    const job = startingJob();
    const newer = { ...job, revision: 9, sheet: { ...job.sheet, upgrade: 'Theirs', version: 9 } };
    expect(overlay(newer, tab.acts, knows).sheet).toMatchObject({ words: 'A', client: 'B', upgrade: 'Theirs' });
  });
  it('leaves out what was refused for good, what cannot be done any more and what belongs to another job', () => {
    const tab = new FakeTab().do(edit({ words: 'A' }));
    tab.dispatch(outbox.refused({ id: tab.acts[0]!.id, refused: { kind: 'other', title: 'no' } }));
    const job = startingJob();
    expect(overlay(job, tab.acts, knows)).toBe(job);
    expect(overlay(job, new FakeTab().do({ kind: 'drop-part', partId: 'gone', basedOn: 1 }).acts, knows)).toBe(job);
    expect(overlay({ ...job, code: 'LQ-0002' }, new FakeTab().do(edit({ words: 'A' })).acts, knows).sheet.words).toBe(
      'Words',
    );
  });
});
