// How long an act takes until it is on the screen, in a real browser: node … bench/acts.ts URL of a running demo,
// ROUNDS.
import { visit } from '../e2e/application.ts';
import { openBrowser, openPage } from '../e2e/browser.ts';

const [address = 'http://127.0.0.1:4870', rounds = '6'] = process.argv.slice(2);
const { browser, close } = await openBrowser();
const page = await openPage(browser);

/**
 * Clicks one after the other, in turn, and waits each time until two frames have been painted.
 * @returns the median, in milliseconds
 */
async function time(path: string, selectors: readonly string[], clicks: number): Promise<number> {
  await visit(page, `${address}${path}`);
  for (const selector of selectors) await page.waitForSelector(selector);
  const times: number[] = [];
  for (let click = 0; click < clicks; click += 1) {
    times.push(
      await page.evaluate(
        async (wanted: string) => {
          const element = document.querySelector<HTMLElement>(wanted);
          if (element === null) throw new Error(`nothing is called ${wanted}`);
          const begun = performance.now();
          element.click();
          await new Promise((resolve) => {
            requestAnimationFrame(() => {
              requestAnimationFrame(resolve);
            });
          });
          return performance.now() - begun;
        },
        selectors[click % selectors.length]!,
      ),
    );
    await new Promise((resolve) => {
      setTimeout(resolve, 700);
    });
  }
  return times.sort((a, b) => a - b)[Math.floor(times.length / 2)]!;
}

console.log('| act | median ms |\n| --- | ---: |');
const choice = (label: string, place: number) => `[aria-label="${label}"] button:nth-child(${place})`;
for (const [name, path, selectors, clicks] of [
  [
    'complaint changed (suspects, stations)',
    '/jobs/LQ-0146/intake',
    [choice('How it has gone', 1), choice('How it has gone', 2)],
    Number(rounds),
  ],
  [
    'school changed (29 supplies ranked anew)',
    '/jobs/LQ-0142/load?way=rules',
    ['[data-school=half-load] input', '[data-school=peaks-covered] input'],
    Number(rounds),
  ],
  ['station changed', '/jobs/LQ-0142/load', ['[data-station=cables]'], 1],
] as const)
  console.log(`| ${name} | ${(await time(path, selectors, clicks)).toFixed(0)} |`);
await close();
