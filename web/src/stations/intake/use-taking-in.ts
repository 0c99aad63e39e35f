import type { Act } from '@fairwatt/core';
import { useDesk } from '../../job/job-context.ts';

/**
 * Does acts one after the other, and offers to undo them together. The first that is refused ends it; answers whether
 * all were done.
 */
export function useTakingIn(): (acts: readonly Act[]) => boolean {
  const { act, offerUndo } = useDesk();
  return (acts) => {
    const refused = acts.findIndex((one) => act(one) !== null);
    const done = refused < 0 ? acts : acts.slice(0, refused);
    const parts = done.filter((one) => one.kind === 'put-part').length;
    if (parts > 0) offerUndo(`${parts === 1 ? 'One part is' : `${parts} parts are`} taken in.`);
    return refused < 0;
  };
}
