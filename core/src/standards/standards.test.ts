import { describe, expect, it } from 'vitest';
import {
  carriedShare,
  cableFamilies,
  excursionMilliseconds,
  excursionMultiple,
  grades,
  inletFace,
  inletFamily,
  inletKinds,
  standardInletKinds,
  lossModel,
  lossWatts,
  plugKinds,
  plugServes,
  powerGoodLimits,
  railBand,
  railNames,
  socketKinds,
  socketTakes,
  type InletKind,
  type PinSignal,
  mainsSelectors,
  selectorIsWrong,
} from './index.ts';

const signalAt = (kind: InletKind, pin: number): PinSignal | undefined =>
  inletFace[kind].rows.flat().find((entry) => entry.pin === pin)?.signal;
const pinsWith = (kind: InletKind, signal: PinSignal) =>
  inletFace[kind].rows
    .flat()
    .filter((entry) => entry.signal === signal)
    .map((entry) => entry.pin)
    .sort((a, b) => a - b);

describe('rails', () => {
  it('have bands of five per cent around nominal, ten for the negative rail', () => {
    for (const rail of railNames) {
      const { lower, nominal, upper } = railBand(rail, '2.x');
      const share = rail === '-12' ? 0.1 : 0.05;
      expect(lower).toBeCloseTo(nominal - share * Math.abs(nominal), 1);
      expect(upper).toBeCloseTo(nominal + share * Math.abs(nominal), 1);
    }
  });
  it('let +12 go seven per cent low by the recent guide, and the negative rail be absent', () => {
    expect(railBand('+12', '3.x').lower).toBe(11.2);
    expect(railBand('+12', '3.x').upper).toBe(12.6);
    expect([railBand('-12', '2.x').mayBeAbsent, railBand('-12', '3.x').mayBeAbsent]).toEqual([false, true]);
  });
  it('name the source of every band', () => {
    for (const rail of railNames)
      for (const guide of ['2.x', '3.x'] as const) expect(railBand(rail, guide).source.title).not.toBe('');
  });
  it('time power-good from 100 to 500 ms, slow above 250 by the recent guide', () => {
    expect(powerGoodLimits('2.x')).toMatchObject({
      earliestMilliseconds: 100,
      latestMilliseconds: 500,
      slowMilliseconds: 500,
    });
    expect(powerGoodLimits('3.x').slowMilliseconds).toBe(250);
  });
});

describe('connectors', () => {
  it('the main connector carries what the design guide says, pin by pin', () => {
    expect(pinsWith('main-24', '3.3')).toEqual([1, 2, 12, 13]);
    expect(pinsWith('main-24', '5')).toEqual([4, 6, 21, 22, 23]);
    expect(pinsWith('main-24', '12')).toEqual([10, 11]);
    expect(pinsWith('main-24', 'G')).toEqual([3, 5, 7, 15, 17, 18, 19, 24]);
    expect([
      signalAt('main-24', 8),
      signalAt('main-24', 9),
      signalAt('main-24', 14),
      signalAt('main-24', 16),
      signalAt('main-24', 20),
    ]).toEqual(['PG', 'SB', '-12', 'ST', 'NC']);
  });
  it('the older main connector ends at pin 20', () => {
    expect(pinsWith('main-20', '12')).toEqual([10]);
    expect([signalAt('main-20', 12), signalAt('main-20', 14), signalAt('main-20', 18)]).toEqual(['-12', 'ST', 'NC']);
    expect(pinsWith('main-20', '5')).toEqual([4, 6, 19, 20]);
  });
  it('processor and card plugs of eight carry opposite polarity', () => {
    expect(pinsWith('cpu-8', '12')).toEqual([5, 6, 7, 8]);
    expect(pinsWith('cpu-8', 'G')).toEqual([1, 2, 3, 4]);
    expect(pinsWith('card-8', '12')).toEqual([1, 2, 3]);
    expect(pinsWith('card-8', 'S')).toEqual([4, 6]);
    expect(pinsWith('card-6', 'S')).toEqual([5]);
    for (const pin of pinsWith('card-8', '12')) expect(signalAt('cpu-8', pin)).toBe('G');
  });
  it('drive plugs: flat carries three voltages, the old one two, the small one with its ends swapped', () => {
    expect([pinsWith('sata', '3.3'), pinsWith('sata', '5'), pinsWith('sata', '12')]).toEqual([
      [1, 2, 3],
      [7, 8, 9],
      [13, 14, 15],
    ]);
    expect([signalAt('peripheral-4', 1), signalAt('peripheral-4', 4)]).toEqual(['12', '5']);
    expect([signalAt('small-drive-4', 1), signalAt('small-drive-4', 4)]).toEqual(['5', '12']);
  });
  it('number every pin once', () => {
    const counts: Record<InletKind, number> = {
      'main-own': 0,
      'main-24': 24,
      'main-20': 20,
      'aux-6': 6,
      'cpu-8': 8,
      'cpu-4': 4,
      'card-16': 12,
      'card-8': 8,
      'card-6': 6,
      sata: 15,
      'peripheral-4': 4,
      'small-drive-4': 4,
    };
    for (const kind of inletKinds)
      expect(
        inletFace[kind].rows
          .flat()
          .map((entry) => entry.pin)
          .sort((a, b) => a - b),
        kind,
      ).toEqual(Array.from({ length: counts[kind] }, (_, index) => index + 1));
  });
});

describe('what fits what', () => {
  it.each<[string, Parameters<typeof plugServes>, boolean]>([
    ['a 24-pin plug serves a 20-pin inlet', ['main-24', 'main-20'], true],
    ['half of a split plug serves a small processor inlet', ['cpu-4+4', 'cpu-4'], true],
    ['a small processor plug does not serve the large inlet', ['cpu-4', 'cpu-8'], false],
    ['6+2 serves a 6-pin inlet', ['card-6+2', 'card-6'], true],
    ['a 6-pin plug does not serve an 8-pin inlet', ['card-6', 'card-8'], false],
    ['a processor plug never serves a card', ['cpu-4+4', 'card-8'], false],
    ['a card plug never serves a processor', ['card-6+2', 'cpu-8'], false],
    ['a drive plug never serves a card', ['peripheral-4', 'card-6'], false],
    ['an old drive plug does not serve a flat inlet', ['peripheral-4', 'sata'], false],
  ])('%s', (_name, [plug, inlet], expected) => {
    expect(plugServes(plug, inlet)).toBe(expected);
  });
  it('every inlet has a plug, every plug an inlet, and a shared socket takes two families', () => {
    for (const inlet of standardInletKinds)
      expect(
        plugKinds.some((plug) => plugServes(plug, inlet)),
        inlet,
      ).toBe(true);
    for (const plug of plugKinds)
      expect(
        inletKinds.some((inlet) => plugServes(plug, inlet)),
        plug,
      ).toBe(true);
    expect(
      socketKinds.filter((socket) => cableFamilies.filter((family) => socketTakes(socket, family)).length > 1),
    ).toEqual(['cpu-card']);
    expect(new Set(inletKinds.map(inletFamily))).toEqual(new Set(cableFamilies));
  });
});

describe('excursions', () => {
  it('are not promised by the older guide, and grow as they get shorter by the recent one', () => {
    for (const milliseconds of excursionMilliseconds) expect(carriedShare('2.x', false, 650, milliseconds)).toBeNull();
    for (const has16Pin of [true, false]) {
      const shares = excursionMilliseconds.map((milliseconds) => carriedShare('3.x', has16Pin, 750, milliseconds)!);
      expect(shares).toEqual([...shares].sort((a, b) => a - b));
    }
    expect(carriedShare('3.x', true, 750, 0.1)).toBe(2);
    expect(carriedShare('3.x', true, 450, 0.1)).toBe(1.5);
  });
  it('never shrink a part as they get shorter', () => {
    for (const kind of Object.values(excursionMultiple)) {
      const multiples = excursionMilliseconds.map((milliseconds) => kind[milliseconds]);
      expect(multiples).toEqual([...multiples].sort((a, b) => a - b));
      expect(multiples[0]).toBeGreaterThanOrEqual(1);
    }
  });
});

describe('efficiency', () => {
  it('loses less with every better grade, at each of the three points', () => {
    for (const volts of [115, 230])
      for (const share of [0.2, 0.5, 1]) {
        const losses = grades.map((grade) => lossWatts(lossModel(grade, 600, volts), 600 * share, 600));
        expect(losses).toEqual([...losses].sort((a, b) => b - a));
      }
  });

  it('a voltage selector is wrong at the other figure, never where there is none', () => {
    const wrong = [100, 115, 120, 159, 160, 200, 230, 240].map((volts) =>
      mainsSelectors.filter((selector) => selectorIsWrong(selector, volts)).join(),
    );
    expect(wrong).toEqual(['230', '230', '230', '230', '115', '115', '115', '115']);
  });
});
