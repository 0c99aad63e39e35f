import { useState } from 'react';
import { Button, Input, Select } from 'antd';
import type { SupplyModel } from '@fairwatt/core';
import { unitStates, type Unit, type UnitState } from '@fairwatt/contract';
import { problemOf, useChangeUnitMutation, useRemoveUnitMutation, useUnitsQuery } from '../app/api.ts';
import { useAppSelector } from '../app/store.ts';
import { Empty } from '../controls/empty.tsx';
import { TwoStates } from '../controls/two-states.tsx';
import { Waiting } from '../controls/waiting.tsx';
import { RemoveButton } from '../controls/remove-button.tsx';
import { Sheet } from '../controls/sheet.tsx';

const stateText: Record<UnitState, string> = {
  new: 'new',
  proven: 'used and proven',
  suspect: 'suspect',
  spare: 'known good, for swaps',
  used: 'fitted',
};
const order: readonly UnitState[] = ['new', 'proven', 'spare', 'suspect', 'used'];

/** Each supply on the shelf: where it lies, how it is, whose it will be. */
export function ShelfPanel({
  supplies,
  found,
}: {
  readonly supplies: readonly SupplyModel[];
  /** A unit that was looked for: it stands first. */
  readonly found: string | null;
}) {
  const units = useUnitsQuery();
  const technician = useAppSelector((state) => state.session.technician);
  const [change, changing] = useChangeUnitMutation();
  const [remove, removing] = useRemoveUnitMutation();
  const [adding, setAdding] = useState(supplies[0]?.id ?? '');
  const nameOf = (id: string) => supplies.find((model) => model.id === id)?.name ?? id;
  const keep = (unit: Unit, changes: Partial<Unit>) =>
    void change({ by: technician ?? '', basedOn: unit.version, unit: { ...unit, ...changes } });
  const trouble = changing.error ?? removing.error;
  const refused =
    changing.error !== undefined && problemOf(changing.error).type === '/problems/stale'
      ? changing.originalArgs?.unit
      : undefined;
  if (units.data === undefined)
    return units.isError ? <Empty title={problemOf(units.error).title} /> : <Waiting>Fetching the shelf …</Waiting>;
  const sorted = [...units.data].sort(
    (a, b) =>
      Number(b.id === found) - Number(a.id === found) ||
      order.indexOf(a.state) - order.indexOf(b.state) ||
      nameOf(a.modelId).localeCompare(nameOf(b.modelId)) ||
      a.place.localeCompare(b.place),
  );
  const standing = units.data.find((unit) => unit.id === refused?.id) ?? null;
  const textOf = (unit: Unit, field: 'place' | 'serial' | 'bag') => (
    <Cell
      label={`${field} of ${nameOf(unit.modelId)}`}
      value={unit[field]}
      disabled={technician === null || unit.state === 'used'}
      onKeep={(text) => keep(unit, { [field]: text })}
    />
  );
  return (
    <>
      {refused !== undefined && (
        <TwoStates
          what={`The unit of ${nameOf(refused.modelId)}`}
          mine={refused}
          theirs={standing}
          onMine={() => void change({ by: technician ?? '', basedOn: standing?.version ?? 0, unit: refused })}
          onTheirs={() => changing.reset()}
        />
      )}
      <div className="row-actions" style={{ alignItems: 'end', marginBottom: 12 }}>
        <label className="field" style={{ width: 260 }}>
          <span className="name">Put a supply on the shelf</span>
          <Select
            showSearch={{ optionFilterProp: 'label' }}
            aria-label="Put a supply on the shelf"
            value={adding}
            onChange={(picked) => setAdding(picked)}
            options={[...supplies.map((model) => ({ value: model.id, label: model.name }))]}
          />
        </label>
        <Button
          disabled={technician === null || adding === ''}
          onClick={() =>
            void change({
              by: technician ?? '',
              basedOn: 0,
              unit: {
                id: crypto.randomUUID(),
                version: 0,
                modelId: adding,
                place: '',
                state: 'new',
                serial: '',
                bag: '',
                note: '',
                reservedFor: null,
                usedIn: null,
              },
            })
          }
        >
          Add a unit
        </Button>
        <Button href="/api/supplies/units/export" download>
          JSON
        </Button>
        {trouble !== undefined && (
          <span className="error-text" role="alert">
            {[problemOf(trouble).title, ...(problemOf(trouble).errors ?? []).map((error) => error.message)].join(': ')}
          </span>
        )}
      </div>
      {sorted.length === 0 ? (
        <Empty title="Nothing on the shelf">Add a unit, or import supplies that say how many are here.</Empty>
      ) : (
        <Sheet
          rows={sorted}
          rowKey={(unit) => unit.id}
          rowProps={(unit) => ({
            'data-unit': unit.id,
            'data-unit-model': unit.modelId,
            'data-found': unit.id === found ? true : undefined,
          })}
          columns={[
            { head: 'Supply', cell: (unit) => <strong>{nameOf(unit.modelId)}</strong> },
            {
              head: 'State',
              width: 190,
              cell: (unit) =>
                unit.state === 'used' ? (
                  <span>fitted in {unit.usedIn}</span>
                ) : (
                  <Select
                    className="cell-input"
                    aria-label={`State of ${nameOf(unit.modelId)}`}
                    value={unit.state}
                    disabled={technician === null || unit.reservedFor !== null}
                    onChange={(picked) => keep(unit, { state: picked })}
                    options={[
                      ...unitStates
                        .filter((state) => state !== 'used')
                        .map((state) => ({ value: state, label: stateText[state] })),
                    ]}
                  />
                ),
            },
            { head: 'Place', width: 110, cell: (unit) => textOf(unit, 'place') },
            { head: 'Serial', width: 140, cell: (unit) => textOf(unit, 'serial') },
            { head: 'Cables in the bag', cell: (unit) => textOf(unit, 'bag') },
            {
              head: 'Put by for',
              width: 120,
              cell: (unit) =>
                unit.reservedFor === null ? (
                  ''
                ) : (
                  <>
                    {unit.reservedFor}{' '}
                    <Button
                      type="link"
                      disabled={technician === null}
                      onClick={() => keep(unit, { reservedFor: null })}
                    >
                      release
                    </Button>
                  </>
                ),
            },
            {
              head: <span className="visually-hidden">Acts</span>,
              cell: (unit) =>
                unit.state !== 'used' && (
                  <RemoveButton
                    what={`one ${nameOf(unit.modelId)}`}
                    text="off the record"
                    disabled={technician === null}
                    onRemove={() => void remove({ id: unit.id, by: technician ?? '', basedOn: unit.version })}
                  />
                ),
            },
          ]}
        />
      )}
    </>
  );
}

/** A cell that is kept when it is left or Enter pressed. */
function Cell({
  label,
  value,
  disabled,
  onKeep,
}: {
  readonly label: string;
  readonly value: string;
  readonly disabled: boolean;
  readonly onKeep: (text: string) => void;
}) {
  const [draft, setDraft] = useState<string | null>(null);
  const keep = () => {
    if (draft !== null && draft !== value) onKeep(draft);
    setDraft(null);
  };
  return (
    <Input
      className="cell-input"
      aria-label={label}
      value={draft ?? value}
      maxLength={60}
      disabled={disabled}
      autoComplete="off"
      onChange={(event) => setDraft(event.target.value)}
      onBlur={keep}
      onKeyDown={(event) => {
        if (event.key === 'Enter') event.currentTarget.blur();
      }}
    />
  );
}
