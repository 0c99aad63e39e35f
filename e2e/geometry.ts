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
    const sideways = ['.shell-content', '.page-work', '.page-side', '.page-page'].flatMap((selector) => {
      const box = document.querySelector(selector);
      if (box === null || box.scrollWidth <= box.clientWidth + 1) return [];
      const edge = box.getBoundingClientRect().right;
      const widest = [...box.querySelectorAll('*')].find((element) => element.getBoundingClientRect().right > edge + 1);
      return [`${selector} scrolls sideways${widest === undefined ? '' : `, for ${named(widest)}`}`];
    });
    return [...outside.slice(0, 3), ...sideways];
  });
}

/**
 * What a finger would miss, each as a short sentence: acts at the bench under 44 CSS pixels in height, anything else
 * that is pressed under 24. A link inside a line of text is as high as its line.
 */
export function tooSmallForFingers(page: Page): Promise<string[]> {
  return page.evaluate(() => {
    const acts = '.keys-primary, .keys-key, .entry-tick, .ant-segmented-item, .ant-btn-default';
    const others = '.ant-btn, [role=button], [role=switch], .ant-select, .ant-input, .ant-checkbox-wrapper, summary';
    // What stands in a text or a list without a frame of its own is no act at the bench.
    const isFramed = (element: Element) =>
      !element.matches('.ant-btn') || !/^0px|rgba\(.*, 0\)/.test(getComputedStyle(element).borderTop);
    const small = (elements: readonly HTMLElement[], least: number) =>
      elements.flatMap((element) => {
        const { width, height } = element.getBoundingClientRect();
        if (!element.checkVisibility({ visibilityProperty: true }) || width < 2) return [];
        const name = (element.getAttribute('aria-label') ?? element.textContent).trim().slice(0, 30);
        return height < least - 0.5 || width < 23.5 ? [`${name} is ${Math.round(width)} x ${Math.round(height)}`] : [];
      });
    const all = (selector: string) => [...document.querySelectorAll<HTMLElement>(selector)];
    return [...new Set([...small(all(acts).filter(isFramed), 44), ...small(all(others), 24)])].slice(0, 6);
  });
}

/** Fields in which nothing can be read, each as a short sentence: words need room for five letters, figures for two. */
export function tooNarrowToRead(page: Page): Promise<string[]> {
  return page.evaluate(() => {
    const fields = document.querySelectorAll<HTMLElement>(
      'input.ant-input, textarea.ant-input, .ant-input-number-input',
    );
    const narrow = [...fields].flatMap((field) => {
      if (!field.checkVisibility({ visibilityProperty: true }) || field.clientWidth < 2) return [];
      const { paddingLeft, paddingRight } = getComputedStyle(field);
      const inside = field.clientWidth - Number.parseFloat(paddingLeft) - Number.parseFloat(paddingRight);
      const isFigure = field.matches('.text-fig, [inputmode], .ant-input-number-input');
      const least = isFigure ? 18 : 44;
      return inside < least ? [`${field.getAttribute('aria-label') ?? field.id} has ${Math.round(inside)} px`] : [];
    });
    return [...new Set(narrow)].slice(0, 6);
  });
}
