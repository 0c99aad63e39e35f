import { socketTakes, type CableFamily } from '../standards/index.ts';
import type { CableKit, KitCable, Socket } from './kit.ts';

/**
 * How many sockets one family's cables may take: those that each takes alone, and pairs of card sockets for 16-pin
 * cables with two ends at the supply.
 */
export interface Room {
  readonly own: number;
  readonly pairs: number;
}
export const noRoom: Room = { own: 0, pairs: 0 };

type Ends = Pick<KitCable, 'family' | 'fixed' | 'twoEnded' | 'onlySocket'>;

/** May a modular cable of this family have two ends at the supply? */
export function mayHaveTwoEnds(family: CableFamily): boolean {
  return family === 'main' || family === 'card-16';
}

/** Sockets that one piece of a cable takes at the supply; a fixed one takes none. */
export function endsAtSupply({ fixed, twoEnded }: Ends): 0 | 1 | 2 {
  return fixed ? 0 : twoEnded === true ? 2 : 1;
}

/**
 * The family whose sockets a cable's ends go into: its own, but for a 16-pin cable with two ends, which goes into two
 * sockets for card cables.
 */
export function endFamily({ family, twoEnded }: Ends): CableFamily {
  return twoEnded === true && family === 'card-16' ? 'card' : family;
}

/** Is this the one socket that a cable goes into? Of a cable that goes into any, any is. */
const isItsOwn = ({ label }: Socket, { onlySocket }: Ends) => onlySocket === undefined || onlySocket === label;

/** The sockets of a kit that are not kept for one of its cables. */
export function socketsForAll({ sockets, cables }: CableKit): readonly Socket[] {
  const kept = new Set(cables.flatMap(({ onlySocket }) => onlySocket ?? []));
  return kept.size === 0 ? sockets : sockets.filter(({ label }) => !kept.has(label));
}

/** What one piece of a cable takes of the room: one that has a socket of its own takes none. */
export function roomFor(cable: Ends): Room {
  if (cable.onlySocket !== undefined) return noRoom;
  const ends = endsAtSupply(cable);
  return ends === 2 && endFamily(cable) !== cable.family ? { own: 0, pairs: 1 } : { own: ends, pairs: 0 };
}

/** Is there room for this beside what is taken? */
export function hasRoom(room: Room, taken: Room, asked: Room): boolean {
  return taken.own + asked.own <= room.own && taken.pairs + asked.pairs <= room.pairs;
}

/** The name under which a cable's sockets stand: its label, or both of them, as `CARD 1 + CARD 2`. */
export function socketsLabel(sockets: readonly Pick<Socket, 'label'>[]): string {
  return sockets.map(({ label }) => label).join(' + ');
}

/** The sockets that such a name means, in its order; null where a kit has no such sockets. */
export function socketsNamed<S extends Pick<Socket, 'label'>>(
  kit: { readonly sockets: readonly S[] },
  name: string,
): readonly S[] | null {
  const wanted = name.trim();
  const one = kit.sockets.find(({ label }) => label === wanted);
  if (one !== undefined) return [one];
  for (const first of kit.sockets) {
    if (!wanted.startsWith(first.label)) continue;
    const second = kit.sockets.find((socket) => socket !== first && socketsLabel([first, socket]) === wanted);
    if (second !== undefined) return [first, second];
  }
  return null;
}

/** Do these sockets take the ends of this cable, each one, and is it the right one where it goes into one only? */
export function socketsTake(sockets: readonly Socket[], cable: Ends): boolean {
  return (
    sockets.length === endsAtSupply(cable) &&
    sockets.every((socket) => socketTakes(socket.kind, endFamily(cable)) && isItsOwn(socket, cable))
  );
}

/** Every choice of sockets that takes a cable, as names, in the order of the sockets. */
export function socketChoices(sockets: readonly Socket[], cable: Ends): readonly string[] {
  const fitting = sockets.filter((socket) => socketTakes(socket.kind, endFamily(cable)) && isItsOwn(socket, cable));
  if (endsAtSupply(cable) !== 2) return fitting.map(({ label }) => label);
  return fitting.flatMap((first, index) => fitting.slice(index + 1).map((second) => socketsLabel([first, second])));
}
