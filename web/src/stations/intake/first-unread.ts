import { looks } from '../../looks/looks.ts';

/**
 * On to the first figure of a label that nobody read off it yet; where there is none, out of the field, so that the
 * next Enter leads on. To be called where the label changes: the figure is looked for once that is drawn.
 */
export function goToFirstUnread(): void {
  requestAnimationFrame(() => {
    const next = document.querySelector<HTMLInputElement>(`.${looks.work} input[data-entry]`);
    next?.focus();
    next?.select();
    if (next === null && document.activeElement instanceof HTMLElement) document.activeElement.blur();
  });
}
