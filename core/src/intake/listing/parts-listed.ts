import { boundToBe } from '../../bound-to-be.ts';
import { partClass, partClasses } from '../../machine/index.ts';
import { asksSecondInlet, classAt, processorClasses, processorsByCores } from '../processor-class.ts';
import type { DriveMake, ListedCard, ListedDrive, ListedMemory, ListingKind } from './listed.ts';
import type { From, ListedMachine } from './merge.ts';
import { slotOf } from './plain.ts';

/** What a listing leaves open of a part, so that a usual value stands there until somebody looks. */
export type ListedDoubt = 'watts' | 'plugs' | 'kind' | 'count';

/** A part as listings name it, and the class that follows from what they say. */
export interface ListedPart {
  /** The same for the same part when another listing is added. */
  readonly id: string;
  /** The listing's name for it, the class's where it has none. */
  readonly name: string;
  /** Null where nothing tells it: it is asked. */
  readonly classId: string | null;
  /** What it can be. */
  readonly classIds: readonly string[];
  readonly quantity: number;
  /** A lasting limit that the machine keeps, null where none was told. */
  readonly watts: number | null;
  readonly doubts: readonly ListedDoubt[];
  readonly from: readonly ListingKind[];
}

const ofGroup = (group: string): string[] => partClasses.filter((one) => one.group === group).map(({ id }) => id);
const boards = ofGroup('board');
const processors = ofGroup('processor');
const memories = ofGroup('memory');
const drives = ofGroup('drive');
const graphicsCards = ofGroup('card').filter((id) => !['encoder-6', 'capture', 'network'].includes(id));

const gigabytes = (bytes: number): string => {
  const size = bytes / 1024 ** 3;
  return `${size >= 1 ? Math.round(size) : size.toFixed(1)} GB`;
};

function processorParts({ processors: { item, from }, differs, processorWatts }: ListedMachine): ListedPart[] {
  return item.map(({ name, cores }, index) => {
    const byCores = cores === null ? null : classAt(processorsByCores, cores);
    const classId = processorWatts === null ? byCores : classAt(processorClasses, processorWatts);
    const doubts: ListedDoubt[] = processorWatts === null ? ['watts'] : [];
    return {
      id: `processor-${index}`,
      name,
      classId: classId ?? 'processor-105',
      classIds: processors,
      quantity: 1,
      watts: processorWatts,
      doubts: differs.processors ? [...doubts, 'count'] : doubts,
      from: processorWatts === null ? from : [...from, 'powercap'],
    };
  });
}

/** Modules that are alike are one part. */
function memoryParts({ memory: { item, from }, differs }: ListedMachine): ListedPart[] {
  const alike = new Map<string, ListedMemory[]>();
  for (const module of item) {
    const key = `${module.generation ?? ''} ${module.bytes ?? ''}`;
    alike.set(key, [...(alike.get(key) ?? []), module]);
  }
  return [...alike].map(([key, modules]) => {
    const { bytes, generation } = boundToBe(modules[0], 'module');
    const kind: ListedDoubt[] = generation === null ? ['kind'] : [];
    return {
      id: `memory-${key.trim().replace(' ', '-')}`,
      name: ['Memory', bytes === null ? '' : gigabytes(bytes), generation === null ? '' : `DDR${generation}`]
        .filter((word) => word !== '')
        .join(' '),
      // What draws more is taken where it was not told.
      classId: generation === null || generation >= 5 ? 'memory-new' : 'memory-old',
      classIds: memories,
      quantity: modules.length,
      watts: null,
      doubts: differs.memory ? [...kind, 'count' as const] : kind,
      from,
    };
  });
}

/** A board with a strong processor or two has a second inlet for them (bench practice). */
function boardPart({ board, processors: { item } }: ListedMachine, of: readonly ListedPart[]): ListedPart[] {
  if (board === null) return [];
  const strong = of.some(({ classId }) => classId !== null && asksSecondInlet(classId));
  return [
    {
      id: 'board',
      name: board.item,
      classId: strong || item.length > 1 ? 'board-88' : 'board',
      classIds: boards,
      quantity: 1,
      watts: null,
      doubts: ['plugs'],
      from: board.from,
    },
  ];
}

const driveClasses: Readonly<Record<DriveMake, string>> = {
  card: 'drive-card',
  solid: 'drive-flat',
  spinning: 'drive-35',
  'spinning-35': 'drive-35',
  'spinning-25': 'drive-25',
  optical: 'optical',
};

function drivePart({ item, from }: From<ListedDrive>, index: number): ListedPart {
  return {
    id: `drive-${item.serial ?? item.device ?? index}`,
    name: item.name,
    classId: item.make === null ? 'drive-35' : driveClasses[item.make],
    classIds: drives,
    quantity: 1,
    watts: null,
    doubts: item.make === null || item.make === 'spinning' ? ['kind'] : [],
    from,
  };
}

/**
 * No listing tells the plugs of a card: one with at most the slot's 75 W has none (card specification), others are
 * asked.
 */
function cardPart(card: From<ListedCard>, limits: ReadonlyMap<string, number>, index: number): ListedPart {
  const { address, name, use } = card.item;
  const watts = address === null ? null : (limits.get(slotOf(address)) ?? null);
  const fromLimit: readonly ListingKind[] = watts === null ? [] : ['sensors'];
  const common = {
    id: `card-${address ?? index}`,
    name,
    quantity: 1,
    watts,
    from: [...new Set([...card.from, ...fromLimit])],
  };
  if (use === 'capture') return { ...common, classId: 'capture', classIds: ofGroup('card'), doubts: [] };
  const slotAlone = watts !== null && watts <= 75;
  return { ...common, classId: slotAlone ? 'card-slot' : null, classIds: graphicsCards, doubts: [] };
}

/** The parts of a machine by its listings, in the order in which people name them. */
export function partsListed(machine: ListedMachine): readonly ListedPart[] {
  const ofProcessors = processorParts(machine);
  const all = [
    ...boardPart(machine, ofProcessors),
    ...ofProcessors,
    ...memoryParts(machine),
    ...machine.cards.map((card, index) => cardPart(card, machine.cardWatts, index)),
    ...machine.drives.map(drivePart),
  ];
  return all.map((part) => ({ ...part, name: part.name || (partClass(part.classId ?? '')?.name ?? 'Card') }));
}
