import { Select } from 'antd';
import {
  cameAlongKinds,
  cameAlongText,
  priorities,
  priorityText,
  type CameAlong,
  type SheetChanges,
} from '@fairwatt/core';
import { Choice } from '../../controls/choice.tsx';
import { DateInput } from '../../controls/date-input.tsx';
import { TextField } from '../../controls/fields.tsx';
import { ToggleKeys } from '../../controls/toggle-keys.tsx';
import { useDesk } from '../../job/job-context.ts';
import { looks } from '../../looks/looks.ts';
import { PutAway } from './put-away.tsx';

/** The technician who has the job in hand. */
function InHandOf({
  value,
  onPick,
}: {
  readonly value: string | null;
  readonly onPick: (technicianId: string | null) => void;
}) {
  const { locked, technicians } = useDesk();
  const people = technicians.map(({ id, name }) => ({ value: id, label: name }));
  const known = people.some((person) => person.value === value);
  return (
    <label className={looks.field}>
      <span className={looks.name}>In hand of</span>
      <Select
        aria-label="In hand of"
        value={value}
        disabled={locked}
        placeholder="nobody yet"
        allowClear
        showSearch={{ optionFilterProp: 'label' }}
        onChange={(picked: string | undefined) => onPick(picked ?? null)}
        options={value === null || known ? people : [...people, { value, label: value }]}
      />
    </label>
  );
}

/** What a counter asks: who and how reached, which machine exactly, what came along, until when, in whose hands. */
export function Counter() {
  const { job, act, locked } = useDesk();
  const { sheet } = job;
  const edit = (changes: SheetChanges) => {
    act({ kind: 'edit-sheet', changes, basedOn: sheet.version });
  };
  return (
    <>
      <div className={looks.fields}>
        <TextField
          label="Client"
          value={sheet.client}
          maxLength={80}
          disabled={locked}
          entry
          onChange={(client) => edit({ client })}
        />
        <TextField
          label="Reached by"
          value={sheet.reach}
          maxLength={200}
          disabled={locked}
          placeholder="Telephone, mail, at the counter"
          onChange={(reach) => edit({ reach })}
        />
        <TextField
          label="Serial number or tag of the machine"
          value={sheet.serial}
          maxLength={60}
          disabled={locked}
          onChange={(serial) => edit({ serial })}
        />
        <InHandOf value={sheet.inCharge} onPick={(inCharge) => edit({ inCharge })} />
        <div className={looks.field}>
          <span className={looks.name}>Promised for</span>
          <DateInput
            label="Promised for"
            value={sheet.promisedOn ?? ''}
            disabled={locked}
            onChange={(day) => edit({ promisedOn: day === '' ? null : day })}
          />
        </div>
        <div className={looks.field}>
          <span className={looks.name}>Priority</span>
          <Choice
            label="Priority"
            value={sheet.priority}
            disabled={locked}
            options={priorities.map((value) => ({ value, label: priorityText[value] }))}
            onPick={(priority) => edit({ priority })}
          />
        </div>
      </div>
      <div className={`${looks.block} ${looks.wellBelow}`}>
        <span className={looks.label}>Came along, beside the bag of cables</span>
        <ToggleKeys<CameAlong>
          label="Came along"
          values={sheet.cameAlong}
          options={cameAlongKinds.map((value) => ({ value, label: cameAlongText[value] }))}
          disabled={locked}
          onChange={(cameAlong) => edit({ cameAlong })}
        />
      </div>
      <TextField
        label="Came along, in words"
        value={sheet.cameAlongNote}
        maxLength={200}
        disabled={locked}
        onChange={(cameAlongNote) => edit({ cameAlongNote })}
      />
      <PutAway />
    </>
  );
}
