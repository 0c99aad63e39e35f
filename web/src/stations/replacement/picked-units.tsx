import { boundToBe } from '@fairwatt/core';
import { Button } from 'antd';
import type { Unit } from '@fairwatt/contract';
import { problemOf, useChangeUnitMutation, useUnitsQuery } from '../../app/api.ts';
import { useDesk } from '../../job/job-context.ts';
import { looks } from '../../looks/looks.ts';

/** The units of this supply on the shelf; one can be put by for this job, or marked as used in it. */
export function Units({ modelId, chosen }: { readonly modelId: string; readonly chosen: boolean }) {
  const { code, technician, locked } = useDesk();
  const units = useUnitsQuery();
  const [change, state] = useChangeUnitMutation();
  const own = (units.data ?? []).filter(
    (unit) =>
      unit.modelId === modelId &&
      (unit.reservedFor === code ||
        unit.usedIn === code ||
        ((unit.state === 'new' || unit.state === 'proven') && unit.reservedFor === null)),
  );
  if (own.length === 0) return null;
  const mine = own.find((unit) => unit.reservedFor === code || unit.usedIn === code);
  const set = (unit: Unit, changes: Partial<Unit>) =>
    void change({ by: technician ?? '', basedOn: unit.version, unit: { ...unit, ...changes } });
  const where = (unit: Unit) =>
    [
      unit.place === '' ? 'place not noted' : unit.place,
      unit.serial,
      unit.state === 'proven' ? 'used and proven' : unit.state,
    ]
      .filter((text) => text !== '')
      .join(', ');
  const first = mine ?? boundToBe(own[0], 'unit');
  return (
    <div data-units={modelId}>
      <p>
        {mine === undefined ? 'On the shelf' : mine.state === 'used' ? 'Used here' : 'Put by for this job'}:{' '}
        {where(first)}
        {own.length > 1 && mine === undefined ? ` and ${own.length - 1} more` : ''}.
      </p>
      <div className={looks.rowActions}>
        {mine === undefined && (
          <Button disabled={locked || state.isLoading} onClick={() => set(first, { reservedFor: code })}>
            Put one by for this job
          </Button>
        )}
        {mine?.reservedFor === code && (
          <Button type="link" disabled={locked || state.isLoading} onClick={() => set(mine, { reservedFor: null })}>
            release it
          </Button>
        )}
        {mine?.reservedFor === code && chosen && (
          <Button
            type="link"
            disabled={locked || state.isLoading}
            onClick={() => set(mine, { reservedFor: null, state: 'used', usedIn: code })}
          >
            it is fitted
          </Button>
        )}
      </div>
      {state.isError && (
        <p className={looks.errorText} role="alert">
          {problemOf(state.error).title}
        </p>
      )}
    </div>
  );
}
