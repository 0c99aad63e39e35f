import { describe, expect, it } from 'vitest';
import { onTheWay } from './summary.ts';

describe('what is on its way', () => {
  it('counts changes of this job that wait for their answer, and nothing else', () => {
    const request = (status: string, endpointName: string, code?: string) => ({
      status,
      endpointName,
      originalArgs: code === undefined ? undefined : { code },
    });
    const mutations = {
      picture: request('pending', 'addPhoto', 'LQ-0001'),
      another: request('pending', 'removePhoto', 'LQ-0001'),
      elsewhere: request('pending', 'addPhoto', 'LQ-0002'),
      answered: request('fulfilled', 'addPhoto', 'LQ-0001'),
      printed: request('pending', 'printLabels', 'LQ-0001'),
      settings: request('pending', 'changeSettings'),
      gone: undefined,
    };
    expect(onTheWay({ api: { mutations } }, 'LQ-0001')).toBe(2);
    expect(onTheWay({ api: { mutations } }, 'LQ-0003')).toBe(0);
  });
});
