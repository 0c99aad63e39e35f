import type { Page } from 'puppeteer-core';

/**
 * What sticks out on the page, each as a short sentence: anything past the window that no scrolling box of its own
 * holds, and a page, work or side column that would have to be scrolled sideways.
 */
export function whatSticksOut(page: Page): Promise<string[]> {
  return page.evaluate(() => {
    const named = (element: Element) =>
      `${element.tagName.toLowerCase()}.${(element.getAttribute('class') ?? '').slice(0, 48)}`;
    const holdsItself = (element: Element) => {
      for (let around = element.parentElement; around !== null; around = around.parentElement) {
        const { overflowX } = getComputedStyle(around);
        if (overflowX !== 'visible' && around.getBoundingClientRect().right <= innerWidth + 1) return true;
      }
      return false;
    };
    const outside = [...document.querySelectorAll('body *')].flatMap((element) => {
      const { width, right } = element.getBoundingClientRect();
      return width > 0 && right > innerWidth + 1 && !holdsItself(element)
        ? [`${named(element)} to ${Math.round(right)}`]
        : [];
    });
    const sideways = ['.content', '.work', '.side', '.page'].flatMap((selector) => {
      const box = document.querySelector(selector);
      if (box === null || box.scrollWidth <= box.clientWidth + 1) return [];
      const edge = box.getBoundingClientRect().right;
      const widest = [...box.querySelectorAll('*')].find((element) => element.getBoundingClientRect().right > edge + 1);
      return [`${selector} scrolls sideways${widest === undefined ? '' : `, for ${named(widest)}`}`];
    });
    return [...outside.slice(0, 3), ...sideways];
  });
}
