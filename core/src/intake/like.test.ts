import { describe, expect, it } from 'vitest';
import { partsAt } from '../machine/index.ts';
import { TestBench, testPart, testShop } from '../job/fixture.test-help.ts';
import { likeEarlier } from './like.ts';

const fitted = testShop.supplies.find(({ id }) => id === 'corvane-650-s')!;

/** A machine that came with one drive, and left with a second one and another supply. */
function earlier(): TestBench {
  const on = new TestBench()
    .part('board', 'board')
    .part('memory-old', 'memory', { quantity: 4 })
    .part('drive-35', 'd1', { name: 'Film drive' })
    .part('drive-35', 'd2', { change: 'added', name: 'New drive' })
    .part('card-8', 'card', { change: 'removed' });
  const label = testShop.supplies[0]!.label;
  return on.do(
    { kind: 'edit-sheet', changes: { layout: 'slim', shapes: ['TFX'], depthMillimetres: 120 }, basedOn: 0 },
    { kind: 'put-supply', supply: { name: 'As it came', label }, basedOn: 0 },
    {
      kind: 'set-choice',
      choice: { kind: 'replace', modelId: fitted.id, known: [], reason: 'fits' },
      basedOn: 0,
    },
  );
}
const ids = () => {
  let serial = 0;
  return () => `like-${(serial += 1)}`;
};
const namesOf = (on: TestBench) => on.job.parts.map(({ quantity, name, change }) => `${quantity} ${name} ${change}`);

describe('a machine like an earlier one', () => {
  it('is as that one left, where its job is closed', () => {
    const old = { ...earlier().job, state: 'closed' as const };
    const on = new TestBench();
    on.do(...likeEarlier(old, fitted, on.job, ids()));
    expect(namesOf(on)).toEqual(partsAt(old.parts, 'planned').map(({ quantity, name }) => `${quantity} ${name} stays`));
    expect(on.job.supply).toMatchObject({ name: fitted.name, label: fitted.label });
    expect(on.job.sheet).toMatchObject({ layout: 'slim', shapes: ['TFX'], depthMillimetres: 120 });
    const inlets = on.job.parts.flatMap((part) => part.inlets.map(({ id }) => id));
    expect(new Set(inlets).size).toBe(inlets.length);
  });
  it('is as that one came, while its job is open', () => {
    const on = new TestBench();
    on.do(...likeEarlier(earlier().job, fitted, on.job, ids()));
    expect(namesOf(on).map((name) => name.replace(/^\d+ /, ''))).toContain(`${testPart('card-8', 'card').name} stays`);
    expect(namesOf(on)).not.toContain('1 New drive stays');
    expect(on.job.supply?.name).toBe('As it came');
  });
  it('keeps a supply that was entered already, and has none where the shop no longer knows the fitted one', () => {
    const old = { ...earlier().job, state: 'closed' as const };
    const on = new TestBench();
    on.do(...likeEarlier(old, null, on.job, ids()));
    expect(on.job.supply).toBeNull();
    on.do({ kind: 'put-supply', supply: { name: 'Mine', label: fitted.label }, basedOn: 0 });
    on.do(...likeEarlier(old, fitted, on.job, ids()).filter(({ kind }) => kind === 'put-supply'));
    expect(on.job.supply?.name).toBe('Mine');
  });
});
