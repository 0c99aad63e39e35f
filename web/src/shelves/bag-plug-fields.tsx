import { Button, Form } from 'antd';
import { faceOfPlug, inletFace, plugName, signalText, standardPlugKinds } from '@fairwatt/core';
import { DraftPick, DraftText } from '../controls/draft-form.tsx';
import { looks } from '../looks/looks.ts';
import type { PlugDraft } from './bag-cable-draft.ts';
import { signs } from '../controls/signs.tsx';
import styles from './bag-plug-fields.module.css';

/** The pins of a plug in the order in which its wires are typed. */
function pinsOf(kind: PlugDraft['kind']): string {
  const { rows, small = [] } = inletFace[faceOfPlug[kind]];
  const pins = rows.flat().sort((a, b) => a.pin - b.pin);
  return [
    ...pins.map(({ pin, signal }) => `${pin} ${signalText[signal]}`),
    ...small.map(({ name }) => `${name} small contact`),
  ].join(', ');
}

const kinds = standardPlugKinds.map((kind) => ({ value: kind, label: plugName[kind] }));

/** One plug of a spare cable: its kind, where it is, and where the wire of each pin leads. */
export function BagPlugFields({
  index,
  isOnly,
  onDrop,
}: {
  readonly index: number;
  readonly isOnly: boolean;
  readonly onDrop: () => void;
}) {
  const kind = Form.useWatch<PlugDraft['kind'] | undefined>(['plugs', index, 'kind']);
  return (
    <fieldset className={`${looks.wide} ${looks.ranges}`}>
      <div className={`${looks.rangeRow} ${styles['plug']}`}>
        <DraftPick name={[index, 'kind']} label={`Plug ${index + 1}`} options={kinds} />
        <DraftText name={[index, 'millimetres']} label="At" unit="mm" placeholder="not measured" />
        <DraftText
          name={[index, 'ends']}
          label="Wire of each pin, by pin of the supply end"
          figure
          inputMode="text"
          maxLength={400}
          placeholder="1 3 5 - ?"
        />
        <Button icon={signs.remove} type="link" disabled={isOnly} onClick={onDrop}>
          drop
        </Button>
      </div>
      {kind !== undefined && (
        <p className={looks.quiet}>
          In the order of its pins: {pinsOf(kind)}. “-” for no wire, “13+14” for two wires in one contact, “?” where
          nobody looked.
        </p>
      )}
    </fieldset>
  );
}
