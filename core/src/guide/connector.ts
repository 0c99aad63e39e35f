import type { InletKind, PlugKind } from '../standards/index.ts';

/** What somebody sees of a connector, each answer by its id. */
export interface Looks {
  readonly look: 'block' | 'supply' | 'flat' | 'round' | 'pins' | 'mains';
  /** Places for contacts that have one; null where any number is found. */
  readonly pins: number | 'other' | null;
  readonly rows?: 1 | 2;
  readonly splits?: 'whole' | '20+4' | '4+4' | '6+2';
  /** The row that the +12 wires, yellow where they are coloured, come out of. */
  readonly twelve?: 'latch-side' | 'other-side';
  /** Which place of a header has no pin, or how its places lie. */
  readonly gap?: 'none' | 'corner' | 'beside-corner' | 'middle' | 'third';
  readonly key?: 'ridge' | 'arrow' | 'plain';
  readonly mains?: 'three-flat' | 'notched' | 'large' | 'clover' | 'eight';
}

/** How it is drawn: as a face of pins, or by its outline. */
export type Drawing =
  | { readonly as: 'face'; readonly kind: InletKind }
  /** Rows of places from the left, 1 for a contact, 0 for none; small ones beside them. */
  | {
      readonly as: 'grid';
      readonly rows: readonly string[];
      readonly latch: boolean;
      readonly small?: number;
      readonly ridge?: boolean;
    }
  | { readonly as: 'flat'; readonly contacts: number }
  | { readonly as: 'round-pins' }
  | { readonly as: 'barrel' }
  | { readonly as: 'mains'; readonly shape: NonNullable<Looks['mains']> };

/** What a contact carries. */
export interface Contact {
  readonly pin: string;
  readonly carries: string;
}

export interface Never {
  /** A connector of this guide, where it is one. */
  readonly id: string | null;
  readonly into: string;
  readonly happens: string;
}

/** A connector as it is met at the bench. */
export interface Connector {
  readonly id: string;
  readonly group: 'supply' | 'drive' | 'header' | 'data' | 'mains';
  readonly name: string;
  readonly looks: Looks;
  readonly drawing: Drawing;
  /** What is often printed on it or beside its place. */
  readonly printed: string;
  readonly carries: string;
  readonly contacts: readonly Contact[];
  readonly goesInto: string;
  readonly never: readonly Never[];
  readonly out: string;
  readonly in: string;
  /** The plug that a cable is recorded with, where it is one that carries a machine's power. */
  readonly recordAs: PlugKind | null;
}
