import { useState } from 'react';
import { Button, Checkbox, Input, Select } from 'antd';
import {
  adapterNote,
  adapterRefusal,
  adapterRefusalText,
  parseFigure,
  plugKinds,
  plugName,
  inletName,
  standardInletKinds,
} from '@fairwatt/core';
import { bagAdapterSchema, type BagAdapter } from '@fairwatt/contract';
import { problemOf, useChangeBagAdapterMutation, useRemoveBagAdapterMutation } from '../app/api.ts';
import { useAppSelector } from '../app/store.ts';
import { Empty } from '../controls/empty.tsx';
import { RemoveButton } from '../controls/remove-button.tsx';
import { Sheet } from '../controls/sheet.tsx';

const fresh = {
  label: '',
  place: '',
  takes: 'cpu-8',
  gives: 'cpu-4+4',
  ownPlug: '',
  legs: '1',
  adds: '200',
  watts: '',
  count: '1',
  moulded: false,
};

/** Adapters and extensions that a plan may use, and the ones that never may. */
export function AdaptersPanel({ adapters }: { readonly adapters: readonly BagAdapter[] }) {
  const technician = useAppSelector((state) => state.session.technician);
  const [change, changing] = useChangeBagAdapterMutation();
  const [remove] = useRemoveBagAdapterMutation();
  const [draft, setDraft] = useState(fresh);
  const [told, setTold] = useState<readonly string[]>([]);
  const figure = (text: string): unknown => parseFigure(text) ?? text;
  async function add(): Promise<void> {
    const read = bagAdapterSchema.safeParse({
      id: crypto.randomUUID(),
      version: 0,
      label: draft.label.trim(),
      place: draft.place,
      takes: draft.takes,
      gives: draft.gives,
      ...(draft.gives === 'main-own' && draft.ownPlug.trim() !== '' ? { ownPlug: draft.ownPlug.trim() } : {}),
      legs: figure(draft.legs),
      moulded: draft.moulded,
      addsMillimetres: figure(draft.adds),
      watts: draft.watts.trim() === '' ? null : figure(draft.watts),
      count: figure(draft.count),
    });
    if (!read.success) {
      setTold(read.error.issues.map((issue) => `${issue.path.join('.')}: ${issue.message}`));
      return;
    }
    const answer = await change({ by: technician ?? '', basedOn: 0, adapter: read.data });
    if (answer.error === undefined) {
      setDraft(fresh);
      setTold([]);
    } else
      setTold([problemOf(answer.error).title, ...(problemOf(answer.error).errors ?? []).map((error) => error.message)]);
  }
  const field = (
    name: 'label' | 'place' | 'ownPlug' | 'legs' | 'adds' | 'watts' | 'count',
    label: string,
    width: number,
  ) => (
    <label className="field" style={{ width }}>
      <span className="name">{label}</span>
      <Input
        value={draft[name]}
        maxLength={40}
        onChange={(event) => setDraft({ ...draft, [name]: event.target.value })}
      />
    </label>
  );
  return (
    <div style={{ maxWidth: 980 }}>
      {adapters.length === 0 ? (
        <Empty title="No adapters yet">
          Extensions, and 16-pin adapters of separate 8-pin cables, go here. Drive-to-card adapters and moulded four-pin
          ones are refused.
        </Empty>
      ) : (
        <Sheet
          label="Adapters"
          rows={adapters}
          rowKey={(adapter) => adapter.id}
          rowProps={(adapter) => ({ 'data-adapter': adapter.label })}
          columns={[
            { head: 'Label', cell: (adapter) => <span className="tag small">{adapter.label}</span> },
            { head: 'Takes', cell: (adapter) => inletName[adapter.takes] },
            { head: 'Gives', cell: (adapter) => plugName[adapter.gives] },
            { head: 'Legs', className: 'num', cell: (adapter) => adapter.legs },
            { head: 'Adds', className: 'num', cell: (adapter) => `${adapter.addsMillimetres} mm` },
            {
              head: 'Carries',
              className: 'num',
              cell: (adapter) => (adapter.watts === null ? '-' : `${adapter.watts} W`),
            },
            { head: 'There', className: 'num', cell: (adapter) => adapter.count },
            { head: 'Place', cell: (adapter) => adapter.place },
            {
              head: 'Mind',
              cell: (adapter) => {
                const refusal = adapterRefusal(adapter);
                return refusal === null ? adapterNote(adapter) : adapterRefusalText(refusal);
              },
            },
            {
              head: <span className="visually-hidden">Acts</span>,
              cell: (adapter) => (
                <RemoveButton
                  what={adapter.label}
                  text="off the record"
                  disabled={technician === null}
                  onRemove={() => void remove({ id: adapter.id, by: technician ?? '' })}
                />
              ),
            },
          ]}
        />
      )}
      <form
        aria-label="Enter an adapter"
        style={{ marginTop: 18 }}
        onSubmit={(event) => {
          event.preventDefault();
          void add();
        }}
      >
        <span className="label">Enter an adapter or extension</span>
        <div className="row-actions" style={{ alignItems: 'end', marginTop: 6 }}>
          {field('label', 'Label', 90)}
          <label className="field" style={{ width: 165 }}>
            <span className="name">Takes plugs for</span>
            <Select
              aria-label="Takes plugs for"
              value={draft.takes}
              onChange={(picked) => setDraft({ ...draft, takes: picked })}
              options={[...standardInletKinds.map((kind) => ({ value: kind, label: inletName[kind] }))]}
            />
          </label>
          <label className="field" style={{ width: 165 }}>
            <span className="name">Gives a plug</span>
            <Select
              aria-label="Gives a plug"
              value={draft.gives}
              onChange={(picked) => setDraft({ ...draft, gives: picked })}
              options={[...plugKinds.map((kind) => ({ value: kind, label: plugName[kind] }))]}
            />
          </label>
          {draft.gives === 'main-own' && field('ownPlug', 'For the inlet named', 190)}
          {field('legs', 'Legs', 60)}
          {field('adds', 'Adds (mm)', 90)}
          {field('watts', 'Carries (W)', 95)}
          {field('count', 'There', 60)}
          {field('place', 'Place', 120)}
          <Checkbox
            className="tick"
            checked={draft.moulded}
            onChange={(event) => setDraft({ ...draft, moulded: event.target.checked })}
          >
            moulded
          </Checkbox>
          <Button htmlType="submit" disabled={technician === null || changing.isLoading}>
            Enter
          </Button>
        </div>
        {told.length > 0 && (
          <div className="error-text" role="alert">
            {told.map((line) => (
              <div key={line}>{line}</div>
            ))}
          </div>
        )}
      </form>
    </div>
  );
}
