import { useState } from 'react';
import { Button, Input, Select } from 'antd';
import { troubleText } from '@fairwatt/core';
import type { NetworkInstrument } from '@fairwatt/contract';
import {
  problemOf,
  useAddNetworkInstrumentMutation,
  useLazyIdentifyQuery,
  useNetworkInstrumentsQuery,
  useRemoveNetworkInstrumentMutation,
  type ShopData,
} from '../app/api.ts';
import { useMay } from '../access/use-may.ts';
import { useAppSelector } from '../app/store.ts';
import { RemoveButton } from '../controls/remove-button.tsx';

/** Instruments that are reached over the network; an owner adds them, at loopback and private addresses only. */
export function NetworkInstruments({ shop }: { readonly shop: ShopData }) {
  const nameOf = (id: string | null) => shop.instruments.find((instrument) => instrument.id === id)?.name ?? id ?? '';
  const list = useNetworkInstrumentsQuery();
  const technician = useAppSelector((state) => state.session.technician);
  const owner = useMay('own');
  const [remove] = useRemoveNetworkInstrumentMutation();
  return (
    <section className="block" style={{ marginTop: 26 }} aria-label="Over the network">
      <span className="label">Over the network, speaking SCPI on TCP</span>
      {list.isError && list.data === undefined && (
        <p className="error-text" role="alert">
          {problemOf(list.error).title}
        </p>
      )}
      {list.data?.length === 0 && <p className="quiet">None yet.</p>}
      <ul className="trail">
        {list.data?.map((item) => (
          <li key={item.id} data-network={item.id}>
            <span className="what">
              <strong>{item.name}</strong>{' '}
              <span className="quiet">
                {item.role === 'load' ? 'electronic load' : `meter, judged as ${nameOf(item.instrumentId)}`}
              </span>
            </span>
            <span className="fig">
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
      {owner ? <AddForm shop={shop} by={technician ?? ''} /> : <p className="quiet">An owner adds instruments.</p>}
    </section>
  );
}

function Identify({ id }: { readonly id: string }) {
  const [ask, { data, isFetching }] = useLazyIdentifyQuery();
  return (
    <>
      {data !== undefined && !isFetching && (
        <span className={data.identity === null ? 'error-text' : 'quiet'} role="status">
          {data.identity ?? troubleText[data.trouble ?? ''] ?? data.trouble}
        </span>
      )}
      <Button type="link" onClick={() => void ask(id)}>
        {isFetching ? 'asking …' : 'who are you'}
      </Button>
    </>
  );
}

function AddForm({ shop, by }: { readonly shop: ShopData; readonly by: string }) {
  const [add, state] = useAddNetworkInstrumentMutation();
  const [name, setName] = useState('');
  const [host, setHost] = useState('');
  const [port, setPort] = useState('5025');
  const [role, setRole] = useState<NetworkInstrument['role']>('meter');
  const [instrumentId, setInstrument] = useState(shop.instruments.find((item) => item.kind === 'multimeter')?.id ?? '');
  const errors = state.error === undefined ? [] : (problemOf(state.error).errors ?? []);
  const errorAt = (field: string) => {
    const found = errors.find((error) => error.path === `instrument.${field}`);
    return found === undefined ? null : (
      <span className="error" role="alert">
        {found.message}
      </span>
    );
  };
  async function send(): Promise<void> {
    const answer = await add({
      by,
      instrument: {
        id: crypto.randomUUID(),
        name: name.trim(),
        role,
        host: host.trim(),
        port: Number(port),
        instrumentId: role === 'load' ? null : instrumentId,
      },
    });
    if (answer.error === undefined) {
      setName('');
      setHost('');
    }
  }
  return (
    <form
      className="sweep-fields"
      style={{ marginTop: 12 }}
      onSubmit={(event) => {
        event.preventDefault();
        void send();
      }}
    >
      <label className="field">
        <span className="name">Name</span>
        <Input value={name} maxLength={60} onChange={(event) => setName(event.target.value)} />
        {errorAt('name')}
      </label>
      <label className="field">
        <span className="name">It is a</span>
        <Select
          aria-label="It is a"
          value={role}
          onChange={(picked) => setRole(picked === 'load' ? 'load' : 'meter')}
          options={[
            { value: 'meter', label: 'meter' },
            { value: 'load', label: 'electronic load' },
          ]}
        />
      </label>
      <label className="field">
        <span className="name">Address</span>
        <Input
          className="fig"
          value={host}
          placeholder="192.168.1.40"
          onChange={(event) => setHost(event.target.value)}
        />
        {errorAt('host')}
      </label>
      <label className="field">
        <span className="name">Port</span>
        <Input className="fig" inputMode="numeric" value={port} onChange={(event) => setPort(event.target.value)} />
        {errorAt('port')}
      </label>
      {role === 'meter' ? (
        <label className="field">
          <span className="name">Judged as</span>
          <Select
            aria-label="Judged as"
            value={instrumentId}
            onChange={(picked) => setInstrument(picked)}
            options={[...shop.instruments.map((item) => ({ value: item.id, label: item.name }))]}
          />
          {errorAt('instrumentId')}
        </label>
      ) : (
        <span />
      )}
      <Button htmlType="submit" disabled={name.trim() === '' || host.trim() === '' || state.isLoading}>
        Add
      </Button>
    </form>
  );
}
