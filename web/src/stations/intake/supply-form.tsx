import { Button, Checkbox, Input, Select } from 'antd';
import {
  emptyLabel,
  grades,
  labelProblems,
  problemOfLabel,
  railNames,
  shapes,
  type CableFamily,
  type SupplyLabel,
} from '@fairwatt/core';
import { FigureField, SelectField, TextField } from '../../controls/fields.tsx';
import { Empty } from '../../controls/empty.tsx';
import { useDesk } from '../../job/job-context.ts';
import { Sheet } from '../../controls/sheet.tsx';

const usual = [
  ['12V', '+12'],
  ['5V', '+5'],
  ['3.3V', '+3.3'],
  ['-12V', '-12'],
  ['5VSB', '+5sb'],
] as const;

const families: readonly (readonly [CableFamily, string])[] = [
  ['main', 'main'],
  ['cpu', 'processor'],
  ['card', 'card'],
  ['card-16', '16-pin'],
  ['drive', 'drives'],
];

/** The label of the supply that came with the machine. */
export function SupplyForm() {
  const { job, act, locked, shop, offerUndo } = useDesk();
  const supply = job.supply;
  const put = (changes: { name?: string; label?: Partial<SupplyLabel> }) => {
    if (supply === null) return;
    act({
      kind: 'put-supply',
      supply: { name: changes.name ?? supply.name, label: { ...supply.label, ...changes.label } },
      basedOn: supply.version,
    });
  };
  if (supply === null) {
    return (
      <Empty title="What does the supply's label say?">
        <div className="fields" style={{ maxWidth: 560, margin: '14px auto 0', textAlign: 'left' }}>
          <FigureField
            label="Rating"
            unit="W"
            least={1}
            most={5000}
            value={null}
            disabled={locked}
            onChange={(ratingWatts) => {
              if (ratingWatts !== null)
                act({ kind: 'put-supply', supply: { name: '', label: { ...emptyLabel, ratingWatts } }, basedOn: 0 });
            }}
          />
          <label className="field">
            <span className="name">or the same as a supply of the shop</span>
            <Select
              showSearch={{ optionFilterProp: 'label' }}
              aria-label="or the same as a supply of the shop"
              value=""
              disabled={locked}
              onChange={(picked) => {
                const model = shop.supplies.find((item) => item.id === picked);
                if (model) act({ kind: 'put-supply', supply: { name: model.name, label: model.label }, basedOn: 0 });
              }}
              options={[
                { value: '', label: 'pick one' },
                ...shop.supplies.map((model) => ({ value: model.id, label: model.name })),
              ]}
            />
          </label>
        </div>
      </Empty>
    );
  }
  const { label } = supply;
  const problems = labelProblems(label);
  const several = label.rails.filter((rail) => rail.rail === '+12').length > 1;
  const setRail = (index: number, changes: Partial<SupplyLabel['rails'][number]>) =>
    put({
      label: { rails: label.rails.map((rail, position) => (position === index ? { ...rail, ...changes } : rail)) },
    });
  return (
    <>
      <div className="fields by-three">
        <TextField
          label="Name on the label"
          value={supply.name}
          maxLength={80}
          disabled={locked}
          onChange={(name) => put({ name })}
        />
        <FigureField
          label="Rating"
          unit="W"
          least={1}
          most={5000}
          value={label.ratingWatts}
          disabled={locked}
          onChange={(ratingWatts) => {
            if (ratingWatts !== null) put({ label: { ratingWatts } });
          }}
        />
        <SelectField
          label="Guide"
          value={label.guide}
          disabled={locked}
          options={[
            { value: '2.x', label: '2.x, or nothing said' },
            { value: '3.x', label: '3.x' },
          ]}
          onChange={(guide) => put({ label: { guide } })}
        />
        <SelectField
          label="Shape"
          value={label.shape}
          disabled={locked}
          options={shapes.map((value) => ({ value, label: value }))}
          onChange={(shape) => put({ label: { shape } })}
        />
        <SelectField
          label="Efficiency grade"
          value={label.grade}
          disabled={locked}
          options={grades.map((value) => ({ value, label: value }))}
          onChange={(grade) => put({ label: { grade } })}
        />
        <SelectField
          label="Cables"
          value={label.modular}
          disabled={locked}
          options={[
            { value: 'fixed', label: 'fixed' },
            { value: 'semi', label: 'partly modular' },
            { value: 'full', label: 'modular' },
          ]}
          onChange={(modular) => put({ label: { modular } })}
        />
      </div>
      <div className="columns" style={{ marginTop: 18 }}>
        <div>
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
                width: 84,
                cell: (rail, index) => (
                  <FigureField
                    bare
                    label={`Amps of ${rail.label}`}
                    value={rail.amps}
                    most={1000}
                    disabled={locked}
                    onChange={(amps) => {
                      if (amps !== null) setRail(index, { amps });
                    }}
                  />
                ),
              },
              several && {
                head: 'What hangs on it',
                cell: (rail, index) =>
                  rail.rail === '+12' && (
                    <div className="feeds" role="group" aria-label={`What hangs on ${rail.label}`}>
                      {families.map(([family, name]) => {
                        const on = (rail.feeds ?? []).includes(family);
                        return (
                          <Button
                            key={family}
                            aria-pressed={on}
                            disabled={locked}
                            onClick={() =>
                              setRail(index, {
                                feeds: on
                                  ? (rail.feeds ?? []).filter((other) => other !== family)
                                  : [...(rail.feeds ?? []), family],
                              })
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
                    onClick={() =>
                      put({
                        label: {
                          rails: label.rails.filter((_, position) => position !== index),
                          combined: label.combined
                            .map((limit) => ({
                              ...limit,
                              labels: limit.labels.filter((name) => name !== rail.label),
                            }))
                            .filter((limit) => limit.labels.length > 0),
                        },
                      })
                    }
                  >
                    take out
                  </Button>
                ),
              },
            ]}
          />
          <div className="row-actions" style={{ marginTop: 8 }}>
            {label.rails.length === 0 && (
              <Button
                disabled={locked}
                onClick={() => put({ label: { rails: usual.map(([name, rail]) => ({ label: name, rail, amps: 0 })) } })}
              >
                The usual five
              </Button>
            )}
            <Button
              disabled={locked}
              onClick={() =>
                put({
                  label: {
                    rails: [
                      ...label.rails,
                      {
                        label: `12V${label.rails.filter((rail) => rail.rail === '+12').length + 1}`,
                        rail: '+12',
                        amps: 0,
                      },
                    ],
                  },
                })
              }
            >
              Add an output
            </Button>
          </div>
        </div>
        <div>
          <Sheet
            label="Combined limits"
            rows={label.combined}
            rowKey={(limit, index) => index}
            columns={[
              { head: 'Combined limit over', cell: (limit) => limit.labels.join(' + ') },
              {
                head: 'Watts',
                width: 96,
                cell: (limit, index) => (
                  <FigureField
                    bare
                    label={`Watts of ${limit.labels.join(' and ')}`}
                    value={limit.watts}
                    most={10_000}
                    disabled={locked}
                    onChange={(watts) => {
                      if (watts !== null)
                        put({
                          label: {
                            combined: label.combined.map((other, position) =>
                              position === index ? { ...other, watts } : other,
                            ),
                          },
                        });
                    }}
                  />
                ),
              },
              {
                head: <span className="visually-hidden">Acts</span>,
                cell: (limit, index) => (
                  <Button
                    type="link"
                    disabled={locked}
                    onClick={() =>
                      put({ label: { combined: label.combined.filter((_, position) => position !== index) } })
                    }
                  >
                    take out
                  </Button>
                ),
              },
            ]}
          />
          <div className="row-actions" style={{ marginTop: 8 }}>
            {(['+5 and +3.3', 'all +12'] as const).map((kind) => {
              const labels = label.rails
                .filter((rail) =>
                  kind === 'all +12' ? rail.rail === '+12' : rail.rail === '+5' || rail.rail === '+3.3',
                )
                .map((rail) => rail.label);
              return (
                <Button
                  key={kind}
                  disabled={locked || labels.length < (kind === 'all +12' ? 1 : 2)}
                  onClick={() => put({ label: { combined: [...label.combined, { labels, watts: 0 }] } })}
                >
                  Limit over {kind}
                </Button>
              );
            })}
          </div>
          <Checkbox
            className="tick"
            checked={label.has16Pin}
            disabled={locked}
            onChange={(event) => put({ label: { has16Pin: event.target.checked } })}
          >
            has a 16-pin card connector
          </Checkbox>
        </div>
      </div>
      {problems.map((problem) => (
        <p
          key={problem.code + ('label' in problem ? problem.label : '')}
          className="caution"
          style={{ marginTop: 12 }}
          role="status"
        >
          {problemOfLabel(problem)}
        </p>
      ))}
      <Button
        type="link"
        style={{ marginTop: 12 }}
        disabled={locked}
        onClick={() => {
          const { version, ...rest } = supply;
          if (act({ kind: 'drop-supply', basedOn: version }) === null)
            offerUndo('The supply is taken out.', () => act({ kind: 'put-supply', supply: rest, basedOn: 0 }));
        }}
      >
        Take the supply out
      </Button>
    </>
  );
}
