import { Button, Input } from 'antd';
import { asRead, hasUsualOutputs, railNames, usualOutputs, type CableFamily, type SupplyLabel } from '@fairwatt/core';
import { FigureField, SelectField } from '../../controls/fields.tsx';
import { Sheet } from '../../controls/sheet.tsx';
import styles from './supply-form.module.css';

export type PutLabel = (changes: Partial<SupplyLabel>) => void;

const families: readonly (readonly [CableFamily, string])[] = [
  ['main', 'main'],
  ['cpu', 'processor'],
  ['card', 'card'],
  ['card-16', '16-pin'],
  ['drive', 'drives'],
];

/** The outputs of a label with their amps; those that nobody read yet are marked. */
export function SupplyOutputs({
  label,
  put,
  locked,
}: {
  readonly label: SupplyLabel;
  readonly put: PutLabel;
  readonly locked: boolean;
}) {
  const several = label.rails.filter((rail) => rail.rail === '+12').length > 1;
  const firstUnread = label.rails.findIndex(({ usual }) => usual === true);
  const setRail = (index: number, changes: Partial<SupplyLabel['rails'][number]>) =>
    put({ rails: label.rails.map((rail, position) => (position === index ? { ...rail, ...changes } : rail)) });
  const drop = (index: number, gone: string) =>
    put({
      rails: label.rails.filter((_, position) => position !== index),
      combined: label.combined
        .map((limit) => ({ ...limit, labels: limit.labels.filter((name) => name !== gone) }))
        .filter((limit) => limit.labels.length > 0),
    });
  const addTwelve = () =>
    put({
      rails: [
        ...label.rails,
        { label: `12V${label.rails.filter((rail) => rail.rail === '+12').length + 1}`, rail: '+12', amps: 0 },
      ],
    });

  return (
    <>
      <Sheet
        label="Rails"
        rows={label.rails}
        rowKey={(rail, index) => index}
        columns={[
          {
            head: 'Output',
            cell: (rail, index) => (
              <Input
                className="cell-input"
                aria-label={`Output ${index + 1}`}
                value={rail.label}
                maxLength={20}
                disabled={locked}
                onChange={(event) => {
                  if (event.target.value.trim() !== '') setRail(index, { label: event.target.value });
                }}
              />
            ),
          },
          {
            head: 'Rail',
            width: 112,
            cell: (rail, index) => (
              <SelectField
                bare
                label={`Rail of ${rail.label}`}
                value={rail.rail}
                disabled={locked}
                options={railNames.map((value) => ({ value, label: `${value} V` }))}
                onChange={(name) => setRail(index, { rail: name })}
              />
            ),
          },
          {
            head: 'Amps',
            width: 96,
            cell: (rail, index) => (
              <div className={rail.usual === true ? styles.usual : undefined}>
                <FigureField
                  bare
                  label={`Amps of ${rail.label}`}
                  value={rail.amps}
                  most={1000}
                  entry={index === firstUnread}
                  disabled={locked}
                  onChange={(amps) => {
                    if (amps !== null) setRail(index, { amps, usual: undefined });
                  }}
                />
              </div>
            ),
          },
          several && {
            head: 'What hangs on it',
            cell: (rail, index) =>
              rail.rail === '+12' && (
                <div className="feeds" role="group" aria-label={`What hangs on ${rail.label}`}>
                  {families.map(([family, name]) => {
                    const feeds = rail.feeds ?? [];
                    const on = feeds.includes(family);
                    return (
                      <Button
                        key={family}
                        aria-pressed={on}
                        disabled={locked}
                        onClick={() =>
                          setRail(index, { feeds: on ? feeds.filter((other) => other !== family) : [...feeds, family] })
                        }
                      >
                        {name}
                      </Button>
                    );
                  })}
                </div>
              ),
          },
          {
            head: <span className="visually-hidden">Acts</span>,
            cell: (rail, index) => (
              <Button
                type="link"
                disabled={locked}
                aria-label={`Take out ${rail.label}`}
                onClick={() => drop(index, rail.label)}
              >
                take out
              </Button>
            ),
          },
        ]}
      />
      <div className="row-actions" style={{ marginTop: 8 }}>
        {label.rails.length === 0 && (
          <Button autoFocus data-entry disabled={locked} onClick={() => put(usualOutputs(label.ratingWatts))}>
            The usual five
          </Button>
        )}
        {hasUsualOutputs(label) && (
          <Button disabled={locked} onClick={() => put(asRead(label))}>
            The label says the same
          </Button>
        )}
        <Button disabled={locked} onClick={addTwelve}>
          Add an output
        </Button>
      </div>
    </>
  );
}
