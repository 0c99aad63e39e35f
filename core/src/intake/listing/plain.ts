/** Fields of data that anybody may have written. */
export type Fields = Readonly<Record<string, unknown>>;

export const fieldsOf = (value: unknown): Fields | null =>
  typeof value === 'object' && value !== null && !Array.isArray(value) ? (value as Fields) : null;

export const listOf = (value: unknown): readonly unknown[] => (Array.isArray(value) ? (value as unknown[]) : []);

/** A part's name is at most so long in a job. */
export const mostNameLetters = 80;

/**
 * A name as it may stand in a job: without control characters, halves of letters and marks that turn the direction of
 * writing; blanks are one blank. What is no text has no name.
 */
export function plainName(value: unknown): string {
  if (typeof value !== 'string') return '';
  const plain = Array.from(value.slice(0, 1000), (letter) => (/[\p{C}\p{Z}]/u.test(letter) ? ' ' : letter)).join('');
  return Array.from(plain.trim().replace(/ +/g, ' ')).slice(0, mostNameLetters).join('').trim();
}

/** A number that is none is null; so is one that no machine has. */
export function countOf(value: unknown, most: number): number | null {
  const number = typeof value === 'number' ? value : typeof value === 'string' && value !== '' ? Number(value) : NaN;
  return Number.isFinite(number) && number >= 0 && number <= most ? number : null;
}

/** No machine has more bytes in one piece than this. */
export const mostBytes = 1e16;
export const bytesOf = (value: unknown): number | null => {
  const bytes = countOf(value, mostBytes);
  return bytes === null || bytes === 0 ? null : bytes;
};

/** A serial number, to know again what two listings name; `0`, blanks and words for none are none. */
export function serialOf(value: unknown): string | null {
  const serial = plainName(value)
    .toUpperCase()
    .replace(/[^A-Z0-9]/g, '');
  return serial.length < 4 || /^(?:0+|NONE|UNKNOWN|NOTSPECIFIED|DEFAULTSTRING|TOBEFILLEDBYOEM|REMOVED)$/.test(serial)
    ? null
    : serial;
}

/** A device by its short name: `/dev/nvme0n1` and `nvme0` are `nvme0`. */
export function deviceOf(value: unknown): string | null {
  const name = /^(?:\/dev\/)?([a-z]{2,8}\d*(?:n\d+)?)$/.exec(plainName(value))?.[1] ?? null;
  return name === null ? null : name.replace(/^(nvme\d+)n\d+$/, '$1');
}

/** `pci@0000:01:00.0`, `01:00.0` and `0000:01:00.0` are one address; null for none. */
export function addressOf(value: unknown): string | null {
  const found = /^(?:pci@)?(?:([0-9a-f]{4,8}):)?([0-9a-f]{2}):([0-9a-f]{2})\.([0-7])$/i.exec(plainName(value));
  return found === null ? null : `${(found[1] ?? '0000').slice(-4)}:${found[2]}:${found[3]}.${found[4]}`.toLowerCase();
}

/** An address without its function. */
export const slotOf = (address: string): string => address.slice(0, address.lastIndexOf('.'));

/** `DDR4`, `DIMM DDR3 Synchronous` and the like: the generation; null where none is named. */
export function generationOf(value: unknown): number | null {
  const found = /(?<![A-Z])(?:LP)?DDR(\d?)/i.exec(plainName(value));
  return found === null ? null : found[1] === '' ? 1 : Number(found[1]);
}

/** Device classes of the bus (PCI code and ID assignment): what of it is a card of its own. */
export function cardUse(classCode: string): 'graphics' | 'capture' | null {
  if (/^03/.test(classCode)) return 'graphics';
  return /^0400/.test(classCode) ? 'capture' : null;
}

/** Encryption and signal processing beside a display on one slot are parts of a processor, never of a card. */
export const sitsInProcessor = (classCode: string): boolean => /^(?:1080|1180)/.test(classCode);
