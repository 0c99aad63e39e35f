import { safeSession } from '../offline/safe-storage.ts';

const key = 'fairwatt.reloaded-at';
/** A second failure within this time is no upgrade, and is left to be told. */
const onceWithinMilliseconds = 20_000;

/**
 * Whether a piece of the application did not come, in the words of any browser. A browser that failed to fetch one does
 * not ask for it again on the same page.
 */
export const isPieceMissing = (error: unknown): boolean =>
  error instanceof Error &&
  /dynamically imported module|importing a module script failed|unable to preload/i.test(error.message);

/** What a reload needs of the page around it. */
export interface Reloading {
  /** Asks the server whether it is there: what went away a moment ago is not known to be away yet. */
  readonly isThere: () => Promise<boolean>;
  /** Whether a reload would lose what is typed and not sent yet. */
  readonly wouldLose: () => boolean;
  readonly now: () => number;
  readonly reload: () => void;
}

/**
 * After an upgrade a page that is still open asks for pieces that are gone: it is loaded again, once. What was typed is
 * in the outbox by then. Nothing is loaded again unless the server answers, since there would be no page at all, nor
 * where something would be lost with it. What wanted the piece tells meanwhile.
 * @returns whether it is being loaded again
 */
export async function reloadOnce({ isThere, wouldLose, now, reload }: Reloading): Promise<boolean> {
  const isLately = () => now() - Number(safeSession.get(key) ?? '0') < onceWithinMilliseconds;
  if (isLately() || !(await isThere()) || isLately() || wouldLose()) return false;
  safeSession.set(key, String(now()));
  // A browser that keeps nothing would load it again for ever.
  if (safeSession.get(key) === null) return false;
  reload();
  return true;
}

/** Loads the page again where a piece of it is gone, as `reloadOnce` says. */
export function reloadWhenPiecesAreGone(page: Pick<Reloading, 'isThere' | 'wouldLose'>): void {
  window.addEventListener('vite:preloadError', () => {
    void reloadOnce({ ...page, now: () => Date.now(), reload: () => location.reload() });
  });
}
