import type { InletKind } from '../standards/index.ts';
import type { PowerFigures } from './part.ts';

/** A class of parts with planning figures (bench practice, always replaced by the part's own when known). */
export interface PartClass {
  readonly id: string;
  readonly group: 'board' | 'processor' | 'memory' | 'card' | 'drive' | 'cooling' | 'other';
  readonly name: string;
  readonly figures: PowerFigures;
  readonly inlets: readonly { readonly kind: InletKind; readonly label: string; readonly optional: boolean }[];
}

type Draft = Partial<PowerFigures> & { readonly likelyWatts: number };

function figures(draft: Draft): PowerFigures {
  const highWatts = draft.highWatts ?? draft.likelyWatts * 1.2;
  return {
    lowWatts: draft.lowWatts ?? draft.likelyWatts * 0.8,
    highWatts,
    idleWatts: draft.idleWatts ?? draft.likelyWatts * 0.3,
    shortWatts: draft.shortWatts ?? draft.likelyWatts,
    spinUpAmps: draft.spinUpAmps ?? 0,
    share12: draft.share12 ?? 1,
    share5: draft.share5 ?? 0,
    share33: draft.share33 ?? 0,
    excursion: draft.excursion ?? 'none',
    likelyWatts: draft.likelyWatts,
    standbyWatts: draft.standbyWatts ?? 0,
    source: 'class',
  };
}

const inlet = (kind: InletKind, label: string, optional = false) => ({ kind, label, optional });
const boardFigures = figures({
  lowWatts: 20,
  likelyWatts: 35,
  highWatts: 50,
  idleWatts: 20,
  share12: 0.5,
  share5: 0.25,
  share33: 0.25,
  standbyWatts: 1,
});

export const partClasses: readonly PartClass[] = [
  {
    id: 'board',
    group: 'board',
    name: 'Board, main 24 and processor 8',
    figures: boardFigures,
    inlets: [inlet('main-24', 'Main 24'), inlet('cpu-8', 'Processor 8')],
  },
  {
    id: 'board-84',
    group: 'board',
    name: 'Board, main 24, processor 8 + 4',
    figures: boardFigures,
    inlets: [inlet('main-24', 'Main 24'), inlet('cpu-8', 'Processor 8'), inlet('cpu-4', 'Processor 4', true)],
  },
  {
    id: 'board-88',
    group: 'board',
    name: 'Board, main 24, processor 8 + 8',
    figures: boardFigures,
    inlets: [
      inlet('main-24', 'Main 24'),
      inlet('cpu-8', 'Processor 8, first'),
      inlet('cpu-8', 'Processor 8, second', true),
    ],
  },
  {
    id: 'board-4',
    group: 'board',
    name: 'Board, main 24, processor 4',
    figures: boardFigures,
    inlets: [inlet('main-24', 'Main 24'), inlet('cpu-4', 'Processor 4')],
  },
  {
    id: 'board-20',
    group: 'board',
    name: 'Old board, main 20, processor 4',
    figures: boardFigures,
    inlets: [inlet('main-20', 'Main 20'), inlet('cpu-4', 'Processor 4')],
  },
  {
    id: 'board-own',
    group: 'board',
    name: 'Maker-built board with its own main connector',
    figures: boardFigures,
    inlets: [inlet('main-own', "Main, maker's own"), inlet('cpu-4', 'Processor 4')],
  },
  {
    id: 'processor-35',
    group: 'processor',
    name: 'Processor, 35 W class',
    figures: figures({
      lowWatts: 30,
      likelyWatts: 35,
      highWatts: 60,
      idleWatts: 8,
      shortWatts: 80,
      excursion: 'processor',
    }),
    inlets: [],
  },
  {
    id: 'processor-65',
    group: 'processor',
    name: 'Processor, 65 W class',
    figures: figures({
      lowWatts: 65,
      likelyWatts: 88,
      highWatts: 120,
      idleWatts: 12,
      shortWatts: 150,
      excursion: 'processor',
    }),
    inlets: [],
  },
  {
    id: 'processor-105',
    group: 'processor',
    name: 'Processor, 105 W class',
    figures: figures({
      lowWatts: 105,
      likelyWatts: 125,
      highWatts: 145,
      idleWatts: 20,
      shortWatts: 160,
      excursion: 'processor',
    }),
    inlets: [],
  },
  {
    id: 'processor-125',
    group: 'processor',
    name: 'Processor, 125 W class',
    figures: figures({
      lowWatts: 125,
      likelyWatts: 160,
      highWatts: 253,
      idleWatts: 18,
      shortWatts: 253,
      excursion: 'processor',
    }),
    inlets: [],
  },
  {
    id: 'memory-old',
    group: 'memory',
    name: 'Memory module, older',
    figures: figures({ lowWatts: 2, likelyWatts: 3, highWatts: 5, share12: 0, share5: 1 }),
    inlets: [],
  },
  {
    id: 'memory-new',
    group: 'memory',
    name: 'Memory module, newer',
    figures: figures({ lowWatts: 3, likelyWatts: 5, highWatts: 8, share12: 0, share5: 1 }),
    inlets: [],
  },
  {
    id: 'card-slot',
    group: 'card',
    name: 'Graphics card, slot only',
    figures: figures({
      lowWatts: 40,
      likelyWatts: 60,
      highWatts: 75,
      idleWatts: 10,
      share12: 0.93,
      share33: 0.07,
      excursion: 'card-older',
    }),
    inlets: [],
  },
  {
    id: 'card-6',
    group: 'card',
    name: 'Graphics card, one 6-pin',
    figures: figures({
      lowWatts: 90,
      likelyWatts: 120,
      highWatts: 150,
      idleWatts: 12,
      shortWatts: 130,
      excursion: 'card-older',
    }),
    inlets: [inlet('card-6', 'Card 6')],
  },
  {
    id: 'card-8',
    group: 'card',
    name: 'Graphics card, one 8-pin',
    figures: figures({
      lowWatts: 150,
      likelyWatts: 180,
      highWatts: 220,
      idleWatts: 15,
      shortWatts: 200,
      excursion: 'card-older',
    }),
    inlets: [inlet('card-8', 'Card 8')],
  },
  {
    id: 'card-88',
    group: 'card',
    name: 'Graphics card, two 8-pin',
    figures: figures({
      lowWatts: 220,
      likelyWatts: 270,
      highWatts: 330,
      idleWatts: 18,
      shortWatts: 300,
      excursion: 'card-older',
    }),
    inlets: [inlet('card-8', 'Card 8, left'), inlet('card-8', 'Card 8, right')],
  },
  {
    id: 'card-16',
    group: 'card',
    name: 'Graphics card, 16-pin',
    figures: figures({
      lowWatts: 200,
      likelyWatts: 285,
      highWatts: 450,
      idleWatts: 16,
      shortWatts: 300,
      excursion: 'card-newer',
    }),
    inlets: [inlet('card-16', 'Card 16-pin')],
  },
  {
    id: 'encoder-6',
    group: 'card',
    name: 'Encoder card, one 6-pin',
    figures: figures({
      lowWatts: 70,
      likelyWatts: 95,
      highWatts: 120,
      idleWatts: 15,
      shortWatts: 105,
      excursion: 'card-older',
    }),
    inlets: [inlet('card-6', 'Encoder 6')],
  },
  {
    id: 'capture',
    group: 'card',
    name: 'Capture or sound card, slot only',
    figures: figures({ lowWatts: 5, likelyWatts: 10, highWatts: 15, share12: 0.7, share33: 0.3 }),
    inlets: [],
  },
  {
    id: 'network',
    group: 'card',
    name: 'Network card, slot only',
    figures: figures({ lowWatts: 1, likelyWatts: 6, highWatts: 15, share12: 0.5, share33: 0.5, standbyWatts: 0.5 }),
    inlets: [],
  },
  {
    id: 'drive-flat',
    group: 'drive',
    name: 'Solid-state drive, flat',
    figures: figures({ lowWatts: 2, likelyWatts: 3.5, highWatts: 5, share12: 0, share5: 1 }),
    inlets: [inlet('sata', 'Drive')],
  },
  {
    id: 'drive-card',
    group: 'drive',
    name: 'Solid-state drive, card type',
    figures: figures({ lowWatts: 4, likelyWatts: 7, highWatts: 14, share12: 0, share33: 1 }),
    inlets: [],
  },
  {
    id: 'drive-35',
    group: 'drive',
    name: '3.5" drive',
    figures: figures({
      lowWatts: 6,
      likelyWatts: 8,
      highWatts: 10,
      idleWatts: 5,
      spinUpAmps: 2.2,
      share12: 0.6,
      share5: 0.4,
    }),
    inlets: [inlet('sata', 'Drive')],
  },
  {
    id: 'optical',
    group: 'drive',
    name: 'Optical drive',
    figures: figures({ lowWatts: 10, likelyWatts: 15, highWatts: 25, idleWatts: 1, share12: 0.6, share5: 0.4 }),
    inlets: [inlet('sata', 'Optical')],
  },
  {
    id: 'drive-old',
    group: 'drive',
    name: 'Old drive, 4-pin peripheral',
    figures: figures({
      lowWatts: 6,
      likelyWatts: 10,
      highWatts: 14,
      idleWatts: 5,
      spinUpAmps: 2.2,
      share12: 0.6,
      share5: 0.4,
    }),
    inlets: [inlet('peripheral-4', 'Old drive')],
  },
  {
    id: 'fan',
    group: 'cooling',
    name: 'Fan on a board header',
    figures: figures({ lowWatts: 1, likelyWatts: 2.5, highWatts: 4 }),
    inlets: [],
  },
  {
    id: 'fan-hub',
    group: 'cooling',
    name: 'Fan hub',
    figures: figures({ lowWatts: 4, likelyWatts: 9, highWatts: 16 }),
    inlets: [inlet('sata', 'Fan hub')],
  },
  {
    id: 'pump',
    group: 'cooling',
    name: 'Pump on a board header',
    figures: figures({ lowWatts: 3, likelyWatts: 6, highWatts: 10 }),
    inlets: [],
  },
  {
    id: 'pump-large',
    group: 'cooling',
    name: 'Large pump, peripheral plug',
    figures: figures({ lowWatts: 12, likelyWatts: 20, highWatts: 25 }),
    inlets: [inlet('peripheral-4', 'Pump')],
  },
  {
    id: 'lighting',
    group: 'other',
    name: 'Addressable lighting hub',
    figures: figures({ lowWatts: 5, likelyWatts: 15, highWatts: 22, share12: 0, share5: 1 }),
    inlets: [inlet('sata', 'Lighting hub')],
  },
  {
    id: 'usb',
    group: 'other',
    name: 'USB devices, together',
    figures: figures({ lowWatts: 2.5, likelyWatts: 10, highWatts: 30, share12: 0, share5: 1, standbyWatts: 2.5 }),
    inlets: [],
  },
  {
    id: 'front-panel',
    group: 'other',
    name: 'Front panel or reader, drive plug',
    figures: figures({ lowWatts: 2, likelyWatts: 5, highWatts: 15, share12: 0, share5: 1 }),
    inlets: [inlet('sata', 'Front panel')],
  },
  { id: 'other', group: 'other', name: 'Other part', figures: figures({ likelyWatts: 10 }), inlets: [] },
];

/** A class by its id; undefined when a newer or older file names one that is not known here. */
export function partClass(id: string): PartClass | undefined {
  return partClasses.find((candidate) => candidate.id === id);
}
