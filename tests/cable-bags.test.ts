import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { crossingOf, faceOfPlug, spareVerdict, walkOf, type InletKind } from '@fairwatt/core';
import type { BagCable, CableBags, Pinout, Problem } from '@fairwatt/contract';
import { startServer, type RunningServer } from './running-server.ts';

let server: RunningServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(async () => {
  await server.end();
});
const bags = async () => (await server.call<CableBags>('/cable-bags')).body;
const putCable = <T = CableBags>(cable: BagCable, basedOn = cable.version, by = 'joss') =>
  server.call<T>('/cable-bags/cables', { by, basedOn, cable }, 'PUT');
const putPinout = <T = CableBags>(pinout: Pinout, basedOn = pinout.version) =>
  server.call<T>('/cable-bags/pinouts', { by: 'joss', basedOn, pinout }, 'PUT');
type Walk = { readonly job: string; readonly probeId: string };
const prove = <T = CableBags>(cableId: string, modelId: string, walks: readonly Walk[], proved = true) =>
  server.call<T>('/cable-bags/proofs', { by: 'edda', cableId, modelId, note: 'probed', proved, walks }, 'PUT');

/** A walk along a plug in a job of its own, in which every pin showed what it must, but for pins of the caller's. */
async function walk(plug: InletKind, pins: Readonly<Record<number, number>> = {}): Promise<Walk> {
  const { code } = await server.make();
  const probeId = randomUUID();
  const probed = walkOf(plug, '2.x').map(({ pin, expects }) => ({
    pin,
    value: {
      kind: 'figure' as const,
      figure: pins[pin] ?? (expects.kind === 'rail' ? (expects.lower + expects.upper) / 2 : 0),
    },
    ...(expects.kind === 'ground' ? { ground: { kind: 'continuity' as const, heard: true } } : {}),
  }));
  await server.act(code, {
    kind: 'put-probe',
    probe: { id: probeId, label: 'From the drawer', plug, pins: probed, note: '' },
    basedOn: 0,
  });
  return { job: code, probeId };
}

describe('cable bags', () => {
  it(
    "hold the demo shop's spare cables: safe at home, harmful on another maker's row, unknown " + 'from a drawer',
    async () => {
      const { cables, pinouts } = await bags();
      const word = (label: string, modelId: string) => {
        const cable = cables.find((item) => item.label === label)!;
        const pinout =
          pinouts
            .find((item) => item.supplies.includes(modelId))
            ?.sockets.find((socket) => socket.family === cable.family) ?? null;
        return cable.plugs.map((plug) => crossingOf(pinout, { plug: plug.kind, ends: plug.ends }).word);
      };
      expect(word('BAG-01', 'corvane-650-s')).toEqual(['safe']);
      expect(word('BAG-01', 'tarnwick-quiet-600')).toEqual(['harmful']);
      expect(word('BAG-02', 'corvane-650-s')).toEqual(['safe', 'safe']);
      expect(word('BAG-02', 'tarnwick-quiet-600')).toEqual(['harmful', 'harmful']);
      expect(word('BAG-03', 'corvane-650-s')).toEqual(['unknown']);
      expect(word('BAG-04', 'corvane-650-s')).toEqual(['safe']);
      expect(word('BAG-04', 'tarnwick-quiet-600')).toEqual(['unknown']);
      expect(word('BAG-05', 'corvane-750-s')).toEqual(['safe']);
      // Its two plugs stand in card sockets; one of the contacts that code its watts has come out.
      const sixteen = cables.find((item) => item.label === 'BAG-06')!;
      const found = spareVerdict(await bags(), sixteen, 'corvane-1000-s');
      expect([found.word, found.code]).toEqual(['safe', 'by-print']);
    },
  );
  it('take a cable, change it on the version that was seen, and drop it', async () => {
    const cable: BagCable = {
      id: randomUUID(),
      version: 0,
      label: 'BAG-09',
      place: 'C 6',
      family: 'drive',
      cameWith: '',
      note: '',
      gauge: null,
      twoEnded: false,
      codedWatts: null,
      plugs: [{ kind: 'peripheral-4', millimetres: 400, ends: [1, [2, 5], 'none', null] }],
    };
    expect((await putCable(cable)).body.cables).toContainEqual({ ...cable, version: 1 });
    // A cable of drives with two plugs at the supply is refused at its field.
    const twice = await putCable<Problem>({ ...cable, id: randomUUID(), twoEnded: true });
    expect([twice.status, JSON.stringify(twice.body).includes('twoEnded')]).toEqual([422, true]);
    // The same again is what stands there; something else, based on nothing, is a conflict.
    expect((await putCable<Problem>(cable)).status).toBe(200);
    expect((await putCable<Problem>({ ...cable, label: 'Other' })).status).toBe(409);
    expect((await putCable<Problem>({ ...cable, plugs: [] }, 1)).body.errors?.[0]?.path).toBe('cable.plugs');
    expect(
      (await putCable<Problem>({ ...cable, plugs: [{ ...cable.plugs[0]!, ends: [1, 2, 3, 4, 5] }] }, 1)).body
        .errors?.[0]?.path,
    ).toBe('cable.plugs.0.ends');
    expect((await putCable<Problem>({ ...cable, version: 1 }, 1, 'nobody')).body.type).toBe(
      '/problems/unknown-technician',
    );
    const remove = <T>() => server.call<T>(`/cable-bags/cables/${cable.id}?by=joss`, {}, 'DELETE');
    expect((await remove<CableBags>()).body.cables.some((item) => item.id === cable.id)).toBe(false);
    expect((await remove<Problem>()).status).toBe(404);
  });
  it('keep who proved a cable on what; new wires undo it, and harm cannot be proved away', async () => {
    const drawer = (await bags()).cables.find((item) => item.label === 'BAG-03')!;
    const walked = await walk('card-8');
    const proved = (await prove(drawer.id, 'corvane-650-s', [walked])).body.proofs;
    expect(proved).toMatchObject([{ cableId: drawer.id, modelId: 'corvane-650-s', by: 'edda', note: 'probed' }]);
    await putCable({ ...drawer, place: 'C 6' });
    expect((await bags()).proofs).toHaveLength(1);
    await putCable({ ...drawer, place: 'C 6', plugs: [{ ...drawer.plugs[0]!, ends: [2, 1] }] }, drawer.version + 1);
    expect((await bags()).proofs).toEqual([]);
    const processor = (await bags()).cables.find((item) => item.label === 'BAG-01')!;
    expect((await prove<Problem>(processor.id, 'tarnwick-quiet-600', [])).body.type).toBe('/problems/harmful');
    expect((await prove<Problem>(processor.id, 'no-such', [])).body.errors?.[0]?.path).toBe('modelId');
    await prove(processor.id, 'corvane-750-b', [await walk('cpu-8')]);
    expect((await prove(processor.id, 'corvane-750-b', [], false)).body.proofs).toEqual([]);
  });
  it('prove a cable by walks alone: of its own plugs, each safe, none twice', async () => {
    const chain = (await bags()).cables.find((item) => item.label === 'BAG-02')!;
    expect(chain.plugs).toHaveLength(2);
    const plug = faceOfPlug[chain.plugs[0]!.kind];
    const refused = async (walks: readonly Walk[]) =>
      (await prove<Problem>(chain.id, 'corvane-750-b', walks)).body.errors?.[0]?.message;
    const [one, two] = [await walk(plug), await walk(plug)];
    expect(await refused([])).toMatch(/no safe walk of .+, .+/);
    expect(await refused([one, one])).toMatch(/no safe walk of [^,]+$/);
    expect(await refused([one, await walk('cpu-4')])).toMatch(/no safe walk/);
    expect(await refused([one, await walk(plug, { 1: 7 })])).toMatch(/no safe walk/);
    expect(await refused([one, { job: 'LQ-9999', probeId: two.probeId }])).toMatch(/no safe walk/);
    expect((await prove(chain.id, 'corvane-750-b', [one, two])).body.proofs).toMatchObject([{ cableId: chain.id }]);
    await prove(chain.id, 'corvane-750-b', [], false);
  });
  it("know each supply's sockets once", async () => {
    const { pinouts } = await bags();
    const other: Pinout = {
      id: 'other-back',
      version: 0,
      name: 'Another back panel',
      sockets: [{ family: 'cpu', pins: ['12', null, 'G'] }],
      supplies: ['corvane-650-s'],
    };
    const after = (await putPinout(other)).body.pinouts;
    expect(after.find((item) => item.id === 'other-back')).toEqual({ ...other, version: 1 });
    expect(after.find((item) => item.id === 'corvane-back')!.supplies).not.toContain('corvane-650-s');
    expect((await putPinout<Problem>(other)).status).toBe(200);
    expect((await putPinout<Problem>({ ...other, name: 'Another name' })).status).toBe(409);
    expect((await putPinout<Problem>({ ...other, version: 1, supplies: ['ghost'] })).body.errors?.[0]?.path).toBe(
      'pinout.supplies.0',
    );
    expect(
      (await putPinout<Problem>({ ...other, version: 1, sockets: [other.sockets[0]!, other.sockets[0]!] })).body
        .errors?.[0]?.path,
    ).toBe('pinout.sockets');
    expect(pinouts.length).toBeGreaterThan(1);
  });
});
