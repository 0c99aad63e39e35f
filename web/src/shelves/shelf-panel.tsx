import { useState } from 'react';
import { Button, Select } from 'antd';
import type { SupplySummary, Unit, UnitState } from '@fairwatt/contract';
import { problemOf, useChangeUnitMutation, useRemoveUnitMutation, useUnitsQuery } from '../app/api.ts';
import { useAppSelector } from '../app/store.ts';
import { Empty } from '../controls/empty.tsx';
import { TwoStates } from '../controls/two-states.tsx';
import { Waiting } from '../controls/waiting.tsx';
import { looks } from '../looks/looks.ts';
import { UnitSheet } from './unit-sheet.tsx';
import { signs } from '../controls/signs.tsx';
import styles from './shelf-panel.module.css';

const order: readonly UnitState[] = ['new', 'proven', 'spare', 'suspect', 'used'];

const newUnit = (modelId: string): Unit => ({
  id: crypto.randomUUID(),
  version: 0,
  modelId,
  place: '',
  state: 'new',
  serial: '',
  bag: '',
  note: '',
  reservedFor: null,
  usedIn: null,
});

/** What was found first, then by state, name and place. */
const inOrder = (units: readonly Unit[], found: string | null, nameOf: (modelId: string) => string) =>
  [...units].sort(
    (a, b) =>
      Number(b.id === found) - Number(a.id === found) ||
      order.indexOf(a.state) - order.indexOf(b.state) ||
      nameOf(a.modelId).localeCompare(nameOf(b.modelId)) ||
      a.place.localeCompare(b.place),
  );

function AddUnit({
  supplies,
  onAdd,
}: {
  readonly supplies: readonly SupplySummary[];
  readonly onAdd: (modelId: string) => void;
}) {
  const nobody = useAppSelector((state) => state.session.technician) === null;
  const [modelId, setModelId] = useState(supplies[0]?.id ?? '');
  return (
    <>
      <label className={`${looks.field} ${styles.find}`}>
        <span className={looks.name}>Put a supply on the shelf</span>
        <Select
          showSearch={{ optionFilterProp: 'label' }}
          aria-label="Put a supply on the shelf"
          value={modelId}
          onChange={(picked) => setModelId(picked)}
          options={supplies.map(({ id, name }) => ({ value: id, label: name }))}
        />
      </label>
      <Button icon={signs.add} disabled={nobody || modelId === ''} onClick={() => onAdd(modelId)}>
        Add a unit
      </Button>
    </>
  );
}

/** Each supply on the shelf: where it lies, how it is, whose it will be. */
export function ShelfPanel({
  supplies,
  found,
}: {
  readonly supplies: readonly SupplySummary[];
  /** A unit that was looked for: it stands first. */
  readonly found: string | null;
}) {
  const units = useUnitsQuery();
  const by = useAppSelector((state) => state.session.technician) ?? '';
  const [change, changing] = useChangeUnitMutation();
  const [remove, removing] = useRemoveUnitMutation();
  const nameOf = (id: string) => supplies.find((model) => model.id === id)?.name ?? id;
  const put = (unit: Unit, basedOn = unit.version) => void change({ by, basedOn, unit });
  const trouble = changing.error ?? removing.error;
  const refused =
    changing.error !== undefined && problemOf(changing.error).type === '/problems/stale'
      ? changing.originalArgs?.unit
      : undefined;
  if (units.data === undefined)
    return units.isError ? <Empty title={problemOf(units.error).title} /> : <Waiting>Fetching the shelf …</Waiting>;
  const standing = units.data.find((unit) => unit.id === refused?.id) ?? null;
  return (
    <>
      {refused !== undefined && (
        <TwoStates
          what={`The unit of ${nameOf(refused.modelId)}`}
          mine={refused}
          theirs={standing}
          onMine={() => put(refused, standing?.version ?? 0)}
          onTheirs={() => changing.reset()}
        />
      )}
      <div className={`${looks.rowActions} ${looks.onFoot} ${looks.above}`}>
        <AddUnit supplies={supplies} onAdd={(modelId) => put(newUnit(modelId))} />
        <Button icon={signs.save} href="/api/supplies/units/export" download>
          JSON
        </Button>
        {trouble !== undefined && (
          <span className={looks.errorText} role="alert">
            {[problemOf(trouble).title, ...(problemOf(trouble).errors ?? []).map((error) => error.message)].join(': ')}
          </span>
        )}
      </div>
      {units.data.length === 0 ? (
        <Empty title="Nothing on the shelf">Add a unit, or import supplies that say how many are here.</Empty>
      ) : (
        <UnitSheet
          units={inOrder(units.data, found, nameOf)}
          found={found}
          nameOf={nameOf}
          onKeep={(unit, changes) => put({ ...unit, ...changes })}
          onRemove={(unit) => void remove({ id: unit.id, by, basedOn: unit.version })}
        />
      )}
    </>
  );
}
