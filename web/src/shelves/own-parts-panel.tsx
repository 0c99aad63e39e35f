import { partClass, sourceText } from '@fairwatt/core';
import { Button } from 'antd';
import { problemOf, useOwnPartsQuery, useRemoveOwnPartMutation } from '../app/api.ts';
import { useAppSelector } from '../app/store.ts';
import { Empty } from '../controls/empty.tsx';
import { Waiting } from '../controls/waiting.tsx';
import { RowImport } from './row-import.tsx';
import { RemoveButton } from '../controls/remove-button.tsx';

/** Parts that the shop knows with figures of their own; Intake offers them before the classes. */
export function OwnPartsPanel() {
  const parts = useOwnPartsQuery();
  const technician = useAppSelector((state) => state.session.technician);
  const [remove] = useRemoveOwnPartMutation();
  return (
    <>
      <div className="row-actions" style={{ marginBottom: 12 }}>
        <RowImport path="/supplies/parts/import" label="Import parts" name="Parts file" what="Part" />
        <Button href="/api/supplies/parts/export" download>
          CSV
        </Button>
        <span className="quiet" style={{ alignSelf: 'center' }}>
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
        <table className="grid">
          <thead>
            <tr>
              <th>Part</th>
              <th>Class</th>
              <th className="num">Low</th>
              <th className="num">Likely</th>
              <th className="num">High</th>
              <th className="num">Seconds</th>
              <th>Figures</th>
              <th>Inlets</th>
              <th>
                <span className="visually-hidden">Acts</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {parts.data.map((part) => (
              <tr key={part.id} data-own-part={part.id}>
                <td style={{ fontWeight: 600 }}>{part.name}</td>
                <td>{partClass(part.classId)?.name ?? part.classId}</td>
                {[part.figures.lowWatts, part.figures.likelyWatts, part.figures.highWatts, part.figures.shortWatts].map(
                  (watts, index) => (
                    <td key={index} className="num">
                      {Math.round(watts * 10) / 10} W
                    </td>
                  ),
                )}
                <td>{sourceText[part.figures.source]}</td>
                <td>{part.inlets.map((inlet) => inlet.label).join(', ') || 'none'}</td>
                <td>
                  <RemoveButton
                    what={part.name}
                    text="drop"
                    disabled={technician === null}
                    onRemove={() => void remove({ id: part.id, by: technician ?? '' })}
                  />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </>
  );
}
