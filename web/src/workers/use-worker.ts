import { useEffect, useMemo, useState } from 'react';
import { wrap, type Remote } from 'comlink';

/** What a worker offers, for as long as the screen that asks for it is there. `start` is called once. */
export function useWorker<T>(start: () => Worker): Remote<T> {
  const [worker] = useState(start);
  useEffect(() => () => worker.terminate(), [worker]);
  return useMemo(() => wrap<T>(worker), [worker]);
}
