import { fork, type ChildProcess } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { z } from 'zod';
import type { Address } from './switch-off.ts';

/** What the guard is told: which loads may draw now. */
export const guardMessageSchema = z.strictObject({ draws: z.boolean(), host: z.string(), port: z.int() });
export type GuardMessage = z.infer<typeof guardMessageSchema>;

/** Whoever sees to it that a load does not draw longer than this process lives. */
export interface LoadGuard {
  /** Settles once the load is watched over: before that it must not draw. */
  readonly mayDraw: (load: Address) => Promise<void>;
  readonly isOff: (load: Address) => void;
}

/** Settles when the guard says that it watches; rejects where it cannot be started. */
function watching(child: ChildProcess): Promise<void> {
  const ready = new Promise<void>((resolve, reject) => {
    child.once('message', () => resolve());
    child.once('error', reject);
    child.once('exit', () => reject(new Error('the guard of the loads has ended')));
  });
  // Whoever waits hears of it; where nobody does, nothing drew yet.
  ready.catch(() => undefined);
  return ready;
}

/**
 * A process of its own that outlives this one and then switches off what may still draw. It is started with the first
 * load.
 */
export class GuardProcess implements LoadGuard {
  private child: ChildProcess | null = null;
  private ready: Promise<void> = Promise.resolve();
  private readonly program = fileURLToPath(new URL('./guard-main.js', import.meta.url));

  private tell(message: GuardMessage): void {
    if (this.child === null || !this.child.connected) {
      // Away from this process's group, so that whatever ends the server does not end it.
      this.child = fork(this.program, { detached: true, stdio: 'ignore', execArgv: [] });
      this.ready = watching(this.child);
      this.child.unref();
      this.child.channel?.unref();
    }
    this.child.send(message);
  }

  mayDraw = ({ host, port }: Address): Promise<void> => {
    this.tell({ draws: true, host, port });
    return this.ready;
  };
  isOff = ({ host, port }: Address): void => this.tell({ draws: false, host, port });
}
