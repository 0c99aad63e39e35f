import type { CasePlace } from '../machine/index.ts';
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

/** What a 16-pin cable or adapter can be coded for (card specification). */
export const codedWatts = [150, 300, 450, 600] as const;
export type CodedWatts = (typeof codedWatts)[number];

/** A cable of a supply's kit; `count` alike. A fixed one grows out of the supply and needs no socket. */
export interface KitCable {
  readonly id: string;
  readonly family: CableFamily;
  readonly fixed: boolean;
  readonly count: number;
  readonly gauge: Gauge;
  readonly plugs: readonly KitPlug[];
  /**
   * Its end at the supply is two plugs, each in a socket: a main cable in two main sockets, a 16-pin cable in two
   * sockets for card cables.
   */
  readonly twoEnded?: boolean | undefined;
  /**
   * The only socket that it goes into, by its label, where cables and sockets bear numbers. That socket is kept for it:
   * one such piece, no other cable is planned there.
   */
  readonly onlySocket?: string | undefined;
  /**
   * The watts that a 16-pin cable tells its card by its sense contacts; left out where nobody read what is printed on
   * it.
   */
  readonly codedWatts?: CodedWatts | undefined;
  /** Of a cable with a maker's own main plug: the name of the inlet that it fits, the only one. */
  readonly ownPlug?: string | undefined;
  /** The +12 output that a fixed cable hangs on, where the maker says it. */
  readonly output?: string | undefined;
  /** A spare cable from a bag that may go on this supply; the supply's own otherwise. */
  readonly spare?: boolean | undefined;
}

export interface CableKit {
  readonly sockets: readonly Socket[];
  readonly cables: readonly KitCable[];
}

/**
 * A piece between plug and inlet: an extension (it takes and gives the same kind), one that changes the kind of a drive
 * plug, or one that makes a 16-pin plug of several separate 8-pin cables.
 */
export interface Adapter {
  readonly id: string;
  readonly takes: InletKind;
  readonly gives: PlugKind;
  /** Of one that gives a maker's own main plug: the name of the inlet that it fits, the only one. */
  readonly ownPlug?: string | undefined;
  /** How many plugs it takes, each from a cable of its own. */
  readonly legs: number;
  readonly moulded: boolean;
  readonly addsMillimetres: number;
  /** What its maker lets it carry; null where nobody says. */
  readonly watts: number | null;
  readonly count: number;
}

/** A plug that a technician put where it is: the plan goes around it. Copies of a cable count from 0. */
export interface Pin {
  readonly inletId: string;
  readonly kitCableId: string;
  readonly copy: number;
  readonly plugIndex: number;
  /** The socket, where that was chosen by hand as well. */
  readonly socketLabel: string | null;
  /** The adapter or extension that is to go between plug and inlet. */
  readonly adapterId?: string | undefined;
}

/** An inlet to serve: what it takes, how far away it is, what it carries. */
export interface InletToServe {
  readonly id: string;
  readonly kind: InletKind;
  /** The name of a maker's own main inlet, where somebody gave it one. */
  readonly ownPlug?: string | undefined;
  readonly optional: boolean;
  readonly place: CasePlace;
  /** Length of the way from the supply's exit, in millimetres. */
  readonly reachMillimetres: number;
  readonly amps12: number;
  readonly amps5: number;
  readonly amps33: number;
  /**
   * Where drives start one after the other: what this one's start adds to what it draws turning; counts once for a
   * chain.
   */
  readonly startAmps12?: number | undefined;
  readonly startAmps5?: number | undefined;
  /** A pump or a hub of fans: it does not go on a chain of thin wire. */
  readonly cools?: boolean | undefined;
}
