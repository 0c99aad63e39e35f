import { plugServes, type PlugKind } from '../standards/index.ts';
import { adapterCarries, adapterRefusal, type AdapterRefusal } from './adapters.ts';
import { faceOfPlug } from './crossing.ts';
import type { InletToServe } from './kit.ts';

/** An adapter or an extension that was found between a cable's plug and an inlet. */
export interface FoundAdapter {
  /** The plug with which it goes into the inlet. */
  readonly gives: PlugKind;
  /** Cables that feed it, this one counted. */
  readonly legs: number;
  /** In one piece with its wires, which cannot be looked at. */
  readonly moulded: boolean;
}

export const mostFoundLegs = 4;

/** What is wrong with an adapter that was found: it may never be, it carries more than it can, or it does not fit. */
export type FoundHarm = Exclude<AdapterRefusal, 'unnamed'> | 'overloaded' | 'no-fit';

/**
 * The harm of an adapter where it was found, by the rules for planning with one and by what the inlet draws; null where
 * it may stay. Its own watts are not known, so that what its legs may give bounds it.
 * @param plug the cable's plug that it hangs on
 */
export function foundHarm(plug: PlugKind, found: FoundAdapter, inlet: InletToServe): FoundHarm | null {
  if (!plugServes(found.gives, inlet.kind)) return 'no-fit';
  // It is in the very inlet that it fits.
  const ownPlug = found.gives === 'main-own' ? 'as found' : undefined;
  const adapter = { ...found, takes: faceOfPlug[plug], watts: null, ownPlug };
  const refusal = adapterRefusal(adapter);
  if (refusal !== null && refusal !== 'unnamed') return refusal;
  return adapterCarries(adapter, inlet) ? null : 'overloaded';
}
