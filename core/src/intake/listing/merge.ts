import { boundToBe } from '../../bound-to-be.ts';
import type {
  Listed,
  ListedCard,
  ListedDrive,
  ListedMemory,
  ListedProcessor,
  ListedVolts,
  ListingKind,
  DriveMake,
} from './listed.ts';
import type { CaseLayout } from '../../machine/index.ts';
import { slotOf } from './plain.ts';

export interface Source {
  readonly kind: ListingKind;
  readonly listed: Listed;
}

/** Something with the listings that name it. */
export interface From<T> {
  readonly item: T;
  readonly from: readonly ListingKind[];
}

/** What several listings of one machine say together. */
export interface ListedMachine {
  readonly processors: From<readonly ListedProcessor[]>;
  readonly memory: From<readonly ListedMemory[]>;
  /** Listings that count processors or memory modules differ. */
  readonly differs: { readonly processors: boolean; readonly memory: boolean };
  readonly drives: readonly From<ListedDrive>[];
  readonly cards: readonly From<ListedCard>[];
  readonly board: From<string> | null;
  readonly layout: CaseLayout | null;
  readonly portable: boolean;
  readonly supplyWatts: number | null;
  /** The lasting limit of the processor in watts, null where none is told. */
  readonly processorWatts: number | null;
  /** Lasting limits of cards in watts, by address. */
  readonly cardWatts: ReadonlyMap<string, number>;
  readonly volts: readonly ListedVolts[];
}

/** Who is asked first: the one that looks closest. */
const order: readonly ListingKind[] = [
  'smartctl',
  'dmidecode',
  'lsblk',
  'lspci',
  'windows',
  'lshw',
  'sensors',
  'powercap',
];

const unique = <T>(items: readonly T[]): T[] => [...new Set(items)];

/** A list that each listing has whole: the first one's, with those that count as many. */
function wholeList<T>(
  sources: readonly Source[],
  pick: (listed: Listed) => readonly T[],
): { readonly list: From<readonly T[]>; readonly differs: boolean } {
  const having = sources.filter(({ listed }) => pick(listed).length > 0);
  const item = having[0] === undefined ? [] : pick(having[0].listed);
  const agreeing = having.filter(({ listed }) => pick(listed).length === item.length);
  return {
    list: { item, from: unique(agreeing.map(({ kind }) => kind)) },
    differs: agreeing.length < having.length,
  };
}

/** A drive is the same by its serial; by its device, unless the serials say otherwise. */
function isSame(a: ListedDrive, b: ListedDrive): boolean {
  if (a.serial !== null && b.serial !== null) return a.serial === b.serial;
  return a.device !== null && a.device === b.device;
}

/** `spinning` is less than to know of which size. */
const closer = (a: DriveMake | null, b: DriveMake | null): DriveMake | null =>
  a === null || (a === 'spinning' && b?.startsWith('spinning') === true) ? b : a;

const folded = (a: From<ListedDrive>, b: From<ListedDrive>): From<ListedDrive> => ({
  from: unique([...a.from, ...b.from]),
  item: {
    name: a.item.name || b.item.name,
    device: a.item.device ?? b.item.device,
    serial: a.item.serial ?? b.item.serial,
    make: closer(a.item.make, b.item.make),
    bytes: a.item.bytes ?? b.item.bytes,
    hours: a.item.hours ?? b.item.hours,
    starts: a.item.starts ?? b.item.starts,
    powerLosses: a.item.powerLosses ?? b.item.powerLosses,
  },
});

/** Each drive once. One that knows both names brings together two that know one each. */
function mergeDrives(drives: readonly From<ListedDrive>[]): From<ListedDrive>[] {
  let merged: From<ListedDrive>[] = [...drives];
  for (;;) {
    const next: From<ListedDrive>[] = [];
    for (const drive of merged) {
      const at = next.findIndex((other) => isSame(other.item, drive.item));
      if (at < 0) next.push(drive);
      else next[at] = folded(boundToBe(next[at], 'drive listed before'), drive);
    }
    if (next.length === merged.length) return next;
    merged = next;
  }
}

/** Each card once, without what sits on the root bus or beside parts of a processor. */
function mergeCards(sources: readonly Source[]): From<ListedCard>[] {
  const builtIn = new Set(sources.flatMap(({ listed }) => listed.builtIn));
  const all = sources.flatMap(({ kind, listed }) => listed.cards.map((item) => ({ item, from: [kind] })));
  const placed = new Map<string, From<ListedCard>>();
  for (const { item, from } of all) {
    if (item.address === null || /^[0-9a-f]{4}:00:/.test(item.address) || builtIn.has(slotOf(item.address))) continue;
    // Functions of one slot are one card.
    const slot = slotOf(item.address);
    const before = placed.get(slot);
    placed.set(
      slot,
      before === undefined ? { item, from } : { item: before.item, from: unique([...before.from, ...from]) },
    );
  }
  const addressed = all.some(({ item }) => item.address !== null);
  return addressed ? [...placed.values()] : all;
}

/** What listings of one machine say together, each thing once. */
export function mergeListings(given: readonly Source[]): ListedMachine {
  const sources = [...given].sort((a, b) => order.indexOf(a.kind) - order.indexOf(b.kind));
  const first = <T>(pick: (listed: Listed) => T | null): T | null =>
    sources.map(({ listed }) => pick(listed)).find((value) => value !== null) ?? null;
  const processors = wholeList(sources, (listed) => listed.processors);
  const memory = wholeList(sources, (listed) => listed.memory);
  const boards = sources.filter(({ listed }) => listed.board !== null);
  const limits = sources.flatMap(({ listed }) => listed.limits);
  return {
    processors: processors.list,
    memory: memory.list,
    differs: { processors: processors.differs, memory: memory.differs },
    drives: mergeDrives(sources.flatMap(({ kind, listed }) => listed.drives.map((item) => ({ item, from: [kind] })))),
    cards: mergeCards(sources),
    board:
      boards[0] === undefined
        ? null
        : { item: boards[0].listed.board ?? '', from: unique(boards.map(({ kind }) => kind)) },
    layout: first((listed) => listed.layout),
    portable: sources.some(({ listed }) => listed.portable),
    supplyWatts: first((listed) => listed.supplyWatts),
    processorWatts: limits.find((limit) => limit.of === 'processor')?.watts ?? null,
    cardWatts: new Map(limits.filter((limit) => limit.of !== 'processor').map(({ of, watts }) => [slotOf(of), watts])),
    volts: first((listed) => (listed.volts.length > 0 ? listed.volts : null)) ?? [],
  };
}
