import { readFileSync } from 'node:fs';
import { partClass, type Casing, type MachinePart, type PartChange, type PowerFigures } from '../machine/index.ts';
import { fitQuestion, noWants, type FitQuestion, type SupplyModel } from './index.ts';

export const { supplies } = JSON.parse(readFileSync(new URL('../../../demo/supplies.json', import.meta.url), 'utf8')) as { supplies: SupplyModel[] };
export const supplyNamed = (id: string): SupplyModel => supplies.find((item) => item.id === id)!;
export const tower: Casing = { layout: 'tower', shapes: ['ATX'], depthMillimetres: 210, ownHoles: false, ventClosed: false };
export const weights = { price: 3, headroom: 2, running: 2, noise: 1, warranty: 1, shelf: 3 };

export function part(classId: string, id: string, extra: { readonly quantity?: number; readonly change?: PartChange; readonly figures?: Partial<PowerFigures> } = {}): MachinePart {
  const found = partClass(classId)!;
  return { id, classId, name: found.name, quantity: extra.quantity ?? 1, change: extra.change ?? 'stays', figures: { ...found.figures, ...extra.figures }, inlets: found.inlets.map((inlet, index) => ({ ...inlet, id: `${id}-${index}` })) };
}

export function asking(parts: readonly MachinePart[], casing: Casing = tower, changes: Partial<FitQuestion> = {}): FitQuestion {
  return { ...fitQuestion(parts, casing, {
    school: 'peaks-covered', presentRatingWatts: 450, cardAdviceWatts: null, staggered: false, wants: noWants, sharedCardCable: true, day: { idleHours: 4, typicalHours: 3, fullHours: 1, typicalShare: 0.4 },
    tariff: { mainsVolts: 230, minorPerKilowattHour: 30, breakerAmps: 16 }, ...changes,
  }), ...changes };
}

const drives = (count: number, from = 0) => Array.from({ length: count }, (_, index) => part('drive-35', `d${from + index}`));
const small: Casing = { layout: 'small', shapes: ['SFX', 'SFX-L'], depthMillimetres: 140, ownHoles: false, ventClosed: false };

/** Twelve machines of different kinds, the case each sits in, whether a supply of the demo shop fits, and which kind comes first. */
export const machines: readonly { readonly name: string; readonly parts: readonly MachinePart[]; readonly casing: Casing; readonly fits: boolean; readonly best: RegExp | null }[] = [
  { name: 'office', parts: [part('board-4', 'b'), part('processor-35', 'p'), part('memory-old', 'm', { quantity: 2 }), part('drive-flat', 'd')], casing: tower, fits: true, best: /^(brackholm|corvane)-/ },
  { name: 'office in a slim case', parts: [part('board-4', 'b'), part('processor-65', 'p'), part('drive-flat', 'd')], casing: { layout: 'slim', shapes: ['TFX'], depthMillimetres: 180, ownHoles: false, ventClosed: false }, fits: true, best: /^tarnwick-slim-/ },
  { name: 'small case with a card', parts: [part('board', 'b'), part('processor-65', 'p'), part('card-8', 'c'), part('drive-card', 'd')], casing: small, fits: true, best: /^ostrelle-/ },
  { name: 'radio playout, encoder card added', parts: [part('board-84', 'b'), part('processor-65', 'p'), part('card-8', 'c'), part('encoder-6', 'e', { change: 'added' }), part('capture', 's'), ...drives(2)], casing: tower, fits: true, best: /^(corvane|brackholm|tarnwick)-/ },
  { name: 'print studio, 16-pin card', parts: [part('board-88', 'b'), part('processor-125', 'p'), part('card-16', 'c'), part('memory-new', 'm', { quantity: 4 }), part('pump', 'w')], casing: { ...tower, depthMillimetres: 230 }, fits: true, best: /-(850|1000|1200)/ },
  { name: 'tide laboratory, many drives', parts: [part('board-84', 'b'), part('processor-65', 'p'), ...drives(6)], casing: tower, fits: true, best: /./ },
  { name: 'two cards', parts: [part('board-88', 'b'), part('processor-125', 'p'), part('card-88', 'c1'), part('card-88', 'c2')], casing: { ...tower, depthMillimetres: 240 }, fits: true, best: /-(1000|1200)/ },
  { name: 'fourteen drives at once', parts: [part('board-84', 'b'), part('processor-35', 'p'), ...drives(14)], casing: tower, fits: false, best: null },
  { name: 'old single rail board', parts: [part('board-20', 'b'), part('processor-65', 'p'), part('drive-old', 'd'), part('optical', 'o')], casing: tower, fits: true, best: /^(corvane|brackholm|tarnwick)-/ },
  { name: 'maker-built with its own connector', parts: [part('board-own', 'b'), part('processor-65', 'p'), part('drive-flat', 'd')], casing: tower, fits: false, best: null },
  { name: 'maker-built with its own holes', parts: [part('board', 'b'), part('processor-65', 'p')], casing: { ...tower, ownHoles: true }, fits: false, best: null },
  { name: 'a card of 1200 W', parts: [part('board-88', 'b'), part('processor-125', 'p'), part('card-16', 'c', { figures: { lowWatts: 1000, likelyWatts: 1200, highWatts: 1300, shortWatts: 1300 } })], casing: { ...tower, depthMillimetres: 300 }, fits: false, best: null },
];
