import { expect, it } from 'vitest';
import { aboutMinutes, timeSpanText } from './clock.ts';

it('says estimated minutes no finer than they are known', () => {
  expect([0, 0.42, 9.94, 12, 49.04].map(aboutMinutes)).toEqual(['0.0 min', '0.4 min', '9.9 min', '12 min', '49 min']);
});

it('says a span as people say it', () => {
  expect([0.5, 12.44, 185, 8049].map(timeSpanText)).toEqual(['0.50 s', '12.4 s', '3:05', '2:14:09']);
});
