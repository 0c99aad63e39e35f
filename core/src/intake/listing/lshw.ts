import { nothingListed, type DriveMake, type Listed, type ListedDrive } from './listed.ts';
import {
  addressOf,
  bytesOf,
  countOf,
  deviceOf,
  fieldsOf,
  generationOf,
  listOf,
  plainName,
  serialOf,
  slotOf,
  type Fields,
} from './plain.ts';

/** Deeper trees are nobody's machine. */
const mostNodes = 20_000;

/** Every node of the tree, parents first, with the buses above it. */
function nodesOf(document: unknown): Fields[] {
  const found: Fields[] = [];
  const open: unknown[] = Array.isArray(document) ? [...(document as unknown[])].reverse() : [document];
  while (open.length > 0 && found.length < mostNodes) {
    const node = fieldsOf(open.pop());
    if (node === null) continue;
    found.push(node);
    open.push(...[...listOf(node['children'])].reverse());
  }
  return found;
}

const says = (node: Fields, pattern: RegExp): boolean => pattern.test(plainName(node['description']));

function isEmpty(node: Fields): boolean {
  return says(node, /\[empty\]|project-unknown/i) || node['disabled'] === true;
}

/** `{"7200rpm": "7200 rotations per minute"}` tells that something turns. */
const turns = (node: Fields): boolean =>
  Object.keys(fieldsOf(node['capabilities']) ?? {}).some((key) => /^\d{4,5}rpm$/.test(key));

function makeOf(node: Fields, device: string | null): DriveMake | null {
  if (device?.startsWith('nvme') === true || says(node, /nvme/i)) return 'card';
  if (says(node, /dvd|cd-?r|optical|blu-?ray/i)) return 'optical';
  return turns(node) ? 'spinning' : null;
}

/** The names that the running system has for a device: one, or several. */
const namesOf = (node: Fields): unknown[] => {
  const names = node['logicalname'];
  return Array.isArray(names) ? (names as unknown[]) : [names];
};

function driveOf(node: Fields): ListedDrive | null {
  const names = namesOf(node).flatMap((name) => deviceOf(name) ?? []);
  const device = names.find((name) => /^(?:sd|nvme|sr|hd)/.test(name)) ?? names[0] ?? null;
  // A drive of the card type is a controller with its name and serial, and a disk beneath it without.
  const isDrive = node['class'] === 'disk' || (node['class'] === 'storage' && device?.startsWith('nvme') === true);
  if (!isDrive || isEmpty(node)) return null;
  const bus = plainName(node['businfo']);
  // What hangs on an outside bus takes its power there; a volume in memory takes none.
  const elsewhere = /^(?:loop|ram|zram|mmcblk|vd|xvd)/.test(device ?? '');
  if (elsewhere || /^(?:usb|virtio)@/.test(bus) || says(node, /card reader|sd\/mmc/i)) return null;
  return {
    name: plainName(node['product']),
    device,
    serial: serialOf(node['serial']),
    make: makeOf(node, device),
    bytes: bytesOf(node['size']),
    hours: null,
    starts: null,
    powerLosses: null,
  };
}

/** `lshw -json`: a tree of nodes with class, description and bus. */
export function readLshw(document: unknown): Listed {
  const nodes = nodesOf(document);
  const chassis = nodes.map((node) => plainName(fieldsOf(node['configuration'])?.['chassis'])).join(' ');
  const board = nodes.find((node) => node['class'] === 'bus' && node['id'] === 'core');
  return {
    ...nothingListed,
    board: board === undefined ? null : plainName(board['product']) || null,
    portable: /laptop|notebook|portable|tablet|convertible|all-in-one/i.test(chassis),
    processors: nodes
      .filter((node) => node['class'] === 'processor' && !isEmpty(node))
      .map((node) => ({
        name: plainName(node['product']),
        socket: plainName(node['slot']) || null,
        cores: countOf(fieldsOf(node['configuration'])?.['cores'], 1024),
      })),
    memory: nodes
      .filter((node) => /^bank(?::|$)/.test(plainName(node['id'])) && !isEmpty(node) && bytesOf(node['size']) !== null)
      .map((node) => ({
        slot: plainName(node['slot']) || null,
        bytes: bytesOf(node['size']),
        generation: generationOf(node['description']),
      })),
    drives: nodes.flatMap((node) => driveOf(node) ?? []),
    cards: nodes
      .filter((node) => node['class'] === 'display' || says(node, /multimedia video controller/i))
      .map((node) => ({
        name: plainName(node['product']),
        address: addressOf(node['businfo']),
        use: node['class'] === 'display' ? ('graphics' as const) : ('capture' as const),
      })),
    builtIn: nodes
      .filter((node) => says(node, /^(?:encryption controller|signal processing controller)$/i))
      .flatMap((node) => addressOf(node['businfo']) ?? [])
      .map(slotOf),
  };
}
