import { Checkbox } from 'antd';
import { oldSupplies, oldSupplyText, type OldSupply, type SheetChanges } from '@fairwatt/core';
import { Choice } from '../../controls/choice.tsx';
import { TextField } from '../../controls/fields.tsx';
import { useDesk } from '../../job/job-context.ts';

const noteLabel: Readonly<Record<OldSupply, string>> = {
  failed: 'What failed, and how that was proved',
  kept: 'What it is kept for',
  'given-back': 'In what state it is given back',
};

/** What became of the supply that came out; it never goes back on a shelf unmarked. */
export function OldSupplyFate() {
  const { job, act, locked } = useDesk();
  const { oldSupply, oldSupplyNote, oldSupplyDisposed, version } = job.sheet;
  const edit = (changes: SheetChanges) => act({ kind: 'edit-sheet', changes, basedOn: version });
  return (
    <section className="block no-print" aria-label="The supply that came out" data-old-supply>
      <span className="label">The supply that came out</span>
      <Choice<OldSupply | 'unsaid'>
        label="The supply that came out"
        value={oldSupply ?? 'unsaid'}
        disabled={locked}
        options={[
          ...(oldSupply === null ? [{ value: 'unsaid' as const, label: 'not said yet' }] : []),
          ...oldSupplies.map((value) => ({ value, label: oldSupplyText[value] })),
        ]}
        onPick={(picked) => {
          if (picked !== 'unsaid') edit({ oldSupply: picked });
        }}
      />
      {oldSupply !== null && (
        <div style={{ maxWidth: 760, marginTop: 8 }}>
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
            className="tick"
            checked={oldSupplyDisposed}
            disabled={locked}
            onChange={(event) => edit({ oldSupplyDisposed: event.target.checked })}
          >
            given to electrical waste
          </Checkbox>
          <p className="caution">
            <span>
              Mark it before it leaves the bench. Nobody opens it: its capacitors hold mains voltage for long.
            </span>
          </p>
        </>
      )}
    </section>
  );
}
