import { useState, type ReactNode } from 'react';
import { DateInput } from '../controls/date-input.tsx';
import { Button, Checkbox, Input, Modal, Select } from 'antd';
import { supplyModelSchema } from '@fairwatt/contract';
import {
  cableFamilies,
  corrections,
  correctionText,
  fanSides,
  fanSideText,
  grades,
  labelProblems,
  mainsInlets,
  parseFigure,
  plugKinds,
  problemOfLabel,
  protectionNames,
  protectionText,
  railNames,
  shapes,
  socketKinds,
  type SupplyModel,
} from '@fairwatt/core';
import {
  problemOf,
  useChangeSupplyMutation,
  useRemoveSupplyMutation,
  useShopQuery,
  useSuppliesQuery,
} from '../app/api.ts';
import { useAppSelector } from '../app/store.ts';
import { TwoStates } from '../controls/two-states.tsx';
import { Sheet } from '../controls/sheet.tsx';

/** A supply while it is typed: every figure as text, so that nothing typed is lost or guessed. */
type Draft = Record<string, unknown>;
interface RailDraft {
  label: string;
  rail: string;
  amps: string;
  feeds: string[];
}
interface LimitDraft {
  labels: string;
  watts: string;
}
interface SocketDraft {
  label: string;
  kind: string;
  output: string;
}
interface CableDraft {
  id: string;
  family: string;
  fixed: string;
  count: string;
  gauge: string;
  plugs: string;
  output: string;
}

type Simple =
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
interface Whole {
  fields: Record<Simple, string>;
  has16Pin: boolean;
  ownHoles: boolean;
  protections: string[];
  rails: RailDraft[];
  combined: LimitDraft[];
  sockets: SocketDraft[];
  cables: CableDraft[];
}

function wholeOf(model: SupplyModel | null, fresh: boolean): Whole {
  if (model === null) {
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
        ['12V', '+12'],
        ['5V', '+5'],
        ['3.3V', '+3.3'],
        ['-12V', '-12'],
        ['5VSB', '+5sb'],
      ].map(([label, rail]) => ({ label: label!, rail: rail!, amps: '', feeds: [] })),
      combined: [],
      sockets: [],
      cables: [
        { id: 'main', family: 'main', fixed: 'fixed', count: '1', gauge: '18', plugs: 'main-20+4 600', output: '' },
      ],
    };
  }
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
      price: (model.price.minor / 100).toFixed(2),
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
      fixed: cable.fixed ? 'fixed' : 'modular',
      count: String(cable.count),
      gauge: String(cable.gauge),
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
function modelFrom({ fields, ...whole }: Whole, onShelf: number): unknown {
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
      rails: whole.rails
        .filter((rail) => rail.amps.trim() !== '' || rail.rail === '+12')
        .map((rail) => ({
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
        count: figure(cable.count),
        gauge: figure(cable.gauge),
        plugs: cable.plugs
          .split(',')
          .map((plug) => plug.trim())
          .filter((plug) => plug !== '')
          .map((plug) => {
            const [kind = '', millimetres = ''] = plug.split(/\s+|@/);
            return { kind, millimetres: figure(millimetres) };
          }),
        ...optional('output', cable.output),
      })),
    },
  };
}

/** Where a check's path stands on the screen. */
const pathNames: Readonly<Record<string, string>> = {
  'label.ratingWatts': 'ratingWatts',
  'price.minor': 'price',
  'price.currency': 'currency',
  'price.asOf': 'asOf',
};

/** A supply's whole data: label, outputs, sockets and the cable kit piece by piece. */
export default function SupplyEditor({
  was,
  start,
  onClose,
}: {
  readonly was: SupplyModel | null;
  readonly start: SupplyModel | null;
  readonly onClose: () => void;
}) {
  const technician = useAppSelector((state) => state.session.technician);
  const shop = useShopQuery();
  const [change, changing] = useChangeSupplyMutation();
  const supplies = useSuppliesQuery();
  const [conflict, setConflict] = useState<SupplyModel | null>(null);
  const [remove, removing] = useRemoveSupplyMutation();
  const [whole, setWhole] = useState<Whole>(() => {
    const first = wholeOf(start, was === null);
    return first.fields.currency === ''
      ? { ...first, fields: { ...first.fields, currency: shop.data?.settings.currency ?? 'EUR' } }
      : first;
  });
  const [errors, setErrors] = useState<Readonly<Record<string, string>>>({});
  const [told, setTold] = useState<string | null>(null);
  const setField = (name: Simple, value: string) => setWhole({ ...whole, fields: { ...whole.fields, [name]: value } });
  const set = <K extends 'rails' | 'combined' | 'sockets' | 'cables'>(
    list: K,
    index: number,
    changes: Partial<Whole[K][number]>,
  ) => setWhole({ ...whole, [list]: whole[list].map((item, at) => (at === index ? { ...item, ...changes } : item)) });
  const drop = (list: 'rails' | 'combined' | 'sockets' | 'cables', index: number) =>
    setWhole({ ...whole, [list]: (whole[list] as unknown[]).filter((_, at) => at !== index) });
  const twelve = whole.rails.filter((rail) => rail.rail === '+12');
  async function save(): Promise<void> {
    const read = supplyModelSchema.safeParse(modelFrom(whole, was?.onShelf ?? 0));
    if (!read.success) {
      setErrors(
        Object.fromEntries(
          read.error.issues.map((issue) => {
            const path = issue.path.join('.');
            return [pathNames[path] ?? path, issue.message];
          }),
        ),
      );
      setTold(`${read.error.issues.length} ${read.error.issues.length === 1 ? 'thing is' : 'things are'} to mend.`);
      return;
    }
    setErrors({});
    await send(read.data, was);
  }
  async function send(model: SupplyModel, seen: SupplyModel | null): Promise<void> {
    const answer = await change({ by: technician ?? '', was: seen, model });
    if (answer.error === undefined) {
      onClose();
      return;
    }
    const problem = problemOf(answer.error);
    if (problem.type === '/problems/stale') setConflict(model);
    setTold(
      technician === null
        ? 'Pick your name at the top right first.'
        : [problem.title, ...(problem.errors ?? []).map((error) => `${error.path}: ${error.message}`)].join('. '),
    );
  }
  const standing = conflict === null ? null : (supplies.data?.find((model) => model.id === conflict.id) ?? null);
  const errorAt = (path: string): ReactNode => {
    const found = Object.entries(errors).filter(([key]) => key === path || key.startsWith(`${path}.`));
    return found.length === 0 ? null : (
      <span className="error" role="alert">
        {found.map(([, message]) => message).join('; ')}
      </span>
    );
  };
  const text = (name: Simple, label: string, unit?: string) => (
    <label className="field">
      <span className="name">
        {label}
        {unit === undefined ? '' : ` (${unit})`}
      </span>
      <Input
        className={unit === undefined ? undefined : 'fig'}
        value={whole.fields[name]}
        maxLength={60}
        inputMode={unit === undefined ? undefined : 'decimal'}
        onChange={(event) => setField(name, event.target.value)}
      />
      {errorAt(name)}
    </label>
  );
  const pick = (name: Simple, label: string, options: readonly (readonly [string, string])[]) => (
    <label className="field">
      <span className="name">{label}</span>
      <Select
        aria-label={label}
        value={whole.fields[name]}
        onChange={(picked) => setField(name, picked)}
        options={[...options.map(([value, shown]) => ({ value: value, label: shown }))]}
      />
    </label>
  );
  const same = (list: readonly string[]) => list.map((value) => [value, value] as const);
  const checked = supplyModelSchema.safeParse(modelFrom(whole, 0));
  const doubts = checked.success ? labelProblems(checked.data.label) : [];
  const outputs = (value: string, onChange: (value: string) => void, label: string) => (
    <Select
      className="cell-input"
      aria-label={label}
      value={value}
      onChange={(picked) => onChange(picked)}
      options={[{ value: '', label: 'not said' }, ...twelve.map((rail) => ({ value: rail.label, label: rail.label }))]}
    />
  );
  return (
    <Modal
      open
      title={was === null ? 'Enter a supply' : was.name}
      onCancel={onClose}
      footer={null}
      width={980}
      destroyOnHidden
      style={{ top: 20 }}
    >
      {conflict !== null && (
        <TwoStates
          what={conflict.name}
          mine={conflict}
          theirs={standing}
          onMine={() => void send(conflict, standing)}
          onTheirs={onClose}
        />
      )}
      <form
        className="supply-editor"
        onSubmit={(event) => {
          event.preventDefault();
          void save();
        }}
      >
        <div className="fields by-four">
          {text('name', 'Name')}
          {text('ratingWatts', 'Rating', 'W')}
          {pick('shape', 'Shape', same(shapes))}
          {pick('guide', 'Guide', same(['2.x', '3.x']))}
          {pick('grade', 'Efficiency grade', same(grades))}
          {pick('modular', 'Cables', [
            ['fixed', 'fixed'],
            ['semi', 'partly modular'],
            ['full', 'modular'],
          ])}
          {text('depthMillimetres', 'Depth', 'mm')}
          {pick(
            'fan',
            'Air',
            fanSides.map((side) => [side, fanSideText[side]]),
          )}
          {text('mainsLowVolts', 'Mains from', 'V')}
          {text('mainsHighVolts', 'Mains to', 'V')}
          {pick('inlet', 'Inlet', same(mainsInlets))}
          {pick(
            'correction',
            'Correction',
            corrections.map((value) => [value, correctionText[value]]),
          )}
          {text('price', `Price in ${whole.fields.currency}`)}
          {text('currency', 'Currency')}
          <label className="field">
            <span className="name">Price of</span>
            <DateInput label="Price of" value={whole.fields.asOf} onChange={(day) => setField('asOf', day)} />
            {errorAt('asOf')}
          </label>
          {text('warrantyYears', 'Warranty', 'years')}
          {text('noiseDecibels', 'Noise, empty if not known', 'dB')}
          {text('designYear', 'Design of', 'year')}
          <Checkbox
            className="tick"
            checked={whole.has16Pin}
            onChange={(event) => setWhole({ ...whole, has16Pin: event.target.checked })}
          >
            16-pin card connector
          </Checkbox>
          <Checkbox
            className="tick"
            checked={whole.ownHoles}
            onChange={(event) => setWhole({ ...whole, ownHoles: event.target.checked })}
          >
            its maker's own holes
          </Checkbox>
        </div>
        {errorAt('id')}
        {errorAt('mainsHighVolts')}
        <fieldset>
          <legend className="label">Watches over</legend>
          <div className="row-actions">
            {protectionNames.map((name) => (
              <Checkbox
                key={name}
                className="tick"
                checked={whole.protections.includes(name)}
                onChange={(event) =>
                  setWhole({
                    ...whole,
                    protections: event.target.checked
                      ? [...whole.protections, name]
                      : whole.protections.filter((other) => other !== name),
                  })
                }
              >
                {protectionText[name]}
              </Checkbox>
            ))}
          </div>
        </fieldset>
        <div className="columns">
          <fieldset>
            <legend className="label">Outputs</legend>
            <Sheet
              rows={whole.rails}
              rowKey={(rail, index) => index}
              columns={[
                {
                  head: 'Name',
                  cell: (rail, index) => (
                    <Input
                      className="cell-input"
                      aria-label={`Output ${index + 1}`}
                      value={rail.label}
                      maxLength={20}
                      onChange={(event) => set('rails', index, { label: event.target.value })}
                    />
                  ),
                },
                {
                  head: 'Rail',
                  cell: (rail, index) => (
                    <Select
                      className="cell-input"
                      aria-label={`Rail of output ${index + 1}`}
                      value={rail.rail}
                      onChange={(picked) => set('rails', index, { rail: picked })}
                      options={[...railNames.map((name) => ({ value: name, label: `${name} V` }))]}
                    />
                  ),
                },
                {
                  head: 'Amps',
                  cell: (rail, index) => (
                    <>
                      <Input
                        className="cell-input fig"
                        inputMode="decimal"
                        aria-label={`Amps of output ${index + 1}`}
                        value={rail.amps}
                        onChange={(event) => set('rails', index, { amps: event.target.value })}
                      />
                      {errorAt(`label.rails.${index}`)}
                    </>
                  ),
                },
                twelve.length > 1 && {
                  head: 'Feeds',
                  cell: (rail, index) =>
                    rail.rail === '+12' && (
                      <div className="feeds" role="group" aria-label={`What output ${index + 1} feeds`}>
                        {cableFamilies.map((family) => {
                          const on = rail.feeds.includes(family);
                          return (
                            <Button
                              key={family}
                              aria-pressed={on}
                              onClick={() =>
                                set('rails', index, {
                                  feeds: on ? rail.feeds.filter((other) => other !== family) : [...rail.feeds, family],
                                })
                              }
                            >
                              {family}
                            </Button>
                          );
                        })}
                      </div>
                    ),
                },
                {
                  head: <span className="visually-hidden">Acts</span>,
                  cell: (rail, index) => (
                    <Button type="link" aria-label={`Drop output ${index + 1}`} onClick={() => drop('rails', index)}>
                      drop
                    </Button>
                  ),
                },
              ]}
            />
            {errorAt('label.rails')}
            <Button
              type="link"
              onClick={() =>
                setWhole({
                  ...whole,
                  rails: [...whole.rails, { label: `12V${twelve.length + 1}`, rail: '+12', amps: '', feeds: [] }],
                })
              }
            >
              another output
            </Button>
          </fieldset>
          <fieldset>
            <legend className="label">Combined limits, and sockets</legend>
            {whole.combined.map((limit, index) => (
              <div key={index} className="range-row" style={{ gridTemplateColumns: '1fr 90px auto' }}>
                <Input
                  className="cell-input"
                  aria-label={`Outputs of limit ${index + 1}`}
                  placeholder="5V + 3.3V"
                  value={limit.labels}
                  onChange={(event) => set('combined', index, { labels: event.target.value })}
                />
                <Input
                  className="cell-input fig"
                  inputMode="decimal"
                  aria-label={`Watts of limit ${index + 1}`}
                  value={limit.watts}
                  onChange={(event) => set('combined', index, { watts: event.target.value })}
                />
                <Button type="link" onClick={() => drop('combined', index)}>
                  drop
                </Button>
                {errorAt(`label.combined.${index}`)}
              </div>
            ))}
            <Button
              type="link"
              onClick={() => setWhole({ ...whole, combined: [...whole.combined, { labels: '5V + 3.3V', watts: '' }] })}
            >
              another limit
            </Button>
            <div className="editor-list">
              {whole.sockets.map((socket, index) => (
                <div
                  key={index}
                  className="range-row"
                  style={{ gridTemplateColumns: twelve.length > 1 ? '1fr 100px 90px auto' : '1fr 110px auto' }}
                >
                  <Input
                    className="cell-input"
                    aria-label={`Socket ${index + 1}`}
                    value={socket.label}
                    maxLength={20}
                    onChange={(event) => set('sockets', index, { label: event.target.value })}
                  />
                  <Select
                    className="cell-input"
                    aria-label={`Kind of socket ${index + 1}`}
                    value={socket.kind}
                    onChange={(picked) => set('sockets', index, { kind: picked })}
                    options={[...socketKinds.map((kind) => ({ value: kind, label: kind }))]}
                  />
                  {twelve.length > 1 &&
                    outputs(
                      socket.output,
                      (output) => set('sockets', index, { output }),
                      `Output behind socket ${index + 1}`,
                    )}
                  <Button type="link" onClick={() => drop('sockets', index)}>
                    drop
                  </Button>
                  {errorAt(`kit.sockets.${index}`)}
                </div>
              ))}
            </div>
            <Button
              type="link"
              onClick={() =>
                setWhole({
                  ...whole,
                  sockets: [...whole.sockets, { label: `S${whole.sockets.length + 1}`, kind: 'drive', output: '' }],
                })
              }
            >
              another socket
            </Button>
          </fieldset>
        </div>
        <fieldset>
          <legend className="label">
            The cable kit, piece by piece: each plug with its distance from the supply in mm
          </legend>
          <Sheet
            rows={whole.cables}
            rowKey={(cable, index) => index}
            columns={[
              {
                head: 'Name',
                width: 110,
                cell: (cable, index) => (
                  <Input
                    className="cell-input"
                    aria-label={`Cable ${index + 1}`}
                    value={cable.id}
                    maxLength={40}
                    onChange={(event) => set('cables', index, { id: event.target.value })}
                  />
                ),
              },
              {
                head: 'Family',
                width: 100,
                cell: (cable, index) => (
                  <Select
                    className="cell-input"
                    aria-label={`Family of cable ${index + 1}`}
                    value={cable.family}
                    onChange={(picked) => set('cables', index, { family: picked })}
                    options={[...cableFamilies.map((family) => ({ value: family, label: family }))]}
                  />
                ),
              },
              {
                head: '',
                width: 100,
                cell: (cable, index) => (
                  <Select
                    className="cell-input"
                    aria-label={`How cable ${index + 1} is joined`}
                    value={cable.fixed}
                    onChange={(picked) => set('cables', index, { fixed: picked })}
                    options={[
                      { value: 'fixed', label: 'fixed' },
                      { value: 'modular', label: 'modular' },
                    ]}
                  />
                ),
              },
              {
                head: 'Count',
                width: 56,
                cell: (cable, index) => (
                  <Input
                    className="cell-input fig"
                    aria-label={`Count of cable ${index + 1}`}
                    value={cable.count}
                    onChange={(event) => set('cables', index, { count: event.target.value })}
                  />
                ),
              },
              {
                head: 'AWG',
                width: 64,
                cell: (cable, index) => (
                  <Select
                    className="cell-input"
                    aria-label={`Gauge of cable ${index + 1}`}
                    value={cable.gauge}
                    onChange={(picked) => set('cables', index, { gauge: picked })}
                    options={[...['16', '18', '20', '22'].map((gauge) => ({ value: gauge, label: gauge }))]}
                  />
                ),
              },
              {
                head: 'Plugs in order',
                cell: (cable, index) => (
                  <>
                    <Input
                      className="cell-input fig"
                      aria-label={`Plugs of cable ${index + 1}`}
                      value={cable.plugs}
                      placeholder="sata 450, sata 600"
                      list="plug-kinds"
                      onChange={(event) => set('cables', index, { plugs: event.target.value })}
                    />
                    {errorAt(`kit.cables.${index}`)}
                  </>
                ),
              },
              twelve.length > 1 && {
                head: 'Output',
                width: 90,
                cell: (cable, index) =>
                  outputs(cable.output, (output) => set('cables', index, { output }), `Output of cable ${index + 1}`),
              },
              {
                head: <span className="visually-hidden">Acts</span>,
                cell: (cable, index) => (
                  <Button type="link" aria-label={`Drop cable ${index + 1}`} onClick={() => drop('cables', index)}>
                    drop
                  </Button>
                ),
              },
            ]}
          />
          <p className="quiet">Plugs: {plugKinds.join(', ')}.</p>
          {Object.entries(errors)
            .filter(([path]) => path === 'kit.cables')
            .map(([path, message]) => (
              <span key={path} className="error-text" role="alert">
                {message}
              </span>
            ))}
          <Button
            type="link"
            onClick={() =>
              setWhole({
                ...whole,
                cables: [
                  ...whole.cables,
                  {
                    id: `cable-${whole.cables.length + 1}`,
                    family: 'drive',
                    fixed: whole.fields.modular === 'fixed' ? 'fixed' : 'modular',
                    count: '1',
                    gauge: '18',
                    plugs: '',
                    output: '',
                  },
                ],
              })
            }
          >
            another cable
          </Button>
        </fieldset>
        {doubts.map((problem) => (
          <p key={problem.code} className="caution" role="status">
            <span>{problemOfLabel(problem)}</span>
          </p>
        ))}
        {told !== null && (
          <p className="error-text" role="alert">
            {told}
          </p>
        )}
        <div className="row-actions editor-save">
          <Button
            type="primary"
            className="primary"
            htmlType="submit"
            style={{ width: 260 }}
            disabled={changing.isLoading}
          >
            <span>{changing.isLoading ? 'Saving …' : 'Save'}</span>
            <kbd aria-hidden="true">↵</kbd>
          </Button>
          {was !== null && (
            <Button
              disabled={technician === null || removing.isLoading}
              onClick={() =>
                void remove({ id: was.id, by: technician ?? '' }).then((answer) => {
                  if (answer.error === undefined) onClose();
                  else setTold(problemOf(answer.error).title);
                })
              }
            >
              Take it out of the shop
            </Button>
          )}
        </div>
      </form>
    </Modal>
  );
}
