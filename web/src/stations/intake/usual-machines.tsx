import { Select } from 'antd';
import { machineTemplates } from '@fairwatt/core';
import { useUsualMachinesQuery } from '../../app/api.ts';
import { useDesk } from '../../job/job-context.ts';
import { looks } from '../../looks/looks.ts';
import { useLikeJob } from './use-like-job.ts';

/** Begins with a usual machine: one of the shop's own is taken over, one of ours comes as a line to be changed. */
export function UsualMachines({ onLine }: { readonly onLine: (line: string) => void }) {
  const { job, locked } = useDesk();
  const { take, told } = useLikeJob();
  const own = (useUsualMachinesQuery().data ?? []).filter(({ code }) => code !== job.code);
  const pick = (value: string) => {
    const line = machineTemplates.find(({ id }) => id === value)?.line;
    if (line === undefined) void take(value);
    else onLine(line);
  };
  return (
    <>
      <Select
        aria-label="Start from a usual machine"
        value={null}
        placeholder="Start from a usual machine"
        disabled={locked}
        popupMatchSelectWidth={false}
        showSearch={{ optionFilterProp: 'label' }}
        onChange={(value: string | null) => {
          if (value !== null) pick(value);
        }}
        options={[
          ...(own.length === 0
            ? []
            : [
                {
                  label: 'Machines of this shop',
                  options: own.map(({ code, name }) => ({ value: code, label: `${name} · ${code}` })),
                },
              ]),
          {
            label: 'Usual machines, as a line to change',
            options: machineTemplates.map(({ id, name }) => ({ value: id, label: name })),
          },
        ]}
      />
      {told !== null && (
        <span className={looks.errorText} role="alert">
          {told}
        </span>
      )}
    </>
  );
}
