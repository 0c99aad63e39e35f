import { describe, expect, it } from 'vitest';
import { control, fill, press, pressTab, saved, seeText, visit } from './application.ts';
import { openPage } from './browser.ts';
import { jobOf, newJob } from './messages.ts';
import { application, chromium } from './running.ts';

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
  await seeText(page, 'Signed off', '.side');
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

describe('a job made by mistake', () => {
  it('is put away by an owner with a reason, leaves the list, and comes back', async () => {
    const code = await newJob('Entered twice');
    const page = await openPage(chromium.browser);
    await visit(page, `${application.url}/jobs/${code}/intake`);
    await pressTab(page, 'At the counter');
    await press(page, 'Put this job away …');
    await fill(page, 'Why', 'The same machine as the one before');
    await page.keyboard.press('Enter');
    await seeText(page, 'Put away by Mara T.', '.put-away-strip');
    await saved(page);
    await visit(page, `${application.url}/jobs`);
    expect(await page.$(`a[href="/jobs/${code}"]`)).toBeNull();
    await visit(page, `${application.url}/jobs?state=away`);
    await page.waitForSelector(`a[href="/jobs/${code}"]`);
    await visit(page, `${application.url}/jobs/${code}/intake`);
    await press(page, 'Take it out again');
    await saved(page);
    await visit(page, `${application.url}/jobs`);
    await page.waitForSelector(`a[href="/jobs/${code}"]`);
    await page.browserContext().close();
  });
  it('is no matter of those who are no owner', async () => {
    const page = await openPage(chromium.browser, { technician: 'joss' });
    await visit(page, `${application.url}/jobs/LQ-0146/intake`);
    await pressTab(page, 'At the counter');
    await control(page, 'Reached by');
    expect(
      await page.$$eval('button', (all) => all.filter((one) => one.textContent.includes('Put this job away'))),
    ).toEqual([]);
    await page.browserContext().close();
  });
});
