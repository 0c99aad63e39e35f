// Pictures of labels drawn for the purpose, read by the screen and its worker: how many of the amps and watts are
// right, how many are marked to be looked at, and how long it takes: node … bench/label.ts URL of a running demo.
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from 'puppeteer-core';
import { press, visit } from '../e2e/application.ts';
import { openBrowser, openPage } from '../e2e/browser.ts';
import { madeUpLabel, type MadeUpLabel } from './labels/made-up-label.ts';
import { paintLabel } from './labels/paint-label.ts';

const [address = 'http://127.0.0.1:4870', countText = '300'] = process.argv.slice(2);
const count = Number(countText);
const folder = await mkdtemp(join(tmpdir(), 'fairwatt-labels-'));
const { browser, close } = await openBrowser();

/** A page that draws labels, with the application's own typeface among those of the system. */
async function openPainter(): Promise<(label: MadeUpLabel) => Promise<string>> {
  const page = await browser.newPage();
  // The name that the compiler gives functions with is not known in the page.
  await page.evaluate('globalThis.__name ??= (one) => one');
  const face =
    '@fontsource-variable/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-wght-normal.woff2';
  const font = await readFile(createRequire(import.meta.url).resolve(face));
  await page.evaluate(async (data) => {
    const loaded = new FontFace('Atkinson Hyperlegible Next Variable', `url(data:font/woff2;base64,${data})`, {
      weight: '200 800',
    });
    document.fonts.add(await loaded.load());
  }, font.toString('base64'));
  return async (label) => {
    const drawn = await page.evaluate(paintLabel, label);
    const path = join(folder, `${label.seed}.png`);
    await writeFile(path, Buffer.from(drawn.split(',')[1]!, 'base64'));
    return path;
  };
}

interface Shown {
  readonly figures: Readonly<Record<string, { readonly value: number | null; readonly marked: boolean }>>;
  readonly problems: number;
  readonly spent: number;
}

/** Gives the screen a picture, and takes down what it shows. */
async function read(page: Page, path: string): Promise<Shown> {
  const field = (await page.waitForSelector('.ant-modal input[type=file]'))!;
  const begun = performance.now();
  await field.uploadFile(path);
  await page.waitForSelector('.ant-modal [role=status] .ant-progress');
  await page.waitForFunction(
    () =>
      document.querySelector('.ant-modal .ant-progress') === null &&
      document.querySelector('.ant-modal input[type=file]') !== null,
    { timeout: 60_000 },
  );
  const spent = performance.now() - begun;
  const seen = await page.evaluate(() => {
    const rows = [...document.querySelectorAll('.ant-modal tbody tr')].flatMap((row) => {
      const input = row.querySelector<HTMLInputElement>('input.text-fig');
      if (input === null) return [];
      const text = row.textContent;
      const marked = text.includes('It is right') || text.includes('type it');
      return [
        [
          (input.getAttribute('aria-label') ?? '').replace(/, (?:amps|watts)$/, ''),
          { value: input.value === '' ? null : Number(input.value), marked },
        ],
      ];
    });
    return {
      figures: Object.fromEntries(rows) as Record<string, { value: number | null; marked: boolean }>,
      problems: document.querySelectorAll('.ant-modal .ant-alert li').length,
    };
  });
  return { ...seen, spent };
}

/** The name that the screen has for an output of a drawn label. */
const bare = (label: string) => label.replace(/^\+/, '');
const limitNames = (labels: readonly string[]): string[] => {
  const names = labels.map(bare);
  return names.length === 1
    ? [`${names[0]}, its limit`]
    : [`${names.join(' + ')} together`, `${names.toReversed().join(' + ')} together`];
};

const counts = { right: 0, rightMarked: 0, wrongMarked: 0, missingTold: 0, wrong: 0, missingUntold: 0 };

function tally(value: number, names: readonly string[], shown: Shown): void {
  const figure = names.map((name) => shown.figures[name]).find((one) => one !== undefined);
  if (figure === undefined || figure.value === null)
    counts[shown.problems > 0 || figure !== undefined ? 'missingTold' : 'missingUntold'] += 1;
  else if (figure.value === value) counts[figure.marked ? 'rightMarked' : 'right'] += 1;
  else counts[figure.marked ? 'wrongMarked' : 'wrong'] += 1;
}

try {
  const paint = await openPainter();
  const page = await openPage(browser);
  await visit(page, `${address}/jobs/LQ-0142/intake`);
  await press(page, 'Present supply');
  await press(page, 'From a picture of its label');
  const times: number[] = [];
  for (let seed = 0; seed < count; seed += 1) {
    const label = madeUpLabel(seed);
    const shown = await read(page, await paint(label));
    times.push(shown.spent);
    for (const { label: name, amps } of label.rails) tally(amps, [bare(name)], shown);
    for (const { labels, watts } of label.combined) tally(watts, limitNames(labels), shown);
    tally(label.watts, ['Rating'], shown);
  }
  times.sort((a, b) => a - b);
  const all = Object.values(counts).reduce((sum, one) => sum + one, 0);
  const percent = (part: number) => `${((100 * part) / all).toFixed(2)} %`;
  const unmarked = counts.wrong + counts.missingUntold;
  const median = times[times.length >> 1]! / 1000;
  console.log(`| ${count} labels, ${all} amps and watts | |\n| --- | ---: |`);
  console.log(`| right | ${percent(counts.right)} |`);
  console.log(`| right, and marked to be looked at | ${percent(counts.rightMarked)} |`);
  console.log(`| wrong, and marked to be looked at | ${percent(counts.wrongMarked)} |`);
  console.log(`| not found, and told | ${percent(counts.missingTold)} |`);
  console.log(`| wrong or not found, without a word | ${percent(unmarked)} (wanted: at most 0.5 %) |`);
  console.log(
    `| time, median and 95th of 100 | ${median.toFixed(1)} s (wanted: under 4), ` +
      `${(times[Math.floor(times.length * 0.95)]! / 1000).toFixed(1)} s |`,
  );
  if (unmarked / all > 0.005 || median >= 4) process.exitCode = 1;
} finally {
  await close();
  await rm(folder, { recursive: true, force: true });
}
