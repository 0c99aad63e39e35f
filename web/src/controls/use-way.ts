import { startTransition, useOptimistic } from 'react';
import { useSearchParams } from 'react-router';

/**
 * What is asked for behind the question mark of the address, and a way to ask for something else in its place. The
 * address follows when the page has time for it; what is asked for is shown at once, so that whatever is typed right
 * after goes to what was pressed.
 */
export function usePromptParams(): readonly [URLSearchParams, (wanted: Readonly<Record<string, string>>) => void] {
  const [params, setParams] = useSearchParams();
  const [shown, show] = useOptimistic(params);
  const ask = (wanted: Readonly<Record<string, string>>) => {
    startTransition(() => {
      show(new URLSearchParams(wanted));
      setParams(wanted, { replace: true });
    });
  };
  return [shown, ask];
}

/** Which of several ways of looking is picked; the address names every one but the usual. */
export function useWay<W extends string>(
  ways: readonly (readonly [W, ...unknown[]])[],
  usual: NoInfer<W>,
): readonly [W, (way: W) => void] {
  const [params, ask] = usePromptParams();
  const way = ways.find(([id]) => id === params.get('way'))?.[0] ?? usual;
  return [way, (picked) => ask(picked === usual ? {} : { way: picked })];
}
