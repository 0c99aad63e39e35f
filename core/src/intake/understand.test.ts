import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { shortOf } from './intake.test-help.ts';
import { machineTemplates } from './templates.ts';
import { mostLetters, understand } from './understand.ts';

/** Lines as people write them, with what they are understood as. */
const lines: readonly (readonly [string, string])[] = [
  [
    'tower, 8-core 125 W, 2x16 new memory, card 3x8 320 W, 2 m.2, 4 hard drives, aio 2 fans, 6 case fans',
    'tower, processor-125, 2 memory-new, card-888 320W, 2 drive-card, 4 drive-35, pump, 2 fan, 6 fan',
  ],
  [
    '6 case fans, aio 2 fans, 4 hard drives, 2 m.2, card 3x8 320 W, 2x16 new memory, 8-core 125 W, tower',
    '6 fan, pump, 2 fan, 4 drive-35, 2 drive-card, card-888 320W, 2 memory-new, processor-125, tower',
  ],
  ['TOWER; 8-CORE 125W; 2X16 NEW MEMORY', 'tower, processor-125, 2 memory-new'],
  [
    'tower 8-core 125 W 2x16 new memory card 3x8 320 W 2 m.2 4 hard drives 6 case fans',
    'tower, processor-125, 2 memory-new, card-888 320W, 2 drive-card, 4 drive-35, 6 fan',
  ],
  [
    'tower board 24+8 6-core 65 W 2x8 memory card 8 150 W ssd 2 fans 450 W supply',
    'tower, board, processor-65, 2 memory-new ?kind, card-8 150W, drive-flat, 2 fan, supply 450W',
  ],
  ['board 24 + 8 6-core 2 fans 450 W supply', 'board, processor-65 ?watts, 2 fan, supply 450W'],
  ['card 8 150 W supply 450 W', 'card-8 150W, supply 450W'],
  ['card 8 150 W 450 W supply', 'card-8 150W, supply 450W'],
  ['tower with an 8 core processor and 2x16 GB memory', 'tower, processor-105 ?watts, 2 memory-new ?kind'],
  ['2 film drives', '2 drive-35 ?kind, !film'],
  ['2x film drives', '2 drive-35 ?kind, !film'],
  ['4 noisy fans', '4 fan, !noisy'],
  ['two spare film hard drives', '2 drive-35, !spare, !film'],
  ['a dozen very loud fans', '12 fan, !very, !loud'],
  ['+ 2 blue-ish ssds', '+2 drive-flat, !blue-ish'],
  ['- 2 noisy fans', '-2fans'],
  ['2 big cards 8 pin 200 W', '2 card-8 200W, !big'],
  ['8 bit sound card', 'capture, !8, !bit'],
  ['450 noisy fans', '2 fan ?count, !450, !noisy'],
  ['30 noisy hard drives', 'ask quantity, !noisy'],
  ['midi tower', 'tower'],
  ['full tower case', 'tower'],
  ['mini tower', 'tower'],
  ['small case', 'small'],
  ['cube case', 'small'],
  ['mini-itx case', 'small'],
  ['slim', 'slim'],
  ['slimline case', 'slim'],
  ['desktop', '!desktop'],
  ['board', 'board ?plugs'],
  ['motherboard 24+8', 'board'],
  ['mainboard 24-pin and 8-pin', 'board'],
  ['board 24 + 8 + 4', 'board-84'],
  ['board 8+8', 'board-88'],
  ['board 2x8', 'board-88'],
  ['board 24+8+8+4', 'board-884'],
  ['board 4', 'board-4'],
  ['board 24+4+4', 'board-44'],
  ['board 24, two 8-pin', 'board-88'],
  ['board 20+4', 'board ?plugs'],
  ['old board 20+4', 'board-20'],
  ['old board', 'board-20 ?plugs'],
  ['old board 20', 'board-20-only'],
  ['old board 20 aux', 'board-20-aux'],
  ['board with 24, 8 and 6-pin slots', 'board-8-card'],
  ['maker-built board', 'board-own'],
  ["maker's own board 4-pin", 'board-own'],
  ['board 24+16', 'board ?plugs, !16'],
  ['8-core', 'processor-105 ?watts'],
  ['quad-core 65 W', 'processor-65'],
  ['dual core', 'processor-65 ?watts'],
  ['6 core 65w', 'processor-65'],
  ['6-core, 65 W', 'processor-65'],
  ['16-core 170 W', 'processor-170'],
  ['24-core', 'processor-250 ?watts'],
  ['64-core', 'processor-350 ?watts'],
  ['two 16-core 250 W', '2 processor-250'],
  ['2x 8-core 95 W', '2 processor-105'],
  ['processor 88 W', 'processor-105'],
  ['cpu 140 watts', 'processor-170'],
  ['cpu', 'processor-105 ?watts'],
  ['old processor', 'processor-old'],
  ['32-core 500 W', 'processor-350 500W'],
  ['12 core cpu 105 W TDP 4.7 GHz', 'processor-105'],
  ['125 W 8-core', 'processor-125'],
  ['2x16 GB', '2 memory-new ?kind'],
  ['2x16 gb new memory', '2 memory-new'],
  ['4x8 memory ddr4', '4 memory-old'],
  ['2x32 ddr5 memory', '2 memory-new'],
  ['1x8 old memory', 'memory-old'],
  ['memory 2x16 newer', '2 memory-new'],
  ['32 GB memory', '2 memory-new ?kind?count'],
  ['ram', '2 memory-new ?kind?count'],
  ['two memory modules', '2 memory-new ?kind'],
  ['4 sticks', '4 memory-new ?kind'],
  ['4 sticks of ddr4', '4 memory-old'],
  ['2 sticks of old ram', '2 memory-old'],
  ['two memory sticks', '2 memory-new ?kind'],
  ['8 modules ecc', '8 memory-new ?kind'],
  ['2 sticks 8 GB ddr5', '2 memory-new'],
  ['8 gigs of ram', '2 memory-new ?kind?count'],
  ['16 GB', '2 memory-new ?kind?count'],
  ['500 GB', '!500, !GB'],
  ['usb stick', 'usb'],
  ['nvme stick', 'drive-card'],
  ['a second ssd', 'drive-flat'],
  ['third fan', 'fan'],
  ['two 125 W processors', '2 processor-125'],
  ['dual 95 W cpus', '2 processor-105'],
  ['two 150 W cards 8-pin', '2 card-8 150W'],
  ['8 150 W card', 'card-8 150W'],
  ['agp card', 'card-agp ?plugs'],
  ['raid card', 'capture'],
  ['12 hard drives on a controller card', '12 drive-35, capture'],
  ['2 usb 3.0 cards', '2 network'],
  ['parallel port card', 'network'],
  ['tv tuner', 'capture'],
  ['cd-rom', 'optical'],
  ['old tower', 'tower'],
  ['750 W gold', 'supply 750W gold'],
  ['750 W gold modular', 'supply 750W gold full'],
  ['500 W semi-modular, fan', 'supply 500W semi, fan'],
  ['750 W gold modular supply', 'supply 750W gold full'],
  ['board with 4-pin inlet', 'board-4'],
  ['card', 'ask card-plugs'],
  ['card 8', 'card-8 ?watts'],
  ['card 8-pin 180 W', 'card-8 180W'],
  ['card 6-pin', 'card-6 ?watts'],
  ['card 6 120 W', 'card-6 120W'],
  ['card 2x8 250 W', 'card-88 250W'],
  ['card two 8-pin 270 W', 'card-88 270W'],
  ['card 8+8', 'card-88 ?watts'],
  ['card 8+6 215 W', 'card-86 215W'],
  ['card 6+6', 'card-66 ?watts'],
  ['card 3x8', 'card-888 ?watts'],
  ['card 3 x 8-pin 350W', 'card-888 350W'],
  ['card 8+8+8 330 W', 'card-888 330W'],
  ['card 4x8 500 W', 'ask card-plugs'],
  ['card 6+2', 'card-8 ?watts'],
  ['card 2x 6+2 260 W', 'card-88 260W'],
  ['card 16-pin', 'card-16 ?watts'],
  ['card 16 220 W', 'card-16-300 220W'],
  ['card 16-pin 450 W', 'card-16-450 450W'],
  ['card 12V-2x6 575 W', 'card-16-600 575W'],
  ['card 16-pin 700 W', 'card-16-600 700W'],
  ['graphics card slot only', 'card-slot'],
  ['card without plug 30 W', 'card-slot 30W'],
  ['card 75 W', 'card-slot 75W'],
  ['card 320 W', 'ask card-plugs'],
  ['gpu 2x8, 250 W', 'card-88 250W'],
  ['2 gpus 2x8 250 W', '2 card-88 250W'],
  ['2x card 3x8 320 W', '2 card-888 320W'],
  ['old card with a drive plug', 'card-agp'],
  ['sound card', 'capture'],
  ['capture card', 'capture'],
  ['network card, 2 wifi cards', 'network, 2 network'],
  ['encoder card', 'encoder-6'],
  ['card reader', 'front-panel'],
  ['m.2', 'drive-card'],
  ['2x m.2 ssd 1 TB', '2 drive-card'],
  ['nvme drive', 'drive-card'],
  ['ssd', 'drive-flat'],
  ['2 SSDs', '2 drive-flat'],
  ['2.5" ssd 500 GB', 'drive-flat'],
  ['four hard drives', '4 drive-35'],
  ['4x hard drive 8 TB', '4 drive-35'],
  ['4 x hdd', '4 drive-35'],
  ['hard drive x4', '4 drive-35'],
  ['hard drives', '2 drive-35 ?count'],
  ['3.5" drive', 'drive-35'],
  ['2 3.5-inch drives', '2 drive-35'],
  ['laptop drive', 'drive-25'],
  ['2.5" hard drive', 'drive-25'],
  ['old drive', 'drive-old'],
  ['2 ide drives', '2 drive-old'],
  ['3 drives', '3 drive-35 ?kind'],
  ['99 hard drives', 'ask quantity'],
  ['0 fans', 'ask quantity'],
  ['optical drive', 'optical'],
  ['dvd writer', 'optical'],
  ['old optical drive', 'optical-old'],
  ['floppy', 'floppy'],
  ['fan', 'fan'],
  ['3 fans', '3 fan'],
  ['fans', '2 fan ?count'],
  ['2 front fans, 1 rear fan', '2 fan, fan'],
  ['fan hub with 4 fans', 'fan-hub, 4 fan'],
  ['fan on a drive plug', 'fan-plug'],
  ['air cooler', 'fan'],
  ['tower cooler', 'fan'],
  ['aio', 'pump, 2 fan ?count'],
  ['aio 360', 'pump, 3 fan'],
  ['aio 280 mm', 'pump, 2 fan'],
  ['all-in-one cooler 240 with 3 fans', 'pump, 3 fan'],
  ['pump', 'pump'],
  ['large pump', 'pump-large'],
  ['pump on sata', 'pump-sata'],
  ['11,5 W pump', 'pump 11.5W'],
  ['lighting', 'lighting ?kind'],
  ['plain lighting', 'lighting-plain'],
  ['lighting on a header', 'lighting-header'],
  ['addressable lighting hub', 'lighting'],
  ['usb devices', 'usb'],
  ['front panel', 'front-panel'],
  ['550 W supply', 'supply 550W'],
  ['supply 550 W', 'supply 550W'],
  ['psu 650W gold modular', 'supply 650W gold full'],
  ['850 W ATX supply platinum semi-modular', 'supply 850W ATX platinum semi'],
  ['SFX-L supply 600 W fixed cables', 'supply 600W SFX-L fixed'],
  ['power supply', 'ask supply-watts'],
  ['supply 550 W 6 years', 'supply 550W, supply 6y'],
  ['supply 6 years', 'supply 6y'],
  ['supply, 6 years', 'ask supply-watts, machine 6y'],
  ['6 years old', 'machine 6y'],
  ['machine 10 years', 'machine 10y'],
  ['7 year old tower, 450W psu', 'machine 7y, tower, supply 450W'],
  ['+ card 16-pin 320 W', '+card-16-450 320W'],
  ['add 2 hard drives', '+2 drive-35'],
  ['+ 2x32 new memory', '+2 memory-new'],
  ['- card', '-card'],
  ['remove the optical drive', '-optical drive'],
  ['- 2 hard drives', '-2hard drives'],
  ['card -> card 16-pin 320 W', 'card>, +card-16-450 320W'],
  ['drive -> 2 drives', 'drive>, +2 drive-35 ?kind'],
  ['8-core replaced by 16-core 170 W', '8-core>, +processor-170'],
  ['memory becomes 4x16 new memory', 'memory>, +4 memory-new'],
  ['- supply', 'ask supply-comes'],
  ['card ->', 'ask instead'],
  ['card -> flux capacitor', 'ask instead'],
  ['125 W processor card 8 150 W -> card 16-pin 450 W', 'processor-125, card>, +card-16-450 450W'],
  ['board 24+8 and card 8 -> card 16-pin 450 W', 'board>, card>, +card-16-450 450W'],
  ['2 m.2 + hard drive -> ssd', '2m.2>, hard drive>, +drive-flat'],
  ['board 24+8 cpu 125 W -> board 24+8+8 cpu 170 W', 'board>, cpu>, +board-88, +processor-170'],
  ['replace the card with card 16-pin 320 W', 'card>, +card-16-450 320W'],
  ['swap the hard drive for 2 ssds', 'hard drive>, +2 drive-flat'],
  ['card 16-pin 320 W instead of the card', '+card-16-450 320W, card>'],
  ['card 16-pin 320 W in place of the card', '+card-16-450 320W, card>'],
  ['plan card 16-pin 320 W in place of the old one', '+card-16-450 320W, card>'],
  ['wants a card 16-pin 320 W instead of the present card', '+card-16-450 320W, card>'],
  ['replace the broken one with card 16-pin 320 W', 'card>, +card-16-450 320W'],
  ['board 24+8 and ssd instead of the old one', '+board, +drive-flat, !old, !one'],
  ['2 film drives 3 loud fans', '2 drive-35 ?kind, 3 fan, !film, !loud'],
  ['650 W supply 80 gold 4 fans', 'supply 650W gold, 4 fan, !80'],
  ['650 W supply 80 gold fans', 'supply 650W gold, 2 fan ?count, !80'],
  ['card 8 loud fans', 'card-8 ?watts, 2 fan ?count, !loud'],
  ['my present card 8 150 W', 'card-8 150W'],
  ['swap the card for a 16-pin one', 'card>, +card-16 ?watts'],
  ['swap the hard drive for a 4 TB one', 'ask instead'],
  ['upgrade to a 300 W 16-pin card', 'card>?, +card-16-300 300W'],
  ['upgrading to 2 ssds', '+2 drive-flat'],
  ['client wants to upgrade to a 170 W processor', 'processor>?, +processor-170'],
  ['moving to board 24+8+8', 'board>?, +board-88'],
  ['upgrade the card to a 450 W 16-pin', 'card>, +card-16-450 450W'],
  ['card upgraded to 16-pin 300 W', 'card>, +card-16-300 300W'],
  ['8-core 125 W card 8 150 W upgraded to 16-pin 300 W', 'processor-125, card>, +card-16-300 300W'],
  ['processor to 170 W', 'processor>, +processor-170'],
  ['memory to 4x16 new', 'memory>, +4 memory-new'],
  ['125 W cpu instead of 65 W', '+processor-125, cpu>'],
  ['old card out, 16-pin card in', '-card, +card-16 ?watts'],
  ['8-pin card goes, 16-pin card comes', '-card, +card-16 ?watts'],
  ['sell the card, buy 2 ssds', '-card, +2 drive-flat'],
  ['4 fans in the case', '4 fan'],
  ['client wants 2 ssds', '+2 drive-flat'],
  ['wants a 16-pin card', '+card-16 ?watts'],
  ['6-core 65 W 2 hard drives later', 'processor-65, +2 drive-35'],
  ['2 more hard drives', '+2 drive-35'],
  ['one more ssd', '+drive-flat'],
  ['will get a 16-pin card', '+card-16 ?watts'],
  ['fan comes out', '-fan'],
  ['another ssd, an extra fan', 'drive-flat, fan'],
  ['dual 8-pin card', 'card-88 ?watts'],
  ['card triple 8-pin 350 W', 'card-888 350W'],
  ['single 8-pin card', 'card-8 ?watts'],
  ['half a dozen hard drives', '6 drive-35'],
  ['a couple of hdds, a pair of fans', '2 drive-35, 2 fan'],
  ['3x120 fans', '3 fan'],
  ['3 rgb fans, rgb strip, argb strip', '3 fan, lighting ?kind, lighting'],
  ['4 sticks ram', '4 memory-new ?kind'],
  ['micro-atx board, usb hub, 10g nic', 'board ?plugs, usb, network'],
  ['board micro-atx', 'board ?plugs'],
  ['board micro atx 24+8', 'board'],
  ['replace the card', 'ask instead'],
  ['replace the drive with', 'ask instead'],
  ['instead of the drive', 'ask instead'],
  ['8-core/16-thread 125 W processor', 'processor-125'],
  ['8c/16t cpu 125 W', 'processor-125'],
  ['cpu: 8 cores, 125 W tdp', 'processor-125'],
  ['4 sata drives', '4 drive-35 ?kind'],
  ['1x m.2 2TB + 2x 4TB hdd', 'drive-card, 2 drive-35'],
  ['32GB (2x16) ddr4', '2 memory-old'],
  ['8 GB ddr3', '2 memory-old ?count'],
  ['four sticks of ram', '4 memory-new ?kind'],
  ['flux capacitor', '!flux, !capacitor'],
  ['tower, warp core, 2 fans', 'tower, 2 fan, !warp, !core'],
  ['8-core 125 W turbo', 'processor-125, !turbo'],
  ['8-core 125 W processor', 'processor-125'],
  ['cpu 8-core 125 W', 'processor-125'],
  ['16-core (170 W) cpu', 'processor-170'],
  ['2-core old processor', 'processor-old'],
  ['dual 8-core 140 W', '2 processor-170'],
  ['4 processors 125 W', '4 processor-125'],
  ['6 processors 125 W', 'ask quantity'],
  ['9 16-core 170 W', 'ask quantity'],
  ['with 6 processors 125 W', 'ask quantity'],
  ['tidemark 9 16 core, 2 fans', 'processor-170 ?watts, 2 fan, !tidemark, !9'],
  ['tidemark 3 4-core 65 W', 'processor-65, !tidemark, !3'],
  ['tidemark 7 cpu 105 W', 'processor-105, !tidemark, !7'],
  ['a tidemark 5 processor 6-core 65 W', 'processor-65, !tidemark, !5'],
  ['tidemark 2 16-core 170 W', '2 processor-170, !tidemark'],
  ['tidemark 9 2x 16 core 170 W', '2 processor-170, !tidemark, !9'],
  ['processor 65 W 8-core 125 W', 'processor-65, processor-125'],
  ['320 W 3x8 gpu card', 'card-888 320W'],
  ['triple-fan card 3x8 320 W', 'card-888 320W'],
  ['card 8 150 W card 8 150 W', 'card-8 150W, card-8 150W'],
  ['no card, 2 fans', '2 fan'],
  ['tower without a graphics card', 'tower'],
  ['8-core 65 W no gpu 2 fans', 'processor-65, 2 fan'],
  ['no optical drive, no 8-pin card', ''],
  ['gpu 3x8 320 W card', 'card-888 320W'],
  ['gpu 3x8 320 W card 8 150 W', 'card-888 320W, card-8 150W'],
  ['gpu two 8-pin card 250 W', 'card-88 250W'],
  ['ssd drive', 'drive-flat'],
  ['nvme m.2 ssd', 'drive-card'],
  ['2 m.2 1 TB ssds', '2 drive-card'],
  ['m.2 sata ssd', 'drive-card, drive-flat'],
  ['2 x 1TB nvme', '2 drive-card'],
  ['4 4 TB hard drives', '4 drive-35'],
  ['hard drive 4 TB drive', 'drive-35'],
  ['2 hard drives 1 ssd', '2 drive-35, drive-flat'],
  ['ssd ssd', 'drive-flat, drive-flat'],
  ['2 sata hard drives, ide hard drive', '2 drive-35, drive-old'],
  ['dvd hdd', 'optical, drive-35'],
  ['2.5 in ssd', 'drive-flat'],
  ['2.5 in hdd', 'drive-25'],
  ['optical disk drive', 'optical'],
  ['blu-ray burner', 'optical'],
  ['2 drive cages with 8 hard drives', '8 drive-35, !2, !drive, !cages'],
  ['memory 2x16 GB modules', '2 memory-new ?kind'],
  ['new memory 4 sticks', '4 memory-new'],
  ['psu power supply 550 W', 'supply 550W'],
  ['550 W supply unit', 'supply 550W'],
  ['3 120 mm fans', '3 fan'],
  ['air cooler with 2 fans', '2 fan'],
  ['360 mm aio', 'pump, 3 fan'],
  ['water cooling 2 fans', 'pump, 2 fan'],
  ['aio cpu cooler 2 fans', 'pump, 2 fan'],
  ['plain lighting led strip', 'lighting-plain'],
  ['hello world', '!hello, !world'],
  ['', ''],
  [',,;;', ''],
  ['two', '!two'],
  ['125 W', '!125, !W'],
];

/** Words before a colon hold for what follows. */
const underHeadings: readonly (readonly [string, string])[] = [
  ['planned: card 16-pin 300 W, 2 ssds', '+card-16-300 300W, +2 drive-flat'],
  ['now: card 8 150 W, later: card 16-pin 300 W', 'card-8 150W, +card-16-300 300W'],
  ['upgrade: 2 ssds; now: 2 fans', '+2 drive-flat, 2 fan'],
  ['upgrade:\ncard 16-pin 300 W\n2 ssds', '+card-16-300 300W, +2 drive-flat'],
  ['upgrade: 16-pin card 450 W', '+card-16-450 450W'],
  ['upgrade: - card, 2 ssds', '-card, +2 drive-flat'],
];

describe('a line', () => {
  it.each(underHeadings)('%s', (line, expected) => {
    expect(shortOf(understand(line), line)).toBe(expected);
  });
  it.each(lines)('%s', (line, expected) => {
    expect(shortOf(understand(line), line)).toBe(expected);
  });

  it('is understood by the shop’s own names as well, with how many and whether they are added', () => {
    const own = [{ id: 'own-1', name: 'Quay card 7', classId: 'card-16-450' }];
    const read = (line: string) => shortOf(understand(line, own), line);
    expect(read('quay card 7, 2 fans')).toBe('own-1, 2 fan');
    expect(read('2x Quay Card 7')).toBe('2 own-1');
    expect(read('+ quay card 7')).toBe('+own-1');
    expect(shortOf(understand('quay card 7'), 'quay card 7')).toBe('ask card-plugs, !quay, !7');
  });

  it('is the same in any order, with anything unknown in between', () => {
    // Figures alone go on with what stands before them, so that their place matters.
    const whole = lines.filter(([line]) => /[a-z]{3}/i.test(line) && !/^(two|125 W)$|->|becomes|replaced/.test(line));
    const noise = fc.constantFrom('', 'zzyx', 'quorp 77q', 'vlumm');
    fc.assert(
      fc.property(fc.shuffledSubarray([...whole], { minLength: 1, maxLength: 12 }), noise, (some, word) => {
        const clauses = some.flatMap(([line]) => [line, word]).filter((clause) => clause !== '');
        const line = clauses.join('; ');
        const parts = (texts: readonly string[]) => texts.flatMap((text) => (text === '' ? [] : text.split(', ')));
        const words = word === '' ? [] : word.split(' ').map((one) => `!${one}`);
        const wanted = parts(some.map(([, expected]) => expected));
        const all = [...wanted, ...some.flatMap(() => words)];
        expect(parts([shortOf(understand(line), line)]).sort()).toEqual(all.sort());
      }),
      { numRuns: 300 },
    );
  });

  it('never throws, and everything it tells of stands in the line, whatever is typed', () => {
    const words = lines.flatMap(([line]) => line.split(' '));
    const typed = fc.oneof(
      fc.string({ unit: 'binary', maxLength: 300 }),
      fc
        .array(fc.oneof(fc.constantFrom(...words), fc.string({ maxLength: 6 })), { maxLength: 40 })
        .map((all) => all.join(' ')),
    );
    fc.assert(
      fc.property(typed, (line) => {
        const { said, unknown } = understand(line);
        for (const { from, to } of [...said, ...unknown]) {
          expect(from).toBeGreaterThanOrEqual(0);
          expect(to).toBeGreaterThan(from);
          expect(to).toBeLessThanOrEqual(line.length);
        }
        // What was made of something is not told as unknown as well.
        for (const one of said)
          for (const word of unknown)
            if (word.from >= one.from && word.to <= one.to)
              expect(line.slice(one.from, one.to)).not.toBe(line.slice(word.from, word.to));
      }),
      { numRuns: 2000 },
    );
  });

  it('is understood as the documentation shows it', () => {
    const documented = readFileSync(new URL('../../../docs/machine-line.md', import.meta.url), 'utf8');
    const shown = [...documented.matchAll(/```text\n([^`]*)```/g)].flatMap(([, block = '']) =>
      block.trim().split('\n'),
    );
    expect(shown.length).toBeGreaterThan(3);
    for (const line of shown) expect([line, understand(line).unknown]).toEqual([line, []]);
    expect(shown.map((line) => understand(line).said.some(({ kind }) => kind === 'ask'))).not.toContain(true);
  });

  it('counts a thing once, by however many of its names it is called, and what is counted anew as another', () => {
    const names = [
      ['processor-105', ['8-core', 'processor', 'cpu']],
      ['card-88', ['card 2x8', 'gpu', 'graphics card']],
      ['drive-card', ['m.2', 'nvme', 'ssd', 'drive', 'nvme drive']],
      ['drive-35', ['hard drive', '3.5" drive', 'drive', 'disk']],
      ['drive-25', ['laptop drive', 'disk']],
      ['optical', ['dvd', 'optical drive', 'disk', 'drive']],
    ] as const;
    const size = fc.constantFrom('', '', ' 1 TB', ' 120 mm', ' (a)');
    const named = fc.constantFrom(...names).chain(([classId, [first, ...others]]) =>
      fc.record({
        classId: fc.constant(classId),
        first: fc.constant(first),
        other: fc.constantFrom(...others),
        size,
      }),
    );
    const shown = (line: string) =>
      understand(line).said.map((said) => (said.kind === 'part' ? [said.classId, said.quantity] : [said.kind, 0]));
    fc.assert(
      fc.property(named, fc.integer({ min: 1, max: 4 }), (one, count) => {
        const thing = `${one.first}${one.size} ${one.other}`;
        expect([thing, shown(`${count} ${thing}`)]).toEqual([thing, [[one.classId, count]]]);
        expect(shown(`${thing}, ${count} ${one.first}`)).toEqual([
          [one.classId, 1],
          [one.classId, count],
        ]);
        expect(shown(`${one.first}${one.size} 2 ${one.other}`).length).toBe(2);
      }),
      { numRuns: 400 },
    );
  });

  it('says nothing of words it does not know', () => {
    fc.assert(
      fc.property(fc.array(fc.stringMatching(/^[qvzx]{3,9}$/), { maxLength: 12 }), (words) => {
        const line = words.join(' ');
        const { said, unknown } = understand(line);
        expect([said, unknown.map(({ from, to }) => line.slice(from, to))]).toEqual([[], words]);
      }),
    );
  });

  it('is read to its end in no time, however it is made', () => {
    for (const piece of ['1', '8+', '2x', ' 6 ', '8 and ', 'card ', 'a', ' x ', '1 W ', '24 ', 'two '])
      expect(() => understand(piece.repeat(1000 / piece.length))).not.toThrow();
    const long = `tower, ${'fan '.repeat(2000)}`;
    expect(understand(long).unknown.at(-1)).toEqual({ from: mostLetters, to: long.length });
  });
});

describe('a usual machine', () => {
  it.each(machineTemplates)('$name is understood as a whole, with nothing taken for granted', ({ line }) => {
    const { said, unknown } = understand(line);
    expect(unknown).toEqual([]);
    expect(said.filter((one) => one.kind === 'ask' || (one.kind === 'part' && one.doubts.length > 0))).toEqual([]);
  });
});
