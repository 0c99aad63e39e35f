import { openBrowser, openPage } from '../e2e/browser.ts';
import { visit } from '../e2e/application.ts';
const [base, ...paths] = process.argv.slice(2);
const { browser, close } = await openBrowser();
for (const spec of paths) {
  const [path, name, w = '1280', h = '800', sel, theme = 'light'] = spec.split('|');
  const page = await openPage(browser, { theme: theme as 'light', width: Number(w), height: Number(h) });
  await page.evaluateOnNewDocument('globalThis.__name ??= (f) => f');
  await visit(page, base + path!);
  await new Promise((r) => setTimeout(r, 1200));
  for (const one of (sel ?? '').split(';;').filter((x) => x)) {
    if (one.startsWith('key:')) await page.keyboard.press(one.slice(4) as any);
    else await page.evaluate((s) => { document.querySelector(s)!.dispatchEvent(new MouseEvent('click', { bubbles: true })); }, one);
    await new Promise((r) => setTimeout(r, 500));
  }
  await page.screenshot({ path: `/tmp/${name}.png` });
  console.log(name, await page.evaluate(() => document.documentElement.scrollWidth));
  await page.close();
}
await close();
