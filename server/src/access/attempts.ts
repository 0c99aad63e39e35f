/** After so many wrong secrets in a row a person is locked until the owner gives a new one. */
export const mostFailures = 10;
const freeFailures = 2;

/** How long somebody waits after so many wrong secrets in a row: nothing for two slips, then 1, 2, 4 s and so on. */
export const pauseSeconds = (failures: number): number =>
  failures <= freeFailures ? 0 : 2 ** (failures - freeFailures - 1);

export interface Attempts {
  readonly failures: number;
  readonly pausedUntil: string | null;
  readonly locked: boolean;
}

/** What stands after one more wrong secret at a moment. */
export function afterFailure(failures: number, at: string): Attempts {
  const now = failures + 1;
  const pause = pauseSeconds(now);
  return {
    failures: now,
    pausedUntil: pause === 0 ? null : new Date(Date.parse(at) + 1000 * pause).toISOString(),
    locked: now >= mostFailures,
  };
}
