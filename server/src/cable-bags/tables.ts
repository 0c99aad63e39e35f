import {
  cableFamilies,
  codedWatts,
  gauges,
  inletKinds,
  socketSignals,
  plugKinds,
  type SocketSignal,
  type WireEnd,
} from '@fairwatt/core';
import type { BagAdapter, BagCable, CableBags, Pinout } from '@fairwatt/contract';
import {
  boolean,
  describe,
  instant,
  list,
  number,
  numberOf,
  oneOf,
  optional,
  orNull,
  text,
  type ChildTable,
  type Field,
} from '../database/table.ts';

// Every table of spare cables, adapters and pinouts, described once for reading and for writing.

export const pinout = describe<Omit<Pinout, 'sockets' | 'supplies'>>({ id: text, version: number, name: text });

type PinoutSocket = { readonly family: BagCable['family']; readonly pins: readonly (SocketSignal | null)[] };
export const pinoutSockets: ChildTable<PinoutSocket> = {
  table: 'pinout_socket',
  parent: 'pinout_id',
  order: "array_position(array['main', 'cpu', 'card', 'card-16', 'drive'], family)",
  ...describe<PinoutSocket>({ family: oneOf(cableFamilies), pins: list(orNull(oneOf(socketSignals))) }),
};
export const pinoutSupplies: ChildTable<{ readonly modelId: string }> = {
  table: 'pinout_supply',
  parent: 'pinout_id',
  order: 'model_id',
  ...describe<{ readonly modelId: string }>({ modelId: text }),
};

export const cable = describe<Omit<BagCable, 'plugs'>>({
  id: text,
  version: number,
  label: text,
  place: text,
  family: oneOf(cableFamilies),
  cameWith: text,
  note: text,
  gauge: orNull(numberOf(gauges)),
  twoEnded: boolean,
  codedWatts: orNull(numberOf(codedWatts)),
});

/** Where wires lead: 0 stands for no wire, null for what nobody looked at; second wires beside, 0 for none. */
const wireEnds: Field<readonly WireEnd[]> = {
  names: () => ['ends', 'seconds'],
  values: (ends) => [
    ends.map((end) => (end === 'none' ? 0 : typeof end === 'object' && end !== null ? end[0] : end)),
    ends.map((end) => (typeof end === 'object' && end !== null ? end[1] : 0)),
  ],
  read: (row) => {
    const seconds = list(number).read(row, 'seconds');
    return list(orNull(number))
      .read(row, 'ends')
      .map((end, pin): WireEnd => {
        const second = seconds[pin] ?? 0;
        return end === null ? null : end === 0 ? 'none' : second === 0 ? end : [end, second];
      });
  },
};
type BagPlug = Omit<BagCable['plugs'][number], 'ends'> & { readonly ends: readonly WireEnd[] };
export const cablePlugs: ChildTable<BagPlug> = {
  table: 'bag_cable_plug',
  parent: 'cable_id',
  order: 'position',
  ...describe<BagPlug>({ kind: oneOf(plugKinds), millimetres: orNull(number), ends: wireEnds }),
};

export const adapter = describe<BagAdapter>({
  id: text,
  version: number,
  label: text,
  place: text,
  takes: oneOf(inletKinds),
  gives: oneOf(plugKinds),
  ownPlug: optional(text),
  legs: number,
  moulded: boolean,
  addsMillimetres: number,
  watts: orNull(number),
  count: number,
});

export const proof = describe<CableBags['proofs'][number]>({
  cableId: text,
  modelId: text,
  by: text,
  at: instant,
  note: text,
});
