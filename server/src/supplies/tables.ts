import {
  cableFamilies,
  codedWatts,
  corrections,
  fanSides,
  gauges,
  inletKinds,
  mainsInlets,
  plugKinds,
  protectionNames,
  socketKinds,
  type KitCable,
  type KitPlug,
  type Socket,
  type SupplyModel,
} from '@fairwatt/core';
import { unitStates, type OwnPart, type Unit } from '@fairwatt/contract';
import {
  boolean,
  describe,
  list,
  named,
  number,
  numberOf,
  oneOf,
  optional,
  orNull,
  text,
  within,
  type ChildTable,
  type Fields,
} from '../database/table.ts';
import { combinedFields, figures, labelHead, railFields, type LabelHead } from './fields.ts';

// Every table of supplies, their units and the shop's own parts, described once for reading and for writing.

type ModelHead = Omit<SupplyModel, 'label' | 'kit' | 'onShelf'> & { readonly label: LabelHead };
const model: Fields<ModelHead> = {
  id: text,
  name: text,
  label: within(labelHead),
  depthMillimetres: number,
  mainsLowVolts: number,
  mainsHighVolts: number,
  inlet: oneOf(mainsInlets),
  correction: oneOf(corrections),
  protections: list(oneOf(protectionNames)),
  fan: oneOf(fanSides),
  ownHoles: boolean,
  price: within({ minor: number, currency: named('currency', text), asOf: orNull(text) }, 'price'),
  noiseDecibels: orNull(number),
  warrantyYears: number,
  designYear: orNull(number),
};
const described = describe(model);
export { described as model };
/** A model as it is read: how many are on the shelf is counted, never written. */
export const modelOnShelf = describe<ModelHead & Pick<SupplyModel, 'onShelf'>>({ ...model, onShelf: number });

const ofModel = <T extends object>(table: string, fields: Fields<T>): ChildTable<T> => ({
  table,
  parent: 'model_id',
  order: 'position',
  ...describe<T>(fields),
});
export const rails = ofModel('supply_model_rail', railFields);
export const combined = ofModel('supply_model_combined', combinedFields);
export const sockets = ofModel<Socket>('supply_model_socket', {
  label: text,
  kind: oneOf(socketKinds),
  output: optional(text),
});
export const cables = ofModel<Omit<KitCable, 'plugs' | 'spare'>>('supply_model_cable', {
  id: named('cable_id', text),
  family: oneOf(cableFamilies),
  fixed: boolean,
  count: number,
  gauge: numberOf(gauges),
  codedWatts: optional(numberOf(codedWatts)),
  ownPlug: optional(text),
  twoEnded: optional(boolean),
  onlySocket: optional(text),
  output: optional(text),
});
export const plugs = ofModel<KitPlug & { readonly cableId: string }>('supply_model_plug', {
  cableId: text,
  kind: oneOf(plugKinds),
  millimetres: number,
});

export const unit = describe<Unit>({
  id: text,
  version: number,
  modelId: text,
  place: text,
  state: oneOf(unitStates),
  serial: text,
  bag: text,
  note: text,
  reservedFor: orNull(text),
  usedIn: orNull(text),
});

type PartInlet = OwnPart['inlets'][number];
export const ownPartInlets: ChildTable<PartInlet> = {
  table: 'own_part_inlet',
  parent: 'part_id',
  order: 'position',
  ...describe<PartInlet>({ kind: oneOf(inletKinds), label: text, optional: boolean }),
};
export const ownPart = describe<Omit<OwnPart, 'inlets'>>({
  id: text,
  name: text,
  classId: text,
  figures: within(figures),
});
