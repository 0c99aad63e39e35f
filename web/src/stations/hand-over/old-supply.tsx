import { useEffect, useState } from 'react';
import { Button, Checkbox } from 'antd';
import { oldSupplies, oldSupplyText, type OldSupply, type SheetChanges } from '@fairwatt/core';
import { problemOf, usePrintLabelsMutation } from '../../app/api.ts';
import { Keys, TextField } from '../../controls/fields.tsx';
import { useDesk } from '../../job/job-context.ts';
import { looks } from '../../looks/looks.ts';
import { signs } from '../../controls/signs.tsx';
import styles from './old-supply.module.css';

const noteLabel: Readonly<Record<OldSupply, string>> = {
  failed: 'What failed, and how that was proved',
  kept: 'What it is kept for',
  'given-back': 'In what state it is given back',
};

/** What became of the supply that came out; it never goes back on a shelf unmarked. */
export function OldSupplyFate() {
  const { job, act, locked } = useDesk();
  // Whoever says what becomes of it goes on to why, and by Enter from there to what is next.
  const [said, setSaid] = useState(0);
  useEffect(() => {
    if (said > 0) document.querySelector<HTMLElement>('[data-old-note] input')?.focus();
  }, [said]);
  const title = job.sheet.bareSupply ? 'What becomes of it' : 'The supply that came out';
  const { oldSupply, oldSupplyNote, oldSupplyDisposed, version } = job.sheet;
  const edit = (changes: SheetChanges) => act({ kind: 'edit-sheet', changes, basedOn: version });
  return (
    <section className={`${looks.block} ${looks.noPrint}`} aria-label={title} data-old-supply>
      <span className={looks.label}>{title}</span>
      <Keys
        label={title}
        value={oldSupply}
        options={oldSupplies.map((value) => ({ value, label: oldSupplyText[value] }))}
        digits={false}
        disabled={locked}
        onPick={(picked) => {
          edit({ oldSupply: picked });
          setSaid((count) => count + 1);
        }}
      />
      {oldSupply !== null && (
        <div
          className={styles.note}
          data-old-note
          onKeyDown={({ key }) => {
            if (key === 'Enter') document.querySelector<HTMLElement>('#main')?.focus({ preventScroll: true });
          }}
        >
          <TextField
            label={noteLabel[oldSupply]}
            value={oldSupplyNote}
            maxLength={200}
            disabled={locked}
            onChange={(note) => edit({ oldSupplyNote: note })}
          />
        </div>
      )}
      {oldSupply === 'failed' && (
        <>
          <Checkbox
            className={looks.tick}
            checked={oldSupplyDisposed}
            disabled={locked}
            onChange={(event) => edit({ oldSupplyDisposed: event.target.checked })}
          >
            given to electrical waste
          </Checkbox>
          <p className={looks.caution}>
            <span>
              Mark it before it leaves the bench. Nobody opens it: its capacitors hold mains voltage for long.
            </span>
          </p>
        </>
      )}
      {job.supply !== null && oldSupply !== null && <ItsLabel />}
    </section>
  );
}

/** The label for the supply that came out, on paper or from the label printer. */
function ItsLabel() {
  const { code, technician } = useDesk();
  const [print, printing] = usePrintLabelsMutation();
  return (
    <div className={`${looks.rowActions} ${looks.below}`}>
      <Button
        icon={signs.paper}
        href={`/api/jobs/${code}/supply-label.pdf?stock=roll`}
        target="_blank"
        rel="noreferrer"
      >
        Its label as PDF
      </Button>
      <Button
        icon={signs.print}
        disabled={technician === null || printing.isLoading}
        onClick={() => void print({ code, by: technician ?? '', what: 'supply' })}
      >
        {printing.isLoading ? 'Printing …' : 'Print it on the label printer'}
      </Button>
      {printing.isError && (
        <span className={looks.errorText} role="alert">
          {problemOf(printing.error).title}
        </span>
      )}
      {printing.data !== undefined && !printing.isError && (
        <span role="status">Printed, print job {printing.data.job}.</span>
      )}
    </div>
  );
}
