import type { SupplyModel } from '@fairwatt/core';

/** Columns of the supplies CSV, in order. */
export const supplyColumns = [
  'id',
  'name',
  'rating_w',
  'shape',
  'guide',
  'grade',
  'modular',
  'has_16_pin',
  'depth_mm',
  'mains_low_v',
  'mains_high_v',
  'inlet',
  'correction',
  'protections',
  'fan',
  'own_holes',
  'price',
  'currency',
  'price_as_of',
  'on_shelf',
  'noise_db',
  'warranty_years',
  'design_year',
  'rails',
  'combined',
  'sockets',
  'cables',
] as const;
type Column = (typeof supplyColumns)[number];
type Cells = Readonly<Record<string, string | undefined>>;

/** Names inside a cell: what separates is written as its code, so that any name survives. */
const escaped = (name: string) =>
  name.replace(/[%:;,|@/~]/g, (character) => `%${character.charCodeAt(0).toString(16).toUpperCase()}`);
const plain = (name: string) =>
  name.trim().replace(/%([0-9A-F]{2})/gi, (_, code: string) => String.fromCharCode(parseInt(code, 16)));

/**
 * A supply in one row. Lists in a cell are joined by semicolons: rails as `output:rail:amps` with `:feeds/feeds` where
 * the label says what hangs on it, combined limits as `output|output:watts`, sockets as `label:kind` with `:output`,
 * cables as `id:family:fixed or modular:count:gauge:plug@mm,plug@mm` with `:output`, and `:output:watts` for a 16-pin
 * cable's coded watts.
 */
export function supplyToCells(model: SupplyModel): Record<Column, string> {
  const { label } = model;
  const after = (text: string | undefined) => (text === undefined ? '' : `:${escaped(text)}`);
  return {
    id: model.id,
    name: model.name,
    rating_w: String(label.ratingWatts),
    shape: label.shape,
    guide: label.guide,
    grade: label.grade,
    modular: label.modular,
    has_16_pin: label.has16Pin ? 'yes' : 'no',
    depth_mm: String(model.depthMillimetres),
    mains_low_v: String(model.mainsLowVolts),
    mains_high_v: String(model.mainsHighVolts),
    inlet: model.inlet,
    correction: model.correction,
    protections: model.protections.join('; '),
    fan: model.fan,
    own_holes: model.ownHoles ? 'yes' : 'no',
    price: (model.price.minor / 100).toFixed(2),
    currency: model.price.currency,
    price_as_of: model.price.asOf ?? '',
    on_shelf: String(model.onShelf),
    noise_db: model.noiseDecibels === null ? '' : String(model.noiseDecibels),
    warranty_years: String(model.warrantyYears),
    design_year: model.designYear === null ? '' : String(model.designYear),
    rails: label.rails
      .map(({ label: name, rail, amps, feeds }) =>
        [escaped(name), rail, amps, ...(feeds === undefined ? [] : [feeds.join('/')])].join(':'),
      )
      .join('; '),
    combined: label.combined.map((limit) => `${limit.labels.map(escaped).join('|')}:${limit.watts}`).join('; '),
    sockets: model.kit.sockets
      .map((socket) => `${escaped(socket.label)}:${socket.kind}${after(socket.output)}`)
      .join('; '),
    cables: model.kit.cables
      .map((cable) => {
        const { id, family, fixed, count, gauge, output, codedWatts, ownPlug, twoEnded, onlySocket } = cable;
        const plugs = cable.plugs.map((plug) => `${plug.kind}@${plug.millimetres}`).join(',');
        const ends = twoEnded === true ? 'two-ended' : undefined;
        const last = [output, codedWatts, ownPlug, ends, onlySocket].map((value) =>
          value === undefined ? '' : escaped(`${value}`),
        );
        while (last.at(-1) === '') last.pop();
        return [id, family, fixed ? 'fixed' : 'modular', count, gauge, plugs, ...last].join(':');
      })
      .join('; '),
  };
}

const figure = (text: string): unknown => {
  const value = Number(text.replace(',', '.'));
  return text.trim() === '' || !Number.isFinite(value) ? text : value;
};
const figureOrNull = (text: string): unknown => (text === '' ? null : figure(text));
const yes = (text: string): unknown =>
  /^(yes|true|1)$/i.test(text) ? true : /^(no|false|0|)$/i.test(text) ? false : text;
const optional = (key: string, value: string | undefined) =>
  value === undefined || value === '' ? {} : { [key]: plain(value) };

/** An output: `name:rail:amps:what/hangs/on/it`. */
const outputFrom = (item: string): unknown => {
  const [label = '', rail = '', amps = '', feeds] = item.split(':');
  return {
    label: plain(label),
    rail: rail.trim(),
    amps: figure(amps),
    ...(feeds === undefined
      ? {}
      : {
          feeds: feeds
            .split('/')
            .map((name) => name.trim())
            .filter((name) => name !== ''),
        }),
  };
};

/** A cable of the kit: `id:family:fixed or modular:count:gauge:plug@mm,plug@mm`, and what it has beside that. */
const cableFrom = (item: string): unknown => {
  const [cableId = '', family = '', fixed = '', count = '', gauge = '', plugs = '', ...last] = item.split(':');
  const [output, coded, own, ends, onlySocket] = last;
  return {
    id: cableId.trim(),
    family: family.trim(),
    fixed: fixed.trim() === 'fixed' ? true : fixed.trim() === 'modular' ? false : fixed,
    count: figure(count),
    gauge: figure(gauge),
    plugs: plugs
      .split(',')
      .filter((plug) => plug.trim() !== '')
      .map((plug) => {
        const [kind = '', millimetres = ''] = plug.split('@');
        return { kind: kind.trim(), millimetres: figure(millimetres) };
      }),
    ...optional('output', output),
    ...(coded === undefined || coded.trim() === '' ? {} : { codedWatts: figure(coded) }),
    ...optional('ownPlug', own),
    ...(ends?.trim() === 'two-ended' ? { twoEnded: true } : optional('twoEnded', ends)),
    ...optional('onlySocket', onlySocket),
  };
};

/**
 * What a row says, still to be checked by `supplyModelSchema`; what cannot be read as a figure stays text and is
 * refused there.
 */
export function supplyFromCells(cells: Cells): unknown {
  const cell = (name: Column) => cells[name]?.trim() ?? '';
  const list = (name: Column) =>
    cell(name)
      .split(';')
      .map((item) => item.trim())
      .filter((item) => item !== '');
  const price = figure(cell('price'));
  return {
    id: cell('id'),
    name: cell('name'),
    label: {
      ratingWatts: figure(cell('rating_w')),
      shape: cell('shape'),
      guide: cell('guide'),
      grade: cell('grade'),
      modular: cell('modular'),
      has16Pin: yes(cell('has_16_pin')),
      rails: list('rails').map(outputFrom),
      combined: list('combined').map((item) => {
        const [labels = '', watts = ''] = item.split(':');
        return { labels: labels.split('|').map(plain), watts: figure(watts) };
      }),
    },
    depthMillimetres: figure(cell('depth_mm')),
    mainsLowVolts: figure(cell('mains_low_v')),
    mainsHighVolts: figure(cell('mains_high_v')),
    ...(cell('inlet') === '' ? {} : { inlet: cell('inlet') }),
    ...(cell('correction') === '' ? {} : { correction: cell('correction') }),
    protections: list('protections'),
    ...(cell('fan') === '' ? {} : { fan: cell('fan') }),
    ownHoles: yes(cell('own_holes')),
    price: {
      minor: typeof price === 'number' ? Math.round(price * 100) : price,
      currency: cell('currency'),
      asOf: cell('price_as_of') === '' ? null : cell('price_as_of'),
    },
    onShelf: cell('on_shelf') === '' ? 0 : figure(cell('on_shelf')),
    noiseDecibels: figureOrNull(cell('noise_db')),
    warrantyYears: figure(cell('warranty_years')),
    designYear: figureOrNull(cell('design_year')),
    kit: {
      sockets: list('sockets').map((item) => {
        const [label = '', kind = '', output] = item.split(':');
        return { label: plain(label), kind: kind.trim(), ...optional('output', output) };
      }),
      cables: list('cables').map(cableFrom),
    },
  };
}
