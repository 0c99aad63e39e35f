import { Button, Form } from 'antd';
import { cableFamilies, railNames } from '@fairwatt/core';
import { DraftPick, DraftText } from '../controls/draft-form.tsx';
import { Sheet } from '../controls/sheet.tsx';
import { looks } from '../looks/looks.ts';
import type { RailDraft, Whole } from './supply-draft.ts';
import { signs } from '../controls/signs.tsx';

const railOptions = railNames.map((name) => ({ value: name, label: `${name} V` }));

/** The labels of the +12 outputs, which sockets and cables can hang on. */
export const useTwelveLabels = (): readonly string[] =>
  Form.useWatch(({ rails = [] }: Partial<Whole>) =>
    rails.filter(({ rail }) => rail === '+12').map(({ label }) => label),
  ) ?? [];

/** Picks the +12 output that something hangs on. */
export function OutputPick({
  name,
  label,
  twelve,
}: {
  readonly name: readonly (string | number)[];
  readonly label: string;
  readonly twelve: readonly string[];
}) {
  const options = [{ value: '', label: 'not said' }, ...twelve.map((output) => ({ value: output, label: output }))];
  return <DraftPick bare name={name} label={label} options={options} />;
}

/** What an output feeds, each family of cables on or off. */
function Feeds({
  label,
  value = [],
  onChange,
}: {
  readonly label: string;
  /** Given by the form. */
  readonly value?: readonly string[];
  readonly onChange?: (feeds: readonly string[]) => void;
}) {
  return (
    <div className={looks.feeds} role="group" aria-label={label}>
      {cableFamilies.map((family) => {
        const on = value.includes(family);
        return (
          <Button
            key={family}
            aria-pressed={on}
            onClick={() => onChange?.(on ? value.filter((other) => other !== family) : [...value, family])}
          >
            {family}
          </Button>
        );
      })}
    </div>
  );
}

/** The rails of the label with their amps and, where there are several, what each feeds. */
export function OutputsFields() {
  const twelve = useTwelveLabels();
  const rails = Form.useWatch<readonly RailDraft[] | undefined>('rails');
  return (
    <Form.List name="rails">
      {(fields, { add, remove }, { errors }) => (
        <fieldset>
          <legend className={looks.label}>Outputs</legend>
          <Sheet
            rows={fields}
            rowKey={({ key }) => key}
            columns={[
              {
                head: 'Name',
                cell: ({ name }) => (
                  <DraftText bare name={[name, 'label']} label={`Output ${name + 1}`} maxLength={20} />
                ),
              },
              {
                head: 'Rail',
                cell: ({ name }) => (
                  <DraftPick bare name={[name, 'rail']} label={`Rail of output ${name + 1}`} options={railOptions} />
                ),
              },
              {
                head: 'Amps',
                cell: ({ name }) => (
                  <DraftText bare figure name={[name, 'amps']} label={`Amps of output ${name + 1}`} />
                ),
              },
              twelve.length > 1 && {
                head: 'Feeds',
                cell: ({ name }) =>
                  rails?.[name]?.rail === '+12' && (
                    <Form.Item name={[name, 'feeds']}>
                      <Feeds label={`What output ${name + 1} feeds`} />
                    </Form.Item>
                  ),
              },
              {
                head: <span className={looks.visuallyHidden}>Acts</span>,
                cell: ({ name }) => (
                  <Button
                    icon={signs.remove}
                    type="link"
                    aria-label={`Drop output ${name + 1}`}
                    onClick={() => remove(name)}
                  >
                    drop
                  </Button>
                ),
              },
            ]}
          />
          <Form.ErrorList errors={errors} />
          <Button
            icon={signs.add}
            type="link"
            onClick={() => add({ label: `12V${twelve.length + 1}`, rail: '+12', amps: '', feeds: [] })}
          >
            another output
          </Button>
        </fieldset>
      )}
    </Form.List>
  );
}
