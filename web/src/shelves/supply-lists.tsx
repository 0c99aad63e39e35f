import { type ReactNode } from 'react';
import { Button, Input, Select } from 'antd';
import {
  cableFamilies,
  gauges,
  plugKinds,
  railNames,
  socketKinds,
  mayHaveTwoEnds,
  type CableFamily,
} from '@fairwatt/core';
import { Sheet } from '../controls/sheet.tsx';
import { codedOptions, type Whole } from './supply-draft.ts';

type ListName = 'rails' | 'combined' | 'sockets' | 'cables';

/** A supply that is being typed, and how its lists are changed. */
export interface Editing {
  readonly whole: Whole;
  readonly setWhole: (whole: Whole) => void;
  readonly set: <K extends ListName>(list: K, index: number, changes: Partial<Whole[K][number]>) => void;
  readonly drop: (list: ListName, index: number) => void;
  /** What is wrong at a path of the supply and below it. */
  readonly errorAt: (path: string) => ReactNode;
  /** What is wrong at a path itself. */
  readonly ownError: (path: string) => ReactNode;
  /** The +12 outputs, which sockets and cables can hang on. */
  readonly twelve: Whole['rails'];
}

/** Picks the +12 output that something hangs on. */
function OutputSelect({
  label,
  value,
  twelve,
  onChange,
}: {
  readonly label: string;
  readonly value: string;
  readonly twelve: Whole['rails'];
  readonly onChange: (output: string) => void;
}) {
  return (
    <Select
      className="cell-input"
      aria-label={label}
      value={value}
      onChange={(picked) => onChange(picked)}
      options={[{ value: '', label: 'not said' }, ...twelve.map((rail) => ({ value: rail.label, label: rail.label }))]}
    />
  );
}

/** The rails of the label with their amps and, where there are several, what each feeds. */
export function OutputsFields({ whole, setWhole, set, drop, errorAt, twelve }: Editing) {
  return (
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
  );
}

/** Limits that several outputs share, and the sockets at the back. */
export function SocketsFields({ whole, setWhole, set, drop, errorAt, twelve }: Editing) {
  return (
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
            {twelve.length > 1 && (
              <OutputSelect
                label={`Output behind socket ${index + 1}`}
                value={socket.output}
                twelve={twelve}
                onChange={(output) => set('sockets', index, { output })}
              />
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
  );
}

/** The cables of the kit with their plugs. */
export function KitFields({ whole, setWhole, set, drop, errorAt, ownError, twelve }: Editing) {
  return (
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
                  {
                    value: 'two-ended',
                    label: 'modular, two plugs',
                    disabled: !mayHaveTwoEnds(cable.family as CableFamily),
                  },
                ]}
                popupMatchSelectWidth={false}
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
                options={gauges.map((gauge) => ({ value: String(gauge), label: String(gauge) }))}
              />
            ),
          },
          whole.cables.some((cable) => cable.family === 'card-16') && {
            head: 'Coded, W',
            width: 92,
            cell: (cable, index) =>
              cable.family === 'card-16' && (
                <Select
                  className="cell-input"
                  aria-label={`Coded watts of cable ${index + 1}`}
                  value={cable.coded}
                  onChange={(picked) => set('cables', index, { coded: picked })}
                  options={codedOptions}
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
          whole.cables.some((cable) => cable.plugs.includes('main-own')) && {
            head: 'Fits the inlet named',
            width: 150,
            cell: (cable, index) =>
              cable.plugs.includes('main-own') && (
                <Input
                  className="cell-input"
                  aria-label={`Inlet that the maker’s own plug of cable ${index + 1} fits`}
                  value={cable.ownPlug}
                  maxLength={40}
                  onChange={(event) => set('cables', index, { ownPlug: event.target.value })}
                />
              ),
          },
          twelve.length > 1 && {
            head: 'Output',
            width: 90,
            cell: (cable, index) => (
              <OutputSelect
                label={`Output of cable ${index + 1}`}
                value={cable.output}
                twelve={twelve}
                onChange={(output) => set('cables', index, { output })}
              />
            ),
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
      {ownError('kit.cables')}
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
                coded: '',
                ownPlug: '',
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
  );
}
