import type { ExcursionKind, InletKind, Shape } from '../standards/index.ts';

/** What a part draws. Watts are the part's own; a processor's are divided by its converters' efficiency in Load. */
export interface PowerFigures {
  readonly lowWatts: number;
  readonly likelyWatts: number;
  readonly highWatts: number;
  readonly idleWatts: number;
  /** What it draws for seconds, such as a processor's turbo; at least `likelyWatts`. */
  readonly shortWatts: number;
  /** Spin-up of a drive on +12, amps for some seconds; 0 when it does not spin. */
  readonly spinUpAmps: number;
  /** Spin-up on +5, as 2.5 inch drives do it, amps for some seconds. */
  readonly spinUpAmps5: number;
  /** Watts on +12 that a card with plugs of its own takes from its slot, by its sheet; null for what is usual. */
  readonly slotWatts: number | null;
  /** Shares of the watts on each voltage, 0 to 1, summing to 1. */
  readonly share12: number;
  readonly share5: number;
  readonly share33: number;
  readonly excursion: ExcursionKind;
  /** What it draws from +5 V standby while the machine is off or asleep, in watts. */
  readonly standbyWatts: number;
  readonly source: FigureSource;
}

/** Where a part's figures come from; better sources come later in the list. */
export type FigureSource = 'class' | 'manual' | 'label' | 'measured';
export const figureSources = ['class', 'manual', 'label', 'measured'] as const satisfies readonly FigureSource[];

/** A power inlet of a part. Ids are unique inside a job. */
export interface Inlet {
  readonly id: string;
  readonly kind: InletKind;
  readonly label: string;
  /** Ordinary use does not need it, full boost does. */
  readonly optional: boolean;
  /** Where in the case it is; where inlets of its kind usually are when nobody says. */
  readonly place?: CasePlace | undefined;
  /**
   * What it draws of the part's lasting watts, where somebody knows it; else the part's draw is shared by what each
   * inlet carries.
   */
  readonly watts?: number | undefined;
  /** The way from the supply as somebody measured it; what is usual for the place otherwise. */
  readonly wayMillimetres?: number | undefined;
}

/** Where in a case an inlet is. */
export type CasePlace = 'board-edge' | 'board-top' | 'slots' | 'drive-cage' | 'front' | 'top' | 'floor';
export const casePlaces = [
  'board-edge',
  'board-top',
  'slots',
  'drive-cage',
  'front',
  'top',
  'floor',
] as const satisfies readonly CasePlace[];

/** What the upgrade does with a part. `replaced` leaves the machine for an added part, `removed` leaves without one. */
export type PartChange = 'stays' | 'added' | 'replaced' | 'removed';
export const partChanges = ['stays', 'added', 'replaced', 'removed'] as const satisfies readonly PartChange[];

export interface MachinePart {
  readonly id: string;
  readonly classId: string;
  readonly name: string;
  /** Several alike, such as memory modules; 1 for a part with inlets. */
  readonly quantity: number;
  readonly change: PartChange;
  readonly figures: PowerFigures;
  readonly inlets: readonly Inlet[];
}

export type CaseLayout = 'tower' | 'small' | 'slim';
export const caseLayouts = ['tower', 'small', 'slim'] as const satisfies readonly CaseLayout[];

/** The case as far as a supply and its cables are concerned. */
export interface Casing {
  readonly layout: CaseLayout;
  readonly shapes: readonly Shape[];
  /** Room from the mounting face to the first obstacle, cables bent; null when nobody measured it. */
  readonly depthMillimetres: number | null;
  /** A maker-built case with mounting holes of its own; the standard four otherwise. */
  readonly ownHoles: boolean;
  /** No opening where the large face of the supply comes to lie, so that a fan there gets no air. */
  readonly ventClosed: boolean;
}

export type MachineMoment = 'present' | 'planned';

/** The parts in the machine before or after the planned upgrade. */
export function partsAt<P extends MachinePart>(parts: readonly P[], moment: MachineMoment): P[] {
  return parts.filter(
    (part) => part.change === 'stays' || (moment === 'planned' ? part.change === 'added' : part.change !== 'added'),
  );
}
