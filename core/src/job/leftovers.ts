import { mayHaveTwoEnds, type BagCable, type CableBags, type KitCable } from '../cable/index.ts';
import type { CableFamily } from '../standards/index.ts';
import type { SupplyModel } from '../supply/index.ts';
import type { Cabling } from './cabling.ts';
import type { Job, RecordedCable } from './job.ts';
import { familyOf } from './kept-supply.ts';

/** A piece for the bags, before it has its place among them. */
export type Leftover = Omit<BagCable, 'id' | 'version'>;
type Bags = Pick<CableBags, 'cables'>;
/** What is known of a piece itself. */
type Piece = Pick<BagCable, 'family' | 'gauge' | 'twoEnded' | 'codedWatts'> & {
  readonly plugs: readonly Pick<BagCable['plugs'][number], 'kind' | 'millimetres'>[];
};

/**
 * The pieces of the fitted supply's kit that no inlet of this machine needs, each with a label of its own, as spare
 * cables of that supply; those that are in the bags already are left out. Their wires are nobody's knowledge yet.
 */
export function leftoversOf(
  job: Pick<Job, 'code'>,
  { plan, kit }: Pick<Cabling, 'plan' | 'kit'>,
  chosen: Pick<SupplyModel, 'name'>,
  bags: Bags,
): Leftover[] {
  const pieces = (plan?.bagged ?? []).flatMap(({ kitCableId, count }) => {
    const cable = kit?.cables.find(({ id }) => id === kitCableId);
    return cable === undefined ? [] : Array.from({ length: count }, () => pieceOf(cable));
  });
  return notInBags(pieces, bags, { code: job.code, cameWith: chosen.name, note: `Left over from ${job.code}` });
}

/**
 * The modular cables that came with a supply that is replaced, as spares of that supply, as `leftoversOf`. Their
 * lengths are those of the shop's list where it has that supply, and else to be measured.
 * @param present from `presentModel`
 */
export function oldCablesOf(
  job: Pick<Job, 'code' | 'supply' | 'cables' | 'choice'>,
  present: Pick<SupplyModel, 'kit'> | null,
  bags: Bags,
): Leftover[] {
  const { code, supply, choice } = job;
  if (choice?.kind !== 'replace') return [];
  const name = supply?.name.trim() ?? '';
  const pieces = job.cables
    .filter(({ socketLabel, likely }) => socketLabel !== '' && likely !== true)
    .flatMap((cable) => recordedPiece(cable, present) ?? []);
  return notInBags(pieces, bags, {
    code,
    cameWith: name === '' ? 'not known' : name,
    note: `Of the old supply of ${code}`,
  });
}

const pieceOf = ({ family, gauge, twoEnded, codedWatts, plugs }: KitCable): Piece => ({
  family,
  gauge,
  twoEnded: twoEnded === true,
  codedWatts: codedWatts ?? null,
  plugs: plugs.map(({ kind, millimetres }) => ({ kind, millimetres })),
});

/** A recorded cable as a piece, by the shop's list where one of that supply's is like it; null without any plug. */
function recordedPiece(cable: RecordedCable, present: Pick<SupplyModel, 'kit'> | null): Piece | null {
  const family = familyOf(cable);
  if (family === null) return null;
  const kinds = (plugs: readonly { readonly kind: string }[]) => plugs.map(({ kind }) => kind).join(' ');
  const listed = present?.kit.cables.find(
    (item) => !item.fixed && item.family === family && kinds(item.plugs) === kinds(cable.plugs),
  );
  if (listed !== undefined) return pieceOf(listed);
  const plugs = cable.plugs.map(({ kind }) => ({ kind, millimetres: null }));
  return { family, gauge: null, twoEnded: saysTwoSockets(family, cable.socketLabel), codedWatts: null, plugs };
}

/** Were two sockets written down for a cable that may have two ends at the supply? */
const saysTwoSockets = (family: CableFamily, socketLabel: string): boolean =>
  mayHaveTwoEnds(family) && /\S \+ \S/.test(socketLabel);

/**
 * Pieces with their labels, without those that are there: pieces that are alike stand for each other. A maker's own
 * plug is of no use in another machine, and stays with its supply.
 */
function notInBags(
  pieces: readonly Piece[],
  bags: Bags,
  { code, cameWith, note }: { readonly code: string; readonly cameWith: string; readonly note: string },
): Leftover[] {
  const from = cameWith.slice(0, 60);
  const labels = new Set(bags.cables.map(({ label }) => label));
  const there = bags.cables.filter((cable) => cable.note === note && cable.cameWith === from).map(kindOf);
  return pieces
    .filter(({ plugs }) => plugs.every(({ kind }) => kind !== 'main-own'))
    .filter((piece) => {
      const at = there.indexOf(kindOf(piece));
      if (at >= 0) there.splice(at, 1);
      return at < 0;
    })
    .map((piece): Leftover => ({
      ...piece,
      label: freeLabel(code, labels),
      place: '',
      cameWith: from,
      note,
      plugs: piece.plugs.map((plug) => ({ ...plug, ends: [] })),
    }));
}

/** What makes two pieces alike; a length that was measured since makes no other piece of it. */
const kindOf = ({ family, twoEnded, plugs }: Pick<Piece, 'family' | 'twoEnded' | 'plugs'>): string =>
  [family, twoEnded ? 'two ends' : 'one end', ...plugs.map(({ kind }) => kind)].join(', ');

/** The next label of a job that no bag has, which is taken with that. */
function freeLabel(code: string, labels: Set<string>): string {
  let number = 1;
  while (labels.has(`${code} ${number}`)) number += 1;
  labels.add(`${code} ${number}`);
  return `${code} ${number}`;
}
