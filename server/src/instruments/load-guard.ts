import { fork, type ChildProcess } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { z } from 'zod';
import type { Address } from './switch-off.ts';

/** What the guard is told: which loads may draw now. */
export const guardMessageSchema = z.strictObject({ draws: z.boolean(), host: z.string(), port: z.int() });
export type GuardMessage = z.infer<typeof guardMessageSchema>;

/** Whoever sees to it that a load does not draw longer than this process lives. */
export interface LoadGuard {
  readonly mayDraw: (load: Address) => void;
  readonly isOff: (load: Address) => void;
}

/** A process of its own that outlives this one and then switches off what may still draw. It is started with the first load. */
export class GuardProcess implements LoadGuard {
  private child: ChildProcess | null = null;
  private readonly program = fileURLToPath(new URL('./guard-main.js', import.meta.url));

  private tell(message: GuardMessage): void {
    if (this.child === null || !this.child.connected) {
      // Away from this process's group, so that whatever ends the server does not end it.
      this.child = fork(this.program, { detached: true, stdio: 'ignore', execArgv: [] });
      this.child.on('error', () => undefined);
      this.child.unref();
      this.child.channel?.unref();
    }
    this.child.send(message);
  }

  mayDraw = ({ host, port }: Address): void => this.tell({ draws: true, host, port });
  isOff = ({ host, port }: Address): void => this.tell({ draws: false, host, port });
}
