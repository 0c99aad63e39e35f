import { inletFamily, type CableFamily, type InletKind } from '../standards/index.ts';
import type { CaseLayout, CasePlace } from '../machine/index.ts';

/** Where inlets of a family usually are. */
const usualPlaces: Record<CableFamily, CasePlace> = {
  main: 'board-edge',
  cpu: 'board-top',
  card: 'slots',
  'card-16': 'slots',
  drive: 'drive-cage',
};

/** Length of the way from the supply to a place in millimetres, by case layout (bench practice). */
const lengths: Record<CaseLayout, Record<CasePlace, number>> = {
  tower: { 'board-edge': 450, 'board-top': 600, slots: 500, 'drive-cage': 350, front: 450, top: 650, floor: 250 },
  small: { 'board-edge': 300, 'board-top': 350, slots: 300, 'drive-cage': 200, front: 300, top: 350, floor: 200 },
  slim: { 'board-edge': 250, 'board-top': 250, slots: 250, 'drive-cage': 150, front: 250, top: 250, floor: 150 },
};

/**
 * Cable between two places, whatever their ways from the supply, and between two bays of one cage, in millimetres
 * (bench practice).
 */
const betweenPlacesMillimetres = 150;
const betweenBaysMillimetres = 25;

export function usualPlace(kind: InletKind): CasePlace {
  return usualPlaces[inletFamily(kind)];
}

/** The way to an inlet in a case of this layout, in millimetres, where nobody measured it. */
export function reachMillimetres(layout: CaseLayout, kind: InletKind, place: CasePlace = usualPlace(kind)): number {
  return lengths[layout][place];
}

interface Placed {
  readonly place: CasePlace;
  readonly reachMillimetres: number;
}

/**
 * The least length of cable between the plugs of two inlets on one chain, in millimetres; a metric, so that it is
 * enough to look at pairs.
 */
export function betweenMillimetres(a: Placed, b: Placed): number {
  return Math.max(
    a.place !== b.place ? betweenPlacesMillimetres : a.place === 'drive-cage' ? betweenBaysMillimetres : 0,
    Math.abs(a.reachMillimetres - b.reachMillimetres),
  );
}
