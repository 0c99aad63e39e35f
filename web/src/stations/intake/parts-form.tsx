import { newParts, type JobPart, type PartSource } from '@fairwatt/core';
import { TextField } from '../../controls/fields.tsx';
import { looks } from '../../looks/looks.ts';
import { newPartId } from './new-part-id.ts';
import { MachineLine } from './machine-line.tsx';
import { PartSearch } from './part-search.tsx';
import { PartSheet } from './part-sheet.tsx';
import { Empty } from '../../controls/empty.tsx';
import { useDesk } from '../../job/job-context.ts';
import styles from './parts-form.module.css';

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
      <div className={`${looks.block} ${styles.narrow}`}>
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
          <div className={`${looks.block} ${styles.next}`}>
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
