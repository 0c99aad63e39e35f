import { cableFamilies, type CableFamily, type SocketSignal } from '@fairwatt/core';
import type { Pinout } from '@fairwatt/contract';
import type { FieldPath } from '../controls/told-fields.ts';

/** The sockets of a kind of supply as they are typed: each a line of signals, pin 1 first. */
export interface PinoutDraft {
  readonly name: string;
  readonly sockets: Readonly<Record<CableFamily, string>>;
  readonly supplies: readonly string[];
}

const pinsText = (pins: readonly (SocketSignal | null)[]): string => pins.map((pin) => pin ?? '?').join(' ');

export function draftOfPinout({ name, sockets, supplies }: Pinout): PinoutDraft {
  const lineOf = (family: CableFamily) => pinsText(sockets.find((socket) => socket.family === family)?.pins ?? []);
  const lines = Object.fromEntries(cableFamilies.map((family) => [family, lineOf(family)]));
  return { name, sockets: lines as PinoutDraft['sockets'], supplies };
}

/** The words of a line; a question mark is a pin that nobody measured. */
const readPins = (line: string): readonly (string | null)[] =>
  line
    .trim()
    .split(/[\s,]+/)
    .filter((pin) => pin !== '')
    .map((pin) => (pin === '?' ? null : pin.toUpperCase()));

const typedFamilies = ({ sockets }: PinoutDraft): readonly CableFamily[] =>
  cableFamilies.filter((family) => readPins(sockets[family]).length > 0);

/** What was typed as sockets of a kind of supply, for their schema to read; a socket without a word is none. */
export const typedPinout = (seen: Pick<Pinout, 'id' | 'version'>, draft: PinoutDraft): unknown => ({
  id: seen.id,
  version: seen.version,
  name: draft.name.trim(),
  supplies: draft.supplies,
  sockets: typedFamilies(draft).map((family) => ({ family, pins: readPins(draft.sockets[family]) })),
});

/** Where a path of what is sent stands on the form: sockets by their family, not by their number. */
export function pinoutField(path: FieldPath, draft: PinoutDraft): FieldPath {
  const [list, index, ...rest] = path;
  const family = list === 'sockets' && typeof index === 'number' ? typedFamilies(draft)[index] : undefined;
  return family === undefined ? path : ['sockets', family, ...rest];
}

/** What is wrong with one pin says with which. */
export function pinoutWords(path: FieldPath, message: string): string {
  const pin = path[0] === 'sockets' && path.at(-2) === 'pins' ? path.at(-1) : undefined;
  return typeof pin === 'number' ? `pin ${pin + 1} ${message}` : message;
}
