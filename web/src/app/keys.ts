import { useEffect, useRef } from 'react';
import { keyMemory, stationWithin, type KeyMemory } from './key-memory.ts';

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
  /** Digits and letters act by themselves. */
  readonly single: boolean;
}

/** Presses what carries a mark, if it is shown. Was there one? */
function pressed(selector: string): boolean {
  const element = first(selector);
  element?.click();
  return element !== undefined;
}

/**
 * Is Enter the page's own here: nothing else has the focus? A choice in a row keeps the focus after a click and does
 * nothing with Enter itself.
 */
const isFree = (target: EventTarget | null): boolean =>
  target === document.body || (target instanceof HTMLElement && target.matches(`${restingPlaces}, ${choiceInRow}`));

function goToEntry(): boolean {
  const entry = first('[data-entry]');
  if (entry === undefined) return false;
  (entry.querySelector<HTMLElement>('input, textarea') ?? entry).focus();
  return true;
}

function pressMain(event: KeyboardEvent, memory: KeyMemory): boolean {
  const main = first('[data-primary]');
  if (main === undefined || !isFree(event.target) || !memory.meant(event.timeStamp)) return false;
  main.click();
  return true;
}

function pressDigit({ key, timeStamp }: KeyboardEvent, memory: KeyMemory, commands: KeyCommands): boolean {
  if (!memory.goes(timeStamp) || scope() !== document) return pressed(`[data-key="${key}"]`);
  commands.station(Number(key));
  return true;
}

/** Keys that work wherever no dialog is open. */
function pressLetter(event: KeyboardEvent, memory: KeyMemory, commands: KeyCommands): boolean {
  switch (event.key) {
    case 'g':
      memory.go(event.timeStamp);
      return true;
    case 'n':
      commands.newJob();
      return true;
    case '/':
      commands.search();
      return true;
    case '?':
      commands.help();
      return true;
    case 'a':
    case 'm':
      return pressed(`[data-letter="${event.key}"]`);
    case 'r':
      return goToEntry();
    default:
      return false;
  }
}

/** Does what a key is for. Was it for anything? */
function isForUs(event: KeyboardEvent, memory: KeyMemory, commands: KeyCommands): boolean {
  const { key, target } = event;
  if (isUndo(event)) return !isTyping(target) && scope() === document && pressed('[data-undo]');
  if (event.ctrlKey || event.metaKey || event.altKey) return false;
  if (isTyping(target)) {
    if (key === 'Escape' && target instanceof HTMLElement) target.blur();
    return false;
  }
  if (key.length === 1 && !commands.single) return false;
  if (/^[0-9]$/.test(key)) return pressDigit(event, memory, commands);
  memory.forget();
  if (key === 'Enter') return pressMain(event, memory);
  return scope() === document && pressLetter(event, memory, commands);
}

/** While the digit of a station is waited for, the stations say so. */
function showGoing(going: boolean): void {
  document.documentElement.toggleAttribute('data-going', going);
}

/**
 * The keyboard of the whole application. Digits press what carries `data-key`, Enter presses what carries
 * `data-primary`, Ctrl Z what carries `data-undo`, `a` and `m` press what carries them as `data-letter`, `r` goes to
 * what carries `data-entry`, g and a digit go to a station. Where single keys are switched off, only Enter, Escape and
 * Ctrl Z are left.
 */
export function useKeys(commands: KeyCommands): void {
  const now = useRef(commands);
  useEffect(() => {
    now.current = commands;
    document.documentElement.dataset['singleKeys'] = commands.single ? 'on' : 'off';
  }, [commands]);
  // Begun once: what was pressed is remembered while one screen gives way to the next.
  useEffect(() => {
    const memory = keyMemory();
    let timer: ReturnType<typeof setTimeout> | undefined;
    const onKey = (event: KeyboardEvent) => {
      if (event.defaultPrevented) return;
      const forUs = isForUs(event, memory, now.current);
      if (forUs) event.preventDefault();
      const going = forUs && event.key === 'g';
      clearTimeout(timer);
      showGoing(going);
      if (going) timer = setTimeout(() => showGoing(false), stationWithin);
    };
    document.addEventListener('keydown', stopHeld, { capture: true });
    document.addEventListener('keydown', onKey);
    document.addEventListener('focusout', keepFocus);
    document.addEventListener('click', keepFocus);
    return () => {
      clearTimeout(timer);
      document.removeEventListener('keydown', stopHeld, { capture: true });
      document.removeEventListener('keydown', onKey);
      document.removeEventListener('focusout', keepFocus);
      document.removeEventListener('click', keepFocus);
    };
  }, []);
}
