// How long an act takes until it is on the screen, in a real browser: node … bench/acts.ts URL of a running demo.
import { openBrowser, openPage } from '../e2e/browser.ts';

const [address = 'http://127.0.0.1:4870'] = process.argv.slice(2);
const { browser, close } = await openBrowser();
const page = await openPage(browser);

/** Clicks and waits until two frames have been painted; returns the median, in milliseconds, over an even number of toggles. */
async function time(path: string, selector: string, rounds: number): Promise<number> {
  await page.goto(`${address}${path}`, { waitUntil: 'networkidle0' });
  await page.waitForSelector(selector);
  const times: number[] = [];
  for (let round = 0; round < rounds; round += 1) {
    times.push(
      await page.evaluate(async (wanted: string) => {
        const element = document.querySelector<HTMLElement>(wanted)!;
        const begun = performance.now();
        element.click();
        await new Promise((resolve) => {
          requestAnimationFrame(() => {
            requestAnimationFrame(resolve);
          });
        });
        return performance.now() - begun;
      }, selector),
    );
    await new Promise((resolve) => {
      setTimeout(resolve, 700);
    });
  }
  return times.sort((a, b) => a - b)[Math.floor(times.length / 2)]!;
}

console.log('| act | median ms |\n| --- | ---: |');
for (const [name, path, selector] of [
  [
    'complaint changed (suspects, stations)',
    '/jobs/LQ-0146/intake',
    '[aria-label="How it has gone"] button:nth-child(2)',
  ],
  [
    'school changed (28 supplies ranked anew)',
    '/jobs/LQ-0142/load',
    '[aria-label="Sizing schools"] button:nth-child(2)',
  ],
  ['station changed', '/jobs/LQ-0142/load', '[data-station=cables]'],
] as const)
  console.log(`| ${name} | ${(await time(path, selector, name.startsWith('station') ? 1 : 6)).toFixed(0)} |`);
await close();
