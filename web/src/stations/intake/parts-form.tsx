import { useRef, useState } from 'react';
import { Button, Input, InputNumber } from 'antd';
import { changeText, newParts, partChanges, withFigures, type JobPart, type PartSource } from '@fairwatt/core';
import { FigureField, SelectField, TextField } from '../../controls/fields.tsx';
import { newPartId } from './new-part-id.ts';
import { MachineLine } from './machine-line.tsx';
import { PartSearch } from './part-search.tsx';
import { PartDetails } from './part-details.tsx';
import { Sheet } from '../../controls/sheet.tsx';
import { Empty } from '../../controls/empty.tsx';
import { useSteady } from '../../controls/use-steady.ts';
import { useDesk } from '../../job/job-context.ts';

const notEmpty = (value: string) => (value.trim() === '' ? 'give it a name' : null);

/** The machine's parts with their figures, and what the upgrade does with each. */
export function PartsForm() {
  const { job, act, locked, offerUndo } = useDesk();
  const put = (part: JobPart, changes: Partial<JobPart>) => {
    const { version, ...rest } = { ...part, ...changes };
    act({ kind: 'put-part', part: rest, basedOn: version });
  };
  /** Several new parts; the first that is refused ends it. */
  function addNew(source: PartSource, quantity: number, change: JobPart['change']): void {
    for (const part of newParts([{ source, quantity, change }], job.parts, newPartId))
      if (act({ kind: 'put-part', basedOn: 0, part }) !== null) return;
  }
  function drop(part: JobPart): void {
    if (act({ kind: 'drop-part', partId: part.id, basedOn: part.version }) === null)
      offerUndo(`${part.name} is taken out.`);
  }
  return (
    <>
      <MachineLine />
      <div className="block" style={{ maxWidth: 420 }}>
        <PartSearch onAdd={addNew} />
      </div>
      {job.parts.length === 0 ? (
        <Empty title="No parts yet">
          Say the machine in the line above, or start with the board: it brings the main and processor inlets.
        </Empty>
      ) : (
        <>
          <PartSheet
            locked={locked}
            onPut={put}
            onAddAlike={(part, more) => addNew(part, more, part.change)}
            onDrop={drop}
          />
          <div className="block" style={{ maxWidth: 420, marginTop: 18 }}>
            <TextField
              label="Keep it as a usual machine of this shop, under the name"
              value={job.sheet.usualAs}
              maxLength={60}
              disabled={locked}
              placeholder="Others can then be started from it"
              onChange={(usualAs) => act({ kind: 'edit-sheet', changes: { usualAs }, basedOn: job.sheet.version })}
            />
          </div>
        </>
      )}
    </>
  );
}

/** Every part in a line; what else is known of one opens beneath it. */
function PartSheet({
  locked,
  onPut,
  onAddAlike,
  onDrop,
}: {
  readonly locked: boolean;
  readonly onPut: (part: JobPart, changes: Partial<JobPart>) => void;
  readonly onAddAlike: (part: JobPart, more: number) => void;
  readonly onDrop: (part: JobPart) => void;
}) {
  const { job } = useDesk();
  const put = useSteady(onPut);
  const addAlike = useSteady(onAddAlike);
  const drop = useSteady(onDrop);
  const [open, setOpen] = useState<string | null>(null);
  // The range follows from what it was when the field was entered, so that a figure on the way leaves no trace.
  const base = useRef<{ readonly id: string; readonly figures: JobPart['figures'] } | null>(null);
  const entered = (part: JobPart) => {
    base.current = { id: part.id, figures: part.figures };
  };
  const change = (part: JobPart, changes: Partial<JobPart['figures']>) => {
    const before = base.current?.id === part.id ? base.current.figures : part.figures;
    put(part, { figures: withFigures(before, changes) });
  };
  return (
    <Sheet
      label="Parts"
      rows={job.parts}
      rowKey={(part) => part.id}
      drawnFrom={`${locked} ${open}`}
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
                if (notEmpty(event.target.value) === null) put(part, { name: event.target.value });
              }}
            />
          ),
        },
        {
          head: 'Count',
          width: 62,
          cell: (part) =>
            part.inlets.length > 0 ? (
              <CountOfOne part={part} locked={locked} onMore={(more) => addAlike(part, more)} />
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
                  if (quantity !== null) put(part, { quantity });
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
              onChange={(value) => put(part, { change: value })}
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
              <Button type="link" disabled={locked} aria-label={`Take out ${part.name}`} onClick={() => drop(part)}>
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
              onPut={(changes) => put(part, changes)}
            />
          </div>
        )
      }
    />
  );
}

/** A part with inlets is entered one by one: a count typed here adds as many more of it. */
function CountOfOne({
  part,
  locked,
  onMore,
}: {
  readonly part: JobPart;
  readonly locked: boolean;
  readonly onMore: (more: number) => void;
}) {
  // Typed figures on the way to the last one must add nothing: it counts when the field is left or Enter is pressed.
  const [typed, setTyped] = useState(1);
  const settle = () => {
    if (typed > 1) onMore(typed - 1);
    setTyped(1);
  };
  return (
    <InputNumber
      className="cell-input"
      aria-label={`Count of ${part.name}`}
      controls={false}
      min={1}
      max={24}
      precision={0}
      value={typed}
      disabled={locked}
      onChange={(value) => setTyped(value ?? 1)}
      onBlur={settle}
      onPressEnter={settle}
    />
  );
}
