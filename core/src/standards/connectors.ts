/** What a device asks for. */
export type InletKind =
  | 'main-24'
  | 'main-20'
  | 'aux-6'
  | 'main-own'
  | 'cpu-8'
  | 'cpu-4'
  | 'card-16'
  | 'card-8'
  | 'card-6'
  | 'sata'
  | 'peripheral-4'
  | 'small-drive-4';
export const inletKinds = [
  'main-24',
  'main-20',
  'aux-6',
  'main-own',
  'cpu-8',
  'cpu-4',
  'card-16',
  'card-8',
  'card-6',
  'sata',
  'peripheral-4',
  'small-drive-4',
] as const satisfies readonly InletKind[];
/** Inlets that follow a standard; `main-own` is a maker's own main connector, which takes only the plug of its name. */
export const standardInletKinds = inletKinds.filter((kind) => kind !== 'main-own');

/** What sits at the device end of a cable. */
export type PlugKind =
  | 'main-24'
  | 'main-20+4'
  | 'main-20'
  | 'aux-6'
  | 'main-own'
  | 'cpu-8'
  | 'cpu-4+4'
  | 'cpu-4'
  | 'card-16'
  | 'card-8'
  | 'card-6+2'
  | 'card-6'
  | 'sata'
  | 'peripheral-4'
  | 'small-drive-4';
export const plugKinds = [
  'main-24',
  'main-20+4',
  'main-20',
  'aux-6',
  'main-own',
  'cpu-8',
  'cpu-4+4',
  'cpu-4',
  'card-16',
  'card-8',
  'card-6+2',
  'card-6',
  'sata',
  'peripheral-4',
  'small-drive-4',
] as const satisfies readonly PlugKind[];
/** Plugs that follow a standard, without a maker's own. */
export const standardPlugKinds = plugKinds.filter((kind) => kind !== 'main-own');

/** What sits at the back of a modular supply. `cpu-card` takes a processor or a card cable alike. */
export type SocketKind = 'main' | 'cpu' | 'card' | 'cpu-card' | 'card-16' | 'drive';
export const socketKinds = [
  'main',
  'cpu',
  'card',
  'cpu-card',
  'card-16',
  'drive',
] as const satisfies readonly SocketKind[];

/** The family of a cable: what its supply end is made for. */
export type CableFamily = 'main' | 'cpu' | 'card' | 'card-16' | 'drive';
export const cableFamilies = ['main', 'cpu', 'card', 'card-16', 'drive'] as const satisfies readonly CableFamily[];

const plugsForInlet: Record<InletKind, readonly PlugKind[]> = {
  'main-24': ['main-24', 'main-20+4'],
  'main-20': ['main-20+4', 'main-20', 'main-24'],
  'aux-6': ['aux-6'],
  'main-own': ['main-own'],
  'cpu-8': ['cpu-8', 'cpu-4+4'],
  'cpu-4': ['cpu-4', 'cpu-4+4'],
  'card-16': ['card-16'],
  'card-8': ['card-8', 'card-6+2'],
  'card-6': ['card-6', 'card-6+2'],
  sata: ['sata'],
  'peripheral-4': ['peripheral-4'],
  'small-drive-4': ['small-drive-4'],
};

/**
 * Does this plug serve this inlet fully? A 20-pin plug in a 24-pin inlet, a 6-pin plug in an 8-pin inlet and
 * a half-filled processor inlet are not service: they are never planned.
 */
export function plugServes(plug: PlugKind, inlet: InletKind): boolean {
  return plugsForInlet[inlet].includes(plug);
}

/** Plugs that come apart: what of each hangs beside an inlet that takes only the rest. */
const splitPlugs = {
  'main-20+4': { half: 'main-20', left: 'four' },
  'card-6+2': { half: 'card-6', left: 'two' },
  'cpu-4+4': { half: 'cpu-4', left: 'half' },
} as const satisfies Partial<Record<PlugKind, { readonly half: InletKind; readonly left: string }>>;
type SplitPlug = keyof typeof splitPlugs;

/** What hangs beside an inlet of a plug that comes apart. */
export type LeftPiece = (typeof splitPlugs)[SplitPlug]['left'];

/** Whether a plug is made of two pieces that come apart. */
export const comesApart = (plug: PlugKind): plug is SplitPlug => plug in splitPlugs;

/** The piece of a plug that its inlet has no room for, and that hangs beside it; null where all of it is in. */
export function leftBeside(plug: PlugKind, inlet: InletKind): LeftPiece | null {
  return comesApart(plug) && splitPlugs[plug].half === inlet ? splitPlugs[plug].left : null;
}

const familiesForSocket: Record<SocketKind, readonly CableFamily[]> = {
  main: ['main'],
  cpu: ['cpu'],
  card: ['card'],
  'cpu-card': ['cpu', 'card'],
  'card-16': ['card-16'],
  drive: ['drive'],
};

/** Does a cable of this family belong in this socket of the same supply? */
export function socketTakes(socket: SocketKind, family: CableFamily): boolean {
  return familiesForSocket[socket].includes(family);
}

/** The purpose an inlet belongs to; plugs never cross between purposes. */
export function inletFamily(inlet: InletKind): CableFamily {
  switch (inlet) {
    case 'main-24':
    case 'main-20':
    case 'aux-6':
    case 'main-own':
      return 'main';
    case 'cpu-8':
    case 'cpu-4':
      return 'cpu';
    case 'card-16':
      return 'card-16';
    case 'card-8':
    case 'card-6':
      return 'card';
    case 'sata':
    case 'peripheral-4':
    case 'small-drive-4':
      return 'drive';
  }
}

/** What a pin carries, by its letters. */
export type PinSignal = '12' | '5' | '3.3' | 'G' | 'SB' | 'PG' | 'ST' | '-12' | 'S' | 'NC';
export const pinSignals = [
  '12',
  '5',
  '3.3',
  'G',
  'SB',
  'PG',
  'ST',
  '-12',
  'S',
  'NC',
] as const satisfies readonly PinSignal[];

/**
 * What a contact of a supply's socket gives: as a pin, or a sense wire that says what it feels at the device: a
 * voltage, or ground (`SG`). A bare `S` is a card's, at ground; in a main socket it is a sense wire of which nobody
 * knows the voltage.
 */
export type SocketSignal = PinSignal | 'S12' | 'S5' | 'S3.3' | 'SG';
export const socketSignals = [...pinSignals, 'S12', 'S5', 'S3.3', 'SG'] as const satisfies readonly SocketSignal[];

/**
 * Pins of a plug in two rows, latch side first, seen from the wire side. Positions run along the row from pin 1's end.
 * Source: design guide and card electromechanical specification; the latch side is likely, not certain.
 */
export interface PinFace {
  readonly rows: readonly (readonly { readonly pin: number; readonly signal: PinSignal }[])[];
  /** Small contacts beside the rows, which carry no supply power; numbered on from the rows. */
  readonly small?: readonly SmallContact[];
}

/** A signal contact of the 16-pin card plug. Source: card electromechanical specification. */
export interface SmallContact {
  readonly pin: number;
  readonly name: string;
  /** `stable` and `present` may be left out; the two `coded` ones say the watts by lying at ground or open. */
  readonly signal: 'stable' | 'present' | 'coded';
}

function face(first: number, upper: readonly PinSignal[], lower: readonly PinSignal[]): PinFace {
  return {
    rows: [
      upper.map((signal, i) => ({ pin: first + lower.length + i, signal })),
      lower.map((signal, i) => ({ pin: first + i, signal })),
    ],
  };
}

const main24 = face(
  1,
  ['3.3', '-12', 'G', 'ST', 'G', 'G', 'G', 'NC', '5', '5', '5', 'G'],
  ['3.3', '3.3', 'G', '5', 'G', '5', 'G', 'PG', 'SB', '12', '12', '3.3'],
);
const main20 = face(
  1,
  ['3.3', '-12', 'G', 'ST', 'G', 'G', 'G', 'NC', '5', '5'],
  ['3.3', '3.3', 'G', '5', 'G', '5', 'G', 'PG', 'SB', '12'],
);
const auxiliary: PinFace = {
  rows: [(['G', 'G', 'G', '3.3', '3.3', '5'] as const).map((signal, i) => ({ pin: i + 1, signal }))],
};
const cpu4 = face(1, ['12', '12'], ['G', 'G']);
const cpu8 = face(1, ['12', '12', '12', '12'], ['G', 'G', 'G', 'G']);
const card6 = face(1, ['G', 'S', 'G'], ['12', '12', '12']);
const card8 = face(1, ['G', 'S', 'G', 'G'], ['12', '12', '12', 'S']);
const card16: PinFace = {
  ...face(1, ['G', 'G', 'G', 'G', 'G', 'G'], ['12', '12', '12', '12', '12', '12']),
  small: (['stable', 'present', 'coded', 'coded'] as const).map((signal, i) => ({
    pin: 13 + i,
    name: `S${i + 1}`,
    signal,
  })),
};
const sata: PinFace = {
  rows: [
    (['3.3', '3.3', '3.3', 'G', 'G', 'G', '5', '5', '5', 'G', 'NC', 'G', '12', '12', '12'] as const).map(
      (signal, i) => ({ pin: i + 1, signal }),
    ),
  ],
};
const peripheral: PinFace = { rows: [(['12', 'G', 'G', '5'] as const).map((signal, i) => ({ pin: i + 1, signal }))] };
const smallDrive: PinFace = { rows: [(['5', 'G', 'G', '12'] as const).map((signal, i) => ({ pin: i + 1, signal }))] };

/** The face of the plug that fills an inlet. */
export const inletFace: Record<InletKind, PinFace> = {
  'main-24': main24,
  'main-20': main20,
  'aux-6': auxiliary,
  'main-own': { rows: [] },
  'cpu-8': cpu8,
  'cpu-4': cpu4,
  'card-16': card16,
  'card-8': card8,
  'card-6': card6,
  sata,
  'peripheral-4': peripheral,
  'small-drive-4': smallDrive,
};
