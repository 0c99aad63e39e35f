import { describe, expect, it } from 'vitest';
import { bareReading } from '../job/index.ts';
import { TestBench, uuid } from '../job/fixture.test-help.ts';
import { judgeProbe, nextTouch, walkOf } from '../measure/index.ts';
import { spokenPin, spokenReading, spokenTouch, spokenVerdict } from './index.ts';

const figure = (pin: number, volts: number) => ({ pin, value: { kind: 'figure', figure: volts } as const });

describe('what is said to somebody with both hands busy', () => {
  it('names the pin and what it must show', () => {
    const verdict = judgeProbe('card-8', [], '2.x');
    const touch = nextTouch(verdict)!;
    expect(
      spokenTouch(
        touch,
        verdict.pins.find(({ pin }) => pin === touch.pin)!,
      ),
    ).toBe(`Pin ${touch.pin}, plus 12 volts.`);
  });

  it('says where red stays while grounds are proved', () => {
    const twelves = walkOf('card-8', '2.x').filter(({ signal }) => signal === '12');
    const verdict = judgeProbe(
      'card-8',
      twelves.map(({ pin }) => figure(pin, 12.03)),
      '2.x',
    );
    const touch = nextTouch(verdict)!;
    expect(
      spokenTouch(
        touch,
        verdict.pins.find(({ pin }) => pin === touch.pin)!,
      ),
    ).toMatch(/^Black on pin \d, (ground|a sense wire)\. Red stays on pin \d\.$/);
  });

  it('says of a pin what it carries instead', () => {
    const wrong = judgeProbe(
      'card-8',
      [figure(walkOf('card-8', '2.x').find(({ signal }) => signal === 'G')!.pin, 12.1)],
      '2.x',
    );
    expect(spokenPin(wrong.pins.find(({ finding }) => finding === 'wrong')!)).toMatch(
      /^Pin \d: 12\.10, wrong, it carries plus 12 volts\.$/,
    );
  });

  it('says a reading with its verdict, and minus as a word', () => {
    expect(spokenReading('+12', 'work', 11.32, 'fail')).toBe('plus 12 volts at work, 11.32: fail.');
    expect(spokenReading('-12', 'idle', -11.9, 'cannot-tell')).toBe('minus 12 volts idle, minus 11.90: cannot tell.');
  });

  it('says what the readings of a place came to, a code by its name', () => {
    const bench = new TestBench().read(1, '+12', 'work', 11.3).read(2, '+12', 'work', 11.34);
    expect(bench.view().before.verdicts.map(spokenVerdict)).toEqual(['plus 12 volts at work, 11.32: fail.']);
    const code = { ...bareReading, id: uuid(3), phase: 'before', subject: '+5', condition: 'idle' } as const;
    bench.do({
      kind: 'take-reading',
      reading: { ...code, instrumentId: 'meter', value: { kind: 'code', code: 'too-low' } },
    });
    expect(spokenVerdict(bench.view().before.verdicts.find(({ subject }) => subject === '+5')!)).toBe(
      '+5 V idle: fail.',
    );
  });
});
