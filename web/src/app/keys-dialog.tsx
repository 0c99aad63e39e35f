import { Sheet } from '../controls/sheet.tsx';
import { Dialog } from '../controls/dialog.tsx';

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

export default function KeysDialog({ onClose }: { readonly onClose: () => void }) {
  return (
    <Dialog title="Keys" onClose={onClose}>
      <Sheet
        rows={rows}
        rowKey={([key]) => key}
        columns={[{ className: 'nowrap', cell: ([key]) => <kbd>{key}</kbd> }, { cell: ([, meaning]) => meaning }]}
      />
    </Dialog>
  );
}
