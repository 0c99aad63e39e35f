import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { newJob, type Job } from './job.ts';
import { foldText, hitOf, isFound, searchDocument, searchFields, searchWords, type SearchField } from './search.ts';

const blank = newJob(
  'LQ-0142',
  'Tower',
  'Ines Varro, +44 (1632) 96-0817',
  'Cuts out',
  'peaks-covered',
  '2026-01-01T00:00:00.000Z',
);
const names = {
  supply: (id: string) => (id === 'gull' ? 'Gull 650' : null),
  fault: (id: string) => (id === 'psu-weak' ? 'Supply weak under load' : null),
  technician: (id: string) => ({ mara: 'Mara Quill' })[id] ?? null,
  spare: (id: string) => ({ 'k-7': 'Violet tape, 3 drive plugs' })[id] ?? null,
};
const signed = { by: 'mara', at: '2026-01-01T00:00:00.000Z' };
const job: Job = {
  ...blank,
  sheet: { ...blank.sheet, leftInBag: 'Bag 7 on the top shelf', upgrade: 'Card für Émile' },
  finding: { version: 2, kind: 'fault', faultId: 'psu-weak', alsoFaultId: null, confirmed: true, note: '', ...signed },
  seats: [
    {
      version: 4,
      inletId: 'd1',
      cableCode: 'C2',
      piece: 'bag:k-7 1 sata drive 2',
      inletKind: 'sata',
      plugIndex: 0,
      ...{ click: true, tug: true, gap: true, halves: true, bend: true, panel: true },
      rechecked: null,
      ...signed,
    },
  ],
  choice: { version: 3, kind: 'replace', modelId: 'gull', reason: '', known: [], ...signed },
};
const fields = searchFields(job, names);
const document = searchDocument(fields);
const found = (query: string) => isFound(document, searchWords(query));

describe('looking for a job', () => {
  it.each([
    ['its code', 'LQ-0142'],
    ['its code without the dash, small', 'lq0142'],
    ['words in another order', 'out varro cuts'],
    ['a telephone number without its gaps', '441632960817'],
    ['a telephone number with other gaps', '1632 960 817'],
    ['the supply that was fitted', 'gull 650'],
    ['the finding', 'weak under'],
    ['who worked on it', 'quill'],
    ['the bag', 'bag 7'],
    ['a spare cable that was plugged in, by its label in the bags', 'violet tape'],
    ['letters without their accents', 'emile'],
    ['accents where there are some', 'FÜR'],
    ['nothing', '   '],
  ])('finds it by %s', (_what, query) => {
    expect(found(query)).toBe(true);
  });
  it.each([
    ['another code', 'LQ-0143'],
    ['a word that is not there', 'tower gone'],
    ['another number', '441632960818'],
  ])('does not find it by %s', (_what, query) => {
    expect(found(query)).toBe(false);
  });
  it('takes short words from the beginning of a word only', () => {
    expect(found('ea')).toBe(false);
    expect(found('we')).toBe(true);
    expect(found('7')).toBe(true);
    expect(found('8')).toBe(false);
  });
  it('tells the field that has most of what was looked for', () => {
    expect(hitOf(fields, searchWords('gull 650'))).toEqual({ field: 'fitted', text: 'Gull 650' });
    expect(hitOf(fields, searchWords('lq0142'))).toEqual({ field: 'code', text: 'LQ-0142' });
    expect(hitOf(fields, searchWords(''))).toBe(null);
  });
  it('leaves out what is empty, and says the same text of a field once', () => {
    expect(fields.filter((item) => item.field === 'technician')).toHaveLength(1);
    expect(fields.every((item) => item.text.trim() !== '')).toBe(true);
  });
  it('finds any job by any of its own words, in any order, and shows a field with one of them', () => {
    const text = fc.array(fc.stringMatching(/^[a-zA-ZäéØß0-9-]{1,12}$/), { minLength: 1, maxLength: 5 });
    fc.assert(
      fc.property(fc.array(text, { minLength: 1, maxLength: 4 }), fc.nat(), (texts, turn) => {
        const own: SearchField[] = texts.map((words) => ({ field: 'note', text: words.join(' ') }));
        const words = texts.flat();
        const query = [...words.slice(turn % words.length), ...words.slice(0, turn % words.length)]
          .slice(0, 3)
          .join(' ');
        const wanted = searchWords(query);
        expect(isFound(searchDocument(own), wanted)).toBe(true);
        expect(hitOf(own, wanted)).not.toBe(null);
        expect(foldText(foldText(query))).toBe(foldText(query));
      }),
      { numRuns: 300 },
    );
  });
});
