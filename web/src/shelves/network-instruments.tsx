import { useState } from 'react';
import { Button, Form } from 'antd';
import { parseFigure, troubleText } from '@fairwatt/core';
import { networkInstrumentSchema, type NetworkInstrument } from '@fairwatt/contract';
import {
  problemOf,
  useAddNetworkInstrumentMutation,
  useLazyIdentifyQuery,
  useNetworkInstrumentsQuery,
  useRemoveNetworkInstrumentMutation,
} from '../app/api.ts';
import type { ShopData } from '../app/endpoints/build.ts';
import { useMay } from '../access/use-may.ts';
import { useAppSelector } from '../app/store.ts';
import { DraftForm, DraftPick, DraftText, DraftTold } from '../controls/draft-form.tsx';
import { RemoveButton } from '../controls/remove-button.tsx';
import { looks } from '../looks/looks.ts';
import { signs } from '../controls/signs.tsx';
import styles from './network-instruments.module.css';
import { useDraftForm } from './use-draft-form.ts';

/** Instruments that are reached over the network; an owner adds them, at loopback and private addresses only. */
export function NetworkInstruments({ shop }: { readonly shop: ShopData }) {
  const nameOf = (id: string | null) => shop.instruments.find((instrument) => instrument.id === id)?.name ?? id ?? '';
  const list = useNetworkInstrumentsQuery();
  const technician = useAppSelector((state) => state.session.technician);
  const owner = useMay('own');
  const [remove] = useRemoveNetworkInstrumentMutation();
  return (
    <section className={`${looks.block} ${looks.wellBelow}`} aria-label="Over the network">
      <span className={looks.label}>Over the network, speaking SCPI on TCP</span>
      {list.isError && list.data === undefined && (
        <p className={looks.errorText} role="alert">
          {problemOf(list.error).title}
        </p>
      )}
      {list.data?.length === 0 && <p className={looks.quiet}>None yet.</p>}
      <ul className={`${looks.trail} ${styles['list']}`}>
        {list.data?.map((item) => (
          <li key={item.id} data-network={item.id}>
            <span className={looks.what}>
              <strong>{item.name}</strong>{' '}
              <span className={looks.quiet}>
                {item.role === 'load' ? 'electronic load' : `meter, judged as ${nameOf(item.instrumentId)}`}
              </span>
            </span>
            <span className={looks.fig}>
              {item.host}:{item.port}
            </span>
            <Identify id={item.id} />
            <RemoveButton
              what={item.name}
              text="remove"
              disabled={!owner}
              onRemove={() => void remove({ by: technician ?? '', id: item.id })}
            />
          </li>
        ))}
      </ul>
      {owner ? <AddForm shop={shop} /> : <p className={looks.quiet}>An owner adds instruments.</p>}
    </section>
  );
}

function Identify({ id }: { readonly id: string }) {
  const [ask, { data, isFetching }] = useLazyIdentifyQuery();
  return (
    <>
      {data !== undefined && !isFetching && (
        <span className={data.identity === null ? looks.errorText : looks.quiet} role="status">
          {data.identity ?? troubleText[data.trouble ?? ''] ?? data.trouble}
        </span>
      )}
      <Button type="link" onClick={() => void ask(id)}>
        {isFetching ? 'asking …' : 'who are you'}
      </Button>
    </>
  );
}

interface Draft {
  readonly name: string;
  readonly role: NetworkInstrument['role'];
  readonly host: string;
  readonly port: string;
  readonly instrumentId: string;
}

const roles = [
  { value: 'meter', label: 'meter' },
  { value: 'load', label: 'electronic load' },
];

const typedInstrument = ({ name, role, host, port, instrumentId }: Draft, id: string): unknown => ({
  id,
  name: name.trim(),
  role,
  host: host.trim(),
  port: parseFigure(port) ?? port,
  instrumentId: role === 'load' ? null : instrumentId,
});

/** Adds one; the fields that tell it from others are empty again once it is added. */
function AddForm({ shop }: { readonly shop: ShopData }) {
  const [add] = useAddNetworkInstrumentMutation();
  const [initial] = useState<Draft>(() => ({
    name: '',
    role: 'meter',
    host: '',
    port: '5025',
    instrumentId: shop.instruments.find((item) => item.kind === 'multimeter')?.id ?? '',
  }));
  const { form, told, isSending, save } = useDraftForm<Draft, NetworkInstrument>({
    schema: networkInstrumentSchema,
    typed: (draft) => typedInstrument(draft, crypto.randomUUID()),
    send: (instrument, _seen, by) => add({ by, instrument }),
    onDone: () => form.setFieldsValue({ name: '', host: '' }),
  });
  const role = Form.useWatch('role', form);
  return (
    <>
      <DraftForm
        form={form}
        initial={initial}
        label="Add an instrument of the network"
        className={styles.sweepFields ?? ''}
        onSend={(draft) => void save(draft, null)}
      >
        <DraftText name="name" label="Name" />
        <DraftPick name="role" label="It is a" options={roles} />
        <DraftText name="host" label="Address" figure inputMode="text" placeholder="192.168.1.40" />
        <DraftText name="port" label="Port" figure inputMode="numeric" />
        {role === 'load' ? (
          <span />
        ) : (
          <DraftPick
            name="instrumentId"
            label="Judged as"
            options={shop.instruments.map((item) => ({ value: item.id, label: item.name }))}
          />
        )}
        <Button icon={signs.add} htmlType="submit" disabled={isSending}>
          Add
        </Button>
      </DraftForm>
      <DraftTold text={told} />
    </>
  );
}
