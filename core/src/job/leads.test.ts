import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { connectorOf } from '../guide/index.ts';
import { guideOfLead, leadCaution, openPointText, stepCaution } from '../wording/index.ts';
import { copiedLeads, leadStates, likelyLeads, openLeads, stepsOf, type Act, type Lead } from './index.ts';
import { TestBench, uuid } from './fixture.test-help.ts';

const lead = (number: number, changes: Partial<Lead> = {}): Omit<Lead, 'by' | 'at' | 'version'> => ({
  id: uuid(number),
  kind: 'panel-switch',
  what: `Lead ${number}`,
  place: 'front panel 6, 8',
  state: 'recorded',
  ...changes,
});
const put = (number: number, changes: Partial<Lead> = {}): Act => ({
  kind: 'put-lead',
  lead: lead(number, changes),
  basedOn: 0,
});
const pointsOf = (bench: TestBench) =>
  bench
    .view()
    .openPoints.filter(({ code }) => code === 'lead-out' || code === 'leads-unsaid')
    .map(openPointText);

describe('leads that carry no supply power', () => {
  it('are open points while they are out, or while nobody said whether they were touched', () => {
    const bench = new TestBench().do(put(1), put(2), put(3));
    expect(pointsOf(bench)).toEqual(['Of 3 leads nobody said whether they were touched.']);
    bench.do({ kind: 'mark-leads', leadIds: [uuid(1)], state: 'out' });
    expect(pointsOf(bench)).toEqual([
      'Lead 1 is unplugged and not back.',
      'Of 2 leads nobody said whether they were touched.',
    ]);
    bench.do(
      { kind: 'mark-leads', leadIds: [uuid(2), uuid(3), uuid(99)], state: 'untouched' },
      { kind: 'mark-leads', leadIds: [uuid(1)], state: 'back' },
    );
    expect(pointsOf(bench)).toEqual([]);
  });
  it('are signed by whoever said it, and only where something changed', () => {
    const bench = new TestBench().do(put(1), put(2, { state: 'back' }));
    const { at } = bench.job.leads[1]!;
    bench.do({ kind: 'mark-leads', leadIds: [uuid(1), uuid(2)], state: 'back' });
    expect(bench.job.leads[1]).toMatchObject({ at, version: bench.job.revision });
    expect(bench.job.leads[0]).toMatchObject({ state: 'back', by: 'mara', version: bench.job.revision });
  });
  it('conflict where two change the same one', () => {
    const bench = new TestBench().do(put(1));
    const seen = bench.job.leads[0]!.version;
    expect(bench.try({ kind: 'put-lead', lead: lead(1, { what: 'Mine' }), basedOn: seen })).toBeNull();
    expect(bench.try({ kind: 'put-lead', lead: lead(1, { what: 'Theirs' }), basedOn: seen })).toMatchObject({
      code: 'stale',
      subject: `lead:${uuid(1)}`,
    });
    expect(bench.job.leads[0]?.what).toBe('Mine');
  });
  it('are out exactly where the last word about them was that they are (any order of words)', () => {
    const word = fc.tuple(fc.integer({ min: 1, max: 6 }), fc.constantFrom(...leadStates));
    fc.assert(
      fc.property(fc.array(word, { maxLength: 25 }), (words) => {
        const bench = new TestBench().do(...[1, 2, 3, 4, 5, 6].map((number) => put(number)));
        const last = new Map<number, string>();
        for (const [number, state] of words) {
          bench.do({ kind: 'mark-leads', leadIds: [uuid(number)], state });
          last.set(number, state);
        }
        const out = [...last].filter(([, state]) => state === 'out').map(([number]) => uuid(number));
        expect(new Set(openLeads(bench.job).out.map(({ id }) => id))).toEqual(new Set(out));
      }),
      { seed: 4, numRuns: 60 },
    );
  });
});

describe('the leads that are likely there', () => {
  it('are those of a front and of what hangs on the parts that came', () => {
    const bench = new TestBench()
      .part('board', 'board')
      .part('drive-35', 'drive')
      .part('drive-card', 'stick')
      .part('lighting-plain', 'lights');
    expect(likelyLeads(bench.job).map(({ kind }) => kind)).toEqual([
      'panel-switch',
      'panel-switch',
      'panel-lamp',
      'panel-lamp',
      'usb-3',
      'audio',
      'processor-fan',
      'light-12',
      'sata-data',
    ]);
  });
  it('are none where no part is known', () => {
    expect(likelyLeads(new TestBench().job)).toEqual([]);
  });
  it('may be those of another machine, without the ones that stand here, each as often as it is there', () => {
    const lead = (kind: Lead['kind'], what: string, place = '') => ({ kind, what, place }) as Lead;
    const from = { leads: [lead('fan', 'Fan 1', 'header 1'), lead('pump', 'Pump'), lead('pump', 'Pump', 'header 9')] };
    expect(copiedLeads(from, { leads: [] })).toEqual(from.leads);
    expect(copiedLeads(from, { leads: [lead('fan', ' fan 1', 'elsewhere'), lead('pump', 'Pump')] })).toEqual([
      { kind: 'pump', what: 'Pump', place: 'header 9' },
    ]);
    expect(copiedLeads(from, from)).toEqual([]);
  });
  it('are steps of taking out and refitting, ticked by what became of them', () => {
    const bench = new TestBench().do(put(1), put(2, { kind: 'light-5' }), put(3, { state: 'untouched' }));
    const steps = (phase: 'take-out' | 'refit') =>
      stepsOf(bench.job, bench.view().cabling, phase).filter(({ lead }) => lead !== null);
    const states = (phase: 'take-out' | 'refit') => steps(phase).map(({ lead, done }) => [lead!.id, done !== null]);
    expect(states('take-out')).toEqual([
      [uuid(1), false],
      [uuid(2), false],
    ]);
    expect(states('refit')).toEqual([]);
    bench.do({ kind: 'mark-leads', leadIds: [uuid(1), uuid(2)], state: 'out' });
    expect(states('take-out').every(([, done]) => done)).toBe(true);
    expect(states('refit')).toEqual([
      [uuid(1), false],
      [uuid(2), false],
    ]);
    bench.do({ kind: 'mark-leads', leadIds: [uuid(2)], state: 'back' });
    expect(states('refit')).toEqual([
      [uuid(1), false],
      [uuid(2), true],
    ]);
    for (const step of [...steps('take-out'), ...steps('refit')])
      expect(stepCaution(step)).toBe(leadCaution(step.lead!.kind));
  });
  it('have a connector in the guide wherever they are said to', () => {
    const ids = Object.values(guideOfLead);
    expect(ids.length).toBeGreaterThan(10);
    for (const id of ids) expect(connectorOf(id), id).toBeDefined();
  });
});
