import { describe, expect, it } from 'vitest';
import { applyAct, newJob, type ActContext, type Job, type JobPart } from '../job/index.ts';
import { partClass, partsAt } from '../machine/index.ts';
import { machineTemplates } from './templates.ts';
import { boardForGranted, takeIn, type OwnPartSource } from './take-in.ts';
import { understand } from './understand.ts';

const context: ActContext = {
  by: 'mara',
  at: '2026-01-01T00:00:00.000Z',
  knows: { instrument: () => true, supply: () => true, fault: () => true, outcome: () => true },
  unansweredPoints: () => 0,
};
const emptyJob = () => newJob('LQ-0001', 'Machine', 'Client', 'Words', 'peaks-covered', context.at);

/** A job after a line was taken in, with what the line left open. */
function after(line: string, job: Job = emptyJob(), own: readonly OwnPartSource[] = [], withBoard = true) {
  const understood = understand(line, own);
  let serial = job.parts.length;
  const makeId = () => `p-${(serial += 1)}`;
  const board = withBoard ? boardForGranted(understood, job.parts) : null;
  const { acts, open } = takeIn(understood, line, job, own, board, makeId);
  const done = acts.reduce<Job>((now, act) => {
    const result = applyAct(now, act, context);
    if (!result.ok) throw new Error(JSON.stringify(result.refusal));
    return result.job;
  }, job);
  return { job: done, open: open.map(({ said, why }) => `${line.slice(said.from, said.to)}: ${why}`) };
}
const listed = (job: Job) =>
  job.parts.map((part) => `${part.quantity} ${part.classId}${part.change === 'stays' ? '' : ` ${part.change}`}`);

describe('taking a line in', () => {
  it('makes parts with their inlets, each named apart, and those without inlets counted', () => {
    const { job, open } = after('tower, 8-core 125 W, 2x16 new memory, card 3x8 320 W, 2 hard drives');
    expect(open).toEqual([]);
    expect(listed(job)).toEqual([
      '1 board',
      '1 processor-125',
      '2 memory-new',
      '1 card-888',
      '1 drive-35',
      '1 drive-35',
    ]);
    const names = job.parts.map(({ name }) => name);
    expect(new Set(names).size).toBe(names.length);
    const labels = job.parts.flatMap(({ inlets }) => inlets.map(({ label }) => label));
    expect([labels.length, new Set(labels).size]).toEqual([2 + 3 + 2, 7]);
    expect(job.sheet.layout).toBe('tower');
  });
  it('takes said watts as a figure off a label, within what the class allows for', () => {
    const card = after('card 3x8 320 W').job.parts.at(-1)!;
    const asked = partClass('card-888')!.figures;
    expect(card.figures).toMatchObject({ likelyWatts: 320, source: 'label', highWatts: asked.highWatts });
    expect(after('card 3x8 500 W').job.parts[0]!.figures).toMatchObject({ likelyWatts: 500, highWatts: 500 });
    expect(after('card 3x8').job.parts[0]!.figures).toEqual(asked);
  });
  it('takes out what the same line names, as it takes out what was there', () => {
    const swapped = after('card 8 150 W, swap the card for a 16-pin one 300 W');
    expect(swapped.open).toEqual([]);
    expect(listed(swapped.job)).toEqual(['1 card-8 replaced', '1 card-16-300 added']);
    expect(swapped.job.sheet.upgrade).toBe('swap the card for 16-pin one 300 W');
    expect(listed(after('4 hard drives, - 3 hard drives').job)).toEqual([
      ...Array.from({ length: 3 }, () => '1 drive-35 removed'),
      '1 drive-35',
    ]);
    expect(after('card 8 150 W, card 2x8 250 W, - card').open).toEqual(['- card: which-one']);
  });
  it.each([
    ['card 8 150 W -> card 16-pin 320 W', ['1 card-8 replaced', '1 card-16-450 added']],
    ['2x8 ddr4 memory -> 2x16 ddr5 memory', ['2 memory-old replaced', '2 memory-new added']],
    ['swap the 65 W processor for a 170 W one', ['1 processor-65 replaced', '1 processor-170 added']],
    ['2 hard drives -> ssd', ['1 drive-35 replaced', '1 drive-35 replaced', '1 drive-flat added']],
    ['board 24+8 -> board 24+8+8', ['1 board replaced', '1 board-88 added']],
    // Nothing of the kind that goes stays, though there is another drive.
    ['m.2, hard drive -> ssd', ['1 drive-card', '1 drive-35 replaced', '1 drive-flat added']],
  ])('%s: takes in what goes as what the machine came with, where nothing of its kind is known', (line, parts) => {
    const { job, open } = after(line, emptyJob(), [], false);
    expect([listed(job), open]).toEqual([parts, []]);
    // Said once more, it does not come a second time.
    const again = after(line, job, [], false);
    expect(again.open.map((left) => left.replace(/.*: /, ''))).toEqual(['none-there']);
    expect(listed(again.job).filter((part) => part.endsWith('replaced'))).toEqual(
      listed(job).filter((part) => part.endsWith('replaced')),
    );
  });
  it.each([
    ['card -> card 16-pin 320 W', [], 'card ->: none-there', ['1 card-16-450 added']],
    ['memory -> 2x16 new memory', [], 'memory ->: none-there', ['2 memory-new added']],
    // Another card is there: it is not for a line to say that there are two.
    [
      'card 8 150 W -> card 16-pin 320 W',
      'card 2x8 250 W',
      'card 8 150 W ->: none-there',
      ['1 card-88', '1 card-16-450 added'],
    ],
    ['- floppy', [], '- floppy: none-there', []],
  ])('%s: takes nothing in that is not said, or of which another is there', (line, there, open, parts) => {
    const before = typeof there === 'string' ? after(there).job : emptyJob();
    const done = after(line, before);
    expect([done.open, listed(done.job)]).toEqual([[open], parts]);
  });
  it('lets what comes as an upgrade take the place of the one there is, and of none where that is not clear', () => {
    const there = after('6-core 65 W, card 8 150 W').job;
    const upgraded = after('upgrade to a 300 W 16-pin card', there);
    expect(upgraded.open).toEqual([]);
    expect(listed(upgraded.job)).toEqual(['1 board', '1 processor-65', '1 card-8 replaced', '1 card-16-300 added']);
    expect(upgraded.job.sheet.upgrade).toBe('upgrade to a 300 W 16-pin card');
    const none = after('upgrade to a 300 W 16-pin card', after('6-core 65 W').job);
    expect(none.open).toEqual([]);
    expect(listed(none.job)).toEqual(['1 board', '1 processor-65', '1 card-16-300 added']);
    const two = after('upgrade to a 300 W 16-pin card', after('card 8 150 W, card 2x8 250 W').job);
    expect(two.open).toEqual([': which-one']);
    expect(listed(two.job)).toEqual(['1 card-8', '1 card-88', '1 card-16-300 added']);
    // A part of the shop's own comes as well, and takes the place of its kind; another card than a graphics card does
    // not.
    const ownCard = { ...partClass('card-16-300')!, id: 'own', classId: 'card-16-300', name: 'Gull 300' };
    const own = after('upgrade to Gull 300', there, [ownCard]);
    expect(listed(own.job)).toEqual(['1 board', '1 processor-65', '1 card-8 replaced', '1 card-16-300 added']);
    expect(listed(after('upgrade to a network card', there).job)).toEqual([
      ...['1 board', '1 processor-65', '1 card-8'],
      '1 network added',
    ]);
    // Drives are many: more of them take nobody's place.
    expect(listed(after('upgrade to 2 ssds', after('hard drive').job).job)).toEqual([
      '1 drive-35',
      '1 drive-flat added',
      '1 drive-flat added',
    ]);
  });
  it('takes a board for granted where a processor is named and no board is there, and only then', () => {
    const granted = (line: string, job = emptyJob()) => boardForGranted(understand(line), job.parts);
    expect(granted('8-core 65 W')).toBe('board');
    expect(granted('16-core 170 W')).toBe('board-88');
    expect(granted('old processor')).toBe('board-20');
    expect(granted('2 fans')).toBeNull();
    expect(granted('8-core, board 24+4')).toBeNull();
    expect(granted('8-core, board 24+6')).toBeNull();
    expect(granted('8-core', after('board').job)).toBeNull();
    expect(listed(after('8-core 65 W', emptyJob(), [], false).job)).toEqual(['1 processor-65']);
  });
  it('takes the supply with what was said of it; more said later changes only that', () => {
    const first = after('550 W supply gold, supply 6 years').job;
    expect(first.supply?.label).toMatchObject({ ratingWatts: 550, grade: 'gold', shape: 'ATX' });
    expect(first.supply?.label.rails.map(({ amps, usual }) => [amps, usual])[0]).toEqual([40, true]);
    expect(first.sheet.supplyYears).toBe(6);
    const second = after('600 W SFX supply, 8 years old', first).job;
    expect(second.supply?.label).toMatchObject({ ratingWatts: 600, grade: 'gold', shape: 'SFX' });
    expect([second.sheet.supplyYears, second.sheet.machineYears]).toEqual([6, 8]);
    expect(second.sheet.shapes).toEqual(['SFX']);
  });
  it('has the supply and the bay follow the case', () => {
    const { job } = after('slim, 300 W supply');
    expect([job.supply?.label.shape, job.sheet.shapes]).toEqual(['TFX', ['TFX']]);
    expect(after('slim, 300 W flex supply').job.sheet.shapes).toEqual(['Flex']);
  });
  it('takes a part of the shop’s own with its own figures and inlets', () => {
    const source = partClass('card-16-450')!;
    const own = { ...source, id: 'own-1', name: 'Quay card 7', classId: source.id };
    const { job } = after('2x quay card 7', emptyJob(), [own]);
    expect(job.parts.map(({ name, classId, figures }) => [name, classId, figures])).toEqual([
      ['Quay card 7', 'card-16-450', source.figures],
      ['Quay card 7 2', 'card-16-450', source.figures],
    ]);
  });
});

describe('an upgrade', () => {
  const machine = () =>
    after('tower, board 24+8, 8-core 105 W, 2x8 old memory, card 8 150 W, 2 hard drives, 1 ssd').job;

  it('brings and takes out, and is written down in its own words where nobody has', () => {
    const { job, open } = after('card -> card 16-pin 320 W, + ssd, - 2 hard drives', machine());
    expect(open).toEqual([]);
    expect(listed(job)).toEqual([
      '1 board',
      '1 processor-105',
      '2 memory-old',
      '1 card-8 replaced',
      '1 drive-35 removed',
      '1 drive-35 removed',
      '1 drive-flat',
      '1 card-16-450 added',
      '1 drive-flat added',
    ]);
    expect(job.sheet.upgrade).toBe('card -> card 16-pin 320 W, + ssd, - 2 hard drives');
    expect(after('+ ssd', { ...job, sheet: { ...job.sheet, upgrade: 'As told' } }).job.sheet.upgrade).toBe('As told');
    expect(after('she wants to add 2 fans, he needs a 16-pin card 320 W').job.sheet.upgrade).toBe(
      'add 2 fans, a 16-pin card 320 W',
    );
    expect(partsAt(job.parts, 'planned').map(({ classId }) => classId)).not.toContain('card-8');
  });
  it('takes so many of those that are alike, all of those in the plural, and a whole set of modules', () => {
    const going = (line: string) => {
      const { job, open } = after(line, machine());
      return [...listed(job).filter((one) => /removed|replaced/.test(one)), ...open];
    };
    expect(going('- 1 hard drive')).toEqual(['1 drive-35 removed']);
    expect(going('- hard drives')).toEqual(['1 drive-35 removed', '1 drive-35 removed']);
    expect(going('- ssd')).toEqual(['1 drive-flat removed']);
    expect(going('- 2x8 memory')).toEqual(['2 memory-old removed']);
    expect(going('memory -> 2x16 new memory')).toEqual(['2 memory-old replaced']);
  });
  it('asks which one, and says where there is none, instead of guessing', () => {
    expect(after('- hard drive', machine()).open).toEqual(['- hard drive: which-one']);
    expect(after('- drive', machine()).open).toEqual(['- drive: which-one']);
    expect(after('- 1 memory module', machine()).open).toEqual(['- 1 memory module: which-one']);
    expect(after('- 5 hard drives', machine()).open).toEqual(['- 5 hard drives: which-one']);
    expect(after('- floppy', machine()).open).toEqual(['- floppy: none-there']);
    expect(after('card, - supply, card ->', machine()).open).toEqual([
      'card: say-more',
      '- supply: say-more',
      'card ->: say-more',
    ]);
  });
});

describe('what is like something that is there', () => {
  const oneCard = () => after('card 3x8 320 W', emptyJob(), [], false).job;

  it.each([
    'planning a second gpu same as the first',
    'plan a second card, same as the first',
    '+ card like the present one',
    'wants another card, the same as the one that is there',
    'wants an identical card',
    '+ same card again',
    'upgrade: a second gpu like the first card',
    '+ card identical to my existing one',
  ])('is one more with its figures and inlets: %s', (line) => {
    const { job, open } = after(line, oneCard());
    const [first, second] = job.parts;
    expect([open, listed(job)]).toEqual([[], ['1 card-888', '1 card-888 added']]);
    expect(second!.figures).toEqual(first!.figures);
    expect(second!.inlets.map(({ kind }) => kind)).toEqual(first!.inlets.map(({ kind }) => kind));
    const labels = job.parts.flatMap(({ inlets }) => inlets.map(({ label }) => label));
    expect(new Set(labels).size).toBe(6);
    expect(second!.name).not.toBe(first!.name);
  });
  it('can be several, in the same line, and of what is only counted', () => {
    const { job, open } = after('card 8+6 220 W, + 2 identical cards, 3 fans, + 2 fans like the first ones');
    expect([open, listed(job)]).toEqual([
      [],
      ['1 card-86', '1 card-86 added', '1 card-86 added', '3 fan', '2 fan added'],
    ]);
    expect(job.parts.every(({ classId, figures }) => classId !== 'card-86' || figures.likelyWatts === 220)).toBe(true);
  });
  it('is like what the machine came with, not what the upgrade brings', () => {
    const { job } = after('+ card 16-pin 320 W', oneCard());
    expect(listed(after('+ another card, same as the first', job).job)).toEqual([
      '1 card-888',
      '1 card-16-450 added',
      '1 card-888 added',
    ]);
  });
  it('stays in the line where there is none, and where there are several that differ', () => {
    const none = after('+ card same as the first');
    expect([none.open, listed(none.job)]).toEqual([['+ card same as the first: none-there'], []]);
    const two = after('card 8 150 W, card 6 75 W', emptyJob(), [], false).job;
    expect(after('+ card same as the first', two).open).toEqual(['+ card same as the first: which-one']);
    const alike = after('2 cards 8 150 W', emptyJob(), [], false).job;
    // What draws the same is alike, wherever its figures come from and in whatever order they stand.
    const [first, second] = alike.parts;
    const turned = Object.fromEntries(Object.entries(second!.figures).reverse()) as unknown as JobPart['figures'];
    const measured = { ...second!, figures: { ...turned, source: 'measured' as const } };
    expect(after('+ card same as the first', { ...alike, parts: [first!, measured] }).open).toEqual([]);
    expect(after('+ card same as the first', alike).open).toEqual([]);
    expect(after('+ 30 cards same as the first', alike).open).toEqual(['+ 30 cards same as the first: say-more']);
  });
  it('writes its words into what the upgrade is', () => {
    expect(after('planning a second gpu same as the first', oneCard()).job.sheet.upgrade).toBe(
      'a second gpu same as the first',
    );
  });
});

describe('what stays in the line', () => {
  it('means the same the next time: a sign or an arrow stays with what it was said of', () => {
    for (const line of ['- hard drive', '+ card', 'hard drive -> 2 ssds', 'card ->', '- supply', '+ 99 fans']) {
      const machine = after('board 24+8, 2 hard drives').job;
      const { open } = takeIn(understand(line), line, machine, [], null, () => 'id');
      const left = open.map(({ said }) => line.slice(said.from, said.to)).join(', ');
      const again = takeIn(understand(left), left, machine, [], null, () => 'id');
      expect([line, again.acts.filter(({ kind }) => kind === 'put-part')]).toEqual([line, []]);
      expect(again.open.length).toBeGreaterThan(0);
    }
  });
});

describe('a usual machine', () => {
  it.each(machineTemplates)('$name can be taken in, with a board, a processor, a case and a supply', ({ line }) => {
    const { job, open } = after(line);
    expect(open).toEqual([]);
    const groups = new Set(job.parts.map(({ classId }) => partClass(classId)?.group));
    expect([groups.has('board'), groups.has('processor'), groups.has('memory')]).toEqual([true, true, true]);
    expect(job.parts.filter(({ classId }) => partClass(classId)?.group === 'board')).toHaveLength(1);
    expect(job.supply?.label.ratingWatts).toBeGreaterThan(100);
  });
});
