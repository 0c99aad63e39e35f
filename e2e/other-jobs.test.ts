import { describe, expect, it } from 'vitest';
import { likelyHarness, type Act, type CableBags, type Job } from '@fairwatt/core';
import { drawnAt, fill, goStation, goTo, mainAct, press, pressTab, saved, seeText } from './application.ts';
import { doActs, jobOf, machine, newJob, supplyCalled } from './messages.ts';
import {
  closedByEnter,
  complaintTried,
  ledUntil,
  mainActMoves,
  oldSupplyMarked,
  readAfter,
  shownByEnter,
  sideText,
} from './path.ts';
import { page } from './one-page.ts';
import { pressThe } from './pressing.ts';
import { application } from './running.ts';

const line = (station: string) =>
  page.$eval(`[data-station=${station}] .station-wire-result`, (element) => element.textContent);

/** The cables as somebody recorded them, one for each usual group of inlets. */
function recorded(job: Job, sockets: readonly string[] = []): Act[] {
  return likelyHarness(job, () => crypto.randomUUID()).map((cable, index) => ({
    kind: 'put-cable',
    cable: { ...cable, likely: undefined, socketLabel: sockets[index] ?? '' },
    basedOn: 0,
  }));
}
/** A machine with its supply and its cables on the record. @returns the code of its job */
async function taken(
  title: string,
  parts: readonly Act[],
  supply: readonly [name: string, labelOf: string],
  sockets?: readonly string[],
): Promise<string> {
  const code = await newJob(title);
  const { label } = await supplyCalled(supply[1]);
  await doActs(code, ...parts, { kind: 'put-supply', supply: { name: supply[0], label }, basedOn: 0 });
  await doActs(code, ...recorded(await jobOf(code), sockets));
  return code;
}

const worn = { kind: 'fault', faultId: 'psu-weak', confirmed: true, note: '' } as const;

describe('an old tower: 20-pin, auxiliary and the small drive plug', () => {
  it('is led to its close: each old plug, its other leads, what hangs free of the new supply', async () => {
    const parts = machine(['board-20-aux', 'processor-old', 'memory-old', 'drive-old', 'optical-old', 'floppy', 'fan']);
    const code = await taken('Harbour light desk', parts, ['Came with the desk', 'Brackholm 300 Plain']);
    const lead = { id: crypto.randomUUID(), kind: 'panel-switch', what: 'Power switch', place: 'pins 6, 8' } as const;
    await doActs(
      code,
      { kind: 'put-lead', lead: { ...lead, state: 'recorded' }, basedOn: 0 },
      { kind: 'set-finding', finding: worn, basedOn: 0 },
    );
    await goTo(page, `${application.url}/jobs/${code}/replacement`);
    await seeText(page, 'Brackholm 430 Classic', '.page-side');
    await mainAct(page);
    await seeText(page, 'Nothing is unplugged while the lead is in', '.page-side');
    const { told } = await ledUntil(page, /^Prove it/);
    for (const words of [/Unplug Main 20/, /Plug [^\n]*Auxiliary/i, /Plug [^\n]*small drive/i, /four of [^\n]*20\+4/i])
      expect(told).toMatch(words);
    for (const words of [/Lead off: Power switch/, /Lead back: Power switch/]) expect(told).toMatch(words);
    expect(await line('cables')).toMatch(/^(\d+) of \1 seated$/);
    await readAfter(page);
    await shownByEnter(page, ['started', 'picture', 'fans', 'drives', 'complaint']);
    await oldSupplyMarked(page, 'Its +5 V sags', 'An hour with every lamp on');
    await closedByEnter(page);
  });
});

describe("a maker-built desktop, whose main connector is its maker's own", () => {
  let code: string;
  it('gets no supply before the connector has the name that an adapter was made for', async () => {
    const parts = machine(['board-own', 'processor-65', 'drive-flat', 'fan']);
    code = await taken('Slim desk of the ferry office', parts, ['Slim desk supply', 'Brackholm 300 Plain']);
    await goTo(page, `${application.url}/jobs/${code}/replacement`);
    await seeText(page, 'Nothing in this shop fits', '[aria-label="Nothing fits"]');
    await seeText(page, 'name it at Intake as its maker does', '.page-side');
    await goTo(page, `${application.url}/jobs/${code}/intake`);
    await pressTab(page, 'Parts');
    await page.waitForSelector('table[aria-label=Parts] tbody tr');
    await page.$eval('table[aria-label=Parts]', (table) => {
      [...table.querySelectorAll('button')].find((button) => button.textContent === 'more')!.click();
    });
    await fill(page, 'Inlet 1', 'Slim desk, 10 pins');
    await page.keyboard.press('Enter');
    await seeText(page, 'names “Slim desk, 10 pins” goes into it');
    await saved(page);
  });
  it('is led to its close with the adapter by its label, and with what it must never be taken for', async () => {
    await doActs(code, { kind: 'set-finding', finding: worn, basedOn: 0 });
    await goStation(page, 5);
    await page.waitForSelector('[data-class=fits]');
    await mainAct(page);
    await seeText(page, 'Nothing is unplugged while the lead is in', '.page-side');
    const { told } = await ledUntil(page, /^Prove it/);
    for (const words of [/Unplug Slim desk, 10 pins/, /AD-04/, /plugs that look alike differ pin by pin/])
      expect(told).toMatch(words);
    expect(await line('cables')).toMatch(/^(\d+) of \1 seated$/);
    const { seats } = await jobOf(code);
    expect(seats.map(({ inletKind }) => inletKind)).toContain('main-own');
    await readAfter(page);
    await shownByEnter(page, ['started', 'picture', 'fans', 'drives', 'complaint']);
    await oldSupplyMarked(page, 'Cut out with its own adapter in', 'Timetables on screen for half an hour');
    await closedByEnter(page);
  });
});

describe('a supply that is kept, and a card more', () => {
  it('is led to its close: the card and its cables as steps, each cable by its socket', async () => {
    const parts = [
      ...machine(['board', 'processor-105', 'memory-new', 'drive-35', 'fan']),
      ...machine(['card-88'], 'added'),
    ];
    const sockets = ['MAIN', 'CPU/CARD 1', 'DRIVE 1'];
    const code = await taken('Chart table machine', parts, ['Corvane 850 S', 'Corvane 850 S'], sockets);
    const finding = { kind: 'no-fault', faultId: null, confirmed: false, note: 'A card is to go in' } as const;
    await doActs(code, { kind: 'set-finding', finding, basedOn: 0 });
    await goTo(page, `${application.url}/jobs/${code}/replacement`);
    await press(page, 'Keep the present supply');
    await drawnAt(page, '/cables');
    // What is kept stays so, however often Enter is pressed.
    await goStation(page, 5);
    await seeText(page, 'The present supply is kept', '.page-side');
    await mainAct(page);
    await drawnAt(page, '/cables');
    const { told } = await ledUntil(page, /^Hand over/);
    for (const words of [/Cable N1 into the supply's socket CPU\/CARD/, /Into the machine: Graphics card/])
      expect(told).toMatch(words);
    // What stays plugged is not asked for.
    expect(told).not.toMatch(/nplug Main 24/);
    const { seats, choice } = await jobOf(code);
    expect(choice?.kind).toBe('keep');
    expect(seats.map(({ inletKind }) => inletKind).filter((kind) => kind === 'card-8')).toHaveLength(2);
    await goStation(page, 7);
    await seeText(page, 'Not shown yet: it starts', '.page-side');
    await seeText(page, 'stays in, as recorded', '.report-reportSheet');
    await shownByEnter(page, ['started', 'picture', 'fans', 'drives', 'card', 'complaint']);
    await complaintTried(page, 'Charts drawn for half an hour');
    await closedByEnter(page);
  });
});

describe('a supply that is changed half-way', () => {
  it('leaves no tick to the other, gives them back with the first; its old cables go into the bags', async () => {
    const parts = machine(['board', 'processor-105', 'memory-new', 'drive-35', 'drive-35', 'fan']);
    const sockets = ['MAIN', 'CPU/CARD 1', 'DRIVE 1'];
    const code = await taken('Tide gauge tower', parts, ['Corvane 550 S', 'Corvane 550 S'], sockets);
    const choose = async (modelId: string) => {
      await goTo(page, `${application.url}/jobs/${code}/replacement`);
      await pressThe(page, `[data-candidate=${modelId}]`);
      await mainAct(page);
      await drawnAt(page, '/cables');
      await saved(page);
    };
    await choose('corvane-650-s');
    for (let count = 0; count < 60 && !/labelled Corvane 550 S/.test(await sideText(page)); count += 1)
      await mainActMoves(page);
    await press(page, 'Put these 3 into Cable bags');
    await page.waitForFunction(() => !/labelled Corvane 550 S/.test(document.querySelector('.page-side')!.textContent));
    await saved(page);
    const bags = (await (await fetch(`${application.url}/api/cable-bags`)).json()) as CableBags;
    const mine = bags.cables.filter(({ note }) => note === `Of the old supply of ${code}`);
    expect(mine.map(({ cameWith }) => cameWith)).toEqual(Array(3).fill('Corvane 550 S'));
    for (let seated = 0; seated < 2;) {
      await mainAct(page);
      await saved(page);
      seated = (await jobOf(code)).seats.length;
    }
    await choose('corvane-750-s');
    expect(await line('cables')).toMatch(/^0 of \d+ seated$/);
    await choose('corvane-650-s');
    expect(await line('cables')).toMatch(/^[12] of \d+ seated$/);
  });
});
