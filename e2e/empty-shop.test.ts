import { fileURLToPath } from 'node:url';
import type { ElementHandle } from 'puppeteer-core';
import { expect, it } from 'vitest';
import { becomeOwner, seeText, startApplication, visit } from './application.ts';
import { openBrowser, openPage } from './browser.ts';

it('an empty shop can be filled by hand and by files, and then takes its first job', async () => {
  const application = await startApplication(false);
  const { browser, close } = await openBrowser();
  try {
    const page = await openPage(browser, { technician: null });
    await visit(page, `${application.url}/jobs`);
    await becomeOwner(page, application, 'Ilse V.', '482913');
    await seeText(page, 'No jobs yet');
    await seeText(page, 'Ilse V.', '.shell-bar');
    const upload = async (path: string, file: string) => {
      await visit(page, `${application.url}${path}`);
      await ((await page.$('input[type=file]')) as ElementHandle<HTMLInputElement>).uploadFile(
        fileURLToPath(new URL(`../demo/${file}`, import.meta.url)),
      );
    };
    await upload('/instruments', 'shop.json');
    await seeText(page, 'Bench meter');
    await upload('/supplies', 'shop.json');
    await seeText(page, 'This is no fairwatt-supplies file of version 1.', '.ant-modal');
    await upload('/supplies', 'supplies.json');
    await seeText(page, '29 rows, 29 new', '[data-report=would]');
    await page.keyboard.press('Enter');
    await seeText(page, 'Taken: 29 rows, 29 new', '[data-report=did]');
    await page.keyboard.press('Enter');
    await page.waitForSelector('[data-model=corvane-650-s]');
    await visit(page, `${application.url}/jobs`);
    await page.keyboard.press('n');
    await page.waitForFunction(
      () =>
        document.activeElement instanceof HTMLInputElement &&
        document.activeElement.placeholder === 'Radio playout machine',
    );
    await page.keyboard.type('First machine');
    await page.keyboard.press('Enter');
    await seeText(page, 'First machine', '.job-head-jobHead');
    expect(page.url()).toMatch(/FS-0001/);
  } finally {
    await close();
    await application.end();
  }
});
