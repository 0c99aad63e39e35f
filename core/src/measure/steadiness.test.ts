import { describe, expect, it } from 'vitest';
import type { Instrument } from './instrument.ts';
import type { Condition, MeasuredValue } from './reading.ts';
import { steadinessOf } from './steadiness.ts';

const meter = (id: string): Instrument => ({
  id,
  name: id,
  kind: 'multimeter',
  ranges: [{ fullScaleVolts: 20, percent: 0.5, counts: 2, digitVolts: 0.01 }],
  powerGoodErrorMilliseconds: null,
  rippleErrorMillivolts: null,
  calibratedUntil: null,
  ownedBy: '',
});
const meters = [meter('a'), meter('b')];
const at = (condition: Condition, figure: number, instrumentId = 'a'): MeasuredValue => ({
  subject: '+12',
  condition,
  value: { kind: 'figure', figure },
  instrumentId,
});
const word = (...readings: MeasuredValue[]) => steadinessOf('+12', readings, meters, '2.x').word;

describe('steadiness', () => {
  it('calls a fall of more than two per cent a sag', () => {
    expect(steadinessOf('+12', [at('idle', 11.72), at('work', 11.31)], meters, '2.x')).toMatchObject({
      word: 'sags',
      lightVolts: 11.72,
      workVolts: 11.31,
    });
    expect(word(at('idle', 12.05), at('work', 11.9))).toBe('steady');
  });
  it('takes off load when there is no idle reading', () => {
    expect(word(at('off-load', 12.1), at('work', 11.6))).toBe('sags');
  });
  it('wants more between two different meters, whose errors do not cancel', () => {
    expect(word(at('idle', 11.72), at('work', 11.45, 'b'))).toBe('steady');
    expect(word(at('idle', 11.72), at('work', 11.45))).toBe('sags');
  });
  it('calls scattering repeats wandering', () => {
    expect(word(at('idle', 12.0), at('idle', 12.2), at('idle', 11.9))).toBe('wanders');
    expect(word({ ...at('idle', 0), value: { kind: 'code', code: 'wanders' } })).toBe('wanders');
  });
  it("takes the meter's own rounding out of the spread, and one digit's difference for none", () => {
    const coarse: Instrument = {
      ...meter('a'),
      ranges: [{ fullScaleVolts: 20, percent: 0, counts: 1, digitVolts: 0.1 }],
    };
    const { spreadVolts } = steadinessOf(
      '+12',
      [12, 12.1, 12.2, 12.1].map((figure) => at('idle', figure)),
      [coarse],
      '2.x',
    );
    expect(spreadVolts).toBeCloseTo(Math.sqrt(0.02 / 3 - 0.01 / 12), 9);
    expect(
      steadinessOf(
        '+12',
        [12, 12.1, 12].map((figure) => at('idle', figure)),
        [coarse],
        '2.x',
      ).spreadVolts,
    ).toBe(0);
  });
  it('sees a drift between repeats only where it is more than chance, and only over some minutes', () => {
    const read = (figures: readonly number[], minutes: number) =>
      steadinessOf(
        '+12',
        figures.map((figure, index) => ({
          ...at('work', figure),
          at: `2026-01-01T00:${String(index * minutes).padStart(2, '0')}:00.000Z`,
        })),
        meters,
        '2.x',
      ).driftVoltsPerHour;
    expect(read([12.0, 11.98, 11.96, 11.94, 11.92], 5)).toBeCloseTo(-0.24, 6);
    expect(read([12.0, 11.98, 12.01, 11.99, 12.0], 5)).toBeNull();
    expect(read([12.0, 11.98, 11.96, 11.94], 1)).toBeNull();
    expect(read([12.0, 11.98, 11.96], 10)).toBeNull();
  });
  it('does not know from one reading', () => {
    expect(word(at('idle', 12))).toBe('not-known');
    expect(word()).toBe('not-known');
  });
});
