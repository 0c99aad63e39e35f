import { figureText, parseFigure, type KitCable, type SupplyModel } from '@fairwatt/core';
import type { FieldPath } from '../controls/told-fields.ts';

/** A supply while it is typed: every figure as text, so that nothing typed is lost or guessed. */
type Draft = Record<string, unknown>;
export interface RailDraft {
  label: string;
  rail: string;
  amps: string;
  feeds: string[];
}
export interface LimitDraft {
  labels: string;
  watts: string;
}
export interface SocketDraft {
  label: string;
  kind: string;
  output: string;
}
export interface CableDraft {
  id: string;
  family: string;
  /** `fixed`, `modular`, `two-ended` where two plugs go into two sockets, or `only in ` and a socket's label. */
  fixed: string;
  count: string;
  gauge: string;
  /** Coded watts of a 16-pin cable; empty where nobody read them. */
  coded: string;
  /** Of a maker's own main plug, the inlet that it fits. */
  ownPlug: string;
  plugs: string;
  output: string;
}

/** How a cable of one socket only stands in its draft, before the socket's label. */
export const onlyIn = 'only in ';

/** How a cable is joined to its supply, as its draft says it. */
function joinOf({ fixed, twoEnded, onlySocket }: KitCable): string {
  if (fixed) return 'fixed';
  if (onlySocket !== undefined) return onlyIn + onlySocket;
  return twoEnded === true ? 'two-ended' : 'modular';
}

export type Simple =
  | 'id'
  | 'name'
  | 'ratingWatts'
  | 'shape'
  | 'guide'
  | 'grade'
  | 'modular'
  | 'depthMillimetres'
  | 'mainsLowVolts'
  | 'mainsHighVolts'
  | 'inlet'
  | 'correction'
  | 'fan'
  | 'price'
  | 'currency'
  | 'asOf'
  | 'noiseDecibels'
  | 'warrantyYears'
  | 'designYear';
export interface Whole {
  fields: Record<Simple, string>;
  has16Pin: boolean;
  ownHoles: boolean;
  protections: string[];
  rails: RailDraft[];
  combined: LimitDraft[];
  sockets: SocketDraft[];
  cables: CableDraft[];
}

/** What a supply that is entered begins with. */
function emptyWhole(): Whole {
  return {
    fields: {
      id: '',
      name: '',
      ratingWatts: '',
      shape: 'ATX',
      guide: '3.x',
      grade: 'gold',
      modular: 'full',
      depthMillimetres: '',
      mainsLowVolts: '100',
      mainsHighVolts: '240',
      inlet: 'C14',
      correction: 'active',
      fan: 'large-face',
      price: '',
      currency: '',
      asOf: '',
      noiseDecibels: '',
      warrantyYears: '',
      designYear: '',
    },
    has16Pin: false,
    ownHoles: false,
    protections: [],
    rails: [
      { label: '12V', rail: '+12', amps: '', feeds: [] },
      { label: '5V', rail: '+5', amps: '', feeds: [] },
      { label: '3.3V', rail: '+3.3', amps: '', feeds: [] },
      { label: '-12V', rail: '-12', amps: '', feeds: [] },
      { label: '5VSB', rail: '+5sb', amps: '', feeds: [] },
    ],
    combined: [],
    sockets: [],
    cables: [
      {
        id: 'main',
        family: 'main',
        fixed: 'fixed',
        count: '1',
        gauge: '18',
        coded: '',
        ownPlug: '',
        plugs: 'main-20+4 600',
        output: '',
      },
    ],
  };
}

export function wholeOf(model: SupplyModel | null, fresh: boolean): Whole {
  if (model === null) return emptyWhole();
  const { label } = model;
  return {
    fields: {
      id: fresh ? '' : model.id,
      name: fresh ? `${model.name}, copy` : model.name,
      ratingWatts: String(label.ratingWatts),
      shape: label.shape,
      guide: label.guide,
      grade: label.grade,
      modular: label.modular,
      depthMillimetres: String(model.depthMillimetres),
      mainsLowVolts: String(model.mainsLowVolts),
      mainsHighVolts: String(model.mainsHighVolts),
      inlet: model.inlet,
      correction: model.correction,
      fan: model.fan,
      price: figureText(model.price.minor / 100, 2),
      currency: model.price.currency,
      asOf: model.price.asOf ?? '',
      noiseDecibels: model.noiseDecibels === null ? '' : String(model.noiseDecibels),
      warrantyYears: String(model.warrantyYears),
      designYear: model.designYear === null ? '' : String(model.designYear),
    },
    has16Pin: label.has16Pin,
    ownHoles: model.ownHoles,
    protections: [...model.protections],
    rails: label.rails.map((rail) => ({
      label: rail.label,
      rail: rail.rail,
      amps: String(rail.amps),
      feeds: [...(rail.feeds ?? [])],
    })),
    combined: label.combined.map((limit) => ({ labels: limit.labels.join(' + '), watts: String(limit.watts) })),
    sockets: model.kit.sockets.map((socket) => ({
      label: socket.label,
      kind: socket.kind,
      output: socket.output ?? '',
    })),
    cables: model.kit.cables.map((cable) => ({
      id: cable.id,
      family: cable.family,
      fixed: joinOf(cable),
      count: String(cable.count),
      gauge: String(cable.gauge),
      coded: cable.codedWatts === undefined ? '' : String(cable.codedWatts),
      ownPlug: cable.ownPlug ?? '',
      plugs: cable.plugs.map((plug) => `${plug.kind} ${plug.millimetres}`).join(', '),
      output: cable.output ?? '',
    })),
  };
}

const figure = (text: string): unknown => parseFigure(text) ?? text;
const figureOrNull = (text: string): unknown => (text.trim() === '' ? null : figure(text));
const slug = (name: string) =>
  name
    .toLowerCase()
    .normalize('NFKD')
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 60);
const optional = (key: string, text: string): Draft => (text.trim() === '' ? {} : { [key]: text.trim() });

/** What was typed as a supply, still to be checked. */
export function modelFrom({ fields, ...whole }: Whole, onShelf: number): unknown {
  const price = parseFigure(fields.price);
  return {
    id: fields.id === '' ? slug(fields.name) : fields.id,
    name: fields.name.trim(),
    label: {
      ratingWatts: figure(fields.ratingWatts),
      shape: fields.shape,
      guide: fields.guide,
      grade: fields.grade,
      modular: fields.modular,
      has16Pin: whole.has16Pin,
      rails: whole.rails.filter(isGiven).map((rail) => ({
        label: rail.label.trim(),
        rail: rail.rail,
        amps: figure(rail.amps),
        ...(rail.feeds.length === 0 ? {} : { feeds: rail.feeds }),
      })),
      combined: whole.combined.map((limit) => ({
        labels: limit.labels
          .split(' + ')
          .map((name) => name.trim())
          .filter((name) => name !== ''),
        watts: figure(limit.watts),
      })),
    },
    depthMillimetres: figure(fields.depthMillimetres),
    mainsLowVolts: figure(fields.mainsLowVolts),
    mainsHighVolts: figure(fields.mainsHighVolts),
    inlet: fields.inlet,
    correction: fields.correction,
    protections: whole.protections,
    fan: fields.fan,
    ownHoles: whole.ownHoles,
    price: {
      minor: price === null ? fields.price : Math.round(price * 100),
      currency: fields.currency.trim(),
      asOf: fields.asOf === '' ? null : fields.asOf,
    },
    onShelf,
    noiseDecibels: figureOrNull(fields.noiseDecibels),
    warrantyYears: figure(fields.warrantyYears),
    designYear: figureOrNull(fields.designYear),
    kit: {
      sockets: whole.sockets.map((socket) => ({
        label: socket.label.trim(),
        kind: socket.kind,
        ...optional('output', socket.output),
      })),
      cables: whole.cables.map((cable) => ({
        id: cable.id.trim(),
        family: cable.family,
        fixed: cable.fixed === 'fixed',
        ...(cable.fixed === 'two-ended' ? { twoEnded: true } : {}),
        ...(cable.fixed.startsWith(onlyIn) ? { onlySocket: cable.fixed.slice(onlyIn.length).trim() } : {}),
        count: figure(cable.count),
        gauge: figure(cable.gauge),
        ...(cable.family === 'card-16' && cable.coded !== '' ? { codedWatts: Number(cable.coded) } : {}),
        plugs: cable.plugs
          .split(',')
          .map((plug) => plug.trim())
          .filter((plug) => plug !== '')
          .map((plug) => {
            const [kind = '', millimetres = ''] = plug.split(/\s+|@/);
            return { kind, millimetres: figure(millimetres) };
          }),
        ...(cable.plugs.includes('main-own') ? optional('ownPlug', cable.ownPlug) : {}),
        ...optional('output', cable.output),
      })),
    },
  };
}

/** Outputs that nothing was typed for are left out, unless they are the main ones. */
const isGiven = ({ amps, rail }: RailDraft): boolean => amps.trim() !== '' || rail === '+12';

/** What a cable's joint and code are called in its draft. */
const cableFields: Readonly<Record<string, string>> = { twoEnded: 'fixed', onlySocket: 'fixed', codedWatts: 'coded' };

/** Where on the form a path of a supply stands. */
export function fieldOfSupply(path: FieldPath, { rails }: Pick<Whole, 'rails'>): FieldPath {
  const [first, second, index, field, ...rest] = path;
  if (first === 'id') return ['fields', 'name'];
  if (first === 'price') return ['fields', second === 'minor' ? 'price' : (second ?? 'price')];
  if (first === 'kit' && second === 'cables' && typeof field === 'string')
    return ['cables', index ?? 0, cableFields[field] ?? field];
  if (first === 'kit') return path.slice(1);
  if (first !== 'label') return ['fields', ...path];
  if (second === 'combined') return path.slice(1);
  if (second !== 'rails') return ['fields', ...path.slice(1)];
  if (typeof index !== 'number') return ['rails'];
  const given = rails.flatMap((rail, at) => (isGiven(rail) ? [at] : []));
  return ['rails', given[index] ?? index, field ?? 'amps', ...rest];
}
