import { afterEach, describe, expect, it } from 'vitest';
import { timeMarks } from '../charts/time-marks.ts';
import {
  aboutMinutes,
  calendarDay,
  clockTime,
  dayAndTime,
  timeSpanText,
  today,
  wallAhead,
  writeAsShop,
} from './clock.ts';

it('says estimated minutes no finer than they are known', () => {
  expect([0, 0.42, 9.94, 12, 49.04].map(aboutMinutes)).toEqual(['0.0 min', '0.4 min', '9.9 min', '12 min', '49 min']);
});

it('says a span as people say it', () => {
  expect([0.5, 12.44, 185, 8049].map(timeSpanText)).toEqual(['0.50 s', '12.4 s', '3:05', '2:14:09']);
});

describe('the clock of a shop', () => {
  afterEach(() => writeAsShop({ locale: 'en-GB', timeZone: '' }));
  const winter = '2026-12-01T23:30:00.000Z';
  const summer = '2026-07-01T10:00:00.000Z';

  it('tells times and days as it shows there, not as this device does', () => {
    writeAsShop({ locale: 'en-GB', timeZone: 'Asia/Tokyo' });
    expect([clockTime(winter), calendarDay(winter), today(Date.parse(winter))]).toEqual([
      '08:30',
      '2 Dec 2026',
      '2026-12-02',
    ]);
    writeAsShop({ locale: 'de-DE', timeZone: 'UTC' });
    expect([clockTime(winter), dayAndTime(winter)]).toEqual(['23:30', '1. Dez. 2026, 23:30']);
  });
  it('is ahead of instants by its zone, by the season', () => {
    writeAsShop({ locale: 'en-GB', timeZone: 'Europe/Berlin' });
    expect([wallAhead(Date.parse(winter)), wallAhead(Date.parse(summer) + 123)]).toEqual([3_600_000, 7_200_000]);
    writeAsShop({ locale: 'en-GB', timeZone: 'Asia/Kolkata' });
    expect(wallAhead(Date.parse(winter))).toBe(5.5 * 3_600_000);
  });
  it('is this device’s own where the browser does not know the zone', () => {
    const own = [clockTime(winter), dayAndTime(summer)];
    writeAsShop({ locale: 'en-GB', timeZone: 'Nowhere/Lantern_Quay' });
    expect([clockTime(winter), dayAndTime(summer)]).toEqual(own);
  });
  it('marks an axis at its own whole hours', () => {
    writeAsShop({ locale: 'en-GB', timeZone: 'Asia/Kolkata' });
    const from = Date.parse(winter);
    expect(timeMarks(from, from + 6 * 3_600_000).map((at) => clockTime(new Date(at).toISOString()).slice(3))).toEqual(
      Array.from({ length: 7 }, () => '00'),
    );
  });
});
