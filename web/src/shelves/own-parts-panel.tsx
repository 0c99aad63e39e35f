import { partClass, sourceText } from '@fairwatt/core';
import { Button } from 'antd';
import { problemOf, useOwnPartsQuery, useRemoveOwnPartMutation } from '../app/api.ts';
import { useAppSelector } from '../app/store.ts';
import { Empty } from '../controls/empty.tsx';
import { Waiting } from '../controls/waiting.tsx';
import { looks } from '../looks/looks.ts';
import { RowImport } from './row-import.tsx';
import { RemoveButton } from '../controls/remove-button.tsx';
import { Sheet } from '../controls/sheet.tsx';
import { signs } from '../controls/signs.tsx';

const tenths = (watts: number) => `${Math.round(watts * 10) / 10} W`;

/** Parts that the shop knows with figures of their own; Intake offers them before the classes. */
export function OwnPartsPanel() {
  const parts = useOwnPartsQuery();
  const technician = useAppSelector((state) => state.session.technician);
  const [remove] = useRemoveOwnPartMutation();
  return (
    <>
      <div className={`${looks.rowActions} ${looks.above}`}>
        <RowImport path="/supplies/parts/import" label="Import parts" name="Parts file" what="Part" />
        <Button icon={signs.save} href="/api/supplies/parts/export" download>
          CSV
        </Button>
        <span className={`${looks.quiet} ${looks.centred}`}>
          A part is also kept from Intake, where it was entered.
        </span>
      </div>
      {parts.data === undefined ? (
        parts.isError ? (
          <Empty title={problemOf(parts.error).title} />
        ) : (
          <Waiting>Fetching the parts …</Waiting>
        )
      ) : parts.data.length === 0 ? (
        <Empty title="No parts of your own yet">
          Import a CSV with the columns name, class and likely_w, or keep one at Intake.
        </Empty>
      ) : (
        <Sheet
          rows={parts.data}
          rowKey={(part) => part.id}
          rowProps={(part) => ({ 'data-own-part': part.id })}
          columns={[
            { head: 'Part', cell: (part) => <strong>{part.name}</strong> },
            { head: 'Class', cell: (part) => partClass(part.classId)?.name ?? part.classId },
            { head: 'Low', className: looks.num, cell: ({ figures }) => tenths(figures.lowWatts) },
            { head: 'Likely', className: looks.num, cell: ({ figures }) => tenths(figures.likelyWatts) },
            { head: 'High', className: looks.num, cell: ({ figures }) => tenths(figures.highWatts) },
            { head: 'Seconds', className: looks.num, cell: ({ figures }) => tenths(figures.shortWatts) },
            { head: 'Figures', cell: (part) => sourceText[part.figures.source] },
            { head: 'Inlets', cell: (part) => part.inlets.map((inlet) => inlet.label).join(', ') || 'none' },
            {
              head: <span className={looks.visuallyHidden}>Acts</span>,
              cell: (part) => (
                <RemoveButton
                  what={part.name}
                  text="drop"
                  disabled={technician === null}
                  onRemove={() => void remove({ id: part.id, by: technician ?? '' })}
                />
              ),
            },
          ]}
        />
      )}
    </>
  );
}
