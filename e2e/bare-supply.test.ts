import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import type { Page } from 'puppeteer-core';
import { beforeAll, describe, expect, it } from 'vitest';
import { choose, fill, goTo, mainAct, press, saved, seeText } from './application.ts';
import { openPage } from './browser.ts';
import { jobOf, newJob } from './messages.ts';
import { pressThe } from './pressing.ts';
import { application, chromium } from './running.ts';

let page: Page;
let code: string;
beforeAll(async () => {
  page = await openPage(chromium.browser);
  code = await newJob('Supply over the counter');
  await goTo(page, `${application.url}/jobs/${code}/intake`);
});
const primary = () => page.$eval('[data-primary]', (element) => element.textContent);
const read = async (line: string) => {
  await fill(page, 'Quick entry of readings', line);
  await page.keyboard.press('Enter');
  await seeText(page, 'Kept', '#quick-understood');
};
const labelText = async () => {
  const answer = await fetch(`${application.url}/api/jobs/${code}/supply-label.pdf?stock=roll`);
  const document = await getDocument({ data: new Uint8Array(await answer.arrayBuffer()), verbosity: 0 }).promise;
  return (await (await document.getPage(1)).getTextContent()).items
    .map((item) => ('str' in item ? item.str : ''))
    .join(' ')
    .replace(/\s+/g, ' ');
};

describe('a supply by itself', () => {
  it('is entered by its label alone; what a machine has is not asked', async () => {
    await press(page, 'A supply by itself');
    await page.waitForFunction(
      () => document.querySelectorAll('[aria-label="Parts of the intake"] label').length === 3,
    );
    await fill(page, 'Name on the label', 'Corvane 650 S');
    await page.keyboard.press('Enter');
    await seeText(page, 'Corvane 650 S', '.page-side .text-decides');
    await saved(page);
    expect((await jobOf(code)).sheet.bareSupply).toBe(true);
    await goTo(page, `${application.url}/jobs/${code}/load`);
    await seeText(page, 'A supply by itself has no such station');
    await mainAct(page);
    await seeText(page, 'cannot tell yet', '.page-side');
  });
  it('is started without a machine, read rail by rail, and good for that load', async () => {
    await seeText(page, 'Bridge pin 16 (start) to pin 17 (ground)', '.page-side');
    await press(page, 'Starts');
    await choose(page, 'Instrument', 'Bench meter');
    await pressThe(page, '[aria-label="Load condition"] .ant-segmented-item:nth-child(1)');
    expect(await primary()).toContain('Next: +12 V off load');
    await read('12 12.04 5 5.02 3.3 3.31');
    expect(await primary()).toContain('Next: +5 V standby off load');
    await read('sb 5.03');
    await seeText(page, 'off load; what it does at work is not known', '.page-side');
    await read('12 11.98 work 5 5.00 work 3.3 3.29 work');
    await seeText(page, 'under load as well', '.page-side');
    expect(await primary()).toContain('Hand over');
    await page.keyboard.press('Escape');
  });
  it('gets its label and closes once it is said what becomes of it', async () => {
    await saved(page);
    await goTo(page, `${application.url}/jobs/${code}/hand-over`);
    await seeText(page, '1 open', '.page-side');
    await press(page, 'good, and kept');
    await fill(page, 'What it is kept for', 'Loan supply for the bench');
    await saved(page);
    const text = await labelText();
    expect(text).toContain('GOOD, KEPT');
    expect(text).toContain('Corvane 650 S, 650 W');
    expect(text).toContain('Loan supply for the bench');
    await seeText(page, 'The power supply is good, as far as it was tried.', '.page-work');
    await seeText(page, 'Nothing open', '.page-side');
    await mainAct(page);
    await seeText(page, 'Closed', '.page-side');
    await saved(page);
    expect((await jobOf(code)).state).toBe('closed');
  });
});
