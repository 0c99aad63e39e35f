import { boundToBe } from '../bound-to-be.ts';
import { inletFamily, type InletKind } from '../standards/index.ts';
import { partsAt, type Inlet } from '../machine/index.ts';
import { faceOfPlug, mayHaveTwoEnds, socketChoices, socketsNamed, socketsTake, type CableKit } from '../cable/index.ts';
import { inletOfRow, type Cabling, type InletRow } from './cabling.ts';
import { foundHarms } from './found-harms.ts';
import type { Job, RecordedCable } from './job.ts';
import { nextCableLabel, usualPlug, usualPlugs } from './likely-harness.ts';

/** A cable that the record does not hold yet. */
export type NewCable = Omit<RecordedCable, 'version'>;

/** The cable that a recorded plug in this inlet belongs to; null where nobody recorded one. */
export const cableAt = (cables: readonly RecordedCable[], inletId: string): RecordedCable | null =>
  cables.find(({ plugs }) => plugs.some((plug) => plug.inletId === inletId)) ?? null;

/**
 * The machine as it came, inlet by inlet, with what is recorded of it: `seated` where somebody looked at the cable,
 * `to-seat` where it is only likely, `wrong` where it goes through an adapter that may not be, `open` where nothing is
 * recorded.
 */
export function recordedRows(job: Pick<Job, 'parts' | 'cables' | 'sheet'>): InletRow[] {
  const harms = foundHarms(job);
  return partsAt(job.parts, 'present').flatMap((part) =>
    part.inlets.map((inlet): InletRow => {
      const cable = cableAt(job.cables, inlet.id);
      const plugIndex = cable?.plugs.findIndex(({ inletId }) => inletId === inlet.id) ?? null;
      const plug = plugIndex === null ? null : (cable?.plugs[plugIndex] ?? null);
      return {
        ...inletOfRow(part, inlet),
        state: cable === null ? 'open' : harms.has(inlet.id) ? 'wrong' : cable.likely === true ? 'to-seat' : 'seated',
        cableCode: cable?.label ?? null,
        socketLabel: cable === null || cable.socketLabel === '' ? null : cable.socketLabel,
        plugKind: plug === null ? null : (plug.through?.gives ?? plug.kind),
        plugIndex,
        kitCableId: null,
        copy: null,
        adapterId: null,
        adapterLabel: null,
        legs: [],
        pinned: false,
        slackMillimetres: null,
        openReason: null,
        breaches: [],
        seat: null,
      };
    }),
  );
}

/**
 * Whether a socket of a supply, or the two of a cable with two ends, takes a cable to such an inlet; null where nobody
 * knows that socket, such as one of a supply that the shop's list does not have.
 */
export function socketAccepts(kit: CableKit | null, socketLabel: string, kind: InletKind): boolean | null {
  const sockets = kit === null ? null : socketsNamed(kit, socketLabel);
  if (sockets === null) return null;
  const family = inletFamily(kind);
  const twoEnded = sockets.length === 2;
  if (twoEnded && !mayHaveTwoEnds(family)) return false;
  return socketsTake(sockets, { family, fixed: false, twoEnded });
}

/** The sockets that a recorded cable to such inlets can come from, as they are named: one each, and pairs of them. */
export function socketsToRecord(kit: CableKit, kinds: readonly InletKind[]): readonly string[] {
  const takes = (name: string) => kinds.every((kind) => socketAccepts(kit, name, kind) === true);
  const family = kinds[0] === undefined ? null : inletFamily(kinds[0]);
  const pairs = family === null ? [] : socketChoices(kit.sockets, { family, fixed: false, twoEnded: true });
  return [...kit.sockets.map(({ label }) => label), ...pairs].filter(takes);
}

/** A cable out of a socket of the supply, or a fixed one where it is empty, to its first inlet. */
export const newCable = (
  job: Pick<Job, 'cables'>,
  id: string,
  socketLabel: string,
  inlet: Pick<Inlet, 'id' | 'kind'>,
): NewCable => ({
  id,
  label: nextCableLabel(job.cables.map(({ label }) => label)),
  socketLabel,
  plugs: [{ kind: usualPlug[inlet.kind], inletId: inlet.id }],
  way: '',
  tiesToCut: 0,
});

/**
 * What an inlet that is pointed at does to the cable in hand: it is one more of its plugs; it is `another` cable's,
 * where this one has as many plugs as such cables usually have; or it cannot be of this cable, which is in a socket and
 * of another family.
 */
export function pointedAt(
  cable: Pick<RecordedCable, 'plugs' | 'socketLabel'>,
  inlet: Pick<Inlet, 'kind'>,
): 'more' | 'another' | 'no' {
  const family = inletFamily(inlet.kind);
  const fixed = cable.socketLabel === '';
  if (cable.plugs.some(({ kind }) => inletFamily(faceOfPlug[kind]) !== family)) return fixed ? 'another' : 'no';
  return fixed && cable.plugs.length >= usualPlugs[family] ? 'another' : 'more';
}

/** A cable with one more plug in it: one of its own that hangs free, else one like the inlet usually has. */
export function withInlet<C extends Pick<RecordedCable, 'plugs'>>(cable: C, inlet: Pick<Inlet, 'id' | 'kind'>): C {
  const kind = usualPlug[inlet.kind];
  const free = cable.plugs.findIndex((plug) => plug.inletId === null && plug.kind === kind);
  const plugs =
    free >= 0
      ? cable.plugs.map((plug, index) => (index === free ? { kind, inletId: inlet.id } : plug))
      : [...cable.plugs, { kind, inletId: inlet.id }];
  return { ...cable, plugs };
}

/** A harness that is to be found again in another machine. */
export interface HarnessSource {
  readonly inlets: readonly Pick<Inlet, 'id' | 'kind' | 'label'>[];
  readonly cables: readonly Pick<RecordedCable, 'label' | 'socketLabel' | 'plugs' | 'way' | 'tiesToCut'>[];
}

/**
 * The harness that an earlier job's machine left with: what was planned and fitted where its supply was replaced and
 * the job is closed, what was recorded otherwise.
 */
export function harnessOf(
  earlier: Pick<Job, 'parts' | 'cables' | 'state' | 'choice'>,
  cabling: Pick<Cabling, 'rows'>,
): HarnessSource {
  const left = earlier.state === 'closed';
  const inlets = partsAt(earlier.parts, left ? 'planned' : 'present').flatMap((part) => part.inlets);
  if (!left || earlier.choice?.kind !== 'replace') return { inlets, cables: earlier.cables };
  const codes = new Set(cabling.rows.flatMap(({ cableCode }) => (cableCode === null ? [] : [cableCode])));
  const cables = [...codes].map((label) => {
    const rows = cabling.rows.filter(({ cableCode, legs }) => cableCode === label && legs.length === 0);
    const plugs = rows.flatMap(({ plugKind: kind, inletId }) => (kind === null ? [] : [{ kind, inletId }]));
    return { label, socketLabel: rows[0]?.socketLabel ?? '', plugs, way: '', tiesToCut: 0 };
  });
  return { inlets, cables: cables.filter(({ plugs }) => plugs.length > 0) };
}

/**
 * The cables of another harness, for the inlets of this machine that nobody recorded one for: inlets of the same kind
 * and name belong together, then those of the same kind in their order. All of them are only likely. A cable of which
 * no inlet is found again is left out; a plug whose inlet is not found hangs free.
 * @param makeId identifiers for the new cables
 */
export function copiedHarness(
  source: HarnessSource,
  job: Pick<Job, 'parts' | 'cables'>,
  makeId: () => string,
): NewCable[] {
  const open = partsAt(job.parts, 'present')
    .flatMap((part) => part.inlets)
    .filter(({ id }) => cableAt(job.cables, id) === null);
  const found = new Map<string, string>();
  const matched = (same: (theirs: HarnessSource['inlets'][number], ours: Inlet) => boolean) => {
    for (const theirs of source.inlets) {
      if (found.has(theirs.id)) continue;
      const at = open.findIndex((ours) => same(theirs, ours));
      if (at >= 0) found.set(theirs.id, boundToBe(open.splice(at, 1)[0], 'open cable').id);
    }
  };
  matched((theirs, ours) => theirs.kind === ours.kind && theirs.label === ours.label);
  matched((theirs, ours) => theirs.kind === ours.kind);
  const labels = job.cables.map(({ label }) => label);
  return source.cables.flatMap((cable): NewCable[] => {
    const plugs = cable.plugs.map(({ inletId, ...plug }) => ({
      ...plug,
      inletId: inletId === null ? null : (found.get(inletId) ?? null),
    }));
    if (plugs.every(({ inletId }) => inletId === null)) return [];
    const label = labels.includes(cable.label) ? nextCableLabel(labels) : cable.label;
    labels.push(label);
    const { socketLabel, way, tiesToCut } = cable;
    return [{ id: makeId(), label, socketLabel, plugs, way, tiesToCut, likely: true }];
  });
}
