import { Checkbox, Form } from 'antd';
import {
  corrections,
  correctionText,
  fanSides,
  fanSideText,
  grades,
  mainsInlets,
  protectionNames,
  protectionText,
  shapes,
} from '@fairwatt/core';
import { DraftDay } from '../controls/draft-day.tsx';
import { DraftPick, DraftText, DraftTick } from '../controls/draft-form.tsx';
import { looks } from '../looks/looks.ts';
import type { Simple } from './supply-draft.ts';

const Words = ({ name, label, unit }: { readonly name: Simple; readonly label: string; readonly unit?: string }) => (
  <DraftText name={['fields', name]} label={label} {...(unit === undefined ? {} : { unit })} />
);

function Pick<T extends string>({
  name,
  label,
  values,
  textOf = (value) => value,
}: {
  readonly name: Simple;
  readonly label: string;
  readonly values: readonly T[];
  readonly textOf?: (value: T) => string;
}) {
  const options = values.map((value) => ({ value, label: textOf(value) }));
  return <DraftPick name={['fields', name]} label={label} options={options} />;
}

const modularText = { fixed: 'fixed', semi: 'partly modular', full: 'modular' } as const;

/** What is printed on a supply, its size, price and warranty. */
export function SupplyFields() {
  const currency = Form.useWatch<string | undefined>(['fields', 'currency']);
  return (
    <div className={`${looks.fields} ${looks.byFour}`}>
      <Words name="name" label="Name" />
      <Words name="ratingWatts" label="Rating" unit="W" />
      <Pick name="shape" label="Shape" values={shapes} />
      <Pick name="guide" label="Guide" values={['2.x', '3.x']} />
      <Pick name="grade" label="Efficiency grade" values={grades} />
      <Pick name="modular" label="Cables" values={['fixed', 'semi', 'full']} textOf={(value) => modularText[value]} />
      <Words name="depthMillimetres" label="Depth" unit="mm" />
      <Pick name="fan" label="Air" values={fanSides} textOf={(side) => fanSideText[side]} />
      <Words name="mainsLowVolts" label="Mains from" unit="V" />
      <Words name="mainsHighVolts" label="Mains to" unit="V" />
      <Pick name="inlet" label="Inlet" values={mainsInlets} />
      <Pick name="correction" label="Correction" values={corrections} textOf={(value) => correctionText[value]} />
      <Words name="price" label={`Price in ${currency ?? ''}`} />
      <Words name="currency" label="Currency" />
      <DraftDay name={['fields', 'asOf']} label="Price of" />
      <Words name="warrantyYears" label="Warranty" unit="years" />
      <Words name="noiseDecibels" label="Noise, empty if not known" unit="dB" />
      <Words name="designYear" label="Design of" unit="year" />
      <DraftTick name="has16Pin" label="16-pin card connector" />
      <DraftTick name="ownHoles" label="its maker's own holes" />
    </div>
  );
}

const protections = protectionNames.map((name) => ({ value: name, label: protectionText[name] }));

/** The protections that its sheet names. */
export function ProtectionFields() {
  return (
    <fieldset>
      <legend className={looks.label}>Watches over</legend>
      <Form.Item name="protections">
        <Checkbox.Group className={looks.rowActions} options={protections} />
      </Form.Item>
    </fieldset>
  );
}
