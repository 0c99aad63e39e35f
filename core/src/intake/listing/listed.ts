import type { RailName } from '../../standards/index.ts';
import type { CaseLayout } from '../../machine/index.ts';

/** Whose words a listing is in. */
export type ListingKind = 'lshw' | 'lsblk' | 'lspci' | 'dmidecode' | 'smartctl' | 'sensors' | 'powercap' | 'windows';

export interface ListedProcessor {
  readonly name: string;
  /** Where it sits, as the listing calls it; null where it does not say. */
  readonly socket: string | null;
  readonly cores: number | null;
}

export interface ListedMemory {
  /** The socket on the board; null where the listing does not say. */
  readonly slot: string | null;
  readonly bytes: number | null;
  /** Of the standard, 1 to 5; null where the listing does not say. */
  readonly generation: number | null;
}

/** How a drive is built, as far as a listing tells. */
export type DriveMake = 'card' | 'solid' | 'spinning' | 'spinning-35' | 'spinning-25' | 'optical';

export interface ListedDrive {
  readonly name: string;
  /** The name that the running system has for it, such as `sda`. */
  readonly device: string | null;
  readonly serial: string | null;
  readonly make: DriveMake | null;
  readonly bytes: number | null;
  readonly hours: number | null;
  readonly starts: number | null;
  /** How often its power was gone before it had been told. */
  readonly powerLosses: number | null;
}

export interface ListedCard {
  readonly name: string;
  /** Domain, bus, device and function, such as `0000:01:00.0`; null where the listing does not say. */
  readonly address: string | null;
  readonly use: 'graphics' | 'capture';
}

/** A lasting limit that the machine itself keeps. */
export interface ListedLimit {
  /** The card's address, or `processor`. */
  readonly of: string;
  readonly watts: number;
}

export interface ListedVolts {
  readonly rail: RailName;
  readonly volts: number;
}

/** What one listing says of a machine. */
export interface Listed {
  readonly processors: readonly ListedProcessor[];
  readonly memory: readonly ListedMemory[];
  readonly drives: readonly ListedDrive[];
  readonly cards: readonly ListedCard[];
  /** The board's name. */
  readonly board: string | null;
  readonly layout: CaseLayout | null;
  /** A portable or all-in-one machine, which has no supply of this kind. */
  readonly portable: boolean;
  readonly supplyWatts: number | null;
  readonly limits: readonly ListedLimit[];
  readonly volts: readonly ListedVolts[];
  /** Slots, without their function, of which something tells that they sit inside the processor. */
  readonly builtIn: readonly string[];
}

export const nothingListed: Listed = {
  processors: [],
  memory: [],
  drives: [],
  cards: [],
  board: null,
  layout: null,
  portable: false,
  supplyWatts: null,
  limits: [],
  volts: [],
  builtIn: [],
};

/** Why a listing was not taken; nothing of it is. */
export type ListingProblem =
  /** Nothing that is known here. */
  | 'foreign'
  /** It ends before its end. */
  | 'cut-off'
  /** It has the marks of a listing and cannot be read as one. */
  | 'broken'
  | 'empty'
  | 'too-large';
