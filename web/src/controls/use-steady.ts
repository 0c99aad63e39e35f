import { useCallback, useLayoutEffect, useRef } from 'react';

/**
 * A handler that stays the same function and does what the latest one does, so that what is given it need not be drawn
 * anew. Not to be called while drawing.
 */
export function useSteady<Given extends readonly unknown[], Answer>(
  handler: (...given: Given) => Answer,
): (...given: Given) => Answer {
  const latest = useRef(handler);
  useLayoutEffect(() => {
    latest.current = handler;
  });
  return useCallback((...given: Given) => latest.current(...given), []);
}
