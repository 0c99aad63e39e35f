import { usualOutputs, type CombinedLimit, type RailRating } from '../../machine/index.ts';
import type { Random } from '../../simulate/index.ts';
import type { PrintedWord } from './printed.ts';

/** What a label tells. */
export interface PrintedTruth {
  readonly watts: number;
  readonly rails: readonly RailRating[];
  readonly combined: readonly CombinedLimit[];
}

const oneOf = <T>(random: Random, list: readonly T[]): T => list[Math.floor(random() * list.length)]!;

/** Labels with one to four outputs of +12 V, whose figures add up. */
export function printedLabels(random: Random, count: number): PrintedTruth[] {
  return Array.from({ length: count }, () => {
    const watts = oneOf(random, [300, 400, 450, 550, 650, 750, 850, 1000]);
    const { rails } = usualOutputs(watts);
    const whole = Math.ceil((watts * 0.97) / 12);
    const outputs = oneOf(random, [1, 2, 3, 4]);
    const each = Math.max(8, Math.ceil((whole * 1.2) / outputs));
    const twelve = Array.from({ length: outputs }, (_, index): RailRating => ({
      label: outputs === 1 ? '12V' : `12V${index + 1}`,
      rail: '+12',
      amps: each,
    }));
    const minor = rails.filter(({ rail }) => rail !== '+12').map(({ label, rail, amps }) => ({ label, rail, amps }));
    return {
      watts,
      rails: [...minor.slice(0, 2), ...twelve, ...minor.slice(2)],
      combined: [
        { labels: ['5V', '3.3V'], watts: oneOf(random, [80, 95]) },
        { labels: twelve.map(({ label }) => label), watts: Math.min(whole * 12, Math.floor(watts / 12) * 12) },
      ],
    };
  });
}

const letter = 14;
const high = 28;

/** The words of a label where they would stand, each a little off. */
export function laidOut(truth: PrintedTruth, layout: 'columns' | 'rows' | 'pairs', random: Random): PrintedWord[] {
  const words: PrintedWord[] = [];
  const print = (text: string, middle: number, top: number) => {
    const [x, y] = [middle + (random() - 0.5) * 8, top + (random() - 0.5) * 6];
    const half = (text.length * letter) / 2;
    words.push({ text, sure: 85 + random() * 12, box: { left: x - half, top: y, right: x + half, bottom: y + high } });
  };
  const printed = ({ label }: RailRating) => (label.startsWith('-') ? label : `+${label}`);
  const shared = (name: string) => truth.combined.find(({ labels }) => labels.includes(name));
  const place = (index: number) => 320 + index * 120;
  const middleOf = ({ labels }: CombinedLimit, at: (index: number) => number) => {
    const places = truth.rails.flatMap(({ label }, index) => (labels.includes(label) ? [at(index)] : []));
    return (places[0]! + places.at(-1)!) / 2;
  };
  if (layout === 'columns') {
    print('OUTPUT', 120, 100);
    print('CURRENT', 120, 160);
    truth.rails.forEach((rail, index) => {
      print(printed(rail), place(index), 100);
      print(`${rail.amps}A`, place(index), 160);
      if (shared(rail.label) === undefined)
        print(`${Math.round(rail.amps * (rail.rail === '-12' ? 12 : 5) * 10) / 10}W`, place(index), 220);
    });
    for (const limit of truth.combined) print(`${limit.watts}W`, middleOf(limit, place), 220);
    print('TOTAL', 120, 280);
    print(`${truth.watts}W`, 600, 280);
  } else if (layout === 'rows') {
    const row = (index: number) => 100 + index * 50;
    truth.rails.forEach((rail, index) => {
      print(printed(rail), 120, row(index));
      print(`${rail.amps}A`, 320, row(index));
    });
    for (const limit of truth.combined) print(`${limit.watts}W`, 520, middleOf(limit, row));
    print('TOTAL', 120, row(truth.rails.length + 1));
    print(`${truth.watts}W`, 320, row(truth.rails.length + 1));
  } else {
    truth.rails.forEach((rail, index) => {
      const [x, y] = [120 + (index % 2) * 400, 100 + Math.floor(index / 2) * 50];
      print(printed(rail), x, y);
      print(`${rail.amps}A`, x + 110, y);
    });
    truth.combined.forEach(({ labels, watts }, index) => {
      labels.forEach((label, at) => print(`+${label}`, 120 + at * 110, 400 + index * 50));
      print(`${watts}W`, 120 + labels.length * 110, 400 + index * 50);
    });
    print('TOTAL', 120, 560);
    print(`${truth.watts}W`, 320, 560);
  }
  return words;
}
