// Labels of supplies that nobody makes, as data: what is printed, how it is laid out, and what wear and camera do to
// it. The same seed makes the same labels.
import { usualOutputs, type CombinedLimit, type RailRating } from '@fairwatt/core';
import { seeded, type Random } from '@fairwatt/core/simulate';

/** What the camera and the years do to a label. */
export interface Wear {
  /** How far it lies askew, -8 to 8. */
  readonly degrees: number;
  /** How much shorter one end is seen than the other, across and down, as a share of its length. */
  readonly across: number;
  readonly down: number;
  /** Width of the blur, in pixels. */
  readonly blur: number;
  /** Standard deviation of the grain, of 255. */
  readonly grain: number;
  /** Scratches. */
  readonly scratches: number;
  /** How much darker the far end is than the near one, 0 to 0.5. */
  readonly shade: number;
  /** How bright a lamp shows in it, 0 to 0.3 */
  readonly glare: number;
}

export interface MadeUpLabel {
  readonly seed: number;
  readonly name: string;
  readonly watts: number;
  readonly rails: readonly RailRating[];
  readonly combined: readonly CombinedLimit[];
  /** Words beside the table, each a line. */
  readonly head: readonly string[];
  readonly foot: readonly string[];
  readonly layout: 'columns' | 'rows' | 'pairs';
  readonly words: { readonly output: string; readonly current: string; readonly power: string; readonly total: string };
  readonly sign: string;
  readonly dark: boolean;
  readonly ruled: boolean;
  readonly font: string;
  readonly bold: boolean;
  readonly size: number;
  readonly spaced: boolean;
  readonly wear: Wear;
}

const names = ['Corvane', 'Ostrel', 'Tavenne', 'Brindmoor', 'Quillhay', 'Ferlund'];
const fonts = ['DejaVu Sans', 'DejaVu Sans Condensed', 'DejaVu Serif', 'Atkinson Hyperlegible Next Variable'];

const oneOf = <T>(random: Random, list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
const between = (random: Random, low: number, high: number) => low + random() * (high - low);

function wearOf(random: Random): Wear {
  const tilted = random() < 0.7;
  return {
    degrees: between(random, -8, 8),
    across: tilted ? between(random, -0.1, 0.1) : 0,
    down: tilted ? between(random, -0.1, 0.1) : 0,
    blur: between(random, 0, 1.5),
    grain: between(random, 1, 14),
    scratches: Math.floor(between(random, 0, 7)),
    shade: between(random, 0, 0.5),
    glare: random() < 0.4 ? between(random, 0.05, 0.3) : 0,
  };
}

/** One to four outputs of +12 V, the usual others, and the limits that such labels print. */
function outputsOf(random: Random, watts: number): Pick<MadeUpLabel, 'rails' | 'combined'> {
  const { rails, combined } = usualOutputs(watts);
  const whole = rails.find(({ rail }) => rail === '+12')!.amps;
  const only = random() < 0.06;
  if (only) return { rails: [{ label: '+12V', rail: '+12', amps: whole }], combined: [] };
  const count = oneOf(random, [1, 1, 1, 2, 2, 3, 4]);
  const each = count === 1 ? whole : Math.max(8, Math.ceil((whole * between(random, 1.05, 1.5)) / count));
  const twelve = Array.from({ length: count }, (_, index): RailRating => {
    const label = count === 1 ? '+12V' : `+12V${index + 1}`;
    return { label, rail: '+12', amps: index % 2 === 1 && count > 2 ? each + 2 : each };
  });
  const five = oneOf(random, [12, 15, 16, 18, 20, 22, 25]);
  const three = oneOf(random, [12, 15, 16, 18, 20, 22, 24]);
  const list: RailRating[] = [
    { label: '+3.3V', rail: '+3.3', amps: three },
    { label: '+5V', rail: '+5', amps: five },
    ...twelve,
    { label: '-12V', rail: '-12', amps: oneOf(random, [0.3, 0.5, 0.8]) },
    { label: '+5VSB', rail: '+5sb', amps: oneOf(random, [2, 2.5, 3, 3.5]) },
  ];
  // Nothing shares more than its outputs could give.
  const minorWatts = Math.min(
    combined[0]!.watts + oneOf(random, [-5, 0, 10, 20]),
    Math.floor((five * 5 + three * 3.3) / 5) * 5,
  );
  return {
    rails: random() < 0.5 ? list : [list[1]!, list[0]!, ...list.slice(2)],
    combined: [
      { labels: ['+3.3V', '+5V'], watts: minorWatts },
      {
        labels: twelve.map(({ label }) => label),
        watts: Math.min(watts, count === 1 ? whole * 12 : Math.round((whole * 12) / 5) * 5),
      },
    ],
  };
}

export function madeUpLabel(seed: number): MadeUpLabel {
  const random = seeded(seed);
  const watts = oneOf(random, [300, 350, 400, 450, 500, 550, 600, 650, 750, 850, 1000, 1200]);
  const { rails, combined } = outputsOf(random, watts);
  const name = `${oneOf(random, names)} ${oneOf(random, ['V', 'TR', 'K', 'SL'])}${watts}`;
  const head = [
    name,
    oneOf(random, ['SWITCHING POWER SUPPLY', 'ATX POWER SUPPLY', 'DESKTOP POWER SUPPLY']),
    oneOf(random, [
      'AC INPUT 100-240V~ 10-5A 50-60Hz',
      'AC INPUT: 200-240V 6A 50Hz',
      'INPUT 115V/230V 8A/4A 50/60Hz',
      'AC 100-240 V, 47-63 Hz, 9 A',
    ]),
    ...(random() < 0.5 ? [oneOf(random, ['EFFICIENCY GRADE GOLD', 'GRADE BRONZE', 'Efficiency grade: platinum'])] : []),
    ...(random() < 0.5 ? [oneOf(random, ['ATX12V 2.52', 'Design guide ATX 3.1', 'ATX 2.31'])] : []),
  ];
  const year = 2012 + Math.floor(random() * 13);
  const month = String(1 + Math.floor(random() * 12)).padStart(2, '0');
  return {
    seed,
    name,
    watts,
    rails,
    combined,
    head,
    foot: [
      'WARNING: no parts inside that anybody may service. Do not open.',
      ...(random() < 0.7 ? [`DATE ${oneOf(random, [`${year}-${month}`, `${month}/${year}`])}   S/N 7Q${seed}44K`] : []),
    ],
    layout: oneOf(random, ['columns', 'columns', 'columns', 'rows', 'rows', 'pairs']),
    words: {
      output: oneOf(random, ['DC OUTPUT', 'OUTPUT', 'DC Output']),
      current: oneOf(random, ['MAX CURRENT', 'MAX. LOAD', 'Max current', 'CURRENT']),
      power: oneOf(random, ['MAX POWER', 'COMBINED', 'Combined power']),
      total: oneOf(random, ['TOTAL POWER', 'TOTAL', 'MAX TOTAL OUTPUT', 'Total power']),
    },
    sign: oneOf(random, ['', ' ', ' ⎓ ', ' = ']),
    dark: random() < 0.4,
    ruled: random() < 0.8,
    font: oneOf(random, fonts),
    bold: random() < 0.5,
    size: oneOf(random, [22, 24, 26, 28]),
    spaced: random() < 0.3,
    wear: wearOf(random),
  };
}
