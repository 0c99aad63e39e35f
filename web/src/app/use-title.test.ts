import { describe, expect, it } from 'vitest';
import { titleOf } from './use-title.ts';

describe('the title of an address', () => {
  it('names the page, the job and the station', () => {
    expect(titleOf('/jobs')).toBe('Jobs · Fair Watt');
    expect(titleOf('/jobs/LQ-0142/fault')).toBe('LQ-0142 Find the fault · Fair Watt');
    expect(titleOf('/jobs/LQ-0142')).toBe('LQ-0142 · Fair Watt');
    expect(titleOf('/people')).toBe('People · Fair Watt');
    expect(titleOf('/nowhere')).toBe('Fair Watt');
  });
});
