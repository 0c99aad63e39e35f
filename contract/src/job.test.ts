import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  applyAct,
  basedOnStanding,
  jobLimits,
  newJob,
  partClasses,
  plugKinds,
  roomFor,
  subjectOf,
  versionAt,
  type Act,
  type Job,
} from '@fairwatt/core';
import { valuesOf } from '../../tests/arbitrary.ts';
import { actSchema, jobSchema } from './index.ts';

const uuid = (number: number) => `00000000-0000-4000-8000-${String(number).padStart(12, '0')}`;
const part = (index: number, classIndex: number) => {
  const found = partClasses[classIndex % partClasses.length]!;
  return {
    id: `part-${index}`,
    classId: found.id,
    name: found.name,
    quantity: 1,
    change: 'stays' as const,
    figures: found.figures,
    inlets: found.inlets.map((inlet, position) => ({ ...inlet, id: `part-${index}-${position}` })),
  };
};
const inletId = fc.tuple(fc.nat(4), fc.nat(2)).map(([index, position]) => `part-${index}-${position}`);
const small = fc.nat(3);
const instants = fc.nat(50_000).map((minutes) => new Date(Date.UTC(2026, 0, 1) + minutes * 60_000).toISOString());

/** Acts as people might send them: sensible ones, late ones, and ones about things that are not there. */
const anyAct: fc.Arbitrary<Act> = fc.oneof(
  fc.record({
    kind: fc.constant('edit-sheet' as const),
    changes: fc.record({ words: fc.constantFrom('a', 'b') }),
    basedOn: fc.nat(6),
  }),
  fc.record({
    kind: fc.constant('put-part' as const),
    part: fc.tuple(fc.nat(4), fc.nat(40)).map(([index, classIndex]) => part(index, classIndex)),
    basedOn: small,
  }),
  fc.record({
    kind: fc.constant('drop-part' as const),
    partId: fc.nat(4).map((index) => `part-${index}`),
    basedOn: small,
  }),
  fc.record({
    kind: fc.constant('note-outcome' as const),
    id: fc.nat(30).map(uuid),
    checkId: fc.constantFrom('look-dust', 'do-main'),
    outcomeId: fc.constantFrom('clean', 'home'),
  }),
  fc.record({ kind: fc.constant('take-back-outcome' as const), id: fc.nat(30).map(uuid) }),
  fc.record({
    kind: fc.constant('put-cable' as const),
    cable: fc.record({
      id: fc.nat(3).map(uuid),
      label: fc.constantFrom('A', 'B'),
      socketLabel: fc.constant(''),
      plugs: fc.array(fc.record({ kind: fc.constantFrom(...plugKinds), inletId: fc.option(inletId) }), {
        minLength: 1,
        maxLength: 3,
      }),
      way: fc.constant(''),
      tiesToCut: fc.nat(3),
      likely: fc.constantFrom(undefined, true, false),
    }),
    basedOn: small,
  }),
  fc.record({ kind: fc.constant('drop-cable' as const), cableId: fc.nat(3).map(uuid), basedOn: small }),
  fc.record({
    kind: fc.constant('put-pin' as const),
    pin: fc.record({
      inletId,
      kitCableId: fc.constantFrom('sata', 'bag:x'),
      copy: fc.nat(2),
      plugIndex: fc.nat(3),
      socketLabel: fc.constantFrom(null, 'DRIVE 1'),
    }),
    basedOn: small,
  }),
  fc.record({ kind: fc.constant('drop-pin' as const), inletId, basedOn: small }),
  fc.record({
    kind: fc.constantFrom('tick-step' as const, 'untick-step' as const),
    stepId: fc.constantFrom('take-out:strap', 'refit:tie'),
  }),
  fc.record({
    kind: fc.constant('order-steps' as const),
    phase: fc.constantFrom('take-out' as const, 'refit' as const),
    stepIds: fc.constantFrom([], ['refit:tie']),
    basedOn: small,
  }),
  fc.record({ kind: fc.constant('recheck-seats' as const), inletIds: fc.constantFrom(['a'], ['main-1', 'drive-1']) }),
  fc.record({
    kind: fc.constant('put-seat' as const),
    seat: fc.record({
      inletId,
      cableCode: fc.constantFrom('A', 'C01'),
      plugIndex: fc.nat(2),
      click: fc.boolean(),
      tug: fc.boolean(),
      gap: fc.boolean(),
      halves: fc.boolean(),
      bend: fc.boolean(),
      panel: fc.boolean(),
    }),
    basedOn: small,
  }),
  fc.record({
    kind: fc.constant('sign-off' as const),
    id: fc.nat(9).map(uuid),
    point: fc.constantFrom('no-finding', 'no-choice'),
    reason: fc.constant('agreed'),
  }),
  fc.record({ kind: fc.constant('withdraw-sign-off' as const), id: fc.nat(9).map(uuid) }),
  fc.record({ kind: fc.constant('close' as const), basedOn: small }),
  fc.record({ kind: fc.constant('reopen' as const), basedOn: small }),
);

const empty = newJob('LQ-0001', 'Machine', '', '', 'peaks-covered', '2026-01-01T00:00:00.000Z');
function run(steps: readonly (readonly [Act, string])[], from = empty): { job: Job; taken: number } {
  let job = from;
  let taken = 0;
  for (const [act, at] of steps) {
    // Most senders see the job as it stands; every third one an older state.
    const sent = steps.length % 3 === 0 ? act : basedOnStanding(act, job);
    const result = applyAct(job, sent, {
      by: 'mara',
      at,
      knows: { instrument: () => true, supply: () => true, fault: () => true, outcome: () => true },
      unansweredPoints: () => 0,
    });
    if (result.ok) {
      job = result.job;
      taken += 1;
    }
  }
  return { job, taken };
}

describe('any sequence of acts', () => {
  const steps = fc.array(fc.tuple(anyAct, instants), { maxLength: 60 });
  it('leaves a job that its own format takes', () => {
    fc.assert(
      fc.property(steps, (list) => {
        const { job } = run(list);
        expect(jobSchema.safeParse(job).error).toBeUndefined();
      }),
      { numRuns: 300, seed: 7 },
    );
  });
  it('leaves every inlet with one plug at most, and no plug or tick on an inlet that is not there', () => {
    fc.assert(
      fc.property(steps, (list) => {
        const { job } = run(list);
        const known = new Set(job.parts.flatMap((item) => item.inlets.map((inlet) => inlet.id)));
        const served = job.cables.flatMap((cable) => cable.plugs.flatMap((plug) => plug.inletId ?? []));
        expect(new Set(served).size).toBe(served.length);
        for (const id of [...served, ...job.seats.map((seat) => seat.inletId)]) expect(known.has(id)).toBe(true);
        const answers = job.outcomes
          .filter((outcome) => outcome.takenBackAt === null)
          .map((outcome) => outcome.checkId);
        expect(new Set(answers).size).toBe(answers.length);
        expect((job.state === 'closed') === (job.closed !== null)).toBe(true);
      }),
      { numRuns: 300, seed: 8 },
    );
  });
  it('gives the same job when it is done again', () => {
    fc.assert(
      fc.property(steps, (list) => {
        expect(run(list)).toEqual(run(list));
      }),
      { numRuns: 60, seed: 9 },
    );
  });
  it('of any content that the API takes leaves a job that its own format takes', () => {
    fc.assert(
      fc.property(fc.array(valuesOf(actSchema), { maxLength: 60 }), (list) => {
        const taken = list.flatMap((one) => actSchema.safeParse(one).data ?? []);
        const { job } = run(taken.map((act) => [act, '2026-01-01T00:00:00.000Z'] as const));
        expect(jobSchema.safeParse(job).error).toBeUndefined();
      }),
      { numRuns: 60, seed: 12 },
    );
  });
  it('never grows past what one job holds, and says which list is full', () => {
    const [log] = fc.sample(valuesOf(actSchema.options.find((option) => option.shape.kind.value === 'put-log')!), {
      numRuns: 1,
      seed: 3,
    }) as Extract<Act, { kind: 'put-log' }>[];
    let job = newJob('LQ-0001', 'Machine', '', '', 'peaks-covered', '2026-01-01T00:00:00.000Z');
    const knows = { instrument: () => true, supply: () => true, fault: () => true, outcome: () => true };
    const context = { by: 'mara', at: '2026-01-01T00:00:00.000Z', knows, unansweredPoints: () => 0 };
    for (let count = 0; count < jobLimits.logs; count += 1) {
      const result = applyAct(job, { ...log!, log: { ...log!.log, id: uuid(count) }, basedOn: 0 }, context);
      if (!result.ok) throw new Error(JSON.stringify(result.refusal));
      job = result.job;
    }
    const more = applyAct(job, { ...log!, log: { ...log!.log, id: uuid(99) }, basedOn: 0 }, context);
    expect(more).toEqual({ ok: false, refusal: { code: 'limit', list: 'logs', most: jobLimits.logs } });
    expect(roomFor(job, 'logs')).toBe(0);
    expect(applyAct(job, { kind: 'drop-log', logId: uuid(3), basedOn: job.logs[3]!.version }, context).ok).toBe(true);
  });
  it('gives every change a revision that was never given before', () => {
    fc.assert(
      fc.property(steps, (list) => {
        const seen = new Map<string, number>();
        let job = newJob('LQ-0001', 'Machine', '', '', 'peaks-covered', '2026-01-01T00:00:00.000Z');
        for (const [act, at] of list) {
          const before = job;
          job = run([[basedOnStanding(act, job), at]], job).job;
          if (job === before) continue;
          expect(job.revision).toBe(before.revision + 1);
          const subject = subjectOf(act);
          const version = versionAt(job, subject);
          if (version === 0) continue;
          expect(version).toBe(job.revision);
          expect(version).toBeGreaterThan(seen.get(subject) ?? 0);
          seen.set(subject, version);
        }
      }),
      { numRuns: 200, seed: 13 },
    );
  });
  it('is made of acts that the API takes', () => {
    fc.assert(
      fc.property(anyAct, (act) => {
        expect(actSchema.safeParse(act).error).toBeUndefined();
      }),
      { numRuns: 300, seed: 10 },
    );
  });
});

describe('the job format', () => {
  const job = newJob('LQ-0001', 'Machine', '', '', 'peaks-covered', '2026-01-01T00:00:00.000Z');
  const paths = (wrong: unknown) => jobSchema.safeParse(wrong).error?.issues.map((issue) => issue.path.join('.')) ?? [];
  const board = { ...part(0, 0), version: 1 };
  it.each<[string, unknown, string]>([
    ['a code of another kind', { ...job, code: 'lq-1' }, 'code'],
    ['an instant without milliseconds', { ...job, createdAt: '2026-01-01T00:00:00Z' }, 'createdAt'],
    [
      'shares that do not add up',
      { ...job, parts: [{ ...board, figures: { ...board.figures, share12: 0.9 } }] },
      'parts.0.figures.share12',
    ],
    [
      'a low above the likely',
      { ...job, parts: [{ ...board, figures: { ...board.figures, lowWatts: 999 } }] },
      'parts.0.figures.lowWatts',
    ],
    ['several parts with inlets in one row', { ...job, parts: [{ ...board, quantity: 2 }] }, 'parts.0.quantity'],
    ['control characters in the notes', { ...job, sheet: { ...job.sheet, words: 'a\u0000b' } }, 'sheet.words'],
    [
      'a 1,200 kW card',
      { ...job, parts: [{ ...board, figures: { ...board.figures, highWatts: 1_200_000 } }] },
      'parts.0.figures.highWatts',
    ],
  ])('refuses %s', (_name, wrong, path) => {
    expect(paths(wrong)).toContain(path);
  });
});

describe('a reading', () => {
  const reading = (subject: string, figure: number) => ({
    kind: 'take-reading',
    reading: {
      id: uuid(1),
      phase: 'before',
      subject,
      condition: 'idle',
      value: { kind: 'figure', figure },
      instrumentId: 'bench-meter',
      loadWatts: null,
      note: '',
    },
  });
  it('is refused at its figure where no supply gives that', () => {
    for (const [subject, figure] of [
      ['+12', 61],
      ['power-on', -3],
      ['hold-up', 5001],
      ['ripple +12', -1],
    ] as const)
      expect(actSchema.safeParse(reading(subject, figure)).error?.issues.map(({ path }) => path.join('.'))).toEqual([
        'reading.value.figure',
      ]);
    for (const [subject, figure] of [
      ['+12', -60],
      ['power-on', 0],
      ['ripple +12', 5000],
    ] as const)
      expect(actSchema.safeParse(reading(subject, figure)).success).toBe(true);
  });
});
