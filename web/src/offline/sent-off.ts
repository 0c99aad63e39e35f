import type { AppState } from '../app/store.ts';

const patienceMilliseconds = 4000;

/** What is still being typed or on its way; what somebody has to decide about does not go by itself. */
const isLeft = ({ outbox, connection }: AppState): boolean =>
  connection === 'here' && outbox.parcels.some(({ state }) => state !== 'refused');

/**
 * Waits until what was typed here has been sent, for four seconds at most: it is the work of the one who is signed in
 * now, and later waits until that person is in again.
 */
export function sentOff(store: {
  readonly getState: () => AppState;
  readonly subscribe: (hear: () => void) => () => void;
}): Promise<void> {
  return new Promise((resolve) => {
    let leave: () => void = () => undefined;
    const done = () => {
      clearTimeout(timer);
      leave();
      resolve();
    };
    const timer = setTimeout(done, patienceMilliseconds);
    leave = store.subscribe(() => {
      if (!isLeft(store.getState())) done();
    });
    if (!isLeft(store.getState())) done();
  });
}
