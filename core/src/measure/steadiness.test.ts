import { describe, expect, it } from 'vitest';
import type { Instrument } from './instrument.ts';
import type { Condition, MeasuredValue } from './reading.ts';
import { steadinessOf } from './steadiness.ts';

const meter = (id: string): Instrument => ({ id, name: id, kind: 'multimeter', ranges: [{ fullScaleVolts: 20, percent: 0.5, counts: 2, digitVolts: 0.01 }], powerGoodErrorMilliseconds: null, calibratedUntil: null });
const meters = [meter('a'), meter('b')];
const at = (condition: Condition, figure: number, instrumentId = 'a'): MeasuredValue => ({ subject: '+12', condition, value: { kind: 'figure', figure }, instrumentId });
const word = (...readings: MeasuredValue[]) => steadinessOf('+12', readings, meters, '2.x').word;

describe('steadiness', () => {
  it('calls a fall of more than two per cent a sag', () => {
    expect(steadinessOf('+12', [at('idle', 11.72), at('work', 11.31)], meters, '2.x')).toMatchObject({ word: 'sags', lightVolts: 11.72, workVolts: 11.31 });
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
  it('does not know from one reading', () => {
    expect(word(at('idle', 12))).toBe('not-known');
    expect(word()).toBe('not-known');
  });
});
