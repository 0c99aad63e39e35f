import { Button, Form, type FormListFieldData } from 'antd';
import {
  cableFamilies,
  codedWatts,
  gauges,
  mayHaveTwoEnds,
  plugKinds,
  socketTakes,
  type CableFamily,
  type SocketKind,
} from '@fairwatt/core';
import { DraftPick, DraftText, type DraftOption } from '../controls/draft-form.tsx';
import { Sheet, type SheetColumn } from '../controls/sheet.tsx';
import { looks } from '../looks/looks.ts';
import { onlyIn, type CableDraft, type SocketDraft, type Whole } from './supply-draft.ts';
import { OutputPick, useTwelveLabels } from './supply-outputs-fields.tsx';
import { signs } from '../controls/signs.tsx';

type Column = SheetColumn<FormListFieldData>;

const familyOptions = cableFamilies.map((family) => ({ value: family, label: family }));
const gaugeOptions = gauges.map((gauge) => ({ value: String(gauge), label: String(gauge) }));
const codedOptions = [
  { value: '', label: '?' },
  ...codedWatts.map((watts) => ({ value: String(watts), label: String(watts) })),
];

/** How a cable may be joined to its supply: to any socket of its family, or to one of those that there are. */
function joints(family: string | undefined, sockets: readonly SocketDraft[]): readonly DraftOption[] {
  const fits = sockets.filter(
    ({ label, kind }) => label !== '' && socketTakes(kind as SocketKind, family as CableFamily),
  );
  return [
    { value: 'fixed', label: 'fixed' },
    { value: 'modular', label: 'modular' },
    { value: 'two-ended', label: 'modular, two plugs', disabled: !mayHaveTwoEnds(family as CableFamily) },
    ...fits.map(({ label }) => ({ value: onlyIn + label, label: onlyIn + label })),
  ];
}

/** What every cable has before its plugs. */
const firstColumns = (cables: readonly CableDraft[], sockets: readonly SocketDraft[]): readonly Column[] => [
  {
    head: 'Name',
    width: 110,
    cell: ({ name }) => <DraftText bare name={[name, 'id']} label={`Cable ${name + 1}`} maxLength={40} />,
  },
  {
    head: 'Family',
    width: 100,
    cell: ({ name }) => (
      <DraftPick bare name={[name, 'family']} label={`Family of cable ${name + 1}`} options={familyOptions} />
    ),
  },
  {
    head: '',
    width: 100,
    cell: ({ name }) => (
      <DraftPick
        bare
        name={[name, 'fixed']}
        label={`How cable ${name + 1} is joined`}
        options={joints(cables[name]?.family, sockets)}
      />
    ),
  },
  {
    head: 'Count',
    width: 56,
    cell: ({ name }) => <DraftText bare figure name={[name, 'count']} label={`Count of cable ${name + 1}`} />,
  },
  {
    head: 'AWG',
    width: 64,
    cell: ({ name }) => (
      <DraftPick bare name={[name, 'gauge']} label={`Gauge of cable ${name + 1}`} options={gaugeOptions} />
    ),
  },
];

const codedColumn = (cables: readonly CableDraft[]): Column | false =>
  cables.some(({ family }) => family === 'card-16') && {
    head: 'Coded, W',
    width: 92,
    cell: ({ name }) =>
      cables[name]?.family === 'card-16' && (
        <DraftPick bare name={[name, 'coded']} label={`Coded watts of cable ${name + 1}`} options={codedOptions} />
      ),
  };

const plugsColumn: Column = {
  head: 'Plugs in order',
  cell: ({ name }) => (
    <DraftText
      bare
      figure
      inputMode="text"
      name={[name, 'plugs']}
      label={`Plugs of cable ${name + 1}`}
      maxLength={400}
      placeholder="sata 450, sata 600"
    />
  ),
};

const isOwn = (cable: CableDraft | undefined): boolean => cable?.plugs.includes('main-own') === true;

const ownPlugColumn = (cables: readonly CableDraft[]): Column | false =>
  cables.some(isOwn) && {
    head: 'Fits the inlet named',
    width: 150,
    cell: ({ name }) =>
      isOwn(cables[name]) && (
        <DraftText
          bare
          name={[name, 'ownPlug']}
          label={`Inlet that the maker’s own plug of cable ${name + 1} fits`}
          maxLength={40}
        />
      ),
  };

const outputColumn = (twelve: readonly string[]): Column | false =>
  twelve.length > 1 && {
    head: 'Output',
    width: 90,
    cell: ({ name }) => <OutputPick name={[name, 'output']} label={`Output of cable ${name + 1}`} twelve={twelve} />,
  };

/** What another cable of the kit begins with. */
const anotherCable = (count: number, modular: string): CableDraft => ({
  id: `cable-${count + 1}`,
  family: 'drive',
  fixed: modular === 'fixed' ? 'fixed' : 'modular',
  count: '1',
  gauge: '18',
  coded: '',
  ownPlug: '',
  plugs: '',
  output: '',
});

/** The cables of the kit with their plugs. */
export function KitFields() {
  const form = Form.useFormInstance<Whole>();
  const twelve = useTwelveLabels();
  const cables = Form.useWatch<readonly CableDraft[] | undefined>('cables') ?? [];
  const sockets = Form.useWatch<readonly SocketDraft[] | undefined>('sockets') ?? [];
  const dropColumn = (remove: (index: number) => void): Column => ({
    head: <span className={looks.visuallyHidden}>Acts</span>,
    cell: ({ name }) => (
      <Button icon={signs.remove} type="link" aria-label={`Drop cable ${name + 1}`} onClick={() => remove(name)}>
        drop
      </Button>
    ),
  });
  return (
    <Form.List name="cables">
      {(fields, { add, remove }, { errors }) => (
        <fieldset>
          <legend className={looks.label}>
            The cable kit, piece by piece: each plug with its distance from the supply in mm
          </legend>
          <Sheet
            rows={fields}
            rowKey={({ key }) => key}
            columns={[
              ...firstColumns(cables, sockets),
              codedColumn(cables),
              plugsColumn,
              ownPlugColumn(cables),
              outputColumn(twelve),
              dropColumn(remove),
            ]}
          />
          <p className={looks.quiet}>Plugs: {plugKinds.join(', ')}.</p>
          <Form.ErrorList errors={errors} />
          <Button
            icon={signs.add}
            type="link"
            onClick={() => add(anotherCable(fields.length, form.getFieldValue(['fields', 'modular']) as string))}
          >
            another cable
          </Button>
        </fieldset>
      )}
    </Form.List>
  );
}
