import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { short, shortOf } from './intake.test-help.ts';
import { plainOf } from './plain.ts';
import { understand } from './understand.ts';

type Lines = readonly (readonly [line: string, expected: string])[];

const wholeMachines: Lines = [
  [
    'Mid tower, 12-core 120 W, four sticks of ram, one gfx card with two 8 pin, ' +
      'couple of ssds and a spinner, 3 rgb fans, 650W bronze non modular',
    'tower, processor-125, 4 memory-new ?kind, card-88 ?watts, 2 drive-flat, drive-35, 3 fan, supply 650W bronze fixed',
  ],
  [
    'ITX build: 8-core 105W, 2x32 DDR5, card 12v-2x6 285W, 1 nvme, 240 aio; SFX 750 gold fully modular psu',
    'small, processor-105, 2 memory-new, card-16-300 285W, drive-card, pump, 2 fan, supply 750W SFX gold full',
  ],
  [
    'gpu: 8+6, 225W. cpu: 95W. ram: 4x8. storage: 1 ssd, 2 hdd. fans: 3. ',
    'card-86 225W, processor-105, 4 memory-new ?kind, drive-flat, 2 drive-35, 3 fan',
  ],
  [
    'case: mid tower; cpu: 8 cores; gpu: none; upgrade: gpu 16pin 320w',
    'tower, processor-105 ?watts, +card-16-450 320W',
  ],
  [
    'full tower w/ 16c/32t cpu @ 170w, 4x32gb ddr5, gpu 16pin 450w, ' +
      '3x nvme, 2x 3.5" hdd, 9x 120mm fans, 420 aio, 1200w platinum psu',
    'tower, processor-170, 4 memory-new, card-16-450 450W, 3 drive-card, 2 drive-35, 9 fan, pump, ' +
      '3 fan, supply 1200W platinum',
  ],
  [
    'tower / 8 core 125W / 32 GB in 4 sticks / card 8+8 pin 300W / 2 TB nvme / 4 TB hdd x2 / 16 GB / 750W gold',
    'tower, processor-125, 4 memory-new ?kind, card-88 300W, drive-card, 2 drive-35, ' +
      '2 memory-new ?kind?count, supply 750W gold',
  ],
  [
    'pc has 2 harddisks, 1 ssd, 1 nvme drive and an optical. planning to swap ' +
      'the gpu (6 pin 75w) for a 12vhpwr 450w one and add two more sticks',
    '2 drive-35, drive-flat, drive-card, optical, gpu>, +card-16-450 450W, +2 memory-new ?kind',
  ],
];

const lists: Lines = [
  [
    '- tower\n- 8-core 125 W\n- 2x16 memory\n- card 2x8 250 W\n- 2 ssds',
    'tower, processor-125, 2 memory-new ?kind, card-88 250W, 2 drive-flat',
  ],
  ['- card\n- optical drive', '-card, -optical drive'],
  ['- card\n- 2 hard drives\n+ ssd', '-card, -2hard drives, +drive-flat'],
  [
    '* Case: midi tower\n* CPU: 8 cores (105W)\n* GPU: one 16-pin, 300 W\n* PSU: 750 W gold, 3 years',
    'tower, processor-105, card-16-300 300W, supply 750W gold, supply 3y',
  ],
  ['1. tower\n2. 8-core 125 W\n3. 2 fans', 'tower, processor-125, 2 fan'],
  ['1) small case 2) 6-core 65 W 3) ssd', 'small, processor-65, drive-flat'],
  [
    'CPU = 12-core 120W | GPU = 3x8 350W | RAM = 4x16 | SSD = 2 | FAN = 6',
    'processor-125, card-888 350W, 4 memory-new ?kind, 2 drive-flat, 6 fan',
  ],
  [
    'machine: tower, 8-core 125 W\nupgrade: card 16-pin 450 W; + 2 fans\npsu: 650 W gold',
    'tower, processor-125, +card-16-450 450W, +2 fan, supply 650W gold',
  ],
  ['upgrade:\ncard 16-pin 300 W\n2 ssds', '+card-16-300 300W, +2 drive-flat'],
  [
    'My pc has a six core 65W processor, a graphics card with one 8-pin plug (about 180 W), ' +
      '16 GB of memory in two sticks, an SSD and two hard drives. ' +
      'I want to put in a card with a 16-pin plug and 300 W.',
    'processor-65, card-8 180W, 2 memory-new ?kind, drive-flat, 2 drive-35, +card-16-300 300W',
  ],
  [
    'Inside are an 8-core processor (105 W) and 3 fans. The supply is a 650 W gold unit, about 5 years old. ' +
      'He plans to replace the card with a 16-pin one (320 W).',
    'processor-105, 3 fan, supply 650W gold, supply 5y, card>, +card-16-450 320W',
  ],
];

const figuresElsewhere: Lines = [
  ['hba, 1000 watt', 'capture, !1000, !watt'],
  ['4 core cpu 35w, 400w', 'processor-35, !400w'],
  ['gpu 8-pin, 750 W', 'card-8 ?watts, !750, !W'],
  ['gpu 2x8, 450 W', 'card-88 450W'],
  ['processor, 750 W', 'processor-105 ?watts, !750, !W'],
  ['hard drive 300 W', 'drive-35, !300, !W'],
  ['video card w/ 2 x 8pin pcie, about 280 watts', 'card-88 280W'],
  ['one gpu, two power connectors 8 and 6', 'card-86 ?watts'],
  ['650 watt gold psu, semi modular', 'supply 650W gold semi'],
  ['psu: 650 W, ATX, gold, fully modular, 4 y', 'supply 650W ATX gold full, supply 4y'],
  ['the supply is 500 W, 7 years old', 'supply 500W, supply 7y'],
  ['psu: 550 W, bronze, 8 yrs. She wants to add 2 more hdds', 'supply 550W bronze, supply 8y, +2 drive-35'],
  ['machine is 6 years old, psu 3 years', 'machine 6y, supply 3y'],
  ['300W tfx psu about nine yrs old', 'supply 300W TFX, supply 9y'],
  ['psu 750, supply: 650', 'supply 750W, supply 650W'],
  ['2 fans SFX 600 psu', '2 fan, supply 600W SFX'],
];

const howMany: Lines = [
  ['16gb ram (2 sticks)', '2 memory-new ?kind'],
  ['16gb ram, 2 sticks', '2 memory-new ?kind'],
  ['2x16 GB memory (2 sticks)', '2 memory-new ?kind'],
  ['2x16gb + 2x8gb', '2 memory-new ?kind, 2 memory-new ?kind'],
  ['64GB (2x32)', '2 memory-new ?kind'],
  ['96gb ram in 2 modules', '2 memory-new ?kind'],
  ['2*8 GB ddr4, 2* hdd', '2 memory-old, 2 drive-35'],
  ['hard drives: three', '3 drive-35'],
  ['SSD: 2, HDD: 1', '2 drive-flat, drive-35'],
  ['drives: 2 ssd + 1 hdd', '2 drive-flat, drive-35'],
  ['fans: 3 case fans', '3 fan'],
  ['fans 5', '5 fan'],
  ['cpu + aio 240 + 3 fans', 'processor-105 ?watts, pump, 2 fan, 3 fan'],
  ['2x16 + 3 fans, board 24 + 8', '3 fan, board, !2x16'],
  ['case fans: two in front, one at the back', '2 fan, fan'],
  ['fans: front 2, back 1', '2 fan, fan'],
  ['dual cpu board, 2x 12-core 150w', 'board ?plugs, 2 processor-170'],
  ['2.5 gbe card', 'network'],
  ['fans: 2x140 front, 1x120 rear', '2 fan, fan'],
  ['2 x 3-pin fans, 1 x 4 pin pwm fan', '2 fan, fan'],
  ['SSD 2.5" 500GB, HDD 3.5" 2TB x2', 'drive-flat, 2 drive-35'],
  ['aio: 360, cooling: air', 'pump, 3 fan, fan'],
  ['3 intake and 1 exhaust fans', '3 fan, fan'],
  ['3 front, 2 top and 1 rear fan', '3 fan, 2 fan, fan'],
  ['triple fan aio 360', 'pump, 3 fan'],
  ['aio with three fans', 'pump, 3 fan'],
  ['cpu cooler (single fan)', 'fan'],
  ['custom loop with pump and 6 fans', 'pump, 6 fan'],
  ['argb gpu 3 fans 16pin 300w', 'card-16-300 300W, !argb'],
  ['1x card reader, 1x psu 550 W, 1x mid tower', 'front-panel, supply 550W, tower'],
  ['quad gpu 2x8 each 300W', '4 card-88 300W'],
  ['a second new graphics card 8-pin', 'card-8 ?watts'],
  ['add another two case fans and one more nvme', '+2 fan, +drive-card'],
  ['more fans (3)', '+3 fan'],
  ['add 2 more of the same fans', '+2 like fans'],
  ['second identical card', '1 like card'],
  ['2 more sticks of the same memory', '+2 like sticks of memory'],
];

const otherNames: Lines = [
  ['tidemark-like six core, vga 6+2', 'processor-65 ?watts, card-8 ?watts, !tidemark-like'],
  ['graphics: dual 8 pin, 300 W', 'card-88 300W'],
  ['gpu: eight pin and six pin', 'card-86 ?watts'],
  ['gpu 2 x 8p, board 24p + 8p', 'card-88 ?watts, board'],
  ['board with 1x 24 and 2x 8 pin', 'board-88'],
  ['main board with two cpu plugs', 'board ?plugs, !two'],
  ['board, 8pin cpu', 'board'],
  ['4-port usb 3 card with drive plug', 'network, !4-port, !drive, !plug'],
  ['external usb drive, usb hdd', 'usb, usb'],
  ['wifi and bluetooth card, raid controller', 'network, capture'],
  ['proprietary board', 'board-own'],
  ['no-name psu 420 W', 'supply 420W'],
  ['card with no power plug', 'card-slot'],
];

const notThere: Lines = [
  ['6-core cpu 65w, no dedicated gpu', 'processor-65'],
  ['8-core 65 W, onboard graphics', 'processor-65'],
  ['8-core 65 W, integrated gpu only', 'processor-65'],
  ['optical drive: none', ''],
  ['does not have an optical drive', ''],
  ["doesn't have a card, 2 fans", '2 fan'],
  ["don't remove the card", "!don't, !remove, !the, !card"],
  ['will not keep the drives', '!will, !not, !keep, !the, !drives'],
  ['remove everything but the ssd', '!remove, !everything, !but, !the, !ssd'],
  ['nothing planned', ''],
  ['planned: none', ''],
  ['keep the cpu', ''],
  ['the cpu stays, the card goes', '-card'],
  ['keep the 8-core 125 W', 'processor-125'],
];

const comesAndGoes: Lines = [
  ['get rid of dvd drive', '-dvd drive'],
  ['take the optical drive out and put in 2 ssds', '-optical drive, +2 drive-flat'],
  ['two of the three hard drives go', '-2hard drives'],
  ['remove both hdds, add one 4tb ssd', '-2hdds, +drive-flat'],
  ['all fans go', '-fans'],
  ['he wants to go from the 8-pin card to a 16-pin one', 'card>, +card-16 ?watts'],
  ['upgrade cpu 65 -> 170w and put in a bigger card (3x8pin, 350w)', 'cpu>, +processor-170, +card-888 350W'],
  ['cpu 65 -> 170 W and 2 ssds', 'cpu>, +processor-170, +2 drive-flat'],
  ['cpu 65w to 170w and gpu to 16 pin 450w', 'cpu>, +processor-170, gpu>, +card-16-450 450W'],
  ['existing gpu moves out, new one has a single 16 pin at 300 watts', '-gpu, +card-16-300 300W'],
  ['a new gpu: 16-pin 320W, replaces the old 8-pin', '+card-16-450 320W, gpu>'],
  ['swap in a 170w cpu', 'processor>?, +processor-170'],
  ['he needs a bigger gpu, 16-pin 320W', '+card-16-450 320W'],
  ['client wants to swap the card for a 300w 16-pin', 'card>, +card-16-300 300W'],
  ['memory 2x16 to 4x16', '2memory>, +4 memory-new ?kind'],
  ['wants 2x32 ddr5 instead of 2x8', '+2 memory-new, 2memory>'],
  ['maybe a second nvme later', '+drive-card'],
  ['she wants to add', '!she, !wants, !to, !add'],
  ['new gpu 16-pin 320 W', 'ask new-or-there'],
  ['new psu 850W', 'ask new-or-there'],
];

const supplyThatComes: Lines = [
  ['+ psu 850 W gold', 'ask supply-comes'],
  ['wants a bigger psu', 'ask supply-comes'],
  ['psu 550W -> 850W', 'supply 550W, ask supply-comes'],
  ['replace 450 W psu', 'supply 450W'],
  ['replace the psu', 'ask supply-comes'],
  ['replace gpu with 16pin 450w and psu with 1000w', 'gpu>, +card-16-450 450W, ask supply-comes'],
];

describe.each([
  ['a whole machine', wholeMachines],
  ['a list', lists],
  ['a figure that may be of something else', figuresElsewhere],
  ['a number of things', howMany],
  ['a thing by another name', otherNames],
  ['what is not there, or stays', notThere],
  ['what comes and goes', comesAndGoes],
  ['a supply is chosen elsewhere', supplyThatComes],
])('%s', (_, lines) => {
  it.each(lines)('%s', (line, expected) => {
    expect(shortOf(understand(line), line)).toBe(expected);
  });
});

it.each([
  ['no gpu, 2 fans', ['(absent)', '2 fan']],
  ['optical drive: none', ['(absent)']],
  ['keep the cpu', ['(kept)']],
])('%s is told as understood', (line, expected) => {
  expect(understand(line).said.map(short)).toEqual(expected);
});

describe('a line without what only stands around its words', () => {
  it('keeps the place of every letter that stays', () => {
    const words = [
      'eight pin',
      '(2x16)',
      'fans.',
      'w/',
      'w/o',
      '2 of the 3',
      'no-name',
      '8p',
      'igpu',
      '2*8',
      'approx. 5',
    ];
    const line = fc.array(fc.oneof(fc.constantFrom(...words), fc.string({ maxLength: 5 })), { maxLength: 20 });
    fc.assert(
      fc.property(line, (pieces) => {
        const text = pieces.join(' ');
        const plain = plainOf(text);
        expect(plain.length).toBe(text.length);
        for (const [index, letter] of plain.split('').entries())
          if (/[a-wyz]/i.test(letter) && /[a-z]/i.test(text[index] ?? '')) expect(letter).toBe(text[index]);
      }),
      { numRuns: 500 },
    );
  });
});

describe('what the upgrade leaves', () => {
  it('is in the machine once, whatever is kept beside it', () => {
    const kinds = ['card 8 150 W', '8-core 125 W', 'ssd', '2 hard drives', '3 fans'];
    const names = ['card', 'cpu', 'ssd', 'hard drives', 'fans'];
    fc.assert(
      fc.property(
        fc.subarray(kinds),
        fc.constantFrom(...names),
        fc.constantFrom('keep the', 'leave the'),
        (some, name, keep) => {
          const made = (line: string) => understand(line).said.filter(({ kind }) => kind !== 'aside').length;
          const plain = made(some.join(', '));
          expect(made([...some, `${keep} ${name}`].join(', '))).toBe(plain);
          expect(made([...some, `the ${name} stay`].join(', '))).toBe(plain);
        },
      ),
    );
  });
});
