import { openBrowser, openPage } from '../e2e/browser.ts';
import { becomeOwner, press, seeText, visit, fill } from '../e2e/application.ts';
import { setTimeout as wait } from 'node:timers/promises';
const [url = '', code = ''] = process.argv.slice(2);
const { browser, close } = await openBrowser();
try {
  const page = await openPage(browser, { technician: null });
  await visit(page, `${url}/jobs`);
  await becomeOwner(page, { url, code } as never, 'Ilse V.', '482913');
  await seeText(page, 'No jobs yet');
  for (const [name, role, secret] of [['Joss Tern', 'technician', '590214'], ['Pim Vale', 'trainee', '371926']] as const)
    await page.evaluate(async (n, r, s) => { await fetch('/api/access/people', { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify({ name: n, role: r, secret: s }) }); }, name, role, secret);
  await visit(page, `${url}/people`);
  await fill(page, 'Name of the new device', 'Phone of the counter');
  await press(page, 'Enrol a device');
  await wait(1000);
  const height = await page.evaluate(() => document.querySelector('.page')?.scrollHeight ?? 800);
  await page.setViewport({ width: 1280, height: Math.min(2000, height + 80) });
  await wait(500);
  await page.screenshot({ path: '/tmp/s2.png' });
  await page.setViewport({ width: 390, height: 1600 });
  await visit(page, `${url}/people`);
  await wait(500);
  await page.screenshot({ path: '/tmp/s4.png' });
  await page.setViewport({ width: 1280, height: 800 });
  await visit(page, `${url}/settings`);
  await page.screenshot({ path: '/tmp/s6.png' });
} finally { await close(); }
