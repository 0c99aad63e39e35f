import { describe, expect, it } from 'vitest';
import { railVolts, runSupply, seeded, simulatedSupplies, startSupply } from '@fairwatt/core/simulate';
import { SimulatedBench } from './index.ts';

const bench = (start = 0) => {
  const clock = { now: start };
  return { clock, bench: new SimulatedBench(() => clock.now) };
};

describe('the language of the stand-ins', () => {
  it('takes short and long forms, in any case, and nothing between', () => {
    const meter = bench().bench.meter();
    for (const question of ['MEAS:VOLT:DC?', 'measure:voltage:dc?', ':MEASure:VOLT:DC?', 'READ?'])
      expect(Number(meter.line(question)), question).toBeCloseTo(12.06, 1);
    expect(meter.line('MEASU:VOLT:DC?')).toBeNull();
    expect(meter.line('SYST:ERR?')).toBe('-113,"Undefined header"');
    expect(meter.line('SYST:ERR?')).toBe('0,"No error"');
  });
  it('takes several commands in a line and joins the answers', () => {
    const load = bench().bench.load();
    expect(load.line('*ESE 57;CURR 12.5;INP ON;CURR?;INP?;*ESE?')).toBe('12.500;1;57');
    expect(load.line('*IDN?')).toContain('Stand-in electronic load');
  });
  it('keeps errors in a queue until they are asked for or cleared', () => {
    const load = bench().bench.load();
    expect(load.line('CURR 900;CURR lots;CURR?')).toBe('0.000');
    expect(load.line('SYST:ERR?;SYST:ERR?;SYST:ERR?')).toBe(
      '-222,"Data out of range";-104,"Data type error";0,"No error"',
    );
    load.line('NONSENSE;*CLS');
    expect(load.line('SYST:ERR?')).toBe('0,"No error"');
  });
  it('shows an overload the standard way, and 0 once the supply tripped', () => {
    const { clock, bench: both } = bench();
    const meter = both.meter();
    expect(meter.line('CONF:VOLT:DC 0.6;READ?')).toBe('9.9E37');
    both.put('undersized');
    both.load().line('CURR 40;INP ON');
    clock.now += 500;
    expect(Number(meter.line('CONF:VOLT:DC DEF;READ?'))).toBe(0);
  });
});

describe('simulated supplies', () => {
  const mean = (name: keyof typeof simulatedSupplies, amps: number, seconds = 1) => {
    const random = seeded(2);
    const running = runSupply(startSupply(simulatedSupplies[name]), seconds, amps);
    return (
      Array.from({ length: 400 }, () => railVolts(running, '+12', random)).reduce((sum, value) => sum + value, 0) / 400
    );
  };
  it('follow their load line', () => {
    const { openVolts, ohms } = simulatedSupplies.healthy.rails['+12'];
    for (const amps of [0, 10, 30]) expect(mean('healthy', amps)).toBeCloseTo(openVolts - ohms * amps, 2);
    expect(mean('weak', 30)).toBeLessThan(11.4);
  });
  it('show through a meter that settles: halfway after some moments, there after a tenth of a second and more', () => {
    let milliseconds = 0;
    const bench = new SimulatedBench(() => milliseconds);
    const meter = bench.meter();
    const read = () => Number(meter.line('MEASure:VOLTage:DC?'));
    expect(read()).toBeCloseTo(12.06, 1);
    meter.line('SIMulate:RAIL +5');
    milliseconds += 20;
    expect(read()).toBeGreaterThan(7);
    milliseconds += 200;
    expect(read()).toBeCloseTo(5.03, 1);
  });
  it.each([40, 900])('show a probe that is moved in the air for several looks, one each %d ms', (between) => {
    const { clock, bench: one } = bench();
    const meter = one.meter();
    meter.line('READ?');
    meter.line('SIM:MOVE +5');
    const looks = Array.from({ length: 40 }, () => {
      clock.now += between;
      return Number(meter.line('READ?'));
    });
    expect(looks.findIndex((volts) => volts > 4.5)).toBeGreaterThanOrEqual(6);
    expect(looks.filter((volts) => volts < 0.5).length).toBeGreaterThanOrEqual(4);
    expect(looks.at(-1)).toBeCloseTo(5, 0);
  });
  it('trip over their current and stay off, standby apart', () => {
    let running = runSupply(startSupply(simulatedSupplies.undersized), 1, 30);
    running = runSupply(running, 1, 0);
    expect(running.off).toBe(true);
    expect(railVolts(running, '+12', seeded(1))).toBe(0);
    expect(railVolts(running, '+5sb', seeded(1))).toBeGreaterThan(4.5);
  });
  it('heat without air until they switch off', () => {
    expect(runSupply(startSupply(simulatedSupplies.hot), 20, 30).off).toBe(false);
    expect(runSupply(startSupply(simulatedSupplies.hot), 600, 30).off).toBe(true);
    expect(runSupply(startSupply(simulatedSupplies.healthy), 3600, 30).off).toBe(false);
  });
});
