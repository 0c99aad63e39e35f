import { expect, it } from 'vitest';
import type { Job } from '@fairwatt/core';
import { control, press, saved, seeText, visit } from './application.ts';
import { openPage } from './browser.ts';
import { application, chromium } from './running.ts';

const stored = async (code: string) => (await (await fetch(`${application.url}/api/jobs/${code}`)).json()) as Job;

it('what does not hold says what comes next, and what is open alike is answered for together', async () => {
  const page = await openPage(chromium.browser);
  await visit(page, `${application.url}/jobs/LQ-0147/hand-over`);
  await seeText(page, 'Shown at the machine, 0 of 6');
  const answer = async (item: string, which: 1 | 2) =>
    (await page.waitForSelector(`[data-proof=${item}] .key:nth-child(${which})`))!.click();
  await answer('started', 1);
  await answer('complaint', 2);
  await seeText(page, 'The supply was not all of it', '[data-proof=complaint]');
  await seeText(page, 'this does not hold: the client', '.side');
  await saved(page);
  expect((await stored('LQ-0147')).proofs.map(({ item, holds, subject }) => [item, holds, subject])).toEqual([
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
  await seeText(page, 'Signed off', '.side');
  await saved(page);
  const { signOffs } = await stored('LQ-0147');
  expect(signOffs.map(({ point, reason }) => [point, reason])).toEqual(
    ['started', 'picture', 'fans', 'drives', 'card'].map((item) => [`not-shown:${item}`, 'Collected in parts']),
  );
  await press(page, 'History');
  await seeText(page, 'Signed off: Collected in parts', '.ant-drawer');
  await seeText(page, "Does not hold: the client's complaint was tried", '.ant-drawer');
  await page.keyboard.press('Escape');
  await page.browserContext().close();
});
