import { Button } from 'antd';
import { differences } from './differences.ts';
import { fieldLabel, valueText } from './field-words.ts';

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
    <div className="notice bad conflict" role="alert" data-conflict>
      <span className="mark">Not saved</span>
      <div style={{ flex: 1 }}>
        <strong>{what}</strong> {theirs === null ? 'was taken out meanwhile.' : 'was changed meanwhile.'}
        {theirs !== null && (
          <table className="grid">
            <thead>
              <tr>
                <th>What</th>
                <th>Theirs</th>
                <th>Yours</th>
              </tr>
            </thead>
            <tbody>
              {fields.map((field) => (
                <tr key={field.path}>
                  <th scope="row">{fieldLabel(field.path)}</th>
                  <td>“{valueText(field.theirs)}”</td>
                  <td>“{valueText(field.mine)}”</td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
      </div>
      <div className="row-actions">
        <Button onClick={onMine}>Use mine</Button>
        <Button onClick={onTheirs}>Keep theirs</Button>
      </div>
    </div>
  );
}
