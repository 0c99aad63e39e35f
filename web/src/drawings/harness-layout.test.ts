import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { casePlaces, type InletRow } from '@fairwatt/core';
import { layOut, leastPitch, socketPlaces, type DrawnSocket } from './harness-layout.ts';

describe('sockets on the panel', () => {
  it('stand in the middle of their inlets where there is room', () => {
    expect(socketPlaces([[60], [120, 180], [300]], 400)).toEqual([60, 150, 300]);
  });
  it('keep their order and their distance whatever hangs on them', () => {
    fc.assert(
      fc.property(
        fc.array(fc.array(fc.integer({ min: 40, max: 900 }), { maxLength: 5 }), { minLength: 1, maxLength: 24 }),
        (inlets) => {
          const height = 30 + Math.max(600, inlets.length * leastPitch + 44);
          const ys = socketPlaces(inlets, height);
          ys.forEach((y, index) => {
            expect(y).toBeGreaterThanOrEqual(46 - 1e-9);
            expect(y).toBeLessThanOrEqual(height - 22 + 1e-9);
            if (index > 0) expect(y - ys[index - 1]!).toBeGreaterThanOrEqual(leastPitch - 1e-9);
          });
        },
      ),
      { seed: 3 },
    );
  });
});

/** An inlet at a place, with a cable from a socket, or none. */
const row = (index: number, place: InletRow['place'], socket: number | null): InletRow => ({
  ...{ inletId: `i${index}`, partId: 'p', kind: 'sata', label: `Drive ${index}`, partName: 'Drive', optional: false },
  ...{ place, state: 'to-seat', cableCode: socket === null ? null : `C${socket}`, plugKind: 'sata', plugIndex: 0 },
  ...{ socketLabel: socket === null ? null : `S${socket}`, kitCableId: null, copy: null, adapterId: null, legs: [] },
  ...{ adapterLabel: null, pinned: false, slackMillimetres: null, openReason: null, breaches: [], seat: null },
});
const socket = (index: number): DrawnSocket => ({ key: `S${index}`, label: `S${index}`, used: true, plugged: false });

describe('a harness', () => {
  it('has every inlet once, in the frame of its place, none upon another, and all within its height', () => {
    const inlets = fc.array(fc.tuple(fc.constantFrom(...casePlaces), fc.option(fc.nat(7))), {
      minLength: 1,
      maxLength: 40,
    });
    fc.assert(
      fc.property(inlets, fc.integer({ min: 0, max: 8 }), (list, count) => {
        const rows = list.map(([place, from], index) => row(index, place, from));
        const sockets = Array.from({ length: count }, (_, index) => socket(index));
        const { frames, order, yOfInlet, height, endsOf, cableIn } = layOut(rows, sockets);
        expect([...order].sort((a, b) => rows.indexOf(a) - rows.indexOf(b))).toEqual(rows);
        let last = 0;
        for (const frame of frames) {
          expect(frame.top).toBeGreaterThan(last);
          for (const item of frame.rows) {
            const y = yOfInlet(item.inletId);
            expect(item.place).toBe(frame.place);
            expect(y - last).toBeGreaterThanOrEqual(11);
            last = y;
          }
          expect(frame.bottom).toBeGreaterThan(last);
          last = frame.bottom;
        }
        expect(last).toBeLessThanOrEqual(height);
        for (const item of rows) expect(endsOf(item).map(({ key }) => key)).toEqual([item.socketLabel ?? []].flat());
        for (const { key } of sockets)
          expect(cableIn(key)).toBe(rows.find(({ socketLabel }) => socketLabel === key)?.cableCode ?? null);
      }),
      { seed: 4 },
    );
  });
  it('lays the inlets of a place in the order of their sockets, those without a cable last', () => {
    const rows = [row(0, 'front', null), row(1, 'front', 2), row(2, 'front', 0)];
    expect(layOut(rows, [0, 1, 2].map(socket)).order.map(({ inletId }) => inletId)).toEqual(['i2', 'i1', 'i0']);
  });
  it('draws both ends of a cable that takes two sockets', () => {
    const both = { ...row(0, 'slots', 1), socketLabel: 'S1 + S2' };
    const { endsOf, cableIn } = layOut([both], [0, 1, 2].map(socket));
    expect(endsOf(both)).toEqual([
      { cableCode: 'C1', key: 'S1' },
      { cableCode: 'C1', key: 'S2' },
    ]);
    expect([0, 1, 2].map((index) => cableIn(`S${index}`))).toEqual([null, 'C1', 'C1']);
  });
});
