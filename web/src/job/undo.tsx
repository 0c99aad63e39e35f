import { Button } from 'antd';
import { looks } from '../looks/looks.ts';
import { useDesk } from './job-context.ts';
import { undoText } from './undo-list.ts';
import type { Acts, Told } from './use-acting.ts';
import { signs } from '../controls/signs.tsx';
import styles from './undo.module.css';

/** Takes back what was done here last; Ctrl Z presses it. */
export function Undo() {
  const { last, undo } = useDesk();
  const what = last === null ? 'nothing was done here yet' : undoText(last);
  return (
    <Button
      icon={signs.undo}
      type="link"
      className={looks.noPrint}
      data-undo
      aria-label={`Undo: ${what}`}
      title={`Undo: ${what} (Ctrl Z)`}
      disabled={last === null}
      onClick={() => {
        if (last !== null) undo(last);
      }}
    >
      Undo
    </Button>
  );
}

interface Strip extends Pick<Acts, 'undo'> {
  readonly told: Told | null;
}

/** At the foot of the screen: what was just removed, with its way back, or what was taken back. */
export function UndoStrip({ told, undo }: Strip) {
  if (told === null) return null;
  const { text, undoes } = told;
  return (
    <div className={undoes === null ? `${styles.undo} ${styles.onlyTold}` : styles.undo} role="status">
      <span>{text}</span>
      {undoes !== null && (
        <Button icon={signs.undo} type="link" onClick={() => undo(undoes)}>
          Undo
        </Button>
      )}
    </div>
  );
}
