import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { mostActsTogether } from '@fairwatt/contract';
import { edit, FakeTab, type FakeServer } from './offline.test-help.ts';
import { outbox } from './outbox.ts';
import { heldMilliseconds, mostFailures, orphanMilliseconds, retryMilliseconds, settleMilliseconds } from './sender.ts';

const note = (id: string) => ({ kind: 'note-outcome' as const, id, checkId: 'look-dust', outcomeId: 'clean' });

describe('sending', () => {
  it('sends what was typed once the typing pauses, and says so', async () => {
    const tab = new FakeTab().do(edit({ words: 'Typed' }));
    await tab.clock.pass(100);
    expect(tab.server.job.sheet.words).toBe('Words');
    await tab.pause();
    expect([tab.server.job.sheet.words, tab.state.parcels]).toEqual(['Typed', []]);
  });
  it('loses nothing when the answer is lost and the typing goes on', async () => {
    const tab = new FakeTab();
    tab.server.mood = 'lost';
    tab.do(edit({ words: 'First' }));
    await tab.pause();
    expect(tab.server.job.sheet.words).toBe('First');
    tab.do(edit({ words: 'First and more' }));
    await tab.pause();
    tab.server.mood = 'well';
    await tab.clock.pass(2 * retryMilliseconds);
    expect([tab.server.job.sheet.words, tab.state.parcels]).toEqual(['First and more', []]);
  });
  it('keeps trying while the server is away, and sends in order when it is back', async () => {
    const tab = new FakeTab();
    tab.server.mood = 'away';
    tab.do(note('a')).do(edit({ words: 'A' }));
    await tab.pause();
    tab.do(note('b'));
    await tab.clock.pass(60_000);
    expect([tab.connection, tab.state.parcels.length]).toEqual(['away', 3]);
    const ids = tab.state.parcels.map((parcel) => parcel.id);
    tab.server.mood = 'well';
    await tab.clock.pass(retryMilliseconds);
    expect([tab.connection, tab.state.parcels, tab.server.arrived]).toEqual(['here', [], ids]);
  });
  it('a change that the server fails over does not stop those behind it', async () => {
    const tab = new FakeTab().do(note('bad'));
    const [bad] = tab.acts;
    tab.server.failOn.add(bad!.id);
    tab.do({ ...note('good'), checkId: 'look-plugs' });
    await tab.clock.pass(mostFailures * retryMilliseconds + 10);
    expect(tab.server.job.outcomes.map((outcome) => outcome.id)).toEqual(['good']);
    expect(tab.acts).toMatchObject([{ id: bad!.id, state: 'refused', refused: { kind: 'other' } }]);
  });
  it('seals the draft of a tab that was closed in the middle of a word', async () => {
    const tab = new FakeTab().do(edit({ words: 'Cut of' }));
    tab.dispatch(outbox.put({ ...tab.acts[0]!, tab: 'closed' }));
    tab.sender.wake();
    await tab.clock.pass(2 * orphanMilliseconds + 10);
    expect([tab.server.job.sheet.words, tab.state.parcels]).toEqual(['Cut of', []]);
  });
});

describe('acts that wait together', () => {
  const notes = (tab: FakeTab, ...ids: string[]) =>
    ids.reduce((one, id) => one.do({ ...note(id), checkId: `check-${id}` }), tab);
  /** A tab that kept acts while the server was away, and what it sends from then on. */
  async function afterAway(tab: FakeTab): Promise<string[][]> {
    const sent: string[][] = [];
    const post = tab.server.post;
    tab.server.post = (parcels) => {
      sent.push(parcels.map(({ id }) => id));
      return post(parcels);
    };
    tab.server.mood = 'well';
    await tab.clock.pass(6 * retryMilliseconds);
    return sent;
  }
  it('go in one message, and each is done once', async () => {
    const tab = new FakeTab();
    tab.server.mood = 'away';
    notes(tab, 'a', 'b', 'c');
    await tab.pause();
    const ids = tab.acts.map(({ id }) => id);
    expect(await afterAway(tab)).toEqual([ids]);
    expect(tab.server.job.outcomes.map(({ id }) => id)).toEqual(['a', 'b', 'c']);
    expect(tab.state.parcels).toEqual([]);
  });
  it('go fifty at once, and closing goes alone', async () => {
    const tab = new FakeTab();
    tab.server.mood = 'away';
    notes(tab, ...Array.from({ length: mostActsTogether + 2 }, (_, index) => `n${index}`));
    tab.do({ kind: 'close', basedOn: 0 });
    await tab.pause();
    expect((await afterAway(tab)).map((ids) => ids.length)).toEqual([mostActsTogether, 2, 1]);
    expect([tab.server.job.state, tab.state.parcels]).toEqual(['closed', []]);
  });
  it('are done up to the first that is refused; those behind it go on', async () => {
    const tab = new FakeTab();
    tab.server.mood = 'away';
    notes(tab, 'a').do(edit({ words: 'Mine' }));
    await tab.pause();
    notes(tab, 'b', 'c');
    tab.server.other(edit({ words: 'Theirs' }));
    expect((await afterAway(tab)).map((ids) => ids.length)).toEqual([4, 2]);
    expect(tab.server.job.outcomes.map(({ id }) => id)).toEqual(['a', 'b', 'c']);
    expect(tab.acts).toMatchObject([{ state: 'refused', refused: { kind: 'conflict' } }]);
  });
  it('go one by one once, where the server fails over one of them', async () => {
    const tab = new FakeTab();
    tab.server.mood = 'away';
    notes(tab, 'a', 'bad', 'c');
    await tab.pause();
    const [, bad] = tab.acts;
    tab.server.failOn.add(bad!.id);
    await afterAway(tab);
    expect(tab.server.job.outcomes.map(({ id }) => id)).toEqual(['a', 'c']);
    expect(tab.acts).toMatchObject([{ id: bad!.id, state: 'refused', refused: { kind: 'other' } }]);
  });
  it('wait together for their person, and what was typed over one of them never overtakes it', async () => {
    const tab = new FakeTab();
    tab.server.mood = 'away';
    tab.do(edit({ words: 'One' }));
    await tab.pause();
    tab.do(edit({ words: 'Two' }));
    await tab.pause();
    notes(tab, 'a');
    expect((await afterAway(tab)).map((ids) => ids.length)).toEqual([1, 2]);
    expect([tab.server.job.sheet.words, tab.state.parcels]).toEqual(['Two', []]);
  });
});

describe('another person at the same bench', () => {
  it('sends what is theirs past what waits for the one before, and that once its person is in again', async () => {
    const tab = new FakeTab();
    tab.server.mood = 'away';
    tab.do(edit({ words: 'By Mara' })).do(note('of-mara'));
    await tab.pause();
    tab.server.person = 'joss';
    tab.server.mood = 'well';
    tab.do(edit({ client: 'By Joss' }), 'joss');
    await tab.pause();
    await tab.clock.pass(2 * retryMilliseconds);
    expect(tab.server.job.sheet).toMatchObject({ words: 'Words', client: 'By Joss' });
    expect(tab.acts.map(({ by, state }) => [by, state])).toEqual([
      ['mara', 'waiting'],
      ['mara', 'waiting'],
    ]);
    tab.server.person = 'mara';
    tab.sender.release();
    await tab.clock.pass(10);
    expect([tab.server.job.sheet.words, tab.server.job.outcomes.length, tab.acts]).toEqual(['By Mara', 1, []]);
  });
  it('tries again by itself, since the person may have signed in at another tab', async () => {
    const tab = new FakeTab();
    tab.server.person = 'joss';
    tab.do(edit({ words: 'By Mara' }));
    await tab.pause();
    expect(tab.askedWhoIsIn).toBe(1);
    tab.server.person = 'mara';
    await tab.clock.pass(heldMilliseconds - settleMilliseconds - 1000);
    expect(tab.server.job.sheet.words).toBe('Words');
    await tab.clock.pass(2000);
    expect([tab.server.job.sheet.words, tab.acts]).toEqual(['By Mara', []]);
  });
  it('does not slip past what an earlier one typed on the same thing', async () => {
    const tab = new FakeTab();
    tab.server.person = 'joss';
    tab.do(edit({ words: 'By Mara' }));
    await tab.pause();
    tab.do(edit({ words: 'By Joss' }), 'joss');
    await tab.pause();
    await tab.clock.pass(5000);
    expect([tab.server.job.sheet.words, tab.acts.length]).toEqual(['Words', 2]);
    tab.server.person = 'mara';
    tab.sender.release();
    await tab.clock.pass(10);
    expect(tab.server.job.sheet.words).toBe('By Mara');
    tab.server.person = 'joss';
    tab.sender.release();
    await tab.clock.pass(10);
    expect([tab.server.job.sheet.words, tab.acts]).toEqual(['By Joss', []]);
  });
});

describe('two people', () => {
  it('at different fields never meet', async () => {
    const tab = new FakeTab();
    tab.server.other(edit({ client: 'Theirs' }));
    tab.do(edit({ words: 'Mine' }));
    await tab.pause();
    expect(tab.server.job.sheet).toMatchObject({ client: 'Theirs', words: 'Mine' });
    expect(tab.state.parcels).toEqual([]);
  });
  it('at the same field: the later one is asked, and what he typed on is not slipped past', async () => {
    const tab = new FakeTab();
    tab.server.other(edit({ words: 'Theirs' }));
    tab.do(edit({ words: 'Mine' }));
    await tab.pause();
    expect(tab.acts).toMatchObject([{ state: 'refused', refused: { kind: 'conflict' } }]);
    expect(tab.server.job.sheet.words).toBe('Theirs');
    tab.do(edit({ words: 'Mine still' }));
    await tab.pause();
    expect(tab.server.job.sheet.words).toBe('Theirs');
    tab.dispatch(outbox.insist({ id: tab.acts[0]!.id, newId: tab.newId(), basedOn: tab.server.job.sheet.version }));
    await tab.clock.pass(10);
    expect([tab.server.job.sheet.words, tab.state.parcels]).toEqual(['Mine still', []]);
  });
  it('a field that another wrote while an earlier word of mine was on its way is asked about', async () => {
    const tab = new FakeTab();
    tab.server.mood = 'away';
    tab.do(edit({ words: 'One' }));
    await tab.pause();
    tab.do(edit({ client: 'Mine' }));
    await tab.pause();
    tab.server.other(edit({ client: 'Theirs' }));
    tab.server.mood = 'well';
    await tab.clock.pass(2 * retryMilliseconds);
    expect(tab.server.job.sheet).toMatchObject({ words: 'One', client: 'Theirs' });
    expect(tab.acts).toMatchObject([{ act: edit({ client: 'Mine' }), state: 'refused' }]);
  });
});

describe('whatever the line does', () => {
  const found = { kind: 'no-fault' as const, faultId: null, confirmed: false, note: '' };
  type Turn =
    | { readonly do: 'type'; readonly field: 'words' | 'client' | 'upgrade'; readonly text: string }
    | { readonly do: 'note' | 'pause' | 'wait' | 'find' | 'unfind' }
    | { readonly do: 'mood'; readonly mood: FakeServer['mood'] };
  const turn: fc.Arbitrary<Turn> = fc.oneof(
    fc.record({
      do: fc.constant('type' as const),
      field: fc.constantFrom('words' as const, 'client' as const, 'upgrade' as const),
      text: fc.string({ maxLength: 6 }),
    }),
    fc.record({
      do: fc.constantFrom('note' as const, 'pause' as const, 'wait' as const, 'find' as const, 'unfind' as const),
    }),
    fc.record({
      do: fc.constant('mood' as const),
      mood: fc.constantFrom('well' as const, 'away' as const, 'lost' as const),
    }),
  );
  it('everything that was done is on the server once, in order, when it is well again', async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(turn, { maxLength: 40 }), async (turns) => {
        const tab = new FakeTab();
        const wanted: Record<string, string> = {};
        const notes: string[] = [];
        let finding: (typeof found & { note: string }) | null = null;
        for (const one of turns) {
          switch (one.do) {
            case 'type':
              tab.do(edit({ [one.field]: one.text }));
              wanted[one.field] = one.text;
              break;
            case 'note':
              notes.push(tab.newId());
              tab.do(note(notes.at(-1)!));
              break;
            case 'find':
            case 'unfind':
              finding = one.do === 'find' ? { ...found, note: String(notes.length) } : null;
              tab.do({ kind: 'set-finding', finding, basedOn: 0 });
              break;
            case 'pause':
              await tab.pause();
              break;
            case 'wait':
              await tab.clock.pass(700);
              break;
            case 'mood':
              tab.server.mood = one.mood;
          }
        }
        tab.server.mood = 'well';
        await tab.pause();
        await tab.clock.pass(200 * retryMilliseconds);
        expect(tab.state.parcels).toEqual([]);
        expect(tab.server.job.sheet).toMatchObject(wanted);
        expect(tab.server.job.finding?.note).toBe((finding as { note: string } | null)?.note);
        expect(tab.server.job.outcomes.map((outcome) => outcome.id)).toEqual(notes);
      }),
      { numRuns: 200, seed: 21 },
    );
  });
});
