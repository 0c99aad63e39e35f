import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { isPrivateAddress, networkInstrumentSchema, sweepRequestSchema } from './index.ts';

const number = (address: string) => address.split('.').reduce((sum, part) => sum * 256 + Number(part), 0);
const between = (address: string, first: string, last: string) =>
  number(address) >= number(first) && number(address) <= number(last);

describe('addresses of instruments', () => {
  it('are the loopback and private blocks, and nothing beside them', () => {
    fc.assert(
      fc.property(fc.ipV4(), (address) => {
        const wanted =
          between(address, '127.0.0.0', '127.255.255.255') ||
          between(address, '10.0.0.0', '10.255.255.255') ||
          between(address, '172.16.0.0', '172.31.255.255') ||
          between(address, '192.168.0.0', '192.168.255.255');
        expect(isPrivateAddress(address)).toBe(wanted);
      }),
      { numRuns: 2000 },
    );
    for (const edge of [
      '172.15.255.255',
      '172.32.0.0',
      '192.167.255.255',
      '192.169.0.0',
      '9.255.255.255',
      '11.0.0.0',
      '126.255.255.255',
      '128.0.0.0',
    ])
      expect(isPrivateAddress(edge), edge).toBe(false);
  });
  it('are figures only: no names, no tricks', () => {
    for (const host of [
      '',
      'localhost',
      'meter.lan',
      '127.1',
      '0x7f.0.0.1',
      '10.0.0.1.',
      '10.0.0.1:5025',
      '999.0.0.1',
      '::',
      '::2',
      'fe80::1',
      '2001:db8::1',
      'fd00',
      '10.0.0.1 ',
    ])
      expect(isPrivateAddress(host), host).toBe(false);
    for (const host of ['::1', 'fd12:3456:789a::1', 'fc00::']) expect(isPrivateAddress(host), host).toBe(true);
  });
  it('a meter names the specification it is judged by, a load needs none', () => {
    const base = { id: 'a', name: 'A', host: '10.0.0.2', port: 5025 };
    expect(networkInstrumentSchema.safeParse({ ...base, role: 'meter', instrumentId: null }).success).toBe(false);
    expect(networkInstrumentSchema.safeParse({ ...base, role: 'load', instrumentId: null }).success).toBe(true);
  });
});

describe('a sweep that is asked for', () => {
  const sweep = {
    by: 'mara',
    job: 'LQ-0142',
    meterId: 'm',
    loadId: 'l',
    rail: '+12',
    fromAmps: 2,
    toAmps: 20,
    steps: 7,
    dwellSeconds: 1,
    hottestCelsius: 70,
  };
  it('rises, in steps that can be counted, and not for ever', () => {
    expect(sweepRequestSchema.safeParse(sweep).success).toBe(true);
    for (const wrong of [
      { toAmps: 2 },
      { fromAmps: -1 },
      { steps: 1 },
      { steps: 41 },
      { steps: 2.5 },
      { dwellSeconds: 0 },
      { dwellSeconds: 3600 },
      { hottestCelsius: 400 },
      { rail: '+7' },
      { toAmps: Number.NaN },
      { extra: 1 },
    ])
      expect(sweepRequestSchema.safeParse({ ...sweep, ...wrong }).success, JSON.stringify(wrong)).toBe(false);
  });
});
