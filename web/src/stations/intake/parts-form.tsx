import { useRef, useState } from 'react';
import { Button, Input, Select } from 'antd';
import {
  changeText,
  figureSources,
  partChanges,
  partClass,
  partClasses,
  sourceText,
  type JobPart,
  type PartClass,
} from '@fairwatt/core';
import { FigureField, SelectField, TextField } from '../../controls/fields.tsx';
import { Empty } from '../../controls/empty.tsx';
import { problemOf, useKeepOwnPartMutation, useOwnPartsQuery } from '../../app/api.ts';
import { useDesk } from '../../job/job-context.ts';

const groups: readonly (readonly [PartClass['group'], string])[] = [
  ['board', 'Board'],
  ['processor', 'Processor'],
  ['memory', 'Memory'],
  ['card', 'Cards'],
  ['drive', 'Drives'],
  ['cooling', 'Cooling'],
  ['other', 'Other'],
];
const notEmpty = (value: string) => (value.trim() === '' ? 'give it a name' : null);

/** The machine's parts with their figures, and what the upgrade does with each. */
export function PartsForm() {
  const { job, act, locked, offerUndo } = useDesk();
  const [open, setOpen] = useState<string | null>(null);
  const ownParts = useOwnPartsQuery();
  const put = (part: JobPart, changes: Partial<JobPart>) => {
    const { version, ...rest } = { ...part, ...changes };
    act({ kind: 'put-part', part: rest, basedOn: version });
  };
  function add(picked: string): void {
    const own = (ownParts.data ?? []).find((part) => `own:${part.id}` === picked);
    const found = own ?? partClass(picked);
    if (found === undefined) return;
    const classId = own?.classId ?? picked;
    const id = `p-${crypto.randomUUID().slice(0, 8)}`;
    // Two parts or inlets of one name could not be told apart at the bench.
    const distinct = (wanted: string, taken: readonly string[]) => {
      for (let count = 1; ; count += 1) {
        const name = count === 1 ? wanted : `${wanted} ${count}`;
        if (!taken.includes(name)) return name;
      }
    };
    const labels = job.parts.flatMap((part) => part.inlets.map((inlet) => inlet.label));
    act({
      kind: 'put-part',
      basedOn: 0,
      part: {
        id,
        classId,
        name: distinct(
          found.name,
          job.parts.map((part) => part.name),
        ),
        quantity: 1,
        change: 'stays',
        figures: found.figures,
        inlets: found.inlets.map((inlet, index) => ({
          ...inlet,
          label: distinct(inlet.label, labels),
          id: `${id}-${index + 1}`,
        })),
      },
    });
  }
  function drop(part: JobPart): void {
    const { version, ...rest } = part;
    const cables = job.cables.filter((cable) =>
      cable.plugs.some((plug) => part.inlets.some((inlet) => inlet.id === plug.inletId)),
    );
    if (act({ kind: 'drop-part', partId: part.id, basedOn: version }) !== null) return;
    offerUndo(`${part.name} is taken out.`, () => {
      act({ kind: 'put-part', part: rest, basedOn: 0 });
      for (const { version: was, ...cable } of cables) act({ kind: 'put-cable', cable, basedOn: was + 1 });
    });
  }
  return (
    <>
      <div className="block" style={{ maxWidth: 420 }}>
        <label className="field">
          <span className="name">Add a part by its class; its figures can be overwritten</span>
          <Select
            aria-label="Add a part by its class; its figures can be overwritten"
            data-entry
            value={null}
            placeholder="Pick a class, or type two letters"
            showSearch={{ optionFilterProp: 'label' }}
            listHeight={420}
            disabled={locked}
            onChange={(picked: string) => add(picked)}
            options={[
              ...((ownParts.data ?? []).length > 0
                ? [
                    {
                      label: 'Parts of this shop',
                      options: [
                        ...(ownParts.data ?? []).map((part) => ({
                          value: `own:${part.id}`,
                          label: `${part.name} · ${Math.round(part.figures.likelyWatts)} W`,
                        })),
                      ],
                    },
                  ]
                : []),
              ...groups.map(([group, label]) => ({
                label: label,
                options: [
                  ...partClasses
                    .filter((item) => item.group === group)
                    .map((item) => ({
                      value: item.id,
                      label: `${item.name} · ${Math.round(item.figures.likelyWatts)} W`,
                    })),
                ],
              })),
            ]}
          />
        </label>
      </div>
      {job.parts.length === 0 ? (
        <Empty title="No parts yet">Start with the board: it brings the main and processor inlets.</Empty>
      ) : (
        <table className="grid" aria-label="Parts">
          <thead>
            <tr>
              <th>Part</th>
              <th style={{ width: 62 }}>Count</th>
              <th style={{ width: 96 }}>Lasting, W</th>
              <th style={{ width: 96 }}>Seconds, W</th>
              <th style={{ width: 112 }}>Upgrade</th>
              <th>Inlets</th>
              <th>
                <span className="visually-hidden">Actions</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {job.parts.map((part) => (
              <PartRow
                key={part.id}
                part={part}
                locked={locked}
                open={open === part.id}
                onOpen={() => setOpen(open === part.id ? null : part.id)}
                onPut={(changes) => put(part, changes)}
                onDrop={() => drop(part)}
              />
            ))}
          </tbody>
        </table>
      )}
    </>
  );
}

function PartRow({
  part,
  locked,
  open,
  onOpen,
  onPut,
  onDrop,
}: {
  readonly part: JobPart;
  readonly locked: boolean;
  readonly open: boolean;
  readonly onOpen: () => void;
  readonly onPut: (changes: Partial<JobPart>) => void;
  readonly onDrop: () => void;
}) {
  const { figures } = part;
  // The range follows from what it was when the field was entered, so that a figure on the way leaves no trace.
  const base = useRef(figures);
  const change = (changes: Partial<JobPart['figures']>) => {
    const next = { ...base.current, ...changes };
    const likely = next.likelyWatts;
    // The range follows the figure that was typed: low and high stay around it, seconds never below lasting.
    // Whoever types a figure knows more than the class; from where is said below, a label until then.
    const source = 'source' in changes || next.source !== 'class' ? next.source : 'label';
    onPut({
      figures: {
        ...next,
        source,
        lowWatts: Math.min(next.lowWatts, likely),
        highWatts: Math.max(next.highWatts, likely),
        shortWatts: Math.max(next.shortWatts, likely),
      },
    });
  };
  return (
    <>
      <tr
        onFocus={() => {
          base.current = figures;
        }}
        className={part.change === 'removed' || part.change === 'replaced' ? 'leaving' : ''}
      >
        <td>
          <Input
            className="cell-input"
            aria-label={`Name of ${part.name}`}
            value={part.name}
            disabled={locked}
            maxLength={80}
            onChange={(event) => {
              if (notEmpty(event.target.value) === null) onPut({ name: event.target.value });
            }}
          />
        </td>
        <td>
          {part.inlets.length > 0 ? (
            <span className="fig" style={{ paddingLeft: 10 }}>
              1
            </span>
          ) : (
            <FigureField
              bare
              label={`Count of ${part.name}`}
              value={part.quantity}
              least={1}
              most={64}
              whole
              disabled={locked}
              onChange={(quantity) => {
                if (quantity !== null) onPut({ quantity });
              }}
            />
          )}
        </td>
        <td>
          <FigureField
            bare
            label={`Lasting watts of ${part.name}`}
            value={figures.likelyWatts}
            most={5000}
            disabled={locked}
            onChange={(likelyWatts) => {
              if (likelyWatts !== null) change({ likelyWatts });
            }}
          />
        </td>
        <td>
          <FigureField
            bare
            label={`Watts for seconds of ${part.name}`}
            value={figures.shortWatts}
            least={figures.likelyWatts}
            most={5000}
            disabled={locked}
            onChange={(shortWatts) => {
              if (shortWatts !== null) change({ shortWatts });
            }}
          />
        </td>
        <td>
          <SelectField
            bare
            label={`Upgrade: ${part.name}`}
            value={part.change}
            disabled={locked}
            options={partChanges.map((value) => ({ value, label: changeText[value] }))}
            onChange={(value) => onPut({ change: value })}
          />
        </td>
        <td className="quiet">{part.inlets.map((inlet) => inlet.label).join(', ') || 'none'}</td>
        <td className="nowrap">
          <Button type="link" aria-expanded={open} onClick={onOpen}>
            more
          </Button>
          <Button type="link" disabled={locked} aria-label={`Take out ${part.name}`} onClick={onDrop}>
            take out
          </Button>
        </td>
      </tr>
      {open && (
        <tr
          onFocus={() => {
            base.current = figures;
          }}
        >
          <td colSpan={7}>
            <div className="fields by-four">
              <FigureField
                label="Idle"
                unit="W"
                value={figures.idleWatts}
                most={5000}
                disabled={locked}
                onChange={(idleWatts) => {
                  if (idleWatts !== null) change({ idleWatts });
                }}
              />
              <FigureField
                label="Low"
                unit="W"
                value={figures.lowWatts}
                most={figures.likelyWatts}
                disabled={locked}
                onChange={(lowWatts) => {
                  if (lowWatts !== null) change({ lowWatts });
                }}
              />
              <FigureField
                label="High"
                unit="W"
                value={figures.highWatts}
                least={figures.likelyWatts}
                most={5000}
                disabled={locked}
                onChange={(highWatts) => {
                  if (highWatts !== null) change({ highWatts });
                }}
              />
              <FigureField
                label="Asleep, on standby"
                unit="W"
                most={60}
                value={figures.standbyWatts}
                disabled={locked}
                onChange={(standbyWatts) => {
                  if (standbyWatts !== null) change({ standbyWatts });
                }}
              />
              <SelectField
                label="Figures from"
                value={figures.source}
                options={figureSources.map((value) => ({ value, label: sourceText[value] }))}
                disabled={locked}
                onChange={(source) => change({ source })}
              />
              <FigureField
                label="Spin-up on +12"
                unit="A"
                value={figures.spinUpAmps}
                most={20}
                disabled={locked}
                onChange={(spinUpAmps) => {
                  if (spinUpAmps !== null) change({ spinUpAmps });
                }}
              />
              {part.inlets.map((inlet, index) => (
                <TextField
                  key={inlet.id}
                  label={`Inlet ${index + 1}, ${inlet.kind}${inlet.optional ? ', optional' : ''}`}
                  value={inlet.label}
                  maxLength={40}
                  disabled={locked}
                  problem={notEmpty}
                  onChange={(label) =>
                    onPut({ inlets: part.inlets.map((other) => (other.id === inlet.id ? { ...other, label } : other)) })
                  }
                />
              ))}
            </div>
            <p className="quiet" style={{ marginTop: 8 }}>
              On +12 V {Math.round(figures.share12 * 100)} %, +5 V {Math.round(figures.share5 * 100)} %, +3.3 V{' '}
              {Math.round(figures.share33 * 100)} %. Class: {partClass(part.classId)?.name ?? part.classId}; figures{' '}
              {sourceText[figures.source]}. <KeepOwn part={part} />
            </p>
          </td>
        </tr>
      )}
    </>
  );
}

/** Keeps a part with its figures among the shop's own, to be picked in the next job. */
function KeepOwn({ part }: { readonly part: JobPart }) {
  const { technician } = useDesk();
  const [keep, state] = useKeepOwnPartMutation();
  const id =
    part.name
      .toLowerCase()
      .normalize('NFKD')
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-+|-+$/g, '')
      .slice(0, 60) || part.id;
  if (state.isSuccess) return <span role="status">Kept among this shop's parts.</span>;
  return (
    <>
      <Button
        type="link"
        disabled={technician === null || state.isLoading}
        onClick={() =>
          void keep({
            by: technician ?? '',
            part: {
              id,
              name: part.name,
              classId: part.classId,
              figures: part.figures,
              inlets: part.inlets.map(({ kind, label, optional }) => ({ kind, label, optional })),
            },
          })
        }
      >
        keep it among this shop's parts
      </Button>
      {state.isError && (
        <span className="error-text" role="alert">
          {problemOf(state.error).title}
        </span>
      )}
    </>
  );
}
