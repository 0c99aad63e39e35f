import { useEffect } from 'react';

/** Is somebody typing here, so that letters are text and not commands? */
function isTyping(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    (target.isContentEditable ||
      target.matches(
        'input:not([type=checkbox]):not([type=radio]):not([type=button]), textarea, [role=combobox], [role=listbox]',
      ))
  );
}

// The main act of a narrow screen is fixed at its foot, and has no parent that it is placed in.
const visible = (element: HTMLElement) =>
  element.checkVisibility({ visibilityProperty: true }) && !(element instanceof HTMLButtonElement && element.disabled);
/** Inside an open dialog only the dialog's own keys count. */
const scope = (): ParentNode => document.querySelector('[role=dialog]:not([aria-hidden=true])') ?? document;
const first = (selector: string) => [...scope().querySelectorAll<HTMLElement>(selector)].find(visible);

/** Where the focus rests when nothing in particular has it: the work itself, or an open dialog. */
const restingPlaces = '#main, [role=dialog], .ant-modal-wrap';
const choiceInRow = '.ant-segmented input[type=radio]';
/** A second Enter this soon after the first was not meant. */
const doubledMilliseconds = 400;

/** Focus that would fall to nowhere, because what had it is gone, goes to the work. */
function keepFocus(): void {
  requestAnimationFrame(() => {
    if (document.activeElement === document.body && scope() === document)
      document.querySelector<HTMLElement>('#main')?.focus({ preventScroll: true });
  });
}

/** Keys that do something, wherever they are pressed. Moving about and erasing may go on while a key is held. */
const acts = (key: string): boolean => key.length === 1 || key === 'Enter' || key === 'Escape' || key === 'Delete';

/**
 * A held key does nothing twice: what it would do again is stopped before any control, form or shortcut hears of it.
 * Text goes on being typed.
 */
function stopHeld(event: KeyboardEvent): void {
  if (!event.repeat || !acts(event.key)) return;
  const types =
    isTyping(event.target) && !(event.target instanceof Element && event.target.matches('[role=combobox][readonly]'));
  const breaksLine = event.key === 'Enter' && event.target instanceof HTMLTextAreaElement;
  if (types && (event.key !== 'Enter' || breaksLine)) return;
  event.preventDefault();
  event.stopImmediatePropagation();
}

/** Undo of what was done; while somebody types it is that of the text, which the browser has. */
export const isUndo = (event: Pick<KeyboardEvent, 'key' | 'ctrlKey' | 'metaKey' | 'shiftKey' | 'altKey'>): boolean =>
  (event.ctrlKey || event.metaKey) && !event.shiftKey && !event.altKey && event.key.toLowerCase() === 'z';

export interface KeyCommands {
  readonly station: (digit: number) => void;
  readonly newJob: () => void;
  readonly search: () => void;
  readonly help: () => void;
}

/**
 * The keyboard of the whole application. Digits press what carries `data-key`, Enter presses what carries
 * `data-primary`, Ctrl Z what carries `data-undo`, `a` and `m` press what carries them as `data-letter`, `r` goes to what carries `data-entry`, g and a
 * digit go to a station.
 */
export function useKeys(commands: KeyCommands): void {
  useEffect(() => {
    let going = -Infinity;
    let lastMain = -Infinity;
    const onKey = (event: KeyboardEvent) => {
      const target = event.target;
      if (isUndo(event) && !event.defaultPrevented && !isTyping(target) && scope() === document) {
        const undo = first('[data-undo]');
        undo?.click();
        if (undo !== undefined) event.preventDefault();
        return;
      }
      if (event.ctrlKey || event.metaKey || event.altKey || event.defaultPrevented) return;
      if (isTyping(target)) {
        if (event.key === 'Escape' && target instanceof HTMLElement) target.blur();
        return;
      }
      const inDialog = scope() !== document;
      if (/^[0-9]$/.test(event.key)) {
        if (!inDialog && performance.now() - going < 1200) {
          going = -Infinity;
          commands.station(Number(event.key));
          event.preventDefault();
          return;
        }
        const element = first(`[data-key="${event.key}"]`);
        if (element) {
          element.click();
          event.preventDefault();
        }
        return;
      }
      if (event.key === 'Enter') {
        // Only while nothing else has the focus, and not as the tail of the Enter before. A choice in a row keeps the
        // focus after a click and does nothing with Enter itself.
        const free =
          target === document.body ||
          (target instanceof HTMLElement && target.matches(`${restingPlaces}, ${choiceInRow}`));
        if (!free || performance.now() - lastMain < doubledMilliseconds) return;
        const element = first('[data-primary]');
        if (element) {
          lastMain = performance.now();
          element.click();
          event.preventDefault();
        }
        return;
      }
      if (inDialog) return;
      switch (event.key) {
        case 'g':
          going = performance.now();
          break;
        case 'n':
          commands.newJob();
          event.preventDefault();
          break;
        case '/':
          commands.search();
          event.preventDefault();
          break;
        case '?':
          commands.help();
          event.preventDefault();
          break;
        case 'a':
        case 'm': {
          const lettered = first(`[data-letter="${event.key}"]`);
          if (lettered) {
            lettered.click();
            event.preventDefault();
          }
          break;
        }
        case 'r': {
          const entry = first('[data-entry]');
          if (entry) {
            (entry.querySelector<HTMLElement>('input, textarea') ?? entry).focus();
            event.preventDefault();
          }
          break;
        }
        default:
          return;
      }
    };
    document.addEventListener('keydown', stopHeld, { capture: true });
    document.addEventListener('keydown', onKey);
    document.addEventListener('focusout', keepFocus);
    document.addEventListener('click', keepFocus);
    return () => {
      document.removeEventListener('keydown', stopHeld, { capture: true });
      document.removeEventListener('keydown', onKey);
      document.removeEventListener('focusout', keepFocus);
      document.removeEventListener('click', keepFocus);
    };
  }, [commands]);
}
