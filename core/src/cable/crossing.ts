import { inletFace, inletFamily, type InletKind, type PinSignal, type PlugKind } from '../standards/index.ts';

/**
 * What each pin of a socket on a supply gives, pin 1 first; null where nobody knows. Sockets follow no standard: each
 * maker has its own.
 */
export interface SocketPinout {
  readonly pins: readonly (PinSignal | null)[];
}

/**
 * Where a pin at the device end leads: a pin of the supply end, `none` where there is no wire, null where nobody
 * looked.
 */
export type WireEnd = number | 'none' | null;

/** One plug of a cable, wire by wire, device pin 1 first. */
export interface PlugWiring {
  readonly plug: PlugKind;
  readonly ends: readonly WireEnd[];
}

/** What a device pin would carry, and what that does. */
export interface CrossedPin {
  readonly pin: number;
  readonly belongs: PinSignal;
  /** `nothing` without a wire; null where it is not known. */
  readonly carries: PinSignal | 'nothing' | null;
  /**
   * `short`: a voltage against ground, through wires that burn. `wrong-voltage`: another voltage than belongs there,
   * into the device. `misplaced`: a signal where power belongs or the other way round. `missing`: a voltage, ground or
   * signal that does not arrive. `unknown`: to be probed. `right`.
   */
  readonly word: 'right' | 'short' | 'wrong-voltage' | 'misplaced' | 'missing' | 'unknown';
}

/** Whether a cable may go between this supply and this device. */
export interface Crossing {
  /**
   * `harmful` as soon as one pin is; `unknown` while one may be; `incomplete` when something does not arrive; else
   * `safe`.
   */
  readonly word: 'safe' | 'incomplete' | 'unknown' | 'harmful';
  readonly pins: readonly CrossedPin[];
  /** Device pins to probe before it may be plugged in. */
  readonly probe: readonly number[];
}

/** The standard face that a plug is made after. */
export const faceOfPlug: Record<PlugKind, InletKind> = {
  'main-24': 'main-24',
  'main-20+4': 'main-24',
  'main-20': 'main-20',
  'aux-6': 'aux-6',
  'main-own': 'main-own',
  'cpu-8': 'cpu-8',
  'cpu-4+4': 'cpu-8',
  'cpu-4': 'cpu-4',
  'card-16': 'card-16',
  'card-8': 'card-8',
  'card-6+2': 'card-8',
  'card-6': 'card-6',
  sata: 'sata',
  'peripheral-4': 'peripheral-4',
  'small-drive-4': 'small-drive-4',
};

const voltages: readonly PinSignal[] = ['12', '5', '3.3', 'SB', '-12'];
const isVoltage = (signal: PinSignal) => voltages.includes(signal);
/** A card's sense pins are ground at the supply. */
const isGround = (signal: PinSignal) => signal === 'G' || signal === 'S';

/**
 * On the main plug a sense wire feels +3.3 at the board: it belongs to a +3.3 pin, and on a ground contact it makes the
 * supply raise what it believes to be missing.
 */
function judgeMainSense(belongs: PinSignal): CrossedPin['word'] {
  return belongs === '3.3' || belongs === 'S' ? 'right' : 'misplaced';
}

function judgePin(belongs: PinSignal, carries: PinSignal | 'nothing' | null, main: boolean): CrossedPin['word'] {
  if (main && carries === 'S') return judgeMainSense(belongs);
  if (carries === null) return 'unknown';
  if (carries === 'nothing' || carries === 'NC') return belongs === 'NC' ? 'right' : 'missing';
  if (belongs === carries || (isGround(belongs) && isGround(carries))) return 'right';
  if (belongs === 'NC') return isGround(carries) ? 'right' : 'misplaced';
  if (isVoltage(carries)) return isGround(belongs) ? 'short' : isVoltage(belongs) ? 'wrong-voltage' : 'misplaced';
  if (isGround(carries)) return isVoltage(belongs) ? 'short' : 'misplaced';
  return 'misplaced';
}

/**
 * Composes what a supply's socket gives, how a cable's wires run, and what the device's standard asks, pin by pin.
 * A cable of the same maker is not taken on trust: what is not known is unknown. A missing sense wire makes a plug
 * incomplete, as a missing voltage does; a 12 V-free old drive adapter is told so by its missing 3.3 V. Of a maker's own
 * plug nobody knows a pin, so that it is never safe.
 * @returns one entry for each pin of the device's face, by number
 */
export function crossingOf(pinout: SocketPinout | null, wiring: PlugWiring): Crossing {
  const face = inletFace[faceOfPlug[wiring.plug]].rows.flat().sort((a, b) => a.pin - b.pin);
  const main = inletFamily(faceOfPlug[wiring.plug]) === 'main';
  const pins = face.map(({ pin, signal }): CrossedPin => {
    const end = wiring.ends[pin - 1];
    const carries =
      end === 'none'
        ? 'nothing'
        : end === null || end === undefined || pinout === null
          ? null
          : (pinout.pins[end - 1] ?? null);
    return { pin, belongs: signal, carries, word: judgePin(signal, carries, main) };
  });
  const has = (...words: readonly CrossedPin['word'][]) => pins.some((item) => words.includes(item.word));
  return {
    pins,
    probe: pins.filter((item) => item.word === 'unknown').map((item) => item.pin),
    word: has('short', 'wrong-voltage', 'misplaced')
      ? 'harmful'
      : has('unknown') || pins.length === 0
        ? 'unknown'
        : has('missing')
          ? 'incomplete'
          : 'safe',
  };
}

/** The worst of several plugs on one cable. */
export function worstCrossing(crossings: readonly Crossing[]): Crossing['word'] {
  return (
    (['harmful', 'unknown', 'incomplete', 'safe'] as const).find((word) =>
      crossings.some((crossing) => crossing.word === word),
    ) ?? 'unknown'
  );
}
