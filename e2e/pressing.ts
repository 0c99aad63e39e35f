import type { ElementHandle, Page } from 'puppeteer-core';
import { patience } from './patience.ts';

const mostTries = 5;
const pauseMilliseconds = 150;

/**
 * Does something until it holds, some times: what is drawn anew, or moves, between being found and being pressed is
 * pressed again, as a person would.
 * @param fails whether an error is of that kind; any other is thrown at once
 */
export async function steadily(
  work: () => Promise<void>,
  fails: (message: string) => boolean = (message) => /detached|not clickable|moved away/i.test(message),
): Promise<void> {
  for (let attempt = 1; ; attempt += 1) {
    try {
      await work();
      return;
    } catch (error) {
      if (attempt === mostTries || !(error instanceof Error) || !fails(error.message)) throw error;
      await new Promise((resolve) => {
        setTimeout(resolve, pauseMilliseconds);
      });
    }
  }
}

/**
 * Presses what stays where it is from one frame to the next: what moves away under the pointer, since an error above it
 * goes, is not what is pressed. What something else covers is scrolled clear of it.
 */
export async function pressAtRest(element: ElementHandle): Promise<void> {
  await element.evaluate(async (one) => {
    for (let was = ''; ;) {
      const { left, top } = one.getBoundingClientRect();
      if (was === `${left} ${top}`) break;
      was = `${left} ${top}`;
      await new Promise(requestAnimationFrame);
    }
    const { left, top, width, height } = one.getBoundingClientRect();
    const over = document.elementFromPoint(left + width / 2, top + height / 2);
    if (over !== null && !one.contains(over) && !over.contains(one)) one.scrollIntoView({ block: 'center' });
  });
  await element.click();
}

/** Presses what a selector finds, once it is there and at rest. */
export async function pressThe(page: Page, selector: string): Promise<void> {
  await steadily(async () => {
    const found = await page.waitForSelector(selector, { timeout: patience });
    if (found === null) throw new Error(`nothing is ${selector}`);
    await pressAtRest(found);
  });
}

/** Goes into a field with all of it selected: three presses are one word or three on a slow machine. */
export async function selectAll(field: ElementHandle): Promise<void> {
  await steadily(async () => {
    await pressAtRest(field);
    const isIn = await field.evaluate((element) => {
      // The press goes into the field of what has its name.
      const focused = element.ownerDocument.activeElement;
      if (!(focused instanceof HTMLInputElement || focused instanceof HTMLTextAreaElement)) return false;
      focused.select();
      return (
        element === focused ||
        element.contains(focused) ||
        [...(focused.labels ?? [])].some((label) => label.contains(element))
      );
    });
    if (!isIn) throw new Error('the field moved away under the pointer');
  });
}
