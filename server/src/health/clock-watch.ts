import { notice } from '../log.ts';

const lookMilliseconds = 10_000;
/** The machine's clock went its own way by more than this between two looks: somebody or something set it. */
const jumpSeconds = 30;

export interface ClockJump {
  readonly seconds: number;
  readonly at: string;
}

/**
 * Notices that the machine's clock was set while the server runs: times written down before and after do not compare.
 */
export class ClockWatch {
  jump: ClockJump | null = null;
  private readonly timer: ReturnType<typeof setInterval>;

  constructor(now: () => number = Date.now, steady: () => number = () => performance.now()) {
    let wall = now();
    let passed = steady();
    this.timer = setInterval(() => {
      const seconds = (now() - wall - (steady() - passed)) / 1000;
      wall = now();
      passed = steady();
      if (Math.abs(seconds) < jumpSeconds) return;
      this.jump = { seconds: Math.round(seconds), at: new Date(wall).toISOString() };
      notice(
        `The clock of this machine was set by ${this.jump.seconds} s. Nothing is lost; times ` +
          'before and after do not compare.',
      );
    }, lookMilliseconds);
    this.timer.unref();
  }

  close(): void {
    clearInterval(this.timer);
  }
}
