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

/**
 * After an upgrade a page that is still open asks for pieces that are gone: it is loaded again, once. What was typed is
 * in the outbox by then. While the server is away nothing is loaded again: there would be no page at all.
 */
export function reloadWhenPiecesAreGone(isAway: () => boolean): void {
  window.addEventListener('vite:preloadError', (event) => {
    if (isAway()) return;
    const last = Number(safeSession.get(key) ?? '0');
    if (Date.now() - last < onceWithinMilliseconds) return;
    safeSession.set(key, String(Date.now()));
    // A browser that keeps nothing would load it again for ever.
    if (safeSession.get(key) === null) return;
    event.preventDefault();
    location.reload();
  });
}
