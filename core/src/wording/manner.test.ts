import fc from 'fast-check';
import { afterEach, describe, expect, it } from 'vitest';
import { parseFigure } from '../measure/index.ts';
import { percentText, voltsText } from './figures.ts';
import { countText, dayText, figureText, moneyText, plainFigure, writeAs, writtenAs } from './manner.ts';

afterEach(() => writeAs({ locale: 'en-GB' }));
const plain = (text: string) => text.replaceAll(/\s/g, ' ');
const locales = ['en-GB', 'de-DE', 'fr-FR', 'sv-SE', 'de-CH', 'ar-EG', 'hi-IN', 'pt-BR'];

describe('a shop writes', () => {
  it.each([
    ['en-GB', '11.32', '3,600', '€89.90', '56%', '20 Nov 2026'],
    ['de-DE', '11,32', '3.600', '89,90 €', '56 %', '20. Nov. 2026'],
    ['en-US', '11.32', '3,600', '€89.90', '56%', 'Nov 20, 2026'],
    ['fr-FR', '11,32', '3 600', '89,90 €', '56 %', '20 nov. 2026'],
  ])('as in %s', (locale, volts, count, money, percent, day) => {
    writeAs({ locale });
    expect(
      [voltsText(11.32), countText(3600), moneyText(8990, 'EUR'), percentText(0.56), dayText('2026-11-20')].map(plain),
    ).toEqual([volts, count, money, percent, day]);
  });
  it('its digits as they are typed, whatever others its language has', () => {
    for (const locale of locales) {
      writeAs({ locale });
      expect(`${figureText(11.32, 2)} ${countText(5)} ${percentText(0.5)} ${dayText('2026-11-20')}`).toMatch(
        /11.32.*2026/,
      );
    }
  });
  it('a figure so that it is read again as what it is', () => {
    fc.assert(
      fc.property(fc.constantFrom(...locales), fc.integer({ min: -99_999, max: 99_999 }), (locale, thousandths) => {
        const figure = thousandths / 1000;
        const [exact, short] = writtenAs({ locale }, () => [plainFigure(figure), figureText(figure, 3)] as const);
        expect(parseFigure(exact)).toBe(figure);
        expect(parseFigure(short)).toBeCloseTo(figure, 9);
      }),
    );
  });
  it('a figure rounded as it is, not as its language would', () => {
    expect([figureText(1.005, 2), figureText(11.349, 1), figureText(2.5)]).toEqual([
      (1.005).toFixed(2),
      (11.349).toFixed(1),
      (2.5).toFixed(0),
    ]);
  });
  it('days of any year as the calendar has them', () => {
    const date = fc.date({ min: new Date('1970-01-01'), max: new Date('2499-12-31'), noInvalidDate: true });
    const format = new Intl.DateTimeFormat('en-GB', {
      day: 'numeric',
      month: 'short',
      year: 'numeric',
      timeZone: 'UTC',
    });
    fc.assert(
      fc.property(date, (day) => {
        expect(dayText(day.toISOString().slice(0, 10))).toBe(format.format(day));
      }),
    );
  });
  it('for one piece of work, and as before after it, also where that fails', () => {
    expect(writtenAs({ locale: 'de-DE' }, () => figureText(1.5, 1))).toBe('1,5');
    expect(() =>
      writtenAs({ locale: 'de-DE' }, () => {
        throw new Error('no paper');
      }),
    ).toThrow('no paper');
    expect(figureText(1.5, 1)).toBe('1.5');
    expect(() => writeAs({ locale: 'not a tag' })).toThrow(RangeError);
    expect(figureText(1.5, 1)).toBe('1.5');
  });
});
