import { Button, Checkbox, Select } from 'antd';
import {
  casePlaces,
  inletKinds,
  inletName,
  ownPlugText,
  placeText,
  type CasePlace,
  type Inlet,
  type InletKind,
} from '@fairwatt/core';
import { FigureField, SelectField, TextField } from '../../controls/fields.tsx';
import { looks } from '../../looks/looks.ts';
import { signs } from '../../controls/signs.tsx';
import styles from './inlets-editor.module.css';

const mostInlets = 8;
const kinds = inletKinds.map((kind) => ({ value: kind, label: inletName[kind] }));
const places: readonly { readonly value: CasePlace | ''; readonly label: string }[] = [
  { value: '', label: 'where such usually are' },
  ...casePlaces.map((place) => ({ value: place, label: placeText[place] })),
];
const notEmpty = (value: string) => (value.trim() === '' ? 'give it a name' : null);

function InletFields({
  inlet,
  place,
  locked,
  onSet,
  onTakeOut,
}: {
  readonly inlet: Inlet;
  readonly place: number;
  readonly locked: boolean;
  readonly onSet: (changes: Partial<Inlet>) => void;
  readonly onTakeOut: () => void;
}) {
  return (
    <div
      className={`${looks.fields} ${styles.bySix}`}
      role="group"
      aria-label={`Inlet ${inlet.label}`}
      data-inlet={inlet.id}
    >
      <TextField
        label={`Inlet ${place}`}
        value={inlet.label}
        maxLength={40}
        disabled={locked}
        problem={notEmpty}
        onChange={(label) => onSet({ label })}
      />
      <SelectField
        label="Kind"
        value={inlet.kind}
        options={kinds}
        disabled={locked}
        onChange={(kind) => onSet({ kind })}
      />
      <SelectField
        label="Place"
        value={inlet.place ?? ''}
        options={places}
        disabled={locked}
        onChange={(picked) => onSet({ place: picked === '' ? undefined : picked })}
      />
      <FigureField
        label="Watts"
        value={inlet.watts ?? null}
        least={1}
        most={700}
        disabled={locked}
        onChange={(watts) => onSet({ watts: watts ?? undefined })}
      />
      <Checkbox
        className={looks.tick}
        checked={inlet.optional}
        disabled={locked}
        onChange={(event) => onSet({ optional: event.target.checked })}
      >
        optional
      </Checkbox>
      <Button
        icon={signs.remove}
        type="link"
        disabled={locked}
        aria-label={`Take out inlet ${inlet.label}`}
        onClick={onTakeOut}
      >
        take out
      </Button>
    </div>
  );
}

/** The power inlets of a part: added, changed and taken out as the part in hand has them. */
export function InletsEditor({
  partName,
  inlets,
  taken,
  locked,
  onChange,
}: {
  readonly partName: string;
  readonly inlets: readonly Inlet[];
  /** Names of inlets in the whole machine: two of one name could not be told apart at the bench. */
  readonly taken: readonly string[];
  readonly locked: boolean;
  readonly onChange: (inlets: readonly Inlet[]) => void;
}) {
  const set = (id: string, changes: Partial<Inlet>) =>
    onChange(inlets.map((inlet) => (inlet.id === id ? { ...inlet, ...changes } : inlet)));
  const add = (kind: InletKind) => onChange([...inlets, newInlet(kind, taken)]);
  return (
    <section className={`${looks.block} ${looks.below}`} aria-label={`Inlets of ${partName}`}>
      <span className={looks.label}>Inlets</span>
      {inlets.length === 0 && <p className={looks.quiet}>None: it is fed by what it sits in.</p>}
      {inlets.map((inlet, index) => (
        <InletFields
          key={inlet.id}
          inlet={inlet}
          place={index + 1}
          locked={locked}
          onSet={(changes) => set(inlet.id, changes)}
          onTakeOut={() => onChange(inlets.filter((other) => other !== inlet))}
        />
      ))}
      {inlets
        .filter(({ kind }) => kind === 'main-own')
        .map(({ id, label }) => (
          <p key={id} className={looks.quiet}>
            {ownPlugText(label)}
          </p>
        ))}
      {inlets.length < mostInlets && (
        <Select<InletKind>
          aria-label={`Add an inlet to ${partName}`}
          value={null}
          placeholder="add an inlet: pick its kind"
          popupMatchSelectWidth={false}
          showSearch={{ optionFilterProp: 'label' }}
          options={kinds}
          disabled={locked}
          onChange={add}
        />
      )}
    </section>
  );
}

function newInlet(kind: InletKind, taken: readonly string[]): Inlet {
  const plain = inletName[kind].replace(/^./, (letter) => letter.toUpperCase());
  let label = plain;
  for (let count = 2; taken.includes(label); count += 1) label = `${plain} ${count}`;
  return { id: `i-${crypto.randomUUID().slice(0, 8)}`, kind, label, optional: false };
}
