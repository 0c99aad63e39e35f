import { Button } from 'antd';
import { looks } from '../looks/looks.ts';
import { differences } from './differences.ts';
import { fieldLabel, valueText } from './field-words.ts';
import { Sheet } from './sheet.tsx';

/**
 * Something that somebody else changed since it was opened here: both states side by side, and the choice.
 * @param theirs how it stands now; null when it is gone
 */
export function TwoStates({
  what,
  mine,
  theirs,
  onMine,
  onTheirs,
}: {
  readonly what: string;
  readonly mine: object;
  readonly theirs: object | null;
  readonly onMine: () => void;
  readonly onTheirs: () => void;
}) {
  const fields = differences({ ...mine }, theirs === null ? null : { ...theirs });
  return (
    <div className={`${looks.notice} ${looks.bad} ${looks.conflict}`} role="alert" data-conflict>
      <span className={looks.mark}>Not saved</span>
      <div className={looks.fills}>
        <strong>{what}</strong> {theirs === null ? 'was taken out meanwhile.' : 'was changed meanwhile.'}
        {theirs !== null && (
          <Sheet
            rows={fields}
            rowKey={(field) => field.path}
            columns={[
              { head: 'What', names: true, cell: (field) => fieldLabel(field.path) },
              { head: 'Theirs', cell: (field) => <>“{valueText(field.theirs)}”</> },
              { head: 'Yours', cell: (field) => <>“{valueText(field.mine)}”</> },
            ]}
          />
        )}
      </div>
      <div className={looks.rowActions}>
        <Button onClick={onMine}>Use mine</Button>
        <Button onClick={onTheirs}>Keep theirs</Button>
      </div>
    </div>
  );
}
