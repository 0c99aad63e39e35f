import type { CaseLayout } from '../../machine/index.ts';
import { nothingListed, type Listed } from './listed.ts';
import { bytesOf, countOf, generationOf, plainName } from './plain.ts';

/** One structure of the table, by the names of its fields. */
interface Structure {
  readonly type: number;
  readonly fields: ReadonlyMap<string, string>;
}

/** The structures of a text in the order of the table. */
export function structuresOf(lines: readonly string[]): Structure[] {
  const found: { type: number; fields: Map<string, string> }[] = [];
  for (const line of lines) {
    const type = /^Handle 0x[0-9A-F]+, DMI type (\d{1,3})\b/i.exec(line)?.[1];
    if (type !== undefined) found.push({ type: Number(type), fields: new Map() });
    const field = /^\t([^\t:][^:]*):\s*(.*)$/.exec(line);
    if (field !== null) found.at(-1)?.fields.set(field[1] ?? '', plainName(field[2]));
  }
  return found;
}

/** Firmware writes such words where nobody filled a field in. */
const nobodySaid =
  /^(?:|not specified|unknown|none|to be filled by o\.?e\.?m\.?|default string|system .*|<.*>|<?out of spec>?)$/i;
const said = (text: string | undefined): string => (text === undefined || nobodySaid.test(text) ? '' : text);

/** `16 GB`, `8192 MB`; null for an empty socket. */
function sizeOf(text: string | undefined): number | null {
  const found = /^(\d{1,7}) ?([kMGT])i?B$/.exec(text ?? '');
  if (found === null) return null;
  return bytesOf(Number(found[1]) * 1024 ** ({ k: 1, M: 2, G: 3, T: 4 }[found[2] ?? ''] ?? 0));
}

/** Kinds of chassis (SMBIOS, 7.4.1) that tell how a supply sits in them; `Desktop` is written for anything. */
function layoutOf(kind: string): CaseLayout | null {
  if (/^(?:mini tower|tower)$/i.test(kind)) return 'tower';
  if (/^(?:low profile desktop|pizza box|slim|lunch box)$/i.test(kind)) return 'slim';
  return /^(?:space-saving|mini pc|compact pci)$/i.test(kind) ? 'small' : null;
}

const portable =
  /^(?:portable|laptop|notebook|hand held|docking station|all in one|sub notebook|tablet|convertible|detachable)$/i;

/** `dmidecode`: the firmware's table of sockets, modules, board and chassis (SMBIOS reference specification). */
export function readDmidecode(lines: readonly string[]): Listed {
  const structures = structuresOf(lines);
  const ofType = (type: number) => structures.filter((one) => one.type === type).map(({ fields }) => fields);
  const chassis = ofType(3).map((fields) => fields.get('Type') ?? '');
  const board = ofType(2)[0];
  const supplies = ofType(39).flatMap(
    (fields) => /^(\d{2,4}) W$/.exec(fields.get('Max Power Capacity') ?? '')?.[1] ?? [],
  );
  return {
    ...nothingListed,
    processors: ofType(4)
      .filter(
        (fields) =>
          /central/i.test(fields.get('Type') ?? 'central') && !/unpopulated/i.test(fields.get('Status') ?? ''),
      )
      .map((fields) => ({
        name: said(fields.get('Version')),
        socket: said(fields.get('Socket Designation')) || null,
        cores: countOf(fields.get('Core Count'), 1024),
      })),
    memory: ofType(17)
      .map((fields) => ({
        slot: said([fields.get('Bank Locator'), fields.get('Locator')].filter(Boolean).join(' ')) || null,
        bytes: sizeOf(fields.get('Size')),
        generation: generationOf(fields.get('Type')),
      }))
      .filter(({ bytes }) => bytes !== null),
    board: board === undefined ? null : said(board.get('Product Name')) || null,
    layout: chassis.map(layoutOf).find((layout) => layout !== null) ?? null,
    portable: chassis.some((kind) => portable.test(kind)),
    supplyWatts: supplies.map(Number).find((watts) => watts > 0) ?? null,
  };
}

/** A whole table says how many structures it has, and ends with its end. */
export const isCutOff = (text: string): boolean =>
  /^\d+ structures occupying \d+ bytes/m.test(text) && !/^End Of Table/m.test(text);
