import type { CableFamily, Gauge, InletKind, PlugKind, SocketKind } from '../standards/index.ts';

export interface Socket {
  readonly label: string;
  readonly kind: SocketKind;
  /** The +12 output behind it, where the supply has several and the maker says which. */
  readonly output?: string | undefined;
}

/** A plug on a cable, with its distance from the supply along the cable. */
export interface KitPlug {
  readonly kind: PlugKind;
  readonly millimetres: number;
}

/** A cable of a supply's kit; `count` alike. A fixed one grows out of the supply and needs no socket. */
export interface KitCable {
  readonly id: string;
  readonly family: CableFamily;
  readonly fixed: boolean;
  readonly count: number;
  readonly gauge: Gauge;
  readonly plugs: readonly KitPlug[];
  /** The +12 output that a fixed cable hangs on, where the maker says it. */
  readonly output?: string | undefined;
}

export interface CableKit {
  readonly sockets: readonly Socket[];
  readonly cables: readonly KitCable[];
}

/** An inlet to serve: what it takes, how far away it is, what it carries. */
export interface InletToServe {
  readonly id: string;
  readonly kind: InletKind;
  readonly optional: boolean;
  /** Length of the way from the supply's exit, in millimetres. */
  readonly reachMillimetres: number;
  readonly amps12: number;
  readonly amps5: number;
  readonly amps33: number;
}
