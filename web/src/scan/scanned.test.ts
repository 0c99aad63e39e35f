import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { scanned, type Scannable } from './scanned.ts';

const shelf: Scannable = {
  codePrefix: 'LQ',
  units: [
    { id: 'u1', serial: 'CV-650-0031', modelId: 'corvane-650-s', state: 'new', usedIn: null },
    { id: 'u2', serial: 'CV-650-0007', modelId: 'corvane-650-s', state: 'used', usedIn: 'LQ-0099' },
    { id: 'u3', serial: '', modelId: 'corvane-650-s', state: 'new', usedIn: null },
  ],
  bags: [{ id: 'b1', label: 'BAG-03' }],
};
const pathOf = (text: string) => scanned(text, shelf)?.path ?? null;

describe('a scanned code', () => {
  it.each([
    ["a cable's tag", 'https://192.0.2.7:4871/tags/LQ-0142/C03', '/tags/LQ-0142/C03'],
    ['a tag from before the shop moved to another address', 'http://old.example/tags/LQ-0142/B/', '/tags/LQ-0142/B'],
    ["a job's address", 'http://127.0.0.1:4870/jobs/LQ-0142', '/jobs/LQ-0142'],
    ["a job's code", ' lq-0142\n', '/jobs/LQ-0142'],
    ["a job's code without its dash", 'LQ0142', '/jobs/LQ-0142'],
    ["a unit's serial number", 'cv-650-0031', '/supplies?way=shelf&unit=u1'],
    ['the serial number of a unit that was fitted', 'CV-650-0007', '/jobs/LQ-0099'],
    ["a bag's label", 'bag-03', '/cable-bags?cable=b1'],
    ['any other words', 'SN 88 1', '/jobs?search=SN%2088%201'],
    ["a code of another shop's prefix", 'AB-0142', '/jobs?search=AB-0142'],
  ])('leads to what it is of: %s', (_what, text, path) => {
    expect(pathOf(text)).toBe(path);
  });
  it.each([
    'https://elsewhere.example/',
    'https://elsewhere.example/jobs/../people',
    'http://127.0.0.1/settings',
    'https://x/tags/LQ-0142/C03/more',
    'javascript:alert(1)',
    'mailto:someone@example.com',
    'https://',
    '',
    '   ',
  ])('that is of nothing here leads nowhere: %s', (text) => {
    expect(scanned(text, shelf)).toBe(null);
  });
  it('leads to a tag, a job, the shelf, the bags or a search, whatever it says', () => {
    fc.assert(
      fc.property(
        fc.oneof(
          fc.string({ unit: fc.nat(0xffff).map((code) => String.fromCharCode(code)), maxLength: 200 }),
          fc.webUrl(),
        ),
        (text) => {
          const path = pathOf(text);
          if (path === null) return;
          expect(path).toMatch(/^\/(?:jobs\/|tags\/|jobs\?search=|supplies\?|cable-bags\?)/);
          expect(new URL(path, 'http://bench.example').host).toBe('bench.example');
          expect(path.length).toBeLessThan(1000);
        },
      ),
      { numRuns: 2000 },
    );
  });
});
