import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { checkPlan, planCables, usualRules, type CableKit, type InletToServe, type KitCable } from './index.ts';
import {
  endFamily,
  endsAtSupply,
  roomFor,
  socketChoices,
  socketsLabel,
  socketsNamed,
  socketsTake,
} from './supply-ends.ts';

const main: KitCable = {
  id: 'main',
  family: 'main',
  fixed: false,
  twoEnded: true,
  count: 1,
  gauge: 18,
  plugs: [{ kind: 'main-20+4', millimetres: 600 }],
};
const sixteen: KitCable = {
  ...main,
  id: 'sixteen',
  family: 'card-16',
  gauge: 16,
  codedWatts: 600,
  plugs: [{ kind: 'card-16', millimetres: 600 }],
};
const card: KitCable = {
  ...main,
  id: 'card',
  family: 'card',
  twoEnded: false,
  count: 2,
  plugs: [{ kind: 'card-6+2', millimetres: 600 }],
};
const processor: KitCable = { ...card, id: 'cpu', family: 'cpu', plugs: [{ kind: 'cpu-4+4', millimetres: 650 }] };
const sockets: CableKit['sockets'] = [
  { label: 'MAIN 18', kind: 'main' },
  { label: 'MAIN 10', kind: 'main' },
  { label: 'P1', kind: 'cpu-card' },
  { label: 'P2', kind: 'cpu-card' },
  { label: 'P3', kind: 'cpu-card' },
  { label: 'P4', kind: 'cpu-card' },
];
const inlet = (id: string, kind: InletToServe['kind'], place: InletToServe['place'], amps12: number): InletToServe => ({
  id,
  kind,
  optional: false,
  place,
  reachMillimetres: 450,
  amps12,
  amps5: 0,
  amps33: 0,
});
const board = [inlet('board', 'main-24', 'board-edge', 4), inlet('cpu', 'cpu-8', 'board-top', 12)];
const big = inlet('big card', 'card-16', 'slots', 36);

describe('the ends of a cable at the supply', () => {
  it('are none of a fixed one, and two where it says so', () => {
    expect([main, sixteen, card, { ...card, fixed: true }].map(endsAtSupply)).toEqual([2, 2, 1, 0]);
    expect([main, sixteen, card].map(endFamily)).toEqual(['main', 'card', 'card']);
    expect([main, sixteen, card].map(roomFor)).toEqual([
      { own: 2, pairs: 0 },
      { own: 0, pairs: 1 },
      { own: 1, pairs: 0 },
    ]);
  });
  it('have a name that leads back to their sockets, whatever the sockets are called', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.constantFrom('P1', 'P2', 'P1 + P2', 'P2 + P3', 'P3', '+', 'P1 + P2 + P3', ' '), {
          minLength: 2,
          maxLength: 6,
        }),
        fc.nat(5),
        fc.nat(5),
        (labels, a, b) => {
          const kit = { sockets: labels.map((label) => ({ label: label.trim() || 'blank', kind: 'card' as const })) };
          const [first, second] = [kit.sockets[a % labels.length]!, kit.sockets[b % labels.length]!];
          expect(socketsNamed(kit, first.label)).toEqual([first]);
          if (first === second) return;
          const name = socketsLabel([first, second]);
          expect(socketsLabel(socketsNamed(kit, name)!)).toBe(name);
        },
      ),
      { seed: 20261128, numRuns: 500 },
    );
    expect(socketsNamed({ sockets }, ' P1 + P3 ')?.map(({ label }) => label)).toEqual(['P1', 'P3']);
    for (const none of ['P1 + P1', 'P1 + P9', 'P9', '', 'P1 +', 'P1 + P2 + P3'])
      expect(socketsNamed({ sockets }, none)).toBeNull();
  });
  it('are taken by sockets of their family, each of them', () => {
    const take = (name: string, cable: KitCable) => socketsTake(socketsNamed({ sockets }, name)!, cable);
    expect(take('MAIN 18 + MAIN 10', main)).toBe(true);
    expect(take('MAIN 18', main)).toBe(false);
    expect(take('P1 + P2', sixteen)).toBe(true);
    expect(take('P1 + MAIN 10', sixteen)).toBe(false);
    expect(take('P1 + P2', card)).toBe(false);
    expect(socketChoices(sockets, main)).toEqual(['MAIN 18 + MAIN 10']);
    expect(socketChoices(sockets, sixteen)).toHaveLength(6);
    expect(socketChoices(sockets, card)).toEqual(['P1', 'P2', 'P3', 'P4']);
  });
});

describe('a plan with cables of two ends', () => {
  const kit: CableKit = { sockets, cables: [main, processor, sixteen, card] };
  const labels = (inlets: readonly InletToServe[], pins: Parameters<typeof planCables>[2] = usualRules) =>
    Object.fromEntries(planCables(kit, inlets, pins).assignments.map((item) => [item.inletId, item.socketLabel]));

  it('gives each end its socket', () => {
    expect(labels([...board, big])).toEqual({ board: 'MAIN 18 + MAIN 10', cpu: 'P1', 'big card': 'P2 + P3' });
  });
  it('leaves the card that needs two sockets open where others take them, and says that sockets are short', () => {
    const two = [inlet('card 1', 'card-8', 'slots', 10), inlet('card 2', 'card-8', 'slots', 10)];
    const plan = planCables(kit, [...board, ...two, big]);
    expect(plan.open.map(({ inletId, reason }) => [inletId, reason])).toEqual([['big card', 'no-socket']]);
    expect(plan.proved).toBe(true);
  });
  it('takes no main cable with two ends where there is one main socket', () => {
    const lame = { ...kit, sockets: sockets.slice(1) };
    expect(planCables(lame, board).open.map(({ inletId }) => inletId)).toEqual(['board']);
  });
  it('keeps the sockets that a hand chose, and refuses what does not take both ends', () => {
    const pin = (socketLabel: string) => ({
      ...usualRules,
      pins: [{ inletId: 'big card', kitCableId: 'sixteen', copy: 0, plugIndex: 0, socketLabel }],
    });
    expect(labels([...board, big], pin('P1 + P4'))).toMatchObject({ 'big card': 'P1 + P4', cpu: 'P2' });
    for (const wrong of ['P1', 'P1 + MAIN 10', 'P1 + P9'])
      expect(planCables(kit, [...board, big], pin(wrong)).refused.map(({ code }) => code)).toEqual(['socket-kind']);
  });
  it('is found unlawful where two cables meet in one socket, or one end hangs free', () => {
    const plan = planCables(kit, [...board, big]);
    const moved = (from: string, to: string) =>
      checkPlan(
        kit,
        [...board, big],
        plan.assignments.map((item) => (item.socketLabel === from ? { ...item, socketLabel: to } : item)),
        usualRules,
      ).map(({ code }) => code);
    expect(moved('P2 + P3', 'P2 + P3')).toEqual([]);
    expect(moved('P2 + P3', 'P1 + P3')).toEqual(['socket-twice']);
    expect(moved('P2 + P3', 'P3')).toEqual(['socket-kind']);
    expect(moved('MAIN 18 + MAIN 10', 'MAIN 18')).toEqual(['socket-kind']);
  });
});
