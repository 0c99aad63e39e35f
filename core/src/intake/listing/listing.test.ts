import { readFileSync, readdirSync } from 'node:fs';
import fc from 'fast-check';
import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';
import { applyAct, newJob } from '../../job/index.ts';
import { partClass } from '../../machine/index.ts';
import { boardSensorId } from '../../measure/index.ts';
import { mostNameLetters, plainName } from './plain.ts';
import {
  isThereAlready,
  mostListingLetters,
  partsListed,
  readListings,
  takeListed,
  type ListedPart,
  type ListingText,
} from './index.ts';

const emptyJob = newJob('LQ-0001', 'Machine', 'Client', 'Words', 'peaks-covered', '2026-01-01T00:00:00.000Z');
const readCsv = (text: string) => Papa.parse<string[]>(text, { skipEmptyLines: true }).data;
const folder = new URL('../../../../demo/listings/', import.meta.url);
const decoded = (bytes: Buffer) => new TextDecoder(bytes[0] === 0xff ? 'utf-16le' : 'utf-8').decode(bytes);
const listing = (path: string): ListingText => ({
  name: path.split('/').at(-1) ?? '',
  text: decoded(readFileSync(new URL(path, folder))),
});
const all = (name: string) => readdirSync(new URL(`${name}/`, folder)).map((file) => listing(`${name}/${file}`));
const read = (...texts: readonly ListingText[]) => readListings(texts, readCsv);
const text = (content: unknown, name = 'pasted'): ListingText => ({
  name,
  text: typeof content === 'string' ? content : JSON.stringify(content),
});
/** `2 × memory-new Memory 16 GB DDR5 (doubts)`, a line for each part. */
const lines = (parts: readonly ListedPart[]) =>
  parts.map(
    ({ quantity, classId, name, doubts }) =>
      `${quantity} × ${classId ?? '?'} ${name}${doubts.length > 0 ? ` (${doubts.join(', ')})` : ''}`,
  );

describe('the listings of a tower', () => {
  const found = read(...all('tower'));
  const parts = partsListed(found.machine);

  it('are each known by their own marks', () => {
    expect(found.refused).toEqual([]);
    expect(found.read.map(({ name, kind }) => [name, kind])).toEqual([
      ['dmidecode.txt', 'dmidecode'],
      ['lsblk.json', 'lsblk'],
      ['lshw.json', 'lshw'],
      ['lspci.txt', 'lspci'],
      ['sensors.json', 'sensors'],
      ['smartctl-nvme0.json', 'smartctl'],
      ['smartctl-sda.json', 'smartctl'],
    ]);
  });
  it('name each part once, with what follows from them and what does not', () => {
    expect(lines(parts)).toEqual([
      '1 × board Reach B2 (plugs)',
      '1 × processor-105 Wherry C8 8-Core Processor (watts)',
      '2 × memory-new Memory 16 GB DDR5',
      '1 × ? G3',
      '1 × capture Two-channel frame taker',
      '1 × drive-card Lugger NV1 1TB',
      '1 × drive-35 Saltmarsh 4T',
      '1 × drive-flat Saltmarsh S5',
      '1 × optical Sluice D24',
    ]);
  });
  it('say of each part who named it', () => {
    const from = Object.fromEntries(parts.map((part) => [part.name, part.from]));
    expect(from['Saltmarsh 4T']).toEqual(['smartctl', 'lsblk', 'lshw']);
    expect(from['Sluice D24']).toEqual(['lsblk', 'lshw']);
    expect(from['G3']).toEqual(['lspci', 'lshw', 'sensors']);
    expect(from['Memory 16 GB DDR5']).toEqual(['dmidecode', 'lshw']);
  });
  it("ask for the card's plugs among cards, and know its own limit", () => {
    const card = parts.find(({ name }) => name === 'G3');
    expect([card?.classId, card?.watts]).toEqual([null, 320]);
    expect(card?.classIds).toContain('card-888');
    expect(card?.classIds.every((id) => partClass(id)?.group === 'card')).toBe(true);
  });
  it('know case, hours, losses of power and the voltages that have a rail in their name', () => {
    expect(found.machine.layout).toBe('tower');
    expect(found.machine.drives.map(({ item }) => [item.name, item.hours, item.starts, item.powerLosses])).toEqual([
      ['Lugger NV1 1TB', 9120, 1650, 143],
      ['Saltmarsh 4T', 21440, 1790, 161],
      ['Saltmarsh S5', null, null, null],
      ['Sluice D24', null, null, null],
    ]);
    expect(found.machine.volts).toEqual([
      { rail: '+12', volts: 11.616 },
      { rail: '+5', volts: 5.08 },
      { rail: '+3.3', volts: 3.312 },
    ]);
  });
  it('say the same in any order, one by one or collected in one file', () => {
    fc.assert(
      fc.property(fc.shuffledSubarray(all('tower'), { minLength: 7 }), (texts) => {
        const again = partsListed(read(...texts).machine);
        expect(new Set(lines(again))).toEqual(new Set(lines(parts)));
      }),
      { seed: 3, numRuns: 20 },
    );
    const collected = all('tower').map((one) => `=== fairwatt-listing: ${one.name}\n${one.text}`);
    const file = text([...collected, '=== fairwatt-listing: end\n'].join('\n'), 'reading-room.txt');
    expect(lines(partsListed(read(file).machine))).toEqual(lines(parts));
    expect(read(file).read[0]?.name).toBe('reading-room.txt: dmidecode.txt');
  });
  it('are enough one at a time, each for what it tells', () => {
    expect(lines(partsListed(read(listing('tower/lspci.txt')).machine))).toEqual([
      '1 × ? G3',
      '1 × capture Two-channel frame taker',
    ]);
    expect(lines(partsListed(read(listing('tower/lshw.json')).machine))).toEqual([
      '1 × board Reach B2 (plugs)',
      '1 × processor-105 Wherry C8 8-Core Processor (watts)',
      '2 × memory-new Memory 16 GB DDR5',
      '1 × ? Halyard G3',
      '1 × drive-card Lugger NV1 1TB',
      '1 × drive-35 Saltmarsh 4T (kind)',
      '1 × drive-35 Saltmarsh S5 (kind)',
      '1 × optical Sluice D24',
    ]);
  });
});

it("Windows' own tables name a machine, as either of its commands writes them", () => {
  const found = read(...all('ferry-office'));
  expect(found.refused).toEqual([]);
  expect(lines(partsListed(found.machine))).toEqual([
    '1 × board Slimline Q1 (plugs)',
    '1 × processor-65 Wherry C4 (watts)',
    '2 × memory-old Memory 8 GB DDR4',
    '1 × ? Wherry built-in graphics',
    '1 × drive-flat Saltmarsh S2',
  ]);
});

describe('what listings say of a part', () => {
  it.each([
    [35, 'processor-35'],
    [65, 'processor-65'],
    [125, 'processor-125'],
    [126, 'processor-170'],
    [400, 'processor-350'],
  ])('a processor that keeps to %d W is of class %s', (watts, classId) => {
    const found = read(listing('tower/dmidecode.txt'), text(`package-0 long_term ${watts * 1e6}`));
    const processor = partsListed(found.machine).find(({ id }) => id === 'processor-0');
    expect([processor?.classId, processor?.watts, processor?.doubts]).toEqual([classId, watts, []]);
  });
  it('no limit at all is no figure', () => {
    const found = read(listing('tower/dmidecode.txt'), text('package-0 long_term 4095000000'));
    expect(found.machine.processorWatts).toBeNull();
  });
  it('a card that keeps to the 75 W of its slot has no plugs', () => {
    const sensors = { 'halyard-pci-0100': { Adapter: 'PCI adapter', PPT: { power1_cap: 66 } } };
    const found = read(listing('tower/lspci.txt'), text(sensors));
    expect(lines(partsListed(found.machine))[0]).toBe('1 × card-slot G3');
  });
  it('two processors ask for a board with a second inlet; listings that count differently are told', () => {
    const cpu = { class: 'processor', product: 'Wherry C8', configuration: { cores: '8' } };
    const tree = {
      id: 'rack',
      class: 'system',
      children: [{ id: 'core', class: 'bus', product: 'Twin', children: [] }],
    };
    const two = {
      ...tree,
      children: [
        {
          ...tree.children[0],
          children: [
            { ...cpu, id: 'cpu:0' },
            { ...cpu, id: 'cpu:1' },
          ],
        },
      ],
    };
    expect(lines(partsListed(read(text(two)).machine)).slice(0, 2)).toEqual([
      '1 × board-88 Twin (plugs)',
      '1 × processor-105 Wherry C8 (watts)',
    ]);
    const differing = partsListed(read(text(two), listing('tower/dmidecode.txt')).machine);
    expect(differing.find(({ id }) => id === 'processor-0')?.doubts).toContain('count');
  });
  it('drives of one serial are one, also where another listing knows it only by its device', () => {
    const lsblk = (name: string, serial: string | null) => ({
      blockdevices: [{ name, type: 'disk', tran: 'sata', rota: true, model: 'Saltmarsh', serial }],
    });
    expect(read(text(lsblk('sda', 'A0001')), text(lsblk('sda', null))).machine.drives).toHaveLength(1);
    expect(read(text(lsblk('sda', 'A0001')), text(lsblk('sdb', 'A-0001'))).machine.drives).toHaveLength(1);
    // After another start the names may have changed places.
    expect(read(text(lsblk('sda', 'A0001')), text(lsblk('sda', 'B0002'))).machine.drives).toHaveLength(2);
    const removed = lsblk('sda', '[REMOVED]').blockdevices.concat(lsblk('sdb', '[REMOVED]').blockdevices);
    expect(read(text({ blockdevices: removed })).machine.drives).toHaveLength(2);
  });
  it('a portable machine is told; so is a supply that the firmware knows', () => {
    const table = (lines: string) => text(`# dmidecode 3.4\nHandle 0x0001, DMI type 3, 22 bytes\n${lines}`);
    expect(read(table('Chassis Information\n\tType: Notebook')).machine.portable).toBe(true);
    const supply = table(
      'Chassis Information\n\tType: Pizza Box\n\nHandle 0x0027, DMI type 39, 22 bytes\n\tMax Power Capacity: 300 W',
    );
    expect([read(supply).machine.layout, read(supply).machine.supplyWatts]).toEqual(['slim', 300]);
  });
  it('a sensor without a rail in its name, or far from it, is nobody’s', () => {
    const sensors = { chip: { Adapter: 'ISA adapter', in7: { in7_input: 12.1 }, '+12V': { in2_input: 3.1 } } };
    expect(read(text(sensors)).machine.volts).toEqual([]);
  });
});

describe('what is no listing', () => {
  const broken = listing('tower/lshw.json').text;
  it.each([
    ['empty', '  \n'],
    ['foreign', 'Dear bench, the machine is a tower with a card.'],
    ['foreign', '{"hello": [1, 2, 3]}'],
    ['foreign', '[]'],
    ['foreign', 'name,price\nfan,3'],
    ['cut-off', broken.slice(0, broken.length >> 1)],
    ['broken', broken.replace('"class"', 'class')],
    ['cut-off', '['.repeat(200_000)],
    ['cut-off', listing('tower/dmidecode.txt').text.split('Handle 0x0060')[0] ?? ''],
    ['cut-off', listing('tower/lspci.txt').text.slice(0, -40)],
    ['cut-off', '=== fairwatt-listing: lshw\n{"id": "a", "class": "system"}\n'],
    ['cut-off', listing('ferry-office/memory.csv').text.slice(0, -30)],
    ['broken', '# dmidecode 3.4\n/dev/mem: Permission denied'],
    ['too-large', 'x'.repeat(mostListingLetters + 1)],
  ])('is told: %s', (problem, content) => {
    const found = read(text(content), listing('tower/lsblk.json'));
    expect(found.refused).toEqual([{ name: 'pasted', problem }]);
    // What stands beside it is taken as if it were not there.
    expect(found.machine).toEqual(read(listing('tower/lsblk.json')).machine);
  });
  it('more parts than any machine has are too many, and are said to be so at once', () => {
    const drive = (index: number) => ({
      name: 'sda',
      type: 'disk',
      tran: 'sata',
      rota: true,
      serial: `S${1000 + index}`,
    });
    const found = read(text({ blockdevices: Array.from({ length: 60_000 }, (_, index) => drive(index)) }));
    expect(found.refused).toEqual([{ name: 'pasted', problem: 'too-large' }]);
  });
  it('a deep tree is walked without harm', () => {
    const inner = '{"id":"cpu","class":"processor","product":"Deep"}';
    const tree = `${'{"id":"bridge","class":"bridge","children":['.repeat(3000)}${inner}${']}'.repeat(3000)}`;
    expect(read(text(tree)).machine.processors.item[0]?.name).toBe('Deep');
  });
  it('hostile names come as plain text of at most a name’s length, or not at all', () => {
    const name = `\u202e<script>\u0000alert(1)</script>\ud800 ${'x'.repeat(500)}`;
    const found = read(text({ blockdevices: [{ name: 'sda', type: 'disk', tran: 'sata', rota: true, model: name }] }));
    const [part] = partsListed(found.machine);
    expect(part?.name.startsWith('<script> alert(1)</script> xxx')).toBe(true);
    expect(part?.name).toHaveLength(mostNameLetters);
  });
  it('any text and any data: nothing is thrown, and names stay plain', () => {
    const fields = fc.constantFrom(
      ...[
        'id',
        'class',
        'children',
        'blockdevices',
        'device',
        'smartctl',
        'model_name',
        'name',
        'type',
        'size',
        'rota',
      ],
      ...['product', 'businfo', 'logicalname', 'configuration', 'cores', 'Adapter', '+12V', 'in2_input', 'power1_cap'],
    );
    const words = fc.constantFrom('processor', 'disk', 'display', 'bank:0', 'pci@0000:01:00.0', '/dev/sda', 'memory');
    const { data } = fc.letrec((tie) => ({
      data: fc.oneof(
        { maxDepth: 5 },
        words,
        fc.string({ unit: 'binary' }),
        fc.double(),
        fc.constantFrom(null, true, 1e300, -1),
        fc.array(tie('data'), { maxLength: 4 }),
        fc.dictionary(fields, tie('data'), { maxKeys: 5 }),
      ),
    }));
    const whole = all('tower').concat(all('ferry-office'));
    const spoiled = fc
      .tuple(fc.constantFrom(...whole), fc.nat(), fc.string({ unit: 'binary', maxLength: 8 }))
      .map(([{ text: content }, at, insert]) => {
        const place = at % (content.length + 1);
        return content.slice(0, place) + insert + content.slice(place + (at % 7));
      });
    fc.assert(
      fc.property(
        fc.array(
          fc.oneof(
            data.map((one) => JSON.stringify(one) ?? ''),
            spoiled,
          ),
          { maxLength: 3 },
        ),
        (texts) => {
          const found = read(...texts.map((content) => text(content)));
          for (const part of partsListed(found.machine)) {
            expect(plainName(part.name)).toBe(part.name);
            expect(part.name).not.toBe('');
            expect(part.quantity).toBeGreaterThan(0);
            for (const id of [...part.classIds, part.classId ?? 'board']) expect(partClass(id)).toBeDefined();
          }
        },
      ),
      { seed: 11, numRuns: 1500 },
    );
  });
});

describe('taking in what was picked', () => {
  const { machine } = read(...all('tower'), text('package-0 long_term 88000000'));
  const parts = partsListed(machine);
  const picked = parts.map((part) => ({ part, classId: part.classId ?? 'card-888' }));
  let count = 0;
  let readings = 0;
  const newReadingId = () => `00000000-0000-4000-8000-${String((readings += 1)).padStart(12, '0')}`;
  const acts = takeListed(picked, { ...machine, volts: [] }, emptyJob, () => `p${++count}`, newReadingId);
  const taken = acts.flatMap((act) => (act.kind === 'put-part' ? [act.part] : []));

  it('makes a part of each, with the inlets of its class and its own limit, by the maker’s sheet', () => {
    expect(taken.map(({ name }) => name)).toEqual(parts.map(({ name }) => name));
    const card = taken.find(({ name }) => name === 'G3');
    expect(card?.inlets.map(({ kind }) => kind)).toEqual(['card-8', 'card-8', 'card-8']);
    expect([card?.figures.likelyWatts, card?.figures.source]).toEqual([320, 'manual']);
    const processor = taken.find(({ classId }) => classId.startsWith('processor'));
    expect([processor?.classId, processor?.figures.likelyWatts]).toEqual(['processor-105', 88]);
    expect(taken.find(({ name }) => name === 'Saltmarsh S5')?.figures.source).toBe('class');
  });
  it('leaves alone what nobody said: no supply, no case that is so already', () => {
    expect(acts.every(({ kind }) => kind === 'put-part')).toBe(true);
    const slim = { ...machine, volts: [], layout: 'slim' as const, supplyWatts: 250 };
    const more = takeListed([], slim, emptyJob, () => 'p', newReadingId);
    expect(more.map(({ kind }) => kind)).toEqual(['edit-sheet', 'put-supply']);
  });
  it('keeps what the board’s own sensor told as readings of that sensor, each rail once', () => {
    expect(machine.volts.length).toBeGreaterThan(1);
    const sensed = takeListed([], machine, emptyJob, () => 'p', newReadingId);
    expect(sensed.map((act) => (act.kind === 'take-reading' ? [act.reading.subject, act.reading.value] : []))).toEqual(
      machine.volts.map(({ rail, volts }) => [rail, { kind: 'figure', figure: volts }]),
    );
    const context = {
      ...{ by: 'mara', at: '2026-01-01T00:00:00.000Z', unansweredPoints: () => 0 },
      knows: { instrument: () => true, supply: () => true, fault: () => true, outcome: () => true },
    };
    const once = sensed.reduce((now, act) => {
      const result = applyAct(now, act, context);
      return result.ok ? result.job : now;
    }, emptyJob);
    expect(once.readings.every(({ instrumentId }) => instrumentId === boardSensorId)).toBe(true);
    expect(takeListed([], machine, once, () => 'p', newReadingId)).toEqual([]);
  });
  it('is let into a job, part by part', () => {
    const context = {
      by: 'mara',
      at: '2026-01-01T00:00:00.000Z',
      knows: { instrument: () => true, supply: () => true, fault: () => true, outcome: () => true },
      unansweredPoints: () => 0,
    };
    const job = acts.reduce((now, act) => {
      const result = applyAct(now, act, context);
      if (!result.ok) throw new Error(JSON.stringify(result.refusal));
      return result.job;
    }, emptyJob);
    expect(job.parts).toHaveLength(parts.length);
  });
  it('knows what is there already', () => {
    const job = { ...emptyJob, parts: taken.slice(0, 1).map((part) => ({ ...part, version: 1 })) };
    expect(parts.filter((part) => isThereAlready(part, job)).map(({ id }) => id)).toEqual(['board']);
  });
});
