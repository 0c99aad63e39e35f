import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  bareReading,
  basedOnStanding,
  changedBy,
  leadStates,
  newJob,
  proofItems,
  standsAsLeft,
  takeBack,
  type Act,
  type Job,
} from './index.ts';
import { emptyLabel } from '../machine/index.ts';
import { applyAct } from './apply-act.ts';
import { allTicks, testPart, uuid } from './fixture.test-help.ts';

const context = {
  by: 'mara',
  at: '2026-01-01T00:00:00.000Z',
  knows: { instrument: () => true, supply: () => true, fault: () => true, outcome: () => true },
  unansweredPoints: () => 0,
};
const empty = newJob('LQ-0001', 'Machine', 'Client', 'Words', 'peaks-covered', '2026-01-01T00:00:00.000Z');
let ids = 1000;
const newId = () => uuid((ids += 1));

/** The job after acts of somebody who sees it as it stands; what is refused is passed over. */
const after = (job: Job, ...acts: readonly Act[]): Job =>
  acts.reduce((now, act) => {
    const result = applyAct(now, basedOnStanding(act, now), context);
    return result.ok ? result.job : now;
  }, job);

const basedOn = 0;
const fresh = after(
  empty,
  ...['board', 'cpu', 'card'].map((id): Act => {
    const classId = { board: 'board', cpu: 'processor-65', card: 'card-88' }[id]!;
    return { kind: 'put-part', part: testPart(classId, id), basedOn };
  }),
);
const bare = (item: object, ...keys: readonly string[]): object =>
  Object.fromEntries(Object.entries(item).filter(([key]) => !['version', 'by', 'at', ...keys].includes(key)));
const sorted = (list: readonly object[]): object[] =>
  [...list].sort((a, b) => (JSON.stringify(a) < JSON.stringify(b) ? -1 : 1));
const inOrder = (list: readonly object[], ...keys: readonly string[]) =>
  sorted(list.map((item) => bare(item, ...keys)));

/** What a job says, whoever said it and in whatever order; what was struck or taken back says nothing. */
function said(job: Job): object {
  const kinds = new Map(job.parts.flatMap(({ inlets }) => inlets.map(({ id, kind }) => [id, kind] as const)));
  const looked = job.seats.filter(
    ({ inletId, inletKind, click, rechecked }) =>
      (click || rechecked !== null) && (inletKind === null || inletKind === kinds.get(inletId)),
  );
  return {
    sheet: bare(job.sheet, 'fieldRevisions'),
    parts: inOrder(job.parts),
    supply: job.supply === null ? null : bare(job.supply),
    outcomes: inOrder(
      job.outcomes.filter(({ takenBackAt }) => takenBackAt === null),
      'id',
    ),
    readings: inOrder(job.readings.filter(({ struckAt }) => struckAt === null)),
    probes: inOrder(job.probes),
    finding: job.finding === null ? null : bare(job.finding),
    choice: job.choice === null ? null : bare(job.choice),
    cables: inOrder(job.cables.map(({ likely, ...cable }) => ({ ...cable, likely: likely === true }))),
    seats: sorted(looked.map((seat) => ({ ...bare(seat), rechecked: seat.rechecked !== null }))),
    pins: inOrder(job.pins),
    steps: inOrder(job.steps),
    orders: inOrder(job.stepOrders.filter(({ stepIds }) => stepIds.length > 0)),
    ways: inOrder(job.laidWays.filter(({ way }) => way !== '')),
    leads: inOrder(job.leads),
    notes: inOrder(job.notes),
    proofs: inOrder(job.proofs),
    signOffs: inOrder(job.signOffs, 'id'),
    state: job.state,
    why: job.putAway?.reason ?? null,
  };
}

const few = fc.nat(2).map((number) => uuid(number));
const partId = fc.constantFrom('board', 'cpu', 'card');
const inletId = fc.constantFrom('board-1', 'board-2', 'card-1', 'card-2');
const some = <K extends Act['kind']>(kind: K) => fc.constant(kind);
const otherId = fc.nat(1e6).map((number) => uuid(1e6 + number));
const reading = fc.record({
  id: otherId,
  phase: fc.constantFrom('before' as const, 'after' as const),
  value: fc.nat(13).map((figure) => ({ kind: 'figure' as const, figure })),
});
const taken = (one: {
  readonly id: string;
  readonly phase: 'before' | 'after';
  readonly value: { kind: 'figure'; figure: number };
}) => ({
  ...bareReading,
  ...one,
  subject: '+12' as const,
  condition: 'idle' as const,
  instrumentId: 'meter',
});
const modelId = fc.constantFrom('corvane-650-s', 'corvane-750-s');
const choice = fc.oneof(
  fc.constant(null),
  modelId.map((id) => ({ kind: 'replace' as const, modelId: id, reason: '', known: [] })),
  fc.constant({ kind: 'keep' as const, modelId: null, reason: 'enough', known: [] }),
);
const anyAct: fc.Arbitrary<Act> = fc.oneof(
  fc.record({
    kind: some('edit-sheet'),
    changes: fc.record({ words: fc.constantFrom('a', 'b') }),
    basedOn: fc.constant(0),
  }),
  fc
    .tuple(partId, fc.constantFrom('board', 'board-20-aux', 'processor-65', 'card-88', 'fan'))
    .map(([id, classId]): Act => ({ kind: 'put-part', part: testPart(classId, id), basedOn })),
  partId.map((id): Act => ({ kind: 'drop-part', partId: id, basedOn })),
  fc.nat(900).map((watts): Act => ({
    kind: 'put-supply',
    supply: { name: '', label: { ...emptyLabel, ratingWatts: watts } },
    basedOn,
  })),
  fc.constant<Act>({ kind: 'drop-supply', basedOn }),
  fc
    .tuple(otherId, fc.constantFrom('look-dust', 'do-main'), fc.constantFrom('clean', 'home'))
    .map(([id, checkId, outcomeId]): Act => ({ kind: 'note-outcome', id, checkId, outcomeId })),
  reading.map((one): Act => ({ kind: 'take-reading', reading: taken(one) })),
  fc.tuple(few, inletId).map(([id]): Act => ({
    kind: 'put-probe',
    probe: { id, label: 'Card', plug: 'card-8', pins: [], note: '' },
    basedOn,
  })),
  few.map((probeId): Act => ({ kind: 'drop-probe', probeId, basedOn })),
  fc.boolean().map((confirmed): Act => ({
    kind: 'set-finding',
    finding: { kind: 'no-fault', faultId: null, confirmed, note: '' },
    basedOn,
  })),
  fc.constant<Act>({ kind: 'set-finding', finding: null, basedOn }),
  choice.map((one): Act => ({ kind: 'set-choice', choice: one, basedOn })),
  fc.tuple(few, fc.uniqueArray(inletId, { maxLength: 3 }), fc.boolean()).map(([id, inlets, likely]): Act => ({
    kind: 'put-cable',
    cable: {
      id,
      label: 'A',
      socketLabel: '',
      plugs: inlets.map((at) => ({ kind: 'sata', inletId: at })),
      way: '',
      tiesToCut: 0,
      likely,
    },
    basedOn,
  })),
  few.map((cableId): Act => ({ kind: 'drop-cable', cableId, basedOn })),
  fc.tuple(few, fc.option(few), inletId, inletId).map(([cableId, otherCableId, one, other]): Act => ({
    kind: 'swap-inlets',
    cableId,
    otherCableId,
    inletId: one,
    otherInletId: other,
    basedOn,
  })),
  fc.tuple(inletId, fc.nat(2)).map(([at, plugIndex]): Act => ({
    kind: 'put-pin',
    pin: { inletId: at, kitCableId: 'card', copy: 0, plugIndex, socketLabel: null },
    basedOn,
  })),
  inletId.map((at): Act => ({ kind: 'drop-pin', inletId: at, basedOn })),
  fc.tuple(inletId, fc.boolean(), fc.constantFrom('A', 'N1')).map(([at, tug, cableCode]): Act => ({
    kind: 'put-seat',
    seat: { inletId: at, cableCode, piece: '', plugIndex: 0, ...allTicks, tug },
    basedOn,
  })),
  fc.uniqueArray(inletId, { maxLength: 3 }).map((inletIds): Act => ({ kind: 'recheck-seats', inletIds })),
  fc.record({
    kind: fc.constantFrom('tick-step' as const, 'untick-step' as const),
    stepId: fc.constantFrom('a', 'take-out:b'),
  }),
  fc
    .constantFrom([], ['a'], ['a', 'b'])
    .map((stepIds): Act => ({ kind: 'order-steps', phase: 'refit', stepIds, basedOn })),
  fc.constantFrom('', 'along the edge').map((way): Act => ({ kind: 'lay-cable', cable: 'card 0', way, basedOn })),
  fc.tuple(few, fc.constantFrom(...leadStates)).map(([id, state]): Act => ({
    kind: 'put-lead',
    lead: { id, kind: 'panel-switch', what: 'Switch', place: '', state },
    basedOn,
  })),
  few.map((leadId): Act => ({ kind: 'drop-lead', leadId, basedOn })),
  fc
    .tuple(fc.uniqueArray(few), fc.constantFrom(...leadStates))
    .map(([leadIds, state]): Act => ({ kind: 'mark-leads', leadIds, state })),
  fc.tuple(few, fc.constantFrom('seen', 'heard')).map(([id, text]): Act => ({
    kind: 'put-note',
    note: { id, text, photoId: null, inReport: false },
    basedOn,
  })),
  few.map((noteId): Act => ({ kind: 'drop-note', noteId, basedOn })),
  fc
    .tuple(fc.constantFrom(...proofItems), fc.boolean())
    .map(([item, holds]): Act => ({ kind: 'note-proof', item, holds, note: '', basedOn })),
  fc.constantFrom(...proofItems).map((item): Act => ({ kind: 'drop-proof', item, basedOn })),
  fc
    .tuple(otherId, fc.constantFrom('no-finding', 'no-choice'))
    .map(([id, point]): Act => ({ kind: 'sign-off', id, point, reason: 'agreed' })),
  // Opened again more often than closed: a closed job takes nothing else.
  fc.constantFrom<Act>(
    ...[{ kind: 'close', basedOn } as const, { kind: 'put-away', reason: 'twice', basedOn } as const],
    ...Array<Act>(8).fill({ kind: 'reopen', basedOn }),
  ),
);
/** Acts about something that is there only where others were done before. */
function follows(job: Job, pick: number): Act[] {
  const one = <T>(list: readonly T[]): readonly T[] => (list.length === 0 ? [] : [list[pick % list.length]!]);
  return [
    ...one(job.outcomes).map(({ id }): Act => ({ kind: 'take-back-outcome', id })),
    ...one(job.readings).flatMap(({ id, phase }): Act[] => {
      const corrected = taken({ id: newId(), phase, value: { kind: 'figure', figure: pick % 13 } });
      return [
        { kind: 'strike-reading', id },
        { kind: 'restore-reading', id },
        { kind: 'correct-reading', reading: { ...corrected, replaces: id } },
      ];
    }),
    ...one(job.cables).flatMap(({ id: cableId, plugs }) =>
      one(plugs).flatMap(({ inletId: first }): Act[] => {
        const other = one(job.cables.filter(({ id }) => id !== cableId))[0];
        const second = other?.plugs[0]?.inletId ?? null;
        if (other === undefined || first === null || second === null) return [];
        const both = { inletId: first, otherInletId: second };
        return [{ kind: 'swap-inlets', cableId, otherCableId: other.id, ...both, basedOn }];
      }),
    ),
    ...one(job.parts).map((part): Act => ({ kind: 'drop-part', partId: part.id, basedOn })),
    ...one(job.pins).map((pin): Act => ({ kind: 'drop-pin', inletId: pin.inletId, basedOn })),
    ...one(job.proofs).map(({ item }): Act => ({ kind: 'drop-proof', item, basedOn })),
    ...one(job.signOffs).map(({ id }): Act => ({ kind: 'withdraw-sign-off', id })),
  ];
}

/** Every kind of act. */
const allKinds = [
  ...['close', 'correct-reading', 'drop-cable', 'drop-lead', 'drop-note', 'drop-part', 'drop-pin', 'drop-probe'],
  ...['drop-proof', 'drop-supply', 'edit-sheet', 'lay-cable', 'mark-leads', 'note-outcome', 'note-proof'],
  ...['order-steps', 'put-away', 'put-cable', 'put-lead', 'put-note', 'put-part', 'put-pin', 'put-probe', 'put-seat'],
  ...['put-supply', 'recheck-seats', 'reopen', 'restore-reading', 'set-choice', 'set-finding', 'sign-off'],
  ...['strike-reading', 'swap-inlets', 'take-back-outcome', 'take-reading', 'tick-step', 'untick-step'],
  'withdraw-sign-off',
];

describe('what was done', () => {
  const walk = fc.tuple(fc.array(anyAct, { maxLength: 40, size: 'max' }), fc.nat(1000), anyAct);

  it('is as if it had not been, once it is taken back, whatever it was and whatever stood before', () => {
    const kinds = new Set<string>();
    fc.assert(
      fc.property(walk, ([acts, pick, last]) => {
        const before = after(fresh, ...acts);
        for (const act of [last, ...follows(before, pick)]) {
          const left = after(before, act);
          if (left === before) continue;
          const back = takeBack(before, left, act, newId);
          expect(standsAsLeft(left, left, back)).toBe(true);
          expect(said(after(left, ...back))).toEqual(said(before));
          kinds.add(act.kind);
        }
      }),
      { numRuns: 600, seed: 21 },
    );
    expect(allKinds.filter((kind) => !kinds.has(kind)).join(' ')).toEqual('');
  });

  it('stands as it was left until somebody makes something else of it', () => {
    let changed = 0;
    const subjects = (acts: readonly Act[]) =>
      new Set(acts.flatMap(changedBy).filter((subject) => subject !== 'leads' && subject !== 'recheck'));
    fc.assert(
      fc.property(walk, fc.array(anyAct, { maxLength: 6, size: 'max' }), ([acts, pick, last], others) => {
        const before = after(fresh, ...acts);
        const left = after(before, last);
        const back = takeBack(before, left, last, newId);
        for (const other of [...others, ...follows(left, pick)]) {
          const now = after(left, other);
          const isSame = JSON.stringify(said(now)) === JSON.stringify(said(left));
          // The same answer given again is somebody else's.
          if (isSame && other.kind === 'note-outcome') continue;
          if (isSame) expect(standsAsLeft(left, now, back)).toBe(true);
          else if ([...subjects([other])].some((subject) => subjects(back).has(subject))) {
            changed += 1;
            expect(standsAsLeft(left, now, back)).toBe(false);
          }
        }
      }),
      { numRuns: 600, seed: 22 },
    );
    expect(changed).toBeGreaterThan(100);
  });
});
