import { afterEach, describe, expect, it, vi } from 'vitest';
import { dayText } from './manner.ts';

afterEach(() => {
  vi.unstubAllEnvs();
});

describe('a day', () => {
  it.each(['Etc/GMT+11', 'Etc/GMT', 'Etc/GMT-14'])('is the same one in %s', (zone) => {
    vi.stubEnv('TZ', zone);
    expect(['2026-12-01', '2027-01-01', '2028-02-29'].map(dayText)).toEqual([
      '1 Dec 2026',
      '1 Jan 2027',
      '29 Feb 2028',
    ]);
  });
});
