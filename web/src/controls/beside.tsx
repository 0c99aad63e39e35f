import { lazy, Suspense, useState, type ComponentType, type ReactNode } from 'react';

type Module<P> = { readonly default: ComponentType<P> };

/** A component whose code is fetched once it is asked for. */
export interface Piece<P> {
  /** Fetches the code. @throws TypeError where it does not come */
  readonly ask: () => Promise<unknown>;
  /** It suspends until the code is here. Where it is, it is drawn at once; one that is drawn stays the same component. */
  readonly Drawn: ComponentType<P>;
}

/**
 * A piece of the application by itself. What `lazy` makes suspends even where its code has come, and React leaves what
 * is said meanwhile on the screen for 300 ms: a page whose code came ahead would be drawn that much later.
 */
export function piece<P extends object>(load: () => Promise<Module<P>>): Piece<P> {
  let here: ComponentType<P> | null = null;
  const ask = async () => {
    const module = await load();
    here = module.default;
    return module;
  };
  const Later = lazy(ask);
  function Drawn(props: P) {
    const [Shown] = useState<ComponentType<P>>(() => here ?? Later);
    return <Shown {...props} />;
  }
  return { ask, Drawn };
}

/** A screen is drawn by then. */
const quietMilliseconds = 1500;

/**
 * A component whose code comes beside the screen that shows it: what the screen says first is drawn without it.
 * @param waiting what stands there until it has come
 */
export function beside<P extends object>(
  load: () => Promise<Module<P>>,
  waiting: (props: P) => ReactNode,
): ComponentType<P> {
  const { ask, Drawn } = piece(load);
  // It is here before anybody wants it, also where the server goes away meanwhile; what does not come is told by then.
  setTimeout(() => void ask().catch(() => undefined), quietMilliseconds);
  return function Beside(props: P) {
    return (
      <Suspense fallback={waiting(props)}>
        <Drawn {...props} />
      </Suspense>
    );
  };
}
