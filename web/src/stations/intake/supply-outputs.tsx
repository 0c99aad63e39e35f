import { Button, Input } from 'antd';
import { asRead, hasUsualOutputs, railNames, usualOutputs, type CableFamily, type SupplyLabel } from '@fairwatt/core';
import { FigureField, SelectField } from '../../controls/fields.tsx';
import { Sheet } from '../../controls/sheet.tsx';
import { looks } from '../../looks/looks.ts';
import { signs } from '../../controls/signs.tsx';
import { goToFirstUnread } from './first-unread.ts';
import styles from './supply-form.module.css';

export type PutLabel = (changes: Partial<SupplyLabel>) => void;

const families: readonly (readonly [CableFamily, string])[] = [
  ['main', 'main'],
  ['cpu', 'processor'],
  ['card', 'card'],
  ['card-16', '16-pin'],
  ['drive', 'drives'],
];

type Output = SupplyLabel['rails'][number];
interface OutputCell {
  readonly output: Output;
  readonly locked: boolean;
  readonly onChange: (changes: Partial<Output>) => void;
}

const twelves = (label: SupplyLabel) => label.rails.filter((output) => output.rail === '+12').length;

/** A label without one of its outputs, and without it in what limits several together. */
const withoutOutput = (label: SupplyLabel, index: number): Pick<SupplyLabel, 'rails' | 'combined'> => ({
  rails: label.rails.filter((_, position) => position !== index),
  combined: label.combined
    .map((limit) => ({ ...limit, labels: limit.labels.filter((name) => name !== label.rails[index]?.label) }))
    .filter((limit) => limit.labels.length > 0),
});

function NameCell({ output, locked, onChange, number }: OutputCell & { readonly number: number }) {
  return (
    <Input
      className={looks.cellInput}
      aria-label={`Output ${number}`}
      value={output.label}
      maxLength={20}
      disabled={locked}
      onChange={(event) => {
        if (event.target.value.trim() !== '') onChange({ label: event.target.value });
      }}
    />
  );
}

function AmpsCell({ output, locked, onChange, entry }: OutputCell & { readonly entry: boolean }) {
  return (
    <div className={output.usual === true ? styles.usual : undefined}>
      <FigureField
        bare
        label={`Amps of ${output.label}`}
        value={output.amps}
        most={1000}
        entry={entry}
        disabled={locked}
        onEntered={goToFirstUnread}
        onChange={(amps) => {
          if (amps !== null) onChange({ amps, usual: undefined });
        }}
      />
    </div>
  );
}

/** Which cables hang on one of several +12 V outputs. */
function FeedsCell({ output, locked, onChange }: OutputCell) {
  if (output.rail !== '+12') return null;
  const feeds = output.feeds ?? [];
  return (
    <div className={looks.feeds} role="group" aria-label={`What hangs on ${output.label}`}>
      {families.map(([family, name]) => {
        const on = feeds.includes(family);
        return (
          <Button
            key={family}
            aria-pressed={on}
            disabled={locked}
            onClick={() => onChange({ feeds: on ? feeds.filter((other) => other !== family) : [...feeds, family] })}
          >
            {name}
          </Button>
        );
      })}
    </div>
  );
}

function RailCell({ output, locked, onChange }: OutputCell) {
  return (
    <SelectField
      bare
      label={`Rail of ${output.label}`}
      value={output.rail}
      disabled={locked}
      options={railNames.map((value) => ({ value, label: `${value} V` }))}
      onChange={(rail) => onChange({ rail })}
    />
  );
}

interface Outputs {
  readonly label: SupplyLabel;
  readonly put: PutLabel;
  readonly locked: boolean;
}

/** The outputs of a label with their amps; those that nobody read yet are marked. */
export function SupplyOutputs({ label, put, locked }: Outputs) {
  const firstUnread = label.rails.findIndex(({ usual }) => usual === true);
  const cellOf = (output: Output, index: number): OutputCell => ({
    output,
    locked,
    onChange: (changes) =>
      put({ rails: label.rails.map((other, position) => (position === index ? { ...other, ...changes } : other)) }),
  });
  return (
    <>
      <Sheet
        label="Rails"
        rows={label.rails}
        rowKey={(_, index) => index}
        columns={[
          { head: 'Output', cell: (output, index) => <NameCell {...cellOf(output, index)} number={index + 1} /> },
          {
            head: 'Rail',
            width: 112,
            cell: (output, index) => <RailCell {...cellOf(output, index)} />,
          },
          {
            head: 'Amps',
            width: 96,
            cell: (output, index) => <AmpsCell {...cellOf(output, index)} entry={index === firstUnread} />,
          },
          twelves(label) > 1 && {
            head: 'What hangs on it',
            cell: (output, index) => <FeedsCell {...cellOf(output, index)} />,
          },
          {
            head: <span className={looks.visuallyHidden}>Acts</span>,
            cell: (output, index) => (
              <Button
                icon={signs.remove}
                type="link"
                disabled={locked}
                aria-label={`Take out ${output.label}`}
                onClick={() => put(withoutOutput(label, index))}
              >
                take out
              </Button>
            ),
          },
        ]}
      />
      <OutputActs label={label} put={put} locked={locked} />
    </>
  );
}

/** The usual outputs, all as on the label, or one more. */
function OutputActs({ label, put, locked }: Outputs) {
  const addTwelve = () => put({ rails: [...label.rails, { label: `12V${twelves(label) + 1}`, rail: '+12', amps: 0 }] });
  return (
    <div className={`${looks.rowActions} ${looks.below}`}>
      {label.rails.length === 0 && (
        <Button
          autoFocus
          data-entry
          disabled={locked}
          onClick={() => {
            put(usualOutputs(label.ratingWatts));
            goToFirstUnread();
          }}
        >
          The usual five
        </Button>
      )}
      {hasUsualOutputs(label) && (
        <Button disabled={locked} onClick={() => put(asRead(label))}>
          The label says the same
        </Button>
      )}
      <Button icon={signs.add} disabled={locked} onClick={addTwelve}>
        Add an output
      </Button>
    </div>
  );
}
