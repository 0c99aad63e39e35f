/** Pauses that grow from one failure to the next and begin anew after a time without one. */
export class GrowingPause {
  private failures = 0;
  private lastFailure = Number.NEGATIVE_INFINITY;
  private readonly firstMilliseconds: number;
  private readonly mostMilliseconds: number;
  private readonly forgottenAfterMilliseconds: number;
  constructor(firstMilliseconds = 250, mostMilliseconds = 5000, forgottenAfterMilliseconds = 20_000) {
    this.firstMilliseconds = firstMilliseconds;
    this.mostMilliseconds = mostMilliseconds;
    this.forgottenAfterMilliseconds = forgottenAfterMilliseconds;
  }

  /** How long to wait after a failure at this moment, in milliseconds. */
  after(now: number): number {
    if (now - this.lastFailure > this.forgottenAfterMilliseconds) this.failures = 0;
    this.lastFailure = now;
    const pause = Math.min(this.mostMilliseconds, this.firstMilliseconds * 2 ** this.failures);
    this.failures += 1;
    return pause;
  }
}
