import type { Act } from '@fairwatt/core';
import { useDesk } from '../../job/job-context.ts';

/**
 * Does acts one after the other, and offers to undo what they did to the machine's parts. The first that is refused
 * ends it; answers whether all were done.
 */
export function useTakingIn(): (acts: readonly Act[]) => boolean {
  const { job, act, offerUndo } = useDesk();
  return (acts) => {
    const before = new Map(job.parts.map((part) => [part.id, part]));
    const done: Act[] = [];
    for (const one of acts) {
      if (act(one) !== null) break;
      done.push(one);
    }
    const parts = done.filter((one) => one.kind === 'put-part').reverse();
    if (parts.length > 0)
      offerUndo(`${parts.length === 1 ? 'One part is' : `${parts.length} parts are`} taken in.`, () => {
        for (const { part } of parts) {
          const was = before.get(part.id);
          if (was === undefined) act({ kind: 'drop-part', partId: part.id, basedOn: 0 });
          else {
            const { version, ...rest } = was;
            act({ kind: 'put-part', part: rest, basedOn: version });
          }
        }
      });
    return done.length === acts.length;
  };
}
