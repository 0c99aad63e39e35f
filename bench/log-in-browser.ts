// A log of a million rows in a real browser, by the screen and its worker, against the CSV library alone in a worker of
// its own on the same file, turn about: node … bench/log-in-browser.ts URL of a running demo.
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from 'puppeteer-core';
import { visit } from '../e2e/application.ts';
import { openBrowser, openPage } from '../e2e/browser.ts';
import { logText } from './log-rows.ts';

const [address = 'http://127.0.0.1:4870', ...sizes] = process.argv.slice(2);
const [rows = 1_000_000, turns = 5] = sizes.map(Number);
const library = await readFile(createRequire(import.meta.url).resolve('papaparse/papaparse.min.js'), 'utf8');
const folder = await mkdtemp(join(tmpdir(), 'fairwatt-bench-'));
const path = join(folder, 'million.csv');
await writeFile(path, logText(rows));
const { browser, close } = await openBrowser();

/** The page before is still being taken down when it is closed. */
const quiet = () =>
  new Promise((resolve) => {
    setTimeout(resolve, 1000);
  });

/** Milliseconds the CSV library needs for the file in a worker, with the settings the application gives it. */
async function alone(): Promise<number> {
  const page = await openPage(browser);
  await page.setBypassCSP(true);
  await page.goto(`${address}/`, { waitUntil: 'domcontentloaded' });
  await page.evaluate(() => {
    document.body.innerHTML = '<input type="file">';
  });
  await (await page.waitForSelector('input[type=file]'))!.uploadFile(path);
  const spent = await page.evaluate(
    (source: string, wanted: number) =>
      new Promise<number>((resolve, reject) => {
        const work =
          'onmessage = ({ data }) => { const begun = performance.now(); let rows = 0; ' +
          'Papa.parse(data, { delimiter: ",", skipEmptyLines: true, chunkSize: 1024 * 1024, chunk: ' +
          '(result) => { rows += result.data.length; }, complete: () => { postMessage({ spent: ' +
          'performance.now() - begun, rows }); } }); };';
        const worker = new Worker(URL.createObjectURL(new Blob([source, ';', work], { type: 'text/javascript' })));
        worker.onerror = (event) => {
          reject(new Error(event.message));
        };
        worker.onmessage = ({ data }: MessageEvent<{ spent: number; rows: number }>) => {
          if (data.rows === wanted) resolve(data.spent);
          else reject(new Error(`${data.rows} rows`));
        };
        worker.postMessage(document.querySelector('input')!.files![0]);
      }),
    library,
    rows + 1,
  );
  await page.browserContext().close();
  return spent;
}

/**
 * Milliseconds from asking the screen to read the file until its summary stands there, and the longest task of the main
 * thread meanwhile.
 */
async function whole(): Promise<{ readonly spent: number; readonly longest: number }> {
  const page: Page = await openPage(browser);
  await visit(page, `${address}/jobs/LQ-0142/measure?way=log`);
  await (await page.waitForSelector('input[type=file]'))!.uploadFile(path);
  await page.waitForSelector('[aria-label="How the file is read"] [data-primary]:not(:disabled)');
  const found = await page.evaluate(
    () =>
      new Promise<{ spent: number; longest: number }>((resolve) => {
        let longest = 0;
        const tasks = new PerformanceObserver((list) => {
          for (const entry of list.getEntries()) longest = Math.max(longest, entry.duration);
        });
        tasks.observe({ entryTypes: ['longtask'] });
        const begun = performance.now();
        new MutationObserver((_, observer) => {
          if (document.querySelector('[data-log-read]') === null) return;
          observer.disconnect();
          const spent = performance.now() - begun;
          // The chart is drawn after the summary; its tasks count as well.
          setTimeout(() => {
            tasks.disconnect();
            resolve({ spent, longest });
          }, 1500);
        }).observe(document.body, { subtree: true, childList: true });
        document.querySelector<HTMLElement>('[aria-label="How the file is read"] [data-primary]')!.click();
      }),
  );
  await page.browserContext().close();
  return found;
}

try {
  await alone();
  const runs = [];
  for (let turn = 0; turn < turns; turn += 1) {
    await quiet();
    const before = await alone();
    await quiet();
    runs.push({ alone: before, whole: await whole() });
  }
  const ratios = runs.map((run) => run.whole.spent / run.alone).sort((a, b) => a - b);
  const longest = Math.max(...runs.map((run) => run.whole.longest));
  console.log(
    '| turn | CSV library alone, ms | read, analysed and shown, ms | ratio | longest main-thread task, ms |\n' +
      '| --- | ---: | ---: | ---: | ---: |',
  );
  runs.forEach((run, turn) => {
    console.log(
      `| ${turn + 1} | ${Math.round(run.alone)} | ${Math.round(run.whole.spent)} | ` +
        `${(run.whole.spent / run.alone).toFixed(2)} | ` +
        `${run.whole.longest === 0 ? 'under 50' : Math.round(run.whole.longest)} |`,
    );
  });
  console.log(
    `\nMedian ratio ${ratios[turns >> 1]!.toFixed(2)}, worst ${ratios.at(-1)!.toFixed(2)} ` +
      '(wanted: at most 2 at the median); longest task of the main thread ' +
      `${longest === 0 ? 'under 50 ms' : `${Math.round(longest)} ms`} (wanted: at most 50).`,
  );
  if (ratios[turns >> 1]! > 2 || longest > 50) process.exitCode = 1;
} finally {
  await close();
  await rm(folder, { recursive: true, force: true });
}
