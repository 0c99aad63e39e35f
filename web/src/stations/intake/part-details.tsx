import { Button } from 'antd';
import { figureSources, partClass, sourceText, type JobPart } from '@fairwatt/core';
import { problemOf, useKeepOwnPartMutation } from '../../app/api.ts';
import { FigureField, SelectField } from '../../controls/fields.tsx';
import { useDesk } from '../../job/job-context.ts';
import { looks } from '../../looks/looks.ts';
import { InletsEditor } from './inlets-editor.tsx';

type Figures = JobPart['figures'];

/** The rest of a part's figures: name, unit, and the range that keeps low, likely and high in order. */
const figureFields: readonly {
  readonly key: 'idleWatts' | 'lowWatts' | 'highWatts' | 'standbyWatts' | 'spinUpAmps' | 'spinUpAmps5';
  readonly label: string;
  readonly unit: 'W' | 'A';
  readonly least?: (figures: Figures) => number;
  readonly most: (figures: Figures) => number;
}[] = [
  { key: 'idleWatts', label: 'Idle', unit: 'W', most: () => 5000 },
  { key: 'lowWatts', label: 'Low', unit: 'W', most: ({ likelyWatts }) => likelyWatts },
  { key: 'highWatts', label: 'High', unit: 'W', least: ({ likelyWatts }) => likelyWatts, most: () => 5000 },
  { key: 'standbyWatts', label: 'Asleep, on standby', unit: 'W', most: () => 60 },
  { key: 'spinUpAmps', label: 'Spin-up on +12', unit: 'A', most: () => 20 },
  { key: 'spinUpAmps5', label: 'Spin-up on +5', unit: 'A', most: () => 20 },
];

/** What stands beneath a part's line: the rest of its figures, its inlets, where the figures are from. */
export function PartDetails({
  part,
  locked,
  onChange,
  onPut,
}: {
  readonly part: JobPart;
  readonly locked: boolean;
  readonly onChange: (changes: Partial<Figures>) => void;
  readonly onPut: (changes: Partial<JobPart>) => void;
}) {
  const { figures } = part;
  const { job } = useDesk();
  return (
    <>
      <div className={`${looks.fields} ${looks.byFour}`}>
        {figureFields.map(({ key, label, unit, least, most }) => (
          <FigureField
            key={key}
            label={label}
            unit={unit}
            value={figures[key]}
            {...(least === undefined ? {} : { least: least(figures) })}
            most={most(figures)}
            disabled={locked}
            onChange={(value) => {
              if (value !== null) onChange({ [key]: value });
            }}
          />
        ))}
        {part.inlets.length > 0 && partClass(part.classId)?.group === 'card' && (
          <FigureField
            label="From its slot, by its sheet"
            unit="W"
            value={figures.slotWatts}
            most={66}
            disabled={locked}
            onChange={(slotWatts) => onChange({ slotWatts })}
          />
        )}
        <SelectField
          label="Figures from"
          value={figures.source}
          options={figureSources.map((value) => ({ value, label: sourceText[value] }))}
          disabled={locked}
          onChange={(source) => onChange({ source })}
        />
      </div>
      <InletsEditor
        partName={part.name}
        inlets={part.inlets}
        taken={job.parts.flatMap((one) => one.inlets.map((inlet) => inlet.label))}
        locked={locked}
        onChange={(inlets) => onPut({ inlets: [...inlets] })}
      />
      <p className={`${looks.quiet} ${looks.below}`}>
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
        <span className={looks.errorText} role="alert">
          {problemOf(state.error).title}
        </span>
      )}
    </>
  );
}
