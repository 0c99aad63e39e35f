import { safeSession } from '../offline/safe-storage.ts';

const key = 'fairwatt.reloaded-at';
/** A second failure within this time is no upgrade, and is left to be told. */
const onceWithinMilliseconds = 20_000;

/**
 * After an upgrade a page that is still open asks for pieces that are gone: it is loaded again, once. What was typed is
 * in the outbox by then.
 */
export function reloadWhenPiecesAreGone(): void {
  window.addEventListener('vite:preloadError', (event) => {
    const last = Number(safeSession.get(key) ?? '0');
    if (Date.now() - last < onceWithinMilliseconds) return;
    safeSession.set(key, String(Date.now()));
    // A browser that keeps nothing would load it again for ever.
    if (safeSession.get(key) === null) return;
    event.preventDefault();
    location.reload();
  });
}
