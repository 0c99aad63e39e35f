import type { Listed, ListingKind, ListingProblem } from './listed.ts';
import { isCutOff, readDmidecode, structuresOf } from './dmidecode.ts';
import { readLsblk } from './lsblk.ts';
import { readLshw } from './lshw.ts';
import { deviceOfLine, readLspci } from './lspci.ts';
import { fieldsOf, listOf } from './plain.ts';
import { isPowercap, readPowercap } from './powercap.ts';
import { readSensors } from './sensors.ts';
import { readSmartctl } from './smartctl.ts';
import { readWindows, windowsTable } from './windows.ts';

/** Cells of a text in CSV, whatever its separator. */
export type ReadCsv = (text: string) => readonly (readonly string[])[];

/** A longer listing is none: whole machines have some hundred kilobytes. */
export const mostListingLetters = 8_000_000;

export type Recognised = { readonly kind: ListingKind; readonly listed: Listed } | { readonly problem: ListingProblem };

const isSensors = (document: unknown): boolean =>
  Object.values(fieldsOf(document) ?? {}).some((chip) => 'Adapter' in (fieldsOf(chip) ?? {}));

function readDocument(document: unknown): Recognised {
  const fields = fieldsOf(document);
  const first = fieldsOf(listOf(document)[0]) ?? fields;
  if (fields !== null && Array.isArray(fields['blockdevices'])) return { kind: 'lsblk', listed: readLsblk(document) };
  if (fields !== null && ('smartctl' in fields || 'json_format_version' in fields))
    return { kind: 'smartctl', listed: readSmartctl(document) };
  if (first !== null && typeof first['id'] === 'string' && typeof first['class'] === 'string')
    return { kind: 'lshw', listed: readLshw(document) };
  return isSensors(document) ? { kind: 'sensors', listed: readSensors(document) } : { problem: 'foreign' };
}

function readJson(text: string): Recognised {
  try {
    return readDocument(JSON.parse(text));
  } catch (error) {
    // Text that is no JSON, and brackets in brackets beyond any depth, are both named; anything else is a fault here.
    if (!(error instanceof SyntaxError || error instanceof RangeError)) throw error;
    return { problem: /[}\]]\s*$/.test(text) ? 'broken' : 'cut-off' };
  }
}

/** No machine at a bench has more of a kind. */
const mostOfAKind = 256;
const isNoMachine = ({ processors, memory, drives, cards }: Listed): boolean =>
  [processors, memory, drives, cards].some((list) => list.length > mostOfAKind);

/** Reads one listing, whatever it is by its own marks; a name of a file says nothing. */
export function recognise(text: string, readCsv: ReadCsv): Recognised {
  const found = readAny(text, readCsv);
  return 'listed' in found && isNoMachine(found.listed) ? { problem: 'too-large' } : found;
}

function readAny(text: string, readCsv: ReadCsv): Recognised {
  const trimmed = text.replace(/^\uFEFF/, '').trim();
  if (trimmed === '') return { problem: 'empty' };
  if (trimmed.length > mostListingLetters) return { problem: 'too-large' };
  if (/^[[{]/.test(trimmed)) return readJson(trimmed);
  const lines = trimmed.split(/[\r\n]+/);
  if (/^# dmidecode|^Handle 0x[0-9A-F]+, DMI type/im.test(trimmed)) {
    if (isCutOff(trimmed)) return { problem: 'cut-off' };
    return structuresOf(lines).length === 0
      ? { problem: 'broken' }
      : { kind: 'dmidecode', listed: readDmidecode(lines) };
  }
  if (lines.every(isPowercap)) return { kind: 'powercap', listed: readPowercap(lines) };
  const devices = lines.filter((line) => deviceOfLine(line) !== null).length;
  if (devices > 0 && devices >= lines.length - 1)
    return devices === lines.length ? { kind: 'lspci', listed: readLspci(lines) } : { problem: 'cut-off' };
  const table = readCsv(trimmed.replace(/^#TYPE[^\n]*\n/i, '')).filter((cells) =>
    cells.some((cell) => cell.trim() !== ''),
  );
  const kind = table.length < 2 ? null : windowsTable(table);
  if (kind === null) return { problem: 'foreign' };
  const width = table[0]?.length ?? 0;
  return table.some((cells) => cells.length !== width)
    ? { problem: 'cut-off' }
    : { kind: 'windows', listed: readWindows(kind, table) };
}

const sectionPattern = /^=== fairwatt-listing: ([^\r\n]{1,80})$/;

/** A file of the script holds several listings, each under its line, and ends with the line `end`. */
export function sectionsOf(text: string): { readonly name: string; readonly text: string }[] | 'cut-off' | null {
  const sections: { name: string; lines: string[] }[] = [];
  for (const line of text.split(/\r?\n/)) {
    const name = sectionPattern.exec(line)?.[1];
    if (name !== undefined) sections.push({ name, lines: [] });
    else sections.at(-1)?.lines.push(line);
  }
  if (sections.length === 0) return null;
  if (sections.pop()?.name !== 'end') return 'cut-off';
  return sections
    .map(({ name, lines }) => ({ name, text: lines.join('\n') }))
    .filter((section) => section.text.trim() !== '');
}
