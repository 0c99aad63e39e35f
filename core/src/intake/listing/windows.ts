import { nothingListed, type DriveMake, type Listed } from './listed.ts';
import { bytesOf, countOf, deviceOf, plainName, serialOf } from './plain.ts';

type Row = ReadonlyMap<string, string>;

/** Rows as maps from the column's name in small letters. */
function rowsOf(table: readonly (readonly string[])[]): Row[] {
  const head = (table[0] ?? []).map((name) => plainName(name).toLowerCase());
  return table.slice(1).map((cells) => new Map(head.map((name, index) => [name, plainName(cells[index])])));
}

const has = (head: readonly string[], ...names: string[]) => names.every((name) => head.includes(name));

export type WindowsTable = 'processor' | 'memory' | 'disk-drive' | 'physical-disk' | 'video' | 'board';

/** Which of the system's classes a table is of, by the columns that only it has. */
export function windowsTable(table: readonly (readonly string[])[]): WindowsTable | null {
  const head = (table[0] ?? []).map((name) => plainName(name).toLowerCase());
  if (has(head, 'numberofcores')) return 'processor';
  if (has(head, 'capacity') && (has(head, 'devicelocator') || has(head, 'banklabel'))) return 'memory';
  if (has(head, 'bustype', 'mediatype') && (has(head, 'friendlyname') || has(head, 'deviceid'))) return 'physical-disk';
  if (has(head, 'interfacetype') && has(head, 'model')) return 'disk-drive';
  if (has(head, 'adapterram') || has(head, 'videoprocessor') || has(head, 'adaptercompatibility', 'driverversion'))
    return 'video';
  return has(head, 'product', 'manufacturer') ? 'board' : null;
}

/** Codes of SMBIOSMemoryType (SMBIOS, 7.18.2). */
const generations: ReadonlyMap<string, number> = new Map([
  ['18', 1],
  ['19', 2],
  ['24', 3],
  ['26', 4],
  ['34', 5],
]);

/** BusType 17 is NVMe, 7 is USB; MediaType 3 turns, 4 does not (storage management classes). */
function physicalMake(row: Row): DriveMake | null {
  if (/^(?:17|nvme)$/i.test(row.get('bustype') ?? '')) return 'card';
  if (/^(?:4|ssd)$/i.test(row.get('mediatype') ?? '')) return 'solid';
  return /^(?:3|hdd)$/i.test(row.get('mediatype') ?? '') ? 'spinning' : null;
}

const bare = { hours: null, starts: null, powerLosses: null };
/** A number of a disk is a name that both classes of disks have. */
const diskNumber = (text: string | undefined): string | null => {
  const number = /(\d{1,3})$/.exec(text ?? '')?.[1];
  return number === undefined ? null : deviceOf(`disk${number}`);
};

function drivesOf(kind: WindowsTable, rows: readonly Row[]): Listed['drives'] {
  if (kind === 'physical-disk')
    return rows
      .filter((row) => !/^(?:7|usb|8|raid|14|15|16|virtual|file backed virtual|sd|12)$/i.test(row.get('bustype') ?? ''))
      .map((row) => ({
        ...bare,
        name: row.get('friendlyname') ?? row.get('model') ?? '',
        device: diskNumber(row.get('deviceid')),
        serial: serialOf(row.get('serialnumber')),
        make: physicalMake(row),
        bytes: bytesOf(row.get('size')),
      }));
  return rows
    .filter((row) => !/usb|1394/i.test(`${row.get('interfacetype') ?? ''} ${row.get('pnpdeviceid') ?? ''}`))
    .filter((row) => !/removable|external/i.test(row.get('mediatype') ?? ''))
    .map((row) => ({
      ...bare,
      name: row.get('model') ?? '',
      device: diskNumber(row.get('index') ?? row.get('deviceid')),
      serial: serialOf(row.get('serialnumber')),
      make: /nvme/i.test(`${row.get('model') ?? ''} ${row.get('pnpdeviceid') ?? ''}`) ? ('card' as const) : null,
      bytes: bytesOf(row.get('size')),
    }));
}

/** A display that no bus carries is a program's. */
const onTheBus = (row: Row): boolean => !row.has('pnpdeviceid') || /^PCI\\/i.test(row.get('pnpdeviceid') ?? '');

/** One of Windows' own tables as CSV, as `Export-Csv` or `/format:csv` writes it. */
export function readWindows(kind: WindowsTable, table: readonly (readonly string[])[]): Listed {
  const rows = rowsOf(table).filter((row) => [...row.values()].some((cell) => cell !== ''));
  switch (kind) {
    case 'processor':
      return {
        ...nothingListed,
        processors: rows.map((row) => ({
          name: row.get('name') ?? '',
          socket: row.get('socketdesignation') || row.get('deviceid') || null,
          cores: countOf(row.get('numberofcores'), 1024),
        })),
      };
    case 'memory':
      return {
        ...nothingListed,
        memory: rows.map((row) => ({
          slot: [row.get('banklabel'), row.get('devicelocator')].filter(Boolean).join(' ') || null,
          bytes: bytesOf(row.get('capacity')),
          generation: generations.get(row.get('smbiosmemorytype') ?? '') ?? null,
        })),
      };
    case 'disk-drive':
    case 'physical-disk':
      return { ...nothingListed, drives: drivesOf(kind, rows) };
    case 'video':
      return {
        ...nothingListed,
        cards: rows
          .filter(onTheBus)
          .map((row) => ({ name: row.get('name') ?? '', address: null, use: 'graphics' as const })),
      };
    case 'board':
      return {
        ...nothingListed,
        board: rows.map((row) => row.get('product') ?? '').find((name) => name !== '') ?? null,
      };
  }
}
