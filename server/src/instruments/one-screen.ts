/**
 * Which screen takes figures from a meter by itself: one at a time, the latest that asked. Two would each take what the
 * other one's probe touches.
 */
export class OneScreen {
  private readonly screens = new Map<string, AbortController>();

  /**
   * @param closed the screen has left
   * @returns aborted once another screen takes this meter
   */
  take(meterId: string, closed: AbortSignal): AbortSignal {
    this.screens.get(meterId)?.abort();
    const mine = new AbortController();
    this.screens.set(meterId, mine);
    closed.addEventListener('abort', () => {
      if (this.screens.get(meterId) === mine) this.screens.delete(meterId);
    });
    return mine.signal;
  }
}
