import { Button } from 'antd';
import { looks } from '../../looks/looks.ts';
import styles from './number-pad.module.css';
/** Big keys for gloves; each adds to what stands in the field. */
const rows = [
  ['12 ', '5 ', '3.3 ', '-12 ', 'sb ', 'pg '],
  ['7', '8', '9', 'HH ', 'LL ', 'absent '],
  ['4', '5', '6', '-', 'wanders ', 'idle '],
  ['1', '2', '3', '.', '0', 'work '],
] as const;

export function NumberPad({
  onKey,
  onBack,
  onKeep,
  disabled,
}: {
  readonly onKey: (text: string) => void;
  readonly onBack: () => void;
  readonly onKeep: () => void;
  readonly disabled: boolean;
}) {
  return (
    <div className={styles.pad} role="group" aria-label="Keys for gloves">
      {rows.flatMap((row, index) =>
        row.map((text) => (
          <Button
            type="text"
            className={index === 0 ? (styles.rail ?? '') : ''}
            key={`${index}${text}`}
            disabled={disabled}
            onClick={() => onKey(text)}
          >
            {index === 0 ? `${text.trim()}:` : text.trim()}
          </Button>
        )),
      )}
      <Button type="text" className={looks.wide} disabled={disabled} onClick={onBack}>
        back
      </Button>
      <Button type="text" className={`${looks.wide} ${styles.keep}`} disabled={disabled} onClick={onKeep}>
        Keep
      </Button>
    </div>
  );
}
