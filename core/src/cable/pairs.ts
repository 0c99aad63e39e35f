import type { PlugKind } from '../standards/index.ts';
import type { CableKit, InletToServe, KitCable } from './kit.ts';
import { plugFits } from './own-plug.ts';
import { betweenMillimetres } from './routing.ts';

/** Two 4-pin processor inlets beside each other that one 4+4 plug serves, a half in each. */
export interface PairToServe extends InletToServe {
  readonly pair: readonly [InletToServe, InletToServe];
}

export function isPair(inlet: InletToServe): boolean {
  return 'pair' in inlet;
}

/** Does this plug of a cable serve this inlet fully? A pair takes the two halves of one that comes apart. */
export function servesInlet(plug: PlugKind, cable: Pick<KitCable, 'ownPlug'>, inlet: InletToServe): boolean {
  return isPair(inlet) ? plug === 'cpu-4+4' : plugFits(plug, cable, inlet);
}

/** The inlets behind one that is planned: itself, or both of a pair. */
export function inletsBehind(inlet: InletToServe): readonly InletToServe[] {
  return isPair(inlet) ? (inlet as PairToServe).pair : [inlet];
}

function pairOf(a: InletToServe, b: InletToServe): PairToServe {
  return {
    ...a,
    id: `${a.id} + ${b.id}`,
    optional: a.optional && b.optional,
    amps12: a.amps12 + b.amps12,
    amps5: a.amps5 + b.amps5,
    amps33: a.amps33 + b.amps33,
    pair: [a, b],
  };
}

/**
 * Every way to join 4-pin processor inlets two by two for plugs that come apart, the first joining none. Inlets join
 * only where the halves of one plug reach both.
 */
export function waysToPair(kit: CableKit, inlets: readonly InletToServe[]): readonly (readonly InletToServe[])[] {
  const small = inlets.filter((inlet) => inlet.kind === 'cpu-4');
  const splits = kit.cables.some((cable) => cable.plugs.some((plug) => plug.kind === 'cpu-4+4'));
  if (small.length < 2 || !splits) return [inlets];
  const ways: (readonly InletToServe[])[] = [inlets];
  const join = (left: readonly InletToServe[], whole: readonly InletToServe[]): void => {
    left.forEach((a, index) =>
      left.slice(index + 1).forEach((b) => {
        if (betweenMillimetres(a, b) > 0) return;
        const joined = whole.flatMap((inlet) => (inlet === a ? [pairOf(a, b)] : inlet === b ? [] : [inlet]));
        ways.push(joined);
        join(
          left.slice(index + 1).filter((inlet) => inlet !== b),
          joined,
        );
      }),
    );
  };
  join(small, inlets);
  return ways;
}
