import { useId } from 'react';
import { Switch } from 'antd';
import { Sheet } from '../controls/sheet.tsx';
import { Dialog } from '../controls/dialog.tsx';
import { looks } from '../looks/looks.ts';
import { session } from './session.ts';
import { useAppDispatch, useAppSelector } from './store.ts';
import styles from './keys-dialog.module.css';

const rows: readonly (readonly [string, string])[] = [
  ['1 … 9, 0', 'answer what the station asks'],
  ['Enter', 'take the next step'],
  ['g then 1 … 7', 'go to a station'],
  ['r', 'go to the entry field of the station'],
  ['a', 'all of the ticks of the connector that is shown'],
  ['m', 'another plug for the connector that is shown'],
  ['Ctrl Z', 'take back what was done last'],
  ['n', 'new job'],
  ['/', 'search'],
  ['Tab, arrows', 'move'],
  ['Esc', 'leave a field or a dialog'],
  ['?', 'these keys'],
];

/** All keys of the application, and the switch of those that act alone. */
export default function KeysDialog({ onClose }: { readonly onClose: () => void }) {
  const dispatch = useAppDispatch();
  const singleKeys = useAppSelector((state) => state.session.singleKeys);
  const id = useId();
  return (
    <Dialog title="Keys" onClose={onClose}>
      <Sheet
        rows={rows}
        rowKey={([key]) => key}
        columns={[{ className: looks.nowrap, cell: ([key]) => <kbd>{key}</kbd> }, { cell: ([, meaning]) => meaning }]}
      />
      <label className={styles['single']} htmlFor={id}>
        <Switch id={id} checked={singleKeys} onChange={(on) => dispatch(session.setSingleKeys(on))} />
        <span>Digits and letters act by themselves</span>
      </label>
      <p className={looks.quiet}>
        Off for those who speak their text or rest a hand on the keys: then Enter, Esc, Tab, arrows and Ctrl Z are left.
        This browser remembers it.
      </p>
    </Dialog>
  );
}
