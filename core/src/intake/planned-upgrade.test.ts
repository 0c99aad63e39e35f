import { describe, expect, it } from 'vitest';
import type { Job } from '../job/index.ts';
import { understand } from './understand.ts';
import { upgradeInWords, upgradeLine } from './planned-upgrade.ts';
import { machinePart } from '../machine/machine-part.test-help.ts';

type Asked = Parameters<typeof upgradeInWords>[0];
const jobWith = (upgrade: string, parts: readonly [string, Job['parts'][number]['change']][], bareSupply = false) =>
  ({
    sheet: { upgrade, bareSupply },
    parts: parts.map(([classId, change], index) => ({ ...machinePart(classId, `p${index}`), change, version: 1 })),
  }) as unknown as Asked;
const machine: readonly [string, 'stays'][] = [
  ['board', 'stays'],
  ['processor-125', 'stays'],
  ['card-88', 'stays'],
];

describe('an upgrade that stands in words alone', () => {
  it('is told, in those words, whatever they are', () => {
    for (const words of ['New card 3x8 320 W', 'two more hard drives', 'something for films', 'a card of a model'])
      expect(upgradeInWords(jobWith(` ${words} `, machine))).toBe(words);
  });
  it('is none where nothing is planned, or nothing was said', () => {
    for (const words of ['', '  ', 'none', 'None.', 'No', '-', 'nothing', 'n/a', 'no upgrade', 'not yet', 'later', '?'])
      expect([words, upgradeInWords(jobWith(words, machine))]).toEqual([words, null]);
    expect(upgradeInWords(jobWith('no idea yet, maybe a card', machine))).not.toBeNull();
  });
  it('is none once a part comes or goes, whichever', () => {
    for (const change of ['added', 'replaced', 'removed'] as const)
      expect(upgradeInWords(jobWith('New card 3x8 320 W', [...machine, ['drive-35', change]]))).toBeNull();
  });
  it('is none where what it names is in the machine already, and is where a part of it is not', () => {
    expect(upgradeInWords(jobWith('Card with two 8-pin inlets, already in the slot.', machine))).toBeNull();
    expect(upgradeInWords(jobWith('Card with two 8-pin inlets and 2 ssds', machine))).not.toBeNull();
    expect(upgradeInWords(jobWith('Card with three 8-pin inlets', machine))).not.toBeNull();
  });
  it('is not asked of a machine without parts, or a supply by itself', () => {
    expect(upgradeInWords(jobWith('New card', []))).toBeNull();
    expect(upgradeInWords(jobWith('New card', machine, true))).toBeNull();
  });
});

describe('the line of a planned upgrade', () => {
  const read = (words: string) => {
    const line = upgradeLine(words);
    const { said, unknown } = understand(line, []);
    return {
      brings: said.flatMap((one) => (one.kind === 'part' ? [`${one.quantity} ${one.classId} ${one.change}`] : [])),
      takes: said.flatMap((one) => (one.kind === 'leaving' ? [one.noun] : [])),
      rest: unknown.map(({ from, to }) => line.slice(from, to)),
    };
  };
  it('brings what it names, and leaves no word of everyday behind', () => {
    expect(read('New card 3x8 320 W')).toEqual({ brings: ['1 card-888 added'], takes: ['card'], rest: [] });
    expect(read('a bigger graphics card with a 16-pin plug, 450 W').rest).toEqual([]);
    expect(read('32 GB more memory and a second ssd')).toMatchObject({ takes: [], rest: [] });
    expect(read('two more hard drives')).toEqual({ brings: ['2 drive-35 added'], takes: [], rest: [] });
  });
});
