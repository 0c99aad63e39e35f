import {
  inletFace,
  inletFamily,
  type InletKind,
  type PinSignal,
  type PlugKind,
  type SmallContact,
  type SocketSignal,
} from '../standards/index.ts';
import type { ProbedCode } from '../measure/index.ts';
import type { CodedWatts } from './kit.ts';

/**
 * What each pin of a socket on a supply gives, pin 1 first; null where nobody knows. Sockets follow no standard: each
 * maker has its own.
 */
export interface SocketPinout {
  readonly pins: readonly (SocketSignal | null)[];
}

/**
 * Where a pin at the device end leads: a pin of the supply end, two of them where a second wire is crimped into the
 * same contact, as a sense wire is; `none` where there is no wire, null where nobody looked.
 */
export type WireEnd = number | readonly [number, number] | 'none' | null;

/** One plug of a cable, wire by wire, device pin 1 first, the small contacts of a 16-pin one after its rows. */
export interface PlugWiring {
  readonly plug: PlugKind;
  readonly ends: readonly WireEnd[];
}

/** What a device pin would carry, and what that does. */
export interface CrossedPin {
  readonly pin: number;
  /** As it is called at the plug: its number, or S3 of the 16-pin one. */
  readonly name: string;
  readonly belongs: PinSignal | SmallContact['signal'];
  /** `nothing` without a wire; null where it is not known. */
  readonly carries: SocketSignal | 'nothing' | null;
  /** What its second wire carries, where it has one. */
  readonly second?: SocketSignal | null;
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

const voltages: readonly SocketSignal[] = ['12', '5', '3.3', 'SB', '-12'];
const isVoltage = (signal: SocketSignal) => voltages.includes(signal);
/** A card's sense pins are ground at the supply. */
const isGround = (signal: SocketSignal) => signal === 'G' || signal === 'S';
/** What a sense wire has to meet at the device, so that the supply feels what it believes to feel. */
const feels: Partial<Record<SocketSignal, PinSignal>> = { S12: '12', S5: '5', 'S3.3': '3.3', SG: 'G' };

/** What one wire does where it ends; `sensing` where a sense wire feels what it must, and brings nothing itself. */
function judgeWire(belongs: PinSignal, carries: SocketSignal | null, main: boolean): CrossedPin['word'] | 'sensing' {
  if (carries === null) return 'unknown';
  const felt = feels[carries];
  // On a ground contact, or at another voltage, it makes the supply raise what it believes to be missing.
  if (felt !== undefined) return belongs === felt || (felt === 'G' && isGround(belongs)) ? 'sensing' : 'misplaced';
  if (main && carries === 'S') return isVoltage(belongs) || isGround(belongs) ? 'unknown' : 'misplaced';
  if (carries === 'NC') return belongs === 'NC' ? 'right' : 'missing';
  if (belongs === carries || (isGround(belongs) && isGround(carries))) return 'right';
  if (belongs === 'NC') return isGround(carries) ? 'right' : 'misplaced';
  if (isVoltage(carries)) return isGround(belongs) ? 'short' : isVoltage(belongs) ? 'wrong-voltage' : 'misplaced';
  if (isGround(carries)) return isVoltage(belongs) ? 'short' : 'misplaced';
  return 'misplaced';
}

/** Of several wires in one contact the worst counts, and one that brings what belongs there is enough. */
const worstFirst = ['short', 'wrong-voltage', 'misplaced', 'unknown', 'right'] as const;

function judgePin(belongs: PinSignal, wires: readonly (SocketSignal | null)[], main: boolean): CrossedPin['word'] {
  const words = wires.map((carries) => judgeWire(belongs, carries, main));
  const none = belongs === 'NC' ? 'right' : 'missing';
  return worstFirst.find((word) => words.includes(word)) ?? none;
}

/**
 * A small contact carries a signal of the card: a voltage of the supply destroys what is behind it, ground or no wire
 * is what it codes by. Source: card electromechanical specification.
 */
function judgeSmall(wires: readonly (SocketSignal | null)[]): CrossedPin['word'] {
  const words = wires.map((carries): CrossedPin['word'] => {
    if (carries === null) return 'unknown';
    if (isVoltage(carries)) return 'wrong-voltage';
    return isGround(carries) || carries === 'NC' ? 'right' : 'misplaced';
  });
  return worstFirst.find((word) => words.includes(word)) ?? 'right';
}

/**
 * Composes what a supply's socket gives, how a cable's wires run, and what the device's standard asks, pin by pin.
 * A cable of the same maker is not taken on trust: what is not known is unknown. A missing sense wire of a card makes a
 * plug incomplete, as a missing voltage does, and as a contact does that has nothing but a sense wire; a 12 V-free old
 * drive adapter is told so by its missing 3.3 V. Of a maker's own plug nobody knows a pin, so that it is never safe.
 * The small contacts of a 16-pin plug are looked at as well: 12 V on one of them destroys the card.
 * @returns one entry for each pin of the device's face, by number
 */
export function crossingOf(pinout: SocketPinout | null, wiring: PlugWiring): Crossing {
  const { rows, small = [] } = inletFace[faceOfPlug[wiring.plug]];
  const face = [
    ...rows.flat().map((item) => ({ ...item, name: String(item.pin), small: false as const })),
    ...small.map((contact) => ({ ...contact, small: true as const })),
  ].sort((a, b) => a.pin - b.pin);
  const main = inletFamily(faceOfPlug[wiring.plug]) === 'main';
  const given = (end: number) => pinout?.pins[end - 1] ?? null;
  const pins = face.map((contact): CrossedPin => {
    const { pin, name, signal } = contact;
    const end = wiring.ends[pin - 1] ?? null;
    const wires = end === 'none' ? [] : end === null ? [null] : typeof end === 'number' ? [given(end)] : end.map(given);
    const [carries = 'nothing', second] = wires;
    return {
      ...{ pin, name, belongs: signal, carries },
      ...(second === undefined ? {} : { second }),
      word: contact.small ? judgeSmall(wires) : judgePin(contact.signal, wires, main),
    };
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

/**
 * The watts that the wires of a 16-pin plug code, as `probedCode`; null for another plug, and where not both contacts
 * are known: what a supply's own socket gives them is the supply's to say.
 */
export function wiredCode({ pins }: Crossing): ProbedCode | null {
  const coded = pins.filter(({ belongs }) => belongs === 'coded');
  if (coded.length === 0 || coded.some(({ word, carries }) => word !== 'right' || carries === 'S')) return null;
  const grounded = coded.filter(({ carries }) => carries === 'G').length;
  return grounded === coded.length ? 600 : grounded === 0 ? 'none' : 'by-print';
}

/**
 * The watts that a 16-pin cable may be counted with: what is printed on it, but no more than its contacts code; of two
 * codes that are published both ways round the lower without a print. Undefined where neither is known.
 */
export function countedWatts(printed: CodedWatts | null, code: ProbedCode | null): CodedWatts | undefined {
  if (code === null) return printed ?? undefined;
  if (code === 'none') return 150;
  if (code === 600) return printed ?? 600;
  return printed === null || printed === 600 ? 300 : printed;
}

/** The worst of several plugs on one cable. */
export function worstCrossing(crossings: readonly Crossing[]): Crossing['word'] {
  return (
    (['harmful', 'unknown', 'incomplete', 'safe'] as const).find((word) =>
      crossings.some((crossing) => crossing.word === word),
    ) ?? 'unknown'
  );
}
