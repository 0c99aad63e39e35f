import { describe, expect, it } from 'vitest';
import { judgeReadings } from './verdict.ts';
import { seeded } from '../simulate/index.ts';
import type { Instrument } from './instrument.ts';

describe('verdicts over simulated supplies near the limit', () => {
  const meter: Instrument = { id: 'm', name: 'M', kind: 'multimeter', ranges: [{ fullScaleVolts: 20, percent: 0.5, counts: 2, digitVolts: 0.01 }], powerGoodErrorMilliseconds: null, calibratedUntil: null, ownedBy: '' };
  // True volts spread evenly around the lower limit; the meter's error is anywhere inside its limit, as its specification says.
  const random = seeded(20261124);
  const counts = { pass: 0, passOutside: 0, fail: 0, failInside: 0, cannotTell: 0 };
  for (let supply = 0; supply < 10_000; supply += 1) {
    const truth = 11.4 + (random() - 0.5) * 0.6;
    const error = (random() * 2 - 1) * (truth * 0.005 + 0.02);
    const shown = Math.round((truth + error) * 100) / 100;
    const verdict = judgeReadings([{ subject: '+12', condition: 'idle', value: { kind: 'figure', figure: shown }, instrumentId: 'm' }], [meter], '2.x')[0]!;
    if (verdict.word === 'pass') { counts.pass += 1; if (truth < 11.4) counts.passOutside += 1; }
    else if (verdict.word === 'fail') { counts.fail += 1; if (truth >= 11.4) counts.failInside += 1; }
    else counts.cannotTell += 1;
  }
  it('at most 2.5 % of "pass" is truly outside, and of "fail" truly inside', () => {
    expect(counts.pass).toBeGreaterThan(1000);
    expect(counts.fail).toBeGreaterThan(1000);
    expect(counts.passOutside / counts.pass).toBeLessThanOrEqual(0.025);
    expect(counts.failInside / counts.fail).toBeLessThanOrEqual(0.025);
  });
  it('says "cannot tell" only where the meter\'s error makes it so', () => {
    expect(counts.cannotTell / 10_000).toBeLessThan(0.4);
  });
});
