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
import { Sheet } from '../../controls/sheet.tsx';
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
        <PartSheet locked={locked} onPut={put} onDrop={drop} />
      )}
    </>
  );
}

/** Every part in a line; what else is known of one opens beneath it. */
function PartSheet({
  locked,
  onPut,
  onDrop,
}: {
  readonly locked: boolean;
  readonly onPut: (part: JobPart, changes: Partial<JobPart>) => void;
  readonly onDrop: (part: JobPart) => void;
}) {
  const { job } = useDesk();
  const [open, setOpen] = useState<string | null>(null);
  // The range follows from what it was when the field was entered, so that a figure on the way leaves no trace.
  const base = useRef<{ readonly id: string; readonly figures: JobPart['figures'] } | null>(null);
  const entered = (part: JobPart) => {
    base.current = { id: part.id, figures: part.figures };
  };
  const change = (part: JobPart, changes: Partial<JobPart['figures']>) => {
    const before = base.current?.id === part.id ? base.current.figures : part.figures;
    onPut(part, { figures: withFigures(before, changes) });
  };
  return (
    <Sheet
      label="Parts"
      rows={job.parts}
      rowKey={(part) => part.id}
      rowProps={(part) => ({
        onFocus: () => entered(part),
        className: part.change === 'removed' || part.change === 'replaced' ? 'leaving' : '',
      })}
      columns={[
        {
          head: 'Part',
          cell: (part) => (
            <Input
              className="cell-input"
              aria-label={`Name of ${part.name}`}
              value={part.name}
              disabled={locked}
              maxLength={80}
              onChange={(event) => {
                if (notEmpty(event.target.value) === null) onPut(part, { name: event.target.value });
              }}
            />
          ),
        },
        {
          head: 'Count',
          width: 62,
          cell: (part) =>
            part.inlets.length > 0 ? (
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
                  if (quantity !== null) onPut(part, { quantity });
                }}
              />
            ),
        },
        {
          head: 'Lasting, W',
          width: 96,
          cell: (part) => (
            <FigureField
              bare
              label={`Lasting watts of ${part.name}`}
              value={part.figures.likelyWatts}
              most={5000}
              disabled={locked}
              onChange={(likelyWatts) => {
                if (likelyWatts !== null) change(part, { likelyWatts });
              }}
            />
          ),
        },
        {
          head: 'Seconds, W',
          width: 96,
          cell: (part) => (
            <FigureField
              bare
              label={`Watts for seconds of ${part.name}`}
              value={part.figures.shortWatts}
              least={part.figures.likelyWatts}
              most={5000}
              disabled={locked}
              onChange={(shortWatts) => {
                if (shortWatts !== null) change(part, { shortWatts });
              }}
            />
          ),
        },
        {
          head: 'Upgrade',
          width: 112,
          cell: (part) => (
            <SelectField
              bare
              label={`Upgrade: ${part.name}`}
              value={part.change}
              disabled={locked}
              options={partChanges.map((value) => ({ value, label: changeText[value] }))}
              onChange={(value) => onPut(part, { change: value })}
            />
          ),
        },
        {
          head: 'Inlets',
          className: 'quiet',
          cell: (part) => part.inlets.map((inlet) => inlet.label).join(', ') || 'none',
        },
        {
          head: <span className="visually-hidden">Actions</span>,
          className: 'nowrap',
          cell: (part) => (
            <>
              <Button
                type="link"
                aria-expanded={open === part.id}
                onClick={() => setOpen(open === part.id ? null : part.id)}
              >
                more
              </Button>
              <Button type="link" disabled={locked} aria-label={`Take out ${part.name}`} onClick={() => onDrop(part)}>
                take out
              </Button>
            </>
          ),
        },
      ]}
      opened={(part) =>
        open === part.id && (
          <div onFocus={() => entered(part)}>
            <PartDetails
              part={part}
              locked={locked}
              onChange={(changes) => change(part, changes)}
              onPut={(changes) => onPut(part, changes)}
            />
          </div>
        )
      }
    />
  );
}

/** A part's figures after some were typed: low and high stay around the likely one, seconds never below lasting. */
function withFigures(before: JobPart['figures'], changes: Partial<JobPart['figures']>): JobPart['figures'] {
  const next = { ...before, ...changes };
  const likely = next.likelyWatts;
  return {
    ...next,
    // Whoever types a figure knows more than the class; from where is said below, a label until then.
    source: 'source' in changes || next.source !== 'class' ? next.source : 'label',
    lowWatts: Math.min(next.lowWatts, likely),
    highWatts: Math.max(next.highWatts, likely),
    shortWatts: Math.max(next.shortWatts, likely),
  };
}

/** What stands beneath a part's line: the rest of its figures, its inlets' names, where the figures are from. */
function PartDetails({
  part,
  locked,
  onChange,
  onPut,
}: {
  readonly part: JobPart;
  readonly locked: boolean;
  readonly onChange: (changes: Partial<JobPart['figures']>) => void;
  readonly onPut: (changes: Partial<JobPart>) => void;
}) {
  const { figures } = part;
  return (
    <>
      <div className="fields by-four">
        <FigureField
          label="Idle"
          unit="W"
          value={figures.idleWatts}
          most={5000}
          disabled={locked}
          onChange={(idleWatts) => {
            if (idleWatts !== null) onChange({ idleWatts });
          }}
        />
        <FigureField
          label="Low"
          unit="W"
          value={figures.lowWatts}
          most={figures.likelyWatts}
          disabled={locked}
          onChange={(lowWatts) => {
            if (lowWatts !== null) onChange({ lowWatts });
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
            if (highWatts !== null) onChange({ highWatts });
          }}
        />
        <FigureField
          label="Asleep, on standby"
          unit="W"
          most={60}
          value={figures.standbyWatts}
          disabled={locked}
          onChange={(standbyWatts) => {
            if (standbyWatts !== null) onChange({ standbyWatts });
          }}
        />
        <SelectField
          label="Figures from"
          value={figures.source}
          options={figureSources.map((value) => ({ value, label: sourceText[value] }))}
          disabled={locked}
          onChange={(source) => onChange({ source })}
        />
        <FigureField
          label="Spin-up on +12"
          unit="A"
          value={figures.spinUpAmps}
          most={20}
          disabled={locked}
          onChange={(spinUpAmps) => {
            if (spinUpAmps !== null) onChange({ spinUpAmps });
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
