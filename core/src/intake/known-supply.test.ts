import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { emptyLabel } from '../machine/index.ts';
import { newJob } from '../job/index.ts';
import { shortOf } from './intake.test-help.ts';
import { withSupplies } from './known-supply.ts';
import { takeIn } from './take-in.ts';
import { understand } from './understand.ts';

const supply = (name: string, ratingWatts: number) => ({
  name,
  label: { ...emptyLabel, ratingWatts, grade: 'gold', modular: 'full' } as const,
});
const supplies = [supply('Corvane 850 S', 850), supply('Corvane 850 S Plus', 860), supply('Ostrelle Long 700', 700)];
const read = (line: string) => shortOf(understand(line, [], supplies), line);
const s850 = 'supply Corvane 850 S 850W ATX gold full';

describe('a supply that the shop knows, by its name', () => {
  it.each([
    ['corvane 850 s', s850],
    ['psu: Corvane 850 S', s850],
    ['CORVANE 850 S psu', s850],
    ['tower, 2 fans, corvane 850 s supply', `tower, 2 fan, ${s850}`],
    ['card 8 150 W corvane 850 s', `card-8 150W, ${s850}`],
    ['the supply is a corvane 850 s, 5 years old', `${s850}, supply 5y`],
    ['psu: corvane 850 s, 5 yrs', `${s850}, supply 5y`],
    ['corvane 850 s plus', 'supply Corvane 850 S Plus 860W ATX gold full'],
    ['ostrelle long 700 W supply', 'supply Ostrelle Long 700 700W ATX gold full'],
    ['corvane 850 s psu 850 W', s850],
    ['corvane 850 s psu 650 W', 'ask supply-watts'],
    ['+ corvane 850 s', 'ask supply-comes'],
    ['wants a corvane 850 s', 'ask supply-comes'],
    ['psu 450 W -> corvane 850 s', 'supply 450W, ask supply-comes'],
    ['corvane 850 s -> ostrelle long 700', `${s850}, ask supply-comes`],
    ['xcorvane 850 s', '!xcorvane, !850, !s'],
    ['corvane 850 sx', '!corvane, !850, !sx'],
  ])('%s', (line, expected) => {
    expect(read(line)).toBe(expected);
  });

  it('brings its whole label', () => {
    const job = newJob('LQ-0001', 'Machine', 'Client', 'Words', 'peaks-covered', '2026-01-01T00:00:00.000Z');
    const line = 'tower, corvane 850 s';
    const { acts } = takeIn(understand(line, [], supplies), line, job, [], null, () => 'part');
    expect(acts).toContainEqual({ kind: 'put-supply', supply: supplies[0], basedOn: 0 });
  });

  it('leaves every other letter where it was, whatever is typed', () => {
    const word = fc.oneof(
      fc.constantFrom('corvane 850 s', 'Ostrelle Long 700', 'İ', '\ue000', ','),
      fc.string({ maxLength: 6 }),
    );
    fc.assert(
      fc.property(fc.array(word, { maxLength: 12 }), (words) => {
        const line = words.join(' ');
        const { read: plain, named } = withSupplies(line, supplies);
        expect(plain.length).toBe(line.length);
        const isNamed = (index: number) => named.some(({ from, to }) => index >= from && index < to);
        for (const [index, letter] of plain.split('').entries())
          if (!isNamed(index)) expect([line[index], '\ue000']).toContain(letter === ' ' ? line[index] : letter);
        for (const { from, to, supply: found } of named)
          expect(line.slice(from, to).toLowerCase().startsWith(found.name.toLowerCase())).toBe(true);
      }),
      { numRuns: 500 },
    );
  });
});
