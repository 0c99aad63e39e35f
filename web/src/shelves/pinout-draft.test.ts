import { describe, expect, it } from 'vitest';
import { pinoutSchema, type Pinout } from '@fairwatt/contract';
import { draftOfPinout, pinoutField, pinoutWords, typedPinout } from './pinout-draft.ts';

const pinout: Pinout = {
  id: 'back-1',
  version: 3,
  name: 'Back of the 650s',
  sockets: [
    { family: 'cpu', pins: ['12', '12', 'G', null] },
    { family: 'drive', pins: ['5', 'G'] },
  ],
  supplies: ['corvane-650-s'],
};
const draft = draftOfPinout(pinout);
const read = (changes: Partial<typeof draft>) => pinoutSchema.safeParse(typedPinout(pinout, { ...draft, ...changes }));

describe('sockets of a kind of supply as they are typed', () => {
  it('come back as they were', () => {
    expect(draft.sockets).toMatchObject({ main: '', cpu: '12 12 G ?', drive: '5 G' });
    expect(read({})).toEqual({ success: true, data: pinout });
  });
  it('are read whatever stands between the pins, in small letters too; an empty line is no socket', () => {
    const sockets = { ...draft.sockets, cpu: ' ', drive: '5, g ,?' };
    expect(read({ sockets }).data?.sockets).toEqual([{ family: 'drive', pins: ['5', 'G', null] }]);
  });
  it('tell a wrong word at the line of its family, with its pin', () => {
    const wrong = { ...draft, sockets: { ...draft.sockets, main: '', cpu: '12 G', drive: '5 volt G' } };
    const { error } = pinoutSchema.safeParse(typedPinout(pinout, wrong));
    const [issue] = error?.issues ?? [];
    const path = issue?.path as (string | number)[];
    expect(pinoutField(path, wrong)).toEqual(['sockets', 'drive', 'pins', 1]);
    expect(pinoutWords(path, 'is none')).toBe('pin 2 is none');
    expect(pinoutField(['name'], wrong)).toEqual(['name']);
    expect(pinoutWords(['name'], 'is missing')).toBe('is missing');
  });
});
