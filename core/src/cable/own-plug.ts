import { plugServes, type PlugKind } from '../standards/index.ts';
import type { InletToServe } from './kit.ts';

/** What has a plug: a cable of a kit, or an adapter. */
interface HasPlug {
  readonly ownPlug?: string | undefined;
}

const plain = (name: string) => name.trim().replace(/\s+/g, ' ').toLowerCase();

/**
 * Does this plug go into this inlet and serve it fully? By its kind; a maker's own main plug only into the inlet of its
 * very name, since plugs that look alike differ pin by pin. One without a name goes into none.
 */
export function plugFits(plug: PlugKind, { ownPlug }: HasPlug, inlet: Pick<InletToServe, 'kind' | 'ownPlug'>): boolean {
  if (!plugServes(plug, inlet.kind)) return false;
  if (plug !== 'main-own') return true;
  return ownPlug !== undefined && inlet.ownPlug !== undefined && plain(ownPlug) === plain(inlet.ownPlug);
}
