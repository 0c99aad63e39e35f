import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { ElementHandle } from 'puppeteer-core';
import { describe, expect, it } from 'vitest';
import { control, fill, goTo, press, pressTab, saved, seeText } from './application.ts';
import { openPage } from './browser.ts';
import { jobOf, newJob } from './messages.ts';
import { pressThe } from './pressing.ts';
import { application, chromium } from './running.ts';

it('what does not hold says what comes next, and what is open alike is answered for together', async () => {
  const page = await openPage(chromium.browser);
  await goTo(page, `${application.url}/jobs/LQ-0147/hand-over`);
  await seeText(page, 'Shown at the machine, 0 of 6');
  const answer = async (item: string, which: 1 | 2) =>
    pressThe(page, `[data-proof=${item}] .keys-key:nth-child(${which})`);
  await answer('started', 1);
  await answer('complaint', 2);
  await seeText(page, 'The supply was not all of it', '[data-proof=complaint]');
  await seeText(page, 'this does not hold: the client', '.page-side');
  await saved(page);
  expect((await jobOf('LQ-0147')).proofs.map(({ item, holds, subject }) => [item, holds, subject])).toEqual([
    ['started', true, 'replace:corvane-650-s'],
    ['complaint', false, 'replace:corvane-650-s'],
  ]);
  // Pressed once more, an answer is taken back.
  await answer('started', 1);
  await seeText(page, 'Shown at the machine, 0 of 6');
  await press(page, 'Sign off: Not shown yet: it starts.');
  await (await control(page, 'Reason for leaving open: Not shown yet: it starts.')).type('Collected in parts');
  await press(page, 'and the 4 others of this kind');
  await press(page, 'Sign');
  await seeText(page, 'Signed off', '.page-side');
  await saved(page);
  const { signOffs } = await jobOf('LQ-0147');
  expect(signOffs.map(({ point, reason }) => [point, reason])).toEqual(
    ['started', 'picture', 'fans', 'drives', 'card'].map((item) => [`not-shown:${item}`, 'Collected in parts']),
  );
  await press(page, 'History');
  await seeText(page, 'Signed off: Collected in parts', '.ant-drawer');
  await seeText(page, "Does not hold: the client's complaint was tried", '.ant-drawer');
  await page.keyboard.press('Escape');
  await page.browserContext().close();
});

describe('notes and pictures', () => {
  it('are kept from any station, and those that were chosen stand in the report', async () => {
    const code = await newJob('Counter radio');
    const page = await openPage(chromium.browser);
    const folder = await mkdtemp(join(tmpdir(), 'fairwatt-notes-'));
    await goTo(page, `${application.url}/jobs/${code}/intake`);
    await press(page, 'Notes');
    for (const text of ['The label is scorched at one edge', 'Only for us']) {
      await fill(page, 'A note: what was seen, or said', text);
      await press(page, 'Keep the note');
      await seeText(page, text, '.ant-drawer [aria-label=Notes]');
    }
    await pressThe(page, '.ant-drawer [data-note] input[type=checkbox]');
    await fill(page, 'What it shows', 'Label');
    const picture = join(folder, 'label.png');
    await writeFile(picture, Buffer.from(await page.screenshot({ type: 'png' })));
    const input = (await page.waitForSelector(
      '.ant-drawer input[aria-label="Choose pictures"]',
    )) as ElementHandle<HTMLInputElement>;
    await input.uploadFile(picture);
    await seeText(page, 'Label · Mara T.', '.ant-drawer .photos-photos');
    await press(page, 'In the report: Label');
    await saved(page);
    await page.keyboard.press('Escape');
    await seeText(page, 'Notes, 3', '.job-head-jobHead');
    await seeText(page, /Saved .*, Mara T\./, '.job-head-jobHead');
    await goTo(page, `${application.url}/jobs/${code}/hand-over`);
    await seeText(page, 'The label is scorched at one edge', '.report-reportSheet [data-noted]');
    await page.waitForSelector('.report-reportSheet [data-noted] img[alt=Label]');
    expect(await page.$eval('.report-reportSheet', (sheet) => sheet.textContent)).not.toContain('Only for us');
    await press(page, 'Take out: The label is scorched at one edge');
    await page.waitForFunction(() => !document.querySelector('[data-noted]')!.textContent.includes('scorched'));
    await press(page, 'Undo');
    await seeText(page, 'The label is scorched at one edge', '.report-reportSheet [data-noted]');
    await saved(page);
    await rm(folder, { recursive: true });
    await page.browserContext().close();
  });
});

describe('a job made by mistake', () => {
  it('is put away by an owner with a reason, leaves the list, and comes back', async () => {
    const code = await newJob('Entered twice');
    const page = await openPage(chromium.browser);
    await goTo(page, `${application.url}/jobs/${code}/intake`);
    await pressTab(page, 'At the counter');
    await press(page, 'Put this job away …');
    await fill(page, 'Why', 'The same machine as the one before');
    await page.keyboard.press('Enter');
    await seeText(page, 'Put away by Mara T.', '.put-away-strip-putAwayStrip');
    await saved(page);
    await goTo(page, `${application.url}/jobs`);
    expect(await page.$(`a[href="/jobs/${code}"]`)).toBeNull();
    await goTo(page, `${application.url}/jobs?state=away`);
    await page.waitForSelector(`a[href="/jobs/${code}"]`);
    await goTo(page, `${application.url}/jobs/${code}/intake`);
    await press(page, 'Take it out again');
    await saved(page);
    await goTo(page, `${application.url}/jobs`);
    await page.waitForSelector(`a[href="/jobs/${code}"]`);
    await page.browserContext().close();
  });
  it('is no matter of those who are no owner', async () => {
    const page = await openPage(chromium.browser, { technician: 'joss' });
    await goTo(page, `${application.url}/jobs/LQ-0146/intake`);
    await pressTab(page, 'At the counter');
    await control(page, 'Reached by');
    expect(
      await page.$$eval('button', (all) => all.filter((one) => one.textContent.includes('Put this job away'))),
    ).toEqual([]);
    await page.browserContext().close();
  });
});
