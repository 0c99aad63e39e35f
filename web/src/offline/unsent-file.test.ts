import { describe, expect, it } from 'vitest';
import { edit, FakeTab } from './offline.test-help.ts';
import { thisTab, type RequestParcel } from './parcel.ts';
import { readUnsentFile, unsentFile } from './unsent-file.ts';

const picture: RequestParcel = {
  kind: 'request',
  id: '00000000-0000-4000-8000-00000000ffff',
  code: 'LQ-0001',
  by: 'mara',
  at: '2026-01-01T00:00:00.000Z',
  tab: thisTab,
  order: 7,
  state: 'waiting',
  refused: null,
  failures: 0,
  title: 'A picture',
  method: 'POST',
  path: '/jobs/LQ-0001/photos',
  body: new Blob([new Uint8Array([0, 1, 254, 255])], { type: 'image/jpeg' }),
  contentType: 'image/jpeg',
  tags: ['photos'],
};

describe('what is unsent as a file', () => {
  it('comes back as it was, pictures byte by byte, ready to be sent', async () => {
    const acts = new FakeTab().do(edit({ words: 'Typed, with “quotes” and µ' })).acts;
    const back = readUnsentFile(await (await unsentFile([...acts, picture])).text());
    expect(back).toHaveLength(2);
    expect(back[0]).toEqual({ ...acts[0], state: 'waiting' });
    const body = (back[1] as RequestParcel).body as Blob;
    expect([body.type, ...new Uint8Array(await body.arrayBuffer())]).toEqual(['image/jpeg', 0, 1, 254, 255]);
    expect(back[1]).toMatchObject({ id: picture.id, path: picture.path, state: 'waiting' });
  });
  it('is refused in words when it is something else, or cut off', async () => {
    const whole = await (await unsentFile([picture])).text();
    for (const text of ['', 'no JSON', '{}', '[]', whole.slice(0, -20), '{"format":"fairwatt-unsent","version":2}'])
      expect(() => readUnsentFile(text), text.slice(0, 30)).toThrow(/no file of unsent changes/);
  });
});
