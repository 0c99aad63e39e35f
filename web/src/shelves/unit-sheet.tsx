import { useState } from 'react';
import { Button, Input, Select } from 'antd';
import { unitStates, type Unit, type UnitState } from '@fairwatt/contract';
import { RemoveButton } from '../controls/remove-button.tsx';
import { Sheet } from '../controls/sheet.tsx';
import { useAppSelector } from '../app/store.ts';
import { looks } from '../looks/looks.ts';

const stateText: Record<UnitState, string> = {
  new: 'new',
  proven: 'used and proven',
  suspect: 'suspect',
  spare: 'known good, for swaps',
  used: 'fitted',
};
const choosable = unitStates
  .filter((state) => state !== 'used')
  .map((state) => ({ value: state, label: stateText[state] }));

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
      className={looks.cellInput}
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

interface UnitCell {
  readonly unit: Unit;
  /** The supply's name. */
  readonly name: string;
  readonly onKeep: (unit: Unit, changes: Partial<Unit>) => void;
}

function TextCell({ unit, name, field, onKeep }: UnitCell & { readonly field: 'place' | 'serial' | 'bag' }) {
  const nobody = useAppSelector((state) => state.session.technician) === null;
  return (
    <Cell
      label={`${field} of ${name}`}
      value={unit[field]}
      disabled={nobody || unit.state === 'used'}
      onKeep={(text) => onKeep(unit, { [field]: text })}
    />
  );
}

function StateCell({ unit, name, onKeep }: UnitCell) {
  const nobody = useAppSelector((state) => state.session.technician) === null;
  if (unit.state === 'used') return <span>fitted in {unit.usedIn}</span>;
  return (
    <Select
      className={looks.cellInput}
      aria-label={`State of ${name}`}
      value={unit.state}
      disabled={nobody || unit.reservedFor !== null}
      onChange={(picked) => onKeep(unit, { state: picked })}
      options={choosable}
    />
  );
}

function ReservedCell({ unit, onKeep }: Omit<UnitCell, 'name'>) {
  const nobody = useAppSelector((state) => state.session.technician) === null;
  if (unit.reservedFor === null) return '';
  return (
    <>
      {unit.reservedFor}{' '}
      <Button type="link" disabled={nobody} onClick={() => onKeep(unit, { reservedFor: null })}>
        release
      </Button>
    </>
  );
}

/** A line for each supply on the shelf, every cell of which can be put right. */
export function UnitSheet({
  units,
  found,
  nameOf,
  onKeep,
  onRemove,
}: {
  readonly units: readonly Unit[];
  readonly found: string | null;
  readonly nameOf: (modelId: string) => string;
  readonly onKeep: UnitCell['onKeep'];
  readonly onRemove: (unit: Unit) => void;
}) {
  const nobody = useAppSelector((state) => state.session.technician) === null;
  const cellOf = (unit: Unit): UnitCell => ({ unit, name: nameOf(unit.modelId), onKeep });
  return (
    <Sheet
      rows={units}
      rowKey={(unit) => unit.id}
      rowProps={(unit) => ({
        'data-unit': unit.id,
        'data-unit-model': unit.modelId,
        'data-found': unit.id === found ? true : undefined,
      })}
      columns={[
        { head: 'Supply', cell: (unit) => <strong>{nameOf(unit.modelId)}</strong> },
        { head: 'State', width: 190, cell: (unit) => <StateCell {...cellOf(unit)} /> },
        { head: 'Place', width: 110, cell: (unit) => <TextCell {...cellOf(unit)} field="place" /> },
        { head: 'Serial', width: 140, cell: (unit) => <TextCell {...cellOf(unit)} field="serial" /> },
        { head: 'Cables in the bag', cell: (unit) => <TextCell {...cellOf(unit)} field="bag" /> },
        { head: 'Put by for', width: 120, cell: (unit) => <ReservedCell unit={unit} onKeep={onKeep} /> },
        {
          head: <span className={looks.visuallyHidden}>Acts</span>,
          cell: (unit) =>
            unit.state !== 'used' && (
              <RemoveButton
                what={`one ${nameOf(unit.modelId)}`}
                text="off the record"
                disabled={nobody}
                onRemove={() => onRemove(unit)}
              />
            ),
        },
      ]}
    />
  );
}
