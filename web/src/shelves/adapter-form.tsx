import { Button, Form } from 'antd';
import { bagAdapterSchema, type BagAdapter } from '@fairwatt/contract';
import { inletName, parseFigure, plugKinds, plugName, standardInletKinds } from '@fairwatt/core';
import { useChangeBagAdapterMutation } from '../app/api.ts';
import { useAppSelector } from '../app/store.ts';
import { DraftForm, DraftPick, DraftText, DraftTick, DraftTold } from '../controls/draft-form.tsx';
import { looks } from '../looks/looks.ts';
import { useDraftForm } from './use-draft-form.ts';
import styles from './adapter-form.module.css';

const fresh = {
  label: '',
  place: '',
  takes: 'cpu-8',
  gives: 'cpu-4+4',
  ownPlug: '',
  legs: '1',
  addsMillimetres: '200',
  watts: '',
  count: '1',
  moulded: false,
};
type Draft = typeof fresh;

const inletOptions = standardInletKinds.map((kind) => ({ value: kind, label: inletName[kind] }));
const plugOptions = plugKinds.map((kind) => ({ value: kind, label: plugName[kind] }));

const figure = (text: string): unknown => parseFigure(text) ?? text;

/** What was typed as an adapter, for its schema to read. */
function typedAdapter({ ownPlug, ...draft }: Draft): unknown {
  const named = draft.gives === 'main-own' && ownPlug.trim() !== '';
  return {
    ...draft,
    id: crypto.randomUUID(),
    version: 0,
    label: draft.label.trim(),
    ...(named ? { ownPlug: ownPlug.trim() } : {}),
    legs: figure(draft.legs),
    addsMillimetres: figure(draft.addsMillimetres),
    watts: draft.watts.trim() === '' ? null : figure(draft.watts),
    count: figure(draft.count),
  };
}

/** Enters an adapter or extension; the form is fresh again once it is on record. */
export function AdapterForm() {
  const technician = useAppSelector((state) => state.session.technician);
  const [change] = useChangeBagAdapterMutation();
  const { form, told, isSending, save } = useDraftForm<Draft, BagAdapter>({
    schema: bagAdapterSchema,
    typed: typedAdapter,
    send: (adapter, _seen, by) => change({ by, basedOn: 0, adapter }),
    onDone: () => form.resetFields(),
  });
  const gives = Form.useWatch('gives', form);
  return (
    <>
      <span className={`${looks.label} ${styles['head']}`}>Enter an adapter or extension</span>
      <DraftForm
        form={form}
        initial={fresh}
        label="Enter an adapter"
        className={styles['form'] ?? ''}
        onSend={(draft) => void save(draft, null)}
      >
        <DraftText name="label" label="Label" maxLength={20} />
        <DraftPick name="takes" label="Takes plugs for" options={inletOptions} />
        <DraftPick name="gives" label="Gives a plug" options={plugOptions} />
        {gives === 'main-own' && <DraftText name="ownPlug" label="For the inlet named" maxLength={40} />}
        <DraftText name="legs" label="Legs" figure inputMode="numeric" />
        <DraftText name="addsMillimetres" label="Adds" unit="mm" />
        <DraftText name="watts" label="Carries" unit="W" />
        <DraftText name="count" label="There" figure inputMode="numeric" />
        <DraftText name="place" label="Place" maxLength={40} />
        <DraftTick name="moulded" label="moulded" />
        <Button htmlType="submit" disabled={technician === null || isSending}>
          Enter
        </Button>
      </DraftForm>
      <DraftTold text={told} />
    </>
  );
}
