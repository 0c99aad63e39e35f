import { judgeProbe, type ProbedPin } from '../measure/index.ts';
import { faceOfPlug } from './crossing.ts';
import type { Guide, InletKind, PlugKind } from '../standards/index.ts';

/** A plug that was walked pin by pin. */
export interface WalkedPlug {
  readonly plug: InletKind;
  readonly pins: readonly ProbedPin[];
}

/**
 * The plugs of a cable that no walk has proved: each needs one of its own in which every pin was right.
 * @param guide of the supply that the cable was walked on
 */
export function unprovedPlugs(
  plugs: readonly PlugKind[],
  walks: readonly WalkedPlug[],
  guide: Guide,
): readonly PlugKind[] {
  const safe = walks.filter(({ plug, pins }) => judgeProbe(plug, pins, guide).word === 'safe').map(({ plug }) => plug);
  return plugs.filter((plug) => {
    const at = safe.indexOf(faceOfPlug[plug]);
    if (at >= 0) safe.splice(at, 1);
    return at < 0;
  });
}
