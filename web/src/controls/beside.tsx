import { lazy, Suspense, useState, type ComponentType, type ReactNode } from 'react';

/**
 * A component whose code comes beside the screen that shows it: what the screen says first is drawn without it. From the
 * second time on it is drawn at once. One that is drawn stays the same component, so that nothing in it is lost.
 */
export function beside<P extends object>(
  load: () => Promise<ComponentType<P>>,
  waiting: (props: P) => ReactNode,
): ComponentType<P> {
  let here: ComponentType<P> | null = null;
  const Later = lazy(async () => {
    here = await load();
    return { default: here };
  });
  return function Beside(props: P) {
    const [Drawn] = useState<ComponentType<P>>(() => here ?? Later);
    return (
      <Suspense fallback={waiting(props)}>
        <Drawn {...props} />
      </Suspense>
    );
  };
}
