import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type { AxeResults } from 'axe-core';
import type { Page } from 'puppeteer-core';
import { atRest } from './application.ts';

const axe = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

/** What keeps somebody from using a page, by the rules of axe; at most three places of each kind. */
export async function barriersOn(page: Page, onlyContrast = false): Promise<string[]> {
  await atRest(page);
  if (!(await page.evaluate(`'axe' in window`))) await page.evaluate(axe);
  const what = onlyContrast ? `runOnly: ['color-contrast'],` : '';
  const found = (await page.evaluate(
    `axe.run(document, { ${what} resultTypes: ['violations'], preload: false })`,
  )) as AxeResults;
  return found.violations.flatMap((violation) =>
    violation.nodes.slice(0, 3).map((node) => `${violation.id}: ${node.html.slice(0, 140)}`),
  );
}
