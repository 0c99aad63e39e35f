import { useRef, useState } from 'react';
import { Button, Input, InputNumber } from 'antd';
import { changeText, partChanges, withFigures, type JobPart } from '@fairwatt/core';
import { FigureField, SelectField } from '../../controls/fields.tsx';
import { Sheet } from '../../controls/sheet.tsx';
import { useSteady } from '../../controls/use-steady.ts';
import { useDesk } from '../../job/job-context.ts';
import { looks } from '../../looks/looks.ts';
import { PartDetails } from './part-details.tsx';
import styles from './part-sheet.module.css';
import { signs } from '../../controls/signs.tsx';

interface PartCell {
  readonly part: JobPart;
  readonly locked: boolean;
}
type PutPart = (part: JobPart, changes: Partial<JobPart>) => void;
type ChangeFigures = (part: JobPart, changes: Partial<JobPart['figures']>) => void;

const changeOptions = partChanges.map((value) => ({ value, label: changeText[value] }));

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
      className={`${looks.cellInput} ${styles.count}`}
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

function NameCell({ part, locked, onPut }: PartCell & { readonly onPut: PutPart }) {
  return (
    <Input
      className={`${looks.cellInput} ${styles.name}`}
      aria-label={`Name of ${part.name}`}
      value={part.name}
      disabled={locked}
      maxLength={80}
      onChange={(event) => {
        if (event.target.value.trim() !== '') onPut(part, { name: event.target.value });
      }}
    />
  );
}

function CountCell({
  part,
  locked,
  onPut,
  onMore,
}: PartCell & { readonly onPut: PutPart; readonly onMore: (more: number) => void }) {
  if (part.inlets.length > 0) return <CountOfOne part={part} locked={locked} onMore={onMore} />;
  return (
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
  );
}

function LastingCell({ part, locked, onChange }: PartCell & { readonly onChange: ChangeFigures }) {
  return (
    <FigureField
      bare
      label={`Lasting watts of ${part.name}`}
      value={part.figures.likelyWatts}
      most={5000}
      disabled={locked}
      onChange={(likelyWatts) => {
        if (likelyWatts !== null) onChange(part, { likelyWatts });
      }}
    />
  );
}

function SecondsCell({ part, locked, onChange }: PartCell & { readonly onChange: ChangeFigures }) {
  return (
    <FigureField
      bare
      label={`Watts for seconds of ${part.name}`}
      value={part.figures.shortWatts}
      least={part.figures.likelyWatts}
      most={5000}
      disabled={locked}
      onChange={(shortWatts) => {
        if (shortWatts !== null) onChange(part, { shortWatts });
      }}
    />
  );
}

function ActsCell({
  part,
  locked,
  isOpen,
  onOpen,
  onDrop,
}: PartCell & { readonly isOpen: boolean; readonly onOpen: () => void; readonly onDrop: () => void }) {
  return (
    <>
      <Button type="link" aria-expanded={isOpen} onClick={onOpen}>
        more
      </Button>
      <Button icon={signs.remove} type="link" disabled={locked} aria-label={`Take out ${part.name}`} onClick={onDrop}>
        take out
      </Button>
    </>
  );
}

/** The range follows from what it was when the field was entered, so that a figure on the way leaves no trace. */
function useFigures(put: PutPart) {
  const base = useRef<{ readonly id: string; readonly figures: JobPart['figures'] } | null>(null);
  const entered = (part: JobPart) => {
    base.current = { id: part.id, figures: part.figures };
  };
  const change: ChangeFigures = (part, changes) => {
    const before = base.current?.id === part.id ? base.current.figures : part.figures;
    put(part, { figures: withFigures(before, changes) });
  };
  return { entered, change };
}

function UpgradeCell({
  part,
  locked,
  onPut,
}: {
  readonly part: JobPart;
  readonly locked: boolean;
  readonly onPut: PutPart;
}) {
  return (
    <SelectField
      bare
      label={`Upgrade: ${part.name}`}
      value={part.change}
      disabled={locked}
      options={changeOptions}
      onChange={(value) => onPut(part, { change: value })}
    />
  );
}

/** Every part in a line; what else is known of one opens beneath it. */
export function PartSheet({
  locked,
  onPut,
  onAddAlike,
  onDrop,
}: {
  readonly locked: boolean;
  readonly onPut: PutPart;
  readonly onAddAlike: (part: JobPart, more: number) => void;
  readonly onDrop: (part: JobPart) => void;
}) {
  const { job } = useDesk();
  const put = useSteady(onPut);
  const addAlike = useSteady(onAddAlike);
  const drop = useSteady(onDrop);
  const [open, setOpen] = useState<string | null>(null);
  const { entered, change } = useFigures(put);
  return (
    <Sheet
      label="Parts"
      rows={job.parts}
      rowKey={(part) => part.id}
      drawnFrom={`${locked} ${open}`}
      rowProps={(part) => ({ onFocus: () => entered(part) })}
      columns={[
        { head: 'Part', width: 250, cell: (part) => <NameCell part={part} locked={locked} onPut={put} /> },
        {
          head: 'Count',
          width: 62,
          cell: (part) => <CountCell part={part} locked={locked} onPut={put} onMore={(more) => addAlike(part, more)} />,
        },
        {
          head: 'Lasting, W',
          width: 96,
          cell: (part) => <LastingCell part={part} locked={locked} onChange={change} />,
        },
        {
          head: 'Seconds, W',
          width: 96,
          cell: (part) => <SecondsCell part={part} locked={locked} onChange={change} />,
        },
        {
          head: 'Upgrade',
          width: 112,
          cell: (part) => <UpgradeCell part={part} locked={locked} onPut={put} />,
        },
        {
          head: 'Inlets',
          className: looks.quiet,
          cell: (part) => part.inlets.map((inlet) => inlet.label).join(', ') || 'none',
        },
        {
          head: <span className={looks.visuallyHidden}>Actions</span>,
          className: looks.nowrap,
          cell: (part) => (
            <ActsCell
              part={part}
              locked={locked}
              isOpen={open === part.id}
              onOpen={() => setOpen(open === part.id ? null : part.id)}
              onDrop={() => drop(part)}
            />
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
