import { readFileSync } from 'node:fs';
import type { LoadFinding, LoadWord } from '../load/index.ts';
import { partClass, type Casing, type MachinePart, type PartChange, type PowerFigures } from '../machine/index.ts';
import { fitQuestion, noWants, type FitQuestion, type SupplyModel } from './index.ts';

export const { supplies } = JSON.parse(
  readFileSync(new URL('../../../demo/supplies.json', import.meta.url), 'utf8'),
) as { supplies: SupplyModel[] };
export const supplyNamed = (id: string): SupplyModel => supplies.find((item) => item.id === id)!;
export const tower: Casing = {
  layout: 'tower',
  shapes: ['ATX'],
  depthMillimetres: 210,
  ownHoles: false,
  ventClosed: false,
};
export const weights = { price: 3, headroom: 2, running: 2, noise: 1, warranty: 1, shelf: 3 };

export function part(
  classId: string,
  id: string,
  extra: { readonly quantity?: number; readonly change?: PartChange; readonly figures?: Partial<PowerFigures> } = {},
): MachinePart {
  const found = partClass(classId)!;
  return {
    id,
    classId,
    name: found.name,
    quantity: extra.quantity ?? 1,
    change: extra.change ?? 'stays',
    figures: { ...found.figures, ...extra.figures },
    inlets: found.inlets.map((inlet, index) => ({ ...inlet, id: `${id}-${index}` })),
  };
}

export function asking(
  parts: readonly MachinePart[],
  casing: Casing = tower,
  changes: Partial<FitQuestion> = {},
): FitQuestion {
  return {
    ...fitQuestion(parts, casing, {
      school: 'peaks-covered',
      presentRatingWatts: 450,
      cardAdviceWatts: null,
      staggered: false,
      wants: noWants,
      sharedCardCable: true,
      day: { idleHours: 4, typicalHours: 3, fullHours: 1, typicalShare: 0.4 },
      tariff: { mainsVolts: 230, minorPerKilowattHour: 30, breakerAmps: 16 },
      ...changes,
    }),
    ...changes,
  };
}

const drives = (count: number, from = 0) =>
  Array.from({ length: count }, (_, index) => part('drive-35', `d${from + index}`));
const small: Casing = {
  layout: 'small',
  shapes: ['SFX', 'SFX-L'],
  depthMillimetres: 140,
  ownHoles: false,
  ventClosed: false,
};

/**
 * Twelve machines of different kinds with the case each sits in, and what must be said of them: the lasting load summed by
 * hand from the classes' figures (a processor's by the converters' 0.87), how many supplies of the demo shop fit and which
 * comes first, and the verdict with the figure that decides on a plain 400 W and on a 650 W supply.
 */
export const machines: readonly {
  readonly name: string;
  readonly parts: readonly MachinePart[];
  readonly casing: Casing;
  readonly lastingWatts: number;
  readonly fitting: number;
  readonly best: string | null;
  readonly on400: readonly [LoadWord, LoadFinding['code']];
  readonly on650: readonly [LoadWord, LoadFinding['code']];
}[] = [
  {
    name: 'office',
    parts: [
      part('board-4', 'b'),
      part('processor-35', 'p'),
      part('memory-old', 'm', { quantity: 2 }),
      part('drive-flat', 'd'),
    ],
    casing: tower,
    lastingWatts: 35 + 35 / 0.87 + 2 * 3 + 3.5,
    fitting: 1,
    best: 'corvane-450-b',
    on400: ['enough', 'combined'],
    on650: ['enough', 'combined'],
  },
  {
    name: 'office in a slim case',
    parts: [part('board-4', 'b'), part('processor-65', 'p'), part('drive-flat', 'd')],
    casing: { layout: 'slim', shapes: ['TFX'], depthMillimetres: 180, ownHoles: false, ventClosed: false },
    lastingWatts: 35 + 88 / 0.87 + 3.5,
    fitting: 3,
    best: 'tarnwick-slim-300',
    on400: ['enough', 'peak'],
    on650: ['enough', 'peak'],
  },
  {
    name: 'small case with a card',
    parts: [part('board', 'b'), part('processor-65', 'p'), part('card-8', 'c'), part('drive-card', 'd')],
    casing: small,
    lastingWatts: 35 + 88 / 0.87 + 180 + 7,
    fitting: 3,
    best: 'ostrelle-mini-450',
    on400: ['too-small', 'peak'],
    on650: ['enough', 'peak'],
  },
  {
    name: 'radio playout, encoder card added',
    parts: [
      part('board-84', 'b'),
      part('processor-65', 'p'),
      part('card-8', 'c'),
      part('encoder-6', 'e', { change: 'added' }),
      part('capture', 's'),
      ...drives(2),
    ],
    casing: tower,
    lastingWatts: 35 + 88 / 0.87 + 180 + 95 + 10 + 2 * 8,
    fitting: 13,
    best: 'tarnwick-quiet-850',
    on400: ['too-small', 'peak'],
    on650: ['enough', 'peak'],
  },
  {
    name: 'print studio, 16-pin card',
    parts: [
      part('board-88', 'b'),
      part('processor-125', 'p'),
      part('card-16', 'c'),
      part('memory-new', 'm', { quantity: 4 }),
      part('pump', 'w'),
    ],
    casing: { ...tower, depthMillimetres: 230 },
    lastingWatts: 35 + 160 / 0.87 + 285 + 4 * 5 + 6,
    fitting: 6,
    best: 'tarnwick-quiet-850',
    on400: ['too-small', 'peak'],
    on650: ['too-small', 'peak'],
  },
  {
    name: 'tide laboratory, many drives',
    parts: [part('board-84', 'b'), part('processor-65', 'p'), ...drives(6)],
    casing: tower,
    lastingWatts: 35 + 88 / 0.87 + 6 * 8,
    fitting: 6,
    best: 'corvane-550-s',
    on400: ['enough', 'peak'],
    on650: ['enough', 'peak'],
  },
  {
    name: 'two cards',
    parts: [part('board-88', 'b'), part('processor-125', 'p'), part('card-88', 'c1'), part('card-88', 'c2')],
    casing: { ...tower, depthMillimetres: 240 },
    lastingWatts: 35 + 160 / 0.87 + 2 * 270,
    fitting: 3,
    best: 'corvane-1000-s',
    on400: ['too-small', 'peak'],
    on650: ['too-small', 'peak'],
  },
  {
    name: 'fourteen drives at once',
    parts: [part('board-84', 'b'), part('processor-35', 'p'), ...drives(14)],
    casing: tower,
    lastingWatts: 35 + 35 / 0.87 + 14 * 8,
    fitting: 0,
    best: null,
    on400: ['too-small', 'spin-up'],
    on650: ['enough', 'spin-up'],
  },
  {
    name: 'old single rail board',
    parts: [part('board-20', 'b'), part('processor-65', 'p'), part('drive-old', 'd'), part('optical', 'o')],
    casing: tower,
    lastingWatts: 35 + 88 / 0.87 + 10 + 15,
    fitting: 5,
    best: 'corvane-550-s',
    on400: ['enough', 'peak'],
    on650: ['enough', 'peak'],
  },
  {
    name: 'maker-built with its own connector',
    parts: [part('board-own', 'b'), part('processor-65', 'p'), part('drive-flat', 'd')],
    casing: tower,
    lastingWatts: 35 + 88 / 0.87 + 3.5,
    fitting: 0,
    best: null,
    on400: ['enough', 'peak'],
    on650: ['enough', 'peak'],
  },
  {
    name: 'maker-built with its own holes',
    parts: [part('board', 'b'), part('processor-65', 'p')],
    casing: { ...tower, ownHoles: true },
    lastingWatts: 35 + 88 / 0.87,
    fitting: 0,
    best: null,
    on400: ['enough', 'peak'],
    on650: ['enough', 'peak'],
  },
  {
    name: 'a card of 1200 W',
    parts: [
      part('board-88', 'b'),
      part('processor-125', 'p'),
      part('card-16', 'c', { figures: { lowWatts: 1000, likelyWatts: 1200, highWatts: 1300, shortWatts: 1300 } }),
    ],
    casing: { ...tower, depthMillimetres: 300 },
    lastingWatts: 35 + 160 / 0.87 + 1200,
    fitting: 0,
    best: null,
    on400: ['too-small', 'peak'],
    on650: ['too-small', 'peak'],
  },
];
